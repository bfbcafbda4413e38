import type { Find } from '../task';

/** What the worksheet of Diagnose has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'The engine’s numbers', at: '[data-section="diagnose-paste"]', words: 'paste log dump debugger matrix' },
  {
    ...{ name: 'Verdict', at: '[data-section="diagnose-verdict"]', world: 'space' },
    words: 'bug wrong transposed flipped mirrored handedness degrees radians mend fix',
  },
  {
    name: 'What was read',
    at: '[data-section="diagnose-reading"]',
    words: 'roles correct digits precision transposed',
  },
  {
    ...{ name: 'Conventions of the numbers', at: '[data-section="diagnose-alone"]', world: 'space' },
    words: 'identify axes depth range row major column major candidates',
  },
  {
    ...{ name: 'Camera read off the numbers', at: '[data-section="diagnose-read"]', world: 'space' },
    words: 'decompose extract position field of view near far',
  },
];
