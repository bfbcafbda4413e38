import { radians } from '../../../core/math/angle';

/**
 * The edges of a triangle mesh that a drawing may need, from x, y, z positions and three indices to
 * a triangle. Vertices at one place count as one. Edges between coplanar triangles are left out.
 */
export interface Edge {
  readonly a: readonly [number, number, number];
  readonly b: readonly [number, number, number];
  readonly normals: readonly [readonly [number, number, number], readonly [number, number, number] | null];
  /**
   * Sharp enough to be drawn wherever a face of it is seen; others are drawn only where they are a
   * silhouette.
   */
  readonly crease: boolean;
}

const creaseCosine = Math.cos(radians(30));
const flatCosine = Math.cos(radians(1.5));

/** Vertices count as being at one place within this share of the mesh's size. */
const together = 1e-6;

export function edgesOf(positions: readonly number[], indices: readonly number[]): Edge[] {
  type Triple = [number, number, number];
  const at = (i: number): Triple => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  const count = positions.length / 3;
  const place = placesOf(positions);
  /** Per edge, by its two places: its ends, and the normals of the faces on its sides. */
  const sides = new Map<number, { i: number; j: number; normals: Triple[] }>();
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [place[indices[t]!]!, place[indices[t + 1]!]!, place[indices[t + 2]!]!] as const;
    const [a, b, c] = [at(corners[0]), at(corners[1]), at(corners[2])];
    const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const size = Math.hypot(nx, ny, nz);
    if (!size) continue;
    const normal: Triple = [nx / size, ny / size, nz / size];
    for (let k = 0; k < 3; k++) {
      const [i, j] = [corners[k]!, corners[(k + 1) % 3]!];
      if (i === j) continue;
      const key = i < j ? i * count + j : j * count + i;
      const side = sides.get(key);
      if (side) side.normals.push(normal);
      else sides.set(key, { i, j, normals: [normal] });
    }
  }
  const edges: Edge[] = [];
  for (const { i, j, normals } of sides.values()) {
    const [n, m = null] = normals as [Triple, Triple?];
    const cosine = m ? n[0] * m[0] + n[1] * m[1] + n[2] * m[2] : -1;
    if (m && cosine > flatCosine) continue;
    edges.push({ a: at(i), b: at(j), normals: [n, m], crease: !m || cosine < creaseCosine });
  }
  return edges;
}

/** For every vertex the first one that lies where it does. */
function placesOf(positions: readonly number[]): Int32Array {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  positions.forEach((v, i) => {
    low[i % 3] = Math.min(low[i % 3]!, v);
    high[i % 3] = Math.max(high[i % 3]!, v);
  });
  const size = Math.max(...low.map((v, i) => high[i]! - v));
  const per = size > 0 ? 1 / (size * together) : 1;
  const cell = (i: number, axis: number) => Math.round((positions[3 * i + axis]! - low[axis]!) * per);
  const first = new Map<string, number>();
  return Int32Array.from({ length: positions.length / 3 }, (_, i) => {
    const key = `${cell(i, 0)},${cell(i, 1)},${cell(i, 2)}`;
    const known = first.get(key);
    if (known !== undefined) return known;
    first.set(key, i);
    return i;
  });
}
