import type { CameraFrame } from '../camera/frame';
import { cross, type Vec3 } from '../math/vec3';
import type { Read } from '../reasons';
import { allOf, derivedCamera, type DerivedCamera } from './derivedCamera';
import { perspectiveLens } from './perspectiveLens';

/**
 * The faces of a cube map in their order: the direction of each and the direction in which its t coordinate grows, in
 * the world's axis names.
 *
 * @see OpenGL ES 3.0 specification, §3.8.10, the table of cube map faces
 */
export const cubeFaces: readonly { readonly name: string; readonly forward: Vec3; readonly up: Vec3 }[] = [
  { name: '+x', forward: [1, 0, 0], up: [0, -1, 0] },
  { name: '-x', forward: [-1, 0, 0], up: [0, -1, 0] },
  { name: '+y', forward: [0, 1, 0], up: [0, 0, 1] },
  { name: '-y', forward: [0, -1, 0], up: [0, 0, -1] },
  { name: '+z', forward: [0, 0, 1], up: [0, -1, 0] },
  { name: '-z', forward: [0, 0, -1], up: [0, -1, 0] },
];

/**
 * Returns the six square cameras of a cube map at the eye, 90° each, with the camera's near and far.
 *
 * @param fromWorld - converts a direction from the world's axis names to canonical space
 * @returns `nearNotPositive` where an orthographic camera's near is not above 0
 */
export function cubeCameras(frame: CameraFrame, fromWorld: (v: Vec3) => Vec3): Read<readonly DerivedCamera[]> {
  const { near } = frame;
  const lens = perspectiveLens(frame, { left: -near, right: near, bottom: -near, top: near });
  if (!lens.ok) return lens;
  return allOf(
    cubeFaces.map(({ name, forward: f, up: u }) => {
      const [forward, up] = [fromWorld(f), fromWorld(u)];
      const basis = { right: cross(forward, up), up, forward };
      return derivedCamera(name, { basis, lens: lens.value, eye: frame.eye, viewport: frame.viewport });
    }),
  );
}
