import * as z from 'zod';
import type { PlacedBody } from '../bodies/body';
import { trackSchema } from '../motion/trackSchema';
import { listOf, number } from '../quantities/numbers';
import type { World } from '../quantities/world';
import type { ErrorCode, Problem } from '../reasons';
import type { RequestContext, Setup } from './setup';

/** Why a query has no answer. */
export interface Failure {
  readonly error: { readonly code: ErrorCode; readonly message: string };
}
export const failure = (code: ErrorCode, message: string): Failure => ({ error: { code, message } });

/** A query before it is checked: any JSON. */
export type RawQuery = Readonly<Record<string, unknown>>;
/** Returns the length of a list of a query that is not checked yet; 0 for other values. */
export const lengthOf = (value: unknown): number => (Array.isArray(value) ? value.length : 0);

/** How much a request holds beside its queries. */
export interface RequestSize {
  readonly bodies: number;
  /** Of all meshes together. */
  readonly vertices: number;
}
/** Entries of a query that have a limit of their own (`limits`). */
export interface Counts {
  readonly spawned?: number;
  readonly discs?: number;
}

interface Spec<Input extends z.ZodRawShape, Output extends z.ZodRawShape> {
  /** One or two sentences for the reference. */
  readonly summary: string;
  /** The worlds where the operation has a meaning; both by default. */
  readonly worlds?: readonly World['kind'][];
  /** Described parts of the query, beside `id`, `op` and `when`. */
  readonly input: Input;
  /** Described parts of the answer, beside `id` and `op`. */
  readonly output: Output;
  /** False where a query cannot name a time of a track at which it is asked. */
  readonly hasWhen?: false;
  /**
   * Work beyond a look at each entry of the query's lists, in looks at one thing by another: a point at a camera, a
   * ray at a body. Called before the query is checked.
   */
  readonly cost?: (query: RawQuery, size: RequestSize) => number;
  /** Entries with limits of their own, and the lists that hold them. Called before the query is checked. */
  readonly counts?: (query: RawQuery) => Counts;
  readonly countedLists?: readonly string[];
  /** Problems that only the whole request shows, their paths below the query. Gets the written query. */
  readonly problems?: (query: never, context: RequestContext) => readonly Problem[];
  /** Answers a canonical query with canonical values. */
  readonly run: (query: z.output<z.ZodObject<Input>>, setup: Setup) => z.output<z.ZodObject<Output>> | Failure;
}

const when = z.object({ track: trackSchema, time: number }).optional();

/** An operation of the compute interface: the schemas of its queries and answers, and its computation. */
export interface Operation<
  Name extends string = string,
  Query extends z.ZodType = z.ZodType,
  Output extends z.ZodObject = z.ZodObject,
> {
  readonly name: Name;
  readonly summary: string;
  readonly worlds: readonly World['kind'][];
  readonly query: Query;
  readonly output: Output;
  readonly cost: (query: RawQuery, size: RequestSize) => number;
  readonly counts: (query: RawQuery) => Counts;
  readonly countedLists: readonly string[];
  readonly problems: (query: unknown, context: RequestContext) => readonly Problem[];
  readonly run: (query: unknown, setup: Setup) => Readonly<Record<string, unknown>> | Failure;
}

/** The schema of an operation's queries. */
type QuerySchema<Name extends string, Input extends z.ZodRawShape> = z.ZodObject<
  { id: z.ZodString; op: z.ZodLiteral<Name>; when: typeof when } & Input
>;

/** Defines an operation, to be listed in `core/compute/operations.ts`. */
export function operation<const Name extends string, Input extends z.ZodRawShape, Output extends z.ZodRawShape>(
  name: Name,
  spec: Spec<Input, Output>,
): Operation<Name, QuerySchema<Name, Input>, z.ZodObject<Output>> {
  const named = { id: z.string(), op: z.literal(name) };
  const shape = spec.hasWhen === false ? { ...named, ...spec.input } : { ...named, when, ...spec.input };
  return {
    name,
    summary: spec.summary,
    worlds: spec.worlds ?? ['2d', '3d'],
    query: z.object(shape) as unknown as QuerySchema<Name, Input>,
    output: z.object(spec.output),
    cost: spec.cost ?? (() => 0),
    counts: spec.counts ?? (() => ({})),
    countedLists: spec.countedLists ?? [],
    problems: (spec.problems as Operation['problems'] | undefined) ?? (() => []),
    run: spec.run as Operation['run'],
  };
}

/* Parts that operations on bodies share. */

/** Ids of bodies; all bodies if absent. */
export const ids = () => listOf(z.string()).optional().describe('Ids of bodies; all bodies if absent');

/** Asks about bodies, once about each however often it is named: a mesh may have many vertices. */
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

/** Runs an operation on the bodies that a query names, or on all; `bodyMissing` for an unknown id. */
export function chosen<Answer>(
  { placed }: Setup,
  ids: readonly string[] | undefined,
  run: (placed: readonly PlacedBody[]) => Answer,
): Answer | Failure {
  if (!ids) return run(placed);
  const byId = new Map(placed.map((one) => [one.body.id, one]));
  const missing = ids.find((id) => !byId.has(id));
  if (missing !== undefined)
    return failure('bodyMissing', `There is no body “${missing}”. Name one of the request’s bodies.`);
  return run(ids.map((id) => byId.get(id)!));
}

/** Work of an operation that looks at every body it names. */
export const costOfBodies =
  (looks: number) =>
  (query: RawQuery, { bodies, vertices }: RequestSize): number =>
    looks * (Array.isArray(query['bodies']) ? query['bodies'].length : bodies) + vertices;
