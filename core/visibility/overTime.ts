import type { PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { visibility } from './visibility';

/*
 * When bodies come into view and leave it, as time goes on.
 */

/** A stretch of time in which something of a body is in the frustum. */
export interface Stay {
  /** Of the list. */
  readonly body: number;
  readonly from: number;
  readonly to: number;
}

/** What is seen at a time: the camera, and where the bodies stand, always in one order. */
export interface Instant {
  readonly frame: CameraFrame;
  readonly placed: readonly PlacedBody[];
}

export interface StayOptions {
  /** Seconds that are looked at, from 0. */
  readonly span: number;
  /** Seconds between two looks: a stay that is shorter may fall between them. */
  readonly step: number;
  readonly flat?: boolean;
  /** Pixels added round the viewport. */
  readonly margin?: number;
  /** Called after every look with the share that is done; others have a turn while it is waited for. */
  readonly onProgress?: (share: number) => Promise<void> | void;
}

/** To how many seconds the ends of a stay are found. */
export const stayCloseness = 1e-6;

/**
 * The stays of bodies in view, by body and then by time. The verdict (exact) is looked at in even
 * steps, and every change between two looks is found by halving to 1e-6 s. A stay that begins before
 * 0 or ends after the span is cut there.
 */
export async function staysInView(at: (time: number) => Instant, options: StayOptions): Promise<Stay[]> {
  const { span, step, flat = false, margin = 0, onProgress } = options;
  const seenAt = (time: number, body: number): boolean => {
    const { frame, placed } = at(time);
    return visibility(frame, [placed[body]!], { method: 'exact', flat, margin })[0]!.verdict !== 'outside';
  };
  const looks = Math.max(1, Math.ceil(span / step));
  const open = new Map<number, number>();
  const stays: Stay[] = [];
  let before: boolean[] = [];
  let last = 0;
  for (let i = 0; i <= looks; i++) {
    const time = Math.min(span, i * step);
    const { frame, placed } = at(time);
    const seen = visibility(frame, placed, { method: 'exact', flat, margin }).map(
      ({ verdict }) => verdict !== 'outside',
    );
    seen.forEach((now, body) => {
      if (i === 0 ? now : now !== before[body]) {
        let change = time;
        if (i > 0) {
          let [no, yes] = [last, time];
          while (yes - no > stayCloseness) {
            const middle = (no + yes) / 2;
            if (seenAt(middle, body) === now) yes = middle;
            else no = middle;
          }
          change = yes;
        }
        if (now) open.set(body, change);
        else {
          stays.push({ body, from: open.get(body)!, to: change });
          open.delete(body);
        }
      }
    });
    before = seen;
    last = time;
    await onProgress?.(i / looks);
  }
  for (const [body, from] of open) stays.push({ body, from, to: span });
  return stays.sort((a, b) => a.body - b.body || a.from - b.from);
}

/**
 * When a test once a frame at a rate notices something that happens at a time: at the next frame,
 * frames being at whole multiples of 1/rate seconds from 0.
 */
export const noticedAt = (time: number, rate: number): number => Math.max(0, Math.ceil(time * rate - 1e-9)) / rate;

/** A stretch of time in which a body is put away, and what of it would have been in view meanwhile. */
export interface Absence {
  readonly body: number;
  readonly from: number;
  /** Null where it is never taken back. */
  readonly to: number | null;
  /** The times within it at which something of the body would be in view. */
  readonly missed: readonly { readonly from: number; readonly to: number }[];
}

/**
 * What a game does that puts bodies away when they have left the view by a margin: it tests once a
 * frame (at whole multiples of 1/rate seconds from 0), puts away what is not kept then, and takes it
 * back at the first test that finds it kept again, or never. What is not kept at time 0 is away from
 * the first test on; where nothing is taken back, only what was there before can be put away.
 * Seconds; by body and then by time. A visit between two tests is not noticed.
 * @param inView the stays in view
 * @param kept   the stays in the view grown by the margin, by body and time
 * @param bodies how many bodies there are
 */
export function absences(
  inView: readonly Stay[],
  kept: readonly Stay[],
  { bodies, rate, span, comesBack }: { readonly bodies: number; readonly rate: number; readonly span: number; readonly comesBack: boolean }, // prettier-ignore
): Absence[] {
  const of = (stays: readonly Stay[]) => {
    const lists = Array.from({ length: bodies }, (): Stay[] => []);
    for (const stay of stays) lists[stay.body]!.push(stay);
    return lists;
  };
  const [seen, held] = [of(inView), of(kept)];
  const found: Absence[] = [];
  for (let body = 0; body < bodies; body++) {
    /** When it is there, by the tests; at the end of what is looked at nothing is noticed any more. */
    const there: { from: number; to: number }[] = [];
    for (const { from, to } of held[body]!) {
      const [begin, end] = [noticedAt(from, rate), to >= span ? span : Math.min(span, noticedAt(to, rate))];
      if (end <= begin) continue;
      // A gap between two tests is not noticed.
      const last = there.at(-1);
      if (last && begin <= last.to) last.to = end;
      else there.push({ from: begin, to: end });
    }
    const away = (from: number, to: number | null): void => {
      const end = to ?? span;
      if (end <= from) return;
      const missed = seen[body]!.flatMap((stay) => {
        const part = { from: Math.max(from, stay.from), to: Math.min(end, stay.to) };
        return part.to > part.from ? [part] : [];
      });
      found.push({ body, from, to, missed });
    };
    let last = comesBack ? 0 : null;
    for (const one of there) {
      if (last !== null && one.from > last) away(last, one.from);
      last = one.to;
      if (!comesBack) break;
    }
    if (last !== null && last < span) away(last, null);
  }
  return found;
}
