import type { CameraFrame } from '../camera/frame';
import { addScaled, type Vec3 } from '../math/vec3';
import type { Read } from '../reasons';
import { allOf, derivedCamera, lensOf, rejectDerived, type DerivedCamera } from './derivedCamera';
import { perspectiveLens } from './perspectiveLens';

/**
 * Returns the cameras of two eyes with parallel axes whose pictures agree at a distance ahead.
 *
 * @param separation - between the eyes along the camera's right, world units
 * @param convergence - distance ahead at which the parallax is 0, world units
 * @returns left, then right; `distanceNotPositive` when the convergence is not above 0
 * @see docs/derivations.md, "Stereo pair"
 */
export function stereoCameras(
  frame: CameraFrame,
  separation: number,
  convergence: number,
): Read<readonly DerivedCamera[]> {
  if (!(convergence > 0))
    return rejectDerived(
      'distanceNotPositive',
      `convergence is ${convergence}. It is a distance ahead of the camera and must be above 0.`,
    );
  const { left, right, bottom, top } = frame.extents;
  const eye = (name: string, side: -1 | 1) => {
    const moved = (side * separation) / 2;
    const shift = frame.kind === 'perspective' ? (moved * frame.near) / convergence : moved;
    const extents = { left: left - shift, right: right - shift, bottom, top };
    return derivedCamera(name, {
      basis: frame,
      lens: lensOf({ ...frame, extents }),
      eye: addScaled(frame.eye, frame.right, moved),
      viewport: frame.viewport,
    });
  };
  return allOf([eye('left', -1), eye('right', 1)]);
}

/** Four half-angles from the view direction, radians; those to the left and downward are negative. */
export interface HalfAngles {
  readonly left: number;
  readonly right: number;
  readonly down: number;
  readonly up: number;
}

/** An eye of a head-mounted display. */
export interface EyeGiven {
  readonly name: string;
  /** To the right, up and ahead in the camera's own axes, world units. */
  readonly offset: Vec3;
  readonly angles: HalfAngles;
}

/**
 * Returns the cameras of eyes given by four half-angles each; near and far are the camera's.
 *
 * @returns `fovOutOfRange` for a half-angle of 90° or more, `anglesCrossed` when left is not below right or down not
 *   below up, `nearNotPositive` when the near distance of an orthographic camera is not above 0
 */
export function eyeCameras(frame: CameraFrame, eyes: readonly EyeGiven[]): Read<readonly DerivedCamera[]> {
  return allOf(
    eyes.map(({ name, offset, angles }): Read<DerivedCamera> => {
      const wide = Object.entries(angles).find(([, angle]) => !(Math.abs(angle) < Math.PI / 2));
      if (wide)
        return rejectDerived(
          'fovOutOfRange',
          `The half-angle “${wide[0]}” of the eye “${name}” is 90° or more from the view direction. Set it below 90°.`,
        );
      for (const [low, high] of [
        ['left', 'right'],
        ['down', 'up'],
      ] as const)
        if (!(angles[low] < angles[high]))
          return rejectDerived(
            'anglesCrossed',
            `The half-angles of the eye “${name}” are crossed: ${low} must be below ${high}. Angles to the left and downward are negative.`,
          );
      const tan = (angle: number) => Math.tan(angle) * frame.near;
      const [left, right, bottom, top] = [tan(angles.left), tan(angles.right), tan(angles.down), tan(angles.up)];
      const lens = perspectiveLens(frame, { left, right, bottom, top });
      if (!lens.ok) return lens;
      const [r, u, f] = offset;
      const eye = addScaled(addScaled(addScaled(frame.eye, frame.right, r), frame.up, u), frame.forward, f);
      return derivedCamera(name, { basis: frame, lens: lens.value, eye, viewport: frame.viewport });
    }),
  );
}
