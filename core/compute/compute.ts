import { fieldOfView } from '../camera/projection';
import { anglesOfBasis } from '../camera/orientation';
import type { CameraFrame } from '../camera/frame';
import type { Expression } from '../conventions/express';
import type { Problem } from '../reasons';
import { problemsOf, unknownPaths } from './issues';
import { operations, type Result } from './operations';
import { readSituation, writePair, type Situation } from './read';
import { requestSchema, type Query } from './schema';

export interface ComputeResponse {
  readonly astrolabe: 1;
  readonly camera: Record<string, unknown>;
  readonly results: readonly ({ readonly id: string; readonly op: string } & Result)[];
  readonly warnings: readonly { readonly path: string; readonly message: string }[];
}

/** RFC 9457, with the places that are wrong. */
export interface ProblemDocument {
  readonly type: 'about:blank';
  readonly title: string;
  readonly status: number;
  readonly errors: readonly Problem[];
}

export const problemDocument = (errors: readonly Problem[], status = 422, title?: string): ProblemDocument => ({
  type: 'about:blank',
  title: title ?? (errors.length === 1 ? 'The request has a problem' : `The request has ${errors.length} problems`),
  status,
  errors,
});

/** The camera as it came out, in the request's conventions (`docs/compute.md`, "The resolved camera"). */
export function resolvedCamera(frame: CameraFrame, e: Expression, flat = false): Record<string, unknown> {
  const { extents: x, near, far } = frame;
  const perspective = frame.kind === 'perspective';
  const fov = (size: number) => (perspective ? e.toAngle(fieldOfView(size, near)) : null);
  const quaternion = e.toQuaternion(frame);
  return {
    position: flat ? writePair(frame.eye, e) : e.toWorld(frame.eye),
    right: e.toWorld(frame.right),
    up: e.toWorld(frame.up),
    forward: e.toWorld(frame.forward),
    ...e.toAngles(anglesOfBasis(frame)),
    quaternion,
    ...(!quaternion && { reason: 'quaternionNeedsOneHandedness' }),
    near,
    far,
    aspect: (x.right - x.left) / (x.top - x.bottom),
    verticalFov: fov(x.top - x.bottom),
    horizontalFov: fov(x.right - x.left),
    extents: x,
  };
}

/** Answers every query of a situation, in order. */
export function answerQueries(situation: Situation): ComputeResponse['results'] {
  return situation.queries.map((query) => {
    const run = operations[query.op] as (s: Situation, q: Query) => Result;
    return { id: query.id, op: query.op, ...run(situation, query) };
  });
}

/**
 * Answers a compute request: any JSON value in, the response or a problem document out. Never throws for bad input.
 * The interface is `docs/compute.md`.
 */
export function compute(
  given: unknown,
): { ok: true; response: ComputeResponse } | { ok: false; problem: ProblemDocument } {
  const parsed = requestSchema.safeParse(given, { reportInput: true });
  if (!parsed.success) return { ok: false, problem: problemDocument(problemsOf(parsed.error)) };
  const situation = readSituation(parsed.data);
  if (!situation.ok) return { ok: false, problem: problemDocument(situation.problems) };
  const { frame, expression, flat } = situation.value;
  const unknown = unknownPaths(given, parsed.data).map((path) => ({
    path,
    message: `${path} is not known here and plays no part. Check its spelling.`,
  }));
  const response: ComputeResponse = {
    astrolabe: 1,
    camera: resolvedCamera(frame, expression, flat),
    results: answerQueries(situation.value),
    warnings: [...unknown, ...situation.warnings.map(({ path, message }) => ({ path, message }))],
  };
  return { ok: true, response };
}
