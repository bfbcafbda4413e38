import { fieldEntries } from '../../sheet/fieldFacts';
import type { Find } from '../task';
import { pickState } from './kept';

/** What the worksheet of Pick has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'Ray', at: '[data-section="pick-ray"]', words: 'raycast mouse picking unproject screen to ray hit test' },
  { name: 'Pixel of the ray', at: '[aria-label="Ray pixel x"]', words: 'mouse cursor screen coordinates' },
  { name: 'Hits', at: '[aria-label="hits"]', words: 'intersections normals facing triangle back faces' },
  { name: 'Aim', at: '[data-section="pick-aim"]', words: 'muzzle gun projectile crosshair third person line of fire', world: 'space' }, // prettier-ignore
  ...fieldEntries('pick', pickState),
  { name: 'The fault bench', at: '[data-section="pick-bench"]', words: 'off by wrong ray shake recoil stale frame aspect offset DPR half pixel' }, // prettier-ignore
  { name: 'Shake', at: '[aria-label="Shake yaw"], [aria-label="Shake roll"]', words: 'camera shake bob sway' },
  { name: 'The sweep', at: '[data-section="pick-sweep"]', words: 'id buffer object picking BVH boxes tested heat map', world: 'space' }, // prettier-ignore
];
