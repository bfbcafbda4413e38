import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../../../demo/saltmarrow';
import { saltmarrowChart } from '../../../demo/chart';
import { transformPoint } from '../../../core/math/mat4';
import type { Project } from '../../../formats/project';
import { momentOf } from '../../state/moment';
import { localMesh } from './localMesh';
import { bodiesAfter, bodiesChanged } from '../render/protocol';
import { sceneOf, vertexAt } from './sceneTesting';
import { triangulate } from '../../../core/bodies/mesh';
import { edgesOf } from './edges';
import {
  drawnEdges,
  drawnStride,
  edgeStride,
  faceStride,
  quadIndices,
  quadsOf,
  quadStride,
  transformStride,
} from './scene';

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
  it('carry the depth of their body’s rank where a picture is painted in an order', () => {
    const edges = buffer(edgesOf(cube.positions, cube.indices));
    edges.fill(1, edges.length - 1);
    const drawn = drawnEdges(edges, [5, 6, 7, 1], Float32Array.from([0.25, 0.5]));
    const depths = Array.from({ length: drawn.length / drawnStride }, (_, i) => drawn[i * drawnStride + 8]);
    expect(new Set(depths)).toEqual(new Set([0.25, 0.5]));
    expect(drawnEdges(edges, [5, 6, 7, 1])[8]).toBe(0);
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

describe('the scene of the renderer', () => {
  it('has every body’s mesh where its transform puts it, mirrored and stretched ones too', () => {
    const demo = saltmarrow();
    const project: Project = {
      ...demo,
      bodies: demo.bodies.map((body, i) => (i % 3 ? body : { ...body, scale: body.shape.kind === 'sphere' ? [-2, -2, -2] : [-1.5, 2, 0.7] })), // prettier-ignore
    };
    const scene = sceneOf(project);
    const { placed } = momentOf(project);
    let vertex = 0;
    for (const body of project.bodies) {
      const { toWorld } = placed.get(body.id)!;
      const mesh = localMesh(body.shape, false);
      for (let i = 0; i < mesh.faces.length; i += 6, vertex++) {
        const own = [0, 1, 2].map((k) => (mesh.faces[i + k]! + mesh.centre[k]!) * mesh.scale[k]!) as unknown as readonly [number, number, number]; // prettier-ignore
        const expected = transformPoint(toWorld, own);
        vertexAt(scene, vertex).forEach((v, k) => expect(Math.abs(v - (expected[k]! - scene.origin[k]!))).toBeLessThan(2e-4)); // prettier-ignore
      }
    }
    expect(vertex).toBe(scene.faces.length / faceStride);
    // A face's edges are drawn where the face is: the ends of every edge are vertices of the body.
    const places = new Set(
      Array.from({ length: vertex }, (_, i) =>
        vertexAt(scene, i)
          .map((v) => v.toFixed(2))
          .join(),
      ),
    );
    for (let i = 0; i < scene.edges.length; i += edgeStride)
      expect(places.has([...scene.edges.subarray(i, i + 3)].map((v) => v.toFixed(2)).join())).toBe(true);
  });

  it('writes a body that moves its own numbers alone, and leaves all others', () => {
    const project = saltmarrow();
    const scene = sceneOf(project);
    const { meshRevision, poseRevision } = scene;
    const before = scene.transforms.slice();
    const moved: Project = {
      ...project,
      bodies: project.bodies.map((body) => (body.id === 'buoy-3' ? { ...body, position: [-30, 1, 21] } : body)),
    };
    sceneOf(moved, 0, scene);
    // The buoy, its tower and its light.
    expect(scene.moved).toBe(3);
    expect([scene.meshRevision, scene.poseRevision]).toEqual([meshRevision, poseRevision + 1]);
    const changed = new Set<string>();
    scene.transforms.forEach((v, i) => {
      if (v !== before[i]) changed.add(project.bodies[Math.floor(i / transformStride)]!.id);
    });
    expect([...changed].sort()).toEqual(['buoy-3', 'buoy-3-light', 'buoy-3-tower']);
    sceneOf(moved, 0, scene);
    expect([scene.moved, scene.poseRevision]).toEqual([0, poseRevision + 1]);
    // The same by its own motion; what it comes to is what a scene made there from the start has.
    sceneOf(project, 5, scene);
    const fresh = sceneOf(project, 5);
    expect(scene.transforms).toEqual(fresh.transforms);
    scene.edges.forEach((v, i) => expect(Math.abs(v - fresh.edges[i]!)).toBeLessThan(1e-4));
    expect(scene.footprints).toEqual(fresh.footprints);
  });

  it('keeps no outline on the water of what is gone', () => {
    const project = saltmarrow();
    const scene = sceneOf(project);
    expect(scene.footprints.length).toBeGreaterThan(2);
    const loose = project.bodies.filter(({ fixed, parent }) => !fixed && parent === null);
    sceneOf({ ...project, bodies: loose, probe: { ...project.probe, body: null } } as Project, 0, scene);
    expect(scene.footprints).toEqual([]);
  });

  it('makes meshes anew where shapes, tones or families are others, and lays a flat world in layers', () => {
    const project = saltmarrow();
    const scene = sceneOf(project);
    const { meshRevision } = scene;
    const toned: Project = {
      ...project,
      bodies: project.bodies.map((body, i) => (i ? body : { ...body, tone: 'roof' })),
    };
    sceneOf(toned, 0, scene);
    expect(scene.meshRevision).toBe(meshRevision + 1);
    const chart = saltmarrowChart();
    const flat = sceneOf(chart);
    const layers = chart.bodies.map((_, i) => flat.transforms[i * transformStride + 13]!);
    layers.forEach((layer, i) => expect(layer).toBeGreaterThan(layers[i - 1] ?? 0));
    expect(layers.at(-1)).toBeLessThan(1);
  });
});

describe('bodies told to the painter', () => {
  it('are what they are on the page, and the same object where they are the same', () => {
    const { bodies } = saltmarrow();
    const next = [...bodies.slice(2), { ...bodies[1]!, position: [1, 2, 3] as [number, number, number] }, bodies[0]!];
    const change = bodiesChanged(bodies, next);
    const there = structuredClone(bodies);
    const after = bodiesAfter(there, structuredClone(change));
    expect(after).toEqual(next);
    expect(after[0]).toBe(there[2]);
    // One that moved has its mesh from before: no vertex was told again.
    expect(after[bodies.length - 2]!.shape).toBe(there[1]!.shape);
    expect(JSON.stringify(change).length).toBeLessThan(1500);
  });
});
