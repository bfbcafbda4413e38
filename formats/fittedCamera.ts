import { type Fitted } from '../core/camera/fit';
import type { CameraFrame } from '../core/camera/frame';
import { addScaled, distance } from '../core/math/vec3';
import { type ProjectCamera3d } from './project';

/** The share of the half picture that a fit leaves free on every side. */
export const fitMargin = 0.06;

/**
 * A camera in space moved along with a fit, its gaze kept: in orthographic it grows, and near and
 * far make room.
 */
export function fittedCamera(camera: ProjectCamera3d, frame: CameraFrame, fit: Fitted): ProjectCamera3d {
  const [least, most] = fit.ahead;
  const { orientation: o, projection: p } = camera;
  const reach = o.kind === 'lookAt' ? Math.max(distance(o.target, camera.position), least) : 0;
  // Millimetres are enough where the world is metres; where it is smaller, so are they.
  const digits = Math.max(3, 3 - Math.floor(Math.log10(Math.max(most, 1e-9))));
  const eye = fit.eye.map((v) => Number(v.toFixed(Math.min(digits, 15)))) as [number, number, number];
  const projection = { ...p };
  if (projection.kind === 'orthographic') projection.height = Number((projection.height * fit.scale).toPrecision(6));
  if (projection.far !== null && projection.far < most) projection.far = Math.ceil(most * 1.05);
  if (projection.near > least)
    projection.near = projection.kind === 'perspective' ? Number((least * 0.5).toPrecision(2)) : Math.floor(least - 1);
  return {
    ...camera,
    position: eye,
    orientation: o.kind === 'lookAt' ? { ...o, target: [...addScaled(eye, frame.forward, reach)] } : o,
    projection,
  };
}
