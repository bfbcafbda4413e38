import type { Track } from '../motion/trackSchema';
import { readValue, writeValue } from '../quantities/convert';
import { Series } from '../quantities/series';
import { setupAlong } from '../request/along';
import { failure, type Failure, type Operation } from '../request/operation';
import type { Setup } from '../request/setup';

/** The answer of one query, beside its id and op; long lists are series. */
export type Result = Readonly<Record<string, unknown>> | Failure;

/** Answers one query of an operation, as seen by the camera at the query's time. */
export function answerQuery(setup: Setup, operation: Operation, query: Readonly<Record<string, unknown>>): Result {
  const read = readValue(operation.query, query, setup.context) as {
    readonly when?: { readonly track: Track; readonly time: number };
  };
  let seen = setup;
  if (read.when) {
    const there = setupAlong(setup, read.when.track, read.when.time);
    if (!there.ok) return failure(there.code, there.message);
    seen = { ...there.value, along: { track: read.when.track, rest: setup } };
  }
  if (!operation.worlds.includes(setup.world.kind))
    return failure(
      'notIn2d',
      `${operation.name} has no meaning with a 2D camera. Ask it of a 3D one, orthographic if need be.`,
    );
  const answer = operation.run(read, seen);
  return 'error' in answer ? (answer as Failure) : writeValue(operation.output, answer as never, seen.context);
}

/** Computes all lists of a result. */
export const computeLists = <R extends object>(result: R): R =>
  Object.fromEntries(
    Object.entries(result).map(([key, value]: [string, unknown]) => [
      key,
      value instanceof Series ? value.all() : value,
    ]),
  ) as R;
