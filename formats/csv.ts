import Papa from 'papaparse';
import type { Problem } from '../core/reasons';
import type { Column, Reading } from './pointColumns';

/**
 * Points as they stand in a file, in whatever conventions: coordinates after one another, two or
 * three a point, and names if there is a column of them.
 */
export interface PointList {
  readonly coordinates: Float64Array;
  /** How many coordinates a point has. */
  readonly size: 2 | 3;
  readonly names: readonly string[] | null;
}

export type ReadPoints =
  | {
      readonly ok: true;
      readonly value: PointList;
      readonly columns: readonly Column[];
      readonly reading: Reading;
    }
  | {
      readonly ok: false;
      readonly problems: readonly Problem[];
      /** Where the text has columns and only what they are is in doubt. */
      readonly columns?: readonly Column[];
      readonly reading?: Reading;
    };

/** A cell that a spreadsheet would run as a formula: it begins as one, and is no number. */
const formula = /^(?![+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$)[=+\-@\t\r]/i;
/** A cell that `writeTable` has guarded with an apostrophe, without it. */
const withoutGuard = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

/** Longer than any number is printed: what is longer is none. */
const longestNumber = 400;

/** A number as logs print it; null when it is none, or not finite. */
function numberIn(cell: string, decimalComma = false): number | null {
  if (cell.length > longestNumber) return null;
  const bare = cell.trim().replace(/^[[({<]\s*/, '').replace(/\s*[\])}>]$/, '').replace(/f$/i, ''); // prettier-ignore
  const text = decimalComma ? bare.replace(',', '.') : bare;
  if (!/^[+-]?(\d+(\.\d*)?|\.\d+)(e[+-]?\d+)?$/i.test(text)) return null;
  const value = Number(text);
  return Number.isFinite(value) ? value : null;
}

/** The most problems that are listed; after that it is the file, not its lines. */
export const mostProblems = 20;

/** Text as lines of cells, with how numbers are written in it. */
export interface Table {
  readonly columns: readonly Column[];
  readonly rows: readonly { readonly cells: readonly string[]; readonly line: number }[];
  readonly number: (cell: string) => number | null;
}

export const lineOf = (line: number) => `line ${line}`;

/** Text as lines of cells with what each column is like, or what is wrong with all of it. */
export function tabulate(given: string): Table | Problem {
  const text = given.replace(/^\uFEFF/, '');
  // Blanks alone divide only where nothing else does.
  const first = /\S.*/.exec(text)?.[0] ?? '';
  const blanks = !/[,;\t|]/.test(first) || /^([+-]?\d+,\d+\s+)+[+-]?\d+,\d+\s*$/.test(first);
  const parsed = Papa.parse<string[]>(blanks ? text.replace(/[ \t]+/g, ' ').replace(/^ | $/gm, '') : text, {
    delimiter: blanks ? ' ' : '',
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const torn = parsed.errors.find(({ type }) => type === 'Quotes');
  if (torn)
    return {
      path: lineOf((torn.row ?? 0) + 1),
      message: 'A quotation mark opens there and is not closed where the cell ends. Close it, or take it out.',
    };
  /** What has something in it and is no comment, with the number of its line. */
  const all = parsed.data
    .map((cells, i) => ({ cells: cells.map(withoutGuard), line: i + 1 }))
    .filter(({ cells }) => cells.some((cell) => cell.trim()));
  const isComment = (cells: readonly string[]) =>
    /^\s*(#|\/\/)/.test(cells[0]!) && cells.filter((cell) => numberIn(cell) !== null).length < 2;
  const rows = all.filter(({ cells }, i) => i === 0 || !isComment(cells));
  if (!rows.length)
    return { path: '', message: 'There are no lines in it. Give a point a line, its coordinates side by side.' };
  // Headings may stand behind the mark of a comment.
  const marked = isComment(rows[0]!.cells) && /^\s*(#|\/\/)\s*/.exec(rows[0]!.cells[0]!)?.[0];
  if (marked) {
    const bare = [rows[0]!.cells[0]!.slice(marked.length), ...rows[0]!.cells.slice(1)].filter(
      (cell, i) => i > 0 || cell,
    );
    if (bare.length === rows[1]?.cells.length) rows[0] = { ...rows[0]!, cells: bare };
    else rows.shift();
  }
  if (!rows.length)
    return { path: '', message: 'There are only comments in it. Give a point a line, its coordinates side by side.' };
  // Of the letters of numbers and brackets alone, and no name: names may have any letters.
  const named = rows[0]!.cells.findIndex((cell) => /^\s*(name|label|id)\s*$/i.test(cell));
  const crowds = (cell: string, i: number) =>
    i !== named && /^[\d\s.,;eE()[\]{}+-]+$/.test(cell) && /\d\s*[\])}]\s*[[({]\s*[-+]?\.?\d/.test(cell);
  const crowded = rows.find(({ cells }) => cells.some(crowds));
  if (crowded)
    return {
      path: lineOf(crowded.line),
      message: 'There is more than one point in the line. Give each a line of its own.',
    };
  // Decimals with commas, where commas divide nothing.
  const sample = rows.slice(0, 200).flatMap(({ cells }) => cells);
  const decimalComma =
    parsed.meta.delimiter !== ',' &&
    sample.some((cell) => /^\s*[+-]?\d+,\d+\s*$/.test(cell)) &&
    !sample.some((cell) => /^\s*[+-]?\d+\.\d+\s*$/.test(cell));
  const number = (cell: string) => numberIn(cell, decimalComma);
  const headed = rows[0]!.cells.every((cell) => number(cell) === null);
  const heads = headed ? rows.shift()! : null;
  const twice = heads?.cells
    .map((cell) => cell.trim().toLowerCase())
    .find((cell, i, list) => /^(?:[xyz]|name|label|id)$/.test(cell) && list.indexOf(cell) < i);
  if (twice !== undefined)
    return {
      path: lineOf(heads!.line),
      message: `Two columns are called “${twice}”. Give one of them another name.`,
    };
  if (!rows.length)
    return { path: lineOf(heads!.line), message: 'There is nothing below the headings. Give a point a line.' };
  const width = Math.max(heads?.cells.length ?? 0, rows[0]!.cells.length);
  const columns = Array.from({ length: width }, (_, column): Column => {
    let numbers = 0;
    let counts = column === 0 && rows.length > 1;
    let before: number | null = null;
    for (const { cells } of rows) {
      const value = number(cells[column] ?? '');
      if (value !== null) numbers++;
      counts &&= before === null ? value === 0 || value === 1 : value === before + 1;
      before = value;
    }
    return {
      heading: heads?.cells[column]?.trim() || null,
      sample: (rows[0]!.cells[column] ?? '').trim().slice(0, 40),
      numbers: numbers > 0 && 2 * numbers >= rows.length,
      counts,
    };
  });
  return { columns, rows, number };
}

/** A heading as words: `posX`, `pos_x`, `Position.x` and `x (m)` all have the word x. */
const wordsOf = (heading: string): string[] =>
  heading
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .flatMap((word) => /^(p|t|pos|loc|coord|translate)([xyz])$/.exec(word)?.slice(1) ?? word)
    .filter(Boolean);

const places =
  /^(p|t|pos|position|loc|location|point|world|coord|coordinate|coordinates|translate|translation|origin)$/;
const elses = /^(vel|velocity|v|normal|n|rot|rotation|scale|size|dir|direction|view|clip|ndc|screen|acc|uv)$/;
const namings = ['name', 'label', 'id', 'title'];
const indices = /^(#|i|n|no|nr|id|idx|index|row|line|frame|step|t|time|timestamp|seconds|ms)$/;

/**
 * The columns whose headings name the letters: those of one thing (`pos_x` goes with `pos_y`), of
 * places before all else; a null where a letter is missing.
 */
function byHeading(columns: readonly Column[], letters: readonly string[]): (number | null)[] | null {
  const groups = new Map<string, (number | null)[]>();
  for (const [column, { heading }] of columns.entries()) {
    const words = wordsOf(heading ?? '');
    const k = letters.findIndex((letter) => words.includes(letter));
    if (k < 0) continue;
    const key = words.filter((word) => word !== letters[k]).join(' ');
    const group = groups.get(key) ?? letters.map(() => null);
    group[k] ??= column;
    groups.set(key, group);
  }
  const rank = (key: string, group: (number | null)[]) => {
    const words = key.split(' ');
    const kind = words.some((word) => places.test(word)) ? 0 : key === '' ? 1 : words.some((word) => elses.test(word)) ? 3 : 2; // prettier-ignore
    return (group.includes(null) ? 10 : 0) + kind;
  };
  const ranked = [...groups].sort(([a, x], [b, y]) => rank(a, x) - rank(b, y));
  return ranked[0]?.[1] ?? null;
}

/** What the columns are taken for by their headings and by what stands in them. */
function guess(columns: readonly Column[], letters: readonly string[]): Reading {
  const wordsAt = columns.map(({ heading }) => wordsOf(heading ?? ''));
  const named = namings.map((name) => wordsAt.findIndex(([word, ...more]) => word === name && !more.length));
  let naming: number | null = named.find((column) => column >= 0) ?? null;
  let found: (number | null)[] | null = byHeading(columns, letters);
  if (!found) {
    const numeric = [...columns.keys()].filter((column) => columns[column]!.numbers);
    const index = (column: number) =>
      wordsAt[column]!.some((word) => indices.test(word)) ||
      (columns[column]!.counts && numeric.length > letters.length);
    const places = numeric.filter((column) => !index(column));
    const taken = places.length >= letters.length ? places : numeric;
    found = letters.map((_, k) => taken[k] ?? null);
    if (naming === null && !columns[0]!.numbers) naming = 0;
  }
  if (naming !== null && found.includes(naming)) naming = null;
  return { coordinates: found.map((column) => ({ column, negated: false })), naming, unit: 1 };
}

/**
 * How many coordinates the points of a text have, by its headings or else by the columns of
 * numbers that it has: 3 where both would do.
 */
export function sizeOf(text: string): 2 | 3 {
  const table = tabulate(text);
  if (!('rows' in table)) return 3;
  const whole = (letters: readonly string[]) =>
    !guess(table.columns, letters).coordinates.some((c) => c.column === null);
  return !whole(['x', 'y', 'z']) && whole(['x', 'y']) ? 2 : 3;
}

/**
 * Points from delimited text: commas, semicolons, tabs, bars or blanks, found out from the text,
 * with or without a line of headings. What the columns are taken for is `reading`, or else guessed:
 * by headings that have one of `letters` as a word (all of one thing: `pos_x`, `pos_y`, `pos_z`),
 * and without such by the columns of numbers in their order, those left out that count the lines or
 * are headed as an index or a time. A column name, label or id, or a first column of words, names
 * the points. Decimals may have commas where commas divide nothing; brackets round a point are no
 * matter. What it was taken for comes back with the points. A line that is no point is a problem of
 * the file (path `line 3`), and nothing of it is taken.
 */
export function readPoints(text: string, letters: readonly string[], reading?: Reading): ReadPoints {
  const table = tabulate(text);
  if (!('rows' in table)) return { ok: false, problems: [table] };
  const { columns, rows, number } = table;
  const taken = reading ?? guess(columns, letters);
  const refuse = (...problems: Problem[]): ReadPoints => ({ ok: false, problems, columns, reading: taken });
  const missing = letters.filter((_, k) => taken.coordinates[k]!.column === null);
  if (missing.length) {
    const there = letters.filter((letter) => !missing.includes(letter));
    const numeric = columns.filter(({ numbers }) => numbers).length;
    return refuse(
      reading || (columns.some(({ heading }) => heading) && there.length)
        ? {
            path: lineOf(Math.max(1, rows[0]!.line - 1)),
            message: `${there.length ? `There are columns for ${there.join(' and ')}, and not for` : 'There is no column for'} ${missing.join(' and ')}. Name ${letters.join(', ')}, or choose the columns.`,
          }
        : {
            path: lineOf(rows[0]!.line),
            message: `It has ${numeric} ${numeric === 1 ? 'number' : 'numbers'}, and a point has ${letters.length}. Give ${letters.join(', ')} side by side.`,
          },
    );
  }
  const size = letters.length as 2 | 3;
  const coordinates = new Float64Array(rows.length * size);
  const names: string[] | null = taken.naming === null ? null : [];
  const problems: Problem[] = [];
  for (const [i, { cells, line }] of rows.entries()) {
    for (const [k, { column, negated }] of taken.coordinates.entries()) {
      const cell = cells[column!];
      const value = cell === undefined ? null : number(cell);
      if (value !== null) coordinates[i * size + k] = value * taken.unit * (negated ? -1 : 1) || 0;
      else if (problems.length < mostProblems)
        problems.push({ path: lineOf(line), message: faultOf(cell, letters[k]!) });
    }
    names?.push(cells[taken.naming!] ?? '');
  }
  return problems.length
    ? refuse(...problems)
    : { ok: true, value: { coordinates, size, names }, columns, reading: taken };
}

/** What is wrong with a cell that should hold a number, in a sentence with the mend. */
export function faultOf(cell: string | undefined, letter: string): string {
  if (cell === undefined) return `${letter} is missing. Give it, or take the line out.`;
  const shown = `${letter} is “${cell.trim().slice(0, 40)}”`;
  if (/^\s*[+-]?\d+,\d+\s*$/.test(cell))
    return `${shown}, with a comma for its decimals where others have a point. Write all of them one way.`;
  return `${shown}, which is no number. Mend it, or take the line out.`;
}

/**
 * Writes rows of named columns as comma-separated text, with a line of headings. A text that a spreadsheet would run as
 * a formula gets an apostrophe before it, which the reader takes off again.
 */
export const writeTable = (heads: readonly string[], rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse({ fields: [...heads], data: rows as (string | number)[][] }, { newline: '\n', escapeFormulae: formula })}\n`;
