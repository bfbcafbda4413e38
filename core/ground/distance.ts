import { length2, type Vec2 } from '../math/vec3';

/**
 * An edge of a convex region of the ground in two coordinates: the points `corner` + t·`direction` for t in `range`,
 * whose ends may be infinite. The direction is of length 1 and has the region to its left.
 */
export interface GroundEdge {
  readonly corner: Vec2;
  readonly direction: Vec2;
  readonly range: Vec2;
}

/**
 * Returns the distance of a place from a convex region given by its edges, bounded or not, in the units of its
 * coordinates: 0 in the region, infinite without edges.
 */
export function distanceToEdges(edges: readonly GroundEdge[], [x, y]: Vec2): number {
  let isInside = edges.length > 0;
  let least = Infinity;
  for (const { corner, direction: d, range } of edges) {
    const [fromX, fromY] = [x - corner[0], y - corner[1]];
    if (d[0] * fromY - d[1] * fromX < 0) isInside = false;
    const along = Math.max(range[0], Math.min(range[1], d[0] * fromX + d[1] * fromY));
    least = Math.min(least, length2(fromX - d[0] * along, fromY - d[1] * along));
  }
  return isInside ? 0 : least;
}
