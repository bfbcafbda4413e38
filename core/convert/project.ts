import { add, addScaled, dot, normalize, scale, sub, type Vec2, type Vec3 } from '../math/vec3';
import type { CameraFrame, PlaneName } from '../camera/frame';
import type { ResolvedProjection } from '../camera/projection';
import { answer, noAnswer, type Answer } from '../reasons';

/*
 * The steps between the world and the picture, each beside its inverse. Spaces of canonical space:
 *   world    right-handed, +y up, metres or whatever the unit is
 *   parts how far to the right of, above and ahead of the eye a point is, along the camera's axes
 *   clip (x, y, nearPart, farPart, w): the homogeneous picture position before division, see
 *   `ClipParts`
 *   ndc      (across, upward, depth): −1…1 across and upward, depth 0 at near and 1 at far
 *   pixels   x to the right and y downward from the top left of the screen, pixel centres at .5
 * The user's own conventions are put on afterwards (`conventions/express`).
 */

/**
 * World point to (right, up, ahead). Taken relative to the eye first, so that far-off worlds lose
 * nothing.
 */
export function worldToViewRuf(frame: CameraFrame, p: Vec3): Vec3 {
  const d = sub(p, frame.eye);
  return [dot(d, frame.right), dot(d, frame.up), dot(d, frame.forward)];
}
/**
 * A point of view space (right, up, ahead of the eye) in canonical world space: the way back of
 * `worldToViewRuf`.
 */
export function viewRufToWorld(frame: CameraFrame, [r, u, f]: Vec3): Vec3 {
  return add(frame.eye, viewRufToDirection(frame, [r, u, f]));
}
/** A displacement along the camera's axes as one in the world. */
export function viewRufToDirection(frame: CameraFrame, [r, u, f]: Vec3): Vec3 {
  return addScaled(addScaled(scale(frame.right, r), frame.up, u), frame.forward, f);
}

/**
 * Clip coordinates without a depth convention: nearPart and farPart are the weights of the near and
 * the far plane, and nearPart + farPart = w, so that clip z of any convention is zn·nearPart +
 * zf·farPart (`docs/derivations.md`, "Depth").
 */
export interface ClipParts {
  readonly x: number;
  readonly y: number;
  readonly nearPart: number;
  readonly farPart: number;
  readonly w: number;
}

/**
 * A point of view space (right, up, ahead) in clip space: x and y against w, which is the distance
 * ahead, or 1 in orthographic; depth as its parts from near and from far, which both keep their
 * digits. Derived in `docs/derivations.md`.
 */
export function viewRufToClip(frame: CameraFrame, [r, u, f]: Vec3): ClipParts {
  const { left, right, bottom, top } = frame.extents;
  const n = frame.near;
  const w = frame.kind === 'perspective' ? f : 1;
  const k = frame.kind === 'perspective' ? n : 1;
  const x = (2 * r * k - (right + left) * w) / (right - left);
  const y = (2 * u * k - (top + bottom) * w) / (top - bottom);
  if (frame.far === null) return { x, y, w, nearPart: n, farPart: f - n };
  const F = frame.far;
  const ratio = frame.kind === 'perspective' ? [n / (F - n), F / (F - n)] : [1 / (F - n), 1 / (F - n)];
  return { x, y, w, nearPart: (F - f) * ratio[0]!, farPart: (f - n) * ratio[1]! };
}

/**
 * The point (right, up, ahead) whose clip x and y, upward, are those given, at a distance ahead (in
 * perspective its w): the inverse of `partsToClip`, which is linear and so has one behind the eye
 * too. Clip z is no free choice beside w (`docs/derivations.md`, "Clip and back").
 */
export function clipToViewRuf({ kind, near, extents: e }: CameraFrame, [x, y, ahead]: Vec3): Vec3 {
  const [w, k] = kind === 'perspective' ? [ahead, near] : [1, 1];
  return [
    (x * (e.right - e.left) + (e.right + e.left) * w) / (2 * k),
    (y * (e.top - e.bottom) + (e.top + e.bottom) * w) / (2 * k),
    ahead,
  ];
}

