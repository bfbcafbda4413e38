import type { Shape } from '../../../core/bodies/body';
import { drawnMesh, type TriangleMesh } from '../../../core/bodies/mesh';
import { cross, length, sub, type Vec3 } from '../../../core/math/vec3';
import { edgesOf } from './edges';

/**
 * A shape as it is drawn, in its own space about `centre`: made once for a shape, whatever moves
 * it.
 */
export interface LocalMesh {
  /**
   * Per vertex: x, y, z, normal x, y, z. Three vertices to a triangle, flat normals, seen from
   * outside.
   */
  readonly faces: Float32Array;
  /**
   * Per edge: a, b, normal of one side, normal of the other (zero at a border), crease (1 or 0).
   */
  readonly edges: Float32Array;
  /** What the places are about, so that they stay short in singles. */
  readonly centre: Vec3;
  /** The half extents of the mesh about its centre, along its own axes. */
  readonly extents: Vec3;
  /** What the mesh is stretched by to be the shape: boxes, balls and sheets share one mesh each. */
  readonly scale: Vec3;
}

export const localFaceStride = 6;
export const localEdgeStride = 13;

type Made = Pick<LocalMesh, 'faces' | 'edges' | 'centre' | 'extents'>;

/** A mesh's faces and edges, about the middle of its box. */
function made({ positions, indices }: TriangleMesh): Made {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < positions.length; i++) {
    low[i % 3] = Math.min(low[i % 3]!, positions[i]!);
    high[i % 3] = Math.max(high[i % 3]!, positions[i]!);
  }
  const centre = (positions.length ? low.map((v, i) => v / 2 + high[i]! / 2) : [0, 0, 0]) as unknown as Vec3;
  const extents = (positions.length ? low.map((v, i) => high[i]! / 2 - v / 2) : [0, 0, 0]) as unknown as Vec3;
  const about = positions.map((v, i) => v - centre[i % 3]!);
  const at = (i: number): Vec3 => [about[3 * i]!, about[3 * i + 1]!, about[3 * i + 2]!];
  const faces: number[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [at(indices[t]!), at(indices[t + 1]!), at(indices[t + 2]!)];
    const n = cross(sub(b, a), sub(c, a));
    const size = length(n) || 1;
    for (const p of [a, b, c]) faces.push(p[0], p[1], p[2], n[0] / size, n[1] / size, n[2] / size);
  }
  const edges = edgesOf(about, indices).flatMap(({ a, b, normals, crease }) => [
    ...[...a, ...b, ...normals[0], ...(normals[1] ?? [0, 0, 0])],
    crease ? 1 : 0,
  ]);
  return { faces: new Float32Array(faces), edges: new Float32Array(edges), centre, extents };
}

const meshes = new WeakMap<TriangleMesh, Made>();

/** The mesh that a shape is drawn with; a sphere of a flat world is a disc. */
export function localMesh(shape: Shape, flat: boolean): LocalMesh {
  const { mesh, scale } = drawnMesh(shape, flat);
  const known = meshes.get(mesh) ?? made(mesh);
  meshes.set(mesh, known);
  return { ...known, scale };
}
