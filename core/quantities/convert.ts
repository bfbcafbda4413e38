import type * as z from 'zod';
import { withoutNegativeZero } from '../conventions/codec';
import { kinds, type QuantityContext, type QuantityKind } from './kinds';
import { quantities, type QuantityMeta } from './quantity';
import { Series, seriesOf } from './series';
import type { World } from './world';

/*
 * Converters of described values: from canonical values to written ones and back, and from one set of conventions to
 * another. A schema says where its quantities are; a converter visits those alone.
 */

type Converter<Context> = (value: unknown, context: Context) => unknown;
/** Returns the converter of one quantity; null for a quantity that stays as it is. */
type Leaf<Context> = (meta: QuantityMeta, schema: z.ZodType) => Converter<Context> | null;

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
  readonly entries?: Readonly<Record<string, unknown>>;
  readonly defaultValue?: unknown;
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

/** Schemas of lists that are converted a part at a time, as series. */
const seriesSchemas = new WeakSet<z.ZodType>();
/**
 * Marks the schema of a list that may be long: written it is a list, canonical it is a series, converted a part at a
 * time.
 */
export function asSeries<Entry extends z.ZodType>(
  list: z.ZodArray<Entry>,
): z.ZodType<Series<z.output<Entry>>, z.input<Entry>[]> {
  seriesSchemas.add(list);
  return list as unknown as z.ZodType<Series<z.output<Entry>>, z.input<Entry>[]>;
}

/** Returns whether a value has the form of an option of a union: the keys, the length or the constant it needs. */
function fitsOption(option: z.ZodType, value: unknown): boolean {
  const { type, innerType, shape, items, options, values, entries } = definitionOf(option);
  switch (type) {
    case 'object':
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
      return Object.entries(shape!).every(([key, part]) => part._zod.optin === 'optional' || key in value);
    case 'array':
      return Array.isArray(value);
    case 'tuple':
      return Array.isArray(value) && value.length === items!.length;
    case 'union':
      return options!.some((inner) => fitsOption(inner, value));
    case 'literal':
      return values!.includes(value);
    case 'enum':
      return Object.values(entries!).includes(value);
    case 'number':
    case 'string':
    case 'boolean':
      return typeof value === type;
    case 'nullable':
      return value === null || fitsOption(innerType!, value);
    default:
      return true;
  }
}

/** Returns a function that chooses the option of a union that a value has: by its discriminator, else by its form. */
function optionChooser(
  options: readonly z.ZodType[],
  discriminator: string | undefined,
): (value: unknown) => z.ZodType | undefined {
  if (!discriminator) return (value) => options.find((option) => fitsOption(option, value));
  const byName = new Map(
    options.map((option) => [definitionOf(definitionOf(option).shape![discriminator]!).values![0], option] as const),
  );
  return (value) => byName.get((value as Record<string, unknown>)[discriminator]);
}

/** Compiles a converter of the values of a schema; null where no quantity in them changes. */
function compile<Context>(schema: z.ZodType, leaf: Leaf<Context>): Converter<Context> | null {
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
      return inner && ((value, context) => (value === null || value === undefined ? value : inner(value, context)));
    }
    case 'array': {
      const each = compile(element!, leaf);
      if (seriesSchemas.has(schema))
        return (value, context) => {
          const series = value instanceof Series ? value : seriesOf(value as unknown[]);
          return each ? series.map((entry) => each(entry, context)) : series;
        };
      return each && ((value, context) => (value as unknown[]).map((entry) => each(entry, context)));
    }
    case 'record': {
      const each = compile(valueType!, leaf);
      return (
        each &&
        ((value, context) =>
          Object.fromEntries(Object.entries(value as object).map(([key, one]) => [key, each(one, context)] as const)))
      );
    }
    case 'tuple': {
      const parts = items!.map((item) => compile(item, leaf));
      return parts.some(Boolean)
        ? (value, context) =>
            (value as unknown[]).map((one, i) => {
              const part = parts[i];
              return part ? part(one, context) : one;
            })
        : null;
    }
    case 'object': {
      const parts = Object.entries(shape!).flatMap(([key, part]) => {
        const converter = compile(part, leaf);
        return converter ? [[key, converter] as const] : [];
      });
      if (!parts.length) return null;
      return (value, context) => {
        const next = { ...(value as Record<string, unknown>) };
        for (let i = 0; i < parts.length; i++) {
          const [key, convert] = parts[i]!;
          const part = next[key];
          if (part !== undefined) next[key] = convert(part, context);
        }
        return next;
      };
    }
    case 'union': {
      const compiled = new Map(options!.map((option) => [option, compile(option, leaf)] as const));
      if (![...compiled.values()].some(Boolean)) return null;
      const optionOf = optionChooser(options!, discriminator);
      return (value, context) => {
        const option = optionOf(value);
        const convert = option && compiled.get(option);
        return convert ? convert(value, context) : value;
      };
    }
    default:
      return null;
  }
}

/** Whether a quantity has no meaning in a world, so that its value is left as it is. */
const isElsewhere = (meta: QuantityMeta, world: World): boolean =>
  meta.world !== undefined && meta.world !== world.kind;

/** Returns a value without negative zeros; the value itself where it has none. */
function tidy(value: unknown): unknown {
  if (!Array.isArray(value)) return withoutNegativeZero(value as number);
  const list = value as number[];
  for (let i = 0; i < list.length; i++) if (Object.is(list[i], -0)) return list.map(withoutNegativeZero);
  return list;
}

