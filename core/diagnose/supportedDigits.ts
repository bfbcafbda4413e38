import type { Mat4 } from '../math/mat4';
import type { MatrixName } from './faults';

type Matrices = Readonly<Partial<Record<MatrixName, Mat4>>>;
/** Numbers read off matrices, by name; null where there is none. */
export type ReadNumbers = Readonly<Record<string, number | readonly number[] | null>>;

/** Half of one unit of the last trusted figure of a number; 0 for 0. */
const halfUnit = (v: number, digits: number): number =>
  v === 0 ? 0 : 0.5 * 10 ** (Math.floor(Math.log10(Math.abs(v))) + 1 - digits);

/** The figures of a number that an uncertainty leaves: the unit of the last one is at least twice the uncertainty. */
function figuresOf(value: number, uncertainty: number): number {
  if (uncertainty === 0) return 15;
  if (!Number.isFinite(uncertainty) || value === 0) return 0;
  const figures = Math.floor(Math.log10(Math.abs(value))) + 1 - Math.ceil(Math.log10(2 * uncertainty));
  return Math.max(0, Math.min(15, figures));
}

/**
 * Returns how many figures of each number that is read off matrices their digits support: every entry is moved by half
 * a unit of its last trusted figure, and the changes of a number are added in squares. A vector has the figures of its
 * largest coordinate.
 *
 * @param read - reads the numbers; null where the matrices hold none
 * @returns figures from 0 to 15, by name; numbers that are null are left out
 * @see JCGM 100:2008 (GUM), §5.1: propagation of uncorrelated uncertainties
 */
export function supportedDigits(
  matrices: Matrices,
  digits: number,
  read: (matrices: Matrices) => ReadNumbers | null,
): Readonly<Record<string, number>> {
  const base = read(matrices);
  if (!base) return {};
  const listOf = (v: number | readonly number[] | null): readonly number[] =>
    v === null ? [] : typeof v === 'number' ? [v] : v;
  const names = Object.keys(base).filter((name) => base[name] !== null);
  const squares = new Map(names.map((name) => [name, listOf(base[name]!).map(() => 0)]));
  for (const [name, m] of Object.entries(matrices) as [MatrixName, Mat4][])
    for (const [i, v] of m.entries()) {
      const step = halfUnit(v, digits);
      if (!step) continue;
      const moved = m.map((one, k) => (k === i ? one + step : one)) as unknown as Mat4;
      const other = read({ ...matrices, [name]: moved });
      for (const of of names) {
        const sums = squares.get(of)!;
        const now = other && other[of] !== null ? listOf(other[of]!) : null;
        for (const [k, was] of listOf(base[of]!).entries()) sums[k]! += now ? (now[k]! - was) ** 2 : Infinity;
      }
    }
  return Object.fromEntries(
    names.map((name) => {
      const values = listOf(base[name]!);
      const size = Math.max(...values.map(Math.abs));
      return [name, figuresOf(size, Math.sqrt(Math.max(...squares.get(name)!)))];
    }),
  );
}
