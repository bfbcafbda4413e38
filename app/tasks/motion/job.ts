import type { CameraFrame } from '../../../core/camera/frame';
import { worldToPixel } from '../../../core/convert/project';
import type { Vec3 } from '../../../core/math/vec3';
import { frameTimes, heldInSteps, steppedCameras, tunedFor, type Manner } from '../../../core/motion/rates';
import { turnedInSteps, type Turned } from '../../../core/motion/turning';
import { seamsOf } from '../../../core/motion/wholePixels';
import { placeBodies } from '../../../core/bodies/body';
import { placedAt, type MovingBody } from '../../../core/motion/bodies';
import { staysInView } from '../../../core/visibility/overTime';
import { tileSide } from '../../../formats/project';
import { flatAt, journeyAt, journeyFocus, journeyFocusMovedBy, type Journey } from '../../state/journey';
import type { JobModule, JobSpec } from '../../state/jobs';
import { spanOf } from '../../state/span';
import { journeyOf, mannerNow, trackKey } from './journey';
import type { MotionState, Rate } from './kept';
import { chainOf, subjectAt, subjectOf, type Subject } from './subject';

interface AskedRates {
  readonly journey: Journey;
  readonly subject: Subject | null;
  readonly rate: Rate;
  readonly manner: Exclude<Manner, 'right'>;
  /** The key of the track. */
  readonly track: string;
  readonly span: number;
}

/** A motion stepped by the frame beside the closed form. */
export interface Compared {
  readonly rate: Rate;
  readonly manner: Exclude<Manner, 'right'>;
  /** The key of the track. */
  readonly track: string;
  /** The seconds of the frames, and the eye of each: x, y, z after one another; NaN where there is none. */
  readonly times: Float64Array;
  readonly stepped: Float64Array;
  /** By how much the eyes are apart, world units, and the subject's places in the picture, pixels. */
  readonly units: Float64Array;
  readonly pixels: Float64Array;
  /** The greatest, and when. */
  readonly most: { readonly units: number; readonly unitsAt: number; readonly pixels: number | null; readonly pixelsAt: number }; // prettier-ignore
}

/** The cameras of frames, stepped in a manner. */
export function steppedOn(journey: Journey, manner: Manner, times: readonly number[]): readonly (CameraFrame | null)[] {
  if (journey.kind === 'space') return steppedCameras(journey.frame, journey.motion, manner, times);
  const { motion } = journey;
  if (motion.kind === 'follow' && (manner === 'factor' || manner === 'euler'))
    return heldInSteps(motion.target, motion, times, manner).map((by) => flatAt(journey, journeyFocusMovedBy(journey, [by[0], by[1]]))); // prettier-ignore
  return times.map((time, i) => flatAt(journey, journeyFocus(journey, manner === 'noStep' ? i / tunedFor : time)));
}

const compared: JobSpec<MotionState, AskedRates, Compared> = {
  says: 'Stepping the motion by the frame',
  input: (now) => {
    const journey = journeyOf(now);
    const { rate } = now.slice;
    const manner = mannerNow(now);
    const track = trackKey(now);
    return journey && { journey, subject: subjectOf(now), rate, manner, track, span: spanOf(now.project) };
  },
  run: async ({ journey, subject, rate, manner, track, span }, control) => {
    await control.breathe();
    const times = frameTimes(rate === 'uneven' ? 'uneven' : Number(rate), span);
    const cameras = steppedOn(journey, manner, times);
    const count = times.length;
    const stepped = new Float64Array(3 * count).fill(NaN);
    const [units, pixels] = [new Float64Array(count).fill(NaN), new Float64Array(count).fill(NaN)];
    let most = { units: 0, unitsAt: 0, pixels: null as number | null, pixelsAt: 0 };
    for (let i = 0; i < count; i++) {
      if (i % 512 === 511) {
        control.progress(i / count);
        await control.breathe();
      }
      const [time, wrong, exact] = [times[i]!, cameras[i], journeyAt(journey, times[i]!)];
      if (!wrong || !exact.ok) continue;
      stepped.set(wrong.eye, 3 * i);
      const off = wrong.eye.map((v, k) => v - exact.value.eye[k]!) as unknown as Vec3;
      units[i] = Math.hypot(off[0], off[1], journey.kind === 'flat' ? 0 : off[2]);
      if (units[i]! > most.units) most = { ...most, units: units[i]!, unitsAt: time };
      if (!subject) continue;
      const place = subjectAt(subject, time);
      const [a, b] = [worldToPixel(exact.value, place), worldToPixel(wrong, place)];
      if (!a.ok || !b.ok) continue;
      pixels[i] = Math.hypot(a.value[0] - b.value[0], a.value[1] - b.value[1]);
      if (pixels[i]! > (most.pixels ?? -1)) most = { ...most, pixels: pixels[i]!, pixelsAt: time };
    }
    return { rate, manner, track, times: Float64Array.from(times), stepped, units, pixels, most };
  },
};

