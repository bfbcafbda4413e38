import { compute as answerRequest } from '../compute/compute';
import type { Problem } from '../reasons';

/** The answers to a request, in the order of its queries: each with its id and op, and its parts or an error. */
export interface ComputeResponse {
  readonly astrolabe: 1;
  readonly camera: Readonly<Record<string, unknown>> | null;
  readonly results: readonly (Readonly<Record<string, unknown>> & { readonly id: string; readonly op: string })[];
  readonly warnings: readonly Problem[];
}

/**
 * Answers a compute request as the command line does.
 *
 * @param request - any JSON value
 * @returns the response of docs/compute.md, or everything that is wrong with the request
 */
export function compute(
  request: unknown,
):
  | { readonly ok: true; readonly response: ComputeResponse }
  | { readonly ok: false; readonly problems: readonly Problem[] } {
  const answered = answerRequest(request);
  return answered.ok
    ? { ok: true, response: answered.response as unknown as ComputeResponse }
    : { ok: false, problems: answered.problem.errors };
}
