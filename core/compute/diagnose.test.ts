import { describe, expect, it } from 'vitest';
import {
  dot,
  cross,
  unit,
  eye,
  target,
  forward,
  right,
  up,
  back,
  list,
  rowsOfView,
  view,
  lens,
  fov,
  projection,
  times,
  turnedOver,
  negated,
  camera,
  viewport,
  ask,
  names,
  type V,
} from '../testing/handCamera';
import { compute } from './compute';

describe('diagnose', () => {
  it('has nothing to say of right numbers', () => {
    const answer = ask({
      view: list(view),
      projection: list(projection),
      viewProjection: list(times(projection, view)),
    });
    expect(answer).toMatchObject({ verdict: 'agrees', explanations: [] });
    expect(answer.residual!).toBeLessThan(0.01);
    answer.decomposed.pose!.position.forEach((v, i) => expect(v).toBeCloseTo(eye[i]!, 4));
    expect(answer.decomposed.lens!.verticalFov).toBeCloseTo(50, 4);
    expect(answer.decomposed.lens!.near).toBeCloseTo(0.5, 4);
    expect(answer.decomposed.lens!.far).toBeCloseTo(80, 1);
  });

  const t = view.slice(0, 3).map((row) => row[3]!);
  const inverse = [[...right.map((_, i) => [right[i], up[i], back[i]]).flat().slice(0, 3), eye[0]], [right[1], up[1], back[1], eye[1]], [right[2], up[2], back[2], eye[2]], [0, 0, 0, 1]] as number[][]; // prettier-ignore
  it.each<[string, object]>([
    ['view transposed', { view: list(turnedOver(view)) }],
    ['viewProjection transposed', { viewProjection: list(turnedOver(times(projection, view))) }],
    ['view inverted', { view: list(inverse) }],
    ['view identity', { view: list([[1, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, 0], [0, 0, 0, 1]]) }],
    ['viewProjection factorsSwapped', { viewProjection: list(times(view, projection)) }],
    ['view aheadNegated', { view: list(negated(view, 2)) }],
    ['view rightNegated', { view: list(negated(view, 0)) }],
    ['view translationNotNegated', { view: list(rowsOfView(right, up, back, [-t[0]!, -t[1]!, -t[2]!])) }],
    ['view translationNotRotated', { view: list(rowsOfView(right, up, back, [-eye[0], -eye[1], -eye[2]])) }],
    ['view translationMissing', { view: list(rowsOfView(right, up, back, [0, 0, 0])) }],
    ['view upNotSquare', { view: list(rowsOfView(right, [0, 1, 0], back)) }],
    ['view notNormalised', { view: list(rowsOfView(cross(forward, [0, 1, 0]), cross(cross(forward, [0, 1, 0]), forward), back)) }],
    ['view forwardNegated', { view: list(rowsOfView(right.map((v) => -v) as unknown as V, up, forward)) }],
    ['projection fovInOtherUnit', { projection: list(lens(50, 16 / 9)) }],
    ['projection halfAngleTwice', { projection: list(lens(fov / 2, 16 / 9)) }],
    ['projection halfAngleMissing', { projection: list(lens(2 * fov, 16 / 9)) }],
    ['projection fovAxis', { projection: list(lens(2 * Math.atan((Math.tan(fov / 2) * 9) / 16), 16 / 9)) }],
    ['projection aspectInverted', { projection: list(lens(fov, 9 / 16)) }],
    ['projection aspectMissing', { projection: list(lens(fov, 1)) }],
    ['projection yFlipped', { projection: list(negated(projection, 1)) }],
    ['projection wNegated', { projection: list(negated(projection, 3)) }],
    ['projection depthReversed', { projection: list(negated(projection, 2)) }],
    ['projection depthRangeOther', { projection: list([projection[0]!, projection[1]!, [0, 0, 80 / (0.5 - 80), (80 * 0.5) / (0.5 - 80)], projection[3]!]) }],
    ['projection farLeftOut', { projection: list([projection[0]!, projection[1]!, [0, 0, -1, -1], projection[3]!]) }],
    ['matrices transposed', { view: list(turnedOver(view)), projection: list(turnedOver(projection)) }],
    // Further down the chain the place is the first given thing that is wrong.
    ['viewProjection translationMissing', { viewProjection: list(times(projection, rowsOfView(right, up, back, [0, 0, 0]))) }],
    ['viewProjection aspectInverted', { viewProjection: list(times(lens(fov, 9 / 16), view)) }],
    ['view translationMissing', { view: list(rowsOfView(right, up, back, [0, 0, 0])), viewProjection: list(times(projection, rowsOfView(right, up, back, [0, 0, 0]))) }],
  ])('finds %s', (name, given) => {
    const answer = ask(given);
    expect(answer.verdict).toBe('explained');
    expect(names(answer)).toContain(name);
    expect(answer.explanations[0]!.mend).toMatch(/: .+\./);
    expect(answer.explanations[0]!.likelihood).toBeGreaterThan(0.9);
  }); // prettier-ignore

  it('finds two faults at once, each at its place', () => {
    const answer = ask({ view: list(rowsOfView(right, up, back, [0, 0, 0])), projection: list(lens(fov, 9 / 16)) });
    expect(names(answer)).toContain('view translationMissing + projection aspectInverted');
    expect(answer.residual!).toBeGreaterThan(100);
    expect(answer.explanations[0]!.residual).toBeLessThan(0.05);
    const both = ask({ viewProjection: list(negated(times(lens(fov, 1), view), 1)) });
    expect(names(both).some((one) => one.includes('aspectMissing') && one.includes('yFlipped'))).toBe(true);
  });

  const worlds: readonly V[] = [[0, 1, 0], [-3, 2, -6], [1.5, 0.25, 3], [-2, 3, 1]]; // prettier-ignore
  const screens = (
    change: (x: number, y: number, ndc: readonly number[], w: number) => readonly [number, number] = (x, y) => [x, y],
  ) =>
    // prettier-ignore
    worlds.map((world) => {
      const clip = times(projection, view).map((row) => row[0]! * world[0] + row[1]! * world[1] + row[2]! * world[2] + row[3]!); // prettier-ignore
      const w = clip[3]!;
      const ndc = clip.slice(0, 3).map((v) => v / w);
      const [x, y] = [10 + ((ndc[0]! + 1) / 2) * 1280, 5 + ((ndc[1]! + 1) / 2) * 720];
      return { world, screen: change(x, y, ndc, w).map((v) => Number(Math.fround(v).toPrecision(7))) };
    });
  it.each<[string, object]>([
    ['points yFlipped', { points: screens((x, y) => [x, 730 - y]) }],
    ['points halfPixel', { points: screens((x, y) => [x - 0.5, y - 0.5]) }],
    ['points devicePixelRatio', { points: screens((x, y) => [x / 2, y / 2]) }],
    ['points viewportOffset', { points: screens((x, y) => [x - 10, y - 5]) }],
    ['points viewportMissing', { points: screens((_, __, ndc) => [ndc[0]!, ndc[1]!]) }],
    ['points notDivided', { points: screens((_, __, ndc, w) => [10 + ((ndc[0]! * w + 1) / 2) * 1280, 5 + ((ndc[1]! * w + 1) / 2) * 720]) }],
  ])('finds %s', (name, given) => {
    const answer = ask(given, { devicePixelRatio: 2 });
    expect(names(answer)).toContain(name);
    expect(ask({ points: screens() })).toMatchObject({ verdict: 'agrees', decomposed: { pose: null, reason: 'notACamera' } }); // prettier-ignore
  }); // prettier-ignore

  it('knows another camera, says in what a proper one differs, and leaves the rest unexplained', () => {
    const other = { ...camera, position: [4.2, 3.5, 9] };
    const eyeOther: V = [4.2, 3.5, 9];
    const f = unit(target.map((v, i) => v - eyeOther[i]!) as unknown as V);
    const r = unit(cross(f, [0, 1, 0]));
    const u = cross(r, f);
    const b = f.map((v) => -v) as unknown as V;
    const stale = list([
      [...r, -dot(r, eyeOther)],
      [...u, -dot(u, eyeOther)],
      [...b, -dot(b, eyeOther)],
      [0, 0, 0, 1],
    ]);
    const known = ask({ view: stale }, { others: [{ name: 'the frame before', camera: other }] });
    expect(known.explanations[0]!.faults).toEqual([{ where: 'view', fault: 'otherCamera', which: 'the frame before' }]);
    const differs = ask({ view: stale });
    expect(differs.explanations[0]!.faults[0]).toMatchObject({ where: 'view', fault: 'differs' });
    expect(differs.explanations[0]!.faults[0]!.what!.map(({ name }) => name)).toEqual(['position', 'orientation']);
    const random = Array.from({ length: 16 }, (_, i) => Math.sin(7.3 * i + 1) * 3);
    expect(ask({ view: random })).toMatchObject({ verdict: 'unexplained', explanations: [] });
  });

  it('names the number that would decide between what is alike in what is given', () => {
    const [first] = ask({ viewProjection: list(times(projection, negated(view, 0))) }).explanations;
    const both = [first!.faults, ...first!.equivalent].map(([one]) => one!.fault);
    expect(both.sort()).toEqual(['rightNegated', 'xFlipped']);
    const [number] = (first as unknown as { decides: { where: string; row: number; column: number; values: number[] }[] }).decides;
    expect(number).toMatchObject({ where: 'view', row: 0 });
    expect(Math.abs(number!.values[0]!)).toBeCloseTo(Math.abs(view[0]![number!.column]!), 6);
    expect(number!.values[1]).toBeCloseTo(-number!.values[0]!, 6);
  }); // prettier-ignore

  it('is a problem without anything given, and has no meaning in 2D', () => {
    const request = (more: object) => ({ astrolabe: 1, viewport, camera, queries: [{ id: 'd', op: 'diagnose', ...more }] }); // prettier-ignore
    expect(compute(request({ given: {} }))).toMatchObject({ ok: false });
    expect(compute(request({ given: { view: [1, 2, 3] } }))).toMatchObject({ ok: false });
    const faulty = { ...camera, projection: { ...camera.projection, near: 90 } };
    expect(compute(request({ given: { view: list(view) }, others: [{ name: 'x', camera: faulty }] }))).toMatchObject({ ok: false, problem: { errors: [{ path: expect.stringContaining('queries[0].others[0].camera') }] } }); // prettier-ignore
  });
});

