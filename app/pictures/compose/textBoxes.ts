import { radians } from '../../../core/math/angle';
import { inkStyles } from './inks';
import type { Rect } from './labels';
import type { Mark, Text } from './marks';

/** How wide a letter of each typeface is, in sizes of the font: about the mean of text. */
const letterWidth = { sans: 0.53, mono: 0.604, serif: 0.47 } as const;
/** How far text extends above and below its baseline, in sizes of the font. */
const [ascent, descent] = [0.76, 0.24];

/** Returns the box round a text mark, in the pixels of its picture; turned text has the box round its corners. */
export function textBox({ text, ink, x = 0, y = 0, turn = 0, anchor = 'start' }: Text): Rect {
  const { font } = inkStyles[ink];
  const size = font?.size ?? 11.5;
  const width = text.length * size * letterWidth[font?.face ?? 'sans'];
  const left = anchor === 'middle' ? -width / 2 : anchor === 'end' ? -width : 0;
  const [top, bottom] = [-ascent * size, descent * size];
  if (!turn) return { x: x + left, y: y + top, width, height: bottom - top };
  const [c, s] = [Math.cos(radians(turn)), Math.sin(radians(turn))];
  const corners = [left, left + width].flatMap((u) =>
    [top, bottom].map((v) => [u * c - v * s, u * s + v * c] as const),
  );
  const [xs, ys] = [corners.map(([u]) => u), corners.map(([, v]) => v)];
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  return { x: x + x0, y: y + y0, width: Math.max(...xs) - x0, height: Math.max(...ys) - y0 };
}

/** Returns the boxes of all text among marks. */
export const textBoxes = (marks: readonly Mark[]): Rect[] => marks.flatMap((mark) => ('text' in mark ? [textBox(mark)] : [])); // prettier-ignore
