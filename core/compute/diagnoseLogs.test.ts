import { describe, expect, it } from 'vitest';
import {
  ask,
  camera,
  cross,
  dot,
  eye,
  fov,
  forward,
  lens,
  list,
  names,
  negated,
  projection,
  rowsOfView,
  times,
  turnedOver,
  unit,
  view,
  viewport,
  type V,
} from '../testing/handCamera';
import { compute } from './compute';

/** Faults as real logs show them: several at once, some of another camera, and matrices of unknown listing. */

type M = readonly (readonly number[])[];
const near = 0.5;
const far = 80;
/** A projection for −z ahead with the depths of near and far, and w = −z. */
const lensTo = (zn: number, zf: number, n = near, f = far): M => {
  const slope = (zf * f - zn * n) / (f - n);
  const constant = ((zn - zf) * f * n) / (f - n);
  return lens(fov, 16 / 9).map((row, r) => (r === 2 ? [0, 0, -slope, constant] : row));
};
/** Written for +z ahead: the third column negated. */
const otherHanded = (m: M): M => m.map((row) => row.map((v, c) => (c === 2 ? -v : v)));
/** The view of a camera turned by some degrees about the vertical. */
function turnedView(degrees: number): M {
  const [s, c] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  const ahead: V = [forward[0] * c - forward[2] * s, forward[1], forward[0] * s + forward[2] * c];
  const across = unit(cross(ahead, [0, 1, 0]));
  return rowsOfView(across, cross(across, ahead), ahead.map((v) => -v) as unknown as V);
}
const conventions = (zn: number, zf: number) => ({ ndc: { near: zn, far: zf }, screen: { origin: 'bottom-left' } });
function asked(ndc: readonly [number, number], queries: object[], more: object = {}) {
  const made = compute({ astrolabe: 1, conventions: conventions(...ndc), viewport, camera, ...more, queries });
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  return made.response.results[0] as unknown as ReturnType<typeof ask> & Record<string, never>;
}
const diagnosed = (ndc: readonly [number, number], given: object, more: object = {}) =>
  asked(ndc, [{ id: 'd', op: 'diagnose', given, ...more }]);

describe('a projection for the other handedness of view space', () => {
  it.each([
    [-1, 1],
    [0, 1],
    [1, 0],
  ] as const)('is named for depths %d…%d', (zn, zf) => {
    const right = lensTo(zn, zf);
    const wrong = otherHanded(right);
    expect(diagnosed([zn, zf], { view: list(view), projection: list(right) }).verdict).toBe('agrees');
    const both = diagnosed([zn, zf], { view: list(view), projection: list(wrong) });
    expect(names(both)).toEqual(['projection projectionOtherHanded']);
    expect(
      names(
        diagnosed([zn, zf], { view: list(view), projection: list(right), viewProjection: list(times(wrong, view)) }),
      ),
    ).toContain('viewProjection projectionOtherHanded');
    const alone = diagnosed([zn, zf], { viewProjection: list(times(wrong, view)) });
    expect(names(alone)[0]).toBe('viewProjection projectionOtherHanded');
    expect(names(alone)).toContain('viewProjection aheadNegated');
    // Near, far and the field of view are those that were typed.
    expect(both.decomposed.lens).toMatchObject({
      near: expect.closeTo(0.5, 6),
      far: expect.closeTo(80, 6),
      verticalFov: expect.closeTo(50, 6),
    });
  });

  it('is named for points alone, with the ahead row negated as its equal', () => {
    const whole = times(otherHanded(projection), view);
    const points = [
      [0, 1, 0],
      [1, 0, -3],
      [-2, 2, 1],
      [0.5, 0.2, -6],
    ].map((p) => {
      const [x, y, z, w] = whole.map((row) => row.reduce((sum, v, i) => sum + v * [...p, 1][i]!, 0)) as [
        number,
        number,
        number,
        number,
      ];
      return {
        world: p,
        screen: [viewport.x + ((x / w + 1) / 2) * viewport.width, viewport.y + ((y / w + 1) / 2) * viewport.height],
        depth: (z / w + 1) / 2,
      };
    });
    const found = names(ask({ points }));
    expect(found[0]).toBe('points projectionOtherHanded');
    expect(found).toContain('points aheadNegated');
  });
});

