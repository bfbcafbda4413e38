import type * as z from 'zod';
import { definitionOf, kindOf, metaOf } from '../../core/quantities/convert';
import type { QuantityContext, QuantityUnit } from '../../core/quantities/kinds';
import type { QuantityMeta } from '../../core/quantities/quantity';
import { radians } from '../../core/math/angle';
import { angleSuffix, angleUnit, inDegrees } from '../ui/angles';
import { figure } from '../ui/figures';
import { anglesIn, lengths, pixels, seconds, type Units } from '../ui/parseNumber';

/* What a field shows and accepts, from the description of its quantity. */

/** Where a quantity is in a described state. */
export type FieldPath = readonly (string | number)[];

/** Returns the schema of a union that has a key. */
function optionWith(options: readonly z.ZodType[], key: string | number): z.ZodType {
  const found = options.find((option) => key in (definitionOf(option).shape ?? {}));
  if (!found) throw new Error(`There is no ${key} in this state.`);
  return found;
}

/** Returns the schema at a path of a described state; the programmer's error where there is none. */
export function schemaAt(schema: z.ZodType, path: FieldPath): z.ZodType {
  const { shape, element, items, innerType, options, valueType } = definitionOf(schema);
  if (innerType) return schemaAt(innerType, path);
  if (options && path.length) return schemaAt(optionWith(options, path[0]!), path);
  const [key, ...deeper] = path;
  if (key === undefined) return schema;
  const next = typeof key === 'number' ? (element ?? items?.[key]) : (shape?.[key] ?? valueType);
  if (!next) throw new Error(`There is no ${String(key)} in this state.`);
  return schemaAt(next, deeper);
}

export function valueAt(state: unknown, path: FieldPath): unknown {
  return path.reduce<unknown>((value, key) => (value as Record<string | number, unknown>)[key], state);
}

/** The attribute that a field is found by. */
export const fieldName = (task: string, path: FieldPath): string => `${task} ${path.join(' ')}`;

/** Puts a value into a draft of the state. */
export function putAt(draft: unknown, path: FieldPath, value: unknown): void {
  const parent = valueAt(draft, path.slice(0, -1)) as Record<string | number, unknown>;
  parent[path.at(-1)!] = value;
}

/** One number of a quantity, as a field shows and accepts it. */
export interface FieldFacts {
  /** The name for those who cannot see the label. */
  readonly name: string;
  /** Undefined where a row of the sheet has it. */
  readonly label: string | undefined;
  readonly value: number;
  /** The unit behind the number; undefined where the label says it. */
  readonly unit: string | undefined;
  /** Units that can be typed. */
  readonly units: Units | undefined;
  readonly step: number;
  /** Formats a written number; undefined for all its digits. */
  readonly format: ((written: number) => string) | undefined;
  /** The name by which workings link to the field, and that by which the search finds it. */
  readonly source: string | undefined;
  readonly field: string | undefined;
  /** Returns why a written number is rejected, or null. */
  reject(written: number): string | null;
  /** Returns the canonical value of the quantity with this number in it. */
  withNumber(written: number): unknown;
}

/** Units behind a number. The unit of lengths is the project's, which the worksheet names once. */
const unitNames: Partial<Record<QuantityUnit, string>> = { seconds: 's', pixels: 'px' };
const typedUnits: Partial<Record<QuantityUnit, Units>> = { length: lengths, seconds, pixels };

/** Returns the sentence for a number outside the limits of its quantity, with the limits as they are written. */
function limitsText(label: string, { min, max, above, isInteger }: QuantityMeta, write: (v: number) => string): string {
  const integer = isInteger ? ' an integer' : '';
  if (above !== undefined && max !== undefined)
    return `${label} is${integer} above ${write(above)}, up to ${write(max)}.`;
  if (above !== undefined) return `${label} is${integer} above ${write(above)}.`;
  if (min !== undefined && max !== undefined) return `${label} is${integer} from ${write(min)} to ${write(max)}.`;
  if (min !== undefined) return `${label} is${integer} ${write(min)} or more.`;
  if (max !== undefined) return `${label} is${integer} up to ${write(max)}.`;
  return isInteger ? `${label} is an integer.` : `${label} is a number.`;
}

