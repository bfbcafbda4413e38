import type { Vec2 } from '../../core/math/vec3';
import type { Mark } from '../pictures/marks';
import type { Situation } from '../state/situation';
import { convertOverlay } from './convert/overlay';

/** What a task adds to the camera's picture, in pixels of the picture; `scale` is how many of them a pixel of the viewport is. */
export interface Overlay {
  /** What stands there. */
  standing(situation: Situation, sight: { readonly scale: number; readonly selected: readonly string[] }): Mark[];
  /** What goes with the pointer, at `css` in pixels of the viewport. */
  withPointer?(
    situation: Situation,
    sight: { readonly scale: number; readonly css: Vec2; readonly folds: Readonly<Record<string, boolean>> },
  ): Mark[];
}

/** By the task's route. Apart from the table of tasks because it is drawn off the page, where no interface goes. */
export const overlays: Readonly<Record<string, Overlay>> = { convert: convertOverlay };
