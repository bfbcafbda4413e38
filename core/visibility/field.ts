import { planesOf, type CameraFrame } from '../camera/frame';
import { boundLevels, emptyTree, fanOut, treeOrder, type BoxTree } from '../kernels/tree';
import { randomFrom } from '../math/random';
import { add, addScaled, cross, dot, length, scale, sub, type Vec3 } from '../math/vec3';
import { grown } from './visibility';

/*
 * A field of like test bodies in a box: up to millions of them, and what each is to a frustum.
 * Since all have one shape, one size and one attitude, how far a body reaches along a plane's normal
 * is one number a plane, and a tree over their middles serves all.
 */

export interface Field {
  readonly arrangement: 'grid' | 'scatter';
  readonly shape: 'sphere' | 'box';
  /** How many, a whole number from 1. */
  readonly count: number;
  /** The diameter, or the side of a box whose edges run along the world's axes; world units. */
  readonly size: number;
  /** Two opposite corners of the box that holds the bodies' middles, in canonical world space. */
  readonly min: Vec3;
  readonly max: Vec3;
  /** Of a scatter: the same seed, the same places on every machine. */
  readonly seed: number;
}

/**
 * How many cells a grid has along x, y and z so that it holds a number of them: as near to cubes as
 * whole numbers let them be; one along a side without length.
 */
export function gridOf({ min, max, count }: Pick<Field, 'min' | 'max' | 'count'>): Vec3 {
  const sides = sub(max, min).map(Math.abs);
  // A side that is shorter than a cell has one, and the others share the rest: so again and again.
  let shared = [0, 1, 2].filter((axis) => sides[axis]! > 0);
  if (!shared.length) return [count, 1, 1];
  let cell = 0;
  for (;;) {
    // By logarithms: the product of three large sides may leave the doubles.
    cell = Math.exp((shared.reduce((sum, axis) => sum + Math.log(sides[axis]!), 0) - Math.log(count)) / shared.length);
    const longer = shared.filter((axis) => sides[axis]! >= cell);
    if (longer.length === shared.length || !longer.length) break;
    shared = longer;
  }
  const cells = sides.map((side, axis) => (shared.includes(axis) ? Math.min(count, Math.max(1, Math.round(side / cell))) : 1)); // prettier-ignore
  while (cells[0]! * cells[1]! * cells[2]! < count) {
    // One more where the cells are longest.
    let axis = shared[0]!;
    for (const i of shared) if (!(sides[i]! / cells[i]! <= sides[axis]! / cells[axis]!)) axis = i;
    cells[axis]!++;
  }
  return cells as unknown as Vec3;
}

/**
 * The middles of a field's bodies: x, y, z after one another, canonical world space. A grid fills
 * the middles of its cells, x first, then y, then z; a scatter is uniform in the box.
 */
export function fieldCentres(field: Field): Float64Array {
  const { arrangement, count, min, max, seed } = field;
  const centres = new Float64Array(3 * count);
  const [sx, sy, sz] = sub(max, min);
  if (arrangement === 'scatter') {
    const random = randomFrom(seed);
    for (let i = 0; i < 3 * count; i += 3) {
      centres[i] = min[0] + sx * random();
      centres[i + 1] = min[1] + sy * random();
      centres[i + 2] = min[2] + sz * random();
    }
    return centres;
  }
  const [nx, ny, nz] = gridOf(field);
  for (let i = 0, at = 0; i < count; i++, at += 3) {
    const row = Math.floor(i / nx);
    centres[at] = min[0] + (sx * ((i % nx) + 0.5)) / nx;
    centres[at + 1] = min[1] + (sy * ((row % ny) + 0.5)) / ny;
    centres[at + 2] = min[2] + (sz * (Math.floor(row / ny) + 0.5)) / nz;
  }
  return centres;
}

/** A tree over the middles of a field; `centres` are its own, in tree order. */
export interface FieldTree extends BoxTree {
  readonly centres: Float64Array;
}

/** A tree over middles given as x, y, z after one another (canonical world space). */
export function fieldTree(middles: Float64Array): FieldTree {
  const tree = { ...emptyTree(treeOrder(middles, 3)), centres: new Float64Array(middles.length) };
  const { order, bounds, centres, count } = tree;
  for (let k = 0, node = 0; k < count; node += 6) {
    for (let axis = 0; axis < 3; axis++) {
      bounds[node + axis] = Infinity;
      bounds[node + 3 + axis] = -Infinity;
    }
    const end = Math.min(k + fanOut, count);
    for (; k < end; k++)
      for (let axis = 0; axis < 3; axis++) {
        const v = middles[3 * order[k]! + axis]!;
        centres[3 * k + axis] = v;
        if (v < bounds[node + axis]!) bounds[node + axis] = v;
        if (v > bounds[node + 3 + axis]!) bounds[node + 3 + axis] = v;
      }
  }
  boundLevels(tree);
  return tree;
}

/** What was found of a field, and what the tree looked at for it. */
export interface FieldSeen {
  readonly inside: number;
  readonly crosses: number;
  readonly outside: number;
  /** Of those outside: kept by the customary test of planes, with nothing of them in the frustum. */
  readonly falseAlarms: number;
  readonly tested: { readonly boxes: number; readonly bodies: number };
}

