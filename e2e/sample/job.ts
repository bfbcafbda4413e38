import type { JobModule, JobSpec } from '../../app/state/jobs';
import type { SampleState } from './state';

interface Asked {
  readonly spread: number;
  readonly seed: number;
}

/** Counts something slowly, so that it can be watched and stopped. */
const counted: JobSpec<SampleState, Asked, { readonly count: number; readonly squares: Float64Array }> = {
  says: 'Counting the sample',
  input: ({ slice }) => ({ spread: slice.spread, seed: slice.seed }),
  run: async ({ spread, seed }, control) => {
    const squares = new Float64Array(100);
    for (let i = 0; i < 100; i++) {
      const until = performance.now() + 12;
      while (performance.now() < until) squares[i] = i * i;
      control.progress(i / 100);
      await control.breathe();
    }
    return { count: Math.round(spread) * 1000 + seed, squares };
  },
};

export const jobs: JobModule['jobs'] = { counted };
