import { boundLevels, treeOrder, emptyTree, fanOut, type BoxTree } from './tree';

/**
 * Boxes, and the stretches of a ray in them, are grown by this share of the numbers' size: a
 * triangle in the face of its box must not slip past by rounding.
 */
const slackShare = 1e-12;

/**
 * A tree over triangles; `corners` are nine numbers a triangle in tree order, copied from the mesh
 * it was built from.
 */
export interface TriangleTree extends BoxTree {
  readonly corners: Float64Array;
}

/** The centres of the triangles of a mesh, x, y, z after one another. */
export function triangleCentres(positions: ArrayLike<number>, indices: ArrayLike<number>): Float64Array {
  const count = Math.floor(indices.length / 3);
  const centres = new Float64Array(count * 3);
  for (let j = 0; j < count * 3; j += 3)
    for (let axis = 0; axis < 3; axis++)
      centres[j + axis] =
        (positions[indices[j]! * 3 + axis]! +
          positions[indices[j + 1]! * 3 + axis]! +
          positions[indices[j + 2]! * 3 + axis]!) /
        3;
  return centres;
}

/**
 * A tree over the triangles of a mesh: x, y, z after one another; three indices to a triangle.
 * `order` is that of `treeOrder` over their centres. `onProgress` is told the share that is done.
 */
export function triangleTree(
  positions: ArrayLike<number>,
  indices: ArrayLike<number>,
  order: Uint32Array = treeOrder(triangleCentres(positions, indices), 3),
  onProgress?: (share: number) => void,
): TriangleTree {
  // Putting them in order is the most of it.
  onProgress?.(0.7);
  const count = order.length;
  const tree = { ...emptyTree(order), corners: new Float64Array(count * 9) };
  const { bounds, corners } = tree;
  for (let k = 0; k < count; k++) {
    if (onProgress && k % 65536 === 0) onProgress(0.7 + (0.2 * k) / count);
    const node = Math.floor(k / fanOut) * 6;
    const first = k % fanOut === 0;
    for (let corner = 0; corner < 3; corner++) {
      const from = indices[order[k]! * 3 + corner]! * 3;
      for (let axis = 0; axis < 3; axis++) {
        const v = positions[from + axis]!;
        corners[k * 9 + corner * 3 + axis] = v;
        const start = first && corner === 0;
        if (start || v < bounds[node + axis]!) bounds[node + axis] = v;
        if (start || v > bounds[node + 3 + axis]!) bounds[node + 3 + axis] = v;
      }
    }
  }
  pad(tree);
  boundLevels(tree);
  return tree;
}

/**
 * Grows the boxes of the triangles by a hair, so that a ray along the face of one is never exactly
 * on it.
 */
function pad({ bounds, levels, corners }: TriangleTree): void {
  let largest = 0;
  for (const v of corners) largest = Math.max(largest, Math.abs(v));
  const hair = Math.max(largest * slackShare, Number.MIN_VALUE);
  const end = levels[1] === undefined ? 0 : levels[1] * 6;
  for (let b = 0; b < end; b++) bounds[b]! += b % 6 < 3 ? -hair : hair;
}

/**
 * Where a ray first meets a mesh: the triangle's index, and how far along the ray in lengths of its
 * direction. Filled by `firstTriangle`.
 */
export interface TriangleHit {
  triangle: number;
  t: number;
}

const nodes = new Int32Array(256);
const levelsOf = new Int32Array(256);
const enters = new Float64Array(256);

/**
 * The first triangle that a ray passes at from ≤ t ≤ to, either face (Möller and Trumbore 1997);
 * false when it meets none. Nearer children first, and none that begins beyond the nearest hit yet.
 *
 * @param facing 1 for triangles seen counter-clockwise alone, −1 for those seen clockwise, 0 for
 * both
 * @param hit    receives what was found
 */
export function firstTriangle(
  tree: TriangleTree,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  from: number,
  to: number,
  facing: -1 | 0 | 1,
  hit: TriangleHit,
): boolean {
  const { bounds, levels, order, corners, count } = tree;
  hit.triangle = -1;
  hit.t = to;
  if (count === 0) return false;
  // A direction of 0, or so small that it has no reciprocal, becomes one too small to matter.
  const ix = 1 / (dx < 1e-150 && dx > -1e-150 ? 1e-150 : dx);
  const iy = 1 / (dy < 1e-150 && dy > -1e-150 ? 1e-150 : dy);
  const iz = 1 / (dz < 1e-150 && dz > -1e-150 ? 1e-150 : dz);
  nodes[0] = 0;
  levelsOf[0] = levels.length - 2;
  enters[0] = from;
  let depth = 1;
  let best = to;
  let found = -1;
  while (depth > 0) {
    depth--;
    if (enters[depth]! > best) continue;
    const level = levelsOf[depth]!;
    const start = nodes[depth]! * fanOut;
    if (level > 0) {
      const below = levels[level - 1]!;
      const room = levels[level]! - below;
      const end = start + fanOut < room ? start + fanOut : room;
      const base = depth;
      for (let child = start; child < end; child++) {
        const b = (below + child) * 6;
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
        leave += slack;
        if (enter < from) enter = from;
        if (enter > leave || enter > best) continue;
        // Put in so that the nearest lies on top.
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
      const c = k * 9;
      const x0 = corners[c]!;
      const y0 = corners[c + 1]!;
      const z0 = corners[c + 2]!;
      const abx = corners[c + 3]! - x0;
      const aby = corners[c + 4]! - y0;
      const abz = corners[c + 5]! - z0;
      const acx = corners[c + 6]! - x0;
      const acy = corners[c + 7]! - y0;
      const acz = corners[c + 8]! - z0;
      const px = dy * acz - dz * acy;
      const py = dz * acx - dx * acz;
      const pz = dx * acy - dy * acx;
      const det = abx * px + aby * py + abz * pz;
      if (det === 0 || (facing !== 0 && det * facing < 0)) continue;
      const sx = ox - x0;
      const sy = oy - y0;
      const sz = oz - z0;
      const u = (sx * px + sy * py + sz * pz) / det;
      if (u < 0 || u > 1) continue;
      const qx = sy * abz - sz * aby;
      const qy = sz * abx - sx * abz;
      const qz = sx * aby - sy * abx;
      const v = (dx * qx + dy * qy + dz * qz) / det;
      if (v < 0 || u + v > 1) continue;
      const t = (acx * qx + acy * qy + acz * qz) / det;
      if (t < from || t > best || (t === best && found >= 0 && order[k]! > found)) continue;
      best = t;
      found = order[k]!;
    }
  }
  hit.triangle = found;
  hit.t = best;
  return found >= 0;
}
