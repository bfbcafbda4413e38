import * as z from 'zod';
import { listOf } from '../../../core/compute/valueSchemas';
import type { Vec3 } from '../../../core/math/vec3';
import type { Query } from '../../../core/compute/schema';
import type { SeenBy } from '../../../core/visibility/size';
import type { Slice } from '../../state/slices';

/** What moves while bodies enter and leave, and how often a frame looks. */
export interface OverTime {
  kind: 'bodies' | 'turn' | 'walk' | 'journey';
  /** Degrees of yaw a second. */
  turnRate: number;
  /** World units a second. */
  speed: number;
  seconds: number;
  /** Tests a second. */
  rate: number;
  /** What is done with what has left the view by a margin, and by how many pixels. */
  away: 'nothing' | 'deactivate' | 'remove';
  awayMargin: number;
}

/** A box of test bodies. */
export interface TestField {
  /** Whether it is drawn and tested. */
  shown: boolean;
  arrangement: 'grid' | 'scatter';
  shape: 'sphere' | 'box';
  count: number;
  /** The diameter, or the side. */
  size: number;
  /** Opposite corners, in canonical world space. */
  min: [number, number, number];
  max: [number, number, number];
  seed: number;
}
/** The most test bodies. */
export const mostTestBodies = 1_000_000;

/** The field that stands first in a world: a grid through all of it, flat on a flat one. */
export function firstField({ centre, half }: { readonly centre: Vec3; readonly half: Vec3 }, flat: boolean): TestField {
  // Two digits are enough for a box that is to be taken hold of.
  const round = (v: number) => Number(v.toPrecision(2));
  const corner = (side: 1 | -1) => centre.map((v, i) => (flat && i === 2 ? 0 : round(v + side * half[i]!)));
  const long = Math.max(...half);
  return {
    ...{ shown: true, arrangement: 'grid', shape: 'sphere', count: 10_000, seed: 1 },
    ...{ min: corner(-1) as [number, number, number], max: corner(1) as [number, number, number] },
    size: round(long / 200) || 1,
  };
}

export interface VisibilityState {
  /** Pixels added round the viewport. */
  margin: number;
  /** What bodies are tinted by: what is so, or what the customary test of planes says. */
  method: 'exact' | 'planes';
  /** The shortcut that is held against what is so. */
  shortcut: 'centre' | 'sphere' | 'corners';
  /** Of the sphere, in bounding radii. */
  factor: number;
  /** Pixels of diameter at which a body changes its level, largest first. */
  thresholds: number[];
  /** By which share a diameter must pass a threshold before the level changes. */
  hysteresis: number;
  over: OverTime;
  /** Null until one is asked for. */
  field: TestField | null;
}

/** The most thresholds of size. */
export const mostThresholds = 8;

/** The shortcut as the core has it. */
export const seenByOf = ({ shortcut, factor }: VisibilityState): SeenBy =>
  shortcut === 'sphere' ? { sphere: factor } : shortcut;

const corner = z.tuple([z.number(), z.number(), z.number()]);

/** What Visibility keeps. */
export const slice: Slice<VisibilityState> = {
  version: 2,
  // The field of test bodies, and what is put away, are new.
  migrate: [
    (older) => {
      const { over, ...rest } = older as { over?: object };
      return { ...rest, over: { ...over, away: 'nothing', awayMargin: 40 }, field: null };
    },
  ],
  schema: z.object({
    margin: z.number(),
    method: z.enum(['exact', 'planes']),
    shortcut: z.enum(['centre', 'sphere', 'corners']),
    factor: z.number().nonnegative(),
    thresholds: listOf(z.number().positive()).max(mostThresholds),
    hysteresis: z.number().min(0).max(0.9),
    over: z.object({
      kind: z.enum(['bodies', 'turn', 'walk', 'journey']),
      turnRate: z.number(),
      speed: z.number(),
      seconds: z.number().positive().max(120),
      rate: z.number().positive(),
      away: z.enum(['nothing', 'deactivate', 'remove']),
      awayMargin: z.number().nonnegative(),
    }),
    field: z
      .object({
        shown: z.boolean(),
        arrangement: z.enum(['grid', 'scatter']),
        shape: z.enum(['sphere', 'box']),
        count: z.int().min(1).max(mostTestBodies),
        size: z.number().positive(),
        min: corner,
        max: corner,
        seed: z.int(),
      })
      .nullable(),
  }) as z.ZodType<VisibilityState>,
  initial: () => ({
    ...{ margin: 0, method: 'exact', shortcut: 'centre', factor: 1 },
    ...{ thresholds: [200, 60, 15], hysteresis: 0.1 },
    over: { kind: 'bodies', turnRate: 45, speed: 10, seconds: 8, rate: 10, away: 'nothing', awayMargin: 40 },
    field: null,
  }),
  reread: (kept, from, to) => {
    const corner = (p: Vec3) => [...to.fromWorld(from.toWorld(p))] as [number, number, number];
    const { field } = kept;
    return field ? { ...kept, field: { ...field, min: corner(field.min), max: corner(field.max) } } : kept;
  },
  queries: (kept, { flat }) => [
    { id: 'visible', op: 'visibility', margin: kept.margin, method: kept.method },
    { id: 'visible by the shortcut', op: 'visibilityBy', test: seenByOf(kept) },
    { id: 'bounds on the screen', op: 'screenBounds' },
    {
      ...({ id: 'apparent sizes', op: 'apparentSize' } as const),
      ...(kept.thresholds.length && !flat ? { thresholds: [...kept.thresholds] } : {}),
    } satisfies Query,
  ],
};
