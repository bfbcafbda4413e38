import { pictureToPixel } from '../../../core/convert/project';
import { tintByte, type Marks, type Word } from '../../pictures/contract';
import { bodyRectangles } from '../../pictures/bodyRectangles';
import { n2, type Mark } from '../../pictures/marks';
import { seenNow, shownVerdict, type Seen } from './seen';
import type { VisibilityState } from './state';

interface Derived {
  readonly seen: readonly Seen[];
}

/** A verdict as a shape: filled disc, half-filled disc, open ring. */
const glyph = (verdict: 'inside' | 'crosses' | 'outside', [x, y]: readonly [number, number]): Mark[] => {
  const ring: Mark = { ink: verdict, x, y, d: 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z' };
  return [ring];
};

/** What Visibility adds to the pictures: every body in the tint of its verdict, and its shape beside it. */
export const marks: Marks<VisibilityState, Derived> = {
  derive: (now) => ({ seen: seenNow(now) }),

  standing(view, now, { seen }, { selected }) {
    if (view.name.startsWith('screen')) return {};
    const marks: Mark[] = [];
    const words: Word[] = [];
    const { slice, placed, roots, frame } = now;
    if (view.name !== 'camera' && seen.length <= 400)
      // In the drawings a shape stands where each body does that is no part of another.
      for (const one of seen) {
        if (roots.get(one.id) !== one.id) continue;
        const m = placed.get(one.id)!.toWorld;
        const at = view.point([m[3]!, m[7]!, m[11]!]);
        if (at) marks.push(...glyph(shownVerdict(slice, one), at));
      }
    if (view.name === 'camera') {
      marks.push(...bodyRectangles(view, now, selected));
      if (slice.margin) {
        const { width, height } = frame.viewport;
        const [a, b] = [pictureToPixel(frame, -1, 1), pictureToPixel(frame, 1, -1)];
        const by = slice.margin * view.scale;
        const [x, y] = [(Math.min(a[0], b[0]) - frame.viewport.x) * view.scale - by, (Math.min(a[1], b[1]) - frame.viewport.y) * view.scale - by]; // prettier-ignore
        const [w, h] = [width * view.scale + 2 * by, height * view.scale + 2 * by];
        if (w > 0 && h > 0) marks.push({ ink: 'region-edge', d: `M${n2(x)} ${n2(y)}h${n2(w)}v${n2(h)}h${n2(-w)}Z` });
      }
    }
    return { marks, words };
  },

  tints: ({ slice }, { seen }) =>
    Uint8Array.from(seen, (one) =>
      tintByte(slice.method === 'planes' && one.falseAlarm ? 'fault' : shownVerdict(slice, one)),
    ),
};
