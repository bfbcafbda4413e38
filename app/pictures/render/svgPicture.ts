import type { Theme } from '../../ui/themes';
import type { Layer } from '../compose/layer';
import type { Size } from '../compose/contract';
import { n2 } from '../compose/marks';
import { drawLayer } from './sink';
import { svgSink, type UsedFont } from './svgSink';

/** A picture to be written as SVG. */
export interface SvgPicture {
  readonly size: Size;
  /** The drawn surfaces as a PNG in a data address; null for marks alone. */
  readonly surfaces: string | null;
  readonly layers: readonly Layer[];
  readonly theme: Theme;
}

/**
 * Writes a picture as a document of SVG that refers to nothing outside it.
 *
 * @param fontRules - returns rules of CSS with the fonts in use, their files as data
 * @param wide - the document's own width in pixels
 */
export async function writeSvg(
  { size: { width, height }, surfaces, layers, theme }: SvgPicture,
  fontRules: (fonts: readonly UsedFont[]) => Promise<string>,
  wide: number = width,
): Promise<string> {
  const sink = svgSink();
  for (const layer of layers) drawLayer(sink, layer, theme);
  const rules = await fontRules(sink.fonts());
  const [w, h] = [n2(width), n2(height)];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n2(wide)}" height="${n2((wide * height) / width)}" viewBox="0 0 ${w} ${h}">`,
    ...(rules ? [`<style>${rules}</style>`] : []),
    ...(surfaces ? [`<image href="${surfaces}" width="${w}" height="${h}"/>`] : []),
    sink.markup(),
    '</svg>\n',
  ].join('\n');
}
