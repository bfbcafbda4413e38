/**
 * Fails when a worker cannot be fetched or falls over, which says nothing of itself to whoever waits
 * for its answer. Never succeeds: to be raced against that answer.
 */
export const fallen = (worker: Worker): Promise<never> =>
  new Promise((_, fail) =>
    worker.addEventListener(
      'error',
      ({ message }) => fail(new Error(message || 'a part of the page could not be fetched')),
      { once: true },
    ),
  );

/** What is said where a worker has failed. */
export const fallenText = (doing: string, error: unknown): string =>
  `${doing} failed: ${error instanceof Error ? error.message : String(error)}. Load the page again; what you made is kept.`;
