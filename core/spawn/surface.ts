import { addScaled, cross, dot, normalize, scale, sub, type Vec2, type Vec3 } from '../math/vec3';
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
   * The convex region that a frame sees of it, counter-clockwise; or why there is none to keep away
   * from.
   */
  readonly visible: (frame: CameraFrame) => readonly Vec2[] | 'footprintEmpty' | 'footprintUnbounded';
}

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
    visible: (frame) => {
      const seen = footprint(frame, point, n);
      if (!seen) return 'footprintEmpty';
      if (seen.unbounded) return 'footprintUnbounded';
      return counterClockwise(seen.polygon.map(coordinates));
    },
  };
}
