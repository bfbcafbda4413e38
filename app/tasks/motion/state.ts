import * as z from 'zod';
import { listOf, vec2Schema, vec3Schema } from '../../../core/compute/valueSchemas';
import type { Query } from '../../../core/compute/schema';
import { frameStages } from '../../../core/motion/stages';
import type { Ease } from '../../../core/motion/path';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';
import {
  eases,
  mostKeys,
  mostLayers,
  mostStretches,
  rates,
  travelSpan,
  type CameraTrack,
  type MotionState,
  type Pair,
  type Shaking,
  type Triple,
} from './kept';
import { motionQueries } from './queries';
import { rereadTrack } from './reread';

const pair = vec2Schema as unknown as z.ZodType<Pair>;
const triple = vec3Schema as unknown as z.ZodType<Triple>;
const positive = z.number().positive();
const seconds = z.number().nonnegative();
const ease = z.enum(eases as [Ease, ...Ease[]]);
const rising = (times: readonly number[]): boolean => times.every((t, i) => i === 0 || t > times[i - 1]!);

const travel = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rest') }),
  z.object({ kind: z.literal('scroll'), velocity: triple }),
  z.object({
    kind: z.literal('follow'),
    ...{ body: z.string(), halfLife: seconds, lookAhead: seconds.default(0) },
    deadZone: triple.refine((zone) => zone.every((v) => v >= 0), 'half widths of 0 or more'),
    bounds: z.object({ min: pair, max: pair }).nullable(),
  }),
  z.object({
    kind: z.literal('orbit'),
    ...{ centre: triple, yawRate: z.number(), pitchRate: z.number(), distanceRate: z.number() },
    pitchLimits: pair.refine(([low, high]) => low <= high, 'the lower limit first'),
  }),
  z.object({
    kind: z.literal('path'),
    keys: listOf(
      z.object({
        ...{ id: z.string().min(1), time: seconds, position: triple },
        ...{ yaw: z.number(), pitch: z.number(), roll: z.number(), verticalFov: z.number(), ease },
      }),
    )
      .min(1)
      .max(mostKeys)
      .refine((keys) => rising(keys.map(({ time }) => time)), 'times that rise'),
  }),
  z.object({
    kind: z.literal('walk'),
    inputs: listOf(
      z.object({
        ...{ from: seconds, to: seconds, right: z.number(), up: z.number(), ahead: z.number() },
        ...{ yawRate: z.number(), pitchRate: z.number() },
      }),
    ).max(mostStretches),
    pitchLimit: z.number().nonnegative(),
  }),
  z.object({
    ...{ kind: z.literal('dollyZoom'), target: triple, distance: pair, duration: seconds, ease },
    widest: z.number().positive().lt(180).default(150),
  }),
  z.object({ kind: z.literal('blend'), subject: triple, duration: seconds, ease }),
]);
const shaking = z.object({
  ...{ seed: z.int(), frequency: seconds, decay: seconds, strength: z.number().min(0).max(1) },
  ...{ yaw: z.number(), pitch: z.number(), roll: z.number(), offset: pair },
});

const shaken: Shaking = {
  ...{ seed: 5, frequency: 1.6, decay: 0, strength: 1, yaw: 0.8, pitch: 1.1, roll: 1.4 },
  offset: [0.12, 0.2],
};

/** The tracks that the demos begin with: each teaches something at once. */
function begin({ guide, camera, cameras }: Project): Record<string, CameraTrack> {
  const ids = new Set([camera, ...cameras].map(({ id }) => id));
  const tracks: Record<string, CameraTrack> =
    guide === 'harbour' && camera.kind === '3d'
      ? {
          'bridge-wing': { travel: { kind: 'rest' }, shake: shaken },
          'lamp-room': {
            travel: {
              ...{ kind: 'walk', pitchLimit: 89 },
              inputs: [{ from: 0, to: 36, right: 0, up: 0, ahead: 0, yawRate: 10, pitchRate: 0 }],
            },
            shake: null,
          },
          breakwater: {
            travel: { kind: 'dollyZoom', target: [-21, 13, -20], distance: [43.7035468, 12], widest: 120, duration: 15, ease: 'gentle' }, // prettier-ignore
            shake: null,
          },
          'round-the-light': {
            travel: { kind: 'orbit', centre: [-21, 11, -20], yawRate: 12, pitchRate: 0, pitchLimits: [-60, 20], distanceRate: 0 }, // prettier-ignore
            shake: null,
          },
        }
      : guide === 'chart' && camera.kind === '2d'
        ? {
            [camera.id]: {
              travel: {
                ...{ kind: 'follow', body: 'launch', halfLife: 0.6, lookAhead: 0, deadZone: [6, 4, 0] },
                bounds: { min: [-208, -144], max: [176, 128] },
              },
              shake: null,
            },
          }
        : {};
  return Object.fromEntries(Object.entries(tracks).filter(([id]) => ids.has(id)));
}

/** What Motion keeps: canonical space, degrees, seconds. */
export const slice: Slice<MotionState> = {
  version: 1,
  schema: z.object({
    tracks: z.record(z.string(), z.object({ travel, shake: shaking.nullable() })),
    subject: z.string().nullable(),
    rate: z.enum(rates),
    manner: z.enum(['factor', 'noStep', 'euler']),
    order: listOf(z.enum(frameStages)).refine((list) => list.length === frameStages.length && new Set(list).size === list.length, 'every stage once'), // prettier-ignore
    framesPerSecond: positive,
    layers: z.array(z.number().nonnegative()).max(mostLayers),
    turning: z.object({
      ...{ rate: z.number(), steps: z.int().min(1).max(1000), precision: z.enum(['float', 'double']) },
      ...{ repair: positive.nullable(), minutes: positive.max(30) },
    }),
    steering: z.object({ speed: positive, sensitivity: positive, pitchLimit: z.number().min(0).max(90) }),
  }) as unknown as z.ZodType<MotionState>,
  initial: (project) => ({
    tracks: begin(project),
    subject: project.guide === 'harbour' ? 'lighthouse' : project.guide === 'chart' ? 'launch' : null,
    ...{ rate: '30', manner: project.camera.kind === '2d' ? 'factor' : 'noStep' },
    ...{ order: [...frameStages], framesPerSecond: 60, layers: [0.5, 0.25] },
    turning: { rate: 40, steps: 60, precision: 'float', repair: null, minutes: 5 },
    steering: { speed: 6, sensitivity: 0.2, pitchLimit: 85 },
  }),
  span: ({ tracks }, { camera }) => {
    const track = tracks[camera.id];
    return track ? travelSpan(track) : null;
  },
  takeWay: (kept, { id, keys }) => ({
    ...kept,
    tracks: {
      ...kept.tracks,
      [id]: {
        travel: { kind: 'path', keys: keys.slice(0, mostKeys).map((key, i) => ({ ...key, position: [...key.position] as Triple, id: `key-${i + 1}`, ease: 'even' })) }, // prettier-ignore
        shake: null,
      },
    },
  }),
  reread: (kept, from, to, flat) => ({
    ...kept,
    tracks: Object.fromEntries(Object.entries(kept.tracks).map(([id, track]) => [id, rereadTrack(track, from, to, flat)])), // prettier-ignore
  }),
  forget: (kept, gone) => (kept.subject !== null && gone.has(kept.subject) ? { ...kept, subject: null } : kept),
  queries: (kept, now): Query[] => motionQueries(kept, now),
};
