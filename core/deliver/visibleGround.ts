import type { CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import type { GroundEdge } from '../ground/distance';
import { footprintEdges } from '../ground/footprint';
import { add, length2, type Vec2, type Vec3 } from '../math/vec3';
import { planeSurface } from '../spawn/surface';

/**
 * Computes the part of the ground (the horizontal plane at height 0) that a camera sees, to infinity where it sees
 * that far.
 *
 * @returns its edges in the surface's two coordinates (the world's own numbers to the right and ahead); none where
 *   the camera sees no ground
 */
export function visibleGround(frame: CameraFrame, e: ConventionCodec): GroundEdge[] {
  const surface = planeSurface([0, 0, 0], [0, 1, 0])!;
  const pairOf = (p: Vec3): Vec2 => e.toPair('forward', surface.coordinates(p));
  const between = (a: Vec2, b: Vec2): Vec2 => [b[0] - a[0], b[1] - a[1]];
  const edges = footprintEdges(frame, [0, 0, 0], [0, 1, 0]);
  // Counter-clockwise about the upward normal: right × towards the viewer is down, so right and backward are mirrored.
  const [origin, right, back] = [pairOf([0, 0, 0]), pairOf([1, 0, 0]), pairOf([0, 0, 1])];
  const [r, b] = [between(origin, right), between(origin, back)];
  const isMirrored = r[0] * b[1] - r[1] * b[0] > 0;
  return edges.map(({ corner, direction, from, to }): GroundEdge => {
    const at = pairOf(corner);
    const along = between(at, pairOf(add(corner, direction)));
    const length = length2(...along) * (isMirrored ? -1 : 1);
    const [start, end] = [from * length, to * length];
    return { corner: at, direction: [along[0] / length, along[1] / length], range: [Math.min(start, end), Math.max(start, end)] }; // prettier-ignore
  });
}
