/**
 * How quickly something that follows closes in: after each half-life, half of what was left is
 * left. The rate k of y′ = k·(x − y); infinite for a half-life of 0, which means at once.
 */
export const rateOf = (halfLife: number): number => (halfLife > 0 ? Math.LN2 / halfLife : Infinity);

/**
 * Where y is after `dt` seconds of y′ = k·(x − y), with x moving evenly from `from` to `to`
 * meanwhile. The equation is solved, not stepped, so that two steps are one of twice the length
 * whatever the frame rate (`docs/derivations.md`, "Smoothing").
 *
 * @param rate k, per second, from `rateOf`
 */
export function followEvenly(y: number, from: number, to: number, rate: number, dt: number): number {
  if (!(dt > 0)) return y;
  if (rate === Infinity) return to;
  if (rate === 0) return y;
  // y = x − v/k + c·e^(−kt), with v the speed of x; (1 − e^(−kt))/kt is taken by expm1, which keeps
  // its digits for short steps.
  const decay = Math.exp(-rate * dt);
  const share = -Math.expm1(-rate * dt) / (rate * dt);
  return to - (to - from) * share + (y - from) * decay;
}

/**
 * The same with a dead zone: y rests while x is within `reach` of it and otherwise follows the
 * zone's edge, y′ = k·(x − y ∓ reach). The moments at which x comes back into the zone and leaves
 * it on the other side are solved for within the step, so this too does not depend on the frame
 * rate.
 */
export function followOutside(y: number, from: number, to: number, reach: number, rate: number, dt: number): number {
  if (!(dt > 0)) return y;
  const speed = (to - from) / dt;
  const heading = Math.sign(speed);
  let off = from - y;
  let left = dt;
  if (Math.abs(off) > reach) {
    const side = Math.sign(off);
    const edge = side * reach;
    // The distance d = off − edge obeys d′ = speed − k·d; drawn back, it comes to 0 when e^(kt) = 1
    // − d·k/speed.
    const meet =
      heading * side >= 0 || rate === 0
        ? Infinity
        : rate === Infinity
          ? 0
          : Math.log1p((-(off - edge) * rate) / speed) / rate;
    if (!(meet < dt)) return followEvenly(y, from - edge, to - edge, rate, dt);
    y = from + speed * meet - edge;
    off = edge;
    left -= meet;
  }
  // In the zone: at rest until x comes to the edge that it goes towards, if it does.
  const until = heading === 0 ? Infinity : (reach - heading * off) / Math.abs(speed);
  if (!(until < left)) return y;
  return followEvenly(y, y, to - heading * reach, rate, left - until);
}

/** A place and its speed. */
export interface Gliding {
  readonly place: number;
  readonly speed: number;
}

/**
 * A place whose speed closes in on a wanted one, v′ = k·(wanted − v), after `dt` seconds: both
 * solved, not stepped.
 */
export function glide({ place, speed }: Gliding, wanted: number, rate: number, dt: number): Gliding {
  if (!(dt > 0)) return { place, speed };
  if (rate === Infinity) return { place: place + wanted * dt, speed: wanted };
  const share = rate === 0 ? 1 : -Math.expm1(-rate * dt) / (rate * dt);
  return {
    place: place + wanted * dt + (speed - wanted) * share * dt,
    speed: wanted + (speed - wanted) * Math.exp(-rate * dt),
  };
}
