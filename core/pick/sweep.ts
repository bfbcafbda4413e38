import type { CameraFrame } from '../camera/frame';
import { fanOut } from '../kernels/tree';
import { firstOfScene, surfaceCrossing, type SceneHit, type SceneTree } from './sceneTree';

/* Every pixel of a picture picked: beams of pixels through the tree of a scene, and how the sweep differs from a painted picture. */

/** The boxes of a beam that are still to be looked at: a node and its level each. */
const nodes = new Int32Array(256);
const levelsOf = new Int32Array(256);

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
