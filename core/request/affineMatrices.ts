import { affineList, type Affine2d } from './affine2d';

/** Returns a mapping as a matrix of 6, 9 or 16 numbers. */
export function matrixNumbers(of: Affine2d, count: number, isByColumns: boolean): readonly number[] {
  if (count === 6) return affineList(of, isByColumns);
  const { a, b, tx, c, d, ty } = of;
  const rows = count === 9
    ? [[a, b, tx], [c, d, ty], [0, 0, 1]] // prettier-ignore
    : [[a, b, 0, tx], [c, d, 0, ty], [0, 0, 1, 0], [0, 0, 0, 1]]; // prettier-ignore
  return isByColumns ? rows.flatMap((_, column) => rows.map((row) => row[column]!)) : rows.flat();
}

/**
 * Returns for each number of a listed matrix the smaller of the largest numbers in its row and in its column: the size
 * that its digits are measured by (`docs/compute.md`, "Diagnose").
 */
export function entrySizes(list: readonly number[], byColumns: boolean): readonly number[] {
  const across = list.length === 6 ? (byColumns ? 2 : 3) : Math.sqrt(list.length);
  const largestOf = (isSame: (i: number) => boolean) => Math.max(...list.map((v, i) => (isSame(i) ? Math.abs(v) : 0)));
  return list.map((_, k) =>
    Math.min(
      largestOf((i) => Math.floor(i / across) === Math.floor(k / across)),
      largestOf((i) => i % across === k % across),
    ),
  );
}
