// The types of the package, written from the schemas that check its input.
import { build } from 'esbuild';
import { compile } from 'json-schema-to-typescript';
import { root } from './fresh.mjs';

/** Loads exports of the sources. */
async function loadSources(code) {
  const stdin = { contents: code, resolveDir: root, loader: 'ts' };
  const { outputFiles } = await build({ stdin, bundle: true, format: 'esm', platform: 'node', write: false, logLevel: 'warning' }); // prettier-ignore
  return import(`data:text/javascript;base64,${Buffer.from(outputFiles[0].contents).toString('base64')}`);
}

const isNamed = (reference) => !/\/part\d+$/.test(reference);
const nameOf = (reference) => reference.replace(/^.*\//, '');

/** Copies a schema with unnamed definitions written out, tuples in the older form that the converter reads. */
function inlined(node, definitions) {
  if (Array.isArray(node)) return node.map((one) => inlined(one, definitions));
  if (typeof node !== 'object' || node === null) return node;
  if (node.$ref && !isNamed(node.$ref)) {
    const { $ref, ...rest } = node;
    return inlined({ ...definitions[nameOf($ref)], ...rest }, definitions);
  }
  if (node.$ref) return { $ref: `#/definitions/${nameOf(node.$ref)}` };
  const entries = Object.entries(node).filter(([key]) => key !== '$defs' && key !== 'default');
  const own = Object.fromEntries(entries.map(([key, value]) => [key, inlined(value, definitions)]));
  if (own.prefixItems) {
    own.items = own.prefixItems;
    own.minItems = own.maxItems = own.prefixItems.length;
    delete own.prefixItems;
  }
  // Longer lists are lists rather than tuples.
  if (own.minItems > 4 || own.maxItems > 4) {
    delete own.minItems;
    delete own.maxItems;
  }
  return own;
}

/** Returns the text of `types.d.ts`: queries, answers, setups and tracks. */
export async function packageTypes() {
  const { operationTable, requestShape, writtenSchema, z } = await loadSources(`
    export { operationTable } from './core/compute/operations';
    export { requestShape, writtenSchema } from './core/compute/requestShape';
    export * as z from 'zod';`);
  const table = (schemaOf) => z.object(Object.fromEntries(operationTable.map((operation) => [operation.name, schemaOf(operation)]))); // prettier-ignore
  const operations = writtenSchema(
    z.object({
      Queries: table(({ query }) => query.omit({ id: true, op: true })),
      Answers: table(({ output }) => output),
    }),
  );
  const request = requestShape();
  const { conventions, viewport, camera, bodies } = request.properties;
  const named = (schema) => Object.fromEntries(Object.entries(schema.$defs).filter(([name]) => /^[a-z]+$/i.test(name) && !/^part/.test(name)).map(([name, own]) => [name, inlined(own, schema.$defs)])); // prettier-ignore
  const setup = { type: 'object', properties: { conventions, viewport, camera, bodies }, required: ['viewport', 'camera'] }; // prettier-ignore
  const { Queries, Answers } = inlined(operations, operations.$defs).properties;
  const schema = {
    type: 'object',
    properties: { Queries, Answers, Setup: inlined(setup, request.$defs) },
    required: ['Queries', 'Answers', 'Setup'],
    definitions: { ...named(operations), ...named(request) },
  };
  const text = await compile(schema, 'Written', { additionalProperties: false, bannerComment: '', maxItems: 4, style: { singleQuote: true, printWidth: 120 } }); // prettier-ignore
  // Lengths are in the tuples already; lists and tuples are read-only.
  const tidy = text
    .replace(/^\s*\* @(min|max)Items \d+\n/gm, '')
    .replace(/^\s*\/\*\*\n(\s*\*\n)*\s*\*\/\n/gm, '')
    .replace(/^(\s*\*)\n(?=\s*\*\/)/gm, '')
    .replace(/\bexport (type|interface) (\w+)/g, '$1 $2');
  return `// Written from the schemas of requests and answers.
type DeepReadonly<T> = T extends object ? { readonly [Key in keyof T]: DeepReadonly<T[Key]> } : T;
${tidy}
/** The parts of each operation's query, by the operation's name. */
export type Queries = DeepReadonly<Written['Queries']>;
/** The parts of each operation's answer, by the operation's name. */
export type Answers = DeepReadonly<Written['Answers']>;
/** A camera with its viewport and bodies, in an engine's conventions. */
export type Setup = DeepReadonly<Written['Setup']>;
/** Conventions with defaults, the name of a preset, or a preset with other keys that override it. */
export type GivenConventions = NonNullable<Setup['conventions']>;
type GivenTrack = DeepReadonly<Track>;
export type { GivenTrack as Track };
`;
}
