import type { Vec2, Vec3 } from '../math/vec3';
import { followOutside, rateOf } from './smoothing';

/** How a camera follows. Lengths in world units, along the axes in which the points are given. */
export interface FollowTerms {
  /**
   * Half the size of the zone about the place held in which the body may move without being
   * followed, an axis each.
   */
  readonly deadZone?: readonly number[] | undefined;
  /** Seconds in which half of what is left is made up; 0 follows at once. */
  readonly halfLife: number;
}

/**
 * The place that a camera holds on its anchor, after a step in which the body followed moved evenly
 * `from` one point `to` another. Exact for such a motion: steps of any length end at the same
 * place.
 *
 * @param held where the anchor was before the step; give it unbounded, and bound only what the
 * picture is made with (`boundFocus`)
 */
export function follow<Point extends Vec2 | Vec3>(
  held: Point,
  from: Point,
  to: Point,
  { deadZone, halfLife }: FollowTerms,
  dt: number,
): Point {
  const rate = rateOf(halfLife);
  return held.map((y, i) => followOutside(y, from[i]!, to[i]!, deadZone?.[i] ?? 0, rate, dt)) as unknown as Point;
}

/**
 * How far the picture reaches from the anchor along each axis, in world units, below and above it:
 * both 0 or more.
 */
export interface Reach {
  readonly below: readonly number[];
  readonly above: readonly number[];
}

/**
 * The focus nearest to the one wanted from which the picture shows nothing outside the bounds;
 * along an axis on which the bounds are smaller than the picture, the one that shows as much on
 * either side.
 */
export function boundFocus<Point extends Vec2 | Vec3>(
  focus: Point,
  { below, above }: Reach,
  bounds: { readonly min: Point; readonly max: Point },
): Point {
  return focus.map((wanted, i) => {
    const low = bounds.min[i]! + below[i]!;
    const high = bounds.max[i]! - above[i]!;
    return low > high ? (low + high) / 2 : Math.min(high, Math.max(low, wanted));
  }) as unknown as Point;
}

/**
 * The focus of a parallax layer: at `factor` 1 it goes with the camera (an ordinary layer), at 0 it
 * stands still with the screen (the sky), above 1 it runs ahead. All layers agree when the camera
 * is at `origin`. Its inverse is `focusOfParallax`.
 */
export const parallaxFocus = (focus: Vec2, origin: Vec2, factor: number): Vec2 => [
  origin[0] + (focus[0] - origin[0]) * factor,
  origin[1] + (focus[1] - origin[1]) * factor,
];

/**
 * The camera's focus of a layer's; null for a layer that stands still, which says nothing about it.
 */
export const focusOfParallax = (layer: Vec2, origin: Vec2, factor: number): Vec2 | null =>
  factor === 0 ? null : parallaxFocus(layer, origin, 1 / factor);
