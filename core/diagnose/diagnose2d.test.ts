import { describe, expect, it } from 'vitest';
import { applyAffine, fitAffine, invertAffine } from '../request/affine2d';
import { compute } from '../compute/compute';
import type { Vec2 } from '../math/vec3';
import { case2dBy } from '../testing/case2d';
import { runs } from '../testing/seed';
import { dice } from '../testing/wrongEngine';
import { matrixNumbers } from '../request/affineMatrices';
import { diagnose2d, type Diagnosis2d, type Given2d } from './diagnose2d';
import { createEngine2d, faultNames2d, instancesOf2d, type Instance2d, type Intended2d } from './engine2d';

const rounded = (v: number, digits: number) => Number(v.toPrecision(digits));

/** What an engine with faults prints, to some digits: matrices of a count of numbers, and points. */
function printed(intended: Intended2d, faults: readonly Instance2d[], count: 6 | 9 | 16, digits = 7) {
  const engine = createEngine2d(intended, faults);
  const isByColumns = intended.codec.listsColumns !== engine.isTransposed;
  const listed = (name: 'worldToPixel' | 'pixelToWorld') => matrixNumbers(engine[name]!, count, isByColumns).map((v) => rounded(v, digits)); // prettier-ignore
  const back = invertAffine(createEngine2d(intended, []).points!)!;
  const { x, y, width, height } = intended.viewport;
  const worlds = [[0.1, 0.2], [0.8, 0.3], [0.4, 0.9], [0.6, 0.55]].map(([u, v]): Vec2 => applyAffine(back, [x + u! * width, y + v! * height])); // prettier-ignore
  return {
    worldToPixel: listed('worldToPixel'),
    pixelToWorld: listed('pixelToWorld'),
    points: worlds.map((world) => ({ world, screen: applyAffine(engine.points!, world).map((v) => rounded(v, digits)) as unknown as Vec2 })), // prettier-ignore
  };
}
type Printed = ReturnType<typeof printed>;
const given = ({ worldToPixel, pixelToWorld, points }: Partial<Printed>): Given2d => ({
  matrices: { ...(worldToPixel && { worldToPixel }), ...(pixelToWorld && { pixelToWorld }) },
  points: points ?? [],
  digits: 6,
});
const names = ({ explanations: [first] }: Diagnosis2d): string[] =>
  first ? [first.faults, ...first.equivalent].map((set) => set.map(({ fault }) => fault).join('+')) : [];

