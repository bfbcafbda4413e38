import { fieldEntries } from '../../sheet/fieldFacts';
import type { Find } from '../task';
import { spawnState } from './kept';

/** What the worksheet of Spawn has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'Where a body may appear', at: '[data-section="spawn-region"]', words: 'spawn region off-screen outside area annulus ring' }, // prettier-ignore
  ...fieldEntries('spawn', spawnState),
  { name: 'Points', at: '[data-section="spawn-points"]', words: 'random uniform sampling rejection retry loop seed density' }, // prettier-ignore
  { name: 'On other screens', at: '[data-section="spawn-screens"]', words: 'resolution aspect ratio safe' },
  { name: 'Until it is seen', at: '[data-section="spawn-seen"]', words: 'time to view arrive seconds histogram' },
  { name: 'The first frame', at: '[data-section="spawn-first"]', words: 'pop in order of events start level load' },
  {
    name: 'Take it home',
    at: '[data-section="spawn-home"]',
    words: 'export CSV JSON SVG code C Rust Python TypeScript GLSL',
  },
];
