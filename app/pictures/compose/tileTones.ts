import type { Tiles } from '../../../formats/project';
import type { ImageAtlas } from './imageAtlas';

/** Land. */
export const landTone = 255;
/** Where there is no tile. */
export const outsideTone = 254;
/** The first tone that stands for an image of the atlas, by its index. */
export const firstImageTone = 64;

/**
 * Returns one byte a tile: the index of its band, an image of the atlas from `firstImageTone` on, or land. An image
 * that is not in the atlas leaves the tile to its band.
 */
export function tileTones({ values, bands, images = [] }: Tiles, atlas: ImageAtlas | null): Uint8Array {
  return Uint8Array.from(values, (value) => {
    if (value === null) return landTone;
    const image = atlas?.indexById.get(images[value] ?? '');
    return image === undefined ? bands.filter((limit) => value >= limit).length : firstImageTone + image;
  });
}
