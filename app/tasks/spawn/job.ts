import type { Vec2 } from '../../../core/math/vec3';
import { firstTouches, firstTouchesMoving, velocityAt, type RegionAt } from '../../../core/spawn/firstSeen';
import {
  chiSquare,
  countTouching,
  fatesBy,
  paddingToHide,
  roundPlayer,
  type ChiSquare,
  type Fates,
} from '../../../core/spawn/measures';
import { touchesPolygon } from '../../../core/spawn/region';
import { spawnInSteps, spawnRegion, type SpawnTerms } from '../../../core/spawn/spawn';
import { screenFrame } from '../../pictures/compose/screens';
import { journeyAt, type Journey } from '../../state/journey';
import type { JobControl, JobModule, JobSpec } from '../../state/jobs';
import type { SpawnState } from './kept';
import { reachableBox, spawnMark, surfaceOf, termsNow, termsUsed } from './terms';

interface Asked {
  readonly mark: number;
  /** The terms that bodies appear by, and what is seen when they are drawn. */
  readonly terms: SpawnTerms;
  readonly seen: readonly Vec2[];
  /** What is seen by the camera that bodies appear by. */
  readonly here: readonly Vec2[];
  readonly middle: Vec2;
  readonly slice: SpawnState;
  readonly screens: readonly { readonly name: string; readonly seen: readonly Vec2[] }[];
  /** Where the camera goes, from the moment on, if it is to go its own way. */
  readonly journey: Journey | null;
  readonly time: number;
  readonly flat: boolean;
}

/** One way of making points, and what it costs. */
export interface Lot {
  readonly method: SpawnState['method'];
  readonly tries: number;
  /** The most tries that one point took. */
  readonly worst: number;
  readonly chi: ChiSquare | null;
  readonly fates: Fates;
  readonly milliseconds: number;
}
/** How the points fare on a screen of the tray. */
export interface OnScreen {
  readonly name: string;
  readonly seen: number;
  /** The padding about what is seen here that keeps out of that screen too, world units. */
  readonly padding: number;
}
/** What was found of a lot of points. */
export interface Found {
  readonly mark: number;
  /** The points of the chosen method: pairs after one another. */
  readonly points: Float64Array;
  /** For each the seconds until it is seen; NaN for not within the time. */
  readonly seconds: Float64Array;
  /** 1 for those in view when they are drawn. */
  readonly inView: Uint8Array;
  /** What they cost and how they lie; null where there are none. */
  readonly lot: Lot | null;
  readonly screens: readonly OnScreen[];
  /** Expected tries, where rolling again is not begun. */
  readonly tooMany: number | null;
  /** All of it: made and measured. */
  readonly milliseconds: number;
}
/** The three methods beside one another. */
export interface Compared {
  readonly mark: number;
  readonly lots: readonly Lot[];
}

/** How many bins a side evenness is told by. */
const binsFor = (count: number): number => (count >= 320 ? 8 : count >= 125 ? 5 : 3);

/** The points of a method, or why there are none. */
async function pointsBy(method: SpawnState['method'], { terms, middle, slice }: Asked, control: JobControl) {
  const found = spawnRegion(terms);
  const start = performance.now();
  let pairs: Float64Array = new Float64Array(0);
  let [tries, worst] = [slice.count, 1];
  if (method === 'circle') pairs = roundPlayer(middle, slice.circle.inner, slice.circle.outer, slice.count, slice.seed);
  else {
    const steps = spawnInSteps(found, slice.count, slice.seed, method);
    for (;;) {
      const step = steps.next();
      if (!step.done) {
        control.progress(step.value);
        await control.breathe();
        continue;
      }
      if ('why' in step.value)
        return { pairs, lot: null, tooMany: step.value.why === 'tooManyTries' ? step.value.expected : null } as const;
      ({ pairs, tries, worst } = step.value);
      break;
    }
  }
  return { pairs, found, tooMany: null, tries, worst, milliseconds: performance.now() - start };
}

type Made = Awaited<ReturnType<typeof pointsBy>>;

/** What points cost and how they lie; which of them are seen is known by their places. */
function lotOf(
  method: SpawnState['method'],
  { pairs, found, tries, worst, milliseconds }: Exclude<Made, { lot: null }>,
  isSeen: (i: number) => boolean,
): Lot {
  const shares = new Float64Array(found ? pairs.length : 0);
  let inRegion = 0;
  for (let i = 0; i < shares.length; i += 2) {
    found!.region.sharesInto(pairs[i]!, pairs[i + 1]!, shares, i);
    // Those off the region say nothing of how even the rest lie in it.
    if (!Number.isNaN(shares[i]!)) inRegion++;
  }
  // What was drawn or rolled is allowed by how it came about; a circle asks nothing.
  const allowed = method === 'circle' || !found ? (found?.allowed ?? (() => false)) : null;
  return {
    ...{ method, tries, worst, milliseconds, chi: found && chiSquare(shares, binsFor(inRegion)) },
    fates: fatesBy(pairs, isSeen, allowed),
  };
}

