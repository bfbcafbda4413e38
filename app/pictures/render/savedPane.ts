import { base64Of } from '../../../formats/base64';
import type { Theme } from '../../ui/themes';
import type { SavedPane } from '../compose/compose';
import type { Size } from '../compose/contract';
import { palettes } from '../compose/palette';
import { canvasSink } from './canvasSink';
import { embeddedFontRules, loadFile, type Face } from './fontFaces';
import { Renderer, type AnyCanvas } from './renderer';
import { drawLayer } from './sink';
import { drawSoftware } from './software/softwareRenderer';
import { writeSvg } from './svgPicture';

/** SVG, with surfaces at `pixel` device pixels to a pixel of the page; or PNG, `wide` pixels wide. */
export type SavedFormat =
  { readonly kind: 'svg'; readonly pixel: number } | { readonly kind: 'png'; readonly wide: number };

export interface SavedFile extends Size {
  readonly blob: Blob;
}

/** Draws the surfaces of a pane on a canvas of their own. Throws where the GPU holds no picture of that size. */
function drawSurfaces(
  { scene, ground, pictures, size }: SavedPane,
  theme: Theme,
  pixel: number,
  createCanvas: () => AnyCanvas,
): OffscreenCanvas {
  const renderer = createRenderer(createCanvas);
  if (!renderer) {
    const { width, height, data } = drawSoftware(scene, ground, pictures, palettes[theme], size, pixel);
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.putImageData(new ImageData(data, width, height), 0, 0);
    return canvas;
  }
  try {
    const drawn = renderer.print(scene, ground, pictures, palettes[theme], size, pixel);
    if (drawn) return drawn;
    throw new Error(
      `The GPU cannot draw a picture ${Math.round(size.width * pixel)} pixels wide. Choose a smaller size.`,
    );
  } finally {
    renderer.close();
  }
}

/** Creates a renderer; null without WebGL2. */
function createRenderer(createCanvas: () => AnyCanvas): Renderer | null {
  try {
    return new Renderer(createCanvas(), () => undefined, () => undefined); // prettier-ignore
  } catch {
    return null;
  }
}

/**
 * Writes a pane as a file.
 *
 * @param faces - the typefaces that SVG takes along
 */
export async function savePane(
  pane: SavedPane,
  theme: Theme,
  format: SavedFormat,
  faces: readonly Face[],
  createCanvas: () => AnyCanvas,
): Promise<SavedFile> {
  const { size, layers } = pane;
  const pixel = format.kind === 'png' ? format.wide / size.width : format.pixel;
  const canvas = drawSurfaces(pane, theme, pixel, createCanvas);
  if (format.kind === 'png') {
    const context = canvas.getContext('2d')!;
    context.setTransform(pixel, 0, 0, pixel, 0, 0);
    const sink = canvasSink(context);
    for (const layer of layers) drawLayer(sink, layer, theme);
    return { blob: await canvas.convertToBlob({ type: 'image/png' }), width: canvas.width, height: canvas.height };
  }
  const png = await canvas.convertToBlob({ type: 'image/png' });
  const surfaces = `data:image/png;base64,${base64Of(new Uint8Array(await png.arrayBuffer()))}`;
  const text = await writeSvg({ size, surfaces, layers, theme }, (fonts) => embeddedFontRules(faces, fonts, loadFile));
  return { blob: new Blob([text], { type: 'image/svg+xml' }), ...size };
}
