import type * as z from 'zod';
import type { ConventionCodec } from '../conventions/codec';
import { withoutNegativeZero } from '../conventions/codec';
import { kinds, type QuantityContext, type QuantityKind } from './kinds';
import { quantities, type QuantityMeta } from './quantity';
import type { World } from './world';

/*
 * Converters of described values: from canonical values to written ones and back, and from one set of conventions to
 * another. A schema says where its quantities are; a converter visits those alone.
 */

type Converter = (value: unknown) => unknown;
/** What a converter does with one quantity; null where it leaves it as it is. */
type Leaf = (meta: QuantityMeta, schema: z.ZodType) => Converter | null;

/** Returns the description of a schema that is a quantity. */
export const metaOf = (schema: z.ZodType): QuantityMeta | undefined =>
  quantities.get(schema) as QuantityMeta | undefined;
export const kindOf = ({ kind }: QuantityMeta): QuantityKind<never> => kinds[kind] as unknown as QuantityKind<never>;

interface Definition {
  readonly type: string;
  readonly innerType?: z.ZodType;
  readonly element?: z.ZodType;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly items?: readonly z.ZodType[];
  readonly valueType?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly discriminator?: string;
  readonly values?: readonly unknown[];
}
/** Returns what a schema is made of, without the wrappers that do not change where its values are. */
export function definitionOf(schema: z.ZodType): Definition {
  return schema._zod.def as unknown as Definition;
}

/** Returns the descriptions of all quantities of a schema, in its order. */
export function quantitiesIn(schema: z.ZodType): readonly QuantityMeta[] {
  const meta = metaOf(schema);
  if (meta) return [meta];
  const { innerType, element, shape, items, valueType, options } = definitionOf(schema);
  const parts = [innerType, element, ...Object.values(shape ?? {}), ...(items ?? []), valueType, ...(options ?? [])];
  return parts.flatMap((part) => (part ? quantitiesIn(part) : []));
}

/** Compiles a converter of the values of a schema; null where no quantity in them changes. */
function compile(schema: z.ZodType, leaf: Leaf): Converter | null {
  const meta = metaOf(schema);
  if (meta) return leaf(meta, schema);
  const { type, innerType, element, shape, items, valueType, options, discriminator } = definitionOf(schema);
  switch (type) {
    case 'nullable':
    case 'optional':
    case 'default':
    case 'prefault':
    case 'readonly': {
      const inner = compile(innerType!, leaf);
      return inner && ((value) => (value === null || value === undefined ? value : inner(value)));
    }
    case 'array': {
      const each = compile(element!, leaf);
      return each && ((value) => (value as unknown[]).map(each));
    }
    case 'record': {
      const each = compile(valueType!, leaf);
      return (
        each &&
        ((value) => Object.fromEntries(Object.entries(value as object).map(([key, one]) => [key, each(one)] as const)))
      );
    }
    case 'tuple': {
      const parts = items!.map((item) => compile(item, leaf));
      return parts.some(Boolean) ? (value) => (value as unknown[]).map((one, i) => parts[i]?.(one) ?? one) : null;
    }
    case 'object': {
      const parts = Object.entries(shape!).flatMap(([key, part]) => {
        const converter = compile(part, leaf);
        return converter ? [[key, converter] as const] : [];
      });
      if (!parts.length) return null;
      return (value) => {
        const next = { ...(value as Record<string, unknown>) };
        for (const [key, convert] of parts) if (key in next) next[key] = convert(next[key]);
        return next;
      };
    }
    case 'union': {
      if (!discriminator) return null;
      const byName = new Map(
        options!.map((option) => {
          const [named] = definitionOf(definitionOf(option).shape![discriminator]!).values!;
          return [named, compile(option, leaf)] as const;
        }),
      );
      if (![...byName.values()].some(Boolean)) return null;
      return (value) => byName.get((value as Record<string, unknown>)[discriminator])?.(value) ?? value;
    }
    default:
      return null;
  }
}

/** Whether a quantity has no meaning in a world, so that its value is left as it is. */
const isElsewhere = (meta: QuantityMeta, world: World): boolean =>
  meta.world !== undefined && meta.world !== world.kind;

const tidy = (value: unknown): unknown =>
  Array.isArray(value) ? (value as number[]).map(withoutNegativeZero) : withoutNegativeZero(value as number);

type Cache = WeakMap<z.ZodType, WeakMap<ConventionCodec, Map<World, Converter>>>;
/** A converter by schema and context, compiled once for each. */
function cached(cache: Cache, leafOf: (context: QuantityContext) => Leaf) {
  return <Schema extends z.ZodType>(schema: Schema, context: QuantityContext): Converter => {
    const { codec, world } = context;
    let byCodec = cache.get(schema);
    if (!byCodec) cache.set(schema, (byCodec = new WeakMap()));
    let byWorld = byCodec.get(codec);
    if (!byWorld) byCodec.set(codec, (byWorld = new Map()));
    let found = byWorld.get(world);
    if (!found) byWorld.set(world, (found = compile(schema, leafOf(context)) ?? ((value) => value)));
    return found;
  };
}

const writerOf = cached(new WeakMap(), (context) => (meta) => {
  const kind = kindOf(meta);
  return kind.isPlain || isElsewhere(meta, context.world) ? null : (value) => tidy(kind.write(value as never, context));
});
const readerOf = cached(new WeakMap(), (context) => (meta) => {
  const kind = kindOf(meta);
  return kind.isPlain || isElsewhere(meta, context.world) ? null : (value) => tidy(kind.read(value as never, context));
});

/**
 * Writes a canonical value in conventions: every quantity of its schema, at any depth. Points of a 2D world have two
 * components, which the type does not say.
 */
export const writeValue = <Schema extends z.ZodType>(
  schema: Schema,
  value: z.infer<Schema>,
  context: QuantityContext,
): z.infer<Schema> => writerOf(schema, context)(value) as z.infer<Schema>;

/** Reads a written value into its canonical form: the inverse of `writeValue`. */
export const readValue = <Schema extends z.ZodType>(
  schema: Schema,
  written: z.infer<Schema>,
  context: QuantityContext,
): z.infer<Schema> => readerOf(schema, context)(written) as z.infer<Schema>;

/**
 * Keeps the written numbers of a value while the conventions change: what the numbers mean changes. A number that the
 * schema does not allow under the other conventions keeps its meaning instead.
 */
export function reinterpretValue<Schema extends z.ZodType>(
  schema: Schema,
  value: z.infer<Schema>,
  from: QuantityContext,
  to: QuantityContext,
): z.infer<Schema> {
  const convert = compile(schema, (meta, own) => {
    const kind = kindOf(meta);
    if (kind.isPlain || isElsewhere(meta, from.world)) return null;
    return (before) => {
      const after = tidy(kind.read(kind.write(before as never, from), to));
      return own.safeParse(after).success ? after : before;
    };
  });
  return (convert ? convert(value) : value) as z.infer<Schema>;
}
