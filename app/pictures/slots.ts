import type { Size } from './drawings';

/** The chrome round the picture: ruler fields left and right, top and bottom. */
export const rulerX = 40;
export const rulerY = 26;

export const caption = 24;
const gap = 6;
const pad = 8;

/** Where a picture stands, in CSS pixels from the corner of the centre; the caption stands above what is drawn. */
export interface Slot extends Size {
  readonly x: number;
  readonly y: number;
}

export type Slots = Readonly<Record<'main' | 'plan' | 'section', Slot | null>>;

/** The camera's picture within its slot, its rulers left out. */
export const plateSize = ({ width, height }: Slot): Size => ({
  width: width - 2 * rulerX,
  height: height - 2 * rulerY,
});

/** Where the three pictures stand in the centre. The plate keeps the viewport's aspect; the drawings take the rest. */
export function layOut(size: Size, aspect: number, enlarged: keyof Slots | null): Slots {
  const [w, h] = [size.width - 2 * pad, size.height - 2 * pad];
  const plate = (height: number): Slot => {
    const pictureHeight = Math.max(40, Math.min(height - caption - 2 * rulerY, (w - 2 * rulerX) / aspect));
    const pictureWidth = pictureHeight * aspect;
    return {
      x: pad + (w - pictureWidth - 2 * rulerX) / 2,
      y: pad,
      width: pictureWidth + 2 * rulerX,
      height: pictureHeight + 2 * rulerY,
    };
  };
  if (enlarged === 'main') return { main: plate(h), plan: null, section: null };
  const whole: Slot = { x: pad, y: pad, width: w, height: h - caption };
  if (enlarged === 'plan') return { main: null, plan: whole, section: null };
  if (enlarged === 'section') return { main: null, plan: null, section: whole };
  const least = Math.max(150, h * 0.3);
  const main = plate(h - least - caption - gap);
  const y = pad + caption + main.height + gap;
  const half = (w - pad) / 2;
  const height = Math.max(60, pad + h - y - caption);
  return { main, plan: { x: pad, y, width: half, height }, section: { x: pad + half + pad, y, width: half, height } };
}
