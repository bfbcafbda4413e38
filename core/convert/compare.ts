import { conjugate, multiplyQuat, type Quat } from '../math/quat';
import { addScaled, cross, distance, dot, length, type Vec3 } from '../math/vec3';
import type { Ray } from './project';

/** The angle between two directions of any length above 0, in radians 0…π, exact near both ends. */
export const angleBetween = (a: Vec3, b: Vec3): number => Math.atan2(length(cross(a, b)), dot(a, b));

/**
 * The angle of the one rotation that leads from a unit quaternion to another, in radians 0…π, exact
 * near 0.
 */
export function turnBetween(a: Quat, b: Quat): number {
  const [x, y, z, w] = multiplyQuat(conjugate(a), b);
  return 2 * Math.atan2(Math.hypot(x, y, z), Math.abs(w));
}

/**
 * How far one camera's ray goes wrong against another's: the angle between them (radians), the
 * distance between their points at a range (world units along each from its own origin), and the
 * wrong one's point there.
 */
export function compareRays(right: Ray, wrong: Ray, range: number): { angle: number; miss: number; point: Vec3 } {
  const at = ({ origin, direction }: Ray) => addScaled(origin, direction, range);
  return {
    angle: angleBetween(right.direction, wrong.direction),
    miss: distance(at(right), at(wrong)),
    point: at(wrong),
  };
}
