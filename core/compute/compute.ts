import { resolvedAlong } from './along';
import { resolvedCamera } from './resolved';
import type { Problem } from '../reasons';
import { issueCount, nearestKey, problemsOf, unknownKeys } from './issues';
import { requestJsonSchema } from './jsonSchema';
import { Lazy } from './lazy';
import { limits, overLimits } from './limits';
import type { Result } from './answering';
import { whole } from './answers';
import { operations } from './operations';
import { resolveRequest, type ResolvedRequest } from './read';
import { requestSchema, type Query, type ReadRequest } from './schema';

export interface ComputeResponse {
  readonly astrolabe: 1;
  /** Null, with a reason, for a request that has none: one that asks `identify` alone. */
  readonly camera: Record<string, unknown> | null;
  readonly reason?: 'cameraNotGiven';
  readonly results: readonly ({ readonly id: string; readonly op: string } & Result)[];
  readonly warnings: readonly { readonly path: string; readonly message: string }[];
}

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

/**
 * What is wrong with a request, as the document that is answered (RFC 9457): a status, a title and
 * each problem by its path.
 */
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

/** One query, seen by the camera as it is at the query's time. */
function answered(resolved: ResolvedRequest, query: Query): Result {
  const run = operations[query.op] as (s: ResolvedRequest, q: Query) => Result;
  if (query.op === 'motion' || !query.when) return run(resolved, query);
  const there = resolvedAlong(resolved, query.when.track, query.when.time);
  return there.ok ? run(there.value, query) : { error: { code: there.code, message: there.message } };
}

/** Answers every query of a resolved request, in order; `begins` is told which one. */
const lazyAnswers = (resolved: ResolvedRequest, begins?: (query: number) => void): ComputeResponse['results'] =>
  resolved.queries.map((query, i) => {
    begins?.(i);
    const result = { id: query.id, op: query.op, ...answered(resolved, query) };
    return begins ? watched(result, () => begins(i)) : result;
  });

/** A result whose lists tell when a part of them is worked out. */
const watched = <R extends object>(result: R, begins: () => void): R =>
  Object.fromEntries(
    Object.entries(result).map(([key, value]: [string, unknown]) => [
      key,
      value instanceof Lazy
        ? new Lazy(value.length, (from, to) => {
            begins();
            return value.part(from, to) as readonly unknown[];
          })
        : value,
    ]),
  ) as R;

/** Answers every query of a resolved request, in order. */
export const answerQueries = (resolved: ResolvedRequest): ComputeResponse['results'] =>
  lazyAnswers(resolved).map(whole);

/** Stands where no camera was given and none is asked for. */
const noCamera = {
  position: [0, 0, 0],
  orientation: { yaw: 0, pitch: 0 },
  projection: { kind: 'perspective', near: 1, far: 2, verticalFov: 1 },
};
/** Whether a request has no camera and needs none: `identify` finds its own. */
function needsNoCamera(given: unknown): given is object {
  if (typeof given !== 'object' || given === null) return false;
  const { camera, queries } = given as { readonly camera?: unknown; readonly queries?: unknown };
  if (camera !== undefined || !Array.isArray(queries) || !queries.length) return false;
  return queries.every(
    (query: unknown) => (query as { op?: unknown } | null)?.op === 'identify' && !('when' in (query as object)),
  );
}

type Computed = { ok: true; response: ComputeResponse } | { ok: false; problem: ProblemDocument };

/**
 * Answers a compute request: any JSON value in, the response or a problem document out. Never
 * throws for bad input. The interface is `docs/compute.md`.
 */
export function compute(given: unknown): Computed {
  const answered = computeLazily(given);
  if (!answered.ok) return answered;
  const { response } = answered;
  return { ok: true, response: { ...response, results: response.results.map(whole) } };
}

/**
 * Reads a compute request, any JSON value, without answering its queries: what was read and what it
 * comes to, or a problem document with everything that `compute` would refuse.
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
  const unknown = unknownKeys(given, parsed.data);
  const problems = [...unknown.slice(0, limits.problems).map(unknownProblem), ...repeatedIds(parsed.data.queries)];
  if (problems.length) {
    const count = problems.length + Math.max(0, unknown.length - limits.problems);
    return { ok: false, problem: problemDocument(problems, 422, undefined, count) };
  }
  const resolved = resolveRequest(parsed.data);
  if (!resolved.ok) return { ok: false, problem: problemDocument(resolved.problems) };
  return { ok: true, request: parsed.data, resolved: resolved.value, warnings: resolved.warnings };
}

/** The same for those who ask about the set-up alone: the request's queries play no part. */
export const readSetUp = (given: unknown): ReturnType<typeof readRequest> =>
  readRequest(typeof given === 'object' && given !== null ? { ...given, queries: [] } : given);

/**
 * As `compute`, its long lists worked out when they are written (`writeJson`): a million points are
 * never all held. `begins` is told which query is worked on, again when a part of it is written.
 */
export function computeLazily(given: unknown, begins?: (query: number) => void): Computed {
  const bare = needsNoCamera(given);
  const read = readRequest(bare ? { ...given, camera: noCamera } : given);
  if (!read.ok) return read;
  const { frame, codec, flat } = read.resolved;
  const response: ComputeResponse = {
    astrolabe: 1,
    ...(bare ? { camera: null, reason: 'cameraNotGiven' } : { camera: resolvedCamera(frame, codec, flat) }),
    results: lazyAnswers(read.resolved, begins),
    warnings: read.warnings.map(({ path, message }) => ({ path, message })),
  };
  return { ok: true, response };
}