describe('diagnose in 2D', () => {
  it('agrees with right numbers of 6, 9 and 16, in random conventions', () => {
    for (let seed = 1; seed <= runs(40); seed++) {
      const intended = case2dBy(seed);
      for (const count of [6, 9, 16] as const)
        expect(diagnose2d(intended, given(printed(intended, [], count)), [], null).verdict, `${seed}`).toBe('agrees');
    }
  });

  it('agrees with the identity, and is exact to the digits of small entries beside large ones', () => {
    // The first case whose world and screen grow the same ways: its linear part is the identity.
    const { codec, viewport } = Array.from({ length: 60 }, (_, i) => case2dBy(i + 1)).find(({ codec: { conventions: c } }) => c.world.right[0] === '+' && (c.world.up[0] === '+') === (c.screen.origin === 'bottom-left'))!; // prettier-ignore
    for (const [zoom, anchor] of [
      [1, [0, 0]],
      [0.001, [640, 360]],
    ] as const) {
      // prettier-ignore
      const camera = { kind: '2d', focus: [0, 0], anchor: [...anchor], zoom, rotation: 0, snap: 'none' } as Intended2d['camera']; // prettier-ignore
      const intended = { camera, viewport, codec };
      const right = printed(intended, [], 6);
      for (const name of ['worldToPixel', 'pixelToWorld'] as const) {
        expect(diagnose2d(intended, given({ [name]: right[name] }), [], null).verdict, `${zoom} ${name}`).toBe(
          'agrees',
        );
        const off = right[name].map((v) => v * 1.001);
        expect(diagnose2d(intended, given({ [name]: off }), [], null).verdict, `${zoom} ${name}`).not.toBe('agrees');
      }
    }
  });

  it('names every fault from what shows it, alone and among right numbers', () => {
    const seen = new Set<string>();
    for (let seed = 1; seed <= runs(30); seed++) {
      const intended = case2dBy(seed);
      for (const one of instancesOf2d(intended, 2)) {
        const all = printed(intended, [one], ([6, 9, 16] as const)[seed % 3]!);
        for (const parts of [
          { worldToPixel: all.worldToPixel },
          { pixelToWorld: all.pixelToWorld },
          { points: all.points },
          all,
        ]) {
          // prettier-ignore
          const found = diagnose2d(intended, given(parts), [], 2);
          if (found.verdict === 'agrees') continue;
          seen.add(one.fault);
          expect(names(found), `${seed} ${one.fault} ${Object.keys(parts).join()}`).toContain(one.fault);
        }
      }
    }
    expect([...seen].sort()).toEqual([...faultNames2d].sort());
  });

  it('explains two faults by a set of two that gives the same numbers', () => {
    const d = dice(99);
    for (let seed = 1; seed <= runs(12); seed++) {
      const intended = case2dBy(seed);
      const all = instancesOf2d(intended, null).filter(({ fault }) => fault !== 'devicePixelRatio' && fault !== 'inverted' && fault !== 'transposed'); // prettier-ignore
      const pair = [d.of(all), d.of(all)];
      const { worldToPixel, points } = printed(intended, pair, 6);
      const found = diagnose2d(intended, given({ worldToPixel, points }), [], null);
      expect(['agrees', 'explained'], `${seed} ${pair.map(({ fault }) => fault).join()}`).toContain(found.verdict);
      expect(found.explanations.every(({ faults }) => faults.length <= 2)).toBe(true);
    }
  });

  it('reads another proper camera off the numbers, and names it where it is known', () => {
    for (let seed = 1; seed <= runs(20); seed++) {
      const intended = case2dBy(seed);
      const { camera, codec } = intended;
      const other: Intended2d = {
        ...intended,
        camera: { ...camera, focus: [camera.focus[0] + 3.25, camera.focus[1] - 1.5], zoom: camera.zoom * 1.37, rotation: camera.rotation + codec.toAngle(0.2) }, // prettier-ignore
      };
      const parts = { worldToPixel: printed(other, [], 6).worldToPixel };
      const found = diagnose2d(intended, given(parts), [], null);
      expect(names(found)).toEqual(['differs']);
      expect(found.explanations[0]!.faults[0]!.what!.map(({ name }) => name)).toEqual(['position', 'zoom', 'rotation']);
      expect(found.decomposed!.zoom / other.camera.zoom).toBeCloseTo(1, 4);
      expect(found.decomposed!.isUniform).toBe(true);
      expect(names(diagnose2d(intended, given(parts), [{ name: 'Chart', intended: other }], null))).toEqual(['otherCamera']); // prettier-ignore
    }
  });

  it('says that no camera has numbers that are none', () => {
    const intended = case2dBy(1);
    const sheared = diagnose2d(intended, given({ worldToPixel: [2, 1, 5, 0.3, 7, -4] }), [], null);
    expect(sheared).toMatchObject({ verdict: 'unexplained', explanations: [] });
    expect(sheared.decomposed!.isUniform).toBe(false);
    expect(diagnose2d(intended, given({ worldToPixel: [0, 0, 5, 0, 0, -4] }), [], null).decomposed).toBeNull();
    expect(fitAffine([{ world: [0, 0], screen: [1, 1] }, { world: [1, 1], screen: [2, 2] }, { world: [2, 2], screen: [3, 3] }])).toBeNull(); // prettier-ignore
  });

  it('answers as an operation, and rejects numbers of the other kind of camera with the field', () => {
    const intended = case2dBy(4);
    const { worldToPixel } = printed(intended, [{ fault: 'rotationNegated' }], 9);
    const ask = (numbers: object, more: object = {}) => compute({ ...intended.request, queries: [{ id: 'd', op: 'diagnose', given: numbers, ...more }] }); // prettier-ignore
    const answered = ask({ worldToPixel });
    if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
    expect(answered.response.results[0]).toMatchObject({ verdict: 'explained', explanations: [{ faults: [{ where: 'worldToPixel', fault: 'rotationNegated' }] }] }); // prettier-ignore
    const errors = (numbers: object, more: object = {}) => {
      const answer = ask(numbers, more);
      return answer.ok ? [] : answer.problem.errors.map(({ path }) => path);
    };
    expect(errors({ view: Array<number>(16).fill(1) })).toEqual(['queries[0].given.view']);
    expect(errors({ points: [{ world: [1, 2, 3], screen: [1, 2] }] })).toEqual(['queries[0].given.points[0].world']);
    expect(errors({ worldToPixel: [1, 2, 3] })[0]).toContain('given.worldToPixel');
    const camera = { position: [0, 0, 0], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 1, far: 9, verticalFov: 1 } }; // prettier-ignore
    expect(errors({ worldToPixel }, { others: [{ name: 'b', camera }] })).toEqual(['queries[0].others[0].camera']);
  });

  it('identifies the camera of a matrix by itself, and says what is open', () => {
    for (let seed = 1; seed <= runs(20); seed++) {
      const intended = case2dBy(seed);
      const { camera, codec, request } = intended;
      const { worldToPixel } = printed(intended, [], 6);
      const { camera: _, ...bare } = request as { camera: unknown };
      const answered = compute({ ...bare, queries: [{ id: 'i', op: 'identify', given: { worldToPixel } }] });
      if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
      const { candidates, open } = answered.response.results[0] as unknown as { candidates: { conventions: typeof codec.conventions; camera: typeof camera }[]; open: { name: string }[] }; // prettier-ignore
      const own = candidates.find(({ conventions }) => conventions.world.up === codec.conventions.world.up && conventions.matrix.storage === codec.conventions.matrix.storage)!; // prettier-ignore
      expect(own.camera.zoom / camera.zoom, `${seed}`).toBeCloseTo(1, 4);
      expect(Math.cos(codec.fromAngle(own.camera.rotation - camera.rotation))).toBeCloseTo(1, 6);
      expect(open.map(({ name }) => name)).toContain('anchor');
    }
    const none = compute({ astrolabe: 1, viewport: { width: 100, height: 100 }, queries: [{ id: 'i', op: 'identify', given: { worldToPixel: [1, 2, 3, 4, 5, 6] } }] }); // prettier-ignore
    expect(none).toMatchObject({ ok: true, response: { results: [{ candidates: [], reason: 'notACamera' }] } });
  });
});
