/*
 * An eye that passes over an item which turns about an axis towards it: how fast the item has to
 * turn, and what comes of keeping its last attitude while the eye is nearly straight above.
 */

/** An even passage on a straight level line over an item's axis. */
export interface Passing {
  /** World units between the line and the axis, 0 or more. */
  readonly offset: number;
  /** World units a second, above 0. */
  readonly speed: number;
  /** World units of the line above the item, along the axis. */
  readonly height: number;
  /** The half angle of the cone above the item within which it keeps its last attitude; radians, 0 for none. */
  readonly hold: number;
}

/** What such a passage does. */
export interface Passed {
  /** The greatest rate of turn, radians a second: speed ÷ offset; null where it is without bound. */
  readonly peak: number | null;
  /** Radians by which the item turns at once as the eye is straight above: π, or 0 where it passes beside. */
  readonly snap: number;
  /** Seconds, before and after the middle, for which the attitude is kept; 0 where it never is. */
  readonly heldFor: number;
  /** Radians by which it turns at once when the eye leaves the cone. */
  readonly jump: number;
  /** The greatest rate of turn outside the cone, radians a second; null where it is without bound. */
  readonly heldPeak: number | null;
}

/** The half width of the cone at the height of the line, in world units. */
const coneAt = ({ height, hold }: Passing): number => (hold > 0 ? Math.abs(height) * Math.tan(hold) : 0);

/** When the eye enters and leaves the cone: seconds before and after the middle. */
function heldFor(p: Passing): number {
  const cone = coneAt(p);
  return cone > p.offset ? (Math.sqrt(cone - p.offset) * Math.sqrt(cone + p.offset)) / p.speed : 0;
}

/**
 * The item's heading at a time: radians about the axis from where the eye is nearest, 0 at time 0
 * (the middle), towards ±π/2 far before and after; straight above, where every heading is as good,
 * ±π/2 by the side that the eye comes from. `held` keeps it within the cone.
 */
export function headingAt(p: Passing, time: number, held: boolean): number {
  const half = heldFor(p);
  const at = held && Math.abs(time) < half ? -half : time;
  return Math.atan2(p.speed * at, p.offset);
}

/** The rate of turn at a time, radians a second: v·d/(d² + v²t²), the derivative of the heading. Infinite at the snap. */
export function turnRateAt(p: Passing, time: number, held: boolean): number {
  if (held && Math.abs(time) < heldFor(p)) return 0;
  const [d, along] = [p.offset, p.speed * time];
  if (d === 0) return along === 0 ? Infinity : 0;
  return (p.speed * d) / (d * d + along * along);
}

/** What a passage comes to, as a whole. */
export function passed(p: Passing): Passed {
  const { offset, speed } = p;
  const half = heldFor(p);
  const cone = coneAt(p);
  const peak = offset > 0 ? speed / offset : null;
  return {
    peak,
    snap: offset > 0 ? 0 : Math.PI,
    heldFor: half,
    jump: half > 0 ? headingAt(p, half, false) - headingAt(p, -half, false) : 0,
    // At the cone's edge the level distance is the cone's half width.
    heldPeak: half > 0 ? (offset > 0 ? (speed / cone) * (offset / cone) : 0) : peak,
  };
}
