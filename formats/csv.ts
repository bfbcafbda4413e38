import Papa from 'papaparse';
import type { Problem } from '../core/reasons';

/** Points as they stand in a file, in whatever conventions: coordinates after one another, two or three a point, and names if there is a column of them. */
export interface PointList {
  readonly coordinates: Float64Array;
  /** How many coordinates a point has. */
  readonly size: 2 | 3;
  readonly names: readonly string[] | null;
}

export type ReadPoints =
  { readonly ok: true; readonly value: PointList } | { readonly ok: false; readonly problems: readonly Problem[] };

/** A number as logs print it; null when it is none, or not finite. */
function numberIn(cell: string): number | null {
  const text = cell
    .replace(/[[\](){}<>]/g, '')
    .replace(/f$/i, '')
    .trim();
  if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text)) return null;
  const value = Number(text);
  return Number.isFinite(value) ? value : null;
}

/** The most problems that are listed; after that it is the file, not its lines. */
const mostProblems = 20;

/**
 * Points from delimited text: commas, semicolons, tabs, bars or blanks, found out from the text, with or without a line of headings. Headings x, y and z (x and y
 * when `size` is 2) say which columns; without them the first columns of numbers are taken. A column named name, id or label, or a first column of words, names the points. Brackets round
 * a point are no matter. A line that is no point is a problem of the file (path `line 3`), and nothing of it is taken.
 */
export function readPoints(text: string, size: 2 | 3): ReadPoints {
  const refuse = (...problems: Problem[]): ReadPoints => ({ ok: false, problems });
  // Blanks alone divide only where nothing else does.
  const first = /\S.*/.exec(text)?.[0] ?? '';
  const blanks = !/[,;\t|]/.test(first);
  const parsed = Papa.parse<string[]>(blanks ? text.replace(/[ \t]+/g, ' ').replace(/^ | $/gm, '') : text, {
    delimiter: blanks ? ' ' : '',
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  /** What has something in it, with the number of its line. */
  const lines = parsed.data
    .map((cells, i) => ({ cells, line: i + 1 }))
    .filter(({ cells }) => cells.some((cell) => cell.trim()));
  const rows = lines.map(({ cells }) => cells);
  const lineOf = (row: number) => `line ${lines[row]!.line}`;
  if (!rows.length)
    return refuse({
      path: '',
      message: 'There are no lines in it. Give a point a line, its coordinates side by side.',
    });
  const headed = rows[0]!.every((cell) => numberIn(cell) === null);
  const heads = headed ? rows[0]!.map((cell) => cell.trim().toLowerCase()) : [];
  const wanted = ['x', 'y', 'z'].slice(0, size);
  let columns = wanted.map((letter) => heads.indexOf(letter));
  let naming = heads.findIndex((head) => ['name', 'id', 'label'].includes(head));
  const body = rows.slice(headed ? 1 : 0);
  if (!body.length)
    return refuse({ path: lineOf(0), message: 'There is nothing below the headings. Give a point a line.' });
  if (columns.some((column) => column < 0)) {
    const present = columns.filter((column) => column >= 0).length;
    if (headed && present)
      return refuse({
        path: lineOf(0),
        message: `The headings name ${wanted.filter((_, i) => columns[i]! >= 0).join(' and ')}, and not ${wanted.filter((_, i) => columns[i]! < 0).join(' and ')}. Name ${wanted.join(', ')}.`,
      });
    const numeric = body[0]!.map((cell, i) => (numberIn(cell) === null ? -1 : i)).filter((i) => i >= 0);
    if (numeric.length < size)
      return refuse({
        path: lineOf(headed ? 1 : 0),
        message: `It has ${numeric.length} numbers, and a point has ${size}. Give ${wanted.join(', ')} side by side.`,
      });
    columns = numeric.slice(0, size);
    if (naming < 0 && !columns.includes(0) && body[0]!.length > size) naming = 0;
  }
  const coordinates = new Float64Array(body.length * size);
  const names: string[] | null = naming >= 0 ? [] : null;
  const problems: Problem[] = [];
  for (const [i, row] of body.entries()) {
    for (const [k, column] of columns.entries()) {
      const cell = row[column];
      const value = cell === undefined ? null : numberIn(cell);
      if (value !== null) coordinates[i * size + k] = value;
      else if (problems.length < mostProblems)
        problems.push({
          path: lineOf(i + (headed ? 1 : 0)),
          message:
            cell === undefined
              ? `${wanted[k]} is missing. Give it, or take the line out.`
              : `${wanted[k]} is “${cell.slice(0, 40)}”, which is no number. Mend it, or take the line out.`,
        });
    }
    names?.push(row[naming] ?? '');
  }
  return problems.length ? { ok: false, problems } : { ok: true, value: { coordinates, size, names } };
}

/** Rows of named columns as comma-separated text, with a line of headings. */
export const writeTable = (heads: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse({ fields: [...heads], data: rows as (string | number)[][] }, { newline: '\n' })}\n`;