/**
 * The depth of a point in the picture as two depth01 of one: exact near either end, where 1 − depth
 * would lose digits.
 */
export interface Depth01 {
  /** 1 at near, 0 at far. */
  readonly near: number;
  /** 0 at near, 1 at far: the depth of `ndc`. */
  readonly far: number;
}
/** A depth, 0 at near and 1 at far, as its distances from both ends. */
export const depth01Of = (depth: number): Depth01 => ({ near: 1 - depth, far: depth });

export interface PicturePosition {
  readonly across: number;
  readonly upward: number;
  readonly depth01: Depth01;
}

/**
 * The division by w. In perspective there is none behind the eye (`behindEye`) or on its plane
 * (`onEyePlane`).
 */
export function divide(frame: CameraFrame, clip: ClipParts): Answer<PicturePosition> {
  const { w } = clip;
  if (frame.kind === 'perspective' && w < 0) return noAnswer('behindEye');
  const value = {
    across: clip.x / w,
    upward: clip.y / w,
    depth01: { near: clip.nearPart / w, far: clip.farPart / w },
  };
  // A denormal w overflows: as far as doubles can tell the point lies on the eye's plane.
  const finite = w !== 0 && Number.isFinite(value.across + value.upward + value.depth01.near + value.depth01.far);
  return finite ? answer(value) : noAnswer('onEyePlane');
}

/**
 * The distance ahead at which a depth lies: the inverse of the depth of `divide`. In perspective
 * `depthAtInfinity` where the plane of that depth is infinitely far, `behindEye` where it would lie
 * behind. In orthographic nothing is behind the eye: any depth has its place, so that every point
 * of the picture comes back.
 */
export function depthToAhead(frame: CameraFrame, depth01: Depth01): Answer<number> {
  const { near: n, far: F } = frame;
  if (frame.kind === 'orthographic') return answer(frame.far * depth01.far + n * depth01.near);
  const denominator = F === null ? depth01.near : (n / F) * depth01.far + depth01.near;
  if (denominator === 0) return noAnswer('depthAtInfinity');
  const ahead = n / denominator;
  if (!Number.isFinite(ahead)) return noAnswer('depthAtInfinity');
  return ahead < 0 ? noAnswer('behindEye') : answer(ahead);
}

/**
 * Where on the picture, at a distance ahead, back to (right, up, ahead): the inverse of `divide`
 * after `partsToClip`.
 */
export function pictureToViewRuf(frame: CameraFrame, across: number, upward: number, ahead: number): Vec3 {
  const [r, u] = lateral(frame, across, upward);
  return frame.kind === 'perspective' ? [(r * ahead) / frame.near, (u * ahead) / frame.near, ahead] : [r, u, ahead];
}

/** Right and up, on the near plane, of a picture position. */
function lateral({ extents: e }: CameraFrame, across: number, upward: number): Vec2 {
  return [
    (e.right - e.left) * (across / 2) + (e.right + e.left) / 2,
    (e.top - e.bottom) * (upward / 2) + (e.top + e.bottom) / 2,
  ];
}

/** Picture position to canonical pixels (top left, centres at .5). */
export function pictureToPixel({ viewport: v }: Pick<CameraFrame, 'viewport'>, across: number, upward: number): Vec2 {
  return [v.x + ((across + 1) / 2) * v.width, v.y + ((1 - upward) / 2) * v.height];
}
/**
 * A pixel from the top left of the viewport as (across, upward), −1 to 1: the way back of
 * `pictureToPixel`.
 */
export function pixelToPicture({ viewport: v }: Pick<CameraFrame, 'viewport'>, [x, y]: Vec2): Vec2 {
  return [((x - v.x) / v.width) * 2 - 1, 1 - ((y - v.y) / v.height) * 2];
}

