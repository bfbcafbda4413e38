import type { Angles } from '../camera/orientation';
import type { Vec3 } from '../math/vec3';

/**
 * A smooth random function of time in −1…1, continuous with its slope and curvature, the same from
 * one seed on every machine.
 */
export function smoothNoise(seed: number, t: number): number {
  const cell = Math.floor(t);
  const f = t - cell;
  const blend = f * f * f * (f * (f * 6 - 15) + 10);
  const [a, b] = [slopeAt(seed, cell) * f, slopeAt(seed, cell + 1) * (f - 1)];
  // Two slopes of at most 1 that meet half way are at most a half there.
  return 2 * (a + (b - a) * blend);
}

/**
 * A slope in −1…1 for a whole number of seconds, hashed by whole-number arithmetic alone (the
 * finaliser of splitmix32).
 */
function slopeAt(seed: number, cell: number): number {
  let z = (Math.imul(cell | 0, 0x9e3779b9) ^ Math.imul(seed | 0, 0x85ebca6b)) | 0;
  z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
  z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
  return ((z ^ (z >>> 16)) >>> 0) / 2147483648 - 1;
}

/** How hard a shake is now, 0…1, and how long it has been running. */
export interface Shake {
  readonly strength: number;
  readonly time: number;
}

export interface ShakeTerms {
  readonly seed: number;
  /** Swings a second, roughly. */
  readonly frequency: number;
  /** How much strength is lost each second. */
  readonly decay: number;
  /**
   * The most that a full shake turns (radians) and moves (world units, along the camera's right and
   * up).
   */
  readonly angles: Angles;
  readonly offset: readonly [number, number];
}

/**
 * A shake after `dt` seconds, with the strength of blows struck at its beginning added. Exact: it
 * falls evenly and stops at 0.
 */
export function shake(state: Shake, blows: number, { decay }: ShakeTerms, dt: number): Shake {
  const strength = Math.min(1, state.strength + blows);
  return { strength: Math.max(0, strength - decay * dt), time: state.time + dt };
}

/**
 * What a shake adds to a camera: angles, and an offset along its right and up (the third is 0). It
 * grows with the square of the strength, so that it dies away softly. Add it to what the picture is
 * drawn with, and pick through that frame too: a ray from the unshaken camera misses.
 */
export function shakeOffset({ strength, time }: Shake, terms: ShakeTerms): { angles: Angles; offset: Vec3 } {
  const size = strength * strength;
  const swing = (channel: number) => size * smoothNoise(terms.seed * 7 + channel, time * terms.frequency);
  return {
    angles: {
      yaw: terms.angles.yaw * swing(0),
      pitch: terms.angles.pitch * swing(1),
      roll: terms.angles.roll * swing(2),
    },
    offset: [terms.offset[0] * swing(3), terms.offset[1] * swing(4), 0],
  };
}
