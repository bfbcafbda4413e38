import { pointBatch as createBatch } from '../kernels/batch';
import { projectPoints } from '../kernels/points';
import { kernelOf, type Camera } from './camera';

/** Points in memory of their own, to be projected again and again without copies. */
export interface PointBatch {
  /** x, y, z after one another, in the camera's world axes. Write them here. */
  readonly points: Float64Array;
  /** x, y (pixels) and depth after one another, written by `project`; 0, 0, 0 behind the eye. */
  readonly screen: Float64Array;
  /** A byte a point, bits of `outsideBit`; 0 is on screen. */
  readonly outside: Uint8Array;
  /** Projects the first points, all by default. False for a 2D camera, which has no such points. */
  project(camera: Camera, count?: number): boolean;
}

/**
 * Creates room for points, in memory of the machine's vector instructions; in plain arrays where it has none.
 *
 * @param count - the number of points, an integer of at least 1
 */
export function createPointBatch(count: number): PointBatch {
  const batch = machineBatch(count);
  const { points, screen, outside } = batch ?? {
    points: new Float64Array(3 * count),
    screen: new Float64Array(3 * count),
    outside: new Uint8Array(count),
  };
  const project = (camera: Camera, first = count): boolean => {
    const kernel = kernelOf(camera);
    if (!kernel) return false;
    if (batch) batch.project(kernel, first);
    else projectPoints(kernel, points.subarray(0, 3 * first), screen, outside);
    return true;
  };
  return { points, screen, outside, project };
}

function machineBatch(count: number): ReturnType<typeof createBatch> | null {
  try {
    return createBatch(count);
  } catch {
    return null;
  }
}