export interface FieldOptions {
  /** Pixels added round the viewport. */
  readonly margin?: number;
  /** A 2D world: discs and squares, no near and far. */
  readonly flat?: boolean;
  /** The byte that is written for each verdict. */
  readonly bytes: { readonly outside: number; readonly crosses: number; readonly inside: number; readonly falseAlarm: number }; // prettier-ignore
}

/** A box must clear a plane by this share of the numbers' size before its bodies are not asked. */
const slackShare = 1e-12;
const stack = new Int32Array(3 * 256);

/**
 * What each body of a field is to a frustum: the verdicts of `visibility` for the same bodies, with
 * those that the planes keep and the exact test does not told apart. Touching is crossing.
 * @param verdicts receives a byte a body, in the field's own order
 */
export function fieldInView(
  frame: CameraFrame,
  { shape, size }: Pick<Field, 'shape' | 'size'>,
  tree: FieldTree,
  verdicts: Uint8Array,
  { margin = 0, flat = false, bytes }: FieldOptions,
): FieldSeen {
  const wide = grown(frame, margin);
  const named = planesOf(wide).filter(({ name }) => !flat || (name !== 'near' && name !== 'far'));
  const half = size / 2;
  // A plane's normal and offset, then how far a body reaches along the normal.
  const planes = Float64Array.from(
    named.flatMap(({ plane: [x, y, z, d] }) => [x, y, z, d, reachAlong(shape, half, [x, y, z], flat)]),
  );
  const meets = exactTest(wide, shape, half, planes, flat);
  const { bounds, levels, order, centres, count } = tree;
  verdicts.fill(bytes.outside, 0, count);
  let [inside, crosses, falseAlarms, boxes, bodies] = [0, 0, 0, 0, 0];
  let depth = 0;
  if (count) {
    stack[depth++] = levels.length - 2;
    stack[depth++] = 0;
    stack[depth++] = (1 << named.length) - 1;
  }
  while (depth > 0) {
    let open = stack[--depth]!;
    const at = stack[--depth]!;
    const level = stack[--depth]!;
    const b = (levels[level]! + at) * 6;
    const [lx, ly, lz, hx, hy, hz] = [bounds[b]!, bounds[b + 1]!, bounds[b + 2]!, bounds[b + 3]!, bounds[b + 4]!, bounds[b + 5]!]; // prettier-ignore
    const spread = Math.abs(lx) + Math.abs(ly) + Math.abs(lz) + Math.abs(hx) + Math.abs(hy) + Math.abs(hz) + size;
    boxes++;
    let behind = false;
    for (let p = 0, bit = 1; bit <= open; p += 5, bit <<= 1) {
      if (!(open & bit)) continue;
      const [nx, ny, nz, d, reach] = [planes[p]!, planes[p + 1]!, planes[p + 2]!, planes[p + 3]!, planes[p + 4]!];
      const most = (nx > 0 ? hx : lx) * nx + (ny > 0 ? hy : ly) * ny + (nz > 0 ? hz : lz) * nz + d;
      const least = (nx > 0 ? lx : hx) * nx + (ny > 0 ? ly : hy) * ny + (nz > 0 ? lz : hz) * nz + d;
      const slack = (spread + Math.abs(d)) * slackShare;
      if (most + reach < -slack) {
        behind = true;
        break;
      }
      if (least - reach > slack) open &= ~bit;
    }
    if (behind) continue;
    if (open === 0) {
      const run = fanOut ** (level + 1);
      const end = Math.min((at + 1) * run, count);
      for (let k = at * run; k < end; k++) verdicts[order[k]!] = bytes.inside;
      inside += end - at * run;
    } else if (level > 0) {
      const end = Math.min((at + 1) * fanOut, levels[level]! - levels[level - 1]!);
      for (let child = at * fanOut; child < end; child++) {
        stack[depth++] = level - 1;
        stack[depth++] = child;
        stack[depth++] = open;
      }
    } else {
      const end = Math.min((at + 1) * fanOut, count);
      for (let k = at * fanOut; k < end; k++) {
        const [x, y, z] = [centres[3 * k]!, centres[3 * k + 1]!, centres[3 * k + 2]!];
        bodies++;
        let verdict = 2;
        for (let p = 0, bit = 1; bit <= open; p += 5, bit <<= 1) {
          if (!(open & bit)) continue;
          const d = planes[p]! * x + planes[p + 1]! * y + planes[p + 2]! * z + planes[p + 3]!;
          if (d + planes[p + 4]! < 0) {
            verdict = 0;
            break;
          }
          if (d - planes[p + 4]! <= 0) verdict = 1;
        }
        if (verdict === 0) continue;
        if (verdict === 2) {
          verdicts[order[k]!] = bytes.inside;
          inside++;
        } else if (meets(x, y, z)) {
          verdicts[order[k]!] = bytes.crosses;
          crosses++;
        } else {
          verdicts[order[k]!] = bytes.falseAlarm;
          falseAlarms++;
        }
      }
    }
  }
  return { inside, crosses, outside: count - inside - crosses, falseAlarms, tested: { boxes, bodies } };
}

