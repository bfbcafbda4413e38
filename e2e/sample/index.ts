import { editSlice } from '../../app/state/slices';
import { say } from '../../app/ui/notices';
import type { Task } from '../../app/tasks/task';
import { SampleChart, SampleSheet, scatterAnew } from './Sheet';
import { fieldEntries } from '../../app/sheet/fieldFacts';
import { sampleState, type SampleState } from './state';

/**
 * A task that uses everything that a task can: kept in the tests, to prove that a task is a folder
 * and a line.
 */
const sample: Task<SampleState> = {
  Sheet: SampleSheet,
  corner: 'sample/above',
  panes: [{ name: 'chart', title: 'Sample chart', Content: SampleChart, place: { height: 40 } }],
  commands: [{ name: 'Scatter the sample anew', run: scatterAnew }],
  finds: fieldEntries('sample', sampleState),
  keys: [{ key: 'j', says: 'scatters the sample anew', run: scatterAnew }],
  help: {
    space: [{ title: 'The sample', text: ['It is scattered about its centre.'] }],
    flat: [],
  },
  tries: {
    harbour: [
      {
        id: 'sample-scatter',
        text: 'Press J: the sample is scattered anew.',
        done: ({ project }) => (project.tasks.sample as SampleState | undefined)?.seed === 2,
      },
    ],
  },
  workings: {
    titles: { sampleArea: 'The floor of the sample' },
    load: () => import('./workings'),
    sources: { spread: 'the spread' },
  },
  handles: ({ slice }, picture) =>
    picture === 'plan' || picture === 'outside' || picture === 'sample/above'
      ? [
          {
            ...{ id: 'centre', name: 'the centre of the sample', picture, at: slice.centre, along: [0, 1, 0] },
            move: ([x, y, z], edit) => edit('move the sample', (draft) => void (draft.centre = [x, y, z])),
          },
        ]
      : [],
  accepts: [
    {
      says: 'a seed of the sample',
      accepts: ({ text, bytes }) => /^sample \d+$/.test(text ?? '') || (bytes[0] === 0x53 && bytes[1] === 0),
      take: ({ text, bytes }) => {
        const seed = text === null ? bytes[2]! : Number(text.slice(7));
        editSlice<SampleState>('sample', 'take a seed', (draft) => void (draft.seed = seed));
        say(`Took the seed ${seed}.`);
      },
    },
  ],
};
export default sample;