/**
 * A half-line: the origin is the eye in perspective, and the pixel's point on the eye plane in
 * orthographic; the direction is unit.
 */
export interface Ray {
  readonly origin: Vec3;
  readonly direction: Vec3;
  /** How far along the ray one unit ahead is: 1 along the axis, more towards the edges. */
  readonly rangePerAhead: number;
}

/**
 * The ray of canonical world space through (across, upward) of the picture: from the eye in
 * perspective, from the plane of the eye along the gaze in orthographic. Its direction is a unit
 * vector.
 */
export function rayThrough(frame: CameraFrame, across: number, upward: number): Ray {
  if (frame.kind === 'orthographic') {
    const [r, u] = lateral(frame, across, upward);
    return { origin: viewRufToWorld(frame, [r, u, 0]), direction: frame.forward, rangePerAhead: 1 };
  }
  const parts = pictureToViewRuf(frame, across, upward, 1);
  return {
    origin: frame.eye,
    direction: normalize(viewRufToDirection(frame, parts))!,
    rangePerAhead: Math.hypot(...parts),
  };
}

/**
 * Pixels that one world unit along the camera's right, and along its up, spans at a distance ahead
 * (above 0 in perspective).
 */
export function pixelsPerUnit(frame: ResolvedProjection & Pick<CameraFrame, 'viewport'>, ahead: number): Vec2 {
  const { extents: e, viewport: v } = frame;
  const k = frame.kind === 'perspective' ? frame.near / ahead : 1;
  return [Math.abs((v.width / (e.right - e.left)) * k), Math.abs((v.height / (e.top - e.bottom)) * k)];
}

/**
 * Width and height, in world units, that the picture shows at a distance ahead (above 0 in
 * perspective): the viewport over `pixelsPerUnit`.
 */
export function sizeAt({ extents: e, kind, near }: ResolvedProjection, ahead: number): Vec2 {
  const k = kind === 'perspective' ? ahead / near : 1;
  return [Math.abs(e.right - e.left) * k, Math.abs(e.top - e.bottom) * k];
}

/**
 * The planes that a point strictly violates, behind the eye too: the clip inequalities, with near
 * and far by the distance ahead itself.
 */
export function planesViolated(frame: CameraFrame, clip: ClipParts, ahead: number): PlaneName[] {
  const out: PlaneName[] = [];
  if (clip.x < -clip.w) out.push('left');
  if (clip.x > clip.w) out.push('right');
  if (clip.y < -clip.w) out.push('bottom');
  if (clip.y > clip.w) out.push('top');
  if (ahead < frame.near) out.push('near');
  if (frame.far !== null && ahead > frame.far) out.push('far');
  return out;
}

/** Where a world point lies in the picture, all the way through the chain. */
export interface Projected {
  readonly viewRuf: Vec3;
  readonly clip: ClipParts;
  readonly picture: Answer<PicturePosition>;
  readonly outside: readonly PlaneName[];
}

/**
 * A point of canonical world space through all spaces, with the planes that it lies behind; the
 * picture’s position has no answer in the plane of the eye and behind it.
 */
export function projectPoint(frame: CameraFrame, world: Vec3): Projected {
  const viewRuf = worldToViewRuf(frame, world);
  const clip = viewRufToClip(frame, viewRuf);
  return { viewRuf, clip, picture: divide(frame, clip), outside: planesViolated(frame, clip, viewRuf[2]) };
}

/**
 * Where a world point lands in canonical pixels; none behind the eye. What overlays are placed
 * with.
 */
export function worldToPixel(frame: CameraFrame, world: Vec3): Answer<Vec2> {
  const picture = divide(frame, viewRufToClip(frame, worldToViewRuf(frame, world)));
  return picture.ok ? answer(pictureToPixel(frame, picture.value.across, picture.value.upward)) : picture;
}
