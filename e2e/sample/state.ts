import * as z from 'zod';
import type { Slice } from '../../app/state/slices';

/** What the sample keeps: where its boxes are scattered, how widely, by which seed. */
export interface SampleState {
  spread: number;
  seed: number;
  centre: [number, number, number];
}

export const slice: Slice<SampleState> = {
  version: 2,
  schema: z.object({
    spread: z.number().positive(),
    seed: z.int().nonnegative(),
    centre: z.tuple([z.number(), z.number(), z.number()]),
  }),
  initial: () => ({ spread: 60, seed: 1, centre: [0, 6, 0] }),
  // The first version had no seed.
  migrate: [(older) => ({ ...(older as object), seed: 1 })],
  reread: (kept, from, to) => ({
    ...kept,
    centre: [...to.fromWorld(from.toWorld(kept.centre))] as [number, number, number],
  }),
  queries: ({ centre }, { codec }) => [
    { id: 'sample centre', op: 'worldToScreen', points: [[...codec.toWorld(centre)] as [number, number, number]] },
  ],
};
