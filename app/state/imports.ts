import { proxy, wrap, type Remote } from 'comlink';
import type { Conventions } from '../../core/conventions/conventions';
import type { Reading } from '../../formats/pointColumns';
import type { Imported, ImportContext } from '../../formats/importing';
import { complain, underWay } from '../ui/notices';
import { workerEnd, workerEndText } from '../ui/worker';
import type { Problem } from '../../core/reasons';
import type { Project } from '../../formats/project';
import type { SceneAsProject } from '../../formats/sceneProject';
import { unpackProject } from './packing';

/** A list of points as a project of its own, or what is wrong with it. */
export type PointsProject =
  | {
      readonly ok: true;
      readonly project: Project;
      readonly points: Float64Array;
      readonly names: readonly string[] | null;
      /** What its columns were taken for, in words. */
      readonly said: string;
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** What becomes a project of its own, and the conventions in which its numbers are then shown. */
export interface OwnProject {
  readonly id: string;
  readonly name: string;
  readonly conventions: Conventions;
}
/** What the worker of imports does. */
export interface ImportsWorker {
  read(text: string, name: string, context: ImportContext, onProgress: (share: number) => void): Imported;
  pointsProject(text: string, given: OwnProject, reading?: Reading): PointsProject;
  /** A .glb or .gltf. */
  scene(bytes: Uint8Array, given: OwnProject): Promise<SceneAsProject>;
}

/* Reading what is brought in, in a worker that can be ended. */

/**
 * Asks a worker of its own, with a notice of how far it is past the first moment; null when the
 * user has stopped it, or the worker has failed, which is said.
 */
async function asked<T>(
  name: string,
  ask: (remote: Remote<ImportsWorker>, onProgress: (share: number) => void) => Promise<T>,
): Promise<T | null> {
  const worker = new Worker(new URL('../workers/imports.ts', import.meta.url), { type: 'module' });
  let stop = () => undefined as void;
  const stopped = new Promise<null>((resolve) => {
    stop = () => resolve(null);
  });
  const shown = underWay(`Reading ${name}`, stop);
  try {
    return await Promise.race([ask(wrap<ImportsWorker>(worker), proxy(shown.at)), stopped, workerEnd(worker)]);
  } catch (error) {
    complain(workerEndText(`Reading ${name}`, error));
    return null;
  } finally {
    worker.terminate();
    shown.done();
  }
}

export const readImported = (text: string, name: string, context: ImportContext): Promise<Imported | null> =>
  asked(name, async (to, onProgress) => {
    const read = (await to.read(text, name, context, onProgress)) as Imported;
    return read.ok && read.kind === 'project' ? { ...read, project: unpackProject(read.project) } : read;
  });

/** A list of points as a project of its own, with the table that goes with it. */
export const readPointsProject = (text: string, given: OwnProject, reading?: Reading): Promise<PointsProject | null> =>
  asked(given.name, (to) => to.pointsProject(text, given, reading) as Promise<PointsProject>);

/** A scene of glTF as a project of its own; null where it was stopped. */
export const readSceneProject = (bytes: Uint8Array, given: OwnProject): Promise<SceneAsProject | null> =>
  asked(given.name, async (to) => {
    const read = (await to.scene(bytes, given)) as SceneAsProject;
    return read.ok ? { ...read, project: unpackProject(read.project) } : read;
  });
