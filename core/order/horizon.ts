import { dot, type Vec2, type Vec3 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { pictureToParts, partsToDirection, pictureToPixel } from '../convert/project';

/**
 * The horizon of the planes square to `normal` as a line of picture positions: constant + across·x + upward·y = 0, positive on the
 * normal's side. In orthographic every ray has one direction and there is no such line: null.
 * A ray's direction is linear in the picture position, so its dot product with the normal is too.
 */
export function horizonLine(
  frame: CameraFrame,
  normal: Vec3,
): { constant: number; across: number; upward: number } | null {
  if (frame.kind === 'orthographic') return null;
  const along = (x: number, y: number) => dot(partsToDirection(frame, pictureToParts(frame, x, y, 1)), normal);
  const constant = along(0, 0);
  return { constant, across: along(1, 0) - constant, upward: along(0, 1) - constant };
}

/** The two pixels (top left, centres at .5) where the horizon crosses the viewport's border, left one first; null when it does not. */
export function horizonPixels(frame: CameraFrame, normal: Vec3): [Vec2, Vec2] | null {
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
  return [pictureToPixel(frame, ...p), pictureToPixel(frame, ...q)];
}
