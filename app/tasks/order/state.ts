import * as z from 'zod';
import { listOf, vec3Schema } from '../../../core/compute/valueSchemas';
import { planarShadow } from '../../../core/order/shadow';
import type { Vec3 } from '../../../core/math/vec3';
import type { Query } from '../../../core/compute/schema';
import type { Project } from '../../../formats/project';
import { firstLight, firstReceiver, lightOf, lightSchema, receiverOf, type ProjectLight } from '../../state/light';
import type { Slice } from '../../state/slices';
import { followedPolygon, sortKeyOf } from './followed';

type Corner = [number, number, number];

/** The polygon that is followed through the pipeline: corners of its own, or a face of a body. */
export type Followed =
  { kind: 'polygon'; name: string; corners: Corner[] } | { kind: 'face'; body: string; triangle: number };

/** What bodies are put in order by; by layers alone on a flat world. */
export type OrderKey = 'ahead' | 'distance' | 'screenHeight' | 'worldUp' | 'layer';

export interface OrderState {
  followed: Followed;
  ghosts: boolean;
  frontFace: 'counterClockwise' | 'clockwise';
  cull: 'none' | 'back' | 'front';
  /** What is shown as if it were so, without being made. */
  supposed: { mirrored: boolean; negative: boolean; yDown: boolean };
  key: OrderKey;
  paint: 'depth' | 'bodies' | 'faces';
  light: ProjectLight;
  /** The height of the level plane that shadows fall on, in canonical space. */
  receiver: number;
  shadows: boolean;
  contours: boolean;
}

/** The most corners of a polygon of one's own. */
export const mostCorners = 12;

/** Somewhere to begin: a gangway in the demo, elsewhere a sheet on the ground that runs under all there is. */
function firstPolygon({ guide, ground, bodies }: Project): Followed {
  if (guide === 'harbour')
    return {
      kind: 'polygon',
      name: 'Gangway',
      corners: [
        [-2.4, 11.2, 71],
        [0.6, 11.2, 71],
        [13.4, 3.7, -10.5],
        [10.4, 3.7, -10.5],
      ],
    };
  const reach = Math.max(10, ...bodies.flatMap(({ position }) => [Math.abs(position[0]), Math.abs(position[2])])) * 2;
  const height = ground?.height ?? 0;
  return {
    kind: 'polygon',
    name: 'Sheet',
    corners: [
      [-reach, height, reach],
      [reach, height, reach],
      [reach, height, -reach],
      [-reach, height, -reach],
    ],
  };
}

const boolean = z.boolean();
const number = z.number();

/** What Order keeps. Everything is in canonical space and degrees. */
export const slice: Slice<OrderState> = {
  version: 1,
  schema: z.object({
    followed: z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('polygon'),
        name: z.string().min(1),
        corners: listOf(vec3Schema).min(3).max(mostCorners),
      }),
      z.object({ kind: z.literal('face'), body: z.string(), triangle: z.int().nonnegative() }),
    ]),
    ghosts: boolean,
    frontFace: z.enum(['counterClockwise', 'clockwise']),
    cull: z.enum(['none', 'back', 'front']),
    supposed: z.object({ mirrored: boolean, negative: boolean, yDown: boolean }),
    key: z.enum(['ahead', 'distance', 'screenHeight', 'worldUp', 'layer']),
    paint: z.enum(['depth', 'bodies', 'faces']),
    light: lightSchema,
    receiver: number,
    shadows: boolean,
    contours: boolean,
  }) as z.ZodType<OrderState>,
  initial: (project) => ({
    followed: firstPolygon(project),
    ghosts: false,
    frontFace: 'counterClockwise',
    cull: 'none',
    supposed: { mirrored: false, negative: false, yDown: false },
    key: project.camera.kind === '2d' ? 'layer' : 'ahead',
    paint: 'depth',
    light: firstLight,
    receiver: firstReceiver(project),
    shadows: false,
    contours: false,
  }),
  reread: (kept, from, to) => {
    const corner = (p: Vec3): Corner => [...to.fromWorld(from.toWorld(p))];
    const { followed, light } = kept;
    return {
      ...kept,
      followed: followed.kind === 'polygon' ? { ...followed, corners: followed.corners.map(corner) } : followed,
      light: light.kind === 'lamp' ? { ...light, at: corner(light.at) } : light,
      receiver: to.fromHeight(from.toHeight(kept.receiver)),
    };
  },
  queries: (kept, now) => {
    const { codec: e, flat, frame, chain } = now;
    const order: Query = { id: 'draw order', op: 'drawOrder', key: sortKeyOf(kept.key) };
    if (flat) return [order];
    const corners = followedPolygon(now)?.map((p): Corner => [...e.toWorld(p)]) ?? [];
    const light = lightOf(kept.light);
    const receiver = receiverOf(kept);
    const pixel = chain.ok && chain.value.picture.ok ? chain.value.picture.value : null;
    return [
      ...(corners.length < 3
        ? []
        : ([
            { id: 'the face cut', op: 'clip', polygons: [corners] },
            {
              ...{ id: 'the face’s winding', op: 'winding' },
              triangles: corners.slice(2).map((c, i): [Corner, Corner, Corner] => [corners[0]!, corners[i + 1]!, c]),
            },
          ] as Query[])),
      order,
      { id: 'horizon', op: 'horizon' },
      {
        ...{ id: 'shadow', op: 'planarShadow' },
        light:
          light.kind === 'point'
            ? { position: [...e.toWorld(light.at)] as Corner }
            : { direction: [...e.toWorld(light.travels)] as Corner },
        receiver: {
          point: [...e.toWorld(receiver.point)] as Corner,
          normal: [...e.toWorld(receiver.normal)] as Corner,
        },
        ...(chain.ok && planarShadow(light, receiver).ok && { points: [[...e.toWorld(chain.value.world)] as Corner] }),
      },
      ...(pixel
        ? [
            {
              ...{ id: 'equal angles', op: 'angularMapping' as const },
              pixels: [[...e.toScreen(frame.viewport, pixel.across, pixel.upward)] as [number, number]],
            },
          ]
        : []),
    ];
  },
};
