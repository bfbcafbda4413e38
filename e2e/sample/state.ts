import type { Query } from '../../core/compute/operations';
import type * as z from 'zod';
import { count, group, length, point } from '../../core/quantities/quantity';
import { writeValue } from '../../core/quantities/convert';
import type { Slice } from '../../app/state/slices';

/** What the sample keeps: where its boxes are scattered, how widely, by which seed. */
export const sampleState = group({
  spread: length({ label: 'Spread', above: 0, source: 'spread', words: 'extent of the sample' }),
  seed: count({ min: 0 }),
  centre: point({ label: 'Centre of the sample', short: 'centre', decimals: 1 }),
});
export type SampleState = z.infer<typeof sampleState>;

export const slice: Slice<SampleState> = {
  version: 2,
  schema: sampleState,
  initial: () => ({ spread: 60, seed: 1, centre: [0, 6, 0] }),
  // The first version had no seed.
  migrate: [(older) => ({ ...(older as object), seed: 1 })],
  queries: (kept, context) => [
    { id: 'sample centre', op: 'worldToScreen', points: [writeValue(sampleState, kept, context).centre] } as Query,
  ],
};
