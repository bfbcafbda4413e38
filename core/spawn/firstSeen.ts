import { length2, type Vec2 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';
import { touchesPolygon } from './region';

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
  const seconds = firstTouches(region, radius, regionVelocity, within)(place[0], place[1], ...bodyVelocity);
  return Number.isNaN(seconds) ? noAnswer('notWithin') : answer(seconds);
}

/**
 * The same for many discs of one radius: what is asked of a place and a velocity gives the seconds,
 * NaN for not within the time. Sides and normals of the region are worked out once.
 */
export function firstTouches(
  region: readonly Vec2[],
  radius: number,
  [rx, ry]: Vec2,
  within: number,
): (x: number, y: number, vx: number, vy: number) => number {
  const touching = touchesPolygon(region, radius);
  const count = region.length;
  const [ax, ay] = [Float64Array.from(region, ([x]) => x), Float64Array.from(region, ([, y]) => y)];
  const [tx, ty, long] = [new Float64Array(count), new Float64Array(count), new Float64Array(count)];
  region.forEach((a, i) => {
    const b = region[(i + 1) % count]!;
    const far = length2(b[0] - a[0], b[1] - a[1]);
    [tx[i], ty[i], long[i]] = far > 0 ? [(b[0] - a[0]) / far, (b[1] - a[1]) / far, far] : [0, 0, 0];
  });
  const [left, right] = [Math.min(...ax), Math.max(...ax)];
  const [low, high] = [Math.min(...ay), Math.max(...ay)];
  return (x, y, vx, vy) => {
    if (touching(x, y)) return 0;
    const ux = vx - rx;
    const uy = vy - ry;
    const speed = length2(ux, uy);
    if (!(speed > 0)) return NaN;
    // Farther off the box about it than is gone in the time, with a little for rounding: not within.
    const reach = (speed * within + radius) * 1.000001;
    if (x < left - reach || x > right + reach || y < low - reach || y > high + reach) return NaN;
    // Along the ray by its length: squares of small speeds would leave the doubles.
    const dx = ux / speed;
    const dy = uy / speed;
    let first = Infinity;
    for (let i = 0; i < count; i++) {
      const px = x - ax[i]!;
      const py = y - ay[i]!;
      if (long[i]! > 0) {
        // Outward of a side that runs counter-clockwise is to its right.
        const against = dx * ty[i]! - dy * tx[i]!;
        if (against < 0) {
          const off = px * ty[i]! - py * tx[i]! - radius;
          const t = off / -against;
          const along = (px + dx * t) * tx[i]! + (py + dy * t) * ty[i]!;
          if (off >= 0 && along >= 0 && along <= long[i]! && t < first) first = t;
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
    return seconds <= within ? seconds : NaN;
  };
}

/** What is seen at a time: convex and counter-clockwise; null where nothing is. */
export type RegionAt = (seconds: number) => readonly Vec2[] | null;

/** Seconds between two looks at what moves as it likes, and how fine a first touch is found. */
export const lookStep = 1 / 32;
const finest = 1 / 1024;

/**
 * Seconds until discs that move evenly first touch a region that moves and changes as it likes, for
 * many discs of one radius; NaN for not within the time. It is looked at in even steps, and the touch
 * between two looks is found by halving to 1/1024 s: one that is shorter than a step may fall between
 * them. Regions are asked for once each.
 */
export function firstTouchesMoving(
  regionAt: RegionAt,
  radius: number,
  within: number,
): (x: number, y: number, vx: number, vy: number) => number {
  const tests = new Map<number, (x: number, y: number) => boolean>();
  const never = () => false;
  const testAt = (tick: number) => {
    let test = tests.get(tick);
    if (!test) {
      const region = regionAt(tick * finest);
      test = region ? touchesPolygon(region, radius) : never;
      tests.set(tick, test);
    }
    return test;
  };
  const step = Math.round(lookStep / finest);
  const last = Math.floor(within / finest + 1e-9);
  return (x, y, vx, vy) => {
    const touches = (tick: number) => {
      const t = tick * finest;
      return testAt(tick)(x + vx * t, y + vy * t);
    };
    if (touches(0)) return 0;
    for (
      let tick = Math.min(step, last), before = 0;
      before < last;
      before = tick, tick = Math.min(tick + step, last)
    ) {
      if (!touches(tick)) continue;
      let [low, high] = [before, tick];
      while (high - low > 1) {
        const half = (low + high) >> 1;
        if (touches(half)) high = half;
        else low = half;
      }
      return high * finest;
    }
    return NaN;
  };
}