describe('identify', () => {
  interface Identified {
    candidates: { conventions: { view: { forward: string }; ndc: { near: number; far: number }; matrix: { storage: string } }; camera: { position?: number[]; projection?: { near: number; far: number; verticalFov: number } } }[];
    decided: { view?: object; ndc?: object; matrix?: object; position?: number[]; verticalFov?: number };
    open: { name: string; number: string; values: { number: number | number[] }[] }[];
    reason?: string;
  }
  const identified = (given: object, more: object = {}): Identified => {
    const made = compute({ astrolabe: 1, viewport, queries: [{ id: 'i', op: 'identify', given, ...more }] });
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    expect(made.response).toMatchObject({ camera: null, reason: 'cameraNotGiven' });
    return made.response.results[0] as unknown as Identified;
  };

  it('reads axes, depths and listing off the numbers, and leaves open what two depths both explain', () => {
    const { candidates, decided, open } = identified({ view: list(view), projection: list(projection) });
    // Near is a half for −1…1, which someone typed, and about a quarter for 0…1.
    expect(candidates[0]).toMatchObject({ conventions: { ndc: { near: -1, far: 1 } }, camera: { projection: { near: expect.closeTo(0.5, 4), far: expect.closeTo(80, 1) } } });
    candidates[0]!.camera.position!.forEach((v, i) => expect(v).toBeCloseTo(eye[i]!, 4));
    expect(decided).toMatchObject({ view: { right: '+x', up: '+y', forward: '-z' }, matrix: { vectors: 'column', storage: 'column-major' }, verticalFov: expect.closeTo(50, 4) });
    expect(decided.ndc).toBeUndefined();
    expect(open).toMatchObject([{ name: 'ndc', number: 'near', values: [{ number: expect.closeTo(0.5, 4) }, { number: expect.closeTo(1, 1) }] }, { name: 'world', number: 'yaw' }]);
  });

  it('knows the transpose by where its translation stands', () => {
    const { candidates, decided } = identified({ view: list(turnedOver(view)), projection: list(turnedOver(projection)) });
    expect(candidates.length).toBeGreaterThan(0);
    expect(decided.matrix).toEqual({ vectors: 'column', storage: 'row-major' });
    expect(candidates[0]!.camera.position![0]).toBeCloseTo(eye[0], 4);
  });

  it('leaves the axes of a view alone open, with the place that decides, and finds a camera in no random numbers', () => {
    const { candidates, open } = identified({ view: list(view) }, { world: 'given' });
    expect(candidates).toHaveLength(24);
    expect(candidates[0]).toMatchObject({ conventions: { view: { right: '+x', up: '+y', forward: '-z' } } });
    expect(candidates[0]!.camera.projection).toBeUndefined();
    expect(open.map(({ name, number }) => [name, number])).toEqual([['view', 'viewOfPoint'], ['ndc', 'near']]);
    expect(open[0]!.values[0]!.number).toEqual([1, 2, -3]);
    const none = identified({ viewProjection: Array.from({ length: 16 }, (_, i) => Math.sin(7.3 * i + 1) * 3) });
    expect(none).toMatchObject({ candidates: [], open: [], reason: 'notACamera' });
    // Any other query needs a camera.
    expect(compute({ astrolabe: 1, viewport, queries: [{ id: 'i', op: 'identify', given: { view: list(view) } }, { id: 'm', op: 'matrices' }] })).toMatchObject({ ok: false, problem: { errors: [{ path: 'camera' }] } });
  });
}); // prettier-ignore
