import type { Query } from '../../../core/compute/operations';
import { radians } from '../../../core/math/angle';
import type { Vec3 } from '../../../core/math/vec3';
import { writeValue } from '../../../core/quantities/convert';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';
import { spawnState, type SpawnState } from './kept';

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
    first: { moved: [0, 0], order: ['input', 'spawn', 'camera', 'draw'] },
  };
}

/** Version 1 had the angles of the sector in degrees. */
function toRadians(older: unknown): unknown {
  const { sector, ...rest } = older as { sector: { heading: number; half: number } | null };
  return { ...rest, sector: sector && { heading: radians(sector.heading), half: radians(sector.half) } };
}

export const slice: Slice<SpawnState> = {
  version: 2,
  schema: spawnState,
  migrate: [toRadians],
  initial: (project) => ({
    ...{ height: project.ground?.height ?? 0, region: 'bounds', paddingUnit: 'world', sector: null },
    ...{ count: 400, seed: 1, method: 'direct', coming: 'towards', velocity: [0, 0], asItMoves: false, within: 60 },
    ...begin(project),
  }),
  queries: (kept, context) => {
    const { world } = context;
    const written = writeValue(spawnState, kept, context);
    const corner = (pick: (...v: number[]) => number): [number, number] => [
      pick(written.min[0], written.max[0]),
      pick(written.min[1], written.max[1]),
    ];
    const vector = (p: Vec3) => world.writePoint(p, context.codec) as [number, number, number];
    const ground = { point: vector([0, kept.height, 0]), normal: vector([0, 1, 0]) };
    const { heading = 0 } = kept.sector ?? {};
    const footprint: Query[] = world.hasDepth ? [{ id: 'footprint', op: 'footprint', plane: ground }] : [];
    return [
      ...footprint,
      {
        ...{ id: 'spawned', op: 'spawn', padding: kept.padding, paddingUnit: kept.paddingUnit },
        ...{ radius: kept.radius, count: kept.count, seed: kept.seed },
        surface: world.hasDepth ? { plane: ground } : '2d',
        bounds: kept.region === 'ring' ? { ringOuter: kept.ring } : { min: corner(Math.min), max: corner(Math.max) },
        keepAway: written.discs.map(({ centre, distance }) => ({ centre, distance })),
        ...(written.sector && {
          ahead: {
            direction: world.writeSurface([Math.sin(heading), Math.cos(heading)], context.codec),
            halfAngle: written.sector.half,
          },
        }),
        method: kept.method === 'rejection' ? 'rejection' : 'direct',
      } as Query,
    ];
  },
};
