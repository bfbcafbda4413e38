import { namedJsonSchema, requestJsonSchema, responseJsonSchema } from '../core/compute/jsonSchema';
import { problemSchema } from '../core/compute/problemSchema';
import { answersSchema, vectorsSchema } from './vectors';

/** Documents that have a JSON Schema: requests and answers of `compute`, test vectors, an engine’s answers, problems. */
export const schemaNames = ['request', 'answers', 'vectors', 'engineAnswers', 'problem'] as const;
export type SchemaName = (typeof schemaNames)[number];

const schemas: Readonly<Record<SchemaName, () => Record<string, unknown>>> = {
  request: requestJsonSchema,
  answers: responseJsonSchema,
  vectors: () => namedJsonSchema('vectors', 'Astrolabe test vectors', vectorsSchema),
  engineAnswers: () => namedJsonSchema('engineAnswers', 'Answers of an engine to test vectors', answersSchema),
  problem: () => namedJsonSchema('problem', 'Problem document (RFC 9457)', problemSchema),
};

/** Returns the JSON Schema (draft 2020-12) of a document. */
export const schemaOf = (name: SchemaName): Record<string, unknown> => schemas[name]();
