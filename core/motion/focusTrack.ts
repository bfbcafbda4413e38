import type { CameraFrame } from '../camera/frame';
import { pictureToViewRuf, viewRufToWorld } from '../convert/project';
import type { Vec2 } from '../math/vec3';
import { boundFocus, type Reach } from './follow';
import { followed } from './track';
import type { TrackOf } from './trackSchema';

/* Tracks of 2D cameras: the focus at a time, in canonical space (right, up). */

export type FlatTrack = TrackOf<'scroll' | 'follow'>;

/** A 2D camera at the beginning of a track. */
export interface FlatStart {
  readonly focus: Vec2;
  /**
   * Returns the camera's frame without snapping, which would move the bounds; null where its numbers make no camera.
   * Asked only where the track has bounds.
   */
  readonly unsnapped: () => CameraFrame | null;
}

/** Returns the extent of a 2D camera's viewport about its focus, along the world's axes. */
function reachOf({ focus, unsnapped }: FlatStart): Reach {
  const frame = unsnapped();
  if (!frame) return { below: [0, 0], above: [0, 0] };
  const corners = [-1, 1].flatMap((x) => [-1, 1].map((y) => viewRufToWorld(frame, pictureToViewRuf(frame, x, y, 0))));
  const along = (i: 0 | 1) => corners.map((p) => p[i]);
  return {
    below: [focus[0] - Math.min(...along(0)), focus[1] - Math.min(...along(1))],
    above: [Math.max(...along(0)) - focus[0], Math.max(...along(1)) - focus[1]],
  };
}

/** Moves the focus of a 2D camera, then by the least that keeps its viewport inside the track's bounds. */
export function focusMovedBy(start: FlatStart, track: FlatTrack, by: readonly number[]): Vec2 {
  const moved: Vec2 = [start.focus[0] + by[0]!, start.focus[1] + by[1]!];
  if (track.kind !== 'follow' || !track.bounds) return moved;
  const { min: a, max: b } = track.bounds;
  const bounds = {
    min: [Math.min(a[0], b[0]), Math.min(a[1], b[1])] as const,
    max: [Math.max(a[0], b[0]), Math.max(a[1], b[1])] as const,
  };
  return boundFocus(moved, reachOf(start), bounds);
}

/** Returns the focus of a 2D camera at a time of a track, in seconds, 0 or more. */
export function focusAlong(start: FlatStart, track: FlatTrack, time: number): Vec2 {
  if (track.kind === 'scroll') return focusMovedBy(start, track, [track.velocity[0] * time, track.velocity[1] * time]);
  return focusMovedBy(start, track, followed(track.target, track, time));
}
