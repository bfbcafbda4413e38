import * as z from 'zod';
import { listOf } from '../quantities/numbers';
import type { Problem } from '../reasons';
import type { RequestContext } from '../request/setup';
import { problemsOf, unknownKeys } from './issues';
import { limits, overLimits } from './limits';
import { querySchema, type Query } from './operations';
import { queryProblems } from './read';
import { unknownProblem } from './readRequest';

const oneQuery = z.object({ queries: listOf(querySchema) });

/** Problems of a request with one query, as problems of that query. */
const ofQuery = (problems: readonly Problem[]): Problem[] =>
  problems.map(({ path, message, ...rest }) => ({
    ...rest,
    path: path.replace(/^queries\[0\]\.?/, ''),
    message: message.replaceAll('queries[0].', ''),
  }));

/**
 * Reads one query by the rules of requests: its defaults filled in, other keys rejected, points as many numbers as
 * the world has axes.
 *
 * @param given - any JSON value
 * @param context - the conventions and the world of the camera that it is asked of
 * @returns the query as it is written, or its problems, with paths below the query
 */
export function readQuery(
  given: unknown,
  context: RequestContext,
): { readonly ok: true; readonly query: Query } | { readonly ok: false; readonly problems: readonly Problem[] } {
  const request = { queries: [given] };
  const over = overLimits(request);
  if (over.length) return { ok: false, problems: ofQuery(over) };
  const parsed = oneQuery.safeParse(request, { reportInput: true });
  if (!parsed.success) return { ok: false, problems: ofQuery(problemsOf(parsed.error, limits.problems)) };
  const query = parsed.data.queries[0] as unknown as Query;
  const unknown = unknownKeys(request, parsed.data, limits.problems).map((path) => unknownProblem(request, path));
  const problems = unknown.length ? ofQuery(unknown) : queryProblems(query, context);
  return problems.length ? { ok: false, problems } : { ok: true, query };
}
