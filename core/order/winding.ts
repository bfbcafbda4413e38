import { add, cross, distance, dot, normalize, sub, type Vec2, type Vec3 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';
import type { CameraFrame } from '../camera/frame';
import { viewRufToClip } from '../convert/project';
import { clipPolygon } from './clip';

/**
 * Twice the area that a polygon encloses, counted positive when its corners run from +x towards +y.
 * In positions across and upward: counter-clockwise as seen.
 */
export function signedArea2(corners: readonly Vec2[]): number {
  const [ox, oy] = corners[0] ?? [0, 0];
  return corners.reduce((sum, [x, y], i) => {
    const [p, q] = corners[(i + 1) % corners.length]!;
    return sum + (x - ox) * (q - oy) - (p - ox) * (y - oy);
  }, 0);
}

export interface PolygonWinding {
  /** Which side of it the eye is on: front is that from which its corners run counter-clockwise. */
  readonly facing: 'front' | 'back' | 'edgeOn';
  /**
   * Pixels² of what is left of it once it is cut at near, positive where the corners run
   * counter-clockwise as a viewer of the screen sees them.
   */
  readonly area: Answer<number>;
}

/**
 * Square to a plane polygon, on the side from which its corners run counter-clockwise, as long as
 * twice its area: the sum over its triangles about the first corner.
 */
export function normalOf(polygon: readonly Vec3[]): Vec3 {
  const a = polygon[0]!;
  let sum: Vec3 = [0, 0, 0];
  for (let i = 2; i < polygon.length; i++) sum = add(sum, cross(sub(polygon[i - 1]!, a), sub(polygon[i]!, a)));
  return sum;
}

/** Smaller than this against the sizes in play is nothing. */
const flatness = 1e-12;

/**
 * How a plane convex polygon of the world (three corners or more) faces the eye, and how it runs on
 * the screen. Edge-on is an eye (in
 * orthographic a point infinitely far against the gaze) within 1e-12 of its plane, relative to the
 * distance of the farthest corner, and a polygon without an inside. The area is that of the
 * polygon of what near leaves, by the sum of cross products (the shoelace formula); `behindEye`
 * when nothing is left. Mirrored extents turn its sign, never the facing.
 */
export function windingOf(frame: CameraFrame, polygon: readonly Vec3[]): PolygonWinding {
  const a = polygon[0]!;
  const normal = normalize(normalOf(polygon));
  const far = polygon.reduce((most, p) => Math.max(most, distance(p, frame.eye)), 0);
  const towards = !normal
    ? 0
    : frame.kind === 'perspective'
      ? dot(normal, sub(frame.eye, a)) / far
      : -dot(normal, frame.forward);
  const facing = Math.abs(towards) <= flatness ? 'edgeOn' : towards > 0 ? 'front' : 'back';
  const { width, height } = frame.viewport;
  const corners = clipPolygon(frame, polygon, ['near']).map(({ viewRuf }): Vec2 => {
    const { x, y, w } = viewRufToClip(frame, viewRuf);
    return [((x / w) * width) / 2, ((y / w) * height) / 2];
  });
  return { facing, area: corners.length ? answer(signedArea2(corners) / 2) : noAnswer('behindEye') };
}

/**
 * Whether a projection turns the picture round: exactly one pair of its extents is mirrored. Front
 * faces then run the other way on the screen.
 */
export const mirrorsPicture = ({ extents: e }: Pick<CameraFrame, 'extents'>): boolean =>
  e.right < e.left !== e.top < e.bottom;
