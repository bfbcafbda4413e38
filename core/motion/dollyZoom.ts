import { addScaled, type Vec3 } from '../math/vec3';
import { fieldOfView } from '../camera/projection';
import type { CameraFrame } from '../camera/frame';
import { worldToViewRuf } from '../convert/project';

export interface DollyStop {
  readonly distance: number;
  /** The eye, moved along the gaze. */
  readonly position: Vec3;
  /** Radians; null for an orthographic camera, which needs none. */
  readonly verticalFov: number | null;
  readonly heightAtTarget: number;
}

/**
 * The camera at other distances (along its gaze) from a target, with the height seen at the target
 * kept: the height is H = (top − bottom)·d/near, so at a distance d′ the field of view is 2·atan(H
 * / 2d′). Null when a distance is not above 0 or the target is not ahead.
 */
export function dollyZoom(frame: CameraFrame, target: Vec3, distances: readonly number[]): DollyStop[] | null {
  const ahead = worldToViewRuf(frame, target)[2];
  if (!(ahead > 0) || distances.some((d) => !(d > 0))) return null;
  const { extents: e, near } = frame;
  const perspective = frame.kind === 'perspective';
  const heightAtTarget = perspective ? ((e.top - e.bottom) * ahead) / near : e.top - e.bottom;
  return distances.map((distance) => ({
    distance,
    position: addScaled(frame.eye, frame.forward, ahead - distance),
    verticalFov: perspective ? fieldOfView(heightAtTarget, distance) : null,
    heightAtTarget,
  }));
}
