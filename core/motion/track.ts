import { reposed, type CameraFrame } from '../camera/frame';
import { anglesOfBasis, basisOfAngles, basisOfLookAt, type Angles } from '../camera/orientation';
import type { Extents } from '../camera/projection';
import { worldToViewRuf } from '../convert/project';
import { add, addScaled, type Vec2, type Vec3 } from '../math/vec3';
import { noTrack, type NoTrack, type Tracked } from './noTrack';
import { follower, type Course } from './course';
import type { FollowTerms } from './follow';
import { orbit, orbitAbout, orbitCamera } from './orbit';
import { alongPath, eased } from './path';
import { shake, shakeOffset } from './shake';
import type { Track } from './trackSchema';
import { defaultPitchLimit, walk, type Steering } from './walk';

/*
 * Cameras over time, each a pure function of the time in seconds, 0 or more, and of the camera that
 * stands at its beginning: there is no frame rate and no state. (`docs/derivations.md`, "Motion".)
 */

/** A camera that has gone beyond what can be computed with. */
export const tooFar = (time: number): { ok: false } & NoTrack =>
  noTrack('outOfRange', `At ${time} s the camera is farther away than doubles can work with. Ask for less time.`);

/** How far up and down an orbit may look by itself. */
export const defaultPitchLimits: readonly [number, number] = [-defaultPitchLimit, defaultPitchLimit];

/** Returns the times that a track names, and those of them that have to rise. */
function timesOf(track: Track): { times: readonly number[]; rising: readonly number[] | null } {
  switch (track.kind) {
    case 'follow':
      return { times: [], rising: track.target.map(([t]) => t) };
    case 'path':
      return { times: [], rising: track.keys.map(({ time }) => time) };
    case 'walk':
      return { times: track.inputs.flatMap(({ from, to }) => [from, to]), rising: null };
    case 'dollyZoom':
      return { times: [track.duration], rising: null };
    default:
      return { times: [], rising: null };
  }
}

/**
 * Checks the times of a track and the time it is asked for: `timeNegative` for one below 0, `keysOutOfOrder` for keys
 * or points of a target that do not rise strictly, `noKeys` for none of them.
 */
export function timesProblem(track: Track, time: number): NoTrack | null {
  const { times, rising } = timesOf(track);
  const negative = [time, ...times, ...(rising ?? [])].find((t) => t < 0);
  if (negative !== undefined)
    return { code: 'timeNegative', message: `The time ${negative} lies before the track begins, at 0.` };
  if (!rising) return null;
  if (!rising.length) return { code: 'noKeys', message: 'The track has no points to go by. Give at least one.' };
  const at = rising.findIndex((t, i) => i > 0 && !(t > rising[i - 1]!));
  return at < 0
    ? null
    : {
        code: 'keysOutOfOrder',
        message: `The time ${rising[at]} comes after ${rising[at - 1]}; times rise from one to the next.`,
      };
}

/** Followers by their course and terms: a camera is asked where it is time and again. */
const followers = new WeakMap<object, { readonly terms: FollowTerms; readonly at: (time: number) => Vec2 | Vec3 }>();

/**
 * How far the place that is held has come from its beginning, the target's first point, at a time:
 * solved from one bend of the target's course to the next.
 */
export function followed<Point extends Vec2 | Vec3>(course: Course<Point>, terms: FollowTerms, time: number): Point {
  let known = followers.get(course);
  if (!known || known.terms.halfLife !== terms.halfLife || String(known.terms.deadZone) !== String(terms.deadZone)) {
    known = { terms, at: follower(course, terms) };
    followers.set(course, known);
  }
  return known.at(time) as Point;
}

const scaled = (e: Extents, k: number): Extents => ({ left: e.left * k, right: e.right * k, bottom: e.bottom * k, top: e.top * k }); // prettier-ignore

/**
 * The camera at a time, from the one at time 0. Errors: `lookAtDegenerate` for an orbit whose
 * centre lies straight above, below or at the eye; `distanceNotPositive` for a dolly whose distances
 * or whose target are not ahead; `fovOutOfRange` for a key; `outOfRange` where the camera gets too
 * far away for doubles.
 */
export function frameAlong(frame: CameraFrame, track: Track, time: number): Tracked<CameraFrame> {
  const made = poseAlong(frame, track, time);
  if (!made.ok) return made;
  const moved = reposed(frame, made.value);
  return moved ? { ok: true, value: moved } : tooFar(time);
}

