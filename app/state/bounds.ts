import {
  pictureBounds,
  pictureContacts,
  seenAt,
  type PictureBounds,
  type PictureContacts,
} from '../../core/visibility/visibility';
import type { PlacedBody } from '../../core/bodies/body';
import { answer, noAnswer, type Answer } from '../../core/reasons';
import type { Moment } from './moment';

/** How far inside the border a marker for something off the picture stands, in CSS pixels. */
export const markerInset = 18;

type Family = Pick<Moment, 'frame' | 'placed' | 'roots' | 'flat'>;

/** What is asked of each part of a body that has a shape, and how many there are. */
function ofParts<T>({ placed, roots }: Family, root: string, ask: (part: PlacedBody) => Answer<T>) {
  const all = [...placed.values()]
    .filter(({ body }) => roots.get(body.id) === root && body.shape.kind !== 'point')
    .map(ask);
  const found = all.flatMap((one) => (one.ok ? [one.value] : []));
  // A part that lies wholly before near is cut off too.
  return { found, cut: found.length < all.length };
}

/**
 * The rectangle in the picture of a body with all its parts (positions −1…1), or why it has none.
 */
export function familyBounds(family: Family, root: string): Answer<PictureBounds> {
  const { found, cut } = ofParts(family, root, (part) => pictureBounds(family.frame, part, family.flat));
  if (!found.length) return noAnswer('behindEye');
  const least = (i: 0 | 1) => found.reduce((least, one) => Math.min(least, one.min[i]), Infinity);
  const most = (i: 0 | 1) => found.reduce((most, one) => Math.max(most, one.max[i]), -Infinity);
  return answer({
    min: [least(0), least(1)],
    max: [most(0), most(1)],
    clipped: cut || found.some(({ clipped }) => clipped),
  });
}

/** Where that rectangle is reached, to each side. */
export function familyContacts(family: Family, root: string): Answer<PictureContacts> {
  const { frame, flat } = family;
  const { found, cut } = ofParts(family, root, (part) => pictureContacts(frame, part, flat));
  if (!found.length) return noAnswer('behindEye');
  const farthest = (side: 'left' | 'right' | 'bottom' | 'top', sign: 1 | -1) =>
    found.map((one) => one[side]).reduce((a, b) => (sign * seenAt(frame, b) > sign * seenAt(frame, a) ? b : a));
  return answer({
    left: farthest('left', -1),
    right: farthest('right', 1),
    bottom: farthest('bottom', -1),
    top: farthest('top', 1),
    clipped: cut || found.some(({ clipped }) => clipped),
  });
}
