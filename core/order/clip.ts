import { dot, type Vec2, type Vec3 } from '../math/vec3';
import { viewRufPlanes, type CameraFrame, type PlaneName } from '../camera/frame';
import { viewRufToClip, worldToViewRuf } from '../convert/project';

/** A corner of a clipped polygon, in the camera's own axes (right, up, ahead). */
export interface ClippedCorner {
  readonly viewRuf: Vec3;
  /**
   * Where it lies on the polygon as it was given: on its edge from corner `edge` to the next, a
   * share `along` of the way. A given corner has 0. For carrying attributes over.
   */
  readonly edge: number;
  readonly along: number;
}

/**
 * A convex polygon in the world, cut by the planes named (`near` alone keeps what has a picture;
 * all of them what is seen): Sutherland and Hodgman 1974. What lies on a plane is kept, so what
 * only touches it leaves a corner or an edge; an empty list when nothing is left. The order of the
 * corners, and so the winding, stays.
 */
export function clipPolygon(
  frame: CameraFrame,
  polygon: readonly Vec3[],
  planes: readonly PlaneName[] = ['left', 'right', 'bottom', 'top', 'near', 'far'],
): ClippedCorner[] {
  let corners = polygon.map((p, edge): ClippedCorner => ({ viewRuf: worldToViewRuf(frame, p), edge, along: 0 }));
  for (const { name, normal, offset } of viewRufPlanes(frame)) {
    if (!planes.includes(name)) continue;
    const above = corners.map(({ viewRuf }) => dot(normal, viewRuf) + offset);
    corners = corners.flatMap((a, i) => {
      const j = (i + 1) % corners.length;
      const b = corners[j]!;
      const kept = above[i]! >= 0 ? [a] : [];
      if (above[i]! >= 0 === above[j]! >= 0 || above[i] === 0 || above[j] === 0) return kept;
      const t = above[i]! / (above[i]! - above[j]!);
      const corner = between(a, b, t, polygon.length);
      // Exactly as far ahead as the plane: rounding against far larger sizes could put it behind the eye.
      const ahead = name === 'near' ? frame.near : name === 'far' ? frame.far : null;
      if (ahead === null) return [...kept, corner];
      const [right, up] = corner.viewRuf;
      return [...kept, { ...corner, viewRuf: [right, up, ahead] as const }];
    });
  }
  return corners;
}

function between(a: ClippedCorner, b: ClippedCorner, t: number, count: number): ClippedCorner {
  const [p, q] = [a.viewRuf, b.viewRuf];
  const viewRuf: Vec3 = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t];
  // Both on one given edge, or b is that edge's end: then the place on the edge is known. On an
  // edge made by an earlier plane the nearer end stands for it.
  const ends = b.edge === (a.edge + 1) % count && b.along === 0 ? 1 : b.edge === a.edge ? b.along : null;
  return { viewRuf, edge: a.edge, along: ends === null ? a.along : a.along + (ends - a.along) * t };
}

/** What dividing by w without clipping makes of a corner. */
export interface UnclippedCorner {
  /** Across and upward in the picture; null where there is nothing to divide by. */
  readonly position: Vec2 | null;
  /** Behind the eye: w is negative, and the corner comes out mirrored through the vanishing point. */
  readonly ghost: boolean;
}

/**
 * The picture positions that dividing by w without clipping would give, a corner each: behind the
 * eye they are the mirrored ghosts, and the edges between a ghost and a picture the streaks across
 * it. A corner on the eye's plane, or so near it that the division leaves the range of doubles, has
 * none. To be shown as the fault it is, never to be computed with.
 */
export const unclippedPositions = (frame: CameraFrame, polygon: readonly Vec3[]): UnclippedCorner[] =>
  polygon.map((p) => {
    const { x, y, w } = viewRufToClip(frame, worldToViewRuf(frame, p));
    const position: Vec2 = [x / w, y / w];
    return { position: position.every(Number.isFinite) ? position : null, ghost: w < 0 };
  });
