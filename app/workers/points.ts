import './alive';
import { expose, transfer } from 'comlink';
import type { CameraFrame } from '../../core/camera/frame';
import type { Conventions } from '../../core/conventions/conventions';
import { codecOf } from '../../core/conventions/codec';
import { projectSpaces, spacesStride } from '../../core/kernels/spaces';
import { readPoints } from '../../formats/csv';
import { type Reading } from '../../formats/pointColumns';
import { insidePoints, pointFormOf } from '../state/points';
import type { PointsWorker, ReadTable } from '../state/table';

let held = new Float64Array(0);
/** The text that was read last, and in which conventions its numbers stand. */
let given: { text: string; conventions: Conventions; flat: boolean } | null = null;

function read(reading?: Reading): ReadTable {
  const { text, conventions, flat } = given!;
  const found = readPoints(text, pointFormOf(codecOf(conventions), flat).letters, reading);
  if (!found.ok) return found;
  const { columns, value } = found;
  held = insidePoints(value, conventions);
  const copy = held.slice();
  const table = { points: copy, names: value.names };
  return transfer({ ok: true as const, value: table, columns, reading: found.reading }, [copy.buffer]);
}

const worker: PointsWorker = {
  read(text: string, conventions: Conventions, flat: boolean, reading?: Reading) {
    given = { text, conventions, flat };
    return read(reading);
  },
  readAs: (reading: Reading) => read(reading),

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
    projectSpaces(frame, codecOf(conventions), held, spaces, outside);
    return transfer({ spaces, outside, milliseconds: performance.now() - start }, [spaces.buffer, outside.buffer]);
  },
};

expose(worker);
