import { transformPoint } from '../math/mat4';
import type { Vec3 } from '../math/vec3';
import { similarityScale, type PlacedBody } from './body';

/**
 * A placed body as the sets that the exact questions are asked of, in the world: a sphere, or the
 * hull of points with the edges of its surface.
 */
export type WorldShape =
  | { readonly kind: 'sphere'; readonly centre: Vec3; readonly radius: number }
  | { readonly kind: 'hull'; readonly points: readonly Vec3[]; readonly edges: readonly (readonly [number, number])[] };

const boxEdges = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((i) =>
  [1, 2, 4].filter((bit) => !(i & bit)).map((bit) => [i, i | bit] as const),
);

/**
 * The corners and edges of a body under its transform; `flat` leaves out the extent ahead (a 2D
 * world's bodies are flat).
 */
export function worldShape(placed: PlacedBody, flat = false): WorldShape {
  const { body, toWorld } = placed;
  const { shape } = body;
  const at = (x: number, y: number, z: number) => transformPoint(toWorld, [x, y, flat ? 0 : z]);
  switch (shape.kind) {
    case 'point':
      return { kind: 'hull', points: [at(0, 0, 0)], edges: [] };
    case 'sphere':
      return { kind: 'sphere', centre: at(0, 0, 0), radius: shape.radius * similarityScale(toWorld) };
    case 'box': {
      const [x, y, z] = shape.size;
      const points = [0, 1, 2, 3, 4, 5, 6, 7].map((i) =>
        at(((i & 1 ? 1 : -1) * x) / 2, ((i & 2 ? 1 : -1) * y) / 2, ((i & 4 ? 1 : -1) * z) / 2),
      );
      return { kind: 'hull', points, edges: boxEdges };
    }
    case 'quad': {
      const [w, h] = [shape.size[0] / 2, shape.size[1] / 2];
      return {
        kind: 'hull',
        points: [at(-w, -h, 0), at(w, -h, 0), at(w, h, 0), at(-w, h, 0)],
        edges: [
          [0, 1],
          [1, 2],
          [2, 3],
          [3, 0],
        ],
      };
    }
    case 'mesh':
      return meshHull(placed, flat);
  }
}

/**
 * The hulls of placed meshes in space and flat, made once each: a mesh has many corners, and it is
 * asked for with every frame.
 */
const hulls = [new WeakMap<PlacedBody, WorldShape>(), new WeakMap<PlacedBody, WorldShape>()] as const;

function meshHull(placed: PlacedBody, flat: boolean): WorldShape {
  const known = hulls[flat ? 1 : 0].get(placed);
  if (known) return known;
  const { body, toWorld } = placed;
  if (body.shape.kind !== 'mesh') throw new Error('a mesh was expected');
  const { positions, indices } = body.shape;
  const points: Vec3[] = [];
  // Only vertices that a triangle uses are part of the surface.
  const renamed = new Int32Array(positions.length / 3).fill(-1);
  const own = indices.map((i) => {
    if (renamed[i]! < 0) {
      renamed[i] = points.length;
      points.push(
        transformPoint(toWorld, [positions[3 * i]!, positions[3 * i + 1]!, flat ? 0 : positions[3 * i + 2]!]),
      );
    }
    return renamed[i]!;
  });
  // Without a surface it is a point, as its bounds are.
  if (!points.length) points.push(transformPoint(toWorld, [0, 0, 0]));
  const edges: (readonly [number, number])[] = [];
  const seen = new Set<number>();
  for (let i = 0; i < own.length; i += 3)
    for (const [a, b] of [
      [own[i]!, own[i + 1]!],
      [own[i + 1]!, own[i + 2]!],
      [own[i + 2]!, own[i]!],
    ] as const) {
      const key = a < b ? a * points.length + b : b * points.length + a;
      if (seen.has(key)) continue;
      seen.add(key);
      edges.push([a, b]);
    }
  const hull: WorldShape = { kind: 'hull', points, edges };
  hulls[flat ? 1 : 0].set(placed, hull);
  return hull;
}
