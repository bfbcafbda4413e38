/**
 * The seed of this run of the tests, a non-negative integer. `npm test` runs with 0, so that the same commit
 * gives the same result everywhere; `npm run soak` draws one; `SEED=n` repeats a run.
 */
export const runSeed = Number(process.env['SEED'] ?? 0);

/** Mixes the run's seed into the seed of a generator; the seed itself when the run's is 0. */
export const seeded = (seed: number): number => (seed ^ Math.imul(runSeed, 0x9e3779b1)) >>> 0;

/** `npm run soak` asks more, and with a seed of its own. */
export const soaks = Boolean(process.env['SOAK']);

/**
 * How many cases of a property `npm test` asks: a third of those of `npm run soak`. With a fixed seed the
 * same cases come back in every run, and more of them find nothing new.
 */
export const runs = (soak: number): number => (soaks ? soak : Math.ceil(soak / 3));
