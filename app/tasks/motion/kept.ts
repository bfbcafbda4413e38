import type { FrameStage } from '../../../core/motion/stages';
import type { Manner } from '../../../core/motion/rates';
import type { Ease } from '../../../core/motion/path';

/* What Motion keeps, as types; `state.ts` has its schema. */

export type Pair = [number, number];
export type Triple = [number, number, number];

export const eases: readonly Ease[] = ['even', 'gentle', 'gentleStart', 'gentleEnd'];
export const travelKinds = ['rest', 'scroll', 'follow', 'orbit', 'path', 'walk', 'dollyZoom', 'blend'] as const;
export type TravelKind = (typeof travelKinds)[number];
/** The tracks that a flat camera has. */
export const flatKinds: readonly TravelKind[] = ['rest', 'scroll', 'follow'];

/** A place of the camera at a time: canonical space, degrees. */
export interface PathKey {
  id: string;
  time: number;
  position: Triple;
  yaw: number;
  pitch: number;
  roll: number;
  verticalFov: number;
  ease: Ease;
}
/** Even steering from one time to another: units and degrees a second. */
export interface Steered {
  from: number;
  to: number;
  right: number;
  up: number;
  ahead: number;
  yawRate: number;
  pitchRate: number;
}

/** How a camera travels, in canonical space (on a flat world right, up, 0), degrees and seconds. */
export type Travel =
  | { kind: 'rest' }
  | { kind: 'scroll'; velocity: Triple }
  | {
      kind: 'follow';
      /** The body; one that there is not is followed nowhere. */
      body: string;
      halfLife: number;
      /** Seconds by which its own speed carries what is followed ahead of it. */
      lookAhead: number;
      deadZone: Triple;
      bounds: { min: Pair; max: Pair } | null;
    }
  | { kind: 'orbit'; centre: Triple; yawRate: number; pitchRate: number; pitchLimits: Pair; distanceRate: number }
  | { kind: 'path'; keys: PathKey[] }
  | { kind: 'walk'; inputs: Steered[]; pitchLimit: number }
  /** It goes no nearer than where the field of view is the widest allowed. */
  | { kind: 'dollyZoom'; target: Triple; distance: Pair; widest: number; duration: number; ease: Ease }
  | { kind: 'blend'; subject: Triple; duration: number; ease: Ease };

export interface Shaking {
  seed: number;
  frequency: number;
  decay: number;
  strength: number;
  yaw: number;
  pitch: number;
  roll: number;
  offset: Pair;
}
export interface CameraTrack {
  travel: Travel;
  shake: Shaking | null;
}

export const rates = ['30', '60', '144', 'uneven'] as const;
export type Rate = (typeof rates)[number];
export const mostKeys = 400;
export const mostStretches = 4000;
/** Seconds that are shown of a way without an end. */
export const endless = 30;
export const mostLayers = 8;

export interface MotionState {
  /** By the id of a camera; one without stands. */
  tracks: Record<string, CameraTrack>;
  /** What the charts and differences are about: a body, or the probe. */
  subject: string | null;
  /** How frame-bound code steps it. */
  rate: Rate;
  manner: Exclude<Manner, 'right'>;
  /** The order of a frame, and how many there are a second. */
  order: FrameStage[];
  framesPerSecond: number;
  /** Layers that go with a flat camera by a factor. */
  layers: number[];
  /** A basis turned by small steps: degrees a second, steps a second, seconds between repairs. */
  turning: { rate: number; steps: number; precision: 'float' | 'double'; repair: number | null; minutes: number };
  /** Steering by keys and pointer: units a second, degrees a pixel, degrees. */
  steering: { speed: number; sensitivity: number; pitchLimit: number };
}

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
        return t.yawRate ? 360 / Math.abs(t.yawRate) : endless;
      case 'scroll':
      case 'follow':
        return endless;
    }
  };
  const far = own();
  return far === null && !shake ? null : Math.max(far ?? 0, shaken);
}
