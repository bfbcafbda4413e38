/** The pixels of an image: RGBA bytes, row by row from the top. */
export interface ImagePixels {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/** Images of a project in one texture. */
export interface ImageAtlas {
  readonly width: number;
  readonly height: number;
  /** RGBA bytes, row by row from the top. */
  readonly data: Uint8ClampedArray<ArrayBuffer>;
  /** Left, top, width and height of each image in the atlas, in pixels. */
  readonly rectangles: readonly (readonly [number, number, number, number])[];
  /** The index of an image's rectangle, by its id. */
  readonly indexById: ReadonlyMap<string, number>;
}

/** The width that images are laid out in, unless one is wider. */
const leastWidth = 1024;

/**
 * Lays images out in one texture, in rows of falling height.
 *
 * @returns null without images
 */
export function packImages(images: readonly ImagePixels[]): ImageAtlas | null {
  if (!images.length) return null;
  const width = images.reduce((most, image) => Math.max(most, image.width), leastWidth);
  const order = images.map((_, i) => i).sort((a, b) => images[b]!.height - images[a]!.height);
  const rectangles = new Array<readonly [number, number, number, number]>(images.length);
  let [x, y, rowHeight] = [0, 0, 0];
  for (const i of order) {
    const image = images[i]!;
    if (x + image.width > width) [x, y, rowHeight] = [0, y + rowHeight, 0];
    rectangles[i] = [x, y, image.width, image.height];
    x += image.width;
    rowHeight = Math.max(rowHeight, image.height);
  }
  const height = y + rowHeight;
  const data = new Uint8ClampedArray(4 * width * height);
  images.forEach((image, i) => {
    const [left, top] = rectangles[i]!;
    for (let row = 0; row < image.height; row++)
      data.set(
        image.data.subarray(4 * row * image.width, 4 * (row + 1) * image.width),
        4 * ((top + row) * width + left),
      );
  });
  return { width, height, data, rectangles, indexById: new Map(images.map(({ id }, i) => [id, i])) };
}

/**
 * Returns where the texel of an image at shares of its width and height is in the bytes of the atlas.
 *
 * @param u - 0 at the left to 1 at the right
 * @param v - 0 at the bottom to 1 at the top
 */
export function texelAt({ width, rectangles }: ImageAtlas, image: number, u: number, v: number): number {
  const [left, top, w, h] = rectangles[image]!;
  const column = Math.min(w - 1, Math.max(0, Math.floor(u * w)));
  const row = Math.min(h - 1, Math.max(0, Math.floor((1 - v) * h)));
  return 4 * ((top + row) * width + left + column);
}
