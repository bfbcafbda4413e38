import { addScaled, type Vec3 } from '../../../core/math/vec3';
import type { PictureView } from './contract';
import type { Mark } from './marks';

/** A line of the world with an arrowhead at its end, where the end is in the picture. */
export function arrow(view: PictureView, a: Vec3, b: Vec3, ink: Mark['ink'] = 'ray'): Mark[] {
  const marks: Mark[] = [{ ink, d: view.line([a, b]) }];
  const end = view.point(b);
  const before = view.point(addScaled(b, [a[0] - b[0], a[1] - b[1], a[2] - b[2]], 0.02));
  if (end && before && ink === 'ray') {
    const turn = (Math.atan2(end[1] - before[1], end[0] - before[0]) * 180) / Math.PI;
    marks.push({ ink: 'ray-head', d: 'M0 0L-9 -3.2V3.2Z', x: end[0], y: end[1], turn });
  }
  return marks;
}
