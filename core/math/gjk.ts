import { add, cross, dot, negate, scale, sub, type Vec3 } from './vec3';

/** The point of a convex set that lies farthest in a direction. */
export type Support = (direction: Vec3) => Vec3;

/** The farthest of some points, at least one, along a direction: what the hull of them is asked. */
export const supportOfPoints =
  (points: readonly Vec3[]): Support =>
  (d) => {
    let best = points[0]!;
    let most = dot(best, d);
    for (const p of points) {
      const along = dot(p, d);
      if (along > most) [best, most] = [p, along];
    }
    return best;
  };

/**
 * The point of a simplex (one to four points) nearest the origin, with the corners that carry it
 * (Ericson 2005, 5.1).
 */
function nearestOfSimplex(s: readonly Vec3[]): { point: Vec3; carrier: readonly Vec3[] } {
  if (s.length === 1) return { point: s[0]!, carrier: s };
  if (s.length === 2) {
    const [a, b] = s as [Vec3, Vec3];
    const ab = sub(b, a);
    const t = -dot(a, ab) / dot(ab, ab);
    if (!(t > 0)) return { point: a, carrier: [a] };
    if (t >= 1) return { point: b, carrier: [b] };
    return { point: add(a, scale(ab, t)), carrier: s };
  }
  if (s.length === 3) return nearestOfTriangle(s[0]!, s[1]!, s[2]!);
  const [a, b, c, d] = s as [Vec3, Vec3, Vec3, Vec3];
  const faces: readonly (readonly [Vec3, Vec3, Vec3, Vec3])[] = [
    [a, b, c, d],
    [a, c, d, b],
    [a, d, b, c],
    [b, d, c, a],
  ];
  let best: { point: Vec3; carrier: readonly Vec3[] } | null = null;
  for (const [p, q, r, opposite] of faces) {
    const n = cross(sub(q, p), sub(r, p));
    const side = dot(n, sub(opposite, p));
    // A flat tetrahedron has its origin outside every face at once: all of them are asked.
    if (side !== 0 && dot(n, negate(p)) * Math.sign(side) >= 0) continue;
    const found = nearestOfTriangle(p, q, r);
    if (!best || dot(found.point, found.point) < dot(best.point, best.point)) best = found;
  }
  return best ?? { point: [0, 0, 0], carrier: s };
}

function nearestOfTriangle(a: Vec3, b: Vec3, c: Vec3): { point: Vec3; carrier: readonly Vec3[] } {
  const [ab, ac] = [sub(b, a), sub(c, a)];
  const [d1, d2] = [-dot(ab, a), -dot(ac, a)];
  if (d1 <= 0 && d2 <= 0) return { point: a, carrier: [a] };
  const [d3, d4] = [-dot(ab, b), -dot(ac, b)];
  if (d3 >= 0 && d4 <= d3) return { point: b, carrier: [b] };
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return { point: add(a, scale(ab, d1 / (d1 - d3))), carrier: [a, b] };
  const [d5, d6] = [-dot(ab, c), -dot(ac, c)];
  if (d6 >= 0 && d5 <= d6) return { point: c, carrier: [c] };
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return { point: add(a, scale(ac, d2 / (d2 - d6))), carrier: [a, c] };
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const t = (d4 - d3) / (d4 - d3 + (d5 - d6));
    return { point: add(b, scale(sub(c, b), t)), carrier: [b, c] };
  }
  const total = va + vb + vc;
  if (total === 0) return nearestOfSimplex([a, b]);
  return { point: add(a, add(scale(ab, vb / total), scale(ac, vc / total))), carrier: [a, b, c] };
}

const rounding = 1e-14;

/**
 * Whether two convex sets are farther apart than `gap` (Gilbert, Johnson and Keerthi 1988). True
 * only with a proof: a direction in which the supports leave more than the gap free. Sets that
 * touch, or that doubles cannot tell from touching, are not apart.
 */
export function apart(a: Support, b: Support, gap = 0): boolean {
  // How large the numbers are that were subtracted: what is smaller than their rounding proves
  // nothing.
  let size = 0;
  const difference = (d: Vec3) => {
    const [p, q] = [a(d), b(negate(d))];
    size = Math.max(size, ...p.map(Math.abs), ...q.map(Math.abs));
    return sub(p, q);
  };
  let nearest = difference([1, 0, 0]);
  let simplex: readonly Vec3[] = [nearest];
  for (let step = 0; step < 200; step++) {
    const size2 = dot(nearest, nearest);
    if (size2 === 0) return false;
    const next = difference(negate(nearest));
    // Everything in the difference lies at least this far from the origin along `nearest`.
    const free = dot(nearest, next) / Math.sqrt(size2);
    if (free > gap + rounding * size) return true;
    if (Math.sqrt(size2) <= gap) return false;
    const progress = size2 - dot(nearest, next);
    if (progress <= 1e-14 * size2 || simplex.some((p) => p[0] === next[0] && p[1] === next[1] && p[2] === next[2]))
      return false;
    const found = nearestOfSimplex([...simplex, next]);
    if (dot(found.point, found.point) >= size2) return false;
    nearest = found.point;
    simplex = found.carrier;
    if (simplex.length === 4) return false;
  }
  return false;
}
