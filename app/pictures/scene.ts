import { triangulate, type TriangleMesh } from '../../core/bodies/mesh';
import type { PlacedBody } from '../../core/bodies/body';
import { linearDeterminant, transformPoint } from '../../core/math/mat4';
import { cross, length, sub, type Vec3 } from '../../core/math/vec3';
import type { ProjectBody } from '../../formats/project';
import { edgesOf } from './edges';
import { toneOrder } from './palette';

/** Bodies as the buffers that the renderer takes. Positions are relative to `origin`, in singles. */
export interface SceneBuffers {
  readonly origin: Vec3;
  /** Per vertex: x, y, z, normal x, y, z, tone, family. Three vertices to a triangle, flat normals. */
  readonly faces: Float32Array;
  /** Per edge: a, b, normal of one side, normal of the other (zero at a border), crease (1 or 0), family. */
  readonly edges: Float32Array;
  /** What is a point and no more, bodies and the table's: x, y, z after one another. */
  readonly points: Float32Array;
  /** The outlines on the ground of what stands on the bottom: centre x, z, half sizes, cosine and sine of the turn. */
  readonly footprints: readonly (readonly number[])[];
  /** Which number a family (a root body) goes by in the buffers. */
  readonly families: ReadonlyMap<string, number>;
  /** In a flat world how far apart the layers are on which its bodies lie. */
  readonly step: number;
}

export const faceStride = 8;
export const edgeStride = 14;

/**
 * In a flat world bodies lie on one another in their order: each on a layer of its own, this far apart for so many. Layers stay within the ±1 that a
 * 2D camera sees.
 */
const layerStep = (count: number): number => 0.8 / (count + 1);

/** A disc as triangles: what a sphere is in a flat world. */
function disc(radius: number, sides = 40): TriangleMesh {
  const rim = Array.from({ length: sides }, (_, i) => (2 * Math.PI * i) / sides);
  return {
    positions: [0, 0, 0, ...rim.flatMap((a) => [radius * Math.cos(a), radius * Math.sin(a), 0])],
    indices: rim.flatMap((_, i) => [0, i + 1, ((i + 1) % sides) + 1]),
  };
}

export function sceneOf(
  bodies: readonly ProjectBody[],
  placed: ReadonlyMap<string, PlacedBody>,
  roots: ReadonlyMap<string, string>,
  origin: Vec3,
  flat = false,
  table: Float64Array | null = null,
): SceneBuffers {
  const step = layerStep(bodies.length);
  const faces: number[] = [];
  const edges: number[] = [];
  const footprints: number[][] = [];
  const families = new Map<string, number>();
  for (const [order, { id, tone, fixed, shape }] of bodies.entries()) {
    const { toWorld } = placed.get(id)!;
    const root = roots.get(id)!;
    if (!families.has(root)) families.set(root, families.size);
    const family = families.get(root)!;
    const mesh = flat && shape.kind === 'sphere' ? disc(shape.radius) : triangulate(shape);
    // What a face is turned to and where its edges are is asked of the body as it is; then it is laid on its layer.
    const laid = ([x, y, z]: Vec3): Vec3 => (flat ? [x, y, (order + 1) * step] : [x, y, z]);
    const mirrored = linearDeterminant(toWorld) < 0;
    const world: number[] = [];
    for (let i = 0; i < mesh.positions.length; i += 3) {
      const p = transformPoint(toWorld, [mesh.positions[i]!, mesh.positions[i + 1]!, mesh.positions[i + 2]!]);
      world.push(p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]);
    }
    const at = (i: number): Vec3 => [world[3 * i]!, world[3 * i + 1]!, world[3 * i + 2]!];
    const indices: number[] = [];
    for (let i = 0; i < mesh.indices.length; i += 3) {
      const [a, b, c] = [mesh.indices[i]!, mesh.indices[i + 1]!, mesh.indices[i + 2]!];
      indices.push(a, mirrored ? c : b, mirrored ? b : c);
    }
    const toneIndex = toneOrder.indexOf(tone);
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [at(indices[t]!), at(indices[t + 1]!), at(indices[t + 2]!)];
      const n = cross(sub(b, a), sub(c, a));
      const size = length(n);
      if (!size) continue;
      for (const corner of [a, b, c]) {
        const p = laid(corner);
        faces.push(p[0], p[1], p[2], n[0] / size, n[1] / size, n[2] / size, toneIndex, family);
      }
    }
    for (const { a, b, normals, crease } of edgesOf(world, indices))
      edges.push(...laid(a), ...laid(b), ...normals[0], ...(normals[1] ?? [0, 0, 0]), crease ? 1 : 0, family);
    if (!flat && fixed && shape.kind === 'box') {
      const centre = transformPoint(toWorld, [0, 0, 0]);
      const across = [toWorld[0]!, toWorld[8]!] as const;
      const long = Math.hypot(...across) || 1;
      footprints.push([
        centre[0],
        centre[2],
        (shape.size[0] / 2) * long,
        (shape.size[2] / 2) * Math.hypot(toWorld[2]!, toWorld[10]!),
        across[0] / long,
        across[1] / long,
      ]);
    }
  }
  return {
    ...{ origin, footprints, families, step },
    faces: new Float32Array(faces),
    edges: new Float32Array(edges),
    points: pointsOf(bodies, placed, origin, flat, table),
  };
}

