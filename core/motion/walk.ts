import { radians } from '../math/angle';
import type { Vec3 } from '../math/vec3';

/** A first-person camera: where its eye is, and its gaze, in radians. */
export interface Walker {
  readonly eye: Vec3;
  readonly yaw: number;
  readonly pitch: number;
}

export interface Steering {
  /**
   * World units a second to the walker's right, upward, and ahead on the level: looking down does
   * not slow a walk.
   */
  readonly right: number;
  readonly up: number;
  readonly ahead: number;
  /** Radians a second to the right and upward: what a stick or a key held gives. */
  readonly yawRate: number;
  readonly pitchRate: number;
}

/**
 * How far up and down a walker may look, so that it never turns over: a hair less than straight.
 */
export const defaultPitchLimit = radians(89);

/** sin(a)/a, without loss near 0. */
const sinc = (a: number) => (Math.abs(a) < 1e-4 ? 1 - (a * a) / 6 : Math.sin(a) / a);

/**
 * A walker after `dt` seconds of even steering. While it turns its way is an arc, and the arc is
 * what it is moved along: the chord of an arc of angle a over a way s is s·sinc(a/2) long and
 * points along the middle heading. So steps of any length end at the same place.
 */
export function walk(state: Walker, steering: Steering, dt: number, pitchLimit = defaultPitchLimit): Walker {
  const turned = steering.yawRate * dt;
  const middle = state.yaw + turned / 2;
  const chord = sinc(turned / 2) * dt;
  const [s, c] = [Math.sin(middle), Math.cos(middle)];
  const { right, ahead, up } = steering;
  return {
    eye: [
      state.eye[0] + (right * c + ahead * s) * chord,
      state.eye[1] + up * dt,
      state.eye[2] + (right * s - ahead * c) * chord,
    ],
    ...look({ yaw: state.yaw, pitch: state.pitch }, turned, steering.pitchRate * dt, pitchLimit),
  };
}

/**
 * A gaze turned by a mouse: the counts it moved times a sensitivity are angles already, and are not
 * multiplied by the length of the frame. Pitch stops at the limit.
 */
export function look(
  { yaw, pitch }: Pick<Walker, 'yaw' | 'pitch'>,
  right: number,
  up: number,
  pitchLimit = defaultPitchLimit,
): Pick<Walker, 'yaw' | 'pitch'> {
  return { yaw: yaw + right, pitch: Math.min(pitchLimit, Math.max(-pitchLimit, pitch + up)) };
}
