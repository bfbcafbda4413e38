import { length2, type Vec2 } from '../math/vec3';
import type { Random } from '../math/random';

/*
 * Regions bounded by lines and circles, cut into strips in which their left and right sides are
 * single curves: areas are exact integrals and points are drawn without rolling again. Derivation:
 * `docs/derivations.md`, "Spawning".
 */

/** A side of a strip: x as a function of y, over low…high. */
type Curve =
  | {
      readonly kind: 'line';
      readonly x: number;
      readonly y: number;
      readonly slope: number;
      readonly low: number;
      readonly high: number;
    }
  | {
      readonly kind: 'arc';
      readonly x: number;
      readonly y: number;
      readonly radius: number;
      readonly side: 1 | -1;
      readonly low: number;
      readonly high: number;
    };

/**
 * A piece of a region's outline, or of a construction line that may be one: more than there are do
 * no harm.
 */
export type Outline =
  | { readonly kind: 'segment'; readonly from: Vec2; readonly to: Vec2 }
  | { readonly kind: 'circle'; readonly centre: Vec2; readonly radius: number };

const curvesOf = (outline: Outline): Curve[] => {
  if (outline.kind === 'circle') {
    const {
      centre: [x, y],
      radius,
    } = outline;
    if (!(radius > 0)) return [];
    const arc = (side: 1 | -1): Curve => ({ kind: 'arc', x, y, radius, side, low: y - radius, high: y + radius });
    return [arc(-1), arc(1)];
  }
  const [a, b] = outline.from[1] <= outline.to[1] ? [outline.from, outline.to] : [outline.to, outline.from];
  if (a[1] === b[1]) return [];
  return [{ kind: 'line', x: a[0], y: a[1], slope: (b[0] - a[0]) / (b[1] - a[1]), low: a[1], high: b[1] }];
};

function xAt(curve: Curve, y: number): number {
  if (curve.kind === 'line') return curve.x + curve.slope * (y - curve.y);
  const t = y - curve.y;
  return curve.x + curve.side * Math.sqrt(Math.max(0, curve.radius * curve.radius - t * t));
}

/** The integral of x over y from the curve's own y to `y`. */
function integral(curve: Curve, y: number): number {
  const t = y - curve.y;
  if (curve.kind === 'line') return curve.x * t + (curve.slope * t * t) / 2;
  const r = curve.radius;
  const u = Math.max(-r, Math.min(r, t));
  return curve.x * t + (curve.side * (u * Math.sqrt(Math.max(0, r * r - u * u)) + r * r * Math.asin(u / r))) / 2;
}

/** The heights at which two curves may cross. */
function crossings(a: Curve, b: Curve): number[] {
  if (a.kind === 'line' && b.kind === 'line') {
    const turn = a.slope - b.slope;
    return turn === 0 ? [] : [(b.x - b.slope * b.y - (a.x - a.slope * a.y)) / turn];
  }
  if (a.kind === 'arc' && b.kind === 'arc') {
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const d2 = dx * dx + dy * dy;
    if (d2 === 0) return [];
    const along = (a.radius * a.radius - b.radius * b.radius + d2) / (2 * d2);
    const off2 = (a.radius * a.radius) / d2 - along * along;
    if (off2 < 0) return [];
    const off = Math.sqrt(off2);
    return [a.y + along * dy - off * dx, a.y + along * dy + off * dx];
  }
  const [line, arc] = (a.kind === 'line' ? [a, b] : [b, a]) as [
    Extract<Curve, { kind: 'line' }>,
    Extract<Curve, { kind: 'arc' }>,
  ];
  // x = p + m·t against the circle about (0, 0), t = y − arc.y.
  const m = line.slope;
  const p = line.x + m * (arc.y - line.y) - arc.x;
  const q = 1 + m * m;
  const root = m * m * p * p - q * (p * p - arc.radius * arc.radius);
  if (root < 0) return [];
  const half = Math.sqrt(root);
  return [arc.y + (-m * p - half) / q, arc.y + (-m * p + half) / q];
}

/** How far a curve reaches sideways, at least as far as it does. */
const widthOf = (c: Curve): readonly [number, number] => {
  if (c.kind === 'arc') return [c.x - c.radius, c.x + c.radius];
  const [a, b] = [xAt(c, c.low), xAt(c, c.high)];
  return a < b ? [a, b] : [b, a];
};

interface Cell {
  readonly left: Curve;
  readonly right: Curve;
  readonly low: number;
  readonly high: number;
  readonly area: number;
}

