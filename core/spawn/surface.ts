import { addScaled, cross, dot, normalize, scale, sub, type Vec2, type Vec3, type Vec4 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { viewRufToWorld, pictureToViewRuf } from '../convert/project';
import { footprint } from '../ground/footprint';
import { areaAndCentroid } from './region';

/**
 * A surface to spawn on, with coordinates (a, b): the canonical right and up on the 2D plane, right
 * and ahead on level ground.
 */
export interface Surface {
  readonly at: (p: Vec2) => Vec3;
  /** The coordinates of the foot of a point on it: the inverse of `at` for points of the surface. */
  readonly coordinates: (p: Vec3) => Vec2;
  /**
   * The convex region that a frame sees of it, counter-clockwise. Of a region that reaches infinity, its part
   * within the box: no corners where they do not meet, and `footprintUnbounded` without a box.
   */
  readonly visible: (
    frame: CameraFrame,
    within: SurfaceBox | null,
  ) => readonly Vec2[] | 'footprintEmpty' | 'footprintUnbounded';
}

/** A box with sides along the surface's coordinates. */
export interface SurfaceBox {
  readonly min: Vec2;
  readonly max: Vec2;
}

/**
 * Expands a box by a distance on all sides. Within a box that is expanded by more than the clearance, the points
 * at that clearance from a region are the same as those from the region's part in the expanded box.
 */
export const expandBox = ({ min, max }: SurfaceBox, distance: number): SurfaceBox => ({
  min: [min[0] - distance, min[1] - distance],
  max: [max[0] + distance, max[1] + distance],
});

const counterClockwise = (polygon: readonly Vec2[]): readonly Vec2[] =>
  areaAndCentroid(polygon).area < 0 ? [...polygon].reverse() : polygon;

export const flatSurface: Surface = {
  at: ([a, b]) => [a, b, 0],
  coordinates: ([a, b]) => [a, b],
  visible: (frame) =>
    counterClockwise(
      (
        [
          [-1, -1],
          [1, -1],
          [1, 1],
          [-1, 1],
        ] as const
      ).map(([x, y]): Vec2 => {
        const p = viewRufToWorld(frame, pictureToViewRuf(frame, x, y, 0));
        return [p[0], p[1]];
      }),
    ),
};

/**
 * A plane in the world. Its first direction is the world's right laid into it and its second as
 * near to ahead (or, where it stands upright, to up) as a square to the first allows; a plane that
 * faces right has ahead for its first. Null when the normal has no length.
 */
export function planeSurface(point: Vec3, normal: Vec3): Surface | null {
  const n = normalize(normal);
  if (!n) return null;
  const laid = (d: Vec3) => addScaled(d, n, -dot(d, n));
  const ahead: Vec3 = [0, 0, -1];
  const first = normalize(Math.abs(n[0]) > 1 - 1e-9 ? laid(ahead) : laid([1, 0, 0]))!;
  const across = cross(n, first);
  const lean = Math.abs(dot(across, ahead)) > 1e-9 ? dot(across, ahead) : across[1];
  const second = lean < 0 ? scale(across, -1) : across;
  const foot = scale(n, dot(n, point));
  const coordinates = (p: Vec3): Vec2 => [dot(sub(p, foot), first), dot(sub(p, foot), second)];
  return {
    at: ([a, b]) => addScaled(addScaled(foot, first, a), second, b),
    coordinates,
    visible: (frame, within) => {
      let seen = footprint(frame, point, n);
      if (!seen) return 'footprintEmpty';
      if (seen.unbounded) {
        if (!within || ![...within.min, ...within.max].every(Number.isFinite)) return 'footprintUnbounded';
        const wall = (direction: Vec3, side: number, at: number): Vec4 => [...scale(direction, side), -side * at];
        seen = footprint(frame, point, n, [
          wall(first, 1, within.min[0]),
          wall(first, -1, within.max[0]),
          wall(second, 1, within.min[1]),
          wall(second, -1, within.max[1]),
        ]);
        if (!seen) return [];
      }
      return counterClockwise(seen.polygon.map(coordinates));
    },
  };
}
