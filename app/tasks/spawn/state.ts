import * as z from 'zod';
import { listOf, vec2Schema } from '../../../core/compute/valueSchemas';
import type { Query } from '../../../core/compute/schema';
import type { Vec2 } from '../../../core/math/vec3';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';

type Pair = [number, number];

/** A disc that nothing may appear in. */
export interface Disc {
  id: string;
  name: string;
  centre: Pair;
  distance: number;
}
export const mostDiscs = 60;
export const mostSpawned = 100_000;

/** The events of the first frame, in any order. */
export const frameEvents = ['input', 'camera', 'spawn', 'draw'] as const;
export type FrameEvent = (typeof frameEvents)[number];

export interface SpawnState {
  /** The height of the level ground, in canonical space; a flat world has none. */
  height: number;
  region: 'bounds' | 'ring';
  /** Opposite corners in the surface's coordinates: to the right, and ahead or up. */
  min: Pair;
  max: Pair;
  /** How far beyond the padding a ring reaches. */
  ring: number;
  padding: number;
  paddingUnit: 'world' | 'pixels';
  radius: number;
  /** Ahead of a motion: degrees from ahead (or up) clockwise, and to each side; null for all round. */
  sector: { heading: number; half: number } | null;
  discs: Disc[];
  count: number;
  seed: number;
  method: 'direct' | 'rejection' | 'circle';
  /** The customary circle about the player, who stands in the middle of what is seen. */
  circle: { inner: number; outer: number };
  /** How bodies come: towards the middle of what is seen, or at a velocity; and how the camera moves. */
  coming: 'towards' | 'velocity';
  speed: number;
  velocity: Pair;
  camera: Pair;
  /** Whether the camera goes as its own track has it rather than evenly. */
  asItMoves: boolean;
  within: number;
  /** The first frame: how far the camera moves in it, and its events in their order. */
  first: { moved: Pair; order: FrameEvent[] };
}

const pair = vec2Schema as unknown as z.ZodType<Pair>;
const positive = z.number().positive();
const order = listOf(z.enum(frameEvents)).refine(
  (list) => new Set(list).size === frameEvents.length,
  'every event once',
);

/** Bounds and discs to begin with. */
function begin({
  guide,
  camera,
  bodies,
}: Project): Pick<
  SpawnState,
  'min' | 'max' | 'discs' | 'padding' | 'radius' | 'ring' | 'circle' | 'speed' | 'first' | 'camera'
> {
  if (guide === 'harbour')
    return {
      ...{ min: [-80, -80], max: [80, 160], padding: 4, radius: 1.5, ring: 30, speed: 3 },
      discs: [{ id: 'east-quay', name: 'East quay', centre: [46, -4], distance: 24 }],
      ...{
        circle: { inner: 40, outer: 90 },
        camera: [0, 2],
        first: { moved: [0, 12], order: ['input', 'spawn', 'camera', 'draw'] },
      },
    };
  if (camera.kind === '2d' && guide === 'chart')
    return {
      ...{ min: [-200, -200], max: [160, 120], padding: 8, radius: 3, ring: 60, speed: 6 },
      discs: [{ id: 'quay', name: 'North quay', centre: [18, 18], distance: 26 }],
      ...{
        circle: { inner: 90, outer: 200 },
        camera: [3, 2],
        first: { moved: [40, 20], order: ['input', 'spawn', 'camera', 'draw'] },
      },
    };
  const reach = Math.max(60, ...bodies.flatMap(({ position }) => [Math.abs(position[0]), Math.abs(position[1]), Math.abs(position[2])])) * 2; // prettier-ignore
  return {
    ...{
      min: [-reach, -reach],
      max: [reach, reach],
      padding: reach / 50,
      radius: reach / 200,
      ring: reach / 4,
      speed: reach / 40,
    },
    ...{ discs: [], circle: { inner: reach / 3, outer: reach / 1.5 }, camera: [0, 0] },
    first: { moved: [0, reach / 8], order: ['input', 'spawn', 'camera', 'draw'] },
  };
}

