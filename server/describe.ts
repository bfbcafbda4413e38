import * as z from 'zod';
import { limits, serverLimits } from '../core/compute/limits';
import { operationTable } from '../core/compute/operations';
import { version } from '../core/version';
import { endpointNames, endpoints } from '../formats/endpoints';
import { schemaNames, schemaOf } from '../formats/schemas';

/* The server's description: GET /api and OpenAPI 3.1. */

/** Returns the answer to GET /api: version, formats, limits, endpoints, schemas, health. */
export const aboutServer = () => ({
  name: 'Astrolabe',
  version,
  formats: { request: 1, vectors: 1, check: 1 },
  health: 'ok',
  endpoints: ['compute', ...endpointNames].map((name) => `/api/${name}`),
  description: '/api/openapi.json',
  schemas: schemaNames.map((name) => `/api/schema/${name}`),
  operations: operationTable.map(({ name }) => name),
  limits: { ...limits, server: serverLimits },
});

/** Puts a schema into the components of the description: its references lead to its own definitions there. */
function component(name: string, schema: Record<string, unknown>): Record<string, unknown> {
  const text = JSON.stringify(schema).replaceAll('"#/$defs/', `"#/components/schemas/${name}/$defs/`);
  const { $schema, $id, ...rest } = JSON.parse(text) as Record<string, unknown>;
  void [$schema, $id];
  return rest;
}

const json = (schema: unknown) => ({ 'application/json': { schema } });
const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/problem' } } },
});
const unavailable = {
  ...problem('Busy, or it took too long. Try again after the seconds of Retry-After'),
  headers: { 'Retry-After': { schema: { type: 'integer' }, description: 'Seconds' } },
};
const post = (summary: string, description: string, input: unknown, answer: unknown, answers: string) => ({
  post: {
    ...{ summary, description },
    requestBody: { required: true, content: json(input) },
    responses: {
      200: { description: answers, content: json(answer) },
      413: problem('The request is too large'),
      415: problem('The request is not JSON'),
      422: problem('The request is rejected'),
      503: unavailable,
    },
  },
});

/** Returns the description of the interface as OpenAPI 3.1, made from the operations and the endpoints. */
export function openApi(): Record<string, unknown> {
  const summaries = operationTable.map(({ name, summary }) => `- \`${name}\`: ${summary}`).join('\n');
  const get = (summary: string) => ({
    get: { summary, responses: { 200: { description: summary, content: json({ type: 'object' }) } } },
  });
  return {
    openapi: '3.1.0',
    info: { title: 'Astrolabe', version, description: 'Reference answers for cameras of graphics engines' },
    paths: {
      '/api': get('Version, limits, endpoints, schemas and health'),
      '/api/openapi.json': get('This description'),
      '/api/schema/{name}': {
        parameters: [{ name: 'name', in: 'path', required: true, schema: { enum: schemaNames } }],
        ...get('A JSON Schema'),
      },
      '/api/compute': post('Answer a compute request', `Operations:\n\n${summaries}`, { $ref: '#/components/schemas/request' }, { $ref: '#/components/schemas/answers' }, 'The answers'), // prettier-ignore
      ...Object.fromEntries(
        endpointNames.map((name) => {
          const { summary, input, answer } = endpoints[name];
          const schema = component(name, z.toJSONSchema(input, { io: 'input' }));
          return [`/api/${name}`, post(summary, answer, schema, { type: 'object' }, answer)];
        }),
      ),
    },
    components: { schemas: Object.fromEntries(schemaNames.map((name) => [name, component(name, schemaOf(name))])) },
  };
}
