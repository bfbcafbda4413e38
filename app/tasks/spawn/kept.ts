import type * as z from 'zod';
import {
  angle,
  choice,
  count,
  flag,
  group,
  heading,
  height,
  id,
  length,
  list,
  name,
  optional,
  seconds,
  surfacePoint,
  surfaceVector,
} from '../../../core/quantities/quantity';

export const mostDiscs = 60;
export const mostSpawned = 100_000;

/** The events of the first frame, in any order. */
export const frameEvents = ['input', 'camera', 'spawn', 'draw'] as const;
export type FrameEvent = (typeof frameEvents)[number];

/** What Spawn keeps in the project. */
export const spawnState = group({
  /** The height of the level ground. */
  height: height({ label: 'Height of the ground', short: 'ground', world: '3d' }),
  region: choice(['bounds', 'ring']),
  /** Opposite corners of the bounds. */
  min: surfacePoint({ label: 'Bounds from', decimals: 1, source: 'bounds', isConditional: true }),
  max: surfacePoint({ label: 'Bounds to', decimals: 1, isConditional: true }),
  /** How far beyond the padding a ring reaches. */
  ring: length({ label: 'Ring', short: 'wide', above: 0, isConditional: true }),
  /** In scene units or pixels, by `paddingUnit`. */
  padding: length({ label: 'Padding', min: 0, source: 'padding', words: 'margin safe distance' }),
  paddingUnit: choice(['world', 'pixels']),
  radius: length({ label: 'Radius of the body', short: 'radius', min: 0, words: 'size of what appears' }),
  /** Ahead of a motion; null for all round. */
  sector: optional(
    group({
      heading: heading({ label: 'Heading of the sector', short: 'heading' }),
      half: angle({ label: 'Half of the sector', short: '± half', above: 0, max: Math.PI }),
    }),
  ),
  /** Discs that nothing may appear in. */
  discs: list(
    group({
      id: id(),
      name: name(),
      centre: surfacePoint({ decimals: 1 }),
      distance: length({ short: 'by', min: 0 }),
    }),
    { max: mostDiscs },
  ),
  count: count({ label: 'How many points', short: 'count', min: 0, max: mostSpawned, step: 100, words: 'number amount' }), // prettier-ignore
  seed: count({ label: 'Seed of the points', short: 'seed', words: 'random' }),
  method: choice(['direct', 'rejection', 'circle']),
  /** The customary circle about the player, who is at the centre of the visible area. */
  circle: group({
    inner: length({ label: 'Inner radius', short: 'from', min: 0, isConditional: true }),
    outer: length({ label: 'Outer radius', short: 'to', above: 0, isConditional: true }),
  }),
  /** How bodies approach: towards the centre of the visible area, or at a velocity. */
  coming: choice(['towards', 'velocity']),
  speed: length({ label: 'Speed of the bodies', short: 'per s', min: 0, source: 'speed', isConditional: true }),
  velocity: surfaceVector({ label: 'Velocity of the bodies', decimals: 1, source: 'speed', isConditional: true }),
  camera: surfaceVector({ label: 'Velocity of the camera', decimals: 1, isConditional: true }),
  /** Whether the camera goes as its own track has it rather than evenly. */
  asItMoves: flag().default(false),
  within: seconds({ label: 'Seconds looked ahead', short: 'within', above: 0, words: 'duration horizon' }),
  /** The first frame: how far the camera moves in it, and its events in their order. */
  first: group({
    moved: surfaceVector({ label: 'The camera moves by', decimals: 1, source: 'moved', words: 'displacement' }),
    order: list(choice(frameEvents)).refine(
      (events) => new Set(events).size === frameEvents.length,
      'must have every event once',
    ),
  }),
});

export type SpawnState = z.infer<typeof spawnState>;
export type Disc = SpawnState['discs'][number];
