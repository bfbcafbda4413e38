/**
 * Three numbers: a point, a displacement or a direction. Which of them, and in which space, the
 * name of the value says.
 */
export type Vec3 = readonly [number, number, number];
export type Vec2 = readonly [number, number];
export type Vec4 = readonly [number, number, number, number];

/** a + b. */
export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/** a − b: the way from b to a. */
export const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/** k·a. */
export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
/** a + k·b, the step along a ray. */
export const addScaled = (a: Vec3, b: Vec3, k: number): Vec3 => [a[0] + b[0] * k, a[1] + b[1] * k, a[2] + b[2] * k];
/** a·b. */
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** a × b, by the right-handed rule. */
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** The length of a vector, without overflow on the way. */
export const length = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
/** How far two points are apart. */
/**
 * The length of a pair: faster than `Math.hypot`, and as safe, since squares that leave the doubles
 * are left to it.
 */
export function length2(x: number, y: number): number {
  const square = x * x + y * y;
  return square > 1e-280 && square < 1e280 ? Math.sqrt(square) : Math.hypot(x, y);
}
export const distance = (a: Vec3, b: Vec3): number => length(sub(a, b));
/** −a. */
export const negate = (a: Vec3): Vec3 => [-a[0], -a[1], -a[2]];

/**
 * The unit vector along `a`, or null for a vector of no length (or of a length that is not a
 * number). Scaled by the largest part first, so that 1e-200 and 1e200 are answered too.
 */
export function normalize(a: Vec3): Vec3 | null {
  const largest = Math.max(Math.abs(a[0]), Math.abs(a[1]), Math.abs(a[2]));
  if (!(largest > 0) || !Number.isFinite(largest)) return null;
  const s = [a[0] / largest, a[1] / largest, a[2] / largest] as const;
  return scale(s, 1 / length(s));
}
