import type { Problem } from '../reasons';
import { issueCount } from '../quantities/numbers';
import { expandPreset } from '../request/presetConventions';
import { problemsOf, unknownKeys } from './issues';
import { limits, overLimits } from './limits';
import { resolveRequest, type ResolvedRequest } from './read';
import type { Query } from './operations';
import { requestSchema, type ReadRequest } from './schema';
import { suggestedKey } from './suggestions';

/** RFC 9457, with the places that are wrong. */
export interface ProblemDocument {
  readonly type: 'about:blank';
  readonly title: string;
  readonly status: number;
  /** The first of them, at most `limits.problems`. */
  readonly errors: readonly Problem[];
  /** How many there are, where not all are listed. */
  readonly count?: number;
}

/** Creates the problem document of a request (RFC 9457): a status, a title and each problem with its path. */
export const problemDocument = (
  errors: readonly Problem[],
  status = 422,
  title?: string,
  count = errors.length,
): ProblemDocument => ({
  type: 'about:blank',
  title: title ?? (count === 1 ? 'The request has a problem' : `The request has ${count} problems`),
  status,
  errors: errors.slice(0, limits.problems),
  ...(count > limits.problems && { count }),
});

/** Queries that have the id of one before them: their answers could not be told apart. */
function repeatedIds(queries: readonly Query[]): Problem[] {
  const seen = new Set<string>();
  return queries.flatMap(({ id }, i): Problem[] => {
    if (!seen.has(id)) {
      seen.add(id);
      return [];
    }
    return [{ path: `queries[${i}].id`, message: `Two queries have the id “${id}”. Give each its own.` }];
  });
}

/** Says that a key is not known, with the key of its place that was probably meant. */
export function unknownProblem(given: unknown, path: string): Problem {
  const nearest = suggestedKey(given, path);
  return {
    path,
    message: `${path} is not known here. ${nearest ? `Did you mean “${nearest}”? Rename or remove it.` : 'Remove it.'}`,
  };
}

/**
 * Reads a compute request without answering its queries.
 *
 * @param request - any JSON value
 * @returns the request with its resolved values, or a problem document with everything that `compute` rejects
 */
export function readRequest(
  request: unknown,
):
  | { ok: true; request: ReadRequest; resolved: ResolvedRequest; warnings: readonly Problem[] }
  | { ok: false; problem: ProblemDocument } {
  const expanded = expandPreset(request);
  if ('problem' in expanded) return { ok: false, problem: problemDocument([expanded.problem]) };
  const given = expanded.value;
  const over = overLimits(given);
  if (over.length) return { ok: false, problem: problemDocument(over) };
  const parsed = requestSchema.safeParse(given, { reportInput: true });
  if (!parsed.success) {
    const count = issueCount(parsed.error.issues);
    const problems = problemsOf(parsed.error, limits.problems);
    return { ok: false, problem: problemDocument(problems, 422, undefined, Math.max(count, problems.length)) };
  }
  const understood = parsed.data as unknown as ReadRequest;
  const unknown = unknownKeys(given, understood);
  const problems = [
    ...unknown.slice(0, limits.problems).map((path) => unknownProblem(given, path)),
    ...repeatedIds(understood.queries),
  ];
  if (problems.length) {
    const count = problems.length + Math.max(0, unknown.length - limits.problems);
    return { ok: false, problem: problemDocument(problems, 422, undefined, count) };
  }
  const resolved = resolveRequest(understood);
  if (!resolved.ok) return { ok: false, problem: problemDocument(resolved.problems) };
  return { ok: true, request: understood, resolved: resolved.value, warnings: resolved.warnings };
}

/** The same for those who ask about the set-up alone: the request's queries play no part. */
export const readSetUp = (given: unknown): ReturnType<typeof readRequest> =>
  readRequest(typeof given === 'object' && given !== null ? { ...given, queries: [] } : given);
