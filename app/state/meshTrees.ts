import type { TriangleTree } from '../../core/kernels/triangleTree';
import { awaitTree, giveTree, preparedElsewhere, type Mesh } from '../../core/pick/pick';
import { complain, underWay } from '../ui/notices';
import { workerEnd, workerEndText } from '../ui/worker';
import { useDocument } from './document';
import { packShape } from './packing';

/*
 * Large meshes are made ready for picking off the page: until one is, a pick asks all of its
 * triangles, which is slow and right.
 */

/** What the worker of trees does. */
export interface TreesWorker {
  build(mesh: Mesh, onProgress: (share: number) => void): TriangleTree;
}

/** Has one mesh made ready; what is stopped stays as slow as it is. */
async function prepare(mesh: Mesh, name: string): Promise<void> {
  awaitTree(mesh);
  const worker = new Worker(new URL('../workers/trees.ts', import.meta.url), { type: 'module' });
  let stop = () => undefined as void;
  const stopped = new Promise<null>((resolve) => {
    stop = () => resolve(null);
  });
  const shown = underWay(`Making ${name} ready for picking`, stop);
  try {
    const { proxy, wrap } = await import('comlink');
    const tree = await Promise.race([
      wrap<TreesWorker>(worker).build(packShape(mesh), proxy(shown.at)) as Promise<TriangleTree>,
      stopped,
      workerEnd(worker),
    ]);
    if (tree) giveTree(mesh, tree);
  } catch (error) {
    complain(workerEndText(`Making ${name} ready for picking`, error));
  } finally {
    worker.terminate();
    shown.done();
  }
}

/**
 * Watches the open project for large meshes from now on: once, before a project is opened, so that no pick prepares
 * one on the page.
 */
export function prepareMeshes(): void {
  const seen = new WeakSet<Mesh>();
  const look = () => {
    for (const { shape, name } of useDocument.getState().project?.bodies ?? [])
      if (shape.kind === 'mesh' && shape.indices.length > 3 * preparedElsewhere && !seen.has(shape)) {
        seen.add(shape);
        void prepare(shape, name);
      }
  };
  useDocument.subscribe((state, before) => {
    if (state.project?.bodies !== before.project?.bodies) look();
  });
  look();
}