/** What Spawn keeps: places in the surface’s canonical coordinates, angles in degrees. */
export const slice: Slice<SpawnState> = {
  version: 1,
  schema: z.object({
    height: z.number(),
    region: z.enum(['bounds', 'ring']),
    ...{ min: pair, max: pair, ring: positive },
    padding: z.number().nonnegative(),
    paddingUnit: z.enum(['world', 'pixels']),
    radius: z.number().nonnegative(),
    sector: z.object({ heading: z.number(), half: positive.max(180) }).nullable(),
    discs: listOf(
      z.object({ id: z.string().min(1), name: z.string().min(1), centre: pair, distance: z.number().nonnegative() }),
    ).max(mostDiscs),
    count: z.int().min(0).max(mostSpawned),
    seed: z.int(),
    method: z.enum(['direct', 'rejection', 'circle']),
    circle: z.object({ inner: z.number().nonnegative(), outer: positive }),
    coming: z.enum(['towards', 'velocity']),
    speed: z.number().nonnegative(),
    velocity: pair,
    camera: pair,
    asItMoves: z.boolean().default(false),
    within: positive,
    first: z.object({ moved: pair, order }),
  }) as unknown as z.ZodType<SpawnState>,
  initial: (project) => ({
    ...{ height: project.ground?.height ?? 0, region: 'bounds', paddingUnit: 'world', sector: null },
    ...{ count: 400, seed: 1, method: 'direct', coming: 'towards', velocity: [0, 0], asItMoves: false, within: 60 },
    ...begin(project),
  }),
  reread: (kept, from, to, flat) => {
    const second = flat ? 'up' : 'forward';
    const pairAgain = (p: Vec2): Pair => [...to.fromPair(second, from.toPair(second, p))];
    return {
      ...kept,
      height: flat ? kept.height : to.fromHeight(from.toHeight(kept.height)),
      ...{ min: pairAgain(kept.min), max: pairAgain(kept.max) },
      discs: kept.discs.map((disc) => ({ ...disc, centre: pairAgain(disc.centre) })),
      ...{ velocity: pairAgain(kept.velocity), camera: pairAgain(kept.camera) },
      first: { ...kept.first, moved: pairAgain(kept.first.moved) },
    };
  },
  queries: (kept, { flat, codec: e }) => {
    const outward = (p: Vec2): Pair => [...e.toPair(flat ? 'up' : 'forward', p)];
    const [a, b] = [outward(kept.min), outward(kept.max)];
    const low = (pick: (...v: number[]) => number): Pair => [pick(a[0], b[0]), pick(a[1], b[1])];
    const surface = flat ? ('2d' as const) : { plane: { point: [...e.toWorld([0, kept.height, 0])] as [number, number, number], normal: [...e.toWorld([0, 1, 0])] as [number, number, number] } }; // prettier-ignore
    const radians = (kept.sector?.heading ?? 0) * (Math.PI / 180);
    return [
      ...(flat ? [] : [{ id: 'footprint', op: 'footprint', plane: (surface as { plane: { point: [number, number, number]; normal: [number, number, number] } }).plane } as Query]), // prettier-ignore
      {
        ...{ id: 'spawned', op: 'spawn', surface, padding: kept.padding, paddingUnit: kept.paddingUnit },
        ...{ radius: kept.radius, count: kept.count, seed: kept.seed },
        bounds: kept.region === 'ring' ? { ringOuter: kept.ring } : { min: low(Math.min), max: low(Math.max) },
        keepAway: kept.discs.map(({ centre, distance }) => ({ centre: outward(centre), distance })),
        ...(kept.sector && {
          ahead: { direction: outward([Math.sin(radians), Math.cos(radians)]), halfAngle: e.toAngle((kept.sector.half * Math.PI) / 180) }, // prettier-ignore
        }),
        method: kept.method === 'rejection' ? 'rejection' : 'direct',
      } as Query,
    ];
  },
};
