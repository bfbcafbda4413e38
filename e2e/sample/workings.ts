import type { WorkingTable } from '../../app/working/builder';

export const workings: WorkingTable = {
  sampleArea: (_, t) => [
    {
      id: 'line-area',
      says: 'Its floor',
      name: 'A',
      formula: `(2\\cdot ${t.number(60, 'spread')})^2`,
      result: [14400],
    },
  ],
};
