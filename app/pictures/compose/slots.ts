import type { Size } from './contract';
import type { PaneName } from './panes';

/** The chrome round the picture: ruler fields left and right, top and bottom. */
export const rulerX = 44;
export const rulerY = 26;

export const caption = 24;
const gap = 6;
/** Below this height the panes are beside the plate, in pixels. */
const shortHeight = 330;
const pad = 8;

/**
 * Where a picture stands, in CSS pixels from the corner of the centre; the caption stands above
 * what is drawn.
 */
export interface Slot extends Size {
  readonly x: number;
  readonly y: number;
}

export interface Slots {
  readonly main: Slot | null;
  /** A snapshot beside the camera's picture. */
  readonly beside: Slot | null;
  readonly panes: readonly { readonly name: PaneName; readonly slot: Slot }[];
  /** The full-width row: the time rule, a task's charts. */
  readonly strip: Slot | null;
}

/** The camera's picture within its slot, its rulers left out. */
export const plateSize = ({ width, height }: Slot): Size => ({
  width: width - 2 * rulerX,
  height: height - 2 * rulerY,
});

interface Wanted {
  readonly aspect: number;
  /** What is shown alone, if anything. */
  readonly enlarged: 'main' | PaneName | null;
  readonly panes: readonly PaneName[];
  /** The height of the full-width row; 0 without one. */
  readonly strip: number;
  /** The aspect of a snapshot that stands beside the camera's picture. */
  readonly beside: number | null;
}

/**
 * Where the pictures stand in the centre. The plate keeps the viewport's aspect; the row of panes
 * takes the rest.
 */
export function layOut(size: Size, { aspect, enlarged, panes, strip, beside }: Wanted): Slots {
  const [w, h] = [size.width - 2 * pad, size.height - 2 * pad - (strip ? strip + gap : 0)];
  const below: Slot | null = strip ? { x: pad, y: pad + h + gap, width: w, height: strip } : null;
  /** Plates side by side, all of one height. */
  const plates = (height: number, aspects: readonly number[]): Slot[] => {
    const room = (w - (aspects.length - 1) * gap) / aspects.length;
    const high = Math.max(
      40,
      Math.min(height - caption - 2 * rulerY, ...aspects.map((one) => (room - 2 * rulerX) / one)),
    );
    const widths = aspects.map((one) => high * one + 2 * rulerX);
    const all = widths.reduce((sum, one) => sum + one, 0) + (aspects.length - 1) * gap;
    let x = pad + (w - all) / 2;
    return widths.map((width) => {
      // On whole pixels, where the page would put it anyway: what is painted lies over what is set.
      const slot = { x: Math.round(x), y: pad, width, height: high + 2 * rulerY };
      x += width + gap;
      return slot;
    });
  };
  const aspects = beside === null ? [aspect] : [aspect, beside];
  /** In a short window: the plates on the left, the panes on the right of them. */
  function besideEachOther(): Slots {
    const isWide = w > 700;
    const shown = isWide ? panes : panes.slice(0, 1);
    const [left, other = null] = plates(h, aspects);
    const last = other ?? left!;
    const shift = left!.x - pad;
    const x = last.x - shift + last.width + gap;
    const width = Math.floor((pad + w - x - (shown.length - 1) * pad) / shown.length);
    if (width < 100) return { main: left!, beside: other, panes: [], strip: below };
    return {
      main: { ...left!, x: pad },
      beside: other && { ...other, x: other.x - shift },
      panes: shown.map((name, i) => ({ name, slot: { x: x + i * (width + pad), y: pad, width, height: h - caption } })),
      strip: below,
    };
  }
  if (enlarged === 'main') {
    const [main, other = null] = plates(h, aspects);
    return { main: main!, beside: other, panes: [], strip: below };
  }
  const whole: Slot = { x: pad, y: pad, width: w, height: h - caption };
  if (enlarged !== null) return { main: null, beside: null, panes: [{ name: enlarged, slot: whole }], strip: below };
  if (h < shortHeight && w > 2 * h) return besideEachOther();
  const least = Math.max(150, h * 0.3);
  const [main, other = null] = plates(h - least - caption - gap, aspects);
  const y = Math.round(pad + caption + main!.height + gap);
  const width = Math.floor((w - (panes.length - 1) * pad) / panes.length);
  const height = Math.max(60, pad + h - y - caption);
  return {
    main: main!,
    beside: other,
    panes: panes.map((name, i) => ({ name, slot: { x: pad + i * (width + pad), y, width, height } })),
    strip: below,
  };
}
