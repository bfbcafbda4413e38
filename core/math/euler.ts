import { multiplyQuat, quatAbout, quatToColumns, type Quat } from './quat';
import type { Vec3 } from './vec3';

/**
 * Three angles, in radians, in the order in which they are turned by: about the first axis, then
 * about the second as it has come to lie, then about the third. The same three the other way round
 * are turns about axes that stay.
 */
export type EulerOrder = 'xyz' | 'xzy' | 'yxz' | 'yzx' | 'zxy' | 'zyx';
export const eulerOrders: readonly EulerOrder[] = ['yxz', 'xyz', 'xzy', 'yzx', 'zxy', 'zyx'];

/** Below this cosine of the middle angle the first and the third turn about one line. */
const locked = 1e-9;

const axesOf = (order: EulerOrder) => [...order].map((letter) => 'xyz'.indexOf(letter)) as [number, number, number];

/** The unit quaternion of three angles: q = q₁·q₂·q₃, each about its own axis. */
export function quatOfEuler(angles: Vec3, order: EulerOrder): Quat {
  const unit = (axis: number): Vec3 => [0, 1, 2].map((i) => (i === axis ? 1 : 0)) as unknown as Vec3;
  const [a, b, c] = axesOf(order).map((axis, i) => quatAbout(unit(axis), angles[i]!)) as [Quat, Quat, Quat];
  return multiplyQuat(multiplyQuat(a, b), c);
}

/**
 * The three angles of a unit quaternion in an order, the first and third in −π…π, the middle one in
 * −π/2…π/2. Where the middle one is a right angle the other two are one turn: all of it is the
 * first, and the third is 0. From the entries of the product of the three rotation matrices
 * (`docs/derivations.md`, "Angles in an order").
 */
export function eulerOf(q: Quat, order: EulerOrder): Vec3 {
  const [i, j, k] = axesOf(order);
  const columns = quatToColumns(q);
  const m = (row: number, column: number) => columns[column]![row]!;
  // 1 where the order runs as x, y, z do.
  const s = (j - i + 3) % 3 === 1 ? 1 : -1;
  const cosine = Math.hypot(m(j, k), m(k, k));
  const middle = Math.atan2(s * m(i, k), cosine);
  return cosine < locked
    ? [Math.atan2(s * m(k, j), m(j, j)), middle, 0]
    : [Math.atan2(-s * m(j, k), m(k, k)), middle, Math.atan2(-s * m(i, j), m(i, i))];
}
