import { reposed, type CameraFrame } from '../camera/frame';
import { anglesOfBasis, basisOfAngles } from '../camera/orientation';
import { add, addScaled, distance, type Vec2, type Vec3 } from '../math/vec3';
import { randomFrom } from '../math/random';
import { cameraAt, type CameraMotion } from './cameraMotion';
import { onCourse, type Course } from './course';
import type { FollowTerms } from './follow';
import { rateOf } from './smoothing';
import type { TrackOf } from './trackSchema';
import { defaultPitchLimit } from './walk';

/*
 * What becomes of a motion that is stepped by the frame, as it is customarily written, beside the
 * closed form: so that the two can be laid over one another at several rates.
 */

/** The rate for which the constants of frame-bound code were tuned. */
export const tunedFor = 60;

/**
 * How a motion is advanced from frame to frame.
 * `right`: by the time. `factor`: what is left shrinks by one factor each frame. `noStep`: a frame
 * always counts as a sixtieth of a second. `euler`: rates times the frame's length, added up.
 */
export type Manner = 'right' | 'factor' | 'noStep' | 'euler';

/** The manners in which a motion can be stepped and come out otherwise than right. */
export function mannersOf(kind: string | null): readonly Manner[] {
  switch (kind) {
    case 'follow':
      return ['right', 'factor', 'euler'];
    case 'walk':
    case 'orbit':
      return ['right', 'noStep', 'euler'];
    default:
      return ['right', 'noStep'];
  }
}

/**
 * The moments of frames from 0 up to `span` seconds: evenly so many a second, or `uneven`, each
 * frame between a hundred and forty-fourth and a twentieth of a second long, from the seed.
 */
export function frameTimes(rate: number | 'uneven', span: number, seed = 1): readonly number[] {
  if (rate !== 'uneven') return Array.from({ length: Math.floor(span * rate + 1e-9) + 1 }, (_, i) => i / rate);
  const random = randomFrom(seed);
  const times = [0];
  for (;;) {
    const next = times.at(-1)! + 1 / 144 + random() * (1 / 20 - 1 / 144);
    if (next > span) return times;
    times.push(next);
  }
}

/**
 * How far the place that is held has come from its beginning at each of some frames, stepped by the
 * frame: `factor` makes up one share of what is left each frame, the one that is right at 60 frames a
 * second; `euler` the share rate × length of the frame, at most all of it.
 */
export function heldInSteps<Point extends Vec2 | Vec3>(
  course: Course<Point>,
  { halfLife, deadZone }: FollowTerms,
  times: readonly number[],
  manner: 'factor' | 'euler',
): readonly Point[] {
  const rate = rateOf(halfLife);
  const first = course[0]![1];
  let held: readonly number[] = first;
  return times.map((time, i) => {
    const target = onCourse(course, time);
    const step = i === 0 ? 0 : time - times[i - 1]!;
    const share = i === 0 ? 0 : manner === 'factor' ? -Math.expm1(-rate / tunedFor) : Math.min(1, rate * step);
    held = held.map((y, k) => {
      const off = target[k]! - y;
      const zone = deadZone?.[k] ?? 0;
      const past = Math.abs(off) > zone ? off - Math.sign(off) * zone : 0;
      return past === 0 ? y : y + past * share;
    });
    return held.map((v, k) => v - first[k]!) as unknown as Point;
  });
}

/** A walk whose ways are added up straight, along the heading at the beginning of each frame. */
function walkedInSteps(
  frame: CameraFrame,
  inputs: TrackOf<'walk'>['inputs'],
  limit = defaultPitchLimit,
  times: readonly number[],
) {
  const { roll, ...gaze } = anglesOfBasis(frame);
  let { yaw, pitch } = gaze;
  let eye = frame.eye;
  return times.map((time, i) => {
    const before = times[i - 1] ?? 0;
    const step = time - before;
    for (const { from, to, right, up, ahead, yawRate, pitchRate } of inputs) {
      if (!(from <= before && to > before)) continue;
      const [s, c] = [Math.sin(yaw), Math.cos(yaw)];
      eye = add(eye, [(right * c + ahead * s) * step, up * step, (right * s - ahead * c) * step]);
      yaw += yawRate * step;
      pitch = Math.min(limit, Math.max(-limit, pitch + pitchRate * step));
    }
    return reposed(frame, { eye, basis: basisOfAngles({ yaw, pitch, roll }) });
  });
}

/**
 * The camera of each frame when its motion is stepped in a manner; null where it leaves the doubles
 * or its track leads nowhere. Times rise from 0. In canonical space; angles radians.
 */
export function steppedCameras(
  frame: CameraFrame,
  motion: CameraMotion,
  manner: Manner,
  times: readonly number[],
): readonly (CameraFrame | null)[] {
  const { travel, shake } = motion;
  const shaken = (moved: CameraFrame | null, time: number): CameraFrame | null => {
    const made = moved && cameraAt(moved, { travel: null, shake }, time);
    return made?.ok ? made.value : null;
  };
  if (travel?.kind === 'follow' && (manner === 'factor' || manner === 'euler')) {
    const held = heldInSteps(travel.target, travel, times, manner);
    return times.map((time, i) => shaken(reposed(frame, { eye: add(frame.eye, held[i]!) }), time));
  }
  if (travel?.kind === 'walk' && manner === 'euler')
    return walkedInSteps(frame, travel.inputs, travel.pitchLimit, times).map((one, i) => shaken(one, times[i]!));
  if (travel?.kind === 'orbit' && manner === 'euler') {
    const away = distance(frame.eye, travel.centre);
    let far = away;
    return times.map((time, i) => {
      far += i === 0 ? 0 : far * travel.distanceRate * (time - times[i - 1]!);
      const made = cameraAt(frame, { travel: { ...travel, distanceRate: 0 }, shake: null }, time);
      if (!made.ok) return null;
      // Along its own gaze, to the distance that the steps have come to.
      return shaken(reposed(made.value, { eye: addScaled(travel.centre, made.value.forward, -far) }), time);
    });
  }
  return times.map((time, i) => {
    const made = cameraAt(frame, motion, manner === 'noStep' ? i / tunedFor : time);
    return made.ok ? made.value : null;
  });
}
