import type { CameraFrame } from '../camera/frame';
import type { Vec2 } from '../math/vec3';
import type { Read } from '../reasons';
import { allOf, derivedCamera, lensOf, type DerivedCamera } from './derivedCamera';

/** How the offsets of a cycle are chosen. */
export type JitterSequence = 'halton' | 'grid';

/**
 * Returns an element of the van der Corput sequence: the digits of an index in a base, mirrored at the point.
 *
 * @param index - 1 or more
 * @returns above 0, below 1
 * @see Halton, On the efficiency of certain quasi-random sequences of points, 1960
 */
export function radicalInverse(index: number, base: number): number {
  let [rest, place, sum] = [index, 1, 0];
  while (rest > 0) {
    place /= base;
    sum += place * (rest % base);
    rest = Math.floor(rest / base);
  }
  return sum;
}

/**
 * Returns the offsets of a jitter cycle in pixels, each coordinate between −½ and ½.
 *
 * @param screenGrowsUp - whether the second coordinate grows upward; the first cell of a grid is at the top left
 */
export function jitterOffsets(count: number, sequence: JitterSequence, screenGrowsUp: boolean): readonly Vec2[] {
  const side = Math.ceil(Math.sqrt(count));
  return Array.from({ length: count }, (_, i): Vec2 => {
    if (sequence === 'halton') return [radicalInverse(i + 1, 2) - 0.5, radicalInverse(i + 1, 3) - 0.5];
    const [across, down] = [((i % side) + 0.5) / side - 0.5, (Math.floor(i / side) + 0.5) / side - 0.5];
    return [across, screenGrowsUp ? -down : down];
  });
}

/**
 * Returns the edges of a picture that is moved by an offset.
 *
 * @param offset - pixels, in the axes of the screen
 */
export function jitteredExtents(frame: CameraFrame, [dx, dy]: Vec2, screenGrowsUp: boolean): CameraFrame['extents'] {
  const { left, right, bottom, top } = frame.extents;
  const across = (dx * (right - left)) / frame.viewport.width;
  const upward = ((screenGrowsUp ? dy : -dy) * (top - bottom)) / frame.viewport.height;
  return { left: left - across, right: right - across, bottom: bottom - upward, top: top - upward };
}

/** Returns a camera whose picture is moved by an offset in pixels, in the axes of the screen. */
export function jittered(name: string, frame: CameraFrame, offset: Vec2, screenGrowsUp: boolean): Read<DerivedCamera> {
  const lens = lensOf({ ...frame, extents: jitteredExtents(frame, offset, screenGrowsUp) });
  return derivedCamera(name, { basis: frame, lens, eye: frame.eye, viewport: frame.viewport }, { offset });
}

/** Returns the cameras of a jitter cycle: the same view, the picture moved by less than half a pixel each way. */
export const jitterCameras = (
  frame: CameraFrame,
  count: number,
  sequence: JitterSequence,
  screenGrowsUp: boolean,
): Read<readonly DerivedCamera[]> =>
  allOf(
    jitterOffsets(count, sequence, screenGrowsUp).map((offset, i) =>
      jittered(`jitter ${i + 1}`, frame, offset, screenGrowsUp),
    ),
  );
