import * as z from 'zod';
import { radians } from '../../../core/math/angle';
import type { Ease } from '../../../core/motion/path';
import { frameStages } from '../../../core/motion/stages';
import {
  angle,
  angularRate,
  choice,
  count,
  group,
  id,
  length,
  list,
  optional,
  pitch,
  pitchRange,
  pitchRate,
  point,
  ratio,
  roll,
  seconds,
  surfacePoint,
  velocity,
  yaw,
  yawRate,
} from '../../../core/quantities/quantity';

export const eases: readonly Ease[] = ['even', 'gentle', 'gentleStart', 'gentleEnd'];
export const travelKinds = ['rest', 'scroll', 'follow', 'orbit', 'path', 'walk', 'dollyZoom', 'blend'] as const;
export type TravelKind = (typeof travelKinds)[number];
/** The tracks that a 2D camera has. */
export const flatKinds: readonly TravelKind[] = ['rest', 'scroll', 'follow'];

export const rates = ['30', '60', '144', 'uneven'] as const;
export type Rate = (typeof rates)[number];
export const mostKeys = 400;
export const mostStretches = 4000;
/** Seconds that are shown of a track without an end. */
export const endless = 30;
export const mostLayers = 8;

const ease = z.enum(eases as [Ease, ...Ease[]]);
const time = () => seconds({ min: 0 });
const rising = (times: readonly number[]): boolean => times.every((t, i) => i === 0 || t > times[i - 1]!);

/** The camera at a time. */
const pathKey = group({
  id: id(),
  time: time(),
  position: point(),
  yaw: yaw(),
  pitch: pitch(),
  roll: roll(),
  verticalFov: angle(),
  ease,
});
/** Even steering from one time to another: scene units and angles a second. */
const steered = group({
  from: time(),
  to: time(),
  right: length(),
  up: length(),
  ahead: length(),
  yawRate: yawRate(),
  pitchRate: pitchRate(),
});
const travel = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rest') }),
  z.object({ kind: z.literal('scroll'), velocity: velocity() }),
  z.object({
    kind: z.literal('follow'),
    /** The body; one that does not exist is followed nowhere. */
    body: z.string(),
    halfLife: time(),
    /** Seconds by which its own speed carries the followed body ahead of it. */
    lookAhead: time().default(0),
    deadZone: z.tuple([length({ min: 0 }), length({ min: 0 }), length({ min: 0 })]),
    bounds: optional(group({ min: surfacePoint({ world: '2d' }), max: surfacePoint({ world: '2d' }) })),
  }),
  z.object({
    kind: z.literal('orbit'),
    centre: point(),
    yawRate: yawRate(),
    pitchRate: pitchRate(),
    pitchLimits: pitchRange(),
    /** A second, as the logarithm of a factor. */
    distanceRate: ratio(),
  }),
  z.object({
    kind: z.literal('path'),
    keys: list(pathKey, { max: mostKeys })
      .min(1)
      .refine((keys) => rising(keys.map(({ time: at }) => at)), 'times that rise'),
  }),
  z.object({ kind: z.literal('walk'), inputs: list(steered, { max: mostStretches }), pitchLimit: angle({ min: 0 }) }),
  z.object({
    kind: z.literal('dollyZoom'),
    target: point(),
    distance: z.tuple([length(), length()]),
    duration: time(),
    ease,
    /** It goes no nearer than where the field of view is the widest allowed. */
    widest: angle({ above: 0, max: radians(179.999) }).default(radians(150)),
  }),
  z.object({ kind: z.literal('blend'), subject: point(), duration: time(), ease }),
]);
const shaking = group({
  seed: count(),
  frequency: ratio({ min: 0 }),
  decay: ratio({ min: 0 }),
  strength: ratio({ min: 0, max: 1 }),
  yaw: yaw(),
  pitch: pitch(),
  roll: roll(),
  /** To the right and upward. */
  offset: z.tuple([length(), length()]),
});
/** How a camera moves: its travel, and a shake upon it. */
export const cameraTrack = group({ travel, shake: optional(shaking) });

/** What Motion keeps in the project. */
export const motionState = group({
  /** By the id of a camera; one without stands. */
  tracks: z.record(z.string(), cameraTrack),
  /** The subject of charts and differences: a body, or the probe. */
  subject: z.string().nullable(),
  /** How frame-bound code steps the camera. */
  rate: choice(rates),
  manner: choice(['factor', 'noStep', 'euler']),
  /** The order of a frame, and how many there are a second. */
  order: list(choice(frameStages)).refine(
    (stages) => stages.length === frameStages.length && new Set(stages).size === stages.length,
    'every stage once',
  ),
  framesPerSecond: ratio({ above: 0 }),
  /** Layers that go with a 2D camera by a factor. */
  layers: z.array(ratio({ min: 0 })).max(mostLayers),
  /** A basis turned by small steps, with seconds between repairs. */
  turning: group({
    rate: angularRate(),
    steps: count({ min: 1, max: 1000 }),
    precision: choice(['float', 'double']),
    repair: optional(seconds({ above: 0 })),
    minutes: ratio({ above: 0, max: 30 }),
  }),
  /** Steering by keys and pointer: its sensitivity is an angle a pixel. */
  steering: group({
    speed: length({ above: 0 }),
    sensitivity: angle({ above: 0 }),
    pitchLimit: angle({ min: 0, max: radians(90) }),
  }),
});

export type MotionState = z.infer<typeof motionState>;
export type CameraTrack = z.infer<typeof cameraTrack>;
export type Travel = CameraTrack['travel'];
export type Shaking = NonNullable<CameraTrack['shake']>;
export type PathKey = z.infer<typeof pathKey>;
export type Steered = z.infer<typeof steered>;

/** Every second of the way that a track takes; what never ends has a round, or half a minute. */
export function travelSpan({ travel: t, shake }: CameraTrack): number | null {
  const shaken = !shake ? 0 : shake.decay > 0 ? shake.strength / shake.decay : 20;
  const own = (): number | null => {
    switch (t.kind) {
      case 'rest':
        return null;
      case 'path':
        return t.keys.at(-1)!.time;
      case 'walk':
        return t.inputs.reduce((most, { to }) => Math.max(most, to), 0);
      case 'dollyZoom':
      case 'blend':
        return t.duration;
      case 'orbit':
        return t.yawRate ? (2 * Math.PI) / Math.abs(t.yawRate) : endless;
      case 'scroll':
      case 'follow':
        return endless;
    }
  };
  const far = own();
  return far === null && !shake ? null : Math.max(far ?? 0, shaken);
}
