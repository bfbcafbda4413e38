import type { CameraFrame } from '../camera/frame';
import { focusAlong, type FlatTrack } from '../motion/focusTrack';
import { noTrack, type Tracked } from '../motion/noTrack';
import { frameAlong, timesProblem, tooFar } from '../motion/track';
import { flatTracks, type Track } from '../motion/trackSchema';
import { readValue, writeValue } from '../quantities/convert';
import { camera2dSchema, type RequestCamera2d } from './cameraSchema';
import { readFrame2d } from './readCamera';
import type { Setup } from './setup';
import { writeCamera } from './write';

/** Moves a 2D camera along a track. */
function camera2dAlong({ camera, codec, context, frame }: Setup, track: FlatTrack, time: number): RequestCamera2d {
  const given = camera as RequestCamera2d;
  const unsnapped = (): CameraFrame | null => {
    const made = readFrame2d({ ...given, snap: 'none' }, codec, frame.viewport);
    return made.ok ? made.value : null;
  };
  const { focus } = readValue(camera2dSchema, given, context);
  const moved = focusAlong({ focus, unsnapped }, track, time);
  return { ...given, focus: writeValue(camera2dSchema.shape.focus, moved, context) };
}

/**
 * Moves the camera of a setup along a track; everything else stays.
 *
 * @param time - seconds, 0 or more
 * @returns the setup at that time, or the error of the track (`frameAlong`, `timesProblem`); `notIn2d` for a track
 *   that a 2D camera does not have
 */
export function setupAlong(setup: Setup, track: Track, time: number): Tracked<Setup> {
  const { codec, world, frame } = setup;
  const isFlat = (one: Track): one is FlatTrack => flatTracks.includes(one.kind);
  if (!world.hasDepth && !isFlat(track))
    return noTrack('notIn2d', `A 2D camera has no ${track.kind}. It can scroll and follow.`);
  const wrong = timesProblem(track, time);
  if (wrong) return { ok: false, ...wrong };
  if (!world.hasDepth) {
    const camera = camera2dAlong(setup, track as FlatTrack, time);
    const made = readFrame2d(camera, codec, frame.viewport);
    return made.ok ? { ok: true, value: { ...setup, camera, frame: made.value } } : tooFar(time);
  }
  const moved = frameAlong(frame, track, time);
  return moved.ok
    ? { ok: true, value: { ...setup, frame: moved.value, camera: writeCamera(moved.value, codec) } }
    : moved;
}
