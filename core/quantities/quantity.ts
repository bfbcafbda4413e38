import * as z from 'zod';
import { listOf } from './numbers';
import type { KindName } from './kinds';

/** The properties of a quantity beside its kind. */
export interface QuantityOptions {
  /** The name of the quantity, as a form label and to those who cannot see the form: a noun phrase. */
  readonly label?: string;
  /** A shorter label, where the label's context says the rest. */
  readonly short?: string;
  /** A sentence for the JSON Schema and the documentation. */
  readonly description?: string;
  /** Canonical limits, both included. */
  readonly min?: number;
  readonly max?: number;
  /** A canonical limit that is not included. */
  readonly above?: number;
  readonly isInteger?: boolean;
  /** Decimals on the screen. */
  readonly decimals?: number;
  /** One press of an arrow key: scene units, seconds, pixels or degrees. */
  readonly step?: number;
  /** The only world where the quantity has a meaning. */
  readonly world?: '2d' | '3d';
  /** The name by which workings link to the quantity. */
  readonly source?: string;
  /** Other words that it is searched for by. */
  readonly words?: string;
  /** Whether its field is shown under some settings only, so that the search does not list it. */
  readonly isConditional?: boolean;
}
export interface QuantityMeta extends QuantityOptions {
  readonly kind: KindName;
}

/** Descriptions by schema. */
export const quantities = z.registry<QuantityMeta>();

/** Registers a schema as a quantity; to be called last, since the library's methods return unregistered copies. */
export function describe<Schema extends z.ZodType>(schema: Schema, kind: KindName, options: QuantityOptions): Schema {
  const described = options.description === undefined ? schema : schema.describe(options.description);
  quantities.add(described, { ...options, kind });
  return described;
}

/** The values that a schema of equal written and canonical types parses: written, with their defaults. */
export type Written<Schema extends z.ZodType> = Mutable<z.output<Schema>>;
type Mutable<T> = T extends readonly unknown[]
  ? { -readonly [K in keyof T]: Mutable<T[K]> }
  : T extends object
    ? { [K in keyof T]: Mutable<T[K]> }
    : T;

/** Marks a value that converters leave as it is written. */
export function asWritten<Schema extends z.ZodType>(schema: Schema): z.ZodType<Written<Schema>, Written<Schema>> {
  const own = schema.clone();
  quantities.add(own, { kind: 'written' });
  return own as unknown as z.ZodType<Written<Schema>, Written<Schema>>;
}

function scalar(kind: KindName, options: QuantityOptions): z.ZodNumber {
  const { min, max, above, isInteger } = options;
  let schema: z.ZodNumber = isInteger ? z.int() : z.number();
  if (min !== undefined) schema = schema.min(min);
  if (max !== undefined) schema = schema.max(max);
  if (above !== undefined) schema = schema.gt(above);
  return describe(schema, kind, options);
}
const scalarOf =
  (kind: KindName) =>
  (options: QuantityOptions = {}): z.ZodNumber =>
    scalar(kind, options);

const two = () => z.tuple([z.number(), z.number()]);
const three = () => z.tuple([z.number(), z.number(), z.number()]);
const pairOf =
  (kind: KindName) =>
  (options: QuantityOptions = {}) =>
    describe(two(), kind, options);
const tripleOf =
  (kind: KindName) =>
  (options: QuantityOptions = {}) =>
    describe(three(), kind, options);

/* Schemas of quantities. Their values are canonical: scene units, radians, canonical axes. */

export const length = scalarOf('length');
export const height = scalarOf('height');
export const angle = scalarOf('angle');
export const heading = scalarOf('heading');
export const yaw = scalarOf('yaw');
export const pitch = scalarOf('pitch');
export const roll = scalarOf('roll');
export const angularRate = scalarOf('angularRate');
export const yawRate = scalarOf('yawRate');
export const pitchRate = scalarOf('pitchRate');
export const pixels = scalarOf('pixels');
export const seconds = scalarOf('seconds');
export const ratio = scalarOf('ratio');
export const count = (options: QuantityOptions = {}) => scalar('count', { isInteger: true, ...options });
export const point = tripleOf('point');
/** A direction has a length. */
export const direction = (options: QuantityOptions = {}) =>
  describe(
    three().refine((v) => v.some((one) => one !== 0), 'must have a component that is not 0'),
    'direction',
    options,
  );
export const velocity = tripleOf('velocity');
export const sizes = tripleOf('sizes');
/** The lowest pitch first. */
export const pitchRange = (options: QuantityOptions = {}) =>
  describe(
    two().refine(([low, high]) => low <= high, 'must have the lower limit first'),
    'pitchRange',
    options,
  );
export const surfacePoint = pairOf('surfacePoint');
export const surfaceVector = pairOf('surfaceVector');
export const rotation = (options: QuantityOptions = {}) =>
  describe(z.tuple([z.number(), z.number(), z.number(), z.number()]), 'rotation', options);

/* What descriptions are made of beside quantities. */

export const name = () => z.string().min(1);
export const id = () => z.string().min(1);
export const flag = () => z.boolean();
export const choice = <const Values extends readonly [string, ...string[]]>(values: Values) => z.enum(values);
export const group = <Shape extends z.ZodRawShape>(shape: Shape) => z.object(shape);
/** A group that may be absent. */
export const optional = <Schema extends z.ZodType>(schema: Schema) => schema.nullable();
/** A list, with an optional maximum length. */
export const list = <Schema extends z.ZodType>(entry: Schema, { max }: { readonly max?: number } = {}) =>
  max === undefined ? listOf(entry) : listOf(entry).max(max);
