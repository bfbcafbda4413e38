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
function surfaceCrossing(
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

/** What a sweep finds at every pixel, row by row from the top. */
export interface Swept {
  readonly width: number;
  readonly height: number;
  /** Which body of the list; −1 for none. */
  readonly body: Int32Array;
  /** From the ray's origin along it; infinite for none. */
  readonly distance: Float32Array;
  /** The surface's normal, turned to the viewer, three numbers a pixel in canonical world space. */
  readonly normal: Float32Array;
}

/** An empty sweep of so many pixels. */
export function emptySweep(width: number, height: number): Swept {
  const count = width * height;
  return {
    ...{ width, height, body: new Int32Array(count).fill(-1), distance: new Float32Array(count).fill(Infinity) },
    normal: new Float32Array(3 * count),
  };
}

/** The rays of a picture that is divided into pixels: through their middles, along the gaze by 1. */
class PictureRays {
  ox = 0;
  oy = 0;
  oz = 0;
  dx = 0;
  dy = 0;
  dz = 0;
  readonly perspective: boolean;
  private readonly k: number;
  constructor(
    readonly frame: CameraFrame,
    private readonly width: number,
    private readonly height: number,
  ) {
    this.perspective = frame.kind === 'perspective';
    this.k = this.perspective ? 1 / frame.near : 1;
  }

  /** Takes the ray through a place, in pixels from the top left. */
  through(x: number, y: number): void {
    const { extents: e, right, up, forward, eye } = this.frame;
    const u = (e.top + (e.bottom - e.top) * (y / this.height)) * this.k;
    const r = (e.left + (e.right - e.left) * (x / this.width)) * this.k;
    const wx = right[0] * r + up[0] * u;
    const wy = right[1] * r + up[1] * u;
    const wz = right[2] * r + up[2] * u;
    const { perspective } = this;
    this.ox = perspective ? eye[0] : eye[0] + wx;
    this.oy = perspective ? eye[1] : eye[1] + wy;
    this.oz = perspective ? eye[2] : eye[2] + wz;
    this.dx = perspective ? forward[0] + wx : forward[0];
    this.dy = perspective ? forward[1] + wy : forward[1];
    this.dz = perspective ? forward[2] + wz : forward[2];
  }
}

/** The side of the largest square of pixels whose rays are looked for together, and of the least. */
export const sweepTile = 16;
const leastTile = 8;
/** A square with more surfaces in its beam than this is quartered. */
const mostTogether = 24;

/** Four planes of a beam: normals inward and offsets. */
const planes = new Float64Array(16);
let together = new Int32Array(1024);

/** Puts the surfaces that may lie in the beam of the four planes into `together`; gives how many. */
function inBeam({ bounds, levels, count }: SceneTree): number {
  let depth = count ? 1 : 0;
  let found = 0;
  nodes[0] = 0;
  levelsOf[0] = levels.length - 2;
  while (depth > 0) {
    depth--;
    const level = levelsOf[depth]!;
    const start = nodes[depth]! * fanOut;
    if (level === 0) {
      const end = start + fanOut < count ? start + fanOut : count;
      if (found + fanOut > together.length) {
        const more = new Int32Array(2 * together.length);
        more.set(together);
        together = more;
      }
      for (let k = start; k < end; k++) together[found++] = k;
      continue;
    }
    const below = levels[level - 1]!;
    const room = levels[level]! - below;
    const end = start + fanOut < room ? start + fanOut : room;
    for (let child = start; child < end; child++) {
      const b = (below + child) * 6;
      let outside = false;
      for (let p = 0; p < 16; p += 4) {
        // The corner that lies farthest inward.
        const nx = planes[p]!;
        const ny = planes[p + 1]!;
        const nz = planes[p + 2]!;
        const x = nx > 0 ? bounds[b + 3]! : bounds[b]!;
        const y = ny > 0 ? bounds[b + 4]! : bounds[b + 1]!;
        const z = nz > 0 ? bounds[b + 5]! : bounds[b + 2]!;
        const most = nx * x + ny * y + nz * z + planes[p + 3]!;
        const size = (nx > 0 ? nx : -nx) * (x > 0 ? x : -x) + (ny > 0 ? ny : -ny) * (y > 0 ? y : -y) + (nz > 0 ? nz : -nz) * (z > 0 ? z : -z); // prettier-ignore
        if (most < -1e-12 * (size + (planes[p + 3]! > 0 ? planes[p + 3]! : -planes[p + 3]!))) {
          outside = true;
          break;
        }
      }
      if (outside) continue;
      nodes[depth] = child;
      levelsOf[depth] = level - 1;
      depth++;
    }
  }
  return found;
}

/** The planes through the edges of a rectangle of the picture, from its first pixel's corner to its last's. */
function setBeam(rays: PictureRays, x0: number, y0: number, x1: number, y1: number): void {
  const corners = [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ] as const;
  const at = corners.map(([x, y]) => {
    rays.through(x, y);
    return [rays.ox, rays.oy, rays.oz, rays.dx, rays.dy, rays.dz] as const;
  });
  rays.through((x0 + x1) / 2, (y0 + y1) / 2);
  const { ox, oy, oz, dx, dy, dz, perspective } = rays;
  for (let k = 0; k < 4; k++) {
    const [a, b] = [at[k]!, at[(k + 1) % 4]!];
    // Along the one edge of the beam, and across from it to the other.
    const u = [a[3], a[4], a[5]] as const;
    const v = perspective ? ([b[3], b[4], b[5]] as const) : ([b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const);
    let [nx, ny, nz] = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    // Inward is where the middle is: another ray, or another origin.
    const [mx, my, mz] = perspective ? [dx, dy, dz] : [ox - a[0], oy - a[1], oz - a[2]];
    if (nx * mx + ny * my + nz * mz < 0) [nx, ny, nz] = [-nx, -ny, -nz];
    planes.set([nx, ny, nz, -(nx * a[0] + ny * a[1] + nz * a[2])], 4 * k);
  }
}

/**
 * Picks the pixels of some rows of a picture (from a multiple of `sweepTile`): the ray through each
 * pixel's middle, between near and far, as `pick` does. The viewport is divided into as many pixels
 * as the sweep has. Rays of a square of pixels look together for what lies in their beam, and each
 * for itself among that.
 */
export function sweepRows(
  frame: CameraFrame,
  tree: SceneTree,
  into: Swept,
  firstRow: number,
  endRow: number,
  backFaces = false,
): void {
  const { width, height } = into;
  const rays = new PictureRays(frame, width, height);
  const end = Math.min(endRow, height);
  for (let y = firstRow; y < end; y += sweepTile)
    for (let x = 0; x < width; x += sweepTile)
      sweepSquare(rays, tree, into, x, y, Math.min(x + sweepTile, width), Math.min(y + sweepTile, end), backFaces);
}

function sweepSquare(
  rays: PictureRays,
  tree: SceneTree,
  into: Swept,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  backFaces: boolean,
): void {
  const { width, body, distance } = into;
  setBeam(rays, x0, y0, x1, y1);
  const count = inBeam(tree);
  if (count === 0) {
    for (let y = y0; y < y1; y++) {
      body.fill(-1, y * width + x0, y * width + x1);
      distance.fill(Infinity, y * width + x0, y * width + x1);
    }
    return;
  }
  if (count > mostTogether && x1 - x0 > leastTile && y1 - y0 > leastTile) {
    const [xm, ym] = [x0 + ((x1 - x0) >> 1), y0 + ((y1 - y0) >> 1)];
    sweepSquare(rays, tree, into, x0, y0, xm, ym, backFaces);
    sweepSquare(rays, tree, into, xm, y0, x1, ym, backFaces);
    sweepSquare(rays, tree, into, x0, ym, xm, y1, backFaces);
    sweepSquare(rays, tree, into, xm, ym, x1, y1, backFaces);
    return;
  }
  const { near } = rays.frame;
  const far = rays.frame.far ?? Infinity;
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) {
      rays.through(x + 0.5, y + 0.5);
      const { ox, oy, oz, dx, dy, dz } = rays;
      let best = far;
      let found = -1;
      for (let n = 0; n < count; n++) {
        const k = together[n]!;
        const t = surfaceCrossing(tree, k, ox, oy, oz, dx, dy, dz, near, backFaces);
        if (!(t >= near && t <= best) || (t === best && found >= 0 && tree.body[k]! > tree.body[found]!)) continue;
        best = t;
        found = k;
      }
      const at = y * width + x;
      if (found < 0) {
        body[at] = -1;
        distance[at] = Infinity;
        continue;
      }
      body[at] = tree.body[found]!;
      distance[at] = best * Math.sqrt(dx * dx + dy * dy + dz * dz);
      normalTo(tree, found, best, rays, into.normal, 3 * at);
    }
}

/** How many boxes and surfaces the ray of every pixel looks at for itself, in rows of a picture of so many. */
export function lookedAtRows(
  frame: CameraFrame,
  tree: SceneTree,
  width: number,
  height: number,
  firstRow: number,
  endRow: number,
  boxes: Uint16Array,
  surfaces: Uint16Array,
): void {
  const rays = new PictureRays(frame, width, height);
  const hit: SceneHit = { item: -1, t: 0, boxes: 0, surfaces: 0 };
  for (let y = firstRow; y < Math.min(endRow, height); y++)
    for (let x = 0; x < width; x++) {
      rays.through(x + 0.5, y + 0.5);
      const { ox, oy, oz, dx, dy, dz } = rays;
      firstOfScene(tree, ox, oy, oz, dx, dy, dz, frame.near, frame.far ?? Infinity, false, hit);
      boxes[y * width + x] = hit.boxes < 65535 ? hit.boxes : 65535;
      surfaces[y * width + x] = hit.surfaces < 65535 ? hit.surfaces : 65535;
    }
}

/** The normal where a ray meets an item, turned against the ray. */
function normalTo(
  { shapes, triangle }: SceneTree,
  item: number,
  t: number,
  { ox, oy, oz, dx, dy, dz }: PictureRays,
  out: Float32Array,
  at: number,
): void {
  const c = 9 * item;
  let nx = ox + dx * t - shapes[c]!;
  let ny = oy + dy * t - shapes[c + 1]!;
  let nz = oz + dz * t - shapes[c + 2]!;
  if (triangle[item]! >= 0) {
    const ux = shapes[c + 3]! - shapes[c]!;
    const uy = shapes[c + 4]! - shapes[c + 1]!;
    const uz = shapes[c + 5]! - shapes[c + 2]!;
    const vx = shapes[c + 6]! - shapes[c]!;
    const vy = shapes[c + 7]! - shapes[c + 1]!;
    const vz = shapes[c + 8]! - shapes[c + 2]!;
    nx = uy * vz - uz * vy;
    ny = uz * vx - ux * vz;
    nz = ux * vy - uy * vx;
  }
  const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
  const sign = nx * dx + ny * dy + nz * dz > 0 ? -1 / size : 1 / size;
  out[at] = nx * sign;
  out[at + 1] = ny * sign;
  out[at + 2] = nz * sign;
}

/** Pixels at which a sweep and a painted picture of the same size show different bodies. */
export interface SweepDifference {
  readonly count: number;
  /** Those of them that do not lie at a silhouette, to within a pixel: there should be none. */
  readonly offSilhouette: number;
  /** 1 at a silhouette, 2 off one, 0 where both agree. */
  readonly where: Uint8Array;
}

/**
 * Compares a sweep with the bodies of a painted picture, row by row from the top, −1 for none. At a
 * silhouette two ways of looking may differ by a pixel (a painted ball has facets): where another
 * body is seen within `reach` pixels in either.
 */
export function sweepDifference({ width, height, body }: Swept, painted: Int32Array, reach = 1): SweepDifference {
  const where = new Uint8Array(width * height);
  let [count, offSilhouette] = [0, 0];
  const edge = (of: Int32Array, x: number, y: number): boolean => {
    const own = of[y * width + x]!;
    for (let j = Math.max(0, y - reach); j <= Math.min(height - 1, y + reach); j++)
      for (let i = Math.max(0, x - reach); i <= Math.min(width - 1, x + reach); i++)
        if (of[j * width + i] !== own) return true;
    return false;
  };
  for (let y = 0, at = 0; y < height; y++)
    for (let x = 0; x < width; x++, at++) {
      if (body[at] === painted[at]) continue;
      count++;
      const off = !edge(body, x, y) && !edge(painted, x, y);
      if (off) offSilhouette++;
      where[at] = off ? 2 : 1;
    }
  return { count, offSilhouette, where };
}
