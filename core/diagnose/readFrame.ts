import { frameOf, reframed, type CameraFrame, type Viewport } from '../camera/frame';
import { cross, dot, negate, normalize, scale, sub } from '../math/vec3';
import type { ReadLens, ReadPose } from './decompose';

/** How far from square axes may be and still be drawn as a camera's. */
const loose = 1e-3;

/**
 * The snapshot of a camera as its numbers have it, to look through it: canonical world, on the given
 * viewport. A picture that is turned over by them, or by axes of the other hand, has mirrored
 * extents. Null where the axes are not square or of one length, and where the lens is none.
 */
export function frameOfReading(pose: ReadPose, lens: ReadLens, viewport: Viewport): CameraFrame | null {
  if (pose.shear > loose || pose.scale.some((v) => Math.abs(v - 1) > loose)) return null;
  const forward = pose.forward;
  const right = normalize(sub(pose.right, scale(forward, dot(pose.right, forward))));
  if (!right) return null;
  // Axes of the right hand; of the other hand the picture is mirrored instead.
  const hand = pose.mirrored ? negate(right) : right;
  const [w, h] = lens.half;
  const made = frameOf(
    {
      position: pose.eye,
      orientation: { kind: 'basis', right: hand, up: cross(hand, forward), forward },
      projection:
        lens.kind === 'perspective'
          ? {
              ...{ kind: 'frustum', near: lens.near, far: lens.far },
              ...{ left: -Math.abs(w) * lens.near, right: Math.abs(w) * lens.near },
              ...{ bottom: -Math.abs(h) * lens.near, top: Math.abs(h) * lens.near },
            }
          : {
              ...{ kind: 'orthographic', near: lens.near, far: lens.far! },
              ...{ size: { height: 2 * Math.abs(h) }, aspect: Math.abs(w / h) },
            },
    },
    viewport,
  );
  if (!made.ok) return null;
  const k = lens.kind === 'perspective' ? lens.near : 1;
  const [sx, sy] = lens.shift;
  const [across, upward] = [(pose.mirrored ? -w : w) * k, h * k];
  return reframed(
    made.value,
    {
      ...{ left: (sx - 1) * across, right: (sx + 1) * across },
      ...{ bottom: (sy - 1) * upward, top: (sy + 1) * upward },
    },
    viewport,
  );
}
