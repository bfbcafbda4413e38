import * as z from 'zod';
import { problemsOf } from '../core/compute/issues';
import { problemDocument, type ProblemDocument } from '../core/compute/readRequest';
import { checkAnswers } from '../core/deliver/checkVectors';
import { emitCode, emitHarness, is2dVectors, languageOf, vectorsOfParts } from '../core/deliver/code';
import { deliverLanguages } from '../core/deliver/languages';
import { codeParts, codePartsOf, type CodePart } from '../core/deliver/library';
import { scopeProblem } from '../core/deliver/scope';
import { setUpOfRequest } from '../core/deliver/setUp';
import { vectorsOf } from '../core/deliver/vectors';
import { checkJson } from './checkText';
import { diagnoseLog } from './logDiagnosis';
import { readAnswers, readVectors, vectorsTable } from './vectors';

/*
 * Endpoints of the server beside `compute`: what the command line does, with JSON in and out. Each has a schema, so
 * that the description of the interface (OpenAPI) is made from this table.
 */

/** What an endpoint answers: a JSON value, or a problem. */
export type EndpointAnswer = { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly problem: ProblemDocument }; // prettier-ignore

/** An endpoint of the server. */
export interface Endpoint {
  readonly summary: string;
  readonly input: z.ZodObject;
  /** What the answer holds, for the description. */
  readonly answer: string;
  run(input: unknown): EndpointAnswer;
}

const request = z.looseObject({}).describe('A compute request with the camera and its conventions');
const parts = z
  .array(z.enum(codeParts as unknown as [CodePart, ...CodePart[]]))
  .optional()
  .describe('Parts of the code; all if absent');

const refuse = (path: string, message: string): EndpointAnswer => ({
  ok: false,
  problem: problemDocument([{ path, message }]),
});

/** Defines an endpoint: input that its schema rejects is answered with a problem document. */
function endpoint<Shape extends z.ZodRawShape>(
  summary: string,
  answer: string,
  shape: Shape,
  run: (input: z.output<z.ZodObject<Shape>>) => EndpointAnswer,
): Endpoint {
  const input = z.strictObject(shape);
  return {
    ...{ summary, answer, input: input as unknown as z.ZodObject },
    run: (given) => {
      const read = input.safeParse(given, { reportInput: true });
      if (!read.success) return { ok: false, problem: problemDocument(problemsOf(read.error, 20)) };
      return run(read.data as z.output<z.ZodObject<Shape>>);
    },
  };
}

/** The endpoints by their names: POST /api/NAME. */
export const endpoints = {
  code: endpoint(
    'Write the source of a camera’s mathematics',
    '{ "files": [{ "name", "text" }] }',
    {
      request,
      language: z.string().describe(deliverLanguages.map(({ name }) => name).join(', ')),
      parts,
      number: z.enum(['double', 'float']).default('double').describe('The number type'),
      naming: z.enum(['own', 'snake', 'camel', 'pascal']).default('own').describe('How functions are named'),
      parameters: z.boolean().default(false).describe('Leave the camera’s own numbers out'),
      scope: z.string().optional().describe('A prefix in C, a namespace in C++'),
      harness: z.boolean().default(false).describe('Write the harness for test vectors as well'),
    },
    ({ request, language, parts, number, naming, parameters, scope, harness }) => {
      const found = languageOf(language);
      if (!found) return refuse('language', `language is “${language}”; it must be one of ${deliverLanguages.map(({ name }) => name).join(', ')}.`); // prettier-ignore
      const odd = scope === undefined ? null : scopeProblem(found.name, scope);
      if (odd) return refuse('scope', odd);
      const made = setUpOfRequest(request);
      if (!made.ok) return made;
      const wish = { language: found.name, parts: parts ?? codeParts, number, naming, constants: !parameters, scope };
      const files = [
        emitCode(made.setUp, wish),
        ...(harness ? [{ name: found.harnessFile, text: emitHarness(made.setUp, wish) }] : []),
      ];
      return { ok: true, value: { files } };
    },
  ),
  vectors: endpoint(
    'Write test vectors for a camera',
    'Test vectors, or { "csv" } for a table',
    {
      request,
      count: z.int().min(1).max(10_000).default(24).describe('Points, 1 to 10,000'),
      seed: z.int().min(1).max(100_000).default(1).describe('Other seeds give other points'),
      parts,
      csv: z.boolean().default(false).describe('Answer the table as text'),
    },
    ({ request, count, seed, parts, csv }) => {
      const made = vectorsOf(request, count, seed);
      if (!made.ok) return made;
      const vectors = vectorsOfParts(made.vectors, parts ?? codePartsOf(is2dVectors(made.vectors)));
      return { ok: true, value: csv ? { csv: vectorsTable(vectors) } : vectors };
    },
  ),
  check: endpoint(
    'Compare an engine’s answers with test vectors',
    'The result, as `astrolabe check --json` writes it',
    {
      vectors: z.unknown().describe('Test vectors'),
      answers: z.record(z.string(), z.unknown()).describe('Lists of numbers by the ids of rows'),
      tolerance: z.number().positive().max(1).default(1e-5).describe('A share of a number’s size'),
      absolute: z.number().min(0).default(0).describe('A difference that is always allowed'),
    },
    ({ vectors, answers, tolerance, absolute }) => {
      const read = readVectors(vectors);
      if (typeof read === 'string') return refuse('vectors', read);
      const own = readAnswers(JSON.stringify(answers));
      if (typeof own === 'string') return refuse('answers', own);
      return {
        ok: true,
        value: checkJson(checkAnswers(read, own, { relative: tolerance, absolute, byKind: {} }), null),
      };
    },
  ),
  diagnose: endpoint(
    'Explain the numbers that an engine printed',
    'The reading and the answers, as `astrolabe diagnose --json` writes them',
    { request, log: z.string().describe('Output of an engine with matrices and points in any form') },
    ({ request, log }) => {
      const found = diagnoseLog(request, log);
      return found.ok ? found : { ok: false, problem: problemDocument(found.problems) };
    },
  ),
} as const satisfies Readonly<Record<string, Endpoint>>;

export type EndpointName = keyof typeof endpoints;
export const endpointNames = Object.keys(endpoints) as EndpointName[];
