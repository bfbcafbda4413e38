/** A column of a file: its heading, if it has one, and what stands in it first. */
export interface Column {
  readonly heading: string | null;
  readonly sample: string;
  /** Whether at least half of what stands in it are numbers. */
  readonly numbers: boolean;
  /** Whether it is the first and counts the lines, from 0 or 1 one up from line to line. */
  readonly counts: boolean;
}

/** What the columns are taken for. */
export interface Reading {
  /** A column for each coordinate, counted from 0; null where none is chosen yet. */
  readonly coordinates: readonly { readonly column: number | null; readonly negated: boolean }[];
  readonly naming: number | null;
  /** How many of the world's units one of the file's is. */
  readonly unit: number;
}

/** A column by its heading, or by its place counted from 1. */
export const columnName = (columns: readonly Column[], column: number): string =>
  columns[column]?.heading ?? `column ${column + 1}`;

/** What the columns of a text were taken for, in words: “x from pos_x, −y from column 3”. */
export function readingWords(columns: readonly Column[], reading: Reading, letters: readonly string[]): string {
  const from = reading.coordinates.map(({ column, negated }, k) =>
    column === null ? '' : `${negated ? '−' : ''}${letters[k]} from ${columnName(columns, column)}`,
  );
  if (reading.naming !== null) from.push(`names from ${columnName(columns, reading.naming)}`);
  if (reading.unit !== 1) from.push(`each times ${reading.unit}`);
  return from.filter(Boolean).join(', ');
}
