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
