import { checksum } from '../../state/checksum';
import type { Moment } from '../../state/moment';
import type { PlacedBody } from '../../../core/bodies/body';
import type { Vec2 } from '../../../core/math/vec3';
import { preparedElsewhere } from '../../../core/pick/pick';
import { lookedAt, type LookedAtBy } from '../../../core/pick/sceneTree';
import { bodiesOf } from '../../state/bodyList';
import { remembered } from '../../state/memo';
import type { PickState } from './kept';

/** What the sweep of a picture has found, coarse or whole. */
export interface Sweep {
  readonly mark: number;
  readonly width: number;
  readonly height: number;
  /** Which body of the project; −1 for none. */
  readonly body: Int16Array;
  readonly distance: Float32Array;
  /** In 127ths. */
  readonly normal: Int8Array;
  /** Where the painted picture shows another body: 1 at a silhouette, 2 off one; empty in a coarse one. */
  readonly where: Uint8Array;
  readonly differing: number;
  readonly offSilhouette: number;
  readonly hits: number;
  readonly milliseconds: number;
}

/** How many boxes and surfaces every pixel's ray looks at. */
export interface LookedAt {
  readonly mark: number;
  readonly width: number;
  readonly height: number;
  readonly boxes: Uint16Array;
  readonly mean: number;
  readonly most: number;
  readonly surfaces: number;
}

/** What the ray of the sheet looks at, in a scene whose tree takes too long to make on the page. */
export interface RayTested extends LookedAtBy {
  readonly mark: number;
  readonly at: Vec2;
  readonly all: boolean;
}

/** Whether a scene has so many triangles that its tree is made off the page. */
export const isLarge = remembered(
  (placed: readonly PlacedBody[]): boolean =>
    placed.reduce((sum, { body: { shape } }) => sum + (shape.kind === 'mesh' ? shape.indices.length / 3 : 12), 0) >
    largeFrom,
);
const largeFrom = 5 * preparedElsewhere;

/** What the sheet's ray looks at; null while that is being counted. */
export function testedNow(now: Moment<PickState>, at: Vec2): LookedAtBy | null {
  const placed = bodiesOf(now);
  const { slice, frame } = now;
  if (!isLarge(placed)) return lookedAt(placed, frame, at, slice.backFaces, slice.all);
  const found = now.answer<RayTested>('tested');
  const same =
    found?.mark === sweptMark(now) && found.at[0] === at[0] && found.at[1] === at[1] && found.all === slice.all;
  return same ? found : null;
}

/** Which picture a sweep is of: the same number on any thread, another for another picture. */
export function sweptMark({ frame, poses, slice }: Moment<PickState>): number {
  const { width, height } = frame.viewport;
  return checksum(frame.view, frame.projection, [width, height, slice.backFaces ? 1 : 0], poses.values);
}

/** The finest sweep of the picture as it is now; one that is older while there is none. */
export function sweepNow(now: Moment<PickState>): { readonly sweep: Sweep; readonly fresh: boolean } | null {
  const mark = sweptMark(now);
  const [whole, coarse] = [now.answer<Sweep>('whole'), now.answer<Sweep>('coarse')];
  const fresh = whole?.mark === mark ? whole : coarse?.mark === mark ? coarse : null;
  if (fresh) return { sweep: fresh, fresh: true };
  const last = whole ?? coarse;
  return last ? { sweep: last, fresh: false } : null;
}

/** What rays look at, of the picture as it is now. */
export function lookedAtNow(now: Moment<PickState>): LookedAt | null {
  const found = now.answer<LookedAt>('boxes');
  return found?.mark === sweptMark(now) ? found : null;
}