/** A region ready to be measured and drawn from. */
export interface Region {
  readonly area: number;
  /**
   * A point, uniform by area: one random number for the cell and the height in it, one for the
   * place across.
   */
  draw(random: Random): Vec2;
  /** The same into a list of pairs, at a place of it: for many, without an object for each. */
  drawInto(random: Random, to: Float64Array, at: number): void;
  /**
   * The two numbers in 0…1 that draw a point of the region: the share of the area before it, and the
   * share of the way across. Of points that are uniform by area the two are uniform and independent.
   * Null off the region.
   */
  sharesOf(p: Vec2): Vec2 | null;
  /** The same into a list of pairs, at a place of it; NaN off the region. */
  sharesInto(x: number, y: number, to: Float64Array, at: number): void;
  /** The region as triangles, three corners each, its arcs by chords: for drawing alone. */
  triangles(): readonly Vec2[];
}

/**
 * The region of points for which `allowed` holds, whose border consists of pieces of `outlines` and
 * which lies within `low`…`high` upward and between the outlines sideways. Null when it has no
 * area. Where `hidden` says that a point lies inside what is left out, nothing is cut for a crossing
 * there: of many discs over one another only their common outline counts.
 */
export function regionOf(
  outlines: readonly Outline[],
  low: number,
  high: number,
  allowed: (p: Vec2) => boolean,
  hidden: (p: Vec2) => boolean = () => false,
): Region | null {
  const curves = outlines
    .flatMap(curvesOf)
    .filter((c) => c.high > low && c.low < high)
    .sort((a, b) => a.low - b.low);
  const widths = curves.map(widthOf);
  const heights = new Set([low, high]);
  const note = (y: number) => y > low && y < high && heights.add(y);
  curves.forEach((a, i) => {
    note(a.low);
    note(a.high);
    const [left, right] = widths[i]!;
    for (let k = i + 1; k < curves.length && curves[k]!.low <= a.high; k++) {
      if (widths[k]![0] > right || widths[k]![1] < left) continue;
      for (const y of crossings(a, curves[k]!)) if (y > low && y < high && !hidden([xAt(a, y), y])) heights.add(y);
    }
  });
  const levels = [...heights].sort((a, b) => a - b);
  const cells: Cell[] = [];
  // Those that reach the strip from below; they are in the order in which they begin.
  let [active, begun] = [[] as Curve[], 0];
  for (let i = 0; i + 1 < levels.length; i++) {
    const [y0, y1] = [levels[i]!, levels[i + 1]!];
    const middle = (y0 + y1) / 2;
    while (begun < curves.length && curves[begun]!.low <= y0) active.push(curves[begun++]!);
    active = active.filter((c) => c.high >= y1);
    if (!(middle > y0 && middle < y1)) continue;
    const across = active.map((c) => ({ c, x: xAt(c, middle) })).sort((a, b) => a.x - b.x);
    for (let k = 0; k + 1 < across.length; k++) {
      const { c: left, x: x0 } = across[k]!;
      const { c: right, x: x1 } = across[k + 1]!;
      if (!(x1 > x0) || !allowed([(x0 + x1) / 2, middle])) continue;
      const area = integral(right, y1) - integral(right, y0) - integral(left, y1) + integral(left, y0);
      if (area > 0) cells.push({ left, right, low: y0, high: y1, area });
    }
  }
  if (!cells.length) return null;
  // The first cell of each strip: cells are in the order of their strips, from the lowest up.
  const strips: number[] = [];
  cells.forEach((cell, i) => (i === 0 || cell.low > cells[i - 1]!.low) && strips.push(i));
  /** The first cell of the last strip that begins at or below a height. */
  const stripAt = (y: number): number => {
    let [from, to] = [0, strips.length - 1];
    while (from < to) {
      const half = (from + to + 1) >> 1;
      if (cells[strips[half]!]!.low <= y) from = half;
      else to = half - 1;
    }
    return from;
  };
  const sums: number[] = [];
  let area = 0;
  for (const cell of cells) sums.push((area += cell.area));
  const drawInto: Region['drawInto'] = (random, pairs, at) => {
    const target = random() * area;
    let [from, to] = [0, cells.length - 1];
    while (from < to) {
      const half = (from + to) >> 1;
      if (sums[half]! > target) to = half;
      else from = half + 1;
    }
    const { left, right, low: y0, high: y1, area: whole } = cells[from]!;
    // The height below which the wanted share of the cell lies: its area grows with the height,
    // so it can be solved for.
    const wanted = Math.min(whole, target - (sums[from]! - whole));
    if (left.kind === 'line' && right.kind === 'line') {
      // Between straight sides the width is even in the height: wanted = w·t + k·t²/2, solved for t
      // in the form that loses no digits.
      const w = xAt(right, y0) - xAt(left, y0);
      const k = right.slope - left.slope;
      const t = (2 * wanted) / (w + Math.sqrt(Math.max(0, w * w + 2 * k * wanted)));
      const y = Math.max(y0, Math.min(y1, y0 + (Number.isFinite(t) ? t : 0)));
      const [x0, x1] = [xAt(left, y), xAt(right, y)];
      pairs[at] = x0 + (x1 - x0) * random();
      pairs[at + 1] = y;
      return;
    }
    const below = (y: number) => integral(right, y) - integral(right, y0) - integral(left, y) + integral(left, y0);
    let [bottom, top] = [y0, y1];
    let y = y0 + ((y1 - y0) * wanted) / whole;
    // Newton's steps, whose slope is the cell's width, kept within what is known.
    for (let step = 0; step < 60; step++) {
      const over = below(y) - wanted;
      if (over < 0) bottom = y;
      else top = y;
      const guess = y - over / (xAt(right, y) - xAt(left, y));
      const next = guess > bottom && guess < top ? guess : (bottom + top) / 2;
      if (Math.abs(next - y) <= 4e-16 * (Math.abs(y0) + Math.abs(y1))) break;
      y = next;
    }
    const [x0, x1] = [xAt(left, y), xAt(right, y)];
    pairs[at] = x0 + (x1 - x0) * random();
    pairs[at + 1] = y;
  };
  const sharesInto: Region['sharesInto'] = (x, y, to, at) => {
    const strip = stripAt(y);
    // A point on the border of two strips may lie in a cell of the lower.
    const last = strips[strip + 1] ?? cells.length;
    for (let i = strips[Math.max(0, strip - 1)]!; i < last; i++) {
      const { left, right, low: y0, high: y1, area: whole } = cells[i]!;
      if (y < y0 || y > y1) continue;
      const [x0, x1] = [xAt(left, y), xAt(right, y)];
      if (x < x0 || x > x1 || !(x1 > x0)) continue;
      const below = integral(right, y) - integral(right, y0) - integral(left, y) + integral(left, y0);
      to[at] = (sums[i]! - whole + Math.max(0, Math.min(whole, below))) / area;
      to[at + 1] = (x - x0) / (x1 - x0);
      return;
    }
    to[at] = NaN;
    to[at + 1] = NaN;
  };
  return {
    area,
    drawInto,
    draw: (random) => {
      const pair = new Float64Array(2);
      drawInto(random, pair, 0);
      return [pair[0]!, pair[1]!];
    },
    sharesInto,
    sharesOf: ([x, y]) => {
      const pair = new Float64Array(2);
      sharesInto(x, y, pair, 0);
      return Number.isNaN(pair[0]!) ? null : [pair[0]!, pair[1]!];
    },
    triangles: () =>
      cells.flatMap(({ left, right, low: y0, high: y1 }) => {
        // Between straight sides one strip is exact; along arcs as many as are smooth to the eye.
        const strips = left.kind === 'line' && right.kind === 'line' ? 1 : 12;
        return Array.from({ length: strips }, (_, k) => {
          // Arcs turn most at their ends.
          const at = (n: number) => y0 + ((y1 - y0) * (1 - Math.cos((Math.PI * n) / strips))) / 2;
          const [a, b] = [at(k), at(k + 1)];
          const corners: Vec2[] = [[xAt(left, a), a], [xAt(right, a), a], [xAt(right, b), b], [xAt(left, b), b]]; // prettier-ignore
          return [0, 1, 2, 0, 2, 3].map((c) => corners[c]!);
        }).flat();
      }),
  };
}

