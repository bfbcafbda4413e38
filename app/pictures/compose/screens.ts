import { onScreen, type ScreenFit } from '../../../core/camera/fit';
import { reframed, type CameraFrame } from '../../../core/camera/frame';
import type { Size } from './contract';

/** The unit that whole multiples keep whole: pixels per world unit of a 2D frame, 1 in 3D. */
export const wholeZoomOf = (
  { extents: e, viewport }: Pick<CameraFrame, 'extents' | 'viewport'>,
  flat: boolean,
): number => (flat ? viewport.height / (e.top - e.bottom) : 1);

/**
 * The camera's frame on another screen, by a policy; its viewport leaves out the bars. Null for a
 * screen too thin for doubles.
 */
export function screenFrame(frame: CameraFrame, fit: ScreenFit, screen: Size, flat: boolean): CameraFrame | null {
  const { viewport, extents } = onScreen(fit, frame.extents, frame.viewport, screen, wholeZoomOf(frame, flat));
  return reframed(frame, extents, viewport);
}

/** Where a screen stands in the tray, in the tray's own pixels. */
interface Placed extends Size {
  readonly x: number;
  readonly y: number;
}

/** The room under a screen for what is said of it, and between neighbours. */
const underScreen = 30;
const between = 10;
/** What is said under a screen has about this much width. */
const leastWidth = 70;

/**
 * Screens side by side at one scale, in as many rows as let them be largest; the scale is tray
 * pixels per screen pixel.
 */
export function layTray(sizes: readonly Size[], room: Size): { scale: number; places: readonly Placed[] } {
  const rowsAt = (scale: number) => {
    const rows: { width: number; height: number; items: number[] }[] = [];
    sizes.forEach((size, i) => {
      const width = Math.max(leastWidth, size.width * scale);
      const height = size.height * scale;
      const last = rows.at(-1);
      if (last && last.width + between + width <= room.width) {
        last.width += between + width;
        last.height = Math.max(last.height, height);
        last.items.push(i);
      } else rows.push({ width, height, items: [i] });
    });
    return rows;
  };
  const fits = (scale: number) => {
    const rows = rowsAt(scale);
    const height = rows.reduce((sum, row) => sum + row.height + underScreen, 0);
    return height <= room.height && rows.every((row) => row.width <= room.width);
  };
  let [low, high] = [1e-4, Math.max(1e-3, ...sizes.map((size) => room.width / size.width))];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  const places: Placed[] = [];
  let y = 0;
  for (const row of rowsAt(low)) {
    let x = (room.width - row.width) / 2;
    for (const i of row.items) {
      const size = sizes[i]!;
      const [width, height] = [size.width * low, size.height * low];
      const wide = Math.max(leastWidth, width);
      places[i] = { x: x + (wide - width) / 2, y: y + row.height - height, width, height };
      x += wide + between;
    }
    y += row.height + underScreen;
  }
  return { scale: low, places };
}
