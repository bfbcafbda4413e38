import type { AnyCanvas } from '../renderer';
import type { Surfaces } from '../surfaces';
import { drawSoftware } from './softwareRenderer';

/** Device pixels to a pixel of the page: coarse, so that a drag can be followed. */
const reducedPixel = 0.5;

/** Draws surfaces in software at reduced size, for browsers without WebGL2. */
export function softwareSurfaces(canvas: AnyCanvas): Surfaces {
  const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D | null;
  let last = '';
  return {
    ready: true,
    draw: (scene, ground, pictures, palette, size) => {
      // The pointer moves far more often than the pictures change.
      const key = JSON.stringify([
        ...[size, palette.page, scene.meshRevision],
        pictures.map(({ name, rect, frame, poses, layers, tints, painting }) => [
          ...[name, rect, frame.serial, valueId(poses.values), tints && valueId(tints), painting?.revision],
          layers.map((layer) => [layer.key, layer.revision, 'tintRevision' in layer && layer.tintRevision]),
        ]),
      ]);
      if (key === last || !context) return true;
      last = key;
      const { width, height, data } = drawSoftware(scene, ground, pictures, palette, size, reducedPixel);
      [canvas.width, canvas.height] = [width, height];
      context.putImageData(new ImageData(data, width, height), 0, 0);
      return true;
    },
  };
}

const ids = new WeakMap<object, number>();
let lastId = 0;
/** Returns a number that stands for an object while it is the same one. */
function valueId(value: object): number {
  const known = ids.get(value) ?? ++lastId;
  ids.set(value, known);
  return known;
}
