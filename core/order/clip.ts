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
      return [...kept, between(a, b, t, polygon.length)];
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

/**
 * The picture positions that dividing by w without clipping would give: behind the eye they are the
 * mirrored ghosts, and the edges between a ghost and a picture the streaks across it. Null for a
 * corner on the eye's plane. To be shown as the fault it is, never to be computed with.
 */
export const unclippedPositions = (frame: CameraFrame, polygon: readonly Vec3[]): (Vec2 | null)[] =>
  polygon.map((p) => {
    const { x, y, w } = viewRufToClip(frame, worldToViewRuf(frame, p));
    return w === 0 ? null : [x / w, y / w];
  });