/**
 * The outlines of a convex polygon (counter-clockwise) grown by a distance: its edges moved outward
 * and the circles about its corners.
 */
export function grownOutlines(polygon: readonly Vec2[], distance: number): Outline[] {
  return polygon.flatMap((p, i): Outline[] => {
    const q = polygon[(i + 1) % polygon.length]!;
    const long = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const out = [((q[1] - p[1]) / long) * distance, (-(q[0] - p[0]) / long) * distance] as const;
    return [
      { kind: 'segment', from: [p[0] + out[0], p[1] + out[1]], to: [q[0] + out[0], q[1] + out[1]] },
      { kind: 'circle', centre: p, radius: distance },
    ];
  });
}

/** Returns the distance of a point from a convex polygon (counter-clockwise); 0 in it, infinite without corners. */
export const distanceToPolygon = (polygon: readonly Vec2[], [x, y]: Vec2): number => distanceFrom(polygon, x, y);

function distanceFrom(polygon: readonly Vec2[], x: number, y: number): number {
  const count = polygon.length;
  let inside = count > 0;
  let least = Infinity;
  // Asked for every point that is spawned: without a list made for each side.
  for (let i = 0; i < count; i++) {
    const p = polygon[i]!;
    const q = polygon[i + 1 === count ? 0 : i + 1]!;
    const ex = q[0] - p[0];
    const ey = q[1] - p[1];
    const px = x - p[0];
    const py = y - p[1];
    if (ex * py - ey * px < 0) inside = false;
    const along = (px * ex + py * ey) / (ex * ex + ey * ey);
    const t = along > 0 ? (along < 1 ? along : 1) : along <= 0 ? 0 : NaN;
    const dx = px - t * ex;
    const dy = py - t * ey;
    const far = length2(dx, dy);
    if (!(far >= least)) least = far;
  }
  return inside ? 0 : least;
}

