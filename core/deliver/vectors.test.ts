import type { MatrixName } from '../diagnose/faults';
import { describe, expect, it } from 'vitest';
import {
  dice,
  listed,
  made,
  mistakesOf,
  pointsOf,
  requestOf,
  shotBy,
  type Mistake,
  type Shot,
} from '../testing/wrongEngine';
import { toRuf } from '../conventions/axes';
import type { Vec3 } from '../math/vec3';
import type { Answers } from './checkedRows';
import { checkAnswers } from './checkVectors';
import { faultWays, rightAnswer } from './detections';
import { codeParts3d } from './library';
import { vectorCamera } from './vectorCamera';
import { vectorsOf, type Vectors } from './vectors';
import { kindsOf } from './vectorKinds';
import { presets } from '../conventions/conventions';
import { runs } from '../testing/seed';

/** What an engine that commits a mistake answers to test vectors, as doubles. */
function answersOf(shot: Shot, vectors: Vectors, mistakes: readonly Mistake[]): Answers {
  const engine = made(shot, mistakes, true);
  const whole = made(shot, mistakes.filter(({ place }) => place !== 'matrices'), true).viewProjection;
  const answers = new Map<string, readonly number[] | null>();
  for (const { id, kind, input, expected } of vectors.rows) {
    if (kind === 'worldToScreen') {
      const ruf = toRuf(shot.c.world as never, input as unknown as Vec3);
      const [point] = pointsOf(shot, [ruf], whole, mistakes);
      answers.set(id, expected === null ? null : [...point!.screen, point!.depth]);
    } else if (matrices.includes(kind)) answers.set(id, listed(shot.c, engine[kind as MatrixName]));
    else answers.set(id, expected);
  }
  return answers;
} // prettier-ignore
const matrices: readonly string[] = ['view', 'projection', 'viewProjection', 'cameraToWorld'];

const vectorsBy = (shot: Shot, count: number, seed: number): Vectors => {
  const given = vectorsOf(requestOf(shot, []), count, seed);
  if (!given.ok) throw new Error(JSON.stringify(given.problem));
  return given.vectors;
};

