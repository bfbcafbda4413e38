import { triangulate } from '../bodies/mesh';
import { similarityScale, type PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { boundLevels, emptyTree, fanOut, treeOrder, type BoxTree } from '../kernels/tree';
import { rayThrough } from '../convert/project';
import { linearDeterminant } from '../math/mat4';
import type { Vec2 } from '../math/vec3';

/*
 * All surfaces of a scene in one tree: for many rays through the same bodies, such as one for every
 * pixel of a picture. What it finds is what `pick` finds.
 */

/** A tree over the triangles and spheres of bodies, in canonical world space. */
export interface SceneTree extends BoxTree {
  /** Nine numbers an item in tree order: a triangle's corners, or a sphere's centre and radius. */
  readonly shapes: Float64Array;
  /** By place in the tree: the body of the list, and which triangle of it; −1 for a sphere. */
  readonly body: Int32Array;
  readonly triangle: Int32Array;
}

/** Boxes are grown by this share of the numbers' size, so that nothing slips past by rounding. */
const slackShare = 1e-12;

/**
 * The surfaces of placed bodies in one tree. Boxes and quads are their triangles, spheres are exact;
 * points have no surface. Triangles run counter-clockwise from the front, a mirrored body's too.
 */
export function sceneTree(placed: readonly PlacedBody[]): SceneTree {
  const items: number[] = [];
  const owners: number[] = [];
  const numbers: number[] = [];
  placed.forEach(({ body, toWorld: m }, i) => {
    const { shape } = body;
    if (shape.kind === 'sphere') {
      items.push(m[3]!, m[7]!, m[11]!, shape.radius * similarityScale(m), 0, 0, 0, 0, 0);
      owners.push(i);
      numbers.push(-1);
      return;
    }
    const { positions, indices } = triangulate(shape);
    const mirrored = linearDeterminant(m) < 0;
    for (let t = 0; t < indices.length; t += 3) {
      for (let k = 0; k < 3; k++) {
        const at = 3 * indices[t + (mirrored && k > 0 ? 3 - k : k)]!;
        const [x, y, z] = [positions[at]!, positions[at + 1]!, positions[at + 2]!];
        for (let row = 0; row < 12; row += 4) items.push(m[row]! * x + m[row + 1]! * y + m[row + 2]! * z + m[row + 3]!);
      }
      owners.push(i);
      numbers.push(t / 3);
    }
  });
  const count = owners.length;
  const centres = new Float64Array(3 * count);
  for (let i = 0; i < count; i++)
    for (let axis = 0; axis < 3; axis++) {
      const at = 9 * i + axis;
      centres[3 * i + axis] = numbers[i]! < 0 ? items[at]! : (items[at]! + items[at + 3]! + items[at + 6]!) / 3;
    }
  const order = treeOrder(centres, 3);
  const tree: SceneTree = {
    ...emptyTree(order),
    shapes: new Float64Array(9 * count),
    body: Int32Array.from(order, (i) => owners[i]!),
    triangle: Int32Array.from(order, (i) => numbers[i]!),
  };
  let largest = 0;
  for (const v of items) largest = Math.max(largest, Math.abs(v));
  const hair = Math.max(largest * slackShare, Number.MIN_VALUE);
  for (let k = 0; k < count; k++) {
    const from = 9 * order[k]!;
    for (let n = 0; n < 9; n++) tree.shapes[9 * k + n] = items[from + n]!;
    const sphere = tree.triangle[k]! < 0;
    const node = Math.floor(k / fanOut) * 6;
    for (let axis = 0; axis < 3; axis++) {
      const [a, b, c] = [items[from + axis]!, items[from + axis + 3]!, items[from + axis + 6]!];
      const radius = items[from + 3]!;
      const low = (sphere ? a - radius : Math.min(a, b, c)) - hair;
      const high = (sphere ? a + radius : Math.max(a, b, c)) + hair;
      const first = k % fanOut === 0;
      if (first || low < tree.bounds[node + axis]!) tree.bounds[node + axis] = low;
      if (first || high > tree.bounds[node + 3 + axis]!) tree.bounds[node + 3 + axis] = high;
    }
  }
  boundLevels(tree);
  return tree;
}

/** Where a ray first meets a scene, and what was looked at to find it. Filled by `firstOfScene`. */
export interface SceneHit {
  /** The place in the tree; −1 for nothing. */
  item: number;
  /** Along the ray, in lengths of its direction. */
  t: number;
  boxes: number;
  /** Triangles and spheres. */
  surfaces: number;
}

const nodes = new Int32Array(256);
const levelsOf = new Int32Array(256);
const enters = new Float64Array(256);

/**
 * The first surface that a ray passes at from ≤ t ≤ to: the nearest children first, and none that
 * begins beyond the nearest hit yet; with `prune` false everything on the ray's way is looked at, as
 * for a list of all hits. `backFaces` has surfaces that are seen from behind count.
 */
export function firstOfScene(
  tree: SceneTree,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  from: number,
  to: number,
  backFaces: boolean,
  hit: SceneHit,
  prune = true,
): boolean {
  const { bounds, levels, body, count } = tree;
  hit.item = -1;
  hit.t = to;
  let boxes = 0;
  let surfaces = 0;
  let best = to;
  let found = -1;
  // A direction of 0, or so small that it has no reciprocal, becomes one too small to matter.
  const ix = 1 / (dx < 1e-150 && dx > -1e-150 ? 1e-150 : dx);
  const iy = 1 / (dy < 1e-150 && dy > -1e-150 ? 1e-150 : dy);
  const iz = 1 / (dz < 1e-150 && dz > -1e-150 ? 1e-150 : dz);
  let depth = count ? 1 : 0;
  nodes[0] = 0;
  levelsOf[0] = levels.length - 2;
  enters[0] = from;
  while (depth > 0) {
    depth--;
    if (prune && enters[depth]! > best) continue;
    const level = levelsOf[depth]!;
    const start = nodes[depth]! * fanOut;
    if (level > 0) {
      const below = levels[level - 1]!;
      const room = levels[level]! - below;
      const end = start + fanOut < room ? start + fanOut : room;
      const base = depth;
      for (let child = start; child < end; child++) {
        const b = (below + child) * 6;
        boxes++;
        const ax = (bounds[b]! - ox) * ix;
        const bx = (bounds[b + 3]! - ox) * ix;
        const ay = (bounds[b + 1]! - oy) * iy;
        const by = (bounds[b + 4]! - oy) * iy;
        const az = (bounds[b + 2]! - oz) * iz;
        const bz = (bounds[b + 5]! - oz) * iz;
        let enter = ax < bx ? ax : bx;
        let leave = ax < bx ? bx : ax;
        const ey = ay < by ? ay : by;
        const ly = ay < by ? by : ay;
        if (ey > enter) enter = ey;
        if (ly < leave) leave = ly;
        const ez = az < bz ? az : bz;
        const lz = az < bz ? bz : az;
        if (ez > enter) enter = ez;
        if (lz < leave) leave = lz;
        const slack = ((enter > 0 ? enter : -enter) + (leave > 0 ? leave : -leave)) * slackShare;
        enter -= slack;
        if (enter < from) enter = from;
        if (enter > leave + slack || enter > (prune ? best : to)) continue;
        let k = depth++;
        while (k > base && enters[k - 1]! < enter) {
          enters[k] = enters[k - 1]!;
          nodes[k] = nodes[k - 1]!;
          levelsOf[k] = levelsOf[k - 1]!;
          k--;
        }
        enters[k] = enter;
        nodes[k] = child;
        levelsOf[k] = level - 1;
      }
      continue;
    }
    const end = start + fanOut < count ? start + fanOut : count;
    for (let k = start; k < end; k++) {
      surfaces++;
      const t = surfaceCrossing(tree, k, ox, oy, oz, dx, dy, dz, from, backFaces);
      // Of what is met at one place the first body of the list, as everywhere.
      if (!(t >= from && t <= best) || (t === best && found >= 0 && body[k]! > body[found]!)) continue;
      best = t;
      found = k;
    }
  }
  hit.item = found;
  hit.t = best;
  hit.boxes = boxes;
  hit.surfaces = surfaces;
  return found >= 0;
}

/**
 * Where a line passes a triangle (Möller and Trumbore 1997) or a sphere of the tree, in lengths of
 * its direction; NaN for nowhere.
 */
export function surfaceCrossing(
  { shapes, triangle }: SceneTree,
  k: number,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  from: number,
  backFaces: boolean,
): number {
  const c = 9 * k;
  if (triangle[k]! < 0) return sphereCrossing(shapes, c, ox, oy, oz, dx, dy, dz, from, backFaces);
  const x0 = shapes[c]!;
  const y0 = shapes[c + 1]!;
  const z0 = shapes[c + 2]!;
  const abx = shapes[c + 3]! - x0;
  const aby = shapes[c + 4]! - y0;
  const abz = shapes[c + 5]! - z0;
  const acx = shapes[c + 6]! - x0;
  const acy = shapes[c + 7]! - y0;
  const acz = shapes[c + 8]! - z0;
  const px = dy * acz - dz * acy;
  const py = dz * acx - dx * acz;
  const pz = dx * acy - dy * acx;
  const det = abx * px + aby * py + abz * pz;
  if (det === 0 || (!backFaces && det < 0)) return NaN;
  const sx = ox - x0;
  const sy = oy - y0;
  const sz = oz - z0;
  const u = (sx * px + sy * py + sz * pz) / det;
  if (u < 0 || u > 1) return NaN;
  const qx = sy * abz - sz * aby;
  const qy = sz * abx - sx * abz;
  const qz = sx * aby - sy * abx;
  const v = (dx * qx + dy * qy + dz * qz) / det;
  if (v < 0 || u + v > 1) return NaN;
  return (acx * qx + acy * qy + acz * qz) / det;
}

/** Where a line enters a sphere, or leaves it if that is before `from` and counts; NaN for nowhere. */
function sphereCrossing(
  shapes: Float64Array,
  c: number,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  from: number,
  backFaces: boolean,
): number {
  const mx = ox - shapes[c]!;
  const my = oy - shapes[c + 1]!;
  const mz = oz - shapes[c + 2]!;
  const dd = dx * dx + dy * dy + dz * dz;
  // The point nearest the centre first, so that a small sphere far away keeps its digits.
  const nearest = -(mx * dx + my * dy + mz * dz) / dd;
  const fx = mx + dx * nearest;
  const fy = my + dy * nearest;
  const fz = mz + dz * nearest;
  const left = shapes[c + 3]! * shapes[c + 3]! - (fx * fx + fy * fy + fz * fz);
  if (left < 0) return NaN;
  const half = Math.sqrt(left / dd);
  if (nearest - half >= from) return nearest - half;
  return backFaces ? nearest + half : NaN;
}

const trees = new WeakMap<readonly PlacedBody[], SceneTree>();
/** The tree over a list of bodies, built when it is first asked for. */
export function sceneTreeOf(placed: readonly PlacedBody[]): SceneTree {
  const known = trees.get(placed) ?? sceneTree(placed);
  trees.set(placed, known);
  return known;
}

/**
 * How much of the tree over all bodies the ray of a picture position looks at between near and far:
 * boxes, and triangles with spheres among them. With `all` everything on its way, otherwise no more
 * than the first hit needs.
 */
export const lookedAt = (
  placed: readonly PlacedBody[],
  frame: CameraFrame,
  at: Vec2,
  backFaces: boolean,
  all: boolean,
): LookedAtBy => lookedAtIn(sceneTreeOf(placed), frame, at, backFaces, all);

/** How many boxes of a tree, and triangles with spheres among them, were looked at. */
export interface LookedAtBy {
  readonly boxes: number;
  readonly triangles: number;
}

/** The same of a tree that stands already. */
export function lookedAtIn(
  tree: SceneTree,
  frame: CameraFrame,
  [across, upward]: Vec2,
  backFaces: boolean,
  all: boolean,
): LookedAtBy {
  const { origin: o, direction: d, rangePerAhead } = rayThrough(frame, across, upward);
  const [from, to] = [frame.near * rangePerAhead, frame.far === null ? Infinity : frame.far * rangePerAhead];
  const hit: SceneHit = { item: -1, t: 0, boxes: 0, surfaces: 0 };
  firstOfScene(tree, ...o, ...d, from, to, backFaces, hit, !all);
  return { boxes: hit.boxes, triangles: hit.surfaces };
}
