import fc from 'fast-check';
import type * as z from 'zod';
import { definitionOf, metaOf } from '../quantities/convert';
import type { World } from '../quantities/world';

/** Random values of a schema, as a request writes them. */
export interface SchemaValues {
  readonly world: World;
  /** Numbers of any size; those of a schema are clamped to its limits. */
  readonly number: fc.Arbitrary<number>;
  /** Returns the values of a schema that has its own; undefined for all others. */
  readonly own: (schema: z.ZodType) => fc.Arbitrary<unknown> | undefined;
  /** Longest list. */
  readonly most: number;
}

interface Check {
  readonly check: string;
  readonly value?: number;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly length?: number;
}
/** Returns the checks of a schema. */
const checksOf = (schema: z.ZodType): readonly Check[] =>
  ((schema._zod.def as { checks?: readonly { _zod: { def: Check } }[] }).checks ?? []).map((one) => one._zod.def);

/** Returns the least and the greatest number, or length, of a schema. */
function limitsOf(schema: z.ZodType): readonly [number, number] {
  let [low, high] = [-Infinity, Infinity];
  for (const { check, value = NaN, minimum, maximum, length } of checksOf(schema)) {
    if (check === 'greater_than') low = Math.max(low, value);
    if (check === 'less_than') high = Math.min(high, value);
    low = Math.max(low, minimum ?? length ?? -Infinity);
    high = Math.min(high, maximum ?? length ?? Infinity);
  }
  return [low, high];
}

/**
 * Creates random values of a schema, as a request writes them. Values that a refinement of the schema rejects do not
 * come; parts with a default are left out now and then.
 */
export function valuesOf(schema: z.ZodType, settings: SchemaValues): fc.Arbitrary<unknown> {
  const own = settings.own(schema);
  if (own) return own;
  const meta = metaOf(schema);
  const { type, innerType, element, shape, items, options, values, entries } = definitionOf(schema);
  const of = (inner: z.ZodType) => valuesOf(inner, settings);
  const isPoint = meta !== undefined && ['point', 'velocity'].includes(meta.kind) && meta.world === undefined;
  if (isPoint) return of(options!.find((option) => definitionOf(option).items?.length === settings.world.dimensions)!);
  switch (type) {
    case 'number': {
      const [low, high] = limitsOf(schema);
      const clamped = settings.number.map((v) => Math.min(high, Math.max(low, low >= 0 ? Math.abs(v) : v)));
      return (schema as z.ZodNumber).format === 'safeint' ? clamped.map((v) => Math.trunc(v) % 1_000) : clamped;
    }
    case 'boolean':
      return fc.boolean();
    case 'string':
      return fc.constantFrom('b0', 'b1', 'b9');
    case 'literal':
      return fc.constantFrom(...values!);
    case 'enum':
      return fc.constantFrom(...Object.values(entries!));
    case 'optional':
    case 'default':
    case 'prefault':
      return fc.option(of(innerType!), { nil: undefined });
    case 'nullable':
      return fc.option(of(innerType!), { nil: null });
    case 'tuple':
      return fc.tuple(...items!.map(of));
    case 'array': {
      const [low, high] = limitsOf(schema);
      const minLength = Math.max(0, low);
      return fc.array(of(element!), { minLength, maxLength: Math.max(minLength, Math.min(high, settings.most)) });
    }
    case 'union':
      return fc.oneof(...options!.map(of));
    case 'object': {
      const parts = Object.fromEntries(Object.entries(shape!).map(([key, part]) => [key, of(part)]));
      const made = fc.record(parts).map((value) => {
        // A part left out is absent, not undefined.
        const present = Object.entries(value).filter(([, part]) => part !== undefined);
        return Object.fromEntries(present);
      });
      return checksOf(schema).length > 0 ? made.filter((value) => schema.safeParse(value).success) : made;
    }
    default:
      throw new Error(`no random values for a schema of the type ${type}`);
  }
}
