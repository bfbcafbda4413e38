import { paintOrder, type PaintedUnit } from '../../../core/order/paint';
import { drawOrder, type SortKey } from '../../../core/order/drawOrder';
import type { CameraFrame } from '../../../core/camera/frame';
import type { BodyPainting } from '../../pictures/compose/contract';
import { checksum } from '../../state/checksum';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { leftOutOf, sortKeyOf, trianglesOf } from './followed';
import type { OrderState } from './kept';

/* How the camera's picture is painted, and by which order. */

/** Which picture a painting is of: the same number on page and painter, another for another picture. */
export function paintedMark(now: Moment<OrderState>): number {
  const { frame, poses, slice, project } = now;
  const rule = [['depth', 'bodies', 'faces'].indexOf(slice.paint), ['ahead', 'distance', 'screenHeight', 'worldUp', 'layer'].indexOf(slice.key), project.bodyOrder === 'feet' ? 1 : 0]; // prettier-ignore
  const { width, height } = frame.viewport;
  return checksum(frame.view, frame.projection, [width, height], poses.values, rule, leftOutOf(now) ?? []);
}

const paintOrderOf = memo(
  (frame: CameraFrame, placed: Moment['placed'], flat: boolean, key: SortKey, unit: PaintedUnit): Int32Array =>
    paintOrder(frame, [...placed.values()], trianglesOf({ placed, flat }), key, unit),
);

let lastRevision = 0;
const paintingMade = memo((leftOut: Uint8Array | null, order: Int32Array | null): BodyPainting => ({
  ...{ revision: ++lastRevision, leftOut, order },
}));

/** How the bodies of the camera's picture are painted; null for as always. */
export function paintingNow(now: Moment<OrderState>): BodyPainting | null {
  const { slice, frame, placed, flat } = now;
  const leftOut = leftOutOf(now);
  const order = slice.paint === 'depth' ? null : paintOrderOf(frame, placed, flat, sortKeyOf(slice.key), slice.paint);
  return leftOut || order ? paintingMade(leftOut, order) : null;
}

const ordered = memo((frame: CameraFrame, placed: Moment['placed'], key: SortKey) =>
  drawOrder(frame, [...placed.values()], key),
);
/** The order of the bodies by the key that is set, and the pairs that it gets otherwise than the distance ahead. */
export const orderNow = ({ slice, frame, placed }: Moment<OrderState>) => ordered(frame, placed, sortKeyOf(slice.key));
