import type { Vec2, Vec3 } from '../math/vec3';
import { reposed, type CameraFrame } from '../camera/frame';
import { pictureToPixel, pixelToPicture } from '../convert/project';

/**
 * The angular mapping of a perspective camera: equal angles per pixel instead of equal lengths on a
 * plane. Bearing (to the right of the gaze, about the camera's up) and elevation (above its level)
 * run evenly across the picture between those of the middles of its edges, so that without a lens
 * shift both agree there. Angles in radians.
 */
export interface AngularSpan {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

/**
 * The bearings and elevations of the middles of the picture's edges; null in orthographic, where all rays have one
 * direction.
 */
export function angularSpan({ kind, near, extents: e }: CameraFrame): AngularSpan | null {
  if (kind === 'orthographic') return null;
  const [across, upward] = [(e.left + e.right) / 2, (e.bottom + e.top) / 2];
  const bearing = (edge: number) => partsToBearing([edge, upward, near])[0];
  const elevation = (edge: number) => partsToBearing([across, edge, near])[1];
  return { left: bearing(e.left), right: bearing(e.right), bottom: elevation(e.bottom), top: elevation(e.top) };
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
 * The bearing and elevation (radians) of what the plane projection shows at a picture position, and
 * the position at which the angular mapping shows it. Null in orthographic. No ray of a picture
 * points behind, so there always is one.
 */
export function angularOfPicture(
  frame: CameraFrame,
  [across, upward]: Vec2,
): { readonly direction: Vec2; readonly picture: Vec2 } | null {
  if (frame.kind === 'orthographic') return null;
  const { near, extents: e } = frame;
  const [right, up] = [
    (e.right - e.left) * (across / 2) + (e.right + e.left) / 2,
    (e.top - e.bottom) * (upward / 2) + (e.top + e.bottom) / 2,
  ];
  // Angles between two directions rather than differences of angles: far off the axis a narrow
  // picture has edges of one bearing, to rounding.
  const bearingFromLeft = (to: number) => Math.atan2((to - e.left) * near, near * near + e.left * to);
  const level = Math.hypot((e.left + e.right) / 2, near);
  const height = Math.atan2((e.top - e.bottom) * level, level * level + e.bottom * e.top);
  const own = Math.hypot(right, near);
  const above = Math.atan2(up * level - e.bottom * own, own * level + e.bottom * up);
  return {
    direction: partsToBearing([right, up, near]),
    picture: [(2 * bearingFromLeft(right)) / bearingFromLeft(e.right) - 1, (2 * above) / height - 1],
  };
}

/**
 * How far, in pixels, the angular mapping puts what the plane projection shows at a canonical
 * pixel: its place there less the pixel. Null in orthographic.
 */
export function angularError(frame: CameraFrame, pixel: Vec2): Vec2 | null {
  const found = angularOfPicture(frame, pixelToPicture(frame, pixel));
  if (!found) return null;
  const there = pictureToPixel(frame, ...found.picture);
  return [there[0] - pixel[0], there[1] - pixel[1]];
}

/**
 * The same camera with edges wide enough to show every direction of an angular picture of a span:
 * off the level a plane picture is wider than high, since up = tan elevation / cos bearing. Null
 * where a direction lies 89.5° or more off the gaze, which no plane of use reaches.
 */
export function planeOfAngles(frame: CameraFrame, { left, right, bottom, top }: AngularSpan): CameraFrame | null {
  const most = Math.max(Math.abs(left), Math.abs(right));
  const level = Math.cos(most);
  if (Math.max(most, Math.abs(bottom), Math.abs(top)) > (89.5 * Math.PI) / 180) return null;
  const across = [Math.tan(left), Math.tan(right)].map((v) => v * frame.near);
  const upward = [bottom, top].flatMap((v) => [Math.tan(v), Math.tan(v) / level].map((w) => w * frame.near));
  const [low, high] = [Math.min(...upward), Math.max(...upward)];
  const [down, up] = top < bottom ? [high, low] : [low, high];
  return reposed(frame, { extents: { left: across[0]!, right: across[1]!, bottom: down, top: up } });
}
