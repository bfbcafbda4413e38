import { faceStride, transformStride, type Scene } from '../compose/scene';
import type { RankDepths } from './layers/gl';

/** Returns depths by an order of the scene's triangles; null where the order is of other triangles. */
export function rankDepths(order: Int32Array, scene: Scene): RankDepths | null {
  const count = scene.faces.length / (3 * faceStride);
  if (order.length !== count) return null;
  const step = 1 / (count + 2);
  const triangles = new Float32Array(count);
  const bodies = new Float32Array(scene.transforms.length / transformStride).fill(1);
  order.forEach((triangle, rank) => {
    triangles[triangle] = 1 - (rank + 1) * step;
    // A body's outlines lie on the triangle of it that is painted last.
    bodies[scene.faces[3 * faceStride * triangle + 8]!] = 1 - (rank + 1.5) * step;
  });
  return { triangles, bodies };
}
