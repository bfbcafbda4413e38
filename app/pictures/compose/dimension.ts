import { degrees, radians } from '../../../core/math/angle';
import type { Vec2 } from '../../../core/math/vec3';
import type { InkRole } from './inks';
import { overlap, type Rect } from './labels';
import { n2, open, type Mark, type Text } from './marks';
import { textBox } from './textBoxes';

/** Where along a dimension line its figure may be, the best first. */
const places = [0.5, 0.38, 0.62, 0.26, 0.74];

interface DimensionOptions {
  /** Where along the line its figure is, 0…1; the first free place if left out. */
  readonly at?: number;
  readonly ink?: InkRole;
  /** Rectangles where no figure may be. */
  readonly taken?: readonly Rect[];
}

/** Returns a dimension line with slender arrowheads, and its figure along it where it is long enough. */
export function dimensionMarks(
  a: Vec2,
  b: Vec2,
  label: string,
  { at, ink = 'figure', taken = [] }: DimensionOptions = {},
): Mark[] {
  // prettier-ignore
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = Math.hypot(dx, dy);
  if (long < 16) return [];
  const [ux, uy] = [dx / long, dy / long];
  const head = (p: Vec2, s: number) =>
    `M${n2(p[0])} ${n2(p[1])}L${n2(p[0] + s * ux * 7 - uy * 1.7)} ${n2(p[1] + s * uy * 7 + ux * 1.7)}L${n2(p[0] + s * ux * 7 + uy * 1.7)} ${n2(p[1] + s * uy * 7 - ux * 1.7)}Z`;
  const marks: Mark[] = [
    { ink: 'dimension', d: open([a, b]) },
    { ink: 'dimension-head', d: head(a, 1) + head(b, -1) },
  ];
  if (long <= label.length * 7 + 18) return marks;
  let angle = degrees(Math.atan2(dy, dx));
  if (angle > 90 || angle <= -90) angle += 180;
  const turn = radians(angle);
  // Four pixels above its line.
  const figureAt = (share: number): Text => ({
    ...{ ink, text: label, turn: angle, anchor: 'middle' },
    ...{ x: a[0] + dx * share + Math.sin(turn) * 4, y: a[1] + dy * share - Math.cos(turn) * 4 },
  });
  const figures = (at === undefined ? places : [at]).map(figureAt);
  const free = figures.find((one) => !taken.some((box) => overlap(box, textBox(one))));
  return [...marks, free ?? figures[0]!];
}
