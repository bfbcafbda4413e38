import type { PlacedBody } from '../bodies/body';
import type { Vec2 } from '../math/vec3';
import type { ErrorCode } from '../reasons';
import type { ResolvedRequest } from './read';
import type { Query, QueryOf } from './schema';

/* What every operation is made of. */

/** What one query is answered with, beside its id and op; long lists of it are `Lazy`. */
export type Result = Record<string, unknown> | { error: { code: ErrorCode; message: string } };

export const failure = (code: ErrorCode, message: string): Result => ({ error: { code, message } });
export const notIn2d = (op: string): Result =>
  failure('notIn2d', `${op} has no meaning with a 2D camera. Ask it of a 3D one, orthographic if need be.`);
export type Operation<Op extends Query['op']> = (resolved: ResolvedRequest, query: QueryOf<Op>) => Result;
/** The operations by name. */
export type Operations = { readonly [Op in Query['op']]: Operation<Op> };

/** A pixel of the request as a picture position. */
export const pictureOf = ({ codec, frame }: ResolvedRequest, pixel: Vec2) => codec.fromScreen(frame.viewport, pixel);

/** What is asked of bodies, once of each however often it is named: a mesh may have many vertices. */
export function once<T extends { readonly body: string }>(
  placed: readonly PlacedBody[],
  ask: (each: readonly PlacedBody[]) => readonly T[],
): readonly T[] {
  const each = [...new Set(placed)];
  const found = ask(each);
  if (each.length === placed.length) return found;
  const byId = new Map(found.map((one) => [one.body, one]));
  return placed.flatMap(({ body }) => byId.get(body.id) ?? []);
}

/** The bodies that a query names, or all; `bodyMissing` for an id that there is not. */
export function chosen(
  { placed }: ResolvedRequest,
  ids: readonly string[] | undefined,
  run: (placed: readonly PlacedBody[]) => Result,
): Result {
  if (!ids) return run(placed);
  const byId = new Map(placed.map((one) => [one.body.id, one]));
  const missing = ids.find((id) => !byId.has(id));
  if (missing !== undefined)
    return failure('bodyMissing', `There is no body “${missing}”. Name one of the request’s bodies.`);
  return run(ids.map((id) => byId.get(id)!));
}
