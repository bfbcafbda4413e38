import { addScaled, distance, sub, type Vec3 } from '../../../core/math/vec3';
import { cameraInSpace } from '../../../formats/camera';
import type { Moment } from '../../state/moment';
import type { PictureView } from './contract';
import { cutOf, placeIn } from './drawingGeometry';
import type { DrawingName } from './drawings';
import type { Rect } from './labels';

/* The points where the handles of the camera are. Text leaves them free. */

const between = (a: Vec3, b: Vec3, share: number): Vec3 => addScaled(a, sub(b, a), share);

/** Half of the square that text leaves free round a handle, in pixels of the page. */
const halfHandle = 6;

/** World points of the camera's handles in Plan or Section. */
export interface CameraHandlePoints {
  /** The middle of the far limit; null without one. */
  readonly far: Vec3 | null;
  readonly near: Vec3;
  /** A point on the view direction that turns the camera. */
  readonly aim: Vec3;
}

/** Returns the world points of the camera's handles in a drawing, the eye and the probe apart. */
export function cameraHandlePoints(name: DrawingName, moment: Moment): CameraHandlePoints {
  const { frame, chain, project } = moment;
  const cut = cutOf(name, moment);
  const { orientation } = cameraInSpace(project);
  const probeAhead = chain.ok ? chain.value.viewRuf[2] : 0;
  const aimDistance =
    orientation.kind === 'lookAt'
      ? distance(frame.eye, orientation.target)
      : Math.min(cut.far * 0.62, probeAhead > 0 ? probeAhead * 0.8 : cut.far * 0.5);
  return {
    far: frame.far === null ? null : between(cut.far0, cut.far1, 0.5),
    near: between(cut.near0, cut.near1, 0.5),
    aim: addScaled(frame.eye, frame.forward, aimDistance),
  };
}

/** Returns the rectangles of a drawing that its handles take. */
export function cameraHandleBoxes(view: PictureView, moment: Moment): Rect[] {
  const { far, near, aim } = cameraHandlePoints(view.name as DrawingName, moment);
  return [far, near, aim].flatMap((point) => {
    if (!point) return [];
    const [x, y] = placeIn(view)(point);
    return [{ x: x - halfHandle, y: y - halfHandle, width: 2 * halfHandle, height: 2 * halfHandle }];
  });
}
