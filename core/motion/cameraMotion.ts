import type { CameraFrame } from '../camera/frame';
import type { Vec3 } from '../math/vec3';
import { blended } from './blend';
import type { Tracked } from './noTrack';
import { eased, type Ease } from './path';
import { frameAlong } from './track';
import type { Track, TrackOf } from './trackSchema';

/** A camera of space that goes over from perspective to orthographic, a subject held at its size. */
export interface Blend {
  readonly kind: 'blend';
  readonly subject: Vec3;
  /** Seconds; it stays orthographic afterwards. */
  readonly duration: number;
  readonly ease: Ease;
}

/** How a camera of space moves: along a track or not, and a shake upon that or not. */
export interface CameraMotion {
  readonly travel: Track | Blend | null;
  readonly shake: TrackOf<'shake'> | null;
}

/**
 * The camera at a time in seconds, from the one at time 0: along its track first (`frameAlong`,
 * `blended`, whose errors are the errors here), then shaken in its own axes. Canonical space.
 */
export function cameraAt(frame: CameraFrame, { travel, shake }: CameraMotion, time: number): Tracked<CameraFrame> {
  const moved: Tracked<CameraFrame> = !travel
    ? { ok: true, value: frame }
    : travel.kind === 'blend'
      ? blended(
          frame,
          travel.subject,
          travel.duration > 0 ? eased(travel.ease, Math.min(1, time / travel.duration)) : 1,
        )
      : frameAlong(frame, travel, time);
  return moved.ok && shake ? frameAlong(moved.value, shake, time) : moved;
}
