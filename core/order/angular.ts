import type { Vec2, Vec3 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { pictureToPixel, pixelToPicture } from '../convert/project';

/**
 * The angular mapping of a perspective camera: equal angles per pixel instead of equal lengths on a
 * plane. Bearing (to the right of the gaze, about the camera's up) and elevation (above its level)
 * run evenly across the picture, and agree with the plane projection on the middles of its edges.
 * Angles in radians.
 */
export interface AngularSpan {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/**
 * The bearings and elevations of the picture's edges; null in orthographic, where all rays have one
 * direction.
 */
export function angularSpan({ kind, near, extents: e }: CameraFrame): AngularSpan | null {
  if (kind === 'orthographic') return null;
  const at = (edge: number) => Math.atan2(edge, near);
  return { left: at(e.left), right: at(e.right), bottom: at(e.bottom), top: at(e.top) };
}

/**
 * Bearing and elevation of a direction in the camera's own axes (right, up, ahead), of any length
 * above 0. Its inverse is `bearingToParts`.
 */
export const partsToBearing = ([r, u, f]: Vec3): Vec2 => [Math.atan2(r, f), Math.atan2(u, Math.hypot(r, f))];

/**
 * A bearing and elevation (radians) as right, up, ahead of a unit vector: the way back of
 * `partsToBearing`.
 */
export function bearingToParts([bearing, elevation]: Vec2): Vec3 {
  const level = Math.cos(elevation);
  return [Math.sin(bearing) * level, Math.sin(elevation), Math.cos(bearing) * level];
}

/**
 * Bearing and elevation to a picture position (across and upward, −1…1 inside) in the angular
 * mapping. Its inverse is `angularToBearing`.
 */
export const bearingToAngular = (span: AngularSpan, [bearing, elevation]: Vec2): Vec2 => [
  (2 * bearing - span.right - span.left) / (span.right - span.left),
  (2 * elevation - span.top - span.bottom) / (span.top - span.bottom),
];

/**
 * A place of an angular picture (across, upward, −1 to 1) as its bearing and elevation in radians.
 */
export const angularToBearing = (span: AngularSpan, [across, upward]: Vec2): Vec2 => [
  (span.right - span.left) * (across / 2) + (span.right + span.left) / 2,
  (span.top - span.bottom) * (upward / 2) + (span.top + span.bottom) / 2,
];

/**
 * How far, in pixels, the angular mapping puts what the plane projection shows at a canonical
 * pixel: its place there less the pixel. Null in orthographic. No pixel's ray points behind, so
 * there always is one.
 */
export function angularError(frame: CameraFrame, pixel: Vec2): Vec2 | null {
  const span = angularSpan(frame);
  if (!span) return null;
  const [across, upward] = pixelToPicture(frame, pixel);
  const e = frame.extents;
  const parts: Vec3 = [
    (e.right - e.left) * (across / 2) + (e.right + e.left) / 2,
    (e.top - e.bottom) * (upward / 2) + (e.top + e.bottom) / 2,
    frame.near,
  ];
  const there = pictureToPixel(frame, ...bearingToAngular(span, partsToBearing(parts)));
  return [there[0] - pixel[0], there[1] - pixel[1]];
}
