import { dot, type Vec2, type Vec3 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { viewRufToClip, pictureToViewRuf, viewRufToDirection, pictureToPixel } from '../convert/project';
import { noAnswer, type Answer } from '../reasons';

/**
 * The horizon of the planes square to `normal` as a line of picture positions: constant + across·x
 * + upward·y = 0, positive on the normal's side. In orthographic every ray has one direction and
 * there is no such line: null. A ray's direction is linear in the picture position, so its dot
 * product with the normal is too.
 */
export function horizonLine(
  frame: CameraFrame,
  normal: Vec3,
): { constant: number; across: number; upward: number } | null {
  if (frame.kind === 'orthographic') return null;
  const along = (x: number, y: number) => dot(viewRufToDirection(frame, pictureToViewRuf(frame, x, y, 1)), normal);
  const constant = along(0, 0);
  return { constant, across: along(1, 0) - constant, upward: along(0, 1) - constant };
}

/**
 * The two pixels (top left, centres at .5) where the horizon crosses the viewport's border, left
 * one first; null when it does not.
 */
export function horizonPixels(frame: CameraFrame, normal: Vec3): [Vec2, Vec2] | null {
  const points = horizonPoints(frame, normal);
  return points && [pictureToPixel(frame, ...points[0]), pictureToPixel(frame, ...points[1])];
}

/** The same as picture positions. */
export function horizonPoints(frame: CameraFrame, normal: Vec3): [Vec2, Vec2] | null {
  const line = horizonLine(frame, normal);
  if (!line) return null;
  const { constant: c, across: a, upward: b } = line;
  const found: Vec2[] = [];
  for (const edge of [-1, 1]) {
    const y = -(c + a * edge) / b;
    if (Math.abs(y) <= 1) found.push([edge, y]);
    const x = -(c + b * edge) / a;
    if (Math.abs(x) < 1) found.push([x, edge]);
  }
  if (found.length < 2) return null;
  const [p, q] = [found[0]!, found.at(-1)!].sort((m, n) => m[0] - n[0]) as [Vec2, Vec2];
  return [p, q];
}

export type HorizonPlace = 'above' | 'below' | 'left' | 'right' | 'atInfinity';

/**
 * Where the horizon lies when it does not cross the viewport: on the side on which its line runs,
 * by the steeper of its slopes in pixels.
 */
export function horizonPlace(frame: CameraFrame, normal: Vec3): HorizonPlace {
  const line = horizonLine(frame, normal);
  if (!line) return 'atInfinity';
  const { constant: c, across: a, upward: b } = line;
  const { width, height } = frame.viewport;
  // A line this flat has gone out of any picture: the gaze runs along the normal.
  if (Math.hypot(a, b) < 1e-12 * Math.abs(c)) return 'atInfinity';
  if (Math.abs(b) / height >= Math.abs(a) / width) return -c / b > 0 ? 'above' : 'below';
  return -c / a > 0 ? 'right' : 'left';
}

/**
 * The picture position (across, upward) that parallels of a direction run to. `behindEye` when it
 * points behind the camera, `parallelToScreen` when it runs along the screen, and for every
 * direction in orthographic, where parallels stay parallel.
 */
export function vanishingPoint(frame: CameraFrame, direction: Vec3): Answer<Vec2> {
  const [r, u, f] = [dot(direction, frame.right), dot(direction, frame.up), dot(direction, frame.forward)];
  if (frame.kind === 'orthographic' || Math.abs(f) < 1e-12) return noAnswer('parallelToScreen');
  if (f < 0) return noAnswer('behindEye');
  const clip = viewRufToClip(frame, [r, u, f]);
  return { ok: true, value: [clip.x / f, clip.y / f] };
}

/**
 * The pitches (radians, positive upward) between which the horizon of level planes crosses the
 * picture, yaw, roll and lens kept: above the higher it has left the picture below, under the lower
 * one above. The ray of a place (r, u) of the picture at ahead 1 runs level where tan pitch = r·sin
 * roll − u·cos roll; the corners of the picture have the extremes of that. Null in orthographic,
 * which has no horizon, and for a gaze straight up or down, which has no roll.
 */
export function horizonPitches({ kind, near, extents: e, right, up }: CameraFrame): Vec2 | null {
  const level = Math.hypot(right[1], up[1]);
  if (kind === 'orthographic' || level < 1e-9) return null;
  const [sin, cos] = [-right[1] / level, up[1] / level];
  const pitches = [e.left, e.right].flatMap((r) => [e.bottom, e.top].map((u) => Math.atan((r * sin - u * cos) / near)));
  return [Math.min(...pitches), Math.max(...pitches)];
}