/** How far a body reaches from its middle along a direction, as it stands. */
const reachAlong = (shape: Field['shape'], half: number, n: Vec3, flat: boolean): number =>
  shape === 'sphere' ? half * length(n) : half * (Math.abs(n[0]) + Math.abs(n[1]) + (flat ? 0 : Math.abs(n[2])));

/** A frustum's edges in the world: a start and a whole way; the way of an endless one is a direction. */
interface Edge {
  readonly from: Vec3;
  readonly way: Vec3;
  readonly endless: boolean;
}

/** The edges of a frustum; of a flat world, the sides of its picture. */
function edgesOf(frame: CameraFrame, flat: boolean): Edge[] {
  const { extents: e, near, far, eye, right, up, forward, kind } = frame;
  const at = ([r, u]: readonly [number, number], f: number): Vec3 => {
    const k = kind === 'perspective' ? f / near : 1;
    const level = addScaled(addScaled(eye, right, r * k), up, u * k);
    return flat ? level : addScaled(level, forward, f);
  };
  const corners = [
    [e.left, e.bottom],
    [e.right, e.bottom],
    [e.right, e.top],
    [e.left, e.top],
  ] as const;
  const ring = (f: number) =>
    corners.map((corner, i): Edge => {
      const from = at(corner, f);
      return { from, way: sub(at(corners[(i + 1) % 4]!, f), from), endless: false };
    });
  if (flat) return ring(near);
  const along = corners.map((corner): Edge => {
    const from = at(corner, near);
    if (far !== null) return { from, way: sub(at(corner, far), from), endless: false };
    return { from, way: kind === 'perspective' ? sub(from, eye) : forward, endless: true };
  });
  return [...ring(near), ...along, ...(far === null ? [] : ring(far))];
}

/**
 * Whether a body that the planes keep has a point in common with the frustum. A sphere: by the
 * nearest point of the frustum, which lies on a face, straight below, or on an edge. A box: no axis
 * parts the two, of the box's own, and of those across one edge of each (the faces of the difference
 * of two convex bodies; Gottschalk, Lin and Manocha 1996); the planes are asked before.
 */
function exactTest(
  frame: CameraFrame,
  shape: Field['shape'],
  half: number,
  planes: Float64Array,
  flat: boolean,
): (x: number, y: number, z: number) => boolean {
  const edges = edgesOf(frame, flat);
  if (shape === 'sphere') {
    const within = half * half;
    const inAll = (x: number, y: number, z: number, but: number): boolean => {
      for (let q = 0; q < planes.length; q += 5)
        if (q !== but && planes[q]! * x + planes[q + 1]! * y + planes[q + 2]! * z + planes[q + 3]! < 0) return false;
      return true;
    };
    return (x, y, z) => {
      if (inAll(x, y, z, -1)) return true;
      // The planes have said that none is farther off than the radius.
      for (let p = 0; p < planes.length; p += 5) {
        const d = planes[p]! * x + planes[p + 1]! * y + planes[p + 2]! * z + planes[p + 3]!;
        if (d < 0 && inAll(x - d * planes[p]!, y - d * planes[p + 1]!, z - d * planes[p + 2]!, p)) return true;
      }
      const centre: Vec3 = [x, y, z];
      return edges.some(({ from, way, endless }) => {
        const to = sub(centre, from);
        const t = Math.max(0, dot(to, way) / dot(way, way) || 0);
        const off = addScaled(to, way, endless ? -t : -Math.min(1, t));
        return dot(off, off) <= within;
      });
    };
  }
  // On a plane the sides of both are enough: the picture's are the planes.
  const own: Vec3[] = flat ? [[1, 0, 0], [0, 1, 0]] : [[1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
  const across = flat ? [] : edges.flatMap(({ way }) => own.map((axis) => cross(axis, way)));
  const axes = [...own, ...across].flatMap((axis) => {
    const long = length(axis);
    if (!(long > 0)) return [];
    const a = scale(axis, 1 / long);
    let [low, high] = [Infinity, -Infinity];
    for (const { from, way, endless } of edges) {
      const [start, step] = [dot(a, from), dot(a, way)];
      // Along an endless edge that runs across the axis nothing grows but rounding.
      const far = endless ? (Math.abs(step) <= 1e-12 * length(way) ? start : step * Infinity) : dot(a, add(from, way));
      low = Math.min(low, start, far);
      high = Math.max(high, start, far);
    }
    const reach = reachAlong('box', half, a, flat);
    return [...a, low - reach, high + reach];
  });
  const flatAxes = Float64Array.from(axes);
  return (x, y, z) => {
    for (let i = 0; i < flatAxes.length; i += 5) {
      const at = flatAxes[i]! * x + flatAxes[i + 1]! * y + flatAxes[i + 2]! * z;
      if (at < flatAxes[i + 3]! || at > flatAxes[i + 4]!) return false;
    }
    return true;
  };
}