describe('test vectors', () => {
  it('are the same by a seed, and right answers pass', () => {
    for (let seed = 1; seed <= runs(40); seed++) {
      const shot = shotBy(dice(seed));
      const of = (own: number) => vectorsOf(requestOf(shot, []), 12, own);
      const [one, again, other] = [of(5), of(5), of(6)];
      if (!one.ok || !again.ok || !other.ok) throw new Error('a proper camera');
      expect(again).toEqual(one);
      expect(other.vectors.rows[4]!.input).not.toEqual(one.vectors.rows[4]!.input);
      expect(one.vectors.rows.flatMap(({ input }) => input)).toSatisfy((list: number[]) => list.every(Number.isFinite));
      const { vectors } = one;
      const checked = checkAnswers(vectors, answersOf(shot, vectors, []), 1e-6);
      expect(checked.rows.filter(({ ok }) => !ok), `${seed}`).toEqual([]);
      expect(checked.explanations).toEqual([]);
    }
  });

  it('every fault that shows in numbers fails a row, and is suggested', () => {
    let [asked, named] = [0, 0];
    const seen = new Set<string>();
    for (let seed = 1; seed <= runs(24); seed++) {
      const d = dice(seed + 900);
      const shot = shotBy(d);
      const given = vectorsOf(requestOf(shot, []), 5, seed);
      if (!given.ok) throw new Error('a proper camera');
      for (const mistake of mistakesOf(shot)) {
        const answers = answersOf(shot, given.vectors, [mistake]);
        if ([...answers.values()].some((list) => list?.some((v) => !Number.isFinite(v) || Math.abs(v) > 1e25))) continue;
        const { wrong, explanations } = checkAnswers(given.vectors, answers, 1e-6);
        // What changes nothing of this camera is no fault of its numbers; what does must fail a row.
        const right = answersOf(shot, given.vectors, []);
        const off = [...answers].some(([id, list]) => list?.some((v, i) => Math.abs(v - right.get(id)![i]!) > 1e-3 * Math.max(1, ...list.map(Math.abs))));
        if (off) expect(wrong, `${seed} ${mistake.place} ${mistake.fault}`).toBeGreaterThan(0);
        if (!wrong) continue;
        seen.add(mistake.fault);
        // How many device pixels a pixel of the page has no camera says.
        if (mistake.fault === 'devicePixelRatio') continue;
        asked++;
        if (explanations.length) named++;
      }
    }
    expect(seen.size).toBeGreaterThan(32);
    expect(named / asked).toBeGreaterThan(0.97);
  }, 120_000);

  it('say what is off, what is missing, and what should have no picture', () => {
    const shot = shotBy(dice(3));
    const given = vectorsOf(requestOf(shot, []), 11, 1);
    if (!given.ok) throw new Error('a proper camera');
    const { vectors } = given;
    const right = answersOf(shot, vectors, []);
    const behind = vectors.rows.find(({ expected }) => expected === null);
    const changed = new Map(right);
    changed.set('point 1', right.get('point 1')!.map((v, i) => (i === 1 ? v + 3 : v)));
    changed.delete('ray 1');
    if (behind) changed.set(behind.id, [1, 2, 0]);
    const { rows, wrong } = checkAnswers(vectors, changed, 1e-6);
    expect(wrong).toBe(behind ? 3 : 2);
    expect(rows.find(({ id }) => id === 'point 1')!.says).toMatch(/^pixel y is .* instead of/);
    expect(rows.find(({ id }) => id === 'ray 1')!.says).toContain('no answer');
    if (behind) expect(rows.find(({ id }) => id === behind.id)!.says).toContain('behind the eye');
    expect(vectorsOf({ astrolabe: 1 }, 3, 1)).toMatchObject({ ok: false });
  });
}); // prettier-ignore

