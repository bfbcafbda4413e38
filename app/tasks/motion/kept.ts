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
const duration = () => seconds({ label: 'Duration', min: 0, source: 'duration' });
const rising = (times: readonly number[]): boolean => times.every((t, i) => i === 0 || t > times[i - 1]!);

/** The camera at a time. */
const pathKey = group({
  id: id(),
  time: time(),
  position: point({ label: 'Key', decimals: 2 }),
  yaw: yaw({ label: 'Key yaw', short: 'yaw', decimals: 2, step: 1 }),
  pitch: pitch({ label: 'Key pitch', short: 'pitch', decimals: 2, step: 1 }),
  roll: roll({ label: 'Key roll', short: 'roll', decimals: 2, step: 1 }),
  verticalFov: angle({ label: 'Key field of view', short: 'fov', decimals: 2, step: 1 }),
  ease,
});
/** Even steering from one time to another: scene units and angles a second. */
const steered = group({
  from: seconds({ label: 'Stretch from', short: 'from', min: 0, source: 'stretch' }),
  to: seconds({ label: 'Stretch to', short: 'to', min: 0 }),
  right: length({ label: 'Speed to the right', short: 'right', decimals: 2 }),
  up: length({ label: 'Speed up', short: 'up', decimals: 2 }),
  ahead: length({ label: 'Speed ahead', short: 'ahead', decimals: 2 }),
  yawRate: yawRate({ label: 'Yaw rate of the stretch', short: 'yaw', decimals: 2, step: 1 }),
  pitchRate: pitchRate({ label: 'Pitch rate of the stretch', short: 'pitch', decimals: 2, step: 1 }),
});
const halfWidth = (label: string) => length({ label, min: 0 });
const travel = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rest') }),
  z.object({ kind: z.literal('scroll'), velocity: velocity({ label: 'Velocity', source: 'velocity', decimals: 2 }) }),
  z.object({
    kind: z.literal('follow'),
    /** The body; one that does not exist is followed nowhere. */
    body: z.string(),
    halfLife: seconds({ label: 'Half-life', min: 0, step: 0.1, source: 'halfLife' }),
    /** Seconds by which its own speed carries the followed body ahead of it. */
    lookAhead: seconds({ label: 'Look-ahead', min: 0, step: 0.1 }).default(0),
    deadZone: z.tuple([halfWidth('Dead zone to the right'), halfWidth('Dead zone up'), halfWidth('Dead zone ahead')]),
    bounds: optional(
      group({
        min: surfacePoint({ label: 'Bounds from', world: '2d', decimals: 2 }),
        max: surfacePoint({ label: 'Bounds to', world: '2d', decimals: 2 }),
      }),
    ),
  }),
  z.object({
    kind: z.literal('orbit'),
    centre: point({ label: 'Centre', source: 'centre', decimals: 2 }),
    yawRate: yawRate({ label: 'Yaw rate', short: 'yaw', source: 'rates', decimals: 2, step: 1 }),
    pitchRate: pitchRate({ label: 'Pitch rate', short: 'pitch', decimals: 2, step: 1 }),
    pitchLimits: pitchRange({ label: 'Pitch', decimals: 2, step: 1 }),
    /** A second, as the logarithm of a factor. */
    distanceRate: ratio({ label: 'Distance rate', short: 'farther', step: 0.01 }),
  }),
  z.object({
    kind: z.literal('path'),
    keys: list(pathKey, { max: mostKeys })
      .min(1)
      .refine((keys) => rising(keys.map(({ time: at }) => at)), 'times that rise'),
  }),
  z.object({
    kind: z.literal('walk'),
    inputs: list(steered, { max: mostStretches }),
    pitchLimit: angle({ label: 'Pitch limit', short: 'pitch to ±', min: 0, decimals: 2, step: 1 }),
  }),
  z.object({
    kind: z.literal('dollyZoom'),
    target: point({ label: 'Held target', source: 'target', decimals: 2 }),
    distance: z.tuple([
      length({ label: 'First distance', short: 'from', source: 'distances', decimals: 2 }),
      length({ label: 'Last distance', short: 'to', decimals: 2 }),
    ]),
    duration: duration(),
    ease,
    /** It goes no nearer than where the field of view is the widest allowed. */
    widest: angle({ label: 'Max field of view', short: 'max fov', above: 0, max: radians(179.999), decimals: 2, step: 1 }).default(radians(150)), // prettier-ignore
  }),
  z.object({
    kind: z.literal('blend'),
    subject: point({ label: 'Held subject', source: 'target', decimals: 2 }),
    duration: duration(),
    ease,
  }),
]);
const shaking = group({
  seed: count({ label: 'Seed of the shake', short: 'seed' }),
  frequency: ratio({ label: 'Frequency of the shake', short: 'frequency', min: 0, step: 0.1 }),
  decay: ratio({ label: 'Decay of the shake', short: 'decay', min: 0, step: 0.05 }),
  strength: ratio({ label: 'Strength of the shake', short: 'strength', min: 0, max: 1, step: 0.1, source: 'shake' }),
  yaw: yaw({ label: 'Shake yaw', short: 'yaw', decimals: 2, step: 1 }),
  pitch: pitch({ label: 'Shake pitch', short: 'pitch', decimals: 2, step: 1 }),
  roll: roll({ label: 'Shake roll', short: 'roll', decimals: 2, step: 1 }),
  offset: z.tuple([
    length({ label: 'Shake to the right', short: 'right', step: 0.1 }),
    length({ label: 'Shake up', short: 'up', step: 0.1 }),
  ]),
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
  framesPerSecond: ratio({ label: 'Frames a second of the order', short: 'at', above: 0, source: 'frames' }),
  /** Layers that go with a 2D camera by a factor. */
  layers: z.array(ratio({ min: 0 })).max(mostLayers),
  /** A basis turned by small steps, with seconds between repairs. */
  turning: group({
    rate: angularRate({ label: 'Turn of the basis', short: 'turns', source: 'turning', decimals: 2, step: 1 }),
    steps: count({ label: 'Steps a second', short: 'steps', min: 1, max: 1000 }),
    precision: choice(['float', 'double']),
    repair: seconds({ label: 'Seconds between repairs', short: 'repair', above: 0 }),
    minutes: ratio({ label: 'Minutes of turning', short: 'for', above: 0, max: 30 }),
  }),
  /** Steering by keys and pointer: its sensitivity is an angle a pixel. */
  steering: group({
    speed: length({ label: 'Walking speed', short: 'speed', above: 0, source: 'steering' }),
    sensitivity: angle({ label: 'Sensitivity of the pointer', short: 'turns', above: 0, decimals: 3, step: 0.05 }),
    pitchLimit: angle({ label: 'Pitch limit of the steering', short: 'pitch to ±', min: 0, max: radians(90), decimals: 2, step: 1 }), // prettier-ignore
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
