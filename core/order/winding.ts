import { cross, dot, sub, type Vec2, type Vec3 } from '../math/vec3';
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

export type Winding = 'counter-clockwise' | 'clockwise';

/** How a convex polygon of the world is seen. */
export interface Facing {
  /**
   * Which way its corners run in the picture, as the viewer sees it: what is left of it once it is
   * clipped at near. Null seen edge-on, or when nothing is left.
   */
  readonly seen: Winding | null;
  /**
   * The sign of the area computed from screen coordinates: + where screen x, y run
   * counter-clockwise as seen. What a rasteriser goes by; a screen whose y runs downward turns the
   * sign, and so does a mirrored projection (`screenYUp` says which way y runs).
   */
  readonly screenArea: 1 | 0 | -1;
  /**
   * Whether the eye (in orthographic: a point infinitely far against the gaze) is on the side from
   * which the corners run counter-clockwise in the world.
   */
  readonly towardsEye: boolean;
}

/**
 * The facing of a convex polygon with at least three corners, on a screen whose y runs up or down.
 */
export function facingOf(frame: CameraFrame, polygon: readonly Vec3[], screenYUp: boolean): Facing {
  const [a, b, c] = polygon as [Vec3, Vec3, Vec3];
  const normal = cross(sub(b, a), sub(c, a));
  const toEye = frame.kind === 'perspective' ? dot(normal, sub(frame.eye, a)) : -dot(normal, frame.forward);
  const corners = clipPolygon(frame, polygon, ['near']).map(({ viewRuf }): Vec2 => {
    const { x, y, w } = viewRufToClip(frame, viewRuf);
    return [x / w, y / w];
  });
  const area = corners.length < 3 ? 0 : Math.sign(signedArea2(corners));
  return {
    seen: area === 0 ? null : area > 0 ? 'counter-clockwise' : 'clockwise',
    screenArea: (area === 0 ? 0 : screenYUp ? area : -area) as 1 | 0 | -1,
    towardsEye: toEye > 0,
  };
}

/**
 * Whether a projection turns the picture round: exactly one pair of its extents is mirrored. Front
 * faces then run the other way on the screen.
 */
export const mirrorsPicture = ({ extents: e }: Pick<CameraFrame, 'extents'>): boolean =>
  e.right < e.left !== e.top < e.bottom;
