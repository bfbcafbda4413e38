import { pictureToPixel } from '../../../core/convert/project';
import { familyBounds } from '../../state/bounds';
import type { Moment } from '../../state/moment';
import type { PictureView } from './contract';
import { n2, type Mark } from './marks';

/** The bounding rectangles of bodies with their parts in the camera's picture; of those that have any. */
export function bodyRectangles({ frame, scale }: PictureView, now: Moment<unknown>, ids: readonly string[]): Mark[] {
  return ids.flatMap((id): Mark[] => {
    const bounds = familyBounds(now, id);
    if (!bounds.ok) return [];
    const { min, max } = bounds.value;
    const [a, b] = [pictureToPixel(frame, min[0], max[1]), pictureToPixel(frame, max[0], min[1])];
    const [width, height] = [(b[0] - a[0]) * scale, (b[1] - a[1]) * scale];
    const d = `M${n2(a[0] * scale)} ${n2(a[1] * scale)}h${n2(width)}v${n2(height)}h${n2(-width)}Z`;
    return [{ ink: 'body-rectangle', d }];
  });
}
