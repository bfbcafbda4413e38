import type { CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import { footprint } from '../ground/footprint';
import type { Vec2 } from '../math/vec3';
import { planeSurface } from '../spawn/surface';

/**
 * Computes the part of the ground (the horizontal plane at height 0) that a camera sees.
 *
 * @returns its corners, counter-clockwise in the surface's two coordinates (the world's own numbers to the
 *   right and ahead); empty where the camera sees no ground, or sees it to infinity
 */
export function visibleGround(frame: CameraFrame, e: ConventionCodec): Vec2[] {
  const seen = footprint(frame, [0, 0, 0], [0, 1, 0]);
  const surface = planeSurface([0, 0, 0], [0, 1, 0]);
  if (!seen || seen.unbounded || !surface || seen.polygon.length < 3) return [];
  const corners = seen.polygon.map((p) => e.toPair('forward', surface.coordinates(p)));
  const twice = corners.reduce((sum, [x, y], i) => {
    const [a, b] = corners[(i + 1) % corners.length]!;
    return sum + x * b - a * y;
  }, 0);
  return twice < 0 ? corners.reverse() : corners;
}
