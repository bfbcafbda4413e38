import { boundLevels, treeOrder, emptyTree, fanOut, type BoxTree } from './tree';

/**
 * A tree over spheres; `spheres` are x, y, z, radius after one another in tree order, a copy of
 * what it was built from.
 */
export interface SphereTree extends BoxTree {
  readonly spheres: Float64Array;
}

/**
 * A tree over spheres given as x, y, z, radius after one another (canonical world space). Time
 * grows with their number alone.
 */
export function sphereTree(spheres: Float64Array): SphereTree {
  const tree = { ...emptyTree(treeOrder(spheres, 4)), spheres: new Float64Array(spheres.length) };
  refitSpheres(tree, spheres);
  return tree;
}

/**
 * Fits a tree to spheres that have moved: the same spheres in the same order as it was built from.
 * The nearer they have stayed to their neighbours, the better the tree stays; its answers are right
 * wherever they went.
 */
export function refitSpheres(tree: SphereTree, moved: Float64Array): void {
  const { order, bounds, spheres, count } = tree;
  for (let k = 0, node = 0; k < count; node += 6) {
    let [lx, ly, lz] = [Infinity, Infinity, Infinity];
    let [hx, hy, hz] = [-Infinity, -Infinity, -Infinity];
    const end = k + fanOut < count ? k + fanOut : count;
    for (; k < end; k++) {
      const from = order[k]! * 4;
      const to = k * 4;
      const x = moved[from]!;
      const y = moved[from + 1]!;
      const z = moved[from + 2]!;
      const r = moved[from + 3]!;
      spheres[to] = x;
      spheres[to + 1] = y;
      spheres[to + 2] = z;
      spheres[to + 3] = r;
      if (x - r < lx) lx = x - r;
      if (y - r < ly) ly = y - r;
      if (z - r < lz) lz = z - r;
      if (x + r > hx) hx = x + r;
      if (y + r > hy) hy = y + r;
      if (z + r > hz) hz = z + r;
    }
    bounds[node] = lx;
    bounds[node + 1] = ly;
    bounds[node + 2] = lz;
    bounds[node + 3] = hx;
    bounds[node + 4] = hy;
    bounds[node + 5] = hz;
  }
  boundLevels(tree);
}

/** How many spheres a query found inside and crossing. */
export interface InView {
  readonly inside: number;
  readonly crosses: number;
}

/**
 * A box must clear a plane by this share of the numbers' size before its spheres are not asked
 * themselves, so that rounding never tells them apart.
 */
const slackShare = 1e-12;

const stack = new Int32Array(3 * 256);

/**
 * The spheres that are not wholly behind any plane: exactly those that `classifySpheres` does not
 * call outside, with the same verdicts.
 *
 * @param planes  from `planeKernel`
 * @param inside  receives the indices of the spheres inside, `inside` of them, in tree order
 * @param crosses receives the indices of those that cross
 */
export function spheresInView(
  tree: SphereTree,
  planes: Float64Array,
  inside: Uint32Array,
  crosses: Uint32Array,
): InView {
  const { bounds, levels, order, spheres, count } = tree;
  if (count === 0) return { inside: 0, crosses: 0 };
  const top = levels.length - 2;
  let [within, across] = [0, 0];
  // A stack of (level, node of the level, planes that the node above does not clear as bits).
  let depth = 0;
  stack[depth++] = top;
  stack[depth++] = 0;
  stack[depth++] = (1 << (planes.length >> 2)) - 1;
  while (depth > 0) {
    let open = stack[--depth]!;
    const at = stack[--depth]!;
    const level = stack[--depth]!;
    const b = (levels[level]! + at) * 6;
    const lx = bounds[b]!;
    const ly = bounds[b + 1]!;
    const lz = bounds[b + 2]!;
    const hx = bounds[b + 3]!;
    const hy = bounds[b + 4]!;
    const hz = bounds[b + 5]!;
    // The normals are unit: no product of theirs is larger than this.
    const size = Math.abs(lx) + Math.abs(ly) + Math.abs(lz) + Math.abs(hx) + Math.abs(hy) + Math.abs(hz);
    let behind = false;
    for (let p = 0, bit = 1; bit <= open; p += 4, bit <<= 1) {
      if (!(open & bit)) continue;
      const nx = planes[p]!;
      const ny = planes[p + 1]!;
      const nz = planes[p + 2]!;
      const d = planes[p + 3]!;
      const most = (nx > 0 ? hx : lx) * nx + (ny > 0 ? hy : ly) * ny + (nz > 0 ? hz : lz) * nz + d;
      const least = (nx > 0 ? lx : hx) * nx + (ny > 0 ? ly : hy) * ny + (nz > 0 ? lz : hz) * nz + d;
      const slack = (size + Math.abs(d)) * slackShare;
      if (most < -slack) {
        behind = true;
        break;
      }
      if (least > slack) open &= ~bit;
    }
    if (behind) continue;
    if (open === 0) {
      const run = fanOut ** (level + 1);
      const start = at * run;
      const end = start + run < count ? start + run : count;
      inside.set(order.subarray(start, end), within);
      within += end - start;
    } else if (level > 0) {
      const start = at * fanOut;
      const room = levels[level]! - levels[level - 1]!;
      const end = start + fanOut < room ? start + fanOut : room;
      for (let child = start; child < end; child++) {
        stack[depth++] = level - 1;
        stack[depth++] = child;
        stack[depth++] = open;
      }
    } else {
      const start = at * fanOut;
      const end = start + fanOut < count ? start + fanOut : count;
      for (let k = start; k < end; k++) {
        const s = k * 4;
        const x = spheres[s]!;
        const y = spheres[s + 1]!;
        const z = spheres[s + 2]!;
        const r = spheres[s + 3]!;
        let verdict = 2;
        for (let p = 0, bit = 1; bit <= open; p += 4, bit <<= 1) {
          if (!(open & bit)) continue;
          const d = planes[p]! * x + planes[p + 1]! * y + planes[p + 2]! * z + planes[p + 3]!;
          if (d < -r) {
            verdict = 0;
            break;
          }
          if (d <= r) verdict = 1;
        }
        if (verdict === 2) inside[within++] = order[k]!;
        else if (verdict === 1) crosses[across++] = order[k]!;
      }
    }
  }
  return { inside: within, crosses: across };
}
