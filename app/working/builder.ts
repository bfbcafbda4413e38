import type { CameraFrame } from '../../core/camera/frame';
import type { Moment } from '../state/moment';
import type { Line, Typesetter } from './tex';

/** Workings by the names that a sheet asks for. */
export type WorkingTable = Readonly<Record<string, WorkingBuilder>>;

/**
 * What a working is of, where the project alone does not say: a body, another node's space, an
 * axis, a pointer on the page.
 */
export interface Subject {
  readonly body?: string;
  /** Null is the world. */
  readonly node?: string | null;
  readonly axis?: 0 | 1;
  readonly client?: readonly [number, number];
}

export type Facts = Pick<Moment, 'frame' | 'codec' | 'chain' | 'project' | 'placed' | 'roots' | 'flat'>;
export type WorkingBuilder = (facts: Facts, t: Typesetter, subject: Subject) => Line[];

export const letters = ['x', 'y', 'z', 'w'] as const;

export const four = (p: readonly number[], t: Typesetter, from: string): string =>
  t.vector([...p.map((v) => t.number(v, from)), '1']);

/**
 * Pixels that a length of the near plane (in orthographic, of the world) takes, across and upward.
 */
export function scaleLines({ extents: x, viewport: v, near, kind }: CameraFrame, f: number, t: Typesetter): Line[] {
  const line = (id: string, name: string, size: number, low: number, high: number): Line => ({
    ...{ id, says: id === 'line-kx' ? 'Pixels per unit, across and upward' : '', name },
    formula:
      t.fraction(t.number(size, 'viewport'), `${t.number(high, 'lens')}-${t.term(low, 'lens')}`) +
      (kind === 'perspective' ? `\\cdot ${t.fraction(t.number(near, 'near'), t.number(f, 'probe'))}` : ''),
    result: [(size / (high - low)) * (kind === 'perspective' ? near / f : 1)],
  });
  return [line('line-kx', 'k_x', v.width, x.left, x.right), line('line-ky', 'k_y', v.height, x.bottom, x.top)];
}