describe('rows of test vectors', () => {
  it('reach the whole depth range: next to near, next to far, and 10,000,000 near where far is infinite', () => {
    for (let seed = 1; seed <= runs(20); seed++) {
      const shot = { ...shotBy(dice(seed)), lens: 'verticalFov' as const, field: 1, far: seed % 2 ? null : 500 };
      const end = shot.far ?? shot.near * 1e7;
      const distances = vectorsBy(shot, 24, seed).rows.flatMap(({ kind, expected }) =>
        kind === 'worldToScreen' && expected ? [expected[3]!] : [],
      );
      expect(Math.min(...distances)).toBeLessThan(shot.near * (end / shot.near) ** 0.02);
      expect(Math.max(...distances)).toBeGreaterThan(end * (end / shot.near) ** -0.02);
      // Every tenth of the range, in the logarithm, has points.
      const shares = distances.map((d) => Math.log(d / shot.near) / Math.log(end / shot.near));
      const quarters = [0, 1, 2, 3].map((k) => shares.filter((share) => share * 4 >= k && share * 4 < k + 1).length);
      expect(Math.min(...quarters)).toBeGreaterThan(0);
    }
  });

  it('ask for every part of the code, and for the points that the request asks about', () => {
    const shot = { ...shotBy(dice(31)), lens: 'verticalFov' as const, field: 1 };
    const given = requestOf(shot, []) as object;
    const points = [[1, 2, 3], [4, 5, 6]]; // prettier-ignore
    const made = vectorsOf({ ...given, queries: [{ id: 'q', op: 'worldToScreen', points }] }, 3, 1);
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    const { rows } = made.vectors;
    expect(rows.filter(({ id }) => id.startsWith('point own')).map(({ input }) => input)).toEqual(points);
    for (const part of codeParts3d) {
      const others = kindsOf(['camera'], false);
      const kinds = kindsOf([part], false).filter((kind) => part === 'camera' || !others.includes(kind));
      if (part === 'spawn') continue;
      expect(rows.some(({ kind }) => kinds.includes(kind)), part).toBe(true);
    }
  });

  it.each([
    ['a part of the ground', -60, 120],
    ['the ground to the horizon', -5, null],
  ])('have rows of spawning where the camera sees %s, in view and out of it', (_, pitch, far) => {
    const camera = { position: [3, 20, 7], orientation: { yaw: 25, pitch }, projection: { kind: 'perspective', near: 0.5, far, verticalFov: 50 } }; // prettier-ignore
    const made = vectorsOf({ astrolabe: 1, viewport: { width: 1280, height: 720 }, camera, queries: [] }, 3, 1);
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    const rows = made.vectors.rows.filter(({ kind }) => kind === 'mayAppear');
    expect(new Set(rows.map(({ expected }) => expected![0]))).toEqual(new Set([0, 1]));
    for (const fault of ['spawnRadiusIgnored', 'spawnPaddingIgnored', 'spawnInverted'] as const)
      expect(rows.some(({ detects }) => detects!.includes(fault)), fault).toBe(true);
  });

  it('detect every fault that this camera can have, and none that changes no number', () => {
    for (let seed = 1; seed <= runs(20); seed++) {
      const shot = shotBy(dice(seed * 31));
      const { rows, undetected } = vectorsBy(shot, 24, seed);
      // A fault that leaves out a 0 or a 1 of this camera changes no number.
      const still = [
        ...(shot.shift[0] || shot.shift[1] ? [] : ['shiftLeftOut']),
        ...(shot.viewport.x || shot.viewport.y ? [] : ['viewportOffset', 'unprojectViewportOffset']),
        ...(shot.roll ? [] : ['rollNegated']),
        // An orthographic camera divides by 1, and has neither ghosts nor a dolly zoom.
        ...(shot.lens === 'orthographic' ? ['notDivided', 'ghosts', 'unprojectDistance', 'rayNotNormalised', 'boardByViewPlane', 'fovNotHalved', 'fovHeightNotHalved', 'fovResultInOtherUnit', 'heightHalved', 'keyHeightNotDivided'] : []), // prettier-ignore
        ...(shot.c.ndc.near > shot.c.ndc.far ? ['nearPlaneOtherDepthRange'] : []),
        ...(rows.some(({ kind }) => kind === 'mayAppear') ? [] : ['spawnRadiusIgnored', 'spawnPaddingIgnored', 'spawnInverted']), // prettier-ignore
      ];
      expect(undetected!.filter((fault) => !still.includes(fault)), `${seed} ${shot.lens}`).toEqual([]);
      const detectsOf = (id: string) => rows.find((row) => row.id === id)!.detects!;
      for (const fault of ['aspectInverted', 'depthReversed', 'halfPixel'] as const) expect(detectsOf('view')).not.toContain(fault);
      for (const fault of ['translationMissing', 'upNegated', 'halfPixel'] as const) expect(detectsOf('projection')).not.toContain(fault);
      for (const { kind, expected, detects } of rows) {
        if (expected === null) expect(detects!.filter((fault) => fault !== 'ghosts')).toEqual([]);
        if (kind === 'ray') expect(detects).not.toContain('farLeftOut');
      }
    }
  });

  it('explain every fault of a function, of the way back as well, by its name', () => {
    let [asked, named] = [0, 0];
    for (let seed = 1; seed <= runs(6); seed++) {
      const shot = { ...shotBy(dice(seed * 31)), shift: [0.1, -0.2] as const, viewport: { x: 12, y: 7, width: 1280, height: 720 } };
      const request = requestOf(shot, []);
      const camera = vectorCamera(request);
      if (!camera.ok) throw new Error(JSON.stringify(camera.problem));
      const vectors = vectorsBy(shot, 11, seed);
      for (const way of faultWays(camera.camera).filter(({ isOfCamera }) => !isOfCamera)) {
        const answers = new Map(vectors.rows.map((row) => [row.id, row.expected]));
        for (const { id, kind, input } of vectors.rows) {
          const wrong = way.kinds!.includes(kind) ? way.answer(kind, input) : undefined;
          if (wrong !== undefined) answers.set(id, wrong);
        }
        const { wrong, explanations } = checkAnswers(vectors, answers, 1e-6);
        if (!wrong) continue;
        asked++;
        // Two faults can give the same numbers: the explanation then names the other one.
        if (explanations.length === 1 && explanations[0]!.rows === wrong) named++;
        else expect(explanations.length, `${seed} ${way.name} ${way.fix}`).toBeGreaterThan(0);
      }
    }
    expect(asked).toBeGreaterThan(100);
    expect(named / asked).toBeGreaterThan(0.97);
  });

  it('name the aspect as the aspect, and forward depth as that where reversed depth is meant', () => {
    const lens = { kind: 'perspective', near: 0.1, far: null, verticalFov: 60 };
    const camera = { position: [1, 2, 9], orientation: { yaw: 10, pitch: -5 }, projection: lens };
    const conventions = { ...presets.WebGPU, ndc: { up: '+y', near: 1, far: 0 } };
    const request = { astrolabe: 1, conventions, viewport: { width: 1280, height: 720 }, camera, queries: [] };
    const textsOf = (other: object) => {
      const [mine, theirs] = [vectorsOf(request, 12, 1), vectorsOf({ ...request, ...other }, 12, 1)];
      if (!mine.ok || !theirs.ok) throw new Error('a proper camera');
      const answers = new Map(mine.vectors.rows.map((row) => [row.id, row.expected]));
      const right = rightAnswerOf({ ...request, ...other });
      for (const { id, kind, input } of mine.vectors.rows) answers.set(id, right(kind, input));
      return checkAnswers(mine.vectors, answers, 1e-5).explanations.map(({ text }) => text);
    };
    const aspect = { ...camera, projection: { ...lens, aspect: 1.6 } };
    expect(textsOf({ camera: aspect })[0]).toMatch(/aspect/i);
    expect(textsOf({ camera: aspect })[0]).not.toMatch(/field of view/i);
    expect(textsOf({ conventions: { ...conventions, ndc: { up: '+y', near: 0, far: 1 } } })[0]).toMatch(/revers/i);
  });

  it('keep rotations apart from large translations, and pixels near an edge from rounding', () => {
    const camera = { position: [1e5, 2, 9], orientation: { yaw: 10, pitch: -5 }, projection: { kind: 'perspective', near: 0.5, far: 80, verticalFov: 50 } }; // prettier-ignore
    const made = vectorsOf({ astrolabe: 1, viewport: { width: 1280, height: 720 }, camera, queries: [] }, 24, 1);
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    const right = new Map(made.vectors.rows.map(({ id, expected }) => [id, expected]));
    const view = right.get('view')!.map((v, i) => (i === 0 ? v + 1e-3 : v));
    expect(checkAnswers(made.vectors, new Map([...right, ['view', view]]), 1e-5).wrong).toBe(1);
    const pixels = made.vectors.rows.filter(({ kind, expected }) => kind === 'worldToScreen' && expected);
    const off = new Map([...right, ...pixels.map(({ id, expected }) => [id, expected!.map((v, i) => (i < 2 ? v + 1e-3 : v))] as const)]); // prettier-ignore
    expect(checkAnswers(made.vectors, off, 1e-5).wrong).toBe(0);
  });
}); // prettier-ignore

/** The right answers of another request to rows of this one. */
function rightAnswerOf(request: unknown) {
  const camera = vectorCamera(request);
  if (!camera.ok) throw new Error(JSON.stringify(camera.problem));
  return rightAnswer(camera.camera);
}
