import type { Angles } from '../camera/orientation';
import { basisOfAngles } from '../camera/orientation';
import { addScaled, distance, sub, type Vec3 } from '../math/vec3';

/**
 * A camera that goes round a target and looks at it: the angles of its gaze, in radians, and its
 * distance, above 0.
 */
export interface Orbit {
  readonly yaw: number;
  readonly pitch: number;
  readonly distance: number;
}

/**
 * How an orbit is driven: radians a second, and the share by which the distance grows each second
 * (e-fold; negative draws near).
 */
export interface OrbitRates {
  readonly yaw: number;
  readonly pitch: number;
  readonly zoom: number;
}

export interface OrbitLimits {
  /** The lowest and the highest pitch, radians. */
  readonly pitch: readonly [number, number];
  readonly distance: readonly [number, number];
}

const within = (v: number, [low, high]: readonly [number, number]) => Math.min(high, Math.max(low, v));

/** An orbit after `dt` seconds at even rates. Exact: steps of any length end at the same place. */
export function orbit(state: Orbit, rates: OrbitRates, limits: OrbitLimits, dt: number): Orbit {
  return {
    yaw: state.yaw + rates.yaw * dt,
    pitch: within(state.pitch + rates.pitch * dt, limits.pitch),
    distance: within(state.distance * Math.exp(rates.zoom * dt), limits.distance),
  };
}

/** The eye and the angles of an orbiting camera. Its inverse is `orbitAbout`. */
export function orbitCamera(target: Vec3, { yaw, pitch, distance }: Orbit): { eye: Vec3; angles: Angles } {
  const angles = { yaw, pitch, roll: 0 };
  return { eye: addScaled(target, basisOfAngles(angles).forward, -distance), angles };
}

/**
 * The orbit of an eye about a target; null when it stands in the target. Straight above or below,
 * yaw is 0.
 */
export function orbitAbout(target: Vec3, eye: Vec3): Orbit | null {
  const away = distance(target, eye);
  if (away === 0) return null;
  const [x, y, z] = sub(target, eye);
  const level = Math.hypot(x, z);
  return { yaw: level === 0 ? 0 : Math.atan2(x, -z), pitch: Math.atan2(y, level), distance: away };
}
