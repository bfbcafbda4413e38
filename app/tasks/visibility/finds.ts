import { fieldEntries } from '../../sheet/fieldFacts';
import type { Find } from '../task';
import { visibilityState } from './kept';

/** What the worksheet of Visibility has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'Bodies against the frustum', at: '[data-section="visibility-bodies"]', words: 'culling frustum test inside outside intersect' }, // prettier-ignore
  ...fieldEntries('visibility', visibilityState),
  { name: 'Exact test or planes', at: '[aria-label="Test"]', words: 'false positive conservative separating axis' },
  { name: 'A shortcut instead', at: '[aria-label="Shortcut"]', words: 'bounding sphere centre point corners AABB' },
  {
    name: 'Why not',
    at: '[data-section="visibility-why"]',
    words: 'invisible missing nothing drawn black behind occluded',
  },
  { name: 'A field of test bodies', at: '[data-section="visibility-field"]', words: 'grid scatter stress many instances benchmark tree BVH' }, // prettier-ignore
  { name: 'Over time', at: '[data-section="visibility-time"]', words: 'enter leave events popping frame rate' },
  { name: 'What has left the view', at: '[aria-label="What is done with what has left the view"]', words: 'deactivate despawn remove pop back sleep streaming' }, // prettier-ignore
  { name: 'On other screens', at: '[data-section="visibility-screens"]', words: 'resolution aspect ratio devices' },
  { name: 'By their shadow alone', at: '[data-section="visibility-shadows"]', words: 'shadow caster culling popping', world: 'space' }, // prettier-ignore
  { name: 'Size on the screen', at: '[data-section="visibility-size"]', words: 'LOD level of detail screen size pixels projected' }, // prettier-ignore
  { name: 'Thresholds', at: '[aria-label="Threshold 1"]', words: 'LOD switch distance hysteresis' },
];
