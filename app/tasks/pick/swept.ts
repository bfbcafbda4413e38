import { checksum } from '../../state/checksum';
import type { Moment } from '../../state/moment';
import type { LookedAt, Sweep } from './job';
import type { PickState } from './state';

/** Which picture a sweep is of: the same number on any thread, another for another picture. */
export function sweptMark({ frame, poses, slice }: Moment<PickState>): number {
  const { width, height } = frame.viewport;
  return checksum(frame.view, frame.projection, [width, height, slice.backFaces ? 1 : 0], poses.values);
}

/** The finest sweep of the picture as it is now; one that is older while there is none. */
export function sweepNow(now: Moment<PickState>): { readonly sweep: Sweep; readonly fresh: boolean } | null {
  const mark = sweptMark(now);
  const [whole, coarse] = [now.answer<Sweep>('whole'), now.answer<Sweep>('coarse')];
  const fresh = whole?.mark === mark ? whole : coarse?.mark === mark ? coarse : null;
  if (fresh) return { sweep: fresh, fresh: true };
  const last = whole ?? coarse;
  return last ? { sweep: last, fresh: false } : null;
}

/** What rays look at, of the picture as it is now. */
export function lookedAtNow(now: Moment<PickState>): LookedAt | null {
  const found = now.answer<LookedAt>('boxes');
  return found?.mark === sweptMark(now) ? found : null;
}
