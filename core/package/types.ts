import type * as z from 'zod';
import type { AnswerOf, OperationName, QueryOf } from '../compute/operations';
import type { requestSchema } from '../compute/schema';
import type { PresetName } from '../conventions/conventions';
import type { WrittenTrack } from '../motion/trackSchema';

/*
 * The types of what the package takes and returns. In the packed files, this module is written from the schemas that
 * check the input (`scripts/lib/packageTypes.mjs`): types that name no other package, with the descriptions of the
 * keys.
 */

type DeepReadonly<T> = T extends object ? { readonly [Key in keyof T]: DeepReadonly<T[Key]> } : T;
type Written = z.input<typeof requestSchema>;

/** The parts of each operation's query, by the operation's name. */
export type Queries = { readonly [Name in OperationName]: DeepReadonly<Omit<QueryOf<Name>, 'id' | 'op'>> };
/** The parts of each operation's answer, by the operation's name. */
export type Answers = { readonly [Name in OperationName]: DeepReadonly<AnswerOf<Name>> };

/** Conventions with defaults, the name of a preset, or a preset with other keys that override it. */
export type GivenConventions = DeepReadonly<Written['conventions']> | PresetName | { readonly preset: PresetName };
/** A camera with its viewport and bodies, in an engine's conventions. */
export interface Setup {
  readonly conventions?: GivenConventions;
  readonly viewport: DeepReadonly<Written['viewport']>;
  readonly camera: DeepReadonly<Written['camera']>;
  readonly bodies?: DeepReadonly<Written['bodies']>;
}
export type Track = DeepReadonly<WrittenTrack>;
