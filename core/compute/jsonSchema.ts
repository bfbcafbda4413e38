import * as z from 'zod';
import { requestShape, type SchemaNode } from './requestShape';
import { responseSchema } from './schema';
import { keyDescriptions, kindDescriptions } from './schemaDescriptions';

/** Where the schemas are found, by the version of the format. */
const schemaAddress = (name: string): string => `https://astrolabe.invalid/schemas/1/${name}.schema.json`;

/** Gives each key without a description the one of its name. */
function describeKeys(root: SchemaNode): void {
  const definitions = root.$defs ?? {};
  const target = (node: SchemaNode): SchemaNode =>
    node.$ref ? (definitions[node.$ref.replace(/^.*\//, '')] ?? node) : node;
  const walk = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, node] of Object.entries((value as SchemaNode).properties ?? {})) {
      const text = keyDescriptions[key];
      if (text && !node.description && !target(node).description) node.description = text;
    }
    for (const inner of Object.values(value)) walk(inner);
  };
  walk(root);
}

/**
 * Returns the request as JSON Schema (draft 2020-12), made from the schema that requests are read with. Rules that
 * join several numbers (near below far, one field of view) are not in it: `docs/compute.md`.
 */
export function requestJsonSchema(): Record<string, unknown> {
  const made = requestShape(kindDescriptions);
  describeKeys(made);
  // A request that only asks `identify` may do without a camera, which its queries alone can tell.
  const required = (made['required'] as string[]).filter((key) => key !== 'camera');
  return { $id: schemaAddress('request'), title: 'Astrolabe compute request', ...made, required };
}

/** Writes another schema of the command line as JSON Schema. */
export const namedJsonSchema = (name: string, title: string, schema: z.ZodType): Record<string, unknown> => ({
  ...{ $id: schemaAddress(name), title },
  ...z.toJSONSchema(schema, { io: 'input', reused: 'ref' }),
});

/** Returns the response as JSON Schema (draft 2020-12), made from the schemas of the operations' answers. */
export const responseJsonSchema = (): Record<string, unknown> =>
  namedJsonSchema('answers', 'Astrolabe compute response', responseSchema);