describe('another camera with known faults', () => {
  it('a view of another direction does not hide a fault of the projection', () => {
    const turned = turnedView(1.5);
    for (const given of [
      { view: list(turned), projection: list(lensTo(0, 1)) },
      { view: list(turned), viewProjection: list(times(lensTo(0, 1), turned)) },
      { viewProjection: list(times(lensTo(0, 1), turned)) },
    ]) {
      const answer = ask(given);
      const [first] = answer.explanations;
      expect(first!.faults.map(({ fault }) => fault)).toEqual(['differs', 'depthRangeOther']);
      expect(first!.faults[0]!.what!.map(({ name }) => name)).toEqual(['orientation']);
      expect(first!.residual).toBeLessThan(0.05);
      expect(answer.decomposed.lens).toMatchObject({ near: expect.closeTo(0.5, 4), far: expect.closeTo(80, 2) });
    }
  });

  it('two faults of the projection are found beside it, and one of the view beside another lens', () => {
    const turned = turnedView(-4);
    const twice = negated(lensTo(0, 1), 1);
    const [two] = ask({ view: list(turned), projection: list(twice) }).explanations;
    expect(two!.faults.map(({ where, fault }) => `${where} ${fault}`).sort()).toEqual([
      'projection depthRangeOther',
      'projection yFlipped',
      'view differs',
    ]);
    const [lensDiffers] = ask({
      view: list(negated(view, 0)),
      projection: list(lens(0.6, 16 / 9, 0.7, 90)),
    }).explanations;
    expect(lensDiffers!.faults.map(({ where, fault }) => `${where} ${fault}`).sort()).toEqual([
      'projection differs',
      'view rightNegated',
    ]);
  });

  it('a stale view is named beside two faults of the projection', () => {
    const stale = turnedView(2);
    const [s, c] = [Math.sin(Math.PI / 90), Math.cos(Math.PI / 90)];
    const ahead = [forward[0] * c - forward[2] * s, forward[1], forward[0] * s + forward[2] * c];
    const others = [
      { name: 'two frames ago', camera: { ...camera, orientation: { lookAt: ahead.map((v, i) => v + eye[i]!) } } },
    ];
    const answer = ask({ view: list(stale), projection: list(negated(lensTo(0, 1), 1)) }, { others });
    const said = answer.explanations[0]!.faults;
    expect(said.map(({ fault }) => fault).sort()).toEqual(['depthRangeOther', 'otherCamera', 'yFlipped']);
    expect(said.find(({ fault }) => fault === 'otherCamera')!.which).toBe('two frames ago');
  });
});

describe('residuals', () => {
  const worlds = [[0, 1, 0], [1, 0, -3], [-2, 2, 1], [0.5, 0.2, -6]] as const; // prettier-ignore
  const whole = times(projection, view);
  const pixels = (divided: boolean, off: number) =>
    worlds.map((p) => {
      const [x, y, , w] = whole.map((row) => dot(row.slice(0, 3) as unknown as V, p) + row[3]!) as [
        number,
        number,
        number,
        number,
      ];
      const k = divided ? w : 1;
      return {
        world: [...p],
        screen: [
          viewport.x + ((x / k + 1) / 2) * viewport.width + off,
          viewport.y + ((y / k + 1) / 2) * viewport.height + off,
        ],
      };
    });
  it('are measured on the points, whatever matrices are beside them', () => {
    const given = { view: list(view), projection: list(projection) };
    const half = ask({ ...given, points: pixels(true, 0.5) });
    expect(names(half)).toEqual(['points halfPixel']);
    expect(half.residual).toBeCloseTo(Math.SQRT1_2, 3);
    expect(half.explanations[0]!.residual).toBeLessThan(0.01);
    const { residuals } = half as unknown as { residuals: Record<string, number> };
    expect(Object.keys(residuals)).toEqual(['view', 'projection', 'points']);
    expect(residuals['view']).toBeLessThan(0.01);
    expect(residuals['points']).toBeCloseTo(Math.SQRT1_2, 3);
    const undivided = ask({ ...given, points: pixels(false, 0) });
    expect(undivided.residual).toBeGreaterThan(1000);
    expect(names(undivided)).toEqual(['points notDivided']);
  });
});

describe('a matrix of unknown listing', () => {
  const unknown = { listingUnknown: ['viewProjection'] };
  it('is taken the way that needs fewer faults, right and with a fault', () => {
    const right = times(projection, view);
    for (const m of [right, turnedOver(right)])
      expect(ask({ viewProjection: list(m) }, unknown).verdict).toBe('agrees');
    const flipped = negated(right, 1);
    for (const m of [flipped, turnedOver(flipped)])
      expect(names(ask({ viewProjection: list(m) }, unknown))).toContain('viewProjection yFlipped');
    // The listing is no question of a request that does not ask for it.
    expect(names(ask({ viewProjection: list(turnedOver(right)) }))[0]).toBe('viewProjection transposed');
  });
  it('has both explanations where as many faults are needed', () => {
    // The identity is its own transpose.
    const { explanations } = ask({ viewProjection: list([[1, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]]) }, unknown); // prettier-ignore
    expect(explanations.map(({ faults }) => faults.map(({ fault }) => fault))).toEqual([['identity'], ['identity']]);
  });
});

