import type { Theme } from '../../ui/themes';
import type { Layer } from '../compose/layer';
import { inkOf, type Ink } from '../compose/inks';
import type { Stroke, Text } from '../compose/marks';

/** An output that marks are drawn to: a canvas, or the text of an SVG. */
export interface Sink {
  /** Begins marks that share an origin and a clip rectangle. */
  begin(layer: Layer): void;
  /** Draws a shape. */
  shape(mark: Stroke, ink: Ink): void;
  /** Draws a line of text. */
  text(mark: Text, ink: Ink): void;
  end(): void;
}

/**
 * Draws a layer of marks.
 *
 * @param isLoaded - whether a font, as CSS shorthand, can be used; text in other fonts is left out
 * @returns whether everything was drawn
 */
export function drawLayer(
  sink: Sink,
  layer: Layer,
  theme: Theme,
  isLoaded: (font: string) => boolean = () => true,
): boolean {
  let isComplete = true;
  sink.begin(layer);
  for (const mark of layer.marks) {
    const ink = inkOf(theme, layer.ground, mark.ink);
    if ('d' in mark) sink.shape(mark, ink);
    else if (ink.font && isLoaded(ink.font.css)) sink.text(mark, ink);
    else isComplete = false;
  }
  sink.end();
  return isComplete;
}