const input: JobSpec<SpawnState, Asked, Found>['input'] = (now) => {
  const [used, shown] = [termsUsed(now), termsNow(now)];
  if (typeof used === 'string' || typeof shown === 'string') return null;
  const surface = surfaceOf(now);
  const within = reachableBox(now.slice);
  const { fit, sizes } = now.project.screens;
  const screens = sizes.flatMap((size) => {
    const frame = screenFrame(now.frame, fit, size, now.flat);
    const seen = frame ? surface.visible(frame, within) : 'footprintEmpty';
    return typeof seen === 'string' ? [] : [{ name: `${size.width} × ${size.height}`, seen }];
  });
  const mark = spawnMark(now);
  const journey = now.slice.asItMoves ? now.journey : null;
  return asked?.mark === mark && asked.journey === journey
    ? asked
    : (asked = {
        mark,
        terms: used.terms,
        seen: shown.seen,
        here: used.seen,
        middle: shown.middle,
        slice: now.slice,
        screens,
        journey,
        time: now.slice.asItMoves ? now.time : 0,
        flat: now.flat,
      });
};

/** What is seen of the surface so many seconds from the moment, by the camera on its own way. */
function seenAlong({ slice, flat, time }: Asked, journey: Journey): RegionAt {
  const surface = surfaceOf({ flat, slice });
  const within = reachableBox(slice);
  return (seconds) => {
    const made = journeyAt(journey, time + seconds);
    const found = made.ok ? surface.visible(made.value, within) : 'footprintEmpty';
    return typeof found === 'string' ? null : found;
  };
}

const spawned: JobSpec<SpawnState, Asked, Found> = {
  says: 'Making points',
  input,
  run: async (given, control) => {
    await control.breathe();
    const { mark, slice, seen, middle, screens } = given;
    const start = performance.now();
    const made = await pointsBy(slice.method, given, control);
    const { pairs, tooMany } = made;
    const count = pairs.length / 2;
    const [seconds, inView] = [new Float64Array(count), new Uint8Array(count)];
    const motion = slice.coming === 'towards' ? { towards: middle, speed: slice.speed } : { velocity: slice.velocity };
    const touch = given.journey
      ? firstTouchesMoving(seenAlong(given, given.journey), slice.radius, slice.within)
      : firstTouches(seen, slice.radius, slice.camera, slice.within);
    const same = 'velocity' in motion ? motion.velocity : null;
    for (let i = 0; i < count; i++) {
      if (given.journey && i % 1024 === 1023) {
        control.progress(i / count);
        await control.breathe();
      }
      const x = pairs[2 * i]!;
      const y = pairs[2 * i + 1]!;
      const v = same ?? velocityAt([x, y], motion);
      const when = touch(x, y, v[0], v[1]);
      seconds[i] = when;
      // What touches at once is in view.
      inView[i] = when === 0 ? 1 : 0;
    }
    const lot = 'lot' in made ? null : lotOf(slice.method, made, (i) => inView[i] === 1);
    const onScreens = screens.map(({ name, seen: own }): OnScreen => {
      return { name, seen: countTouching(own, pairs, slice.radius), padding: paddingToHide(given.here, own) };
    });
    const milliseconds = performance.now() - start;
    return { mark, points: pairs, seconds, inView, lot, screens: onScreens, tooMany, milliseconds };
  },
};

const compared: JobSpec<SpawnState, Asked, Compared> = {
  says: 'Comparing the methods',
  input,
  // The points themselves come first, and their pictures.
  rest: ({ slice }) => 300 + slice.count / 100,
  run: async (given, control) => {
    const lots: Lot[] = [];
    for (const method of ['direct', 'rejection', 'circle'] as const) {
      await control.breathe();
      const made = await pointsBy(method, given, control);
      const touching = touchesPolygon(given.seen, given.slice.radius);
      if ('lot' in made) continue;
      const { pairs } = made;
      lots.push(lotOf(method, made, (i) => touching(pairs[2 * i]!, pairs[2 * i + 1]!)));
    }
    return { mark: given.mark, lots };
  },
};

/** What was last asked, so that the same is the same object. */
let asked: Asked | null = null;

export const jobs: JobModule['jobs'] = { spawned, compared };
