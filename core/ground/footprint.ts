import { add, addScaled, cross, dot, normalize, scale, sub, type Vec2, type Vec3, type Vec4 } from '../math/vec3';
import { planesOf, type CameraFrame } from '../camera/frame';

/** A plane with coordinates in it: p = origin + a·first + b·second, first × second = normal. */
export interface PlaneFrame {
  readonly origin: Vec3;
  readonly first: Vec3;
  readonly second: Vec3;
  readonly normal: Vec3;
}

/**
 * Coordinates in the plane through `point`, about the foot of `near` in it; null when the normal
 * has no length.
 */
export function planeFrame(point: Vec3, normal: Vec3, near: Vec3 = point): PlaneFrame | null {
  const n = normalize(normal);
  if (!n) return null;
  const origin = sub(near, scale(n, dot(n, sub(near, point))));
  const helper: Vec3 =
    Math.abs(n[0]) <= Math.abs(n[1]) && Math.abs(n[0]) <= Math.abs(n[2])
      ? [1, 0, 0]
      : Math.abs(n[1]) <= Math.abs(n[2])
        ? [0, 1, 0]
        : [0, 0, 1];
  const first = normalize(cross(helper, n))!;
  return { origin, first, second: cross(n, first), normal: n };
}

export interface Footprint {
  /**
   * In order, counter-clockwise seen from the normal's tip; for an unbounded one its finite corners
   * as an open chain.
   */
  readonly polygon: readonly Vec3[];
  readonly unbounded: boolean;
}

interface HalfPlane {
  readonly a: number;
  readonly b: number;
  readonly c: number;
}

/** Returns the half-planes in which planes leave the points of a ground; null when one leaves none of it. */
function halfPlanesOf({ origin, first, second }: PlaneFrame, planes: readonly Vec4[]): HalfPlane[] | null {
  const halves: HalfPlane[] = [];
  for (const [x, y, z, d] of planes) {
    const n: Vec3 = [x, y, z];
    const [a, b, c] = [dot(n, first), dot(n, second), dot(n, origin) + d];
    const slope = Math.hypot(a, b);
    if (slope < 1e-12) {
      if (c < 0) return null;
      continue;
    }
    halves.push({ a: a / slope, b: b / slope, c: c / slope });
  }
  return halves;
}
const frustumPlanes = (frame: CameraFrame): Vec4[] => planesOf(frame).map(({ plane }) => plane);

/**
 * Intersects the frustum with a plane. Each plane of the frustum is a half-plane a·x + b·y + c ≥ 0 in it; corners
 * are where two meet within all the others, and the region is unbounded when a direction leaves none of them.
 *
 * @param point - a point of the plane, world space
 * @param normal - its normal, any length
 * @param walls - further planes (x, y, z, d) that limit the region, normals inward
 * @returns the region in world space; null when they do not meet, or only in a point or a line
 */
export function footprint(
  frame: CameraFrame,
  point: Vec3,
  normal: Vec3,
  walls: readonly Vec4[] = [],
): Footprint | null {
  const ground = planeFrame(point, normal, frame.eye);
  const halves = ground && halfPlanesOf(ground, [...frustumPlanes(frame), ...walls]);
  if (!halves) return null;
  const { origin, first, second } = ground;
  const corners: Vec2[] = [];
  halves.forEach((p, i) =>
    halves.slice(i + 1).forEach((q) => {
      const det = p.a * q.b - q.a * p.b;
      if (Math.abs(det) < 1e-12) return;
      const at: Vec2 = [(p.b * q.c - q.b * p.c) / det, (q.a * p.c - p.a * q.c) / det];
      const size = 1 + Math.hypot(...at);
      if (!halves.every(({ a, b, c }) => a * at[0] + b * at[1] + c >= -1e-10 * size)) return;
      if (!corners.some((k) => Math.hypot(k[0] - at[0], k[1] - at[1]) < 1e-9 * size)) corners.push(at);
    }),
  );
  if (!corners.length) return null;
  const escape = escapeOf(halves);
  if (!escape && corners.length < 3) return null;
  const middle = [0, 1].map((i) => corners.reduce((sum, k) => sum + k[i as 0 | 1], 0) / corners.length) as [
    number,
    number,
  ];
  const spread = Math.max(1, ...corners.map((k) => Math.hypot(k[0] - middle[0], k[1] - middle[1])));
  const inner: Vec2 = escape ? [middle[0] + escape[0] * spread * 1e3, middle[1] + escape[1] * spread * 1e3] : middle;
  const start = escape ? Math.atan2(escape[1], escape[0]) : -Math.PI;
  const turn = (k: Vec2) => (Math.atan2(k[1] - inner[1], k[0] - inner[0]) - start + 4 * Math.PI) % (2 * Math.PI);
  corners.sort((p, q) => turn(p) - turn(q));
  return {
    polygon: corners.map(([x, y]) => add(add(origin, scale(first, x)), scale(second, y))),
    unbounded: escape !== null,
  };
}

