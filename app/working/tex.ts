/*
 * Formulas as TeX. A number may carry where it comes from: it is set as \htmlData{from=…}{…} and
 * becomes a link.
 */

/** How numbers are written: for the eye, or with every digit that they have. */
export type Digits = (value: number) => string;

/** A place where a number was set, or an earlier line of the same working (`line-…`). */
export type From = string;

/**
 * TeX for numbers, vectors and matrices, written by `digits`; rows instead of columns where vectors
 * are rows.
 */
export function typesetter(digits: Digits, rows: boolean) {
  const number = (value: number, from?: From): string => {
    const text = digits(value === 0 ? 0 : value);
    return from ? `\\htmlData{from=${from}}{${text}}` : text;
  };
  /** In brackets when it is negative: behind an operator. */
  const term = (value: number, from?: From): string => (value < 0 ? `(${number(value, from)})` : number(value, from));
  const vector = (cells: readonly string[]): string =>
    `\\begin{bmatrix}${cells.join(rows ? '&' : '\\\\')}\\end{bmatrix}`;
  /** A square of cells by rows, as it is to stand. */
  const grid = (cells: readonly string[]): string => {
    const n = Math.sqrt(cells.length);
    const row = (i: number) => cells.slice(n * i, n * i + n).join('&');
    return `\\begin{bmatrix}${Array.from({ length: n }, (_, i) => row(i)).join('\\\\')}\\end{bmatrix}`;
  };
  /** A square matrix, by rows, for column vectors: transposed where vectors are rows. */
  const matrix = (m: readonly number[], from?: (row: number, column: number) => From): string => {
    const n = Math.sqrt(m.length);
    return grid(
      m.map((_, i) => {
        const [r, c] = rows ? [i % n, Math.floor(i / n)] : [Math.floor(i / n), i % n];
        return number(m[n * r + c]!, from?.(r, c));
      }),
    );
  };
  /** A matrix applied to a vector: p′ = M·p, or p′ = p·M. */
  const product = (m: string, v: string): string => (rows ? `${v}\\,${m}` : `${m}\\,${v}`);
  /** Matrices multiplied, listed as they stand for column vectors: the last acts first. */
  const productOf = (matrices: readonly string[]): string => (rows ? [...matrices].reverse() : matrices).join('\\,');
  const fraction = (over: string, under: string): string => `\\dfrac{${over}}{${under}}`;
  return { rows, number, term, vector, grid, matrix, product, productOf, fraction };
}
export type Typesetter = ReturnType<typeof typesetter>;

/** A line of a working: `name = formula = result`, the formula with its numbers put in. */
export interface Line {
  /** By which other lines refer to it. */
  readonly id: string;
  /** What it works out, in words. */
  readonly says: string;
  /** The left side, in symbols. */
  readonly name: string;
  readonly formula: string;
  /**
   * What the formula comes to: one number, the parts of a vector, or the nine numbers of a matrix
   * by rows, as it stands.
   */
  readonly result: readonly number[];
}
