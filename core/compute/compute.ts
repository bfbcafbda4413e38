import { writeValue } from '../quantities/convert';
import { Series } from '../quantities/series';
import { resolvedCamera, resolvedCameraSchema } from '../request/resolvedCamera';
import { answerQuery, computeLists, type Result } from './answerQuery';
import { operationNamed } from './operations';
import type { ResolvedRequest } from './read';
import { readRequest, type ProblemDocument } from './readRequest';

export interface ComputeResponse {
  readonly astrolabe: 1;
  /** Null, with a reason, for a request that has none: one that asks `identify` alone. */
  readonly camera: Record<string, unknown> | null;
  readonly reason?: 'cameraNotGiven';
  readonly results: readonly ({ readonly id: string; readonly op: string } & Result)[];
  readonly warnings: readonly { readonly path: string; readonly message: string }[];
}

/** Answers every query of a resolved request, in order; calls `begins` with the index of each. */
const answersOf = (resolved: ResolvedRequest, begins?: (query: number) => void): ComputeResponse['results'] =>
  resolved.queries.map((query, i) => {
    begins?.(i);
    const result = { id: query.id, op: query.op, ...answerQuery(resolved, operationNamed(query.op)!, query) };
    return begins ? watched(result, () => begins(i)) : result;
  });

/** A result whose lists tell when a part of them is worked out. */
const watched = <R extends object>(result: R, begins: () => void): R =>
  Object.fromEntries(
    Object.entries(result).map(([key, value]: [string, unknown]) => [
      key,
      value instanceof Series
        ? new Series(value.length, (from, to) => {
            begins();
            return value.part(from, to) as readonly unknown[];
          })
        : value,
    ]),
  ) as R;

/** Answers every query of a resolved request, in order. */
export const answerQueries = (resolved: ResolvedRequest): ComputeResponse['results'] =>
  answersOf(resolved).map(computeLists);

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
  return { ok: true, response: { ...response, results: response.results.map(computeLists) } };
}

/**
 * As `compute`, its long lists worked out when they are written (`writeJson`): a million points are
 * never all held. `begins` is told which query is worked on, again when a part of it is written.
 */
export function computeLazily(given: unknown, begins?: (query: number) => void): Computed {
  const bare = needsNoCamera(given);
  const read = readRequest(bare ? { ...given, camera: noCamera } : given);
  if (!read.ok) return read;
  const { frame, codec, context } = read.resolved;
  const response: ComputeResponse = {
    astrolabe: 1,
    ...(bare
      ? { camera: null, reason: 'cameraNotGiven' }
      : { camera: writeValue(resolvedCameraSchema, resolvedCamera(frame, codec), context) }),
    results: answersOf(read.resolved, begins),
    warnings: read.warnings.map(({ path, message }) => ({ path, message })),
  };
  return { ok: true, response };
}
