import { depthCoefficients, type CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import {
  depthToAhead,
  pictureToViewRuf,
  projectPoint,
  rayThrough,
  viewRufToClip,
  viewRufToWorld,
  type Depth01,
  type PicturePosition,
} from '../convert/project';
import { multiply, type Mat4 } from '../math/mat4';
import { dot, type Vec2, type Vec3 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';

/**
 * Returns the matrix from current NDC (x, y, z, 1) to the previous clip coordinates of the same world point:
 * P′·V′·(P·V)⁻¹, for column vectors, in the conventions of a codec.
 *
 * @see docs/derivations.md, "Reprojection"
 */
export const reprojectionMatrix = (current: CameraFrame, previous: CameraFrame, codec: ConventionCodec): Mat4 =>
  multiply(codec.matrix(previous, 'viewProjection'), codec.matrix(current, 'inverseViewProjection'));

/** Answers with the reason of the interface: the plane of the eye counts as behind it. */
const pictured = (picture: Answer<PicturePosition>): Answer<PicturePosition> =>
  picture.ok ? picture : noAnswer(picture.reason === 'onEyePlane' ? 'behindEye' : picture.reason);

/** Returns where a camera shows a world point; `behindEye` on the plane of the eye and behind it. */
export const pictureOf = (frame: CameraFrame, point: Vec3): Answer<PicturePosition> =>
  pictured(projectPoint(frame, point).picture);

/** Returns where a camera shows the point infinitely far in a direction; `behindEye` beside and behind it. */
function pictureOfDirection(frame: CameraFrame, direction: Vec3): Answer<PicturePosition> {
  const ahead = dot(frame.forward, direction);
  if (frame.kind === 'orthographic') return noAnswer('outOfRange');
  if (!(ahead > 0)) return noAnswer('behindEye');
  const clip = viewRufToClip(frame, [dot(frame.right, direction), dot(frame.up, direction), ahead]);
  const { slope } = depthCoefficients(frame, 0, 1);
  return answer({ across: clip.x / clip.w, upward: clip.y / clip.w, depth01: { near: 1 - slope, far: slope } });
}

/**
 * Returns where the previous camera showed what the current one shows at a pixel and depth. A depth of infinity is a
 * direction.
 *
 * @param at - position in the current picture, −1…1
 * @returns `behindEye` when it is behind either eye; `outOfRange` for a point at infinity that an orthographic camera
 *   has no place for
 */
export function previousPicture(
  current: CameraFrame,
  previous: CameraFrame,
  [across, upward]: Vec2,
  depth: Depth01,
): Answer<PicturePosition> {
  const ahead = depthToAhead(current, depth);
  if (ahead.ok) {
    const point = viewRufToWorld(current, pictureToViewRuf(current, across, upward, ahead.value));
    return pictureOf(previous, point);
  }
  if (ahead.reason !== 'depthAtInfinity') return ahead;
  return pictureOfDirection(previous, rayThrough(current, across, upward).direction);
}

/** How far something moved in the picture: current less previous. */
export interface ScreenMotion {
  /** In the axes of the screen. */
  readonly pixels: Vec2;
  /** Along NDC x and y. */
  readonly ndc: Vec2;
  /** In the unit square of the viewport, with the screen's origin. */
  readonly uv: Vec2;
}

/** Returns the motion from one position of the picture to another. */
export function screenMotion(
  { viewport }: Pick<CameraFrame, 'viewport'>,
  codec: ConventionCodec,
  now: PicturePosition,
  then: PicturePosition,
): ScreenMotion {
  const screenOf = ({ across, upward }: PicturePosition) => codec.toScreen(viewport, across, upward);
  const [ndc, ndcThen, screen, screenThen] = [codec.toNdc(now), codec.toNdc(then), screenOf(now), screenOf(then)];
  const [x, y] = [screen[0] - screenThen[0], screen[1] - screenThen[1]];
  return {
    pixels: [x, y],
    ndc: [ndc[0] - ndcThen[0], ndc[1] - ndcThen[1]],
    uv: [x / viewport.width, y / viewport.height],
  };
}
