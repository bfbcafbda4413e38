import { columnsToQuat, type Quat } from '../math/quat';
import { affine, type Mat4 } from '../math/mat4';
import { addScaled, cross, dot, length, negate, normalize, sub, type Vec3 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { angleBetween } from '../convert/compare';
import { pixelsPerUnit, worldToViewRuf } from '../convert/project';
import { worldUp } from '../camera/orientation';
import { answer, noAnswer, type Answer } from '../reasons';

export type BillboardMode = 'viewPlane' | 'eyePoint' | 'axisEye' | 'axisView';

/** The square axes of an item that faces the camera. */
export interface BillboardAxes {
  readonly right: Vec3;
  readonly up: Vec3;
  readonly normal: Vec3;
  /** Straight above the axis: there is no answer by geometry, and the camera's right is kept. */
  readonly degenerate: boolean;
}

export interface Billboard extends BillboardAxes {
  /** From the item's own space (+x right, +y up, +z its front) to the world, without its size. */
  readonly matrix: Mat4;
  readonly quaternion: Quat;
  /** On the screen, from straight up to the item's projected up, clockwise, in radians. */
  readonly tilt: Answer<number>;
}

/** A sine this small between axis and sight leaves nothing to turn by. */
const parallelSine = 1e-9;
const square = (v: Vec3, axis: Vec3): Vec3 => addScaled(v, axis, -dot(v, axis));

/**
 * Turns an item at `position` (world) to face the camera. `viewPlane`: parallel to the view plane;
 * `eyePoint`: towards the eye with the world's up; `axisEye`, `axisView`: about `axis` (the world's up
 * by default) as near to the eye, or to the reversed view direction, as that allows. In orthographic
 * the eye is infinitely far against the view direction. An axis without length is the world's up.
 *
 * @returns unit axes in world space
 */
export function billboardAxes(
  frame: CameraFrame,
  position: Vec3,
  mode: BillboardMode,
  axis: Vec3 = worldUp,
): BillboardAxes {
  const against = negate(frame.forward);
  if (mode === 'viewPlane') return { right: frame.right, up: frame.up, normal: against, degenerate: false };
  const toEye = (frame.kind === 'perspective' ? normalize(sub(frame.eye, position)) : null) ?? against;
  if (mode === 'eyePoint') return facing(frame, toEye);
  const up = normalize(axis) ?? worldUp;
  const nearest = square(mode === 'axisEye' ? toEye : against, up);
  if (length(nearest) < parallelSine) {
    const right = normalize(square(frame.right, up)) ?? normalize(square(frame.up, up))!;
    return { right, up, normal: cross(right, up), degenerate: true };
  }
  const normal = normalize(nearest)!;
  return { right: cross(up, normal), up, normal, degenerate: false };
}

/** Returns the axes of `billboardAxes` with all that follows from them; `backward` shows the other face. */
export function billboard(
  frame: CameraFrame,
  position: Vec3,
  mode: BillboardMode,
  axis: Vec3 = worldUp,
  backward = false,
): Billboard {
  const axes = billboardAxes(frame, position, mode, axis);
  const [right, normal] = backward ? [negate(axes.right), negate(axes.normal)] : [axes.right, axes.normal];
  const { up, degenerate } = axes;
  return {
    right,
    up,
    normal,
    matrix: affine(right, up, normal, position),
    quaternion: columnsToQuat(right, up, normal),
    tilt: tiltOf(frame, position, up),
    degenerate,
  };
}

/** Square axes of an item whose normal is given (unit), its up as near to the world's as that allows. */
function facing(frame: CameraFrame, normal: Vec3): BillboardAxes {
  const across = cross(worldUp, normal);
  const degenerate = length(across) < parallelSine;
  const right = (degenerate ? normalize(square(frame.right, normal)) : normalize(across)) ?? frame.right;
  return { right, up: cross(normal, right), normal, degenerate };
}

/**
 * The square axes of an item at `position` (world) that faces a point, with the world's up: what
 * comes of giving an engine's look-at a target. Straight above or below the point the camera's right
 * is kept (`degenerate`); null where the item stands in the point.
 */
export function facePoint(frame: CameraFrame, position: Vec3, point: Vec3): BillboardAxes | null {
  const normal = normalize(sub(point, position));
  return normal && facing(frame, normal);
}

/**
 * The angle between the normals that two modes give an item at `position` (world), in radians 0…π;
 * exact near 0.
 */
export const modesApart = (
  frame: CameraFrame,
  position: Vec3,
  [a, b]: readonly [BillboardMode, BillboardMode],
  axis: Vec3 = worldUp,
): number =>
  angleBetween(billboardAxes(frame, position, a, axis).normal, billboardAxes(frame, position, b, axis).normal);

/**
 * The angle on the screen from straight up to the image of a direction at a point, clockwise, in
 * radians. `behindEye` and `onEyePlane` where there is no image; `rayParallel` where the direction
 * runs along the ray and its image is a point. The derivative of r/f along d is (d_r −
 * (r/f)·d_f)/f; what is above 0 in both its parts leaves the angle as it is.
 */
export function tiltOf(frame: CameraFrame, position: Vec3, direction: Vec3): Answer<number> {
  const [r, u, f] = worldToViewRuf(frame, position);
  const d: Vec3 = [dot(direction, frame.right), dot(direction, frame.up), dot(direction, frame.forward)];
  const perspective = frame.kind === 'perspective';
  if (perspective && f < 0) return noAnswer('behindEye');
  if (perspective && f === 0) return noAnswer('onEyePlane');
  const { extents: e } = frame;
  // Only the ratio of the two scales counts, and the derivative times f: at a thousandth of the
  // least length the pixels of a unit are beyond every number.
  const scales = pixelsPerUnit(frame, perspective ? frame.near : f);
  const most = Math.max(...scales);
  const [x, y] = most > 0 && most < Infinity ? scales.map((v) => v / most) : [1, 1];
  const part = (place: number, along: number) => (perspective ? along * f - place * d[2] : along);
  const across = Math.sign(e.right - e.left) * x! * part(r, d[0]);
  const upward = Math.sign(e.top - e.bottom) * y! * part(u, d[1]);
  if (Math.hypot(across, upward) < 1e-12 * Math.hypot(x!, y!) * (perspective ? f : 1)) return noAnswer('rayParallel');
  return answer(Math.atan2(across, upward));
}
