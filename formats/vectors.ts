import * as z from 'zod';
import Papa from 'papaparse';
import { writeTable } from './csv';
import { readJsonText } from './jsonProblem';
import type { Answers } from '../core/deliver/checkedRows';
import { inputCount, vectorKinds } from '../core/deliver/vectorKinds';
import type { Vectors } from '../core/deliver/vectors';

/** The schema of an engine’s answers in JSON: lists of numbers by the ids of rows, null for no picture. */
export const answersSchema = z.record(z.string(), z.array(z.union([z.number(), z.string(), z.null()])).nullable());

const numbers = z.array(z.number()).nullable().describe('Expected outputs, booleans as 0 and 1; null for no picture');
/** Answers in JSON, which cannot write NaN or infinity: a text or null in a list is one of them. */
const answered = z
  .array(z.union([z.number(), z.string().transform((text) => numberIn(text) ?? NaN), z.null().transform(() => NaN)]))
  .nullable();
/** The schema of test vectors. */
export const vectorsSchema = z.object({
  astrolabeVectors: z.literal(1).describe('The version of this format'),
  request: z.looseObject({}).describe('The compute request of the camera, without queries'),
  rows: z.array(
    z.object({
      id: z.string().min(1),
      kind: z.enum(vectorKinds),
      input: z.array(z.number()),
      expected: numbers,
      scale: z.array(z.number().positive()).optional().describe('Sizes that tolerances are a share of'),
      detects: z.array(z.string()).optional().describe('Faults that change this answer'),
    }),
  ),
  undetected: z.array(z.string()).optional().describe('Faults that change no number of this camera'),
});
const notVectors = (where: string, why: string) =>
  `These are not test vectors: ${where}: ${why}. Write them with “astrolabe vectors”.`;

/** Reads test vectors from a JSON value. Returns a sentence for other values. */
export function readVectors(value: unknown): Vectors | string {
  const read = vectorsSchema.safeParse(value);
  if (read.success) return read.data as Vectors;
  const [first] = read.error.issues;
  return notVectors(first!.path.join('.') || 'the document', first!.message);
}

/**
 * Reads test vectors as they were written, JSON or a table (`vectorsTable`). A table has no camera: rows are
 * compared, and wrong ones are not explained.
 *
 * @returns the vectors, or a sentence with the error in the text
 */
export function readVectorsText(text: string): Vectors | string {
  if (/^\s*[{[]/.test(text)) {
    const read = readJsonText(text);
    return 'problem' in read ? notVectors(read.problem, 'this is not JSON') : readVectors(read.value);
  }
  const [header = [], ...lines] = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' }).data;
  const at = (name: string) => header.indexOf(name);
  const columns = (prefix: string) => header.flatMap((name, i) => (name.startsWith(`${prefix} `) ? [i] : []));
  if (at('id') < 0 || at('kind') < 0) return notVectors('line 1', 'the columns “id” and “kind” are missing');
  const [inputs, outputs] = [columns('in'), columns('out')];
  const words = (cells: readonly string[], name: string) => (cells[at(name)] ?? '').split(' ').filter(Boolean);
  const values = (cells: readonly string[], list: readonly number[]) =>
    list.map((i) => cells[i] ?? '').filter((cell) => cell !== '').map(Number);
  return readVectors({
    astrolabeVectors: 1,
    request: {},
    rows: lines.map((cells) => {
      const expected = values(cells, outputs);
      const scale = words(cells, 'scale').map(Number);
      return {
        id: cells[at('id')],
        kind: cells[at('kind')],
        input: values(cells, inputs),
        expected: expected.length ? expected : null,
        ...(scale.length && { scale }),
        ...(at('detects') >= 0 && { detects: words(cells, 'detects') }),
      };
    }),
  });
} // prettier-ignore

/**
 * An engine's answers: JSON, an object of lists by the ids of the rows, or lines of comma separated
 * values, an id and its numbers; nothing behind an id, or `none`, is no picture. A sentence for what is neither.
 */
export function readAnswers(text: string): Answers | string {
  if (/^\s*[{[]/.test(text)) {
    const read = readJsonText(text);
    if ('problem' in read) return `The answers are not JSON: ${read.problem}.`;
    const { value } = read;
    const shape = 'The answers are an object of lists of numbers, by the ids of the rows: { "view": [16 numbers], "point 1": [x, y] }.'; // prettier-ignore
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return shape;
    const answers = new Map<string, readonly number[] | null>();
    for (const [id, list] of Object.entries(value)) {
      const own = answered.safeParse(list);
      if (!own.success) return shape;
      answers.set(id, own.data);
    }
    return answers;
  }
  const answers = new Map<string, readonly number[] | null>();
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    const [id = '', ...cells] = line.split(',').map((cell) => cell.trim().replace(/^"|"$/g, ''));
    if (!id || (i === 0 && id === 'id')) continue;
    const given = cells.filter((cell) => cell !== '');
    if (!given.length || /^none|null$/i.test(given[0]!)) {
      answers.set(id, null);
      continue;
    }
    const list = given.map(numberIn);
    const wrong = list.indexOf(null);
    if (wrong >= 0) return `Line ${i + 1}: “${given[wrong]}” is no number. A line is an id and its numbers, parted by commas.`; // prettier-ignore
    answers.set(id, list as readonly number[]);
  }
  return answers.size ? answers : 'There are no answers: a line is an id and its numbers, parted by commas.';
}

/**
 * A number as an engine prints it, not-a-number and the infinities in the spellings of the languages' libraries
 * included; null for anything else.
 */
function numberIn(cell: string): number | null {
  const special = /^([-+]?)(?:(nan|1\.#(?:qnan|ind|snan))(?:\([\w]*\))?|inf(?:inity)?|1\.#inf)[\d]*$/i.exec(cell);
  if (special) return special[2] ? NaN : special[1] === '-' ? -Infinity : Infinity;
  const value = Number(cell);
  return cell === '' || Number.isNaN(value) ? null : value;
}

/**
 * Writes test vectors as a CSV table: id, kind, inputs, expected outputs, then the sizes that tolerances are a share
 * of and the faults that the row detects, with spaces between them.
 */
export function vectorsTable({ rows }: Vectors): string {
  // As many columns whatever the rows are, so that a harness can count on them.
  const most = { input: inputCount, expected: 16 };
  const heads = (name: string, count: number) => Array.from({ length: count }, (_, i) => `${name} ${i + 1}`);
  const cells = (list: readonly number[], count: number) => Array.from({ length: count }, (_, i) => (list[i] === undefined ? '' : String(list[i]))); // prettier-ignore
  return writeTable(
    ['id', 'kind', ...heads('in', most.input), ...heads('out', most.expected), 'scale', 'detects'],
    rows.map(({ id, kind, input, expected, scale, detects }) => [id, kind, ...cells(input, most.input), ...cells(expected ?? [], most.expected), scale?.map((v) => Number(v.toPrecision(4))).join(' ') ?? '', detects?.join(' ') ?? '']), // prettier-ignore
  );
}
