import { fieldEntries } from '../../sheet/fieldFacts';
import type { Find } from '../task';
import { orderState } from './kept';

/** What the worksheet of Order has, by its names and by other words of the trade. */
export const finds: readonly Find[] = [
  { name: 'Through the eye’s plane', at: '[data-section="order-through"]', words: 'near clipping homogeneous w guard band polygon', world: 'space' }, // prettier-ignore
  {
    name: 'Corners of a face',
    at: '[data-section="order-through"]',
    words: 'vertices clip near plane',
    world: 'space',
  },
  { name: 'Winding', at: '[data-section="order-winding"]', words: 'backface culling clockwise counter-clockwise CCW CW frontFace signed area', world: 'space' }, // prettier-ignore
  {
    name: 'Front face and culling',
    at: '[aria-label="Front face"]',
    words: 'cullMode cullFace two-sided',
    world: 'space',
  },
  { name: 'Draw order', at: '[data-section="order-draw"]', words: 'sorting painter z-order depth sort transparency layers y-sort' }, // prettier-ignore
  { name: 'Paint without a depth buffer', at: '[aria-label="Paint"]', words: 'painter algorithm z-buffer' },
  { name: 'Sprites and feet', at: '[data-section="order-sprites"]', words: 'pivot foot y-sort image png texture billboard', world: 'flat' }, // prettier-ignore
  { name: 'Pixels per unit of the sprite', at: '[data-section="order-sprites"]', words: 'ppu import scale image', world: 'flat' }, // prettier-ignore
  { name: 'Horizon and vanishing points', at: '[data-section="order-horizon"]', words: 'skyline perspective parallels pitch lean', world: 'space' }, // prettier-ignore
  { name: 'Shadow on a plane', at: '[data-section="order-shadow"]', words: 'planar shadow matrix projected sun lamp light', world: 'space' }, // prettier-ignore
  { name: 'Direction of the light', at: '[aria-label="Bearing of the light"], [aria-label="Lamp x"]', words: 'sun azimuth elevation', world: 'space' }, // prettier-ignore
  ...fieldEntries('order', orderState),
  { name: 'Equal angles against a plane', at: '[data-section="order-angles"]', words: 'angular fisheye equirectangular ray per pixel distortion', world: 'space' }, // prettier-ignore
];
