import * as z from 'zod';
import { writeTable } from './csv';
import { type Answers, type Checked, type Vectors } from '../core/deliver/vectors';
import { vectorKinds } from '../core/deliver/vectorRows';
import { escaped } from './escaped';

const numbers = z.array(z.number()).nullable();
/** Answers in JSON, which cannot write NaN or infinity: a text or null in a list is one of them. */
const answered = z
  .array(z.union([z.number(), z.string().transform((text) => numberIn(text) ?? NaN), z.null().transform(() => NaN)]))
  .nullable();
const vectorsSchema = z.object({
  astrolabeVectors: z.literal(1),
  request: z.looseObject({}),
  rows: z.array(
    z.object({
      id: z.string().min(1),
      kind: z.enum(vectorKinds),
      input: z.array(z.number()),
      expected: numbers,
    }),
  ),
});
/** Test vectors from any JSON value; a sentence for what is none. */
export function readVectors(value: unknown): Vectors | string {
  const read = vectorsSchema.safeParse(value);
  if (read.success) return read.data as Vectors;
  const [first] = read.error.issues;
  return `These are no test vectors: ${first!.path.join('.') || 'the document'}: ${first!.message}. Write them by “astrolabe vectors”.`;
}

/**
 * An engine's answers: JSON, an object of lists by the ids of the rows, or lines of comma separated
 * values, an id and its numbers; nothing behind an id, or `none`, is no picture. A sentence for what is neither.
 */
export function readAnswers(text: string): Answers | string {
  if (/^\s*[{[]/.test(text)) {
    let value: unknown;
    try {
      value = JSON.parse(text);
    } catch (error) {
      return `The answers are not JSON: ${(error as Error).message}.`;
    }
    const shape = 'The answers are an object of lists of numbers, by the ids of the rows: { "view": [16 numbers], "point 1": [x, y] }.'; // prettier-ignore
    if (typeof value !== 'object' || value === null || Array.isArray(value)) return shape;
    const answers = new Map<string, readonly number[] | null>();
    for (const [id, list] of Object.entries(value)) {
      const read = answered.safeParse(list);
      if (!read.success) return shape;
      answers.set(id, read.data);
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

/** Test vectors as a table: id, what is asked, what goes in, what is to come out. */
export function vectorsTable({ rows }: Vectors): string {
  // As many columns whatever the rows are, so that a harness can count on them.
  const most = { input: 3, expected: 16 };
  const heads = (name: string, count: number) => Array.from({ length: count }, (_, i) => `${name} ${i + 1}`);
  const cells = (list: readonly number[], count: number) => Array.from({ length: count }, (_, i) => (list[i] === undefined ? '' : String(list[i]))); // prettier-ignore
  return writeTable(
    ['id', 'kind', ...heads('in', most.input), ...heads('out', most.expected)],
    rows.map(({ id, kind, input, expected }) => [id, kind, ...cells(input, most.input), ...cells(expected ?? [], most.expected)]), // prettier-ignore
  );
}

/** What was checked in the form of JUnit: a suite, a case a row. */
export const junitOf = ({ rows, wrong, suggests }: Checked): string =>
  [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuite name="astrolabe check" tests="${rows.length}" failures="${wrong}">`,
    ...rows.map(({ id, kind, ok, says }) => `  <testcase classname="${kind}" name="${escaped(id)}"${ok ? '/>' : `><failure message="${escaped(says)}"/></testcase>`}`), // prettier-ignore
    ...(suggests.length ? [`  <system-out>${escaped(suggests.join('\n'))}</system-out>`] : []),
    '</testsuite>',
    '',
  ].join('\n');
