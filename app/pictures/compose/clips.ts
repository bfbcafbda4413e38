import type { Moment } from '../../state/moment';
import type { PictureView } from './contract';
import type { MarkGround } from './inks';
import type { Rect } from './labels';
import type { Mark } from './marks';
import { rulerX, rulerY } from './slots';

/* Where the marks of a picture are cut off, and the surface under them. */

/** Marks that are cut off together: at the picture, or with the rulers round it. */
export interface StandingLayer {
  readonly marks: readonly Mark[];
  readonly within: 'picture' | 'rulers';
}

export const inside = ({ width, height }: PictureView['size'], by: number): Rect => ({
  ...{ x: by, y: by, width: width - 2 * by, height: height - 2 * by },
});

/** Returns a picture's area with the rulers round it, in the picture's pixels. */
export const rulersAround = ({ width, height }: PictureView['size']): Rect => ({
  ...{ x: -rulerX, y: -rulerY, width: width + 2 * rulerX, height: height + 2 * rulerY },
});

/** Where marks of a picture are cut off, in its own pixels. */
export function clipOf({ name, size: { width, height } }: PictureView, within: StandingLayer['within']): Rect {
  if (within === 'rulers') return name === 'camera' ? rulersAround({ width, height }) : { x: 0, y: 0, width, height };
  return name === 'camera' ? { x: 0, y: 0, width, height } : inside({ width, height }, 1);
}

/** Returns the surface under the marks of a picture. */
export const groundOf = (
  { name }: Pick<PictureView, 'name'>,
  { flat, project }: Pick<Moment, 'flat' | 'project'>,
): MarkGround => ((name === 'plan' && project.ground) || (name === 'world' && flat) ? 'water' : 'plate');
