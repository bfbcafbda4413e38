import { stalenessOf, type FrameStage } from '../../../core/motion/stages';
import { journeyAt } from '../../state/journey';
import type { Moment, Moved } from '../../state/moment';
import { journeyOf, trackOf } from './journey';
import type { CameraTrack, MotionState } from './kept';

export { slice } from './state';

/** The stage of a frame that a camera's track depends on; null for a track that depends on none. */
export const sourceOf = ({ travel }: CameraTrack): 'input' | 'bodies' | null =>
  travel.kind === 'walk' ? 'input' : travel.kind === 'follow' ? 'bodies' : null;

/** Stages of other tasks that may run before the camera has moved. */
const fed: readonly FrameStage[] = ['followers', 'billboards', 'spawns', 'picking'];

/** The camera at a time, and the camera that stages see which run before it moves; null where it has no track. */
export function moves(now: Moment<MotionState>): Moved | null {
  const journey = journeyOf(now);
  const track = trackOf(now);
  if (!journey || !track) return null;
  const at = (time: number) => journeyAt(journey, Math.max(0, time));
  const made = at(now.time);
  if (!made.ok) return null;
  const { order, framesPerSecond } = now.slice;
  const late = stalenessOf(order, sourceOf(track)).filter(({ stage, camera }) => camera > 0 && fed.includes(stage));
  const stale = Object.fromEntries(
    late.flatMap(({ stage, camera }) => {
      const then = at(now.time - camera / framesPerSecond);
      return then.ok ? [[stage, then.value]] : [];
    }),
  );
  // At time 0 the camera is the project's own to the last bit, wherever the track begins, so that the numbers
  // typed in Frame are the ones in force.
  return { journey, stale, ...(now.time !== 0 && { frame: made.value }) };
}
