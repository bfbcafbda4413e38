import type { Problem } from '../reasons';
import type { Query, RequestTrack } from './schema';

/** The track that a query goes along, if it does, and the path at which it stands. */
export const trackOf = (query: Query): { readonly track: RequestTrack; readonly at: string } | null =>
  query.op === 'motion'
    ? { track: query.track, at: 'track' }
    : query.when
      ? { track: query.when.track, at: 'when.track' }
      : null;

/**
 * Points of a track that have as many coordinates as the world has not, by their paths; `point` says
 * what is wrong with one.
 */
export function trackProblems(
  track: RequestTrack,
  at: string,
  flat: boolean,
  point: (given: readonly number[], path: string) => Problem[],
): Problem[] {
  if (track.kind === 'scroll') return point(track.velocity, `${at}.velocity`);
  if (track.kind !== 'follow') return [];
  const { target, deadZone, bounds } = track;
  const problems = target.flatMap(([, p], i) => point(p, `${at}.target[${i}][1]`));
  const sizes = flat ? 2 : 3;
  if (deadZone && deadZone.length !== sizes)
    problems.push({
      path: `${at}.deadZone`,
      message: flat
        ? 'With a 2D camera the dead zone has two half widths, to the right and up.'
        : 'The dead zone has three half widths, to the right, up and ahead.',
    });
  if (bounds && !flat)
    problems.push({ path: `${at}.bounds`, message: 'Bounds hold the picture of a 2D camera. Leave them out.' });
  return problems;
}
