import type { Alive } from '../ui/worker';

/*
 * A browser reports to nobody that it has ended a worker. A lock shows it: the worker holds one for as long as
 * it runs, and the page waits for it. Imported by every worker.
 */

const lock = `worker ${Math.random()}`;
void navigator.locks?.request(lock, () => {
  self.postMessage({ kind: 'alive', lock } satisfies Alive);
  return new Promise(() => undefined);
});
