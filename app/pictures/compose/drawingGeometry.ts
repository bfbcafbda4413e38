import type { Vec2, Vec3 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import type { PictureView } from './contract';
import { cutPoint, drawnFar, type DrawingName } from './drawings';
import { niceBelow } from '../../../core/math/nice';

/* Places in Plan and Section: points, the frustum's cut, the scale bar. */

/**
 * Where in a drawing a point of the world lies, in its pixels: an orthographic picture has a place
 * for each.
 */
export const placeIn =
  (view: PictureView) =>
  (p: Vec3): Vec2 =>
    view.point(p) ?? [0, 0];

/** How many world units a pixel of an orthographic picture is. */
export const unitsPerPixel = ({ frame: { extents }, size }: PictureView): number =>
  (extents.top - extents.bottom) / size.height;

/** Returns the scale bar of a drawing: a round length, its width in pixels, and where the bar begins. */
export function scaleBarOf(view: PictureView, unitName: string): { unit: number; width: number; left: number } {
  const perPixel = unitsPerPixel(view);
  const unit = niceBelow(perPixel * 18);
  const width = unit / perPixel;
  // The bar's last figure and the unit behind it end before the edge.
  const figures = String(Number((5 * unit).toPrecision(12))).length * 3.5 + (unitName.length + 1) * 7;
  return { unit, width, left: view.size.width - Math.max(34, figures + 8) - 5 * width };
}

/**
 * The four corners of the frustum's cut by the drawing's plane through the axis: near and far, on
 * either side.
 */
export function cutOf(name: DrawingName, moment: Moment) {
  const { frame } = moment;
  const { extents: e } = frame;
  const far = drawnFar(moment);
  const corner = (ahead: number, side: 0 | 1): Vec3 =>
    name === 'plan'
      ? cutPoint(frame, ahead, [e.left, e.right][side]!, 0)
      : cutPoint(frame, ahead, 0, [e.bottom, e.top][side]!);
  return {
    far,
    near0: corner(frame.near, 0),
    near1: corner(frame.near, 1),
    far0: corner(far, 0),
    far1: corner(far, 1),
  };
}
