import type { MarkGround } from './inks';
import type { Rect } from './labels';
import type { Mark } from './marks';

/**
 * Marks that belong together: where their own pixels begin, and outside of what nothing of them is
 * seen.
 */
export interface Layer {
  readonly marks: readonly Mark[];
  readonly x: number;
  readonly y: number;
  readonly clip: Rect;
  /** The surface under the marks. */
  readonly ground: MarkGround;
}
