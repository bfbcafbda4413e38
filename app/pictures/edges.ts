/**
 * The edges of a triangle mesh that a drawing may need, from x, y, z positions and three indices to a triangle.
 * Vertices at one place count as one. Edges between coplanar triangles are left out.
 */
export interface Edge {
  readonly a: readonly [number, number, number];
  readonly b: readonly [number, number, number];
  readonly normals: readonly [readonly [number, number, number], readonly [number, number, number] | null];
  /** Sharp enough to be drawn wherever a face of it is seen; others are drawn only where they are a silhouette. */
  readonly crease: boolean;
}

const creaseCosine = Math.cos((30 * Math.PI) / 180);
const flatCosine = Math.cos((1.5 * Math.PI) / 180);

export function edgesOf(positions: readonly number[], indices: readonly number[]): Edge[] {
  const at = (i: number) => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!] as const;
  const byPlace = new Map<string, number>();
  const place = (i: number) => {
    const key = at(i)
      .map((v) => Math.round(v * 1e4))
      .join();
    if (!byPlace.has(key)) byPlace.set(key, i);
    return byPlace.get(key)!;
  };
  const sides = new Map<string, { i: number; j: number; normals: [number, number, number][] }>();
  for (let t = 0; t < indices.length; t += 3) {
    const corners = [place(indices[t]!), place(indices[t + 1]!), place(indices[t + 2]!)];
    const [a, b, c] = [at(corners[0]!), at(corners[1]!), at(corners[2]!)];
    const u = [0, 1, 2].map((k) => b[k as 0]! - a[k as 0]!);
    const v = [0, 1, 2].map((k) => c[k as 0]! - a[k as 0]!);
    const n = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
    const size = Math.hypot(...n);
    if (!size) continue;
    const normal = n.map((x) => x / size) as [number, number, number];
    for (let k = 0; k < 3; k++) {
      const [i, j] = [corners[k]!, corners[(k + 1) % 3]!];
      if (i === j) continue;
      const key = i < j ? `${i} ${j}` : `${j} ${i}`;
      const side = sides.get(key);
      if (side) side.normals.push(normal);
      else sides.set(key, { i, j, normals: [normal] });
    }
  }
  const edges: Edge[] = [];
  for (const { i, j, normals } of sides.values()) {
    const [n, m = null] = normals as [[number, number, number], [number, number, number]?];
    const cosine = m ? n[0] * m[0] + n[1] * m[1] + n[2] * m[2] : -1;
    if (m && cosine > flatCosine) continue;
    edges.push({ a: at(i), b: at(j), normals: [n, m], crease: !m || cosine < creaseCosine });
  }
  return edges;
}