/**
 * A direction in which one goes on for ever within all half-planes, the middle of them all; null
 * when there is none.
 */
function escapeOf(halves: readonly HalfPlane[]): Vec2 | null {
  const candidates = halves.flatMap(({ a, b }): Vec2[] => [
    [-b, a],
    [b, -a],
  ]);
  const free = candidates.filter(([x, y]) => halves.every(({ a, b }) => a * x + b * y >= -1e-10));
  if (!free.length) return null;
  const sum = free.reduce<Vec2>((total, d) => [total[0] + d[0], total[1] + d[1]], [0, 0]);
  const size = Math.hypot(...sum);
  return size > 1e-9 ? [sum[0] / size, sum[1] / size] : free[0]!;
}

/**
 * An edge of a convex region in a plane: the points `corner` + t·`direction` for t in `from`…`to`. A segment, or
 * with an infinite end a ray or a line. The direction is of length 1; seen from the normal's tip the region is to
 * its left.
 */
export interface FootprintEdge {
  readonly corner: Vec3;
  readonly direction: Vec3;
  readonly from: number;
  readonly to: number;
}

/**
 * Returns the edges of the region in which the frustum meets a plane, in no order; none where `footprint` is null.
 * Each half-plane's border is cut by all the others. The corner is an end of the edge where it has one.
 *
 * @param point - a point of the plane, world space
 * @param normal - its normal, any length
 */
export function footprintEdges(frame: CameraFrame, point: Vec3, normal: Vec3): FootprintEdge[] {
  const ground = planeFrame(point, normal, frame.eye);
  const halves = ground && halfPlanesOf(ground, frustumPlanes(frame));
  if (!halves || !footprint(frame, point, normal)) return [];
  const { origin, first, second } = ground;
  const place = (x: number, y: number) => addScaled(addScaled(origin, first, x), second, y);
  return halves.flatMap(({ a, b, c }, own): FootprintEdge[] => {
    let [from, to] = [-Infinity, Infinity];
    for (const [i, other] of halves.entries()) {
      if (i === own) continue;
      // Along the border, other ≥ 0 is slope·t + value ≥ 0.
      const slope = other.a * b - other.b * a;
      const value = other.c - c * (other.a * a + other.b * b);
      if (Math.abs(slope) > 1e-12) {
        if (slope > 0) from = Math.max(from, -value / slope);
        else to = Math.min(to, -value / slope);
      } else if (value < -1e-10 * (1 + Math.abs(c))) return [];
    }
    const least = 1e-9 * (1 + (Number.isFinite(from) ? Math.abs(from) : 0) + (Number.isFinite(to) ? Math.abs(to) : 0));
    if (!(to - from > least)) return [];
    const start = Number.isFinite(from) ? from : Number.isFinite(to) ? to : 0;
    const direction = addScaled(scale(first, b), second, -a);
    return [{ corner: place(-a * c + b * start, -b * c - a * start), direction, from: from - start, to: to - start }];
  });
}
