import * as z from 'zod';
import type { Problem } from '../core/reasons';

/*
 * Images of a project: PNG files, kept as base64 text in the project. Sprites and the tiles of a 2D map are drawn
 * with them.
 */

export const imageLimits = {
  count: 64,
  /** Pixels across or down. */
  side: 1024,
  /** Pixels of all images together. */
  pixels: 2_000_000,
  /** Bytes of one file. */
  bytes: 1_000_000,
} as const;

/** Characters of the base64 text of the largest file. */
const longestPng = Math.ceil(imageLimits.bytes / 3) * 4;

export const imageSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  width: z.int().min(1).max(imageLimits.side),
  height: z.int().min(1).max(imageLimits.side),
  png: z.base64().max(longestPng).describe('The PNG file'),
});

/** An image of a project. */
export type ProjectImage = z.output<typeof imageSchema>;

const signature = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** Returns whether bytes begin as a PNG file does. */
export const isPng = (bytes: Uint8Array): boolean => signature.every((byte, i) => bytes[i] === byte);

/**
 * Returns the width and height of a PNG file in pixels, or null if it is not one.
 *
 * @see Portable Network Graphics (PNG) Specification, §11.2.2, "IHDR"
 */
export function pngSize(bytes: Uint8Array): readonly [number, number] | null {
  if (!isPng(bytes) || bytes.length < 33) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const isHeader = view.getUint32(8) === 13 && String.fromCharCode(...bytes.subarray(12, 16)) === 'IHDR';
  const [width, height] = [view.getUint32(16), view.getUint32(20)];
  return isHeader && width > 0 && height > 0 ? [width, height] : null;
}

/** Returns the bytes of base64 text. Throws where it is not base64. */
export const bytesOfBase64 = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(text), (character) => character.charCodeAt(0));

/** Returns what keeps images from being those of one project; empty where nothing does. */
export function imageProblems(images: readonly ProjectImage[]): Problem[] {
  const problems: Problem[] = [];
  images.forEach(({ id, name, width, height, png }, i) => {
    const size = pngSize(bytesOfBase64(png.slice(0, 44)));
    if (!size) problems.push({ path: `images[${i}].png`, message: `The image “${name}” is not a PNG file.` });
    else if (size[0] !== width || size[1] !== height)
      problems.push({
        path: `images[${i}]`,
        message: `The image “${name}” is said to have ${width} × ${height} pixels, and its file has ${size[0]} × ${size[1]}. Set width and height to those of the file.`,
      });
    else if (Math.max(...size) > imageLimits.side)
      problems.push({
        path: `images[${i}]`,
        message: `The image “${name}” has ${width} × ${height} pixels, and a project takes ${imageLimits.side} a side. Make it smaller.`,
      });
    if (png.length > longestPng)
      problems.push({
        path: `images[${i}].png`,
        message: `The file of the image “${name}” has more than ${imageLimits.bytes.toLocaleString('en')} bytes, which is the most for one image. Make it smaller.`,
      });
    if (images.findIndex((one) => one.id === id) < i)
      problems.push({ path: `images[${i}].id`, message: `Two images have the id “${id}”. Give each its own.` });
  });
  const { count, pixels: most } = imageLimits;
  if (images.length > count)
    problems.push({
      path: 'images',
      message: `There are ${images.length} images, and a project takes ${count}. Leave some out.`,
    });
  const pixels = images.reduce((sum, { width, height }) => sum + width * height, 0);
  if (pixels > most)
    problems.push({
      path: 'images',
      message: `The images have ${pixels.toLocaleString('en')} pixels together, and a project takes ${most.toLocaleString('en')}. Make them smaller, or leave some out.`,
    });
  return problems;
}
