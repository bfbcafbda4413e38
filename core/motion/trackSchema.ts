import * as z from 'zod';
import type { World } from '../quantities/world';
import type { Problem } from '../reasons';
import type { Vec3 } from '../math/vec3';
import { input, inputList } from '../request/values';
import { eases } from './path';

const { number } = input;
const notNegative = () => number().nonnegative();
const ease = z.enum(eases).default('even');

const timedPoint = () =>
  z.tuple([number(), input.point()]) as z.ZodType<
    readonly [number, Vec3],
    [number, [number, number, number] | [number, number]]
  >;

/** The schema of a track: how a camera moves, from where it is at time 0. Times are seconds. */
export const trackSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('scroll'), velocity: input.velocity() }),
  z.object({
    kind: z.literal('follow'),
    target: inputList(timedPoint()).describe('Times with the point that is followed'),
    halfLife: notNegative(),
    deadZone: z
      .union([z.tuple([notNegative(), notNegative(), notNegative()]), z.tuple([notNegative(), notNegative()])])
      .optional()
      .describe('Half widths to the right, up and (3D) ahead'),
    bounds: z
      .object({ min: input.surfacePoint(), max: input.surfacePoint() })
      .optional()
      .describe('Opposite corners of the rectangle that the viewport of a 2D camera stays in'),
  }),
  z.object({
    kind: z.literal('orbit'),
    centre: input.point3d(),
    yawRate: input.yawRate(),
    pitchRate: input.pitchRate().default(0),
    pitchLimits: input.pitchRange().optional(),
    distanceRate: number().default(0).describe('A second, as the logarithm of a factor; negative comes nearer'),
  }),
  z.object({
    kind: z.literal('path'),
    keys: inputList(
      z.object({
        time: number(),
        position: input.point3d(),
        yaw: input.yaw(),
        pitch: input.pitch(),
        roll: input.roll().default(0),
        verticalFov: input.angle(),
        ease,
      }),
    ),
  }),
  z.object({
    kind: z.literal('walk'),
    inputs: inputList(
      z.object({
        from: number(),
        to: number(),
        right: number().default(0),
        up: number().default(0),
        ahead: number().default(0),
        yawRate: input.yawRate().default(0),
        pitchRate: input.pitchRate().default(0),
      }),
    ),
    pitchLimit: input.angle(undefined, notNegative()).optional(),
  }),
  z.object({
    kind: z.literal('dollyZoom'),
    target: input.point3d(),
    distance: input.pair().describe('First and last distance ahead to the target'),
    duration: number(),
    ease,
  }),
  z.object({
    kind: z.literal('shake'),
    seed: z.int(),
    frequency: notNegative(),
    decay: notNegative(),
    strength: z.number().min(0).max(1),
    angles: z
      .object({ yaw: input.yaw().default(0), pitch: input.pitch().default(0), roll: input.roll().default(0) })
      .prefault({}),
    offset: input.pair().default([0, 0]),
  }),
]);

/** How a camera moves from where it is at time 0: canonical space, scene units, radians, seconds. */
export type Track = z.output<typeof trackSchema>;
/** A track as a request writes it. */
export type WrittenTrack = z.input<typeof trackSchema>;
export type TrackOf<Kind extends Track['kind']> = Extract<Track, { kind: Kind }>;
/** The tracks that a 2D camera has. */
export const flatTracks: readonly Track['kind'][] = ['scroll', 'follow'];

/** Returns the problems of a track's own numbers in a world; points are checked with all others of the request. */
export function trackProblems(track: Track | WrittenTrack, at: string, world: World): Problem[] {
  if (track.kind !== 'follow') return [];
  const { deadZone, bounds } = track;
  const problems: Problem[] = [];
  if (deadZone && deadZone.length !== world.dimensions)
    problems.push({
      path: `${at}.deadZone`,
      message: world.hasDepth
        ? 'The dead zone has three half widths, to the right, up and ahead.'
        : 'With a 2D camera the dead zone has two half widths, to the right and up.',
    });
  if (bounds && world.hasDepth)
    problems.push({ path: `${at}.bounds`, message: 'Bounds hold the picture of a 2D camera. Leave them out.' });
  return problems;
}
