import { length2, type Vec2 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';
import { distanceToPolygon } from './region';

/** How a body on a surface moves: evenly, or evenly towards a place at which it aims once, at the start. */
export type BodyMotion = { readonly velocity: Vec2 } | { readonly towards: Vec2; readonly speed: number };

/** The velocity of a body at a place, units a second; one that stands where it aims rests. */
export function velocityAt([x, y]: Vec2, motion: BodyMotion): Vec2 {
  if ('velocity' in motion) return motion.velocity;
  const [dx, dy] = [motion.towards[0] - x, motion.towards[1] - y];
  const far = length2(dx, dy);
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
  const speed = length2(ux, uy);
  if (!(speed > 0)) return noAnswer('notWithin');
  // Along the ray by its length: squares of small speeds would leave the doubles.
  const [dx, dy] = [ux / speed, uy / speed];
  let first = Infinity;
  const count = region.length;
  for (let i = 0; i < count; i++) {
    const a = region[i]!;
    const b = region[i + 1 === count ? 0 : i + 1]!;
    const sx = b[0] - a[0];
    const sy = b[1] - a[1];
    const long = length2(sx, sy);
    const px = place[0] - a[0];
    const py = place[1] - a[1];
    if (long > 0) {
      // Outward of a side that runs counter-clockwise is to its right.
      const nx = sy / long;
      const ny = -sx / long;
      const against = dx * nx + dy * ny;
      if (against < 0) {
        const off = px * nx + py * ny - radius;
        const t = off / -against;
        const along = ((px + dx * t) * sx + (py + dy * t) * sy) / long;
        if (off >= 0 && along >= 0 && along <= long && t < first) first = t;
      }
    }
    // The circle about the corner: the nearest of its two crossings.
    const ahead = -(px * dx + py * dy);
    const aside = py * dx - px * dy;
    if (ahead >= 0 && Math.abs(aside) <= radius) {
      const t = Math.max(0, ahead - Math.sqrt((radius - aside) * (radius + aside)));
      if (t < first) first = t;
    }
  }
  const seconds = first / speed;
  return seconds <= within ? answer(seconds) : noAnswer('notWithin');
}
