import type { Query } from '../../../core/compute/operations';
import type { Vec3 } from '../../../core/math/vec3';
import { planarShadow } from '../../../core/order/shadow';
import type { Project } from '../../../formats/project';
import { firstLight, firstReceiver, lightOf, lightOfDegrees, receiverOf } from '../../state/light';
import type { Slice } from '../../state/slices';
import { followedPolygon, sortKeyOf } from './followed';
import { orderState, type Followed, type OrderState } from './kept';

type Corner = [number, number, number];

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

export const slice: Slice<OrderState> = {
  version: 2,
  // Version 1 had the angles of the light in degrees.
  migrate: [(older) => ({ ...(older as OrderState), light: lightOfDegrees((older as OrderState).light) })],
  schema: orderState,
  initial: (project) => ({
    followed: firstPolygon(project),
    ghosts: false,
    frontFace: 'counterClockwise',
    cull: 'none',
    supposed: { mirrored: false, negative: false, yDown: false },
    key: project.camera.kind === '3d' ? 'ahead' : project.bodyOrder === 'feet' ? 'worldUp' : 'layer',
    paint: 'depth',
    light: firstLight,
    receiver: firstReceiver(project),
    shadows: false,
    contours: false,
  }),
  queries: (kept, now) => {
    const { codec: e, world, frame, chain } = now;
    const written = (p: Vec3) => world.writePoint(p, e) as Corner;
    const order: Query = { id: 'draw order', op: 'drawOrder', key: sortKeyOf(kept.key) };
    if (!world.hasDepth) return [order];
    const corners = followedPolygon(now)?.map(written) ?? [];
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
        light: light.kind === 'point' ? { position: written(light.at) } : { direction: written(light.travels) },
        receiver: {
          point: written(receiver.point),
          normal: written(receiver.normal),
        },
        ...(chain.ok && planarShadow(light, receiver).ok && { points: [written(chain.value.world)] }),
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
