import { randomFrom } from '../core/math/random';
import { saltmarrow } from '../demo/saltmarrow';
import type { Project } from '../formats/project';
import * as moments from '../app/state/moment';
import * as scenes from '../app/pictures/compose/scene';

/*
 * What it takes from a change of the project to the renderer's buffers. Written so that it measures
 * an older checkout too, which made all buffers anew: that is what the present state is compared
 * with.
 */

interface State {
  readonly placed: ReadonlyMap<string, unknown>;
  readonly roots: ReadonlyMap<string, string>;
  readonly flat: boolean;
  readonly poses: unknown;
  readonly sceneBounds?: { readonly centre: unknown };
  readonly extent?: { readonly centre: unknown };
}
const all = { ...moments, ...scenes } as unknown as Record<string, (...args: unknown[]) => unknown> & {
  Scene?: new () => { take(...args: unknown[]): void; pose(poses: unknown): void };
};
const momentOf = (project: Project): State => (all.momentOf ?? all.situationOf)!(project) as State;

/** Keeps the renderer's buffers in step with projects, as this checkout does. */
function keeper(): (project: Project) => void {
  const scene = all.Scene && new all.Scene();
  return (project) => {
    const now = momentOf(project);
    const { centre } = (now.sceneBounds ?? now.extent)!;
    if (!scene) return void all.sceneOf!(project.bodies, now.placed, now.roots, centre, now.flat, null);
    scene.take(project.bodies, now.roots, centre, now.flat, null);
    scene.pose(now.poses);
  };
}

const median = (times: number[]): number => times.sort((a, b) => a - b)[times.length >> 1]!;

/** Milliseconds from a body's new place to the buffers, the demo's other bodies standing. */
export function movedBody(rounds: number): number {
  const demo = saltmarrow();
  const keep = keeper();
  keep(demo);
  let project = demo;
  return median(
    Array.from({ length: rounds }, (_, i) => {
      const bodies = project.bodies.map((body) =>
        body.id === 'buoy-1' ? { ...body, position: [i / 10, 0.35, 24] as [number, number, number] } : body,
      );
      project = { ...project, bodies };
      const start = performance.now();
      keep(project);
      return performance.now() - start;
    }),
  );
}

/** Milliseconds until 5,000 boxes of sizes of their own are in the buffers. */
export function manyBoxes(rounds: number): number {
  const random = randomFrom(5);
  const demo = saltmarrow();
  return median(
    Array.from({ length: rounds }, () => {
      const bodies = Array.from({ length: 5000 }, (_, i) => ({
        ...demo.bodies[0]!,
        ...{ id: `box-${i}`, name: `Box ${i}`, parent: null, motion: null },
        shape: { kind: 'box' as const, size: [1 + random(), 1 + random(), 1 + random()] as [number, number, number] },
        position: [random() * 400, random() * 20, random() * 400] as [number, number, number],
      }));
      const project = { ...demo, bodies, probe: { ...demo.probe, body: null } } as Project;
      const keep = keeper();
      const start = performance.now();
      keep(project);
      return performance.now() - start;
    }),
  );
}
