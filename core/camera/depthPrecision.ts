import type { DepthRange } from './projection';

/**
 * How a depth buffer keeps a depth of 0…1: as a whole number of so many bits, or as a float of 32
 * bits (IEEE 754 binary32).
 */
export type DepthFormat = 'unorm16' | 'unorm24' | 'float32';
export const depthFormats: readonly DepthFormat[] = ['unorm16', 'unorm24', 'float32'];

const float = new Float32Array(1);
const bits = new Uint32Array(float.buffer);

/**
 * The spacing of the format's numbers about a depth in 0…1: between the two neighbours that enclose
 * it, or above it where it is one of them.
 */
export function depthStep(format: DepthFormat, depth: number): number {
  if (format !== 'float32') return 1 / (2 ** (format === 'unorm16' ? 16 : 24) - 1);
  float[0] = Math.min(1, Math.max(0, depth));
  // The number at or below the depth, then the next above; below 1 the last step leads to 1.
  if (float[0] > depth || float[0] === 1) bits[0]!--;
  const low = float[0];
  bits[0]!++;
  return float[0] - low;
}

/**
 * The least distance ahead, in world units, that the depth buffer tells apart at a distance f: the
 * format's step there over the slope of the depth, δ = step(d) / |d′(f)| (`docs/derivations.md`,
 * "Depth precision"). Plain depth is 0 at near and 1 at far, reversed 1 at near and 0 at far: that
 * only matters to a float, whose numbers are densest at 0. Null outside near…far.
 */
export function depthResolution(
  lens: DepthRange,
  ahead: number,
  format: DepthFormat,
  reversed: boolean,
): number | null {
  if (ahead < lens.near || (lens.far !== null && ahead > lens.far)) return null;
  const { near, far } = lens;
  // As products of distances from near and far: at the ends of the range nothing is lost to
  // cancelling, where a float tells depths of 1e-17 and of 0 far apart.
  const fromNear = far === null ? (ahead - near) / ahead : (ahead - near) / (far - near);
  const fromFar = far === null ? near / ahead : (far - ahead) / (far - near);
  const bent = far !== null && lens.kind === 'perspective';
  const depth = reversed ? fromFar * (bent ? near / ahead : 1) : fromNear * (bent ? far / ahead : 1);
  const even = far === null ? near / ahead / ahead : 1 / (far - near);
  const change = even * (bent ? (near / ahead) * (far / ahead) : 1);
  return depthStep(format, depth) / change;
}