/** Returns the name of the quantity at a path. */
export function labelAt(schema: z.ZodType, path: FieldPath, name?: string): string {
  const meta = metaOf(schemaAt(schema, path));
  return name ?? meta?.label ?? meta?.kind ?? '';
}

/** Returns a description's kind without its value type, which its schema checks. */
const looseKind = (meta: QuantityMeta) =>
  kindOf(meta) as unknown as {
    readonly unit: QuantityUnit;
    axes(context: QuantityContext): readonly string[];
    write(value: unknown, context: QuantityContext): number | readonly number[];
    read(written: unknown, context: QuantityContext): unknown;
  };

/**
 * Returns the numbers of a quantity at a path of a described state: one for a scalar, one for each axis of a vector,
 * none where the quantity has no meaning in the world.
 *
 * @param name - the name of the quantity where its description leaves it open, as in a list
 */
export function fieldFacts(
  task: string,
  schema: z.ZodType,
  path: FieldPath,
  { slice, codec, world }: QuantityContext & { readonly slice: unknown },
  name?: string,
): readonly FieldFacts[] {
  const own = schemaAt(schema, path);
  const meta = metaOf(own);
  if (!meta) throw new Error(`${path.join('.')} is no quantity.`);
  if (meta.world && meta.world !== world.kind) return [];
  const kind = looseKind(meta);
  const context = { codec, world };
  const label = labelAt(schema, path, name);
  const isAngle = kind.unit === 'angle' || kind.unit === 'angularRate';
  const isDegrees = inDegrees(codec);
  const { decimals, source, step = isAngle ? 5 : 1 } = meta;
  const limit = (value: number): string => {
    const written = kind.write(value, context) as number;
    const short = Number(written.toFixed(isDegrees ? 0 : 2)).toLocaleString('en');
    return isAngle ? `${short}${angleSuffix(codec)}` : written.toLocaleString('en');
  };
  const shared = {
    unit: isAngle ? `${angleUnit(codec)}${kind.unit === 'angularRate' ? '/s' : ''}` : unitNames[kind.unit],
    units: isAngle ? anglesIn(codec.conventions.angles.unit) : typedUnits[kind.unit],
    step: isAngle && !isDegrees ? Number(radians(step).toPrecision(1)) : step,
    format: decimals === undefined ? undefined : (number: number) => figure(number, decimals),
  };
  const written = kind.write(valueAt(slice, path), context);
  const field = fieldName(task, path);
  if (typeof written === 'number') {
    const withNumber = (number: number) => kind.read(number, context);
    return [
      {
        ...{ ...shared, name: label, label: (meta.short ?? label.toLowerCase()) || undefined, value: written, source, field, withNumber }, // prettier-ignore
        reject: (number) => (own.safeParse(withNumber(number)).success ? null : limitsText(label, meta, limit)),
      },
    ];
  }
  return kind.axes(context).map((axis, i) => ({
    ...{ ...shared, name: `${label} ${axis}`, label: axis, value: written[i]! },
    reject: (number) => {
      const problem = own.safeParse(kind.read(written.with(i, number), context)).error?.issues[0];
      return problem ? `${label} ${problem.message}.` : null;
    },
    // Links and the search lead to the first.
    source: i === 0 ? source : undefined,
    field: i === 0 ? field : undefined,
    withNumber: (number) => kind.read(written.with(i, number), context),
  }));
}

/** An entry of the search for a field of a state. */
interface FieldEntry {
  readonly name: string;
  readonly at: string;
  readonly words?: string;
  readonly world?: 'space' | 'flat';
}

/** Returns the search entries of the labelled quantities that a worksheet always shows. */
export function fieldEntries(task: string, schema: z.ZodType): FieldEntry[] {
  const visit = (part: z.ZodType, path: FieldPath): FieldEntry[] => {
    const meta = metaOf(part);
    if (!meta)
      return Object.entries(definitionOf(part).shape ?? {}).flatMap(([key, one]) => visit(one, [...path, key]));
    if (!meta.label || meta.isConditional) return [];
    const world = meta.world && ({ '2d': 'flat', '3d': 'space' } as const)[meta.world];
    return [{ name: meta.label, at: `[data-field="${fieldName(task, path)}"]`, ...(meta.words && { words: meta.words }), ...(world && { world }) }]; // prettier-ignore
  };
  return visit(schema, []);
}
