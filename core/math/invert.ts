import { mat4, type Mat4 } from './mat4';

/**
 * The inverse of any matrix, by elimination with the largest pivot of rows that were brought to one
 * size; null for one that flattens to within rounding.
 */
export function invert4(m: Mat4): Mat4 | null {
  const rows = [0, 1, 2, 3].map((r) => {
    const row = [0, 1, 2, 3].map((c) => m[4 * r + c]!);
    return [...row, ...[0, 1, 2, 3].map((c) => (c === r ? 1 : 0))];
  });
  const sizes = rows.map((row) => Math.max(...row.slice(0, 4).map(Math.abs)));
  for (let c = 0; c < 4; c++) {
    let best = c;
    for (let r = c + 1; r < 4; r++) if (Math.abs(rows[r]![c]!) * sizes[best]! > Math.abs(rows[best]![c]!) * sizes[r]!) best = r; // prettier-ignore
    const pivot = rows[best]![c]!;
    if (!(Math.abs(pivot) > 1e-14 * sizes[best]!)) return null;
    [rows[c], rows[best]] = [rows[best]!, rows[c]!];
    [sizes[c], sizes[best]] = [sizes[best]!, sizes[c]!];
    const top = rows[c]!;
    for (let r = 0; r < 4; r++) {
      if (r === c) continue;
      const k = rows[r]![c]! / pivot;
      if (k !== 0) for (let i = c; i < 8; i++) rows[r]![i] = rows[r]![i]! - k * top[i]!;
    }
  }
  const out = rows.flatMap((row, r) => row.slice(4).map((v) => v / rows[r]![r]!));
  return out.every(Number.isFinite) ? mat4(out) : null;
}
