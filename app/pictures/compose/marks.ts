import { degrees, radians } from '../../../core/math/angle';
import type { Vec2 } from '../../../core/math/vec3';
import type { InkRole } from './inks';

/** The class of a role in the page. */
export const inkClass = (ink: InkRole): string => `ink-${ink}`;

export const n2 = (v: number): string => String(Math.round(v * 100) / 100);
export const open = (points: readonly Vec2[]): string =>
  points.length ? `M${points.map((p) => `${n2(p[0])} ${n2(p[1])}`).join('L')}` : '';
export const closed = (points: readonly Vec2[]): string => (points.length ? `${open(points)}Z` : '');

/** What is drawn over a picture, as data: set as SVG and painted on a canvas from the same list. */
export type Mark = Stroke | Text;

interface Place {
  readonly ink: InkRole;
  readonly x?: number;
  readonly y?: number;
  /** Degrees, clockwise on the page. */
  readonly turn?: number;
}
export interface Stroke extends Place {
  /** In the path syntax of SVG. */
  readonly d: string;
}
export interface Text extends Place {
  readonly text: string;
  readonly anchor?: 'start' | 'middle' | 'end';
}

/**
 * The probe in every view: a lozenge with four ticks, a centre point and a keyline in the ground's
 * colour.
 */
export const probeMarks = ([x, y]: Vec2, r: number): Mark[] => [
  { ink: 'probe-halo', x, y, d: `M0 ${-r}L${r} 0 0 ${r} ${-r} 0Z` },
  {
    ink: 'probe-line',
    x,
    y,
    d: `M0 ${-r}L${r} 0 0 ${r} ${-r} 0ZM0 ${-r}v${-r * 0.8}M0 ${r}v${r * 0.8}M${-r} 0h${-r * 0.8}M${r} 0h${r * 0.8}`,
  },
  { ink: 'probe-dot', x, y, d: 'M-1.25 -1.25h2.5v2.5h-2.5Z' },
];

/** A dimension line with slender arrowheads and its figure along it. */
export function dimensionMarks(
  a: Vec2,
  b: Vec2,
  label: string,
  { at = 0.5, ink = 'figure' }: { at?: number; ink?: InkRole } = {},
): Mark[] {
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
  const [x, y] = [a[0] + dx * at + Math.sin(turn) * 4, a[1] + dy * at - Math.cos(turn) * 4];
  return [...marks, { ink, x, y, turn: angle, text: label, anchor: 'middle' }];
}
