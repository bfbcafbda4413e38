import { viewRufToWorld } from '../convert/project';
import { pictureShape } from '../camera/frame';
import { randomFrom, type Random } from '../math/random';
import { cross, length, normalize, type Vec3 } from '../math/vec3';
import { distanceToEdges } from '../ground/distance';
import { answer3d, planeReaches, type VectorContext } from './vectorAnswers';
import type { VectorKind } from './vectorKinds';

/* Inputs of test vectors of 3D cameras. All numbers are exact in single precision, so that floats can read them. */

/** An input of a row: its id, its kind, and its numbers. */
export interface VectorInput {
  readonly id: string;
  readonly kind: VectorKind;
  readonly input: readonly number[];
}

/** Rounds to numbers that single precision has exactly. */
export const single = (list: readonly number[]): number[] => list.map(Math.fround);
const pointOf = (list: readonly number[]): Vec3 => list as unknown as Vec3;

/** The farthest distance that stands for infinity: 10,000,000 times near. */
const infinity = 1e7;
/** Rows of each kind that has no points of its own. */
const rowsEach = 8;

/**
 * Spreads points over the picture and the whole depth range: the first is next to near, the second next to far (or
 * 10,000,000 near away, where far is infinite), the others are between, even in the logarithm of the distance
 * (orthographic: in the distance). Every seventh is off the picture, every eleventh behind the eye.
 *
 * @returns world points in the request's conventions
 */
export function spreadPoints({ frame, codec }: VectorContext, count: number, roll: Random): number[][] {
  const { near, far, extents: x, kind } = frame;
  const end = far ?? near * infinity;
  return Array.from({ length: count }, (_, i) => {
    const share = i === 0 ? 0.001 + 0.01 * roll() : i === 1 ? 0.999 - 0.01 * roll() : 0.02 + 0.96 * roll();
    let f = kind === 'perspective' ? near * (end / near) ** share : near + (end - near) * share;
    const k = kind === 'perspective' ? f / near : 1;
    const wide = i % 7 === 6 ? 1.6 : 0.45;
    const [a, b] = [0.5 + wide * (2 * roll() - 1), 0.5 + wide * (2 * roll() - 1)];
    if (i % 11 === 10) f = -f;
    return single(codec.toWorld(viewRufToWorld(frame, [(x.left + (x.right - x.left) * a) * k, (x.bottom + (x.top - x.bottom) * b) * k, f]))); // prettier-ignore
  });
}

/** A point of the picture at a distance from the eye that suits tests of size: well within the depth range. */
function middlePoint({ frame, codec }: VectorContext, roll: Random, wide: number): number[] {
  const { near, far, extents: x, kind } = frame;
  const end = Math.min(far ?? Infinity, near > 0 ? near * 1000 : Infinity);
  const share = 0.1 + 0.8 * roll();
  const f = kind === 'perspective' ? near * (end / near) ** share : near + ((far ?? 1) - near) * share;
  const k = kind === 'perspective' ? f / near : 1;
  const [a, b] = [0.5 + wide * (2 * roll() - 1), 0.5 + wide * (2 * roll() - 1)];
  return single(codec.toWorld(viewRufToWorld(frame, [(x.left + (x.right - x.left) * a) * k, (x.bottom + (x.top - x.bottom) * b) * k, f]))); // prettier-ignore
}

const rows = (kind: VectorKind, name: string, inputs: readonly (readonly number[])[]): VectorInput[] =>
  inputs.map((input, i) => ({ id: `${name} ${i + 1}`, kind, input }));
const times = <T>(count: number, make: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i));

/** Spheres and boxes, in turn a little clear of the frustum and a little inside one of its planes. */
function culling(context: VectorContext, roll: Random): VectorInput[] {
  const clear = (i: number) => (i % 2 ? 1.35 : 0.65) + 0.2 * (roll() - 0.5);
  const spheres = times(rowsEach, (i) => {
    const centre = middlePoint(context, roll, 1.5);
    const least = Math.min(...planeReaches(context, pointOf(centre), [0, 0, 0]));
    // A sphere inside has no size that decides; a small one is inside whatever the test forgets.
    return single([...centre, Math.abs(least) * clear(i)]);
  });
  const boxes = times(rowsEach, (i) => {
    const centre = middlePoint(context, roll, 1.5);
    const shape = pointOf([0.4 + roll(), 0.4 + roll(), 0.4 + roll()]);
    const bare = planeReaches(context, pointOf(centre), [0, 0, 0]);
    const extents = planeReaches(context, pointOf(centre), shape).map((reach, k) => reach - bare[k]!);
    const needed = Math.max(...bare.map((reach, k) => -reach / extents[k]!));
    const half = needed > 0 ? needed * clear(i) : length(shape) * 0.1 * Math.max(...bare.map(Math.abs));
    return single([...centre, ...shape.map((v) => v * half)]);
  });
  return [...rows('sphereOutside', 'sphere', spheres), ...rows('boxOutside', 'box', boxes)];
}

/** Directions that are not near one another's line: boards about an axis are ill-conditioned there. */
const isOblique = (a: Vec3, b: Vec3): boolean => length(cross(a, b)) > 0.2 * length(a) * length(b);
const directionBy = (roll: Random): Vec3 => normalize([2 * roll() - 1, 2 * roll() - 1, 2 * roll() - 1]) ?? [1, 0, 0];