/**
 * Whether a disc of a radius (0 or more) about a place touches a convex polygon (counter-clockwise),
 * for many places: most lie off the box about it and are told by that alone.
 */
export function touchesPolygon(polygon: readonly Vec2[], radius: number): (x: number, y: number) => boolean {
  let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of polygon) {
    left = Math.min(left, x - radius);
    right = Math.max(right, x + radius);
    low = Math.min(low, y - radius);
    high = Math.max(high, y + radius);
  }
  const count = polygon.length;
  // Rounding of a place's distance from a side's line is less than this times the side's length.
  const rounding = 1e-14 * (Math.max(right - left, high - low) + Math.max(-left, right, -low, high));
  // Each side by its beginning, its way, one over its length squared, and how far off its line, times
  // its length, is too far for certain: asked of a million places.
  const sides = new Float64Array(6 * count);
  polygon.forEach(([ax, ay], i) => {
    const [bx, by] = polygon[(i + 1) % count]!;
    const [dx, dy] = [bx - ax, by - ay];
    const square = dx * dx + dy * dy;
    sides.set([ax, ay, dx, dy, square > 0 ? 1 / square : 0, -(radius + rounding) * Math.sqrt(square)], 6 * i);
  });
  // Squares that leave the doubles, or begin to, are left to lengths that do not.
  const plain = sides.every((v, i) => i % 6 !== 4 || (v > 1e-280 && v < 1e280));
  return (x, y) => {
    if (!(x >= left && x <= right && y >= low && y <= high)) return false;
    if (!plain) return distanceFrom(polygon, x, y) <= radius;
    let inside = true;
    for (let i = 0; i < sides.length; i += 6) {
      const off = sides[i + 2]! * (y - sides[i + 1]!) - sides[i + 3]! * (x - sides[i]!);
      if (off < sides[i + 5]!) return false;
      if (off < 0) inside = false;
    }
    if (inside) return true;
    let least = Infinity;
    for (let i = 0; i < sides.length; i += 6) {
      const px = x - sides[i]!;
      const py = y - sides[i + 1]!;
      const dx = sides[i + 2]!;
      const dy = sides[i + 3]!;
      const along = (px * dx + py * dy) * sides[i + 4]!;
      const t = along > 0 ? (along < 1 ? along : 1) : 0;
      const ox = px - t * dx;
      const oy = py - t * dy;
      const square = ox * ox + oy * oy;
      if (square < least) least = square;
    }
    return Math.sqrt(least) <= radius;
  };
}

/**
 * Area (positive counter-clockwise), perimeter and centroid of a simple polygon of at least one
 * corner, in its own units; with area 0 the centroid is no number. The shoelace formula, about the
 * first corner so that far places lose no digits.
 */
export function areaAndCentroid(polygon: readonly Vec2[]): { area: number; perimeter: number; centroid: Vec2 } {
  let [area, perimeter, cx, cy] = [0, 0, 0, 0];
  const [ox, oy] = polygon[0]!;
  polygon.forEach((p, i) => {
    const q = polygon[(i + 1) % polygon.length]!;
    const w = (p[0] - ox) * (q[1] - oy) - (q[0] - ox) * (p[1] - oy);
    area += w / 2;
    cx += (w * (p[0] + q[0] - 2 * ox)) / 6;
    cy += (w * (p[1] + q[1] - 2 * oy)) / 6;
    perimeter += Math.hypot(q[0] - p[0], q[1] - p[1]);
  });
  return { area, perimeter, centroid: [ox + cx / area, oy + cy / area] };
}
