import type { RequestCamera2d } from '../../core/request/cameraSchema';
import { coreViewport, expressCamera2d, flatCamera } from '../../formats/camera';
import type { Moment } from './moment';

/** Returns the 2D camera at the time, as a request writes it: along its track the focus moves. */
export function camera2dNow({ project, frame, rest, codec: e }: Omit<Moment, 'slice'>): RequestCamera2d {
  const camera = flatCamera(project);
  const [right, up] = [frame.eye[0] - rest.eye[0], frame.eye[1] - rest.eye[1]];
  const focus: [number, number] = [camera.focus[0] + right, camera.focus[1] + up];
  return expressCamera2d({ ...camera, focus }, coreViewport(project), e);
}
