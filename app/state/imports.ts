import { proxy, wrap, type Remote } from 'comlink';
import type { Conventions } from '../../core/conventions/conventions';
import type { Imported, ImportContext } from '../../formats/importing';
import { underWay } from '../ui/clipboard';
import type { ImportsWorker, PointsProject } from '../workers/imports';

/* Reading what is brought in, in a worker that can be ended. */

/** Asks a worker of its own, with a notice of how far it is past the first moment; null when the user has stopped it. */
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
    return await Promise.race([ask(wrap<ImportsWorker>(worker), proxy(shown.at)), stopped]);
  } finally {
    worker.terminate();
    shown.done();
  }
}

export const readImported = (text: string, name: string, context: ImportContext): Promise<Imported | null> =>
  asked(name, (to, onProgress) => to.read(text, name, context, onProgress) as Promise<Imported>);

/** A list of points as a project of its own, with the table that goes with it. */
export const readPointsProject = (
  text: string,
  given: { id: string; name: string; conventions: Conventions },
): Promise<PointsProject | null> => asked(given.name, (to) => to.pointsProject(text, given) as Promise<PointsProject>);
