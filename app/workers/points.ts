import { expose, transfer } from 'comlink';
import type { CameraFrame } from '../../core/camera/frame';
import type { Conventions } from '../../core/conventions/conventions';
import { expressionOf } from '../../core/conventions/express';
import { projectSpaces, spacesStride } from '../../core/kernels/spaces';
import { readPoints } from '../../formats/csv';
import { insidePoints } from '../state/points';

/** Points in the inside's world, x, y, z after one another, and their names. */
export interface TableOfPoints {
  readonly points: Float64Array;
  readonly names: readonly string[] | null;
}

let held = new Float64Array(0);

const worker = {
  /** Reads text by conventions. The points stay here, a copy goes back. */
  read(text: string, conventions: Conventions, flat: boolean) {
    const found = readPoints(text, flat ? 2 : 3);
    if (!found.ok) return found;
    const { names } = found.value;
    const points = insidePoints(found.value, conventions);
    held = points;
    const copy = points.slice();
    return transfer({ ok: true as const, value: { points: copy, names } }, [copy.buffer]);
  },

  /** Takes points that were kept. */
  hold(points: Float64Array): void {
    held = points as Float64Array<ArrayBuffer>;
  },

  /** All points in every space; how long it took goes along. */
  convert(frame: CameraFrame, conventions: Conventions) {
    const start = performance.now();
    const count = held.length / 3;
    const spaces = new Float64Array(count * spacesStride);
    const outside = new Uint8Array(count);
    projectSpaces(frame, expressionOf(conventions), held, spaces, outside);
    return transfer({ spaces, outside, milliseconds: performance.now() - start }, [spaces.buffer, outside.buffer]);
  },
};

export type PointsWorker = typeof worker;
expose(worker);
