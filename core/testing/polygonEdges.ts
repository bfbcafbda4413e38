import type { GroundEdge } from '../ground/distance';
import { length2, type Vec2 } from '../math/vec3';

/** Returns the edges of a convex polygon whose corners are counter-clockwise. */
export const polygonEdges = (polygon: readonly Vec2[]): GroundEdge[] =>
  polygon.map((corner, i) => {
    const next = polygon[(i + 1) % polygon.length]!;
    const [x, y] = [next[0] - corner[0], next[1] - corner[1]];
    const length = length2(x, y);
    return { corner, direction: [x / length, y / length], range: [0, length] };
  });