type Pose = Parameters<typeof reposed>[1];

function poseAlong(frame: CameraFrame, track: Track, time: number): Tracked<Pose> {
  const perspective = frame.kind === 'perspective';
  switch (track.kind) {
    case 'scroll':
      return { ok: true, value: { eye: addScaled(frame.eye, track.velocity, time) } };
    case 'follow':
      return { ok: true, value: { eye: add(frame.eye, followed(track.target, track, time)) } };
    case 'orbit': {
      const { centre, yawRate, pitchRate, pitchLimits = defaultPitchLimits, distanceRate } = track;
      const begun = basisOfLookAt(frame.eye, centre) && orbitAbout(centre, frame.eye);
      if (!begun)
        return noTrack(
          'lookAtDegenerate',
          'The centre lies straight above, below or at the eye. Move one of them aside.',
        );
      const rates = { yaw: yawRate, pitch: pitchRate, zoom: distanceRate };
      const { eye, angles } = orbitCamera(centre, orbit(begun, rates, { pitch: pitchLimits, distance: [0, Infinity] }, time)); // prettier-ignore
      return { ok: true, value: { eye, basis: basisOfAngles(angles) } };
    }
    case 'path': {
      for (const { verticalFov } of track.keys)
        if (!(verticalFov > 0 && verticalFov < Math.PI))
          return noTrack('fovOutOfRange', 'The field of view of a key must lie between 0° and 180°.');
      const place = alongPath(track.keys, time);
      if (!place) return noTrack('noKeys', 'The track has no points to go by. Give at least one.');
      const { eye, basis, verticalFov } = place;
      const { extents: e, near } = frame;
      const k = (2 * near * Math.tan(verticalFov / 2)) / Math.abs(e.top - e.bottom);
      return { ok: true, value: { eye, basis, ...(perspective && { extents: scaled(e, k) }) } };
    }
    case 'walk': {
      const { roll, ...gaze } = anglesOfBasis(frame);
      const pitchLimit = track.pitchLimit ?? defaultPitchLimit;
      let walker = walk({ eye: frame.eye, ...gaze }, still, 0, pitchLimit);
      const bends = track.inputs.flatMap(({ from, to }) => [from, to]).filter((t) => t > 0 && t < time);
      let before = 0;
      for (const t of [...new Set([...bends, time])].sort((a, b) => a - b)) {
        const steering = track.inputs.filter(({ from, to }) => from <= before && to > before).reduce(together, still);
        walker = walk(walker, steering, t - before, pitchLimit);
        before = t;
      }
      const { eye, yaw, pitch } = walker;
      return { ok: true, value: { eye, basis: basisOfAngles({ yaw, pitch, roll }) } };
    }
    case 'dollyZoom': {
      const { target, distance: [first, last], duration, ease } = track; // prettier-ignore
      const ahead = worldToViewRuf(frame, target)[2];
      if (!(ahead > 0)) return noTrack('distanceNotPositive', 'The target is not ahead of the camera. Turn it there.');
      if (!(first > 0 && last > 0))
        return noTrack('distanceNotPositive', `The distances ${first} and ${last} must both be above 0.`);
      const share = time >= duration ? 1 : eased(ease, time / duration);
      const distance = first + (last - first) * share;
      const eye = addScaled(frame.eye, frame.forward, ahead - distance);
      // The height at the target is as it was: the extents at near shrink as it comes nearer.
      return { ok: true, value: { eye, ...(perspective && { extents: scaled(frame.extents, ahead / distance) }) } };
    }
    case 'shake': {
      const { angles, offset } = shakeOffset(shake({ strength: track.strength, time: 0 }, 0, track, time), track);
      const own = anglesOfBasis(frame);
      const turned: Angles = { yaw: own.yaw + angles.yaw, pitch: own.pitch + angles.pitch, roll: own.roll + angles.roll }; // prettier-ignore
      const eye = addScaled(addScaled(frame.eye, frame.right, offset[0]), frame.up, offset[1]);
      return { ok: true, value: { eye, basis: basisOfAngles(turned) } };
    }
  }
}

const still: Steering = { right: 0, up: 0, ahead: 0, yawRate: 0, pitchRate: 0 };
const together = (a: Steering, b: Steering): Steering => ({
  ...{ right: a.right + b.right, up: a.up + b.up, ahead: a.ahead + b.ahead },
  ...{ yawRate: a.yawRate + b.yawRate, pitchRate: a.pitchRate + b.pitchRate },
});
