import { columnsToQuat, quatToColumns, type Quat } from '../math/quat';
import { add, cross, dot, length, negate, normalize, scale, sub, type Vec3 } from '../math/vec3';
import type { Checked, Problem } from '../reasons';

/**
 * The camera's own axes, as unit vectors of canonical space (right-handed, +y up): right = forward
 * × up.
 */
export interface Basis {
  readonly right: Vec3;
  readonly up: Vec3;
  readonly forward: Vec3;
}

/**
 * Angles in radians. Yaw to the right about the world's up, then pitch upward, then roll to the
 * right, each about the camera's own axis.
 */
export interface Angles {
  readonly yaw: number;
  readonly pitch: number;
  readonly roll: number;
}

export type Orientation =
  | { readonly kind: 'lookAt'; readonly target: Vec3; readonly up?: Vec3 }
  | ({ readonly kind: 'angles' } & Angles)
  | ({ readonly kind: 'basis' } & Basis);

export const worldUp: Vec3 = [0, 1, 0];

/**
 * Two directions whose cross product is shorter than this are one direction as far as doubles can
 * tell.
 */
const parallelSine = 1e-10;
/**
 * How far a given basis may be from orthonormal before it is refused (`docs/compute.md`, Camera).
 */
export const orthonormalTolerance = 1e-6;
/**
 * Closer to straight up or down than this (cosine of the pitch), yaw and roll turn about one axis.
 */
const poleCosine = 1e-9;

/** Yaw, pitch, roll to the camera's axes. Its inverse is `anglesOfBasis`. */
export function basisOfAngles({ yaw, pitch, roll }: Angles): Basis {
  const [sy, cy] = [Math.sin(yaw), Math.cos(yaw)];
  const [sp, cp] = [Math.sin(pitch), Math.cos(pitch)];
  const [sr, cr] = [Math.sin(roll), Math.cos(roll)];
  const right0: Vec3 = [cy, 0, sy];
  const up0: Vec3 = [-sy * sp, cp, cy * sp];
  return {
    right: sub(scale(right0, cr), scale(up0, sr)),
    up: add(scale(up0, cr), scale(right0, sr)),
    forward: [sy * cp, sp, -cy * cp],
  };
}

/**
 * The camera's axes to yaw, pitch, roll: yaw and roll in −π…π, pitch in −π/2…π/2.
 * Straight up or down, where yaw and roll are one turn, all of it is yaw and roll is 0.
 */
export function anglesOfBasis({ right, up, forward }: Basis): Angles {
  const level = Math.hypot(forward[0], forward[2]);
  const pitch = Math.atan2(forward[1], level);
  if (level < poleCosine) return { yaw: Math.atan2(right[2], right[0]), pitch, roll: 0 };
  const yaw = Math.atan2(forward[0], -forward[2]);
  const right0: Vec3 = [Math.cos(yaw), 0, Math.sin(yaw)];
  return { yaw, pitch, roll: Math.atan2(dot(up, right0), dot(right, right0)) };
}

/**
 * The axes of a camera at `eye` that looks at `target`: forward towards it, right = forward × up.
 * Null when the target is the eye or lies along `up`.
 */
export function basisOfLookAt(eye: Vec3, target: Vec3, up: Vec3 = worldUp): Basis | null {
  const forward = normalize(sub(target, eye));
  const upward = normalize(up);
  if (!forward || !upward) return null;
  return basisAbout(forward, upward);
}

function basisAbout(forward: Vec3, upward: Vec3): Basis | null {
  const across = cross(forward, upward);
  if (length(across) < parallelSine) return null;
  const right = normalize(across)!;
  return { right, up: cross(right, forward), forward };
}

/**
 * How far a basis is from orthonormal and right-handed: the largest of |length − 1| of its axes,
 * |cosine| of its angles, and 2 when it is mirrored.
 */
export function orthonormalError({ right, up, forward }: Basis): number {
  const mirrored = dot(cross(right, up), forward) > 0 ? 2 : 0;
  return Math.max(
    mirrored,
    ...[right, up, forward].map((axis) => Math.abs(length(axis) - 1)),
    Math.abs(dot(right, up)),
    Math.abs(dot(up, forward)),
    Math.abs(dot(forward, right)),
  );
}

/**
 * The orthonormal basis nearest in the sense that forward is kept, up is squared to it and right
 * follows; null when forward and up are parallel.
 */
export function repairBasis({ up, forward }: Basis): Basis | null {
  const f = normalize(forward);
  const u = normalize(up);
  return f && u && basisAbout(f, u);
}

/**
 * The camera's axes from any form of orientation, or what is wrong with it (paths below
 * `orientation`).
 */
export function resolveOrientation(eye: Vec3, orientation: Orientation): Checked<Basis> {
  const fail = (problem: Problem): Checked<Basis> => ({ ok: false, problems: [problem] });
  switch (orientation.kind) {
    case 'angles':
      return { ok: true, value: basisOfAngles(orientation), warnings: [] };
    case 'lookAt': {
      const basis = basisOfLookAt(eye, orientation.target, orientation.up);
      if (basis) return { ok: true, value: basis, warnings: [] };
      const path = 'orientation.lookAt';
      if (!normalize(sub(orientation.target, eye)))
        return fail({
          path,
          code: 'lookAtDegenerate',
          message: 'The camera looks at the point where it stands. Move one of the two.',
        });
      if (orientation.up && !normalize(orientation.up))
        return fail({
          path: 'orientation.up',
          code: 'lookAtDegenerate',
          message: 'The up vector has no length. Give a direction, such as the world’s up.',
        });
      return fail({
        path,
        code: 'lookAtDegenerate',
        message:
          'The gaze runs along up, so that nothing says which way is right. Give another up vector, square to the gaze if you can.',
      });
    }
    case 'basis': {
      const error = orthonormalError(orientation);
      const repaired = error <= orthonormalTolerance ? repairBasis(orientation) : null;
      if (repaired) return { ok: true, value: repaired, warnings: [] };
      return fail({
        path: 'orientation',
        code: 'notOrthonormal',
        message:
          error >= 2
            ? 'right, up and forward are a mirrored basis. Turn one of them round.'
            : `right, up and forward are off orthonormal by ${error.toExponential(3)}; at most ${orthonormalTolerance} is taken for rounding. Repair the basis before it is sent.`,
      });
    }
  }
}

/**
 * The camera's axes as the rotation, x y z w, that takes its own space (x right, y up, z backward) to
 * canonical space. Its inverse is `basisOfQuat`. In an engine's conventions: `ConventionCodec.toQuaternion`.
 */
export const quatOfBasis = ({ right, up, forward }: Basis): Quat => columnsToQuat(right, up, negate(forward));

/** The camera's axes of a unit rotation, x y z w, from its own space to canonical space. */
export function basisOfQuat(q: Quat): Basis {
  const [right, up, back] = quatToColumns(q);
  return { right, up, forward: negate(back) };
}
