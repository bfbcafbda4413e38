import { scale, sub, type Vec2, type Vec3 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { answer, noAnswer, type Answer } from '../reasons';
import { worldToViewRuf } from './project';

/**
 * How a point's pixel moves with the point: pixels (x to the right, y downward) per world unit
 * along each world axis of canonical space.
 */
export interface PixelDerivative {
  readonly x: Vec3;
  readonly y: Vec3;
}

/**
 * The derivative of the pixel of a world point by the point. In perspective x = c + s·r/f, so ∂x =
 * s·(right − (r/f)·forward)/f, and likewise for y (`docs/derivations.md`, "Pixel derivative"); no
 * answer behind the eye or on its plane.
 */
export function pixelDerivative(frame: CameraFrame, world: Vec3): Answer<PixelDerivative> {
  const { extents: e, viewport: v, near } = frame;
  const [sx, sy] = [v.width / (e.right - e.left), -v.height / (e.top - e.bottom)];
  if (frame.kind === 'orthographic') return answer({ x: scale(frame.right, sx), y: scale(frame.up, sy) });
  const [r, u, f] = worldToViewRuf(frame, world);
  if (f < 0) return noAnswer('behindEye');
  const along = (axis: Vec3, part: number, s: number): Vec3 =>
    scale(sub(axis, scale(frame.forward, part / f)), (s * near) / f);
  const value = { x: along(frame.right, r, sx), y: along(frame.up, u, sy) };
  return [...value.x, ...value.y].every(Number.isFinite) ? answer(value) : noAnswer('onEyePlane');
}

/**
 * How fast the pixel of a point moves, in pixels a second, when the point moves with a velocity in
 * world units a second.
 */
export const pixelVelocity = ({ x, y }: PixelDerivative, [vx, vy, vz]: Vec3): Vec2 => [
  x[0] * vx + x[1] * vy + x[2] * vz,
  y[0] * vx + y[1] * vy + y[2] * vz,
];
