import { transformPoint } from '../math/mat4';
import type { Vec3 } from '../math/vec3';
import { similarityScale, type PlacedBody } from './body';

/** A placed body as the sets that the exact questions are asked of, in the world: a sphere, or the hull of points with the edges of its surface. */
export type WorldShape =
  | { readonly kind: 'sphere'; readonly centre: Vec3; readonly radius: number }
  | { readonly kind: 'hull'; readonly points: readonly Vec3[]; readonly edges: readonly (readonly [number, number])[] };

const boxEdges = [0, 1, 2, 3, 4, 5, 6, 7].flatMap((i) =>
  [1, 2, 4].filter((bit) => !(i & bit)).map((bit) => [i, i | bit] as const),
);

/** The corners and edges of a body under its transform; `flat` leaves out the extent ahead (a 2D world's bodies are flat). */
export function worldShape({ body, toWorld }: PlacedBody, flat = false): WorldShape {
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
    case 'mesh': {
      const points: Vec3[] = [];
      for (let i = 0; i < shape.positions.length; i += 3)
        points.push(at(shape.positions[i]!, shape.positions[i + 1]!, shape.positions[i + 2]!));
      const edges: (readonly [number, number])[] = [];
      for (let i = 0; i < shape.indices.length; i += 3) {
        const [a, b, c] = [shape.indices[i]!, shape.indices[i + 1]!, shape.indices[i + 2]!];
        edges.push([a, b], [b, c], [c, a]);
      }
      // Only vertices that a triangle uses are part of the surface.
      const used = [...new Set(shape.indices)];
      const renamed = new Map(used.map((old, i) => [old, i]));
      return {
        kind: 'hull',
        points: used.map((i) => points[i]!),
        edges: edges.map(([a, b]) => [renamed.get(a)!, renamed.get(b)!]),
      };
    }
  }
}
