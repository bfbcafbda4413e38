import type { Problem } from '../reasons';
import { issueCount } from '../quantities/numbers';
import { nearestKey, problemsOf, unknownKeys } from './issues';
import { requestJsonSchema } from './jsonSchema';
import { limits, overLimits } from './limits';
import { resolveRequest, type ResolvedRequest } from './read';
import type { Query } from './operations';
import { requestSchema, type ReadRequest } from './schema';

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

/** Every key that means something somewhere in a request. */
let known: readonly string[] | null = null;
function knownKeys(): readonly string[] {
  if (known) return known;
  const keys = new Set<string>();
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, inner] of Object.entries(value)) {
      if (key === 'properties' && typeof inner === 'object' && inner !== null)
        for (const name of Object.keys(inner)) keys.add(name);
      walk(inner);
    }
  };
  walk(requestJsonSchema());
  return (known = [...keys]);
}

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

/** A key that nothing is known of, and the known one that is nearest. */
function unknownProblem({ path, beside }: ReturnType<typeof unknownKeys>[number]): Problem {
  const key = path.slice(path.lastIndexOf('.') + 1);
  const nearest = nearestKey(key, beside, knownKeys());
  return {
    path,
    message: `${path} is not known here.${nearest ? ` Did you mean “${nearest}”?` : ''} Take it out or mend its spelling.`,
  };
}

/**
 * Reads a compute request without answering its queries.
 *
 * @param given - any JSON value
 * @returns the request with its resolved values, or a problem document with everything that `compute` rejects
 */
export function readRequest(
  given: unknown,
):
  | { ok: true; request: ReadRequest; resolved: ResolvedRequest; warnings: readonly Problem[] }
  | { ok: false; problem: ProblemDocument } {
  const over = overLimits(given);
  if (over.length) return { ok: false, problem: problemDocument(over) };
  const parsed = requestSchema.safeParse(given, { reportInput: true });
  if (!parsed.success) {
    const count = issueCount(parsed.error.issues);
    const problems = problemsOf(parsed.error, limits.problems);
    return { ok: false, problem: problemDocument(problems, 422, undefined, Math.max(count, problems.length)) };
  }
  const request = parsed.data as unknown as ReadRequest;
  const unknown = unknownKeys(given, request);
  const problems = [...unknown.slice(0, limits.problems).map(unknownProblem), ...repeatedIds(request.queries)];
  if (problems.length) {
    const count = problems.length + Math.max(0, unknown.length - limits.problems);
    return { ok: false, problem: problemDocument(problems, 422, undefined, count) };
  }
  const resolved = resolveRequest(request);
  if (!resolved.ok) return { ok: false, problem: problemDocument(resolved.problems) };
  return { ok: true, request, resolved: resolved.value, warnings: resolved.warnings };
}

/** The same for those who ask about the set-up alone: the request's queries play no part. */
export const readSetUp = (given: unknown): ReturnType<typeof readRequest> =>
  readRequest(typeof given === 'object' && given !== null ? { ...given, queries: [] } : given);