function boards(context: VectorContext, roll: Random): VectorInput[] {
  const { frame, codec } = context;
  const isClear = (p: number[]): boolean => {
    const toEye = frame.kind === 'perspective' ? frame.eye.map((v, i) => v - codec.fromWorld(pointOf(p))[i]!) : frame.forward; // prettier-ignore
    return isOblique(pointOf(toEye), [0, 1, 0]);
  };
  const points = times(rowsEach * 3, () => middlePoint(context, roll, 0.45))
    .filter(isClear)
    .slice(0, rowsEach);
  const turns = times(rowsEach * 3, () => [directionBy(roll), directionBy(roll)] as const)
    .filter(([axis, towards]) => isOblique(axis, towards))
    .slice(0, rowsEach)
    // The axis has length 1 in doubles; a direction may have any length.
    .map(([axis, towards]) => [...axis, ...single(towards)]);
  const plain = [{ id: 'board', kind: 'boardInViewPlane' as const, input: [] }];
  return [
    ...plain,
    ...rows('boardTowardsEye', 'board to eye', points),
    ...rows('boardUpright', 'board upright', points),
    ...rows('boardAboutAxis', 'board about axis', turns),
  ];
}

/** Places on the ground, in view and out of it, whose radius and padding together decide, and neither by itself. */
function spawning({ ground }: VectorContext, roll: Random): VectorInput[] {
  if (!ground.length) return [];
  const finite = ground.flatMap(({ range }) => range).filter((t) => t !== 0 && Number.isFinite(t));
  const length = Math.max(0, ...finite.map(Math.abs)) || 10;
  // Ends of edges, those at infinity a few lengths off.
  const ends = ground.flatMap(({ corner, direction, range }) =>
    range.map((t) => corner.map((v, k) => v + direction[k as 0 | 1] * Math.max(-3 * length, Math.min(3 * length, t)))),
  );
  const side = (k: 0 | 1, pick: (...values: number[]) => number) => pick(...ends.map((end) => end[k]!));
  const [least, most] = [Math.min, Math.max].map((pick) => [side(0, pick), side(1, pick)]) as [number[], number[]];
  const places = times(rowsEach * 2, (i) => {
    const [x, y] = single(least.map((v, k) => v + (most[k]! - v) * (3 * roll() - 1)));
    const away = distanceToEdges(ground, [x!, y!]);
    const size = Math.hypot(most[0]! - least[0]!, most[1]! - least[1]!);
    const total = away > 1e-3 * size ? away * (i % 2 ? 1.3 : 0.7) : size * 0.1;
    const share = 0.4 + 0.2 * roll();
    return single([x!, y!, total * share, total * (1 - share)]);
  });
  return rows('mayAppear', 'spawn', places);
}

const camera = ['view', 'projection', 'viewProjection', 'cameraToWorld'] as const;
const planes = ['planeLeft', 'planeRight', 'planeBottom', 'planeTop', 'planeNear'] as const;
const bare = (kind: VectorKind): VectorInput => ({ id: kind, kind, input: [] });

/** Steps of following: outside the dead zone on either side, inside it, and at once (half-life 0). */
export const followInputs = (roll: Random): VectorInput[] =>
  rows('follow', 'follow', times(rowsEach, (i) => {
    const [held, zone] = [20 * roll() - 10, 0.5 + roll()];
    const off = (i % 4 === 3 ? 0.5 : 3 + 4 * roll()) * zone * (i % 2 ? -1 : 1);
    return single([held, held + off, zone, i === 6 ? 0 : 0.2 + roll(), (1 + roll()) / 20]);
  })); // prettier-ignore

/**
 * Returns the inputs of all rows of a 3D camera: the four matrices, points with the way back and rays, planes,
 * culling, billboards, spawning, dolly zoom, following and sort keys.
 *
 * @param own - points of the request itself, world, in the request's conventions: asked for first
 * @param count - points spread over the picture
 */
export function inputs3d(context: VectorContext, own: readonly Vec3[], count: number, seed: number): VectorInput[] {
  const { frame } = context;
  const roll = randomFrom(seed);
  const spread = spreadPoints(context, count, roll);
  const named = [
    ...own.map((point, i) => ({ name: `own ${i + 1}`, point: [...point] })),
    ...spread.map((point, i) => ({ name: `${i + 1}`, point })),
  ];
  const seen = named.flatMap(({ name, point }) => {
    const at = answer3d(context, 'worldToScreen', point);
    return at ? [{ name, pixel: single(at.slice(0, 2)), ahead: Math.fround(at[3]!) }] : [];
  });
  const isPerspective = frame.kind === 'perspective';
  const { height } = pictureShape(frame);
  const sorted = times(rowsEach, () => middlePoint(context, roll, 0.45));
  return [
    ...camera.map(bare),
    ...named.map(({ name, point }) => ({ id: `point ${name}`, kind: 'worldToScreen' as const, input: point })),
    // Behind the eye plane an orthographic pixel has no point by the contract, and one by the plain formula: no row asks.
    ...seen.flatMap(({ name, pixel, ahead }): VectorInput[] =>
      ahead > 0 || isPerspective ? [{ id: `back ${name}`, kind: 'screenToWorld', input: [...pixel, ahead] }] : [],
    ),
    ...seen.map(({ name, pixel }) => ({ id: `ray ${name}`, kind: 'ray' as const, input: pixel })),
    ...planes.map(bare),
    ...(frame.far === null ? [] : [bare('planeFar')]),
    ...culling(context, roll),
    ...boards(context, roll),
    ...spawning(context, roll),
    ...(isPerspective
      ? [
          ...rows('fovForHeight', 'fov', times(rowsEach, () => single([(height / frame.near) * 10 * (0.2 + roll()), 4 + 12 * roll()]))), // prettier-ignore
          ...rows(
            'heightAt',
            'height',
            times(rowsEach, () => single([frame.near * (1 + 100 * roll())])),
          ),
        ]
      : []),
    ...followInputs(roll),
    ...rows('keyAhead', 'key ahead', sorted),
    ...rows('keyDistance', 'key distance', sorted),
    ...rows('keyScreenHeight', 'key height', sorted),
  ];
}
