import { cross, dot, type Vec3 } from '../math/vec3';
import { affine, mat4, type Mat4 } from '../math/mat4';

/** One end of a coordinate axis. */
export type SignedAxis = '+x' | '-x' | '+y' | '-y' | '+z' | '-z';
export const signedAxes: readonly SignedAxis[] = ['+x', '-x', '+y', '-y', '+z', '-z'];

/**
 * Which signed axes point right, up and ahead (for the world: at heading 0). Three different
 * letters.
 */
export interface AxisFrame {
  readonly right: SignedAxis;
  readonly up: SignedAxis;
  readonly forward: SignedAxis;
}

/** The axes of canonical space: right-handed, +y up, looking along −z. */
export const canonicalAxes: AxisFrame = { right: '+x', up: '+y', forward: '-z' };

export type AxisLetter = 'x' | 'y' | 'z';
/** The letter of a signed axis: x of −x. */
export const letterOf = (axis: SignedAxis): AxisLetter => axis[1] as AxisLetter;
/** The sign of a signed axis: −1 of −x. */
export const signOf = (axis: SignedAxis): 1 | -1 => (axis[0] === '+' ? 1 : -1);
/** Which of the three coordinates an axis is: 0, 1 or 2. */
export const indexOf = (axis: SignedAxis): 0 | 1 | 2 => 'xyz'.indexOf(axis[1]!) as 0 | 1 | 2;

/** The other end of a signed axis. */
export const opposite = (axis: SignedAxis): SignedAxis => `${axis[0] === '+' ? '-' : '+'}${letterOf(axis)}`;

/** The unit vector of a signed axis in its own coordinates. */
export function axisVector(axis: SignedAxis): Vec3 {
  const v: [number, number, number] = [0, 0, 0];
  v[indexOf(axis)] = signOf(axis);
  return v;
}

/** Whether the three axes use three different letters: what makes them a frame at all. */
export const axesAreDistinct = (f: AxisFrame): boolean =>
  new Set([letterOf(f.right), letterOf(f.up), letterOf(f.forward)]).size === 3;

/** Every frame of signed axes: 24 of either hand. */
export const axisFrames: readonly AxisFrame[] = signedAxes.flatMap((right) =>
  signedAxes.flatMap((up) => signedAxes.map((forward) => ({ right, up, forward })).filter(axesAreDistinct)),
);

/**
 * A frame in which a direction has another axis; the direction that had its letter takes the one
 * set free, so that the three stay distinct.
 */
export function withAxis(frame: AxisFrame, direction: keyof AxisFrame, axis: SignedAxis): AxisFrame {
  const next = { ...frame, [direction]: axis };
  for (const other of ['right', 'up', 'forward'] as const)
    if (other !== direction && letterOf(frame[other]) === letterOf(axis)) next[other] = frame[direction];
  return next;
}

/** Right × up points backward in a right-handed frame and ahead in a left-handed one. */
export function handednessOf(frame: AxisFrame): 'right' | 'left' {
  return dot(cross(axisVector(frame.right), axisVector(frame.up)), axisVector(frame.forward)) < 0 ? 'right' : 'left';
}

/**
 * Coordinates in `frame` of the vector that is r to the right, u up and f ahead. Its inverse is
 * `toRuf`.
 */
export function fromRuf(frame: AxisFrame, [r, u, f]: Vec3): Vec3 {
  const out: [number, number, number] = [0, 0, 0];
  out[indexOf(frame.right)] = signOf(frame.right) * r;
  out[indexOf(frame.up)] = signOf(frame.up) * u;
  out[indexOf(frame.forward)] = signOf(frame.forward) * f;
  return out;
}

/** How far to the right, up and ahead a vector given in `frame` goes. */
export function toRuf(frame: AxisFrame, v: Vec3): Vec3 {
  return [
    signOf(frame.right) * v[indexOf(frame.right)],
    signOf(frame.up) * v[indexOf(frame.up)],
    signOf(frame.forward) * v[indexOf(frame.forward)],
  ];
}

/** A vector of one frame written in another: a signed permutation, hence exact. */
export const reexpress = (from: AxisFrame, to: AxisFrame, v: Vec3): Vec3 => fromRuf(to, toRuf(from, v));

/** The matrix of `reexpress`; its transpose is its inverse. */
export function reexpressMatrix(from: AxisFrame, to: AxisFrame): Mat4 {
  const column = (v: Vec3) => reexpress(from, to, v);
  return affine(column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1]), [0, 0, 0]);
}

/** The matrix that reads (right, up, ahead, 1) off a point given in `frame`. */
export function rufMatrix(frame: AxisFrame): Mat4 {
  return mat4([
    ...row(axisVector(frame.right)),
    ...row(axisVector(frame.up)),
    ...row(axisVector(frame.forward)),
    0,
    0,
    0,
    1,
  ]);
}
const row = (v: Vec3): number[] => [v[0], v[1], v[2], 0];