/** Returns the converter of a schema, compiled once. */
function cached<Context>(leaf: Leaf<Context>): (schema: z.ZodType) => Converter<Context> {
  const bySchema = new WeakMap<z.ZodType, Converter<Context>>();
  return (schema) => {
    let found = bySchema.get(schema);
    if (!found) bySchema.set(schema, (found = compile(schema, leaf) ?? ((value) => value)));
    return found;
  };
}

const writerOf = cached<QuantityContext>((meta) => {
  const kind = kindOf(meta);
  if (kind.isPlain) return null;
  return (value, context) => (isElsewhere(meta, context.world) ? value : tidy(kind.write(value as never, context)));
});
const readerOf = cached<QuantityContext>((meta) => {
  const kind = kindOf(meta);
  if (kind.isPlain) return null;
  return (value, context) => (isElsewhere(meta, context.world) ? value : tidy(kind.read(value as never, context)));
});
interface Reinterpretation {
  readonly from: QuantityContext;
  readonly to: QuantityContext;
}
const reinterpreterOf = cached<Reinterpretation>((meta, schema) => {
  const kind = kindOf(meta);
  if (kind.isPlain) return null;
  return (before, { from, to }) => {
    if (isElsewhere(meta, from.world)) return before;
    const after = tidy(kind.read(kind.write(before as never, from), to));
    return schema.safeParse(after).success ? after : before;
  };
});

/**
 * Writes a canonical value in conventions: every quantity of its schema, at any depth. Points of a 2D world have two
 * components.
 */
export const writeValue = <Schema extends z.ZodType>(
  schema: Schema,
  value: z.output<Schema>,
  context: QuantityContext,
): z.input<Schema> => writerOf(schema)(value, context) as z.input<Schema>;

/** Reads a written value into its canonical form: the inverse of `writeValue`. */
export const readValue = <Schema extends z.ZodType>(
  schema: Schema,
  written: z.input<Schema>,
  context: QuantityContext,
): z.output<Schema> => readerOf(schema)(written, context) as z.output<Schema>;

/** Writes a value of one set of conventions in another. */
export const reexpressValue = <Schema extends z.ZodType>(
  schema: Schema,
  written: z.input<Schema>,
  from: QuantityContext,
  to: QuantityContext,
): z.input<Schema> => writeValue(schema, readValue(schema, written, from), to);

/**
 * Finds the points of a written value whose number of components is not that of the world.
 *
 * @returns their paths
 */
export function misfitPoints(schema: z.ZodType, written: unknown, world: World): readonly PropertyKey[][] {
  const found: PropertyKey[][] = [];
  const finders = finderOf[world.kind];
  let finder = finders.get(schema);
  if (finder === undefined) finders.set(schema, (finder = misfitFinder(schema, world)));
  finder?.(written, (path) => found.push([...path]));
  return found;
}
const finderOf = {
  '2d': new WeakMap<z.ZodType, Finder | null>(),
  '3d': new WeakMap<z.ZodType, Finder | null>(),
};
type Finder = (value: unknown, report: (path: readonly PropertyKey[]) => void) => void;
const pointKinds: readonly string[] = ['point', 'velocity', 'direction'];
/** Compiles a search for points with other components than the world's; null where a schema has no such points. */
function misfitFinder(schema: z.ZodType, world: World): Finder | null {
  const meta = metaOf(schema);
  if (meta)
    return pointKinds.includes(meta.kind) && meta.world === undefined
      ? (value, report) => {
          if ((value as readonly number[]).length !== world.dimensions) report([]);
        }
      : null;
  const { innerType, element, shape, items, options, discriminator } = definitionOf(schema);
  if (innerType) {
    const inner = misfitFinder(innerType, world);
    return inner && ((value, report) => value !== null && value !== undefined && inner(value, report));
  }
  if (element) {
    const each = misfitFinder(element, world);
    return (
      each && ((value, report) => (value as unknown[]).forEach((one, i) => each(one, (path) => report([i, ...path]))))
    );
  }
  if (shape || items) {
    const parts = Object.entries(shape ?? items!).flatMap(([key, part]) => {
      const finder = misfitFinder(part as z.ZodType, world);
      return finder ? [[shape ? key : Number(key), finder] as const] : [];
    });
    if (!parts.length) return null;
    return (value, report) => {
      for (const [key, finder] of parts) {
        const part = (value as Record<PropertyKey, unknown>)[key];
        if (part !== undefined) finder(part, (path) => report([key, ...path]));
      }
    };
  }
  if (options) {
    const finders = new Map(options.map((option) => [option, misfitFinder(option, world)] as const));
    if (![...finders.values()].some(Boolean)) return null;
    const optionOf = optionChooser(options, discriminator);
    return (value, report) => {
      const option = optionOf(value);
      if (option) finders.get(option)?.(value, report);
    };
  }
  return null;
}

/**
 * Keeps the written numbers of a value while the conventions change: what the numbers mean changes. A number that the
 * schema does not allow under the other conventions keeps its meaning instead.
 */
export function reinterpretValue<Schema extends z.ZodType>(
  schema: Schema,
  value: z.output<Schema>,
  from: QuantityContext,
  to: QuantityContext,
): z.output<Schema> {
  return reinterpreterOf(schema)(value, { from, to }) as z.output<Schema>;
}
