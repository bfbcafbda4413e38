/** How the edges of a row of tiles meet when each is put on whole pixels by itself. */
export interface Seams {
  /** Neighbours between which a column of pixels is left. */
  readonly gaps: number;
  /** Neighbours that cover one another by a column of pixels. */
  readonly overlaps: number;
}

/** How far a size may be from a whole number by rounding, in pixels. */
const rounding = 1e-9;

/**
 * The seams of a row of `count` tiles of a size, the first of which begins at `start`, in pixels,
 * drawn as is customary: each tile's corner and its size rounded to whole pixels. With a start and a
 * size that are whole pixels there are none; a whole size alone leaves none either, but the row moves
 * in jumps. Halves go up; a size that is whole but for the rounding of doubles is whole.
 */
export function seamsOf(start: number, size: number, count: number): Seams {
  const round = (v: number) => Math.floor(v + 0.5);
  const whole = round(size);
  if (Math.abs(size - whole) < rounding) return { gaps: 0, overlaps: 0 };
  let [gaps, overlaps] = [0, 0];
  for (let i = 0; i + 1 < count; i++) {
    const off = round(start + (i + 1) * size) - (round(start + i * size) + whole);
    if (off > 0) gaps++;
    else if (off < 0) overlaps++;
  }
  return { gaps, overlaps };
}
