import { frameOf, type CameraFrame, type Viewport } from '../camera/frame';
import type { Basis } from '../camera/orientation';
import { add, dot, scale, sub, type Vec3 } from '../math/vec3';
import type { ReadLens, ReadPose } from './decompose';

/** A pose with orthonormal axes, canonical world. */
export interface SquarePose {
  readonly basis: Basis;
  readonly eye: Vec3;
}

/**
 * Returns the pose with the nearest orthonormal axes.
 *
 * @param digits - significant figures of the numbers that the pose was read from
 * @returns null where the axes are mirrored, sheared or scaled by more than the digits explain
 * @see Higham, Computing the Polar Decomposition, 1986 (Newton's iteration favours none of the three axes)
 */
export function squarePose(pose: ReadPose, digits: number): SquarePose | null {
  const loose = 30 * 10 ** -digits;
  if (pose.mirrored || pose.shear > loose || pose.scale.some((v) => Math.abs(v - 1) > loose)) return null;
  let { right, up, forward } = pose;
  for (let step = 0; step < 3; step++) {
    const [ru, uf, fr] = [dot(right, up), dot(up, forward), dot(forward, right)];
    const toward = (a: Vec3, b: Vec3, ab: number, c: Vec3, ca: number): Vec3 =>
      sub(scale(a, (3 - dot(a, a)) / 2), add(scale(b, ab / 2), scale(c, ca / 2)));
    [right, up, forward] = [
      toward(right, up, ru, forward, fr),
      toward(up, forward, uf, right, ru),
      toward(forward, right, fr, up, uf),
    ];
  }
  return { basis: { right, up, forward }, eye: pose.eye };
}

/** Whether a lens has a picture that is not mirrored. */
export const isProperLens = ({ half }: ReadLens): boolean => half[0] > 0 && half[1] > 0;

const placeholderBasis = { right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, -1] } as const;

/**
 * Returns the snapshot of a camera with a pose and a lens, canonical world, on the viewport. A missing part is a
 * placeholder: the pose at the origin along −z, the lens of 90° between 1 and 2.
 *
 * @returns null where the numbers are no camera's
 */
export function assembleCamera(pose: SquarePose | null, lens: ReadLens | null, viewport: Viewport): CameraFrame | null {
  const [w, h] = lens?.half ?? [1, 1];
  const [sx, sy] = lens?.shift ?? [0, 0];
  const k = lens?.kind === 'perspective' ? lens.near : 1;
  const extents = { left: (sx - 1) * w * k, right: (sx + 1) * w * k, bottom: (sy - 1) * h * k, top: (sy + 1) * h * k };
  const range = { near: lens?.near ?? 1, far: lens ? lens.far : 2 };
  const made = frameOf(
    {
      position: pose?.eye ?? [0, 0, 0],
      orientation: { kind: 'basis', ...(pose?.basis ?? placeholderBasis) },
      projection:
        lens?.kind === 'orthographic'
          ? {
              kind: 'orthographic',
              near: lens.near,
              far: lens.far!,
              size: { height: 2 * h },
              aspect: w / h,
              shift: [sx, sy],
            }
          : { kind: 'frustum', ...range, ...extents },
    },
    viewport,
  );
  return made.ok ? made.value : null;
}
