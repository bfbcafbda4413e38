import { frameOf } from '../camera/frame';
import { pictureToViewRuf, viewRufToWorld } from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import {
  defaultPitchLimits,
  followedFocus,
  frameAlong,
  reachOf,
  timesProblem,
  tooFar,
  type Track,
} from '../motion/track';
import type { Course } from '../motion/course';
import type { Tracked } from '../motion/noTrack';
import { defaultPitchLimit } from '../motion/walk';
import { writeCamera } from './write';
import { type ResolvedRequest } from './read';
import { readCamera2d, writePair } from './readValues';
import type { RequestCamera2d, RequestTrack } from './schema';

/* The tracks of a request: read, checked, and the request seen by the camera at a time along one. */

/** The times that a track names, and those of them that have to rise. */
function timesIn(track: RequestTrack): { times: readonly number[]; rising: readonly number[] | null } {
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

/** A track of a request in canonical space. */
function readTrack(given: RequestTrack, e: ResolvedRequest['codec']): Track {
  const triple = (p: readonly number[]): Vec3 => e.fromWorld([p[0]!, p[1]!, p[2]!]);
  switch (given.kind) {
    case 'scroll':
      return { kind: 'scroll', velocity: triple(given.velocity) };
    case 'follow':
      return {
        ...{ kind: 'follow', halfLife: given.halfLife, deadZone: given.deadZone ?? [0, 0, 0] },
        target: given.target.map(([t, p]) => [t, triple(p)] as const),
      };
    case 'orbit': {
      const { yaw, pitch } = e.fromAngles({ yaw: given.yawRate, pitch: given.pitchRate, roll: 0 });
      const limits = given.pitchLimits?.map((pitch) => e.fromAngles({ yaw: 0, pitch, roll: 0 }).pitch);
      return {
        ...{ kind: 'orbit', centre: e.fromWorld(given.centre), distanceRate: given.distanceRate },
        ...{ yawRate: yaw, pitchRate: pitch },
        // Where pitch counts downward the lower limit is the higher number.
        pitchLimits: limits ? [Math.min(limits[0]!, limits[1]!), Math.max(limits[0]!, limits[1]!)] : defaultPitchLimits,
      };
    }
    case 'path':
      return {
        kind: 'path',
        keys: given.keys.map(({ time, position, yaw, pitch, roll, verticalFov, ease }) => ({
          ...{ time, ease, eye: e.fromWorld(position), angles: e.fromAngles({ yaw, pitch, roll }) },
          verticalFov: e.fromAngle(verticalFov),
        })),
      };
    case 'walk':
      return {
        kind: 'walk',
        inputs: given.inputs.map(({ from, to, right, up, ahead, yawRate, pitchRate }) => {
          const rates = e.fromAngles({ yaw: yawRate, pitch: pitchRate, roll: 0 });
          return { from, to, right, up, ahead, turn: rates.yaw, lift: rates.pitch };
        }),
        pitchLimit: given.pitchLimit === undefined ? defaultPitchLimit : e.fromAngle(given.pitchLimit),
      };
    case 'dollyZoom':
      return { ...given, target: e.fromWorld(given.target) };
    case 'shake': {
      const { strength, seed, frequency, decay, offset } = given;
      return { kind: 'shake', strength, terms: { seed, frequency, decay, offset, angles: e.fromAngles(given.angles) } };
    }
  }
}

type FlatTrack = Extract<RequestTrack, { kind: 'scroll' | 'follow' }>;

/** A flat camera at a time along a track. */
function flatAlong(resolved: ResolvedRequest, track: FlatTrack, time: number): RequestCamera2d {
  const given = resolved.camera as RequestCamera2d;
  const moved = (focus: Vec2): RequestCamera2d => ({ ...given, focus: [focus[0], focus[1]] });
  if (track.kind === 'scroll') {
    const [a, b] = track.velocity as readonly [number, number];
    return moved([given.focus[0] + a * time, given.focus[1] + b * time]);
  }
  const terms = { halfLife: track.halfLife, deadZone: track.deadZone ?? [0, 0] };
  const bounds = track.bounds ?? null;
  let reach = { below: [0, 0], above: [0, 0] };
  if (bounds) {
    // Of the picture before it is snapped, so that snapping does not push it about.
    const { codec, frame } = resolved;
    const read = readCamera2d({ ...given, snap: 'none' }, frame.viewport, codec);
    const plain = read.ok ? frameOf(read.value, frame.viewport) : read;
    if (plain.ok) {
      const corners = [-1, 1].flatMap((x) => [-1, 1].map((y): Vec2 => writePair(viewRufToWorld(plain.value, pictureToViewRuf(plain.value, x, y, 0)), codec))); // prettier-ignore
      reach = reachOf(given.focus, corners) as typeof reach;
    }
  }
  return moved(followedFocus(given.focus, track.target as unknown as Course<Vec2>, terms, bounds, reach, time));
}

/**
 * A request as its camera sees it at a time along a track: everything but the camera stays. Errors
 * are those of the track (`frameAlong`, `timesProblem`); in 2D all but scroll and follow are
 * `notIn2d`.
 */
export function resolvedAlong(resolved: ResolvedRequest, track: RequestTrack, time: number): Tracked<ResolvedRequest> {
  const { times, rising } = timesIn(track);
  const wrong = timesProblem([time, ...times], rising);
  const { codec, flat, frame } = resolved;
  if (flat && track.kind !== 'scroll' && track.kind !== 'follow')
    return { ok: false, code: 'notIn2d', message: `A 2D camera has no ${track.kind}. It can scroll and follow.` };
  if (wrong) return { ok: false, ...wrong };
  if (flat) {
    const camera = flatAlong(resolved, track as FlatTrack, time);
    const read = readCamera2d(camera, frame.viewport, codec);
    const made = read.ok ? frameOf(read.value, frame.viewport) : read;
    return made.ok ? { ok: true, value: { ...resolved, camera, frame: made.value } } : tooFar(time);
  }
  const moved = frameAlong(frame, readTrack(track, codec), time);
  return moved.ok
    ? { ok: true, value: { ...resolved, frame: moved.value, camera: writeCamera(moved.value, codec) } }
    : moved;
}
