import { fieldEntries } from '../../sheet/fieldFacts';
import type { Find } from '../task';
import { billboardState } from './kept';

/** What the worksheet of Billboard has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'Modes side by side', at: '[data-section="billboard-modes"]', words: 'spherical cylindrical screen aligned view aligned sprite facing', world: 'space' }, // prettier-ignore
  { name: 'Boards', at: '[data-section="billboard-boards"]', words: 'sprite quad label nameplate impostor' },
  ...fieldEntries('billboard', billboardState),
  { name: 'What turns it', at: '[data-section="billboard-result"]', words: 'matrix quaternion euler look at rotation mesh axes', world: 'space' }, // prettier-ignore
  { name: 'Lettering, mirrored or not', at: '[aria-label="What the engine gets wrong"]', words: 'flipped text backwards winding culled handedness', world: 'space' }, // prettier-ignore
  { name: 'Straight above', at: '[data-section="billboard-above"]', words: 'singularity gimbal flip snap pole overhead', world: 'space' }, // prettier-ignore
  {
    name: 'Size on the screen',
    at: '[data-section="billboard-size"]',
    words: 'constant pixel size fade distance scale',
  },
  { name: 'Lean of flat sprites', at: '[data-section="billboard-lean"]', words: 'tilt roll vanishing point particle', world: 'space' }, // prettier-ignore
  { name: 'From the frame before', at: '[data-section="billboard-stale"]', words: 'stale lag jitter update order late', world: 'space' }, // prettier-ignore
  { name: 'Upright', at: '[data-section="billboard-upright"]', words: 'rotation label text', world: 'flat' },
];
