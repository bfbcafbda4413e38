import { writeCamera } from '../../core/request/write';
import { beforeAll, describe, expect, it } from 'vitest';
import { compute } from '../../core/compute/compute';
import { presets } from '../../core/conventions/conventions';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { projectRequest } from '../../formats/camera';
import { allCameras, type Project } from '../../formats/project';
import { frameStages } from '../../core/motion/stages';
import { installMovers, momentOf } from '../state/moment';
import { installSlices, rereadSlices, sliceOf, taskMoment, withSliceIn } from '../state/slices';
import type { MotionState } from './motion/kept';
import { moves } from './motion/moves';
import { slice as motion } from './motion/state';
import { lateRay, lookThrough, pixelNow } from './pick/rays';
import type { PickState } from './pick/kept';
import { slice as pick } from './pick/state';
import { jobs, type Found } from './spawn/job';
import type { SpawnState } from './spawn/kept';
import { slice as spawn } from './spawn/state';
import { termsNow, termsUsed } from './spawn/terms';

/* What Motion has the camera do, as other tasks take it up. */

beforeAll(() => {
  installSlices({ motion, pick, spawn });
  installMovers([(rest) => moves(taskMoment('motion', rest))]);
});
const control = { progress: () => undefined, breathe: () => Promise.resolve() };

/** The harbour seen by the camera that goes round the light, its frame in an order. */
function ordered(order: MotionState['order']): Project {
  const harbour = saltmarrow();
  const all = allCameras(harbour);
  const base: Project = { ...harbour, camera: all.at(-1)!, cameras: all.slice(0, -1) };
  return withSliceIn('motion', base, { ...sliceOf<MotionState>('motion', base), order });
}
const early = (stage: (typeof frameStages)[number]) => [stage, ...frameStages.filter((one) => one !== stage)];

describe('a camera that is late by the order of a frame', () => {
  it('makes Pick’s ray miss by what `compareCameras` says, and not when the order is right', () => {
    const now = taskMoment<PickState>('pick', momentOf(ordered(early('picking')), 5));
    const looked = lookThrough(now, pixelNow(now));
    const late = lateRay(now, looked)!;
    const pixel = [...now.codec.toScreen(now.frame.viewport, ...looked.picture)] as [number, number];
    const request = { ...projectRequest(now.project, now.codec, null), camera: writeCamera(now.frame, now.codec) };
    const asked = { id: 'late', op: 'compareCameras', camera: writeCamera(now.stale.picking!, now.codec), pixels: [pixel], range: looked.range } as const; // prettier-ignore
    const made = compute({ ...request, queries: [asked] });
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    const [row] = (made.response.results[0] as unknown as { pixels: [{ miss: number; error: [number, number] }] }).pixels; // prettier-ignore
    expect(late.miss).toBeCloseTo(row.miss, 6);
    expect(late.pixels).toBeCloseTo(Math.hypot(...row.error), 5);
    expect(late.pixels).toBeGreaterThan(0.1);
    const right = taskMoment<PickState>('pick', momentOf(ordered([...frameStages]), 5));
    expect(lateRay(right, lookThrough(right, pixelNow(right)))).toBeNull();
  });

  it('has Spawn keep out of what was seen a frame ago', () => {
    const at = (order: MotionState['order']) => {
      const project = ordered(order);
      const kept = { ...sliceOf<SpawnState>('spawn', project), first: { moved: [0, 0], order: ['input', 'camera', 'spawn', 'draw'] } }; // prettier-ignore
      const now = taskMoment<SpawnState>('spawn', momentOf(withSliceIn('spawn', project, kept), 5));
      return [termsUsed(now), termsNow(now)];
    };
    const [used, shown] = at(early('spawns'));
    expect(used).not.toBe(shown);
    const [same, own] = at([...frameStages]);
    expect(same).toBe(own);
  });
});

describe('Spawn by the camera’s own way', () => {
  const chart = saltmarrowChart();
  /** The chart with a camera that scrolls, and bodies that rest. */
  const scrolling = (velocity: [number, number], asItMoves: boolean): Project => {
    const track = { travel: { kind: 'scroll', velocity: [...velocity, 0] }, shake: null };
    const moving = withSliceIn('motion', chart, { ...sliceOf<MotionState>('motion', chart), tracks: { [chart.camera.id]: track } }); // prettier-ignore
    const kept = { ...sliceOf<SpawnState>('spawn', chart), coming: 'velocity', velocity: [0, 0], camera: velocity, asItMoves, within: 20 }; // prettier-ignore
    return withSliceIn('spawn', moving, kept);
  };
  const found = async (project: Project): Promise<Found> =>
    (await jobs.spawned!.run(jobs.spawned!.input(taskMoment('spawn', momentOf(project))), control)) as Found;

  it('sees what an even camera sees when its way is even, to a tick', async () => {
    const [even, own] = [await found(scrolling([7, 4], false)), await found(scrolling([7, 4], true))];
    expect([...own.points]).toEqual([...even.points]);
    let both = 0;
    even.seconds.forEach((t, i) => {
      if (Number.isNaN(t) || Number.isNaN(own.seconds[i]!)) return;
      both++;
      expect(own.seconds[i]! - t).toBeGreaterThanOrEqual(-1e-6);
      expect(own.seconds[i]! - t).toBeLessThan(1 / 1024 + 1 / 32);
    });
    expect(both).toBeGreaterThan(30);
    // Another way is asked anew, though nothing of Spawn's own is another.
    const other = await found(scrolling([-7, 4], true));
    expect([...other.seconds]).not.toEqual([...own.seconds]);
  });

  it('keeps its numbers as they are written, under other conventions', () => {
    const project = withSliceIn('spawn', chart, sliceOf<SpawnState>('spawn', chart));
    const [from, to] = [presets.WebGPU, presets.glTF].map((conventions) => momentOf({ ...chart, conventions }).codec);
    const again = rereadSlices(project, from!, to!);
    const written = (kept: SpawnState, e: NonNullable<typeof from>) =>
      [kept.min, kept.max, ...kept.discs.map(({ centre }) => centre), kept.first.moved].map((p) => [...e.toPair('up', p)]); // prettier-ignore
    expect(written(sliceOf('spawn', again), to!)).toEqual(written(sliceOf('spawn', project), from!));
    expect(sliceOf<SpawnState>('spawn', again).min).not.toEqual(sliceOf<SpawnState>('spawn', project).min);
  });
});
