import { bytesOfBase64, type ProjectImage } from '../../../formats/images';
import type { ImagePixels } from '../compose/imageAtlas';

/** Decodes an image of a project. Resolves to null where the browser cannot. */
export async function decodeImage({ id, png }: ProjectImage): Promise<ImagePixels | null> {
  try {
    const bitmap = await createImageBitmap(new Blob([bytesOfBase64(png)], { type: 'image/png' }));
    const { width, height } = bitmap;
    const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
    context.drawImage(bitmap, 0, 0);
    bitmap.close();
    return { id, width, height, data: context.getImageData(0, 0, width, height).data };
  } catch {
    return null;
  }
}
