import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { saltmarrowChart } from '../../../demo/chart';
import { saltmarrow } from '../../../demo/saltmarrow';
import type { Project } from '../../../formats/project';
import { momentOf } from '../../state/moment';
import { gazeAbout, gpuMatrix } from '../render/layers/gl';
import { drawnEdges, drawnStride, faceStride } from './scene';
import { sceneOf, vertexAt } from './sceneTesting';
import { facesInView, linesInView, silhouettesBeyond } from './visibleParts';

/** The scene of a demo seen by its camera, turned about its eye and moved. */
function viewOf(project: Project, turn: number, shift: readonly [number, number, number]) {
  const { flat, frame: at } = momentOf(project, 0);
  const scene = sceneOf(project);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const turned = ([x, y, z]: readonly [number, number, number]): [number, number, number] =>
    flat ? [c * x + s * y, c * y - s * x, z] : [c * x + s * z, y, c * z - s * x];
  const frame = {
    ...at,
    eye: [at.eye[0] + shift[0], at.eye[1] + shift[1], at.eye[2] + (flat ? 0 : shift[2])] as const,
    right: turned(at.right),
    up: turned(at.up),
    forward: turned(at.forward),
  };
  return { scene, frame, matrix: gpuMatrix(frame, scene.origin) };
}
/** Clip coordinates of a point by a matrix of columns. */
const clip = (m: Float32Array, [x, y, z]: readonly number[]): number[] =>
  [0, 1, 2, 3].map((row) => m[row]! * x! + m[4 + row]! * y! + m[8 + row]! * z! + m[12 + row]!);
const isInside = ([x, y, z, w]: readonly number[], axes: number): boolean =>
  [x, y, z].slice(0, axes).every((v) => Math.abs(v!) <= w!);

const views = fc.record({
  project: fc.constantFrom(saltmarrow(), saltmarrowChart()),
  turn: fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
  shift: fc.tuple(...([0, 1, 2] as const).map(() => fc.double({ min: -60, max: 60, noNaN: true }))) as fc.Arbitrary<[number, number, number]>, // prettier-ignore
});

describe('the parts of a scene that a picture may show', () => {
  it('include every vertex inside the clip volume', () => {
    fc.assert(
      fc.property(views, ({ project, turn, shift }) => {
        const { scene, matrix } = viewOf(project, turn, shift);
        const ranges = facesInView(scene, matrix);
        const kept = new Uint8Array(scene.faces.length / faceStride);
        for (let i = 0; i < ranges.length; i += 2) kept.fill(1, ranges[i], ranges[i]! + ranges[i + 1]!);
        for (let v = 0; v < kept.length; v++)
          if (!kept[v] && isInside(clip(matrix, vertexAt(scene, v)), 3)) expect.fail(`Vertex ${v} was left out.`);
      }),
      { numRuns: 60 },
    );
  });

  it('include every edge with a point in the picture', () => {
    fc.assert(
      fc.property(views, fc.double({ min: 0, max: 1, noNaN: true }), ({ project, turn, shift }, share) => {
        const { scene, frame, matrix } = viewOf(project, turn, shift);
        const lines = drawnEdges(scene.edges, [0, 1, 0, 0]);
        const kept = new Set<string>();
        const all = linesInView(lines, matrix, 0.01);
        const keyAt = (of: Float32Array, i: number) => of.subarray(i, i + drawnStride).join();
        for (let i = 0; i < all.length; i += drawnStride) kept.add(keyAt(all, i));
        for (let i = 0; i < lines.length; i += drawnStride) {
          const point = [0, 1, 2].map((k) => lines[i + k]! * (1 - share) + lines[i + 3 + k]! * share);
          if (isInside(clip(matrix, point), 2)) expect(kept.has(keyAt(lines, i))).toBe(true);
        }
        const far = frame.far ?? 100;
        const gaze = gazeAbout(frame, scene.origin);
        const past = silhouettesBeyond(lines, gaze, far);
        for (let i = 0; i < past.length; i += drawnStride) {
          const ahead = [i, i + 3].map((at) => gaze[0] * past[at]! + gaze[1] * past[at + 1]! + gaze[2] * past[at + 2]! + gaze[3]); // prettier-ignore
          expect(Math.max(...ahead)).toBeGreaterThan(far * 0.9999);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('leave out what is behind the camera, and silhouettes without a far limit', () => {
    const project = saltmarrow();
    const { scene, frame } = viewOf(project, 0, [0, 0, 0]);
    const away = { ...frame, eye: [0, 0, 1e6] as const, right: [1, 0, 0] as const, up: [0, 1, 0] as const, forward: [0, 0, 1] as const }; // prettier-ignore
    const matrix = gpuMatrix(away, scene.origin);
    expect(facesInView(scene, matrix)).toEqual([]);
    const lines = drawnEdges(scene.edges, [0, 1, 0, 0]);
    expect(linesInView(lines, matrix, 0.01)).toHaveLength(0);
    expect(silhouettesBeyond(lines, gazeAbout(frame, scene.origin), null)).toHaveLength(0);
  });
});
