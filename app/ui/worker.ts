/** What a worker posts once it holds the lock that shows that it runs. */
export interface Alive {
  readonly kind: 'alive';
  readonly lock: string;
}
export const isAlive = (data: unknown): data is Alive =>
  typeof data === 'object' && data !== null && (data as Partial<Alive>).kind === 'alive';

/**
 * Calls back with the reason when a worker cannot be loaded, when an error of its own ends it, or when the browser
 * ends it. Where the browser has no locks the last is not noticed.
 */
export function onWorkerEnd(worker: Worker, ended: (why: string) => void): void {
  worker.addEventListener('error', ({ message }) => ended(message || 'a part of the page could not be fetched'), {
    once: true,
  });
  const hear = ({ data }: MessageEvent<unknown>) => {
    if (!isAlive(data)) return;
    worker.removeEventListener('message', hear);
    void navigator.locks.request(data.lock, () => ended('the browser ended its worker'));
  };
  worker.addEventListener('message', hear);
}

/** Rejects when a worker ends, to be raced against its answer. Never resolves. */
export const workerEnd = (worker: Worker): Promise<never> =>
  new Promise((_, reject) => onWorkerEnd(worker, (why) => reject(new Error(why))));

/** The sentence for a worker that has ended. */
export const workerEndText = (doing: string, error: unknown): string =>
  `${doing} failed: ${error instanceof Error ? error.message : String(error)}. Reload the page; your work is saved.`;
