/*
 * A bounding-volume tree over boxes, packed: the items are put in an order in which neighbours are
 * near in space, and every `fanOut` neighbours share a node, every `fanOut` nodes a node above, up
 * to one root. No pointers: a node's children, and the items below any node, are runs of one order.
 * After motion the boxes are made anew from below and the order stays.
 */

/** How many children a node has. */
export const fanOut = 4;

/** A packed tree over `count` items. */
export interface BoxTree {
  readonly count: number;
  /** The items in tree order: `order[k]` is the index of the item at place k. */
  readonly order: Uint32Array;
  /**
   * Six numbers a node, min x, y, z and max x, y, z; the nodes over the items first, the root last.
   */
  readonly bounds: Float64Array;
  /**
   * The first node of every level, from the items up; one more entry at the end, the number of
   * nodes.
   */
  readonly levels: Uint32Array;
}

/**
 * Items in the order of a packed tree: halved again and again across the direction in which their
 * centres spread most, each cut on the border of whole nodes, so that every node's run of items is
 * a box that its neighbours keep out of.
 * @param at the centres, `stride` numbers apart, the first three of each its x, y, z
 */
export function treeOrder(at: Float64Array, stride: number): Uint32Array {
  const count = at.length / stride;
  const order = new Uint32Array(count);
  const centres = new Float64Array(count * 3);
  for (let i = 0; i < count; i++) {
    order[i] = i;
    for (let axis = 0; axis < 3; axis++) centres[i * 3 + axis] = at[i * stride + axis]!;
  }
  halve(centres, order, 0, count, runOver(count));
  return order;
}

/** How many items a root over `count` of them has room for. */
export function runOver(count: number): number {
  let run = fanOut;
  while (run < count) run *= fanOut;
  return run;
}

/** Orders the items low…high (high left out), whose nodes hold `run` items at the level above. */
function halve(centres: Float64Array, order: Uint32Array, low: number, high: number, run: number): void {
  while (run >= high - low && run > 1) run /= fanOut;
  if (run < fanOut) return;
  let [lx, ly, lz] = [Infinity, Infinity, Infinity];
  let [hx, hy, hz] = [-Infinity, -Infinity, -Infinity];
  for (let j = low * 3; j < high * 3; j += 3) {
    const x = centres[j]!;
    const y = centres[j + 1]!;
    const z = centres[j + 2]!;
    if (x < lx) lx = x;
    if (x > hx) hx = x;
    if (y < ly) ly = y;
    if (y > hy) hy = y;
    if (z < lz) lz = z;
    if (z > hz) hz = z;
  }
  const [sx, sy, sz] = [hx - lx, hy - ly, hz - lz];
  const axis = sx >= sy && sx >= sz ? 0 : sy >= sz ? 1 : 2;
  const middle = low + (Math.ceil((high - low) / run) >> 1) * run;
  select(centres, order, axis, low, high - 1, middle);
  halve(centres, order, low, middle, run);
  halve(centres, order, middle, high, run);
}

/**
 * Permutes the items low…high so that the one at `k` is in its place along an axis, none before it
 * greater and none after it less (after Floyd and Rivest 1975, algorithm 489: in a large range the
 * cut is first guessed from a sample of about its root).
 */
function select(centres: Float64Array, order: Uint32Array, axis: number, low: number, high: number, k: number): void {
  while (high > low) {
    if (high - low > 600) {
      const n = high - low + 1;
      const share = (k - low + 1) / n;
      const sample = 3 * Math.sqrt(n);
      const deviation = 2 * Math.sqrt(sample) * (share < 0.5 ? -1 : 1);
      const from = Math.max(low, Math.floor(k - share * sample + deviation));
      const to = Math.min(high, Math.floor(k + (1 - share) * sample + deviation));
      select(centres, order, axis, from, to, k);
    }
    const pivot = centres[k * 3 + axis]!;
    let i = low;
    let j = high;
    while (i <= j) {
      while (centres[i * 3 + axis]! < pivot) i++;
      while (centres[j * 3 + axis]! > pivot) j--;
      if (i > j) break;
      exchange(centres, order, i++, j--);
    }
    if (k <= j) high = j;
    else if (k >= i) low = i;
    else return;
  }
}

function exchange(centres: Float64Array, order: Uint32Array, i: number, j: number): void {
  const item = order[i]!;
  order[i] = order[j]!;
  order[j] = item;
  for (let a = i * 3, b = j * 3; a < i * 3 + 3; a++, b++) {
    const v = centres[a]!;
    centres[a] = centres[b]!;
    centres[b] = v;
  }
}

/** The nodes of a tree over `count` items, without their bounds. */
export function emptyTree(order: Uint32Array): BoxTree {
  const levels = [0];
  let nodes = 0;
  for (let n = order.length; n > 0;) {
    n = Math.ceil(n / fanOut);
    nodes += n;
    levels.push(nodes);
    if (n === 1) break;
  }
  return {
    count: order.length,
    order,
    bounds: new Float64Array(nodes * 6),
    levels: Uint32Array.from(levels),
  };
}

/**
 * Bounds of every level above the first, from the one below: what is left of building or refitting
 * once the items' nodes are bounded.
 */
export function boundLevels({ bounds, levels }: BoxTree): void {
  for (let level = 1; level + 1 < levels.length; level++) {
    const below = levels[level - 1]!;
    const start = levels[level]!;
    const end = levels[level + 1]!;
    for (let node = start; node < end; node++) {
      const first = below + (node - start) * fanOut;
      const last = Math.min(first + fanOut, start);
      let b = first * 6;
      let lx = bounds[b]!;
      let ly = bounds[b + 1]!;
      let lz = bounds[b + 2]!;
      let hx = bounds[b + 3]!;
      let hy = bounds[b + 4]!;
      let hz = bounds[b + 5]!;
      for (b += 6; b < last * 6; b += 6) {
        if (bounds[b]! < lx) lx = bounds[b]!;
        if (bounds[b + 1]! < ly) ly = bounds[b + 1]!;
        if (bounds[b + 2]! < lz) lz = bounds[b + 2]!;
        if (bounds[b + 3]! > hx) hx = bounds[b + 3]!;
        if (bounds[b + 4]! > hy) hy = bounds[b + 4]!;
        if (bounds[b + 5]! > hz) hz = bounds[b + 5]!;
      }
      b = node * 6;
      bounds[b] = lx;
      bounds[b + 1] = ly;
      bounds[b + 2] = lz;
      bounds[b + 3] = hx;
      bounds[b + 4] = hy;
      bounds[b + 5] = hz;
    }
  }
}