interface AskedTurning {
  readonly frame: CameraFrame;
  readonly turning: MotionState['turning'];
}
/** A basis turned by small steps, with repair and without. */
export interface TurnedBoth {
  readonly without: readonly Turned[];
  readonly repaired: readonly Turned[];
}
const turned: JobSpec<MotionState, AskedTurning, TurnedBoth> = {
  says: 'Turning a basis by small steps',
  input: ({ rest, slice, flat }) => (flat ? null : { frame: rest, turning: slice.turning }),
  run: async ({ frame, turning }, control) => {
    await control.breathe();
    const { rate, steps, precision, repair, minutes } = turning;
    const terms = { axis: [0, 1, 0] as Vec3, rate, stepsPerSecond: steps, precision };
    const without = turnedInSteps(frame, { ...terms, repairEvery: null }, 60 * minutes, 60);
    control.progress(0.5);
    await control.breathe();
    return { without, repaired: turnedInSteps(frame, { ...terms, repairEvery: repair }, 60 * minutes, 60) };
  },
};

interface AskedSeams {
  readonly journey: Extract<Journey, { kind: 'flat' }>;
  readonly tile: number;
  readonly span: number;
}
/** The seams of a flat world's tiles over a scroll, drawn free and with the scroll on whole pixels. */
export interface SeamsFound {
  readonly frames: number;
  /** Frames in which some seam is seen, and the most seams in one of them. */
  readonly free: { readonly frames: number; readonly most: number };
  readonly snapped: { readonly frames: number; readonly most: number };
  /** The longest stand and leap of the snapped scroll, pixels a frame beside what it should be. */
  readonly unevenness: number;
}
const seams: JobSpec<MotionState, AskedSeams, SeamsFound> = {
  says: 'Counting seams',
  input: (now) => {
    const journey = journeyOf(now);
    // Turned, edges run across pixels: there is nothing to put on whole ones.
    if (journey?.kind !== 'flat' || journey.camera.rotation % 90 !== 0) return null;
    return { journey, tile: tileSide(now.project), span: spanOf(now.project) };
  },
  run: async ({ journey, tile, span }, control) => {
    await control.breathe();
    const { camera, viewport } = journey;
    const times = frameTimes(60, span);
    const size = tile * camera.zoom;
    const tally = { free: { frames: 0, most: 0 }, snapped: { frames: 0, most: 0 } };
    let unevenness = 0;
    let before: readonly [number, number] | null = null;
    for (const [i, time] of times.entries()) {
      if (i % 512 === 511) {
        control.progress(i / times.length);
        await control.breathe();
      }
      const [x, y] = journeyFocus(journey, time);
      const across = (at: number, anchor: number, far: number, whole: boolean) => {
        const first = anchor - at * camera.zoom;
        // The tile that reaches the edge of the picture.
        const start = (whole ? Math.floor(first + 0.5) : first) % size;
        const { gaps, overlaps } = seamsOf(start, size, Math.ceil(far / size) + 2);
        return gaps + overlaps;
      };
      for (const [name, whole] of [
        ['free', false],
        ['snapped', true],
      ] as const) {
        const found = across(x, camera.anchor[0], viewport.width, whole) + across(-y, camera.anchor[1], viewport.height, whole); // prettier-ignore
        const one = tally[name];
        if (found) one.frames++;
        one.most = Math.max(one.most, found);
      }
      const free = x * camera.zoom;
      const snapped = Math.floor(free + 0.5);
      if (before) unevenness = Math.max(unevenness, Math.abs(snapped - before[1] - (free - before[0])));
      before = [free, snapped];
    }
    return { frames: times.length, ...tally, unevenness };
  },
};

interface AskedEvents {
  readonly journey: Journey | null;
  readonly frame: CameraFrame;
  /** The subject and all that it hangs on, the subject first. */
  readonly chain: readonly MovingBody[];
  readonly span: number;
  readonly flat: boolean;
}
/** When the subject comes into view and leaves it. */
export interface Events {
  readonly list: readonly { readonly time: number; readonly what: 'enters' | 'leaves' }[];
}
const events: JobSpec<MotionState, AskedEvents, Events> = {
  says: 'Looking when the subject enters and leaves',
  input: (now) => {
    const { slice, project, rest, flat } = now;
    const chain = slice.subject === null ? [] : chainOf(project.bodies, slice.subject);
    return chain.length ? { journey: journeyOf(now), frame: rest, chain, span: spanOf(project), flat } : null;
  },
  run: async ({ journey, frame, chain, span, flat }, control) => {
    await control.breathe();
    const made = placeBodies(chain);
    if (!made.ok) return { list: [] };
    const placed = new Map(made.placed.map((one) => [one.body.id, one]));
    const { id } = chain[0]!;
    const stays = await staysInView(
      (time) => {
        const then = journey && journeyAt(journey, time);
        return { frame: then?.ok ? then.value : frame, placed: [placedAt(chain, placed, time).get(id)!] };
      },
      {
        ...{ span, step: 1 / 30, flat },
        onProgress: async (share) => {
          control.progress(share);
          await control.breathe();
        },
      },
    );
    const list = stays.flatMap(({ from, to }) => [
      ...(from > 0 ? [{ time: from, what: 'enters' as const }] : []),
      ...(to < span ? [{ time: to, what: 'leaves' as const }] : []),
    ]);
    return { list: list.sort((a, b) => a.time - b.time) };
  },
};

export const jobs: JobModule['jobs'] = { compared, turned, seams, events };
