import { describe, expect, it } from 'vitest';
import { triangulate } from '../../core/bodies/mesh';
import { edgesOf } from './edges';
import { drawnEdges, drawnStride, edgeStride, quadIndices, quadsOf, quadStride } from './scene';

const cube = triangulate({ kind: 'box', size: [2, 2, 2] });
const buffer = (edges: ReturnType<typeof edgesOf>) =>
  new Float32Array(
    edges.flatMap(({ a, b, normals, crease }) => [
      ...a,
      ...b,
      ...normals[0],
      ...(normals[1] ?? [0, 0, 0]),
      crease ? 1 : 0,
      0,
    ]),
  );
const kinds = (drawn: Float32Array) => {
  const silhouettes = Array.from({ length: drawn.length / drawnStride }, (_, i) => drawn[i * drawnStride + 6]);
  return { silhouettes: silhouettes.filter((v) => v === 1).length, creases: silhouettes.filter((v) => v === 0).length };
};

describe('the edges of a drawing', () => {
  it('of a cube are its twelve, without the diagonals', () => {
    const edges = edgesOf(cube.positions, cube.indices);
    expect(edges).toHaveLength(12);
    expect(edges.every(({ crease, normals }) => crease && normals[1])).toBe(true);
    expect(buffer(edges)).toHaveLength(12 * edgeStride);
  });
  it('are six silhouettes and three creases from a corner, four silhouettes from the front', () => {
    const edges = buffer(edgesOf(cube.positions, cube.indices));
    expect(kinds(drawnEdges(edges, [5, 6, 7, 1]))).toEqual({ silhouettes: 6, creases: 3 });
    expect(kinds(drawnEdges(edges, [0, 0, 9, 1]))).toEqual({ silhouettes: 4, creases: 0 });
    expect(kinds(drawnEdges(edges, [1, 1, 1, 0]))).toEqual({ silhouettes: 6, creases: 3 });
  });
  it('are told apart by the size of the thing, however far off it lies and however small it is', () => {
    const places = cube.positions.map((v, i) => v * 1e-3 + (i % 3 === 0 ? 2000 : 0));
    expect(edgesOf(places, cube.indices)).toHaveLength(12);
  });
  it('of a round body are its outline alone, and of a sheet its border', () => {
    const ball = triangulate({ kind: 'sphere', radius: 1 }, 14);
    const { silhouettes, creases } = kinds(drawnEdges(buffer(edgesOf(ball.positions, ball.indices)), [9, 3, 4, 1]));
    expect(creases).toBe(0);
    expect(silhouettes).toBeGreaterThan(20);
    expect(silhouettes).toBeLessThan(120);
    const sheet = triangulate({ kind: 'quad', size: [1, 2] });
    expect(kinds(drawnEdges(buffer(edgesOf(sheet.positions, sheet.indices)), [0, 0, 5, 1]))).toEqual({
      silhouettes: 4,
      creases: 0,
    });
  });
  it('are given to the GPU as quads: each line at its four corners, in two triangles of one sense', () => {
    const lines = Float32Array.from({ length: 3 * drawnStride }, (_, i) => i);
    const quads = quadsOf(lines);
    const vertex = (i: number) => [...quads.subarray(i * quadStride, (i + 1) * quadStride)];
    const areas = (count: number) => {
      const indices = quadIndices(count);
      return Array.from({ length: indices.length / 3 }, (_, t) => {
        const [a, b, c] = [...indices.subarray(3 * t, 3 * t + 3)].map(vertex) as [number[], number[], number[]];
        expect(a.slice(2)).toEqual(b.slice(2));
        expect(b.slice(2)).toEqual(c.slice(2));
        return ((b[0]! - a[0]!) * (c[1]! - a[1]!) - (b[1]! - a[1]!) * (c[0]! - a[0]!)) / 2;
      });
    };
    // Each quad is 1 along and 2 across: two halves of it.
    expect(areas(3)).toEqual([1, 1, 1, 1, 1, 1]);
    for (let i = 0; i < 12; i++)
      expect(vertex(i).slice(2)).toEqual([...lines.subarray(Math.floor(i / 4) * drawnStride).subarray(0, drawnStride)]);
  });
});