/** The bodies that are points, then those of a table; in a flat world above everything that lies there. */
function pointsOf(
  bodies: readonly ProjectBody[],
  placed: ReadonlyMap<string, PlacedBody>,
  origin: Vec3,
  flat: boolean,
  table: Float64Array | null,
): Float32Array {
  const own = bodies.filter(({ shape }) => shape.kind === 'point');
  const points = new Float32Array(3 * own.length + (table?.length ?? 0));
  const put = (i: number, x: number, y: number, z: number) =>
    points.set([x - origin[0], y - origin[1], flat ? 0.9 : z - origin[2]], i);
  own.forEach(({ id }, i) => {
    const { toWorld } = placed.get(id)!;
    put(3 * i, toWorld[3]!, toWorld[7]!, toWorld[11]!);
  });
  for (let i = 0; table && i < table.length; i += 3) put(3 * own.length + i, table[i]!, table[i + 1]!, table[i + 2]!);
  return points;
}

/** Per drawn edge: a, b, 1 for a silhouette or 0 for a crease within it, family. */
export const drawnStride = 8;

/**
 * The edges that a view draws: silhouettes (one side seen, the other not, or a border), and creases with a side that is seen.
 * `eye` is the eye with w 1, or the direction to it with w 0. Chosen here rather than on the GPU: most edges are not drawn.
 */
export function drawnEdges(edges: Float32Array, eye: readonly [number, number, number, number]): Float32Array {
  const out = new Float32Array((edges.length / edgeStride) * drawnStride);
  const [ex, ey, ez, ew] = eye;
  let n = 0;
  for (let i = 0; i < edges.length; i += edgeStride) {
    const x = ex - edges[i]! * ew;
    const y = ey - edges[i + 1]! * ew;
    const z = ez - edges[i + 2]! * ew;
    const front = edges[i + 6]! * x + edges[i + 7]! * y + edges[i + 8]! * z;
    const back = edges[i + 9]! * x + edges[i + 10]! * y + edges[i + 11]! * z;
    const border = edges[i + 9] === 0 && edges[i + 10] === 0 && edges[i + 11] === 0;
    const silhouette = border || front * back <= 0;
    if (!silhouette && !(edges[i + 12] === 1 && front > 0)) continue;
    for (let k = 0; k < 6; k++) out[n + k] = edges[i + k]!;
    out[n + 6] = silhouette ? 1 : 0;
    out[n + 7] = edges[i + 13]!;
    n += drawnStride;
  }
  return out.subarray(0, n);
}

/** Per vertex: which corner (x 0 at a, 1 at b; y −1 or 1 for the side), then the whole line as above. */
export const quadStride = 2 + drawnStride;

/** Lines as four vertices each, for the GPU to draw out to their width: an instance for each would cost a slow one more than all their pixels. */
export function quadsOf(lines: Float32Array): Float32Array {
  const count = lines.length / drawnStride;
  const out = new Float32Array(4 * count * quadStride);
  for (let i = 0; i < 4 * count; i++) {
    const at = i * quadStride;
    const corner = i % 4;
    out[at] = corner % 2;
    out[at + 1] = corner < 2 ? -1 : 1;
    const from = Math.floor(i / 4) * drawnStride;
    for (let k = 0; k < drawnStride; k++) out[at + 2 + k] = lines[from + k]!;
  }
  return out;
}

/** The two triangles of each of so many quads, as indices. */
export function quadIndices(count: number): Uint32Array {
  const out = new Uint32Array(6 * count);
  for (let i = 0; i < count; i++)
    out.set(
      [0, 1, 2, 2, 1, 3].map((k) => 4 * i + k),
      6 * i,
    );
  return out;
}
