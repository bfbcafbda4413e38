import type { Vec3, Vec4 } from './vec3';

/**
 * Sixteen numbers of a 4×4 matrix, row after row, meant for column vectors (p′ = M·p): element
 * (row, column) is `m[4·row + column]`. This is the canonical only form; `conventions/` writes
 * every other.
 */
export type Mat4 = readonly number[] & { readonly length: 16 };

/** Takes sixteen numbers listed row by row. A different count is a programmer's error. */
export function mat4(values: readonly number[]): Mat4 {
  if (values.length !== 16) throw new RangeError(`a 4×4 matrix has 16 numbers, not ${values.length}`);
  return values as Mat4;
}

/** Returns whether all numbers of a matrix are finite. */
export const isFiniteMatrix = (m: Mat4): boolean => m.every(Number.isFinite);

export const identity: Mat4 = mat4([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);

/** The product A·B: what B does first and A after it. */
export function multiply(a: Mat4, b: Mat4): Mat4 {
  const e = (row: number, column: number) =>
    a[row]! * b[column]! + a[row + 1]! * b[4 + column]! + a[row + 2]! * b[8 + column]! + a[row + 3]! * b[12 + column]!;
  // Written out: many bodies are placed at once, and an array that grows costs more than its sums.
  // prettier-ignore
  return mat4([
    e(0, 0), e(0, 1), e(0, 2), e(0, 3),
    e(4, 0), e(4, 1), e(4, 2), e(4, 3),
    e(8, 0), e(8, 1), e(8, 2), e(8, 3),
    e(12, 0), e(12, 1), e(12, 2), e(12, 3),
  ]);
}

/** Rows for columns. */
export function transpose(m: Mat4): Mat4 {
  const out: number[] = [];
  for (let row = 0; row < 4; row++) for (let column = 0; column < 4; column++) out.push(m[4 * column + row]!);
  return mat4(out);
}

/** M·(x, y, z, w). */
export function transform(m: Mat4, v: Vec4): Vec4 {
  const row = (i: number) => m[i]! * v[0] + m[i + 1]! * v[1] + m[i + 2]! * v[2] + m[i + 3]! * v[3];
  return [row(0), row(4), row(8), row(12)];
}

/** An affine matrix applied to a point. */
export function transformPoint(m: Mat4, p: Vec3): Vec3 {
  const [x, y, z] = transform(m, [p[0], p[1], p[2], 1]);
  return [x, y, z];
}

/** The linear part of a matrix applied to a displacement. */
export function transformDirection(m: Mat4, d: Vec3): Vec3 {
  const [x, y, z] = transform(m, [d[0], d[1], d[2], 0]);
  return [x, y, z];
}

/** The affine matrix whose linear columns are x, y, z and whose translation is t. */
export function affine(x: Vec3, y: Vec3, z: Vec3, t: Vec3): Mat4 {
  return mat4([x[0], y[0], z[0], t[0], x[1], y[1], z[1], t[1], x[2], y[2], z[2], t[2], 0, 0, 0, 1]);
}

/** The determinant of the upper left 3×3 part: the signed volume scale. */
export function linearDeterminant(m: Mat4): number {
  return (
    m[0]! * (m[5]! * m[10]! - m[6]! * m[9]!) -
    m[1]! * (m[4]! * m[10]! - m[6]! * m[8]!) +
    m[2]! * (m[4]! * m[9]! - m[5]! * m[8]!)
  );
}

/**
 * The inverse of an affine matrix, or null when its linear part is singular (volume scale 0, or too
 * small for doubles). Cofactors of the 3×3 part; the translation is carried back through them.
 */
export function invertAffine(m: Mat4): Mat4 | null {
  const det = linearDeterminant(m);
  if (!Number.isFinite(1 / det)) return null;
  const c = (i: number, j: number, k: number, l: number) => (m[i]! * m[j]! - m[k]! * m[l]!) / det;
  const [a00, a01, a02] = [c(5, 10, 6, 9), c(2, 9, 1, 10), c(1, 6, 2, 5)];
  const [a10, a11, a12] = [c(6, 8, 4, 10), c(0, 10, 2, 8), c(2, 4, 0, 6)];
  const [a20, a21, a22] = [c(4, 9, 5, 8), c(1, 8, 0, 9), c(0, 5, 1, 4)];
  const back = (x: number, y: number, z: number) => -(x * m[3]! + y * m[7]! + z * m[11]!);
  // prettier-ignore
  return mat4([
    a00, a01, a02, back(a00, a01, a02),
    a10, a11, a12, back(a10, a11, a12),
    a20, a21, a22, back(a20, a21, a22),
    0, 0, 0, 1,
  ]);
}
