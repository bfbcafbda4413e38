import { z } from 'zod';
import { listOf } from '../../../core/compute/schema';
import type { Query } from '../../../core/compute/schema';
import type { SeenBy } from '../../../core/visibility/size';
import type { Slice } from '../../state/slices';

/** What moves while bodies enter and leave, and how often a frame looks. */
export interface OverTime {
  kind: 'bodies' | 'turn' | 'walk';
  /** Degrees of yaw a second. */
  turnRate: number;
  /** World units a second. */
  speed: number;
  seconds: number;
  /** Tests a second. */
  rate: number;
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
}

/** The most thresholds of size. */
export const mostThresholds = 8;

/** The shortcut as the core has it. */
export const seenByOf = ({ shortcut, factor }: VisibilityState): SeenBy =>
  shortcut === 'sphere' ? { sphere: factor } : shortcut;

/** What Visibility keeps. */
export const slice: Slice<VisibilityState> = {
  version: 1,
  schema: z.object({
    margin: z.number(),
    method: z.enum(['exact', 'planes']),
    shortcut: z.enum(['centre', 'sphere', 'corners']),
    factor: z.number().nonnegative(),
    thresholds: listOf(z.number().positive()).max(mostThresholds),
    hysteresis: z.number().min(0).max(0.9),
    over: z.object({
      kind: z.enum(['bodies', 'turn', 'walk']),
      turnRate: z.number(),
      speed: z.number(),
      seconds: z.number().positive().max(120),
      rate: z.number().positive(),
    }),
  }) as z.ZodType<VisibilityState>,
  initial: () => ({
    ...{ margin: 0, method: 'exact', shortcut: 'centre', factor: 1 },
    ...{ thresholds: [200, 60, 15], hysteresis: 0.1 },
    over: { kind: 'bodies', turnRate: 45, speed: 10, seconds: 8, rate: 10 },
  }),
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