describe('identify with unknown world axes', () => {
  // A left-handed, z-up world: x right, y ahead negated, so that the camera's axes are over other names.
  const toLeftHanded = (v: V): V => [v[0], v[2], v[1]];
  const rows = (r: V, u: V, f: V, e: V): M => [
    [...r, -dot(r, e)],
    [...u, -dot(u, e)],
    [...f, -dot(f, e)],
    [0, 0, 0, 1],
  ];
  const across = unit(cross(forward, [0, 1, 0]));
  const up = cross(across, forward);
  const named = rows(toLeftHanded(across), toLeftHanded(up), toLeftHanded(forward), toLeftHanded(eye));
  // Reversed depth for +z ahead, row vectors.
  const reversed = otherHanded(lensTo(1, 0));
  interface Found {
    readonly candidates: readonly {
      readonly conventions: {
        readonly world: Record<string, string>;
        readonly view: Record<string, string>;
        readonly ndc: object;
        readonly matrix: object;
      };
      readonly camera: { readonly position: number[] };
      readonly digits: Record<string, number>;
    }[];
    readonly decided: Record<string, unknown>;
    readonly open: readonly {
      readonly name: string;
      readonly values: readonly { readonly world: Record<string, string>; readonly number: number }[];
    }[];
  }
  const identified = (given: object, more: object = {}) =>
    asked([-1, 1], [{ id: 'i', op: 'identify', given, ...more }]) as unknown as Found;

  it('finds up, handedness, depth and listing of a log in conventions that nobody set', () => {
    const given = { view: list(turnedOver(named)), projection: list(turnedOver(reversed)) };
    const { candidates, decided, open } = identified(given);
    expect(candidates[0]!.conventions).toMatchObject({
      view: { right: '+x', up: '+y', forward: '+z' },
      ndc: { near: 1, far: 0 },
    });
    expect(candidates[0]!.conventions.world['up']).toBe('+z');
    candidates[0]!.camera.position.forEach((v, i) => expect(v).toBeCloseTo(toLeftHanded(eye)[i]!, 4));
    expect(decided).toMatchObject({
      worldUp: '+z',
      worldHandedness: expect.any(String),
      matrix: { storage: 'row-major' },
    });
    const world = open.find(({ name }) => name === 'world')!;
    expect(new Set(world.values.slice(0, 4).map((one) => one.world['forward']))).toEqual(
      new Set(['+x', '-x', '+y', '-y']),
    );
    // Every candidate gives the numbers back.
    for (const { conventions: c, camera: own } of candidates.slice(0, 4)) {
      const back = compute({
        astrolabe: 1,
        conventions: c,
        viewport,
        camera: own,
        queries: [{ id: 'm', op: 'matrices' }],
      });
      if (!back.ok) throw new Error(JSON.stringify(back.problem));
      const { view: again } = back.response.results[0] as unknown as { view: number[] };
      again.forEach((v, i) => expect(v).toBeCloseTo(given.view[i]!, 4));
    }
  });
  it('keeps the axes of the request where they are given', () => {
    const { candidates } = identified({ view: list(view) }, { world: 'given' });
    for (const { conventions: c } of candidates) expect(c.world['up']).toBe('+y');
  });
  it('counts the figures that the digits support', () => {
    const projected = { projection: list(lensTo(0, 1, 0.1, 2000)).map((v) => Number(v.toFixed(6))) };
    const made = compute({
      astrolabe: 1,
      conventions: conventions(0, 1),
      viewport,
      camera,
      queries: [{ id: 'd', op: 'diagnose', given: projected }],
    });
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    const { decomposed } = made.response.results[0] as unknown as {
      decomposed: { lens: { near: number; far: number; digits: Record<string, number> } };
    };
    const { far: read, digits } = decomposed.lens;
    const unit = 10 ** (Math.floor(Math.log10(read)) + 1 - digits['far']!);
    expect(digits['far']).toBeLessThan(3);
    expect(Math.abs(read - 2000)).toBeLessThan(unit);
    expect(digits['near']).toBeGreaterThanOrEqual(4);
  });
});
