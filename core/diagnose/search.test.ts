import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, type Camera } from '../camera/frame';
import { codecOf } from '../conventions/codec';
import { presets } from '../conventions/conventions';
import { radians } from '../math/angle';
import { mat4, multiply, type Mat4 } from '../math/mat4';
import type { Vec3 } from '../math/vec3';
import { rightMatrices, type Intended } from './engine';
import { givenNames, type MatrixName } from './faults';
import { invert4 } from '../math/invert';
import type { Given, Instance } from './given';
import { affects, Engine, explainingSets, instancesFor } from './search';
import { runs } from '../testing/seed';

const real = (min: number, max: number) =>
  fc.integer({ min: 0, max: 65536 }).map((v) => min + ((max - min) * v) / 65536);
const sign = fc.constantFrom(-1, 1);
/** Away from 0 by at least so much: a fault of what is nothing shows nowhere. */
const apart = (least: number, most: number) => fc.tuple(sign, real(least, most)).map(([s, v]) => s * v);

const viewport = { x: 7, y: 3, width: 1280, height: 720 };
const intendeds: fc.Arbitrary<Intended> = fc
  .record({
    conventions: fc.constantFrom(...Object.values(presets)),
    position: fc.tuple(apart(1, 40), apart(1, 40), apart(1, 40)),
    yaw: apart(10, 80),
    pitch: apart(10, 60),
    roll: apart(5, 40),
    fov: real(25, 80),
    near: real(0.2, 2),
    far: real(40, 300),
    shift: fc.tuple(apart(0.05, 0.4), apart(0.05, 0.4)),
  })
  .map(({ conventions, position, yaw, pitch, roll, fov, near, far, shift }) => {
    const e = codecOf(conventions);
    const angles = { yaw: radians(yaw), pitch: radians(pitch), roll: radians(roll) };
    const camera: Camera = {
      position: position as unknown as Vec3,
      orientation: { kind: 'angles', ...angles },
      projection: { kind: 'perspective', near, far, lens: { verticalFov: radians(fov) }, shift: [...shift] },
    };
    const made = frameOf(camera, viewport);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const field = { kind: 'verticalFov', number: e.toAngle(radians(fov)) } as const;
    return { frame: made.value, e, angles, plainUp: false, field, isFrustum: false, devicePixelRatio: 2 };
  });

/** As a float prints it. */
const float = (m: Mat4): Mat4 => mat4(m.map((v) => Number(Math.fround(v).toPrecision(7))));
const names: readonly MatrixName[] = ['view', 'cameraToWorld', 'projection', 'viewProjection'];
const worlds = (intended: Intended): Vec3[] => {
  const { eye, forward, right, up } = intended.frame;
  return [[0.3, 0.1, 8], [-0.2, 0.25, 14], [0.1, -0.3, 22], [-0.25, -0.15, 31]].map(([a, b, f]) => intended.e.toWorld(eye.map((v, i) => v + f! * (forward[i]! + a! * right[i]! + b! * up[i]!)) as unknown as Vec3)); // prettier-ignore
};

/** What an engine gives that commits some faults. */
function givenBy(intended: Intended, faults: readonly Instance[], what: readonly string[]): Given | null {
  const engine = new Engine(intended, []);
  const matrices: Partial<Record<MatrixName, Mat4>> = {};
  for (const name of names) {
    if (!what.includes(name)) continue;
    const made = engine.matrix(name, faults)[0];
    if (!made || made.some((v) => !Number.isFinite(v) || Math.abs(v) > 1e6)) return null;
    matrices[name] = float(made);
  }
  const places = what.includes('points') ? worlds(intended) : [];
  const printed = engine.points(
    places.map((world) => ({ world, screen: [0, 0], depth: null })),
    faults,
  );
  if (printed.some((one) => one === null)) return null;
  const points = places.map((world, i) => ({ world, screen: printed[i]!.screen, depth: printed[i]!.depth }));
  return { matrices, points, digits: 6 };
}
const everything = [...givenNames];

describe('the search for faults', () => {
  it('finds nothing wrong with right numbers, as a float prints them', () => {
    fc.assert(
      fc.property(intendeds, fc.subarray(everything, { minLength: 1 }), (intended, what) => {
        const given = givenBy(intended, [], what)!;
        expect(explainingSets(new Engine(intended, []), given)).toEqual({ agrees: true, wrong: [], sets: [] });
      }),
      { numRuns: runs(60) },
    );
  });

  it('finds every fault alone, wherever it is committed, and says of what', () => {
    const found = new Set<string>();
    fc.assert(
      fc.property(intendeds, fc.nat(), (intended, n) => {
        const all = instancesFor(intended, givenBy(intended, [], everything)!, []);
        const fault = all[n % all.length]!;
        const given = givenBy(intended, [fault], everything);
        if (!given) return;
        const { agrees, wrong, sets } = explainingSets(new Engine(intended, []), given);
        if (agrees) return;
        found.add(fault.fault);
        for (const thing of wrong) expect(affects(fault)).toContain(thing);
        const said = sets.map(({ faults }) => faults.map((one) => `${one.fault}@${one.place}`).join('+'));
        expect(said, `${fault.fault} at ${fault.place}`).toContain(`${fault.fault}@${fault.place}`);
        for (const { faults } of sets) expect(faults).toHaveLength(1);
      }),
      { numRuns: runs(400) },
    );
    expect(found.size).toBeGreaterThan(30);
  });

  it('finds two faults that are not one, and explains no numbers that come of nothing', () => {
    let pairs = 0;
    fc.assert(
      fc.property(intendeds, fc.nat(), fc.nat(), (intended, n, m) => {
        const all = instancesFor(intended, givenBy(intended, [], everything)!, []);
        const [a, b] = [all[n % all.length]!, all[m % all.length]!];
        const given = a.fault === b.fault ? null : givenBy(intended, [a, b], ['view', 'projection', 'viewProjection']);
        if (!given) return;
        const { agrees, sets } = explainingSets(new Engine(intended, []), given);
        if (agrees || !sets.length || sets[0]!.faults.length < 2) return;
        pairs++;
        expect(sets.some(({ faults }) => faults.every((one) => [a, b].some((own) => own.fault === one.fault)))).toBe(true); // prettier-ignore
      }),
      { numRuns: runs(60) },
    );
    expect(pairs).toBeGreaterThan(runs(3));
    fc.assert(
      fc.property(intendeds, fc.array(apart(0.1, 5), { minLength: 16, maxLength: 16 }), (intended, numbers) => {
        const given: Given = { matrices: { viewProjection: mat4(numbers) }, points: [], digits: 6 };
        expect(explainingSets(new Engine(intended, []), given)).toMatchObject({ agrees: false, sets: [] });
      }),
      { numRuns: runs(20) },
    );
  });
});

it('a matrix times its inverse is the identity, and what flattens has none', () => {
  fc.assert(
    fc.property(intendeds, (intended) => {
      for (const m of Object.values(rightMatrices(intended))) {
        const back = invert4(m);
        if (!back) throw new Error('a proper camera can be undone');
        multiply(m, back).forEach((v, i) => expect(v).toBeCloseTo(i % 5 === 0 ? 1 : 0, 6));
      }
    }),
  );
  expect(invert4(mat4([1, 2, 3, 4, 2, 4, 6, 8, 0, 0, 1, 0, 0, 0, 0, 1]))).toBeNull();
});
