import type { Vec2 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';
import { distanceToPolygon } from './region';

/** How a body on a surface moves: evenly, or evenly towards a place at which it aims once, at the start. */
export type BodyMotion = { readonly velocity: Vec2 } | { readonly towards: Vec2; readonly speed: number };

/** The velocity of a body at a place, units a second; one that stands where it aims rests. */
export function velocityAt([x, y]: Vec2, motion: BodyMotion): Vec2 {
  if ('velocity' in motion) return motion.velocity;
  const [dx, dy] = [motion.towards[0] - x, motion.towards[1] - y];
  const far = Math.hypot(dx, dy);
  return far > 0 ? [(motion.speed * dx) / far, (motion.speed * dy) / far] : [0, 0];
}

/**
 * Seconds until a disc that moves evenly first touches a convex region (counter-clockwise, at least
 * three corners) that moves evenly too: 0 where it does so at the start. Seen from the region the
 * disc's middle runs along a ray, and what it must meet is the region grown by the radius: its sides
 * moved outward, and circles about its corners. The first of those on the ray is the first touch,
 * since all of them lie in the grown region and its outline is made of them. `notWithin` if that is
 * later than `within`, which counts as well.
 * Places, radius and velocities in the units of the surface's coordinates.
 */
export function firstTouch(
  region: readonly Vec2[],
  place: Vec2,
  radius: number,
  bodyVelocity: Vec2,
  regionVelocity: Vec2,
  within: number,
): Answer<number> {
  if (distanceToPolygon(region, place) <= radius) return answer(0);
  const [ux, uy] = [bodyVelocity[0] - regionVelocity[0], bodyVelocity[1] - regionVelocity[1]];
  const speed = Math.hypot(ux, uy);
  if (!(speed > 0)) return noAnswer('notWithin');
  // Along the ray by its length: squares of small speeds would leave the doubles.
  const [dx, dy] = [ux / speed, uy / speed];
  let first = Infinity;
  region.forEach((a, i) => {
    const b = region[(i + 1) % region.length]!;
    const [sx, sy] = [b[0] - a[0], b[1] - a[1]];
    const long = Math.hypot(sx, sy);
    if (long > 0) {
      // Outward of a side that runs counter-clockwise is to its right.
      const [nx, ny] = [sy / long, -sx / long];
      const against = dx * nx + dy * ny;
      if (against < 0) {
        const off = (place[0] - a[0]) * nx + (place[1] - a[1]) * ny - radius;
        const t = off / -against;
        const along = ((place[0] + dx * t - a[0]) * sx + (place[1] + dy * t - a[1]) * sy) / long;
        if (off >= 0 && along >= 0 && along <= long) first = Math.min(first, t);
      }
    }
    // The circle about the corner: the nearest of its two crossings.
    const [cx, cy] = [a[0] - place[0], a[1] - place[1]];
    const ahead = cx * dx + cy * dy;
    const aside = cx * dy - cy * dx;
    if (ahead >= 0 && Math.abs(aside) <= radius)
      first = Math.min(first, Math.max(0, ahead - Math.sqrt((radius - aside) * (radius + aside))));
  });
  const seconds = first / speed;
  return seconds <= within ? answer(seconds) : noAnswer('notWithin');
}
