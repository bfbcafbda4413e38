import type { CameraFrame } from '../camera/frame';
import { pointBatch, sphereBatch, type PointBatch, type SphereBatch } from './batch';
import { pointKernel, projectPoints, type PointKernel } from './points';
import { classifySpheres } from './spheres';

/*
 * The kernels as the rest of the product asks them: the compiled form where there is enough to do
 * for it to win, the plain form below that and where the machine has no vector instructions to
 * give. Answers are the same to the last bit either way, by property tests.
 */

/**
 * From so many points or spheres on the compiled form wins, copying in and out included
 * (`bench/results.md`).
 */
export const manyFrom = 128;

/** Whether this machine takes the compiled form: found out once. */
let machine: boolean | null = null;
function hasMachine(): boolean {
  if (machine === null)
    try {
      pointBatch(2);
      machine = true;
    } catch {
      machine = false;
    }
  return machine;
}

/**
 * Batches are kept and grow by doubling: their memory is the machine's, and taking it anew would
 * cost more than the work.
 */
let points: { readonly room: number; readonly batch: PointBatch } | null = null;
let spheres: { readonly room: number; readonly batch: SphereBatch } | null = null;
/**
 * More than this is given back after use: a hundred megabytes are not to be kept for one question.
 */
const mostKept = 1 << 20;
const roomFor = (count: number): number => 2 ** Math.ceil(Math.log2(Math.max(count, 4096)));

/**
 * `projectPoints` of any number of points: x, y, z after one another in canonical world space;
 * `screen` and `outside` receive what that says.
 */
export function projectMany(kernel: PointKernel, given: Float64Array, screen: Float64Array, outside: Uint8Array): void {
  const count = given.length / 3;
  if (count < manyFrom || !hasMachine()) return projectPoints(kernel, given, screen, outside);
  if (!points || points.room < count) points = { room: roomFor(count), batch: pointBatch(roomFor(count)) };
  const { batch } = points;
  batch.points.set(given);
  batch.project(kernel, count);
  screen.set(batch.screen.subarray(0, 3 * count));
  outside.set(batch.outside.subarray(0, count));
  if (points.room > mostKept) points = null;
}

/** What `projectMany` gives for a frame, in arrays of its own. */
export function projectedBy(frame: CameraFrame, given: Float64Array): { screen: Float64Array; outside: Uint8Array } {
  const [screen, outside] = [new Float64Array(given.length), new Uint8Array(given.length / 3)];
  projectMany(pointKernel(frame), given, screen, outside);
  return { screen, outside };
}

/**
 * `classifySpheres` of any number of spheres, x, y, z, radius after one another, against at most
 * six planes.
 */
export function classifyMany(planes: Float64Array, given: Float64Array, verdicts: Uint8Array): void {
  const count = given.length / 4;
  if (count < manyFrom || planes.length > 24 || !hasMachine()) return classifySpheres(planes, given, verdicts);
  if (!spheres || spheres.room < count) spheres = { room: roomFor(count), batch: sphereBatch(roomFor(count)) };
  const { batch } = spheres;
  batch.spheres.set(given);
  batch.classify(planes, count);
  verdicts.set(batch.verdicts.subarray(0, count));
  if (spheres.room > mostKept) spheres = null;
}
