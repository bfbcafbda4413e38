import { drawnStride, transformStride, type Scene } from './scene';

/*
 * Leaves out of the drawing what a picture cannot show. The bounds are conservative: they may keep a body or a
 * line that is out of view and never drop one that is in view.
 */

/** Vertices of the faces between two bodies in view that are drawn rather than skipped: a call costs as much. */
const shortestGap = 300;

/** The share of a number that singles may be off by, with a margin. */
const rounding = 1e-5;

/** Returns the planes of a clip volume as rows `a b c d`, non-negative inside: left, right, bottom, top, near, far. */
function planesOf(m: Float32Array): Float64Array {
  const planes = new Float64Array(24);
  for (let axis = 0; axis < 3; axis++)
    for (let k = 0; k < 4; k++) {
      const [w, v] = [m[4 * k + 3]!, m[4 * k + axis]!];
      planes[8 * axis + k] = w + v;
      planes[8 * axis + 4 + k] = w - v;
    }
  return planes;
}

/**
 * Returns the vertices of `scene.faces` that a picture may show, as pairs of the first vertex and their count.
 *
 * @param matrix - the picture's clip matrix, in columns, from the scene's space with NDC depth −1 to 1
 */
export function facesInView({ faceStarts, extents, transforms }: Scene, matrix: Float32Array): number[] {
  const planes = planesOf(matrix);
  const ranges: number[] = [];
  let end = -1;
  for (let body = 0; body < faceStarts.length - 1; body++) {
    const [first, next] = [faceStarts[body]!, faceStarts[body + 1]!];
    if (first === next) continue;
    const t = body * transformStride;
    const [x, y] = [transforms[t + 3]!, transforms[t + 7]!];
    const isLayered = transforms[t + 12]! > 0.5;
    const z = isLayered ? transforms[t + 13]! : transforms[t + 11]!;
    const [ex, ey, ez] = [extents[3 * body]!, extents[3 * body + 1]!, isLayered ? 0 : extents[3 * body + 2]!];
    let isOut = false;
    for (let p = 0; p < 24 && !isOut; p += 4) {
      const [a, b, c, d] = [planes[p]!, planes[p + 1]!, planes[p + 2]!, planes[p + 3]!];
      const reach = Math.abs(a) * ex + Math.abs(b) * ey + Math.abs(c) * ez;
      const size = Math.abs(a * x) + Math.abs(b * y) + Math.abs(c * z) + Math.abs(d) + reach;
      isOut = a * x + b * y + c * z + d + reach < -rounding * size;
    }
    if (isOut) continue;
    if (end >= 0 && first - end <= shortestGap) ranges[ranges.length - 1] = next - ranges[ranges.length - 2]!;
    else ranges.push(first, next - first);
    end = next;
  }
  return ranges;
}

/** Returns the lines that pass a test, in order. */
function filterLines(lines: Float32Array, isKept: (at: number) => boolean): Float32Array {
  const out = new Float32Array(lines.length);
  let n = 0;
  for (let i = 0; i < lines.length; i += drawnStride)
    if (isKept(i)) {
      out.set(lines.subarray(i, i + drawnStride), n);
      n += drawnStride;
    }
  return out.subarray(0, n);
}

/** Returns the margin of `linesInView` for edges in a picture of `size` device pixels, `pixel` to one of the page. */
export const lineMargin = (pixel: number, size: readonly [number, number]): number => (4 * pixel) / Math.min(...size);

/**
 * Returns the drawn edges that a picture may show: those without both ends beyond one side of it.
 *
 * @param matrix - as for `facesInView`
 * @param margin - how far beyond a side a line still reaches the picture, as a share of its half width
 */
export function linesInView(lines: Float32Array, matrix: Float32Array, margin: number): Float32Array {
  const m = matrix;
  const outside = (at: number): number => {
    const [px, py, pz] = [lines[at]!, lines[at + 1]!, lines[at + 2]!];
    const x = m[0]! * px + m[4]! * py + m[8]! * pz + m[12]!;
    const y = m[1]! * px + m[5]! * py + m[9]! * pz + m[13]!;
    const w = m[3]! * px + m[7]! * py + m[11]! * pz + m[15]!;
    const limit = w + margin * Math.abs(w);
    return (x > limit ? 1 : 0) | (-x > limit ? 2 : 0) | (y > limit ? 4 : 0) | (-y > limit ? 8 : 0) | (w < 0 ? 16 : 0);
  };
  return filterLines(lines, (at) => (outside(at) & outside(at + 3)) === 0);
}

/**
 * Returns the silhouettes of drawn edges that reach past the far limit.
 *
 * @param forward - x, y, z, w of the forward axis and its constant; their product with a point is its distance ahead
 */
export function silhouettesBeyond(
  lines: Float32Array,
  [x, y, z, w]: readonly [number, number, number, number],
  far: number | null,
): Float32Array {
  if (far === null) return lines.subarray(0, 0);
  const isPast = (at: number) => x * lines[at]! + y * lines[at + 1]! + z * lines[at + 2]! + w > far * (1 - rounding);
  return filterLines(lines, (at) => lines[at + 6]! > 0.5 && (isPast(at) || isPast(at + 3)));
}
