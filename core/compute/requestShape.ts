import * as z from 'zod';
import { presets } from '../conventions/conventions';
import type { KindName } from '../quantities/kinds';
import { quantities } from '../quantities/quantity';
import { bodySchema } from '../request/bodySchema';
import { cameraSchema, viewportSchema } from '../request/cameraSchema';
import { conventionsObject } from '../request/conventions';
import { trackSchema } from '../motion/trackSchema';
import { operationTable } from './operations';
import { requestSchema } from './schema';

/* The shape of requests as JSON Schema, without descriptions of its keys. */

/** A part of a JSON Schema. */
export interface SchemaNode {
  [key: string]: unknown;
  $ref?: string;
  description?: string;
  properties?: Record<string, SchemaNode>;
  items?: SchemaNode;
  anyOf?: SchemaNode[];
  oneOf?: SchemaNode[];
  const?: unknown;
  $defs?: Record<string, SchemaNode>;
}

/** Names of definitions in the written schema. */
function definitionIds(): ReadonlyMap<unknown, string> {
  return new Map<unknown, string>([
    [conventionsObject, 'conventions'],
    [viewportSchema, 'viewport'],
    [cameraSchema, 'camera'],
    [bodySchema, 'body'],
    [trackSchema, 'track'],
    ...operationTable.map(({ name, query }) => [query, `query.${name}`] as const),
  ]);
}

/**
 * Writes a schema of the library as JSON Schema: parts that occur several times as definitions, objects without
 * other keys than theirs, as `compute` reads them.
 */
export function writtenSchema(
  schema: z.ZodType,
  kindDescriptions: Readonly<Partial<Record<KindName, string>>> = {},
): SchemaNode {
  const named = definitionIds();
  const names = new Map<string, string>();
  const made = z.toJSONSchema(schema, {
    io: 'input',
    reused: 'ref',
    override: ({ zodSchema, jsonSchema }) => {
      const node = jsonSchema as SchemaNode;
      if (node.properties) node['additionalProperties'] = false;
      const quantity = quantities.get(zodSchema as never);
      const text = quantity && kindDescriptions[quantity.kind];
      if (text && !node.description && !node.$ref) node.description = text;
      const name = named.get(zodSchema);
      if (name) node['x-name'] = name;
    },
  }) as unknown as SchemaNode;
  const definitions = made.$defs ?? {};
  let count = 0;
  for (const [key, node] of Object.entries(definitions)) {
    const name = node['x-name'] as string | undefined;
    names.set(key, name && ![...names.values()].includes(name) ? name : `part${++count}`);
  }
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    const node = value as SchemaNode;
    delete node['x-name'];
    if (typeof node.$ref === 'string') node.$ref = node.$ref.replace(/[^/]+$/, (key) => names.get(key) ?? key);
    for (const inner of Object.values(node)) walk(inner);
  };
  walk(made);
  const renamed = Object.fromEntries(Object.entries(definitions).map(([key, node]) => [names.get(key)!, node]));
  return { ...made, ...(Object.keys(renamed).length && { $defs: renamed }) };
}

/** Allows the name of a preset as conventions, and a preset beside overrides. */
function withPresets(schema: SchemaNode): SchemaNode {
  const names = Object.keys(presets);
  const own = schema.$defs!['conventions']!;
  own.properties = { preset: { type: 'string', enum: names }, ...own.properties };
  schema.properties!['conventions'] = {
    anyOf: [{ type: 'string', enum: names }, { $ref: '#/$defs/conventions' }],
    default: {},
  };
  return schema;
} // prettier-ignore

/** Returns the shape of requests; the descriptions of quantities by their kinds. */
export const requestShape = (kindDescriptions?: Readonly<Partial<Record<KindName, string>>>): SchemaNode =>
  withPresets(writtenSchema(requestSchema, kindDescriptions));
