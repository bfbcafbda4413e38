import { pictureToPixel } from '../../../core/convert/project';
import { transformPoint } from '../../../core/math/mat4';
import type { Vec3 } from '../../../core/math/vec3';
import { tintByte, type Marks, type PictureView, type Word } from '../../pictures/compose/contract';
import { bodyRectangles } from '../../pictures/compose/bodyRectangles';
import { n2, type Mark } from '../../pictures/compose/marks';
import { fieldLayer } from './field';
import { seenNow, shownVerdict, type Seen } from './seen';
import type { TestField, VisibilityState } from './kept';

/** With more bodies than this the tints alone say it: shapes would cover one another. */
const mostShapes = 400;

interface Derived {
  readonly seen: readonly Seen[];
}

/** A verdict as a shape: filled disc, half-filled disc, open ring. */
function glyph(verdict: 'inside' | 'crosses' | 'outside', [x, y]: readonly [number, number]): Mark[] {
  const disc = 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z';
  if (verdict !== 'crosses') return [{ ink: verdict, x, y, d: disc }];
  return [
    { ink: 'path-key', x, y, d: disc },
    { ink: 'crosses', x, y, d: 'M0 -4a4 4 0 0 0 0 8Z' },
  ];
}

/** The box that holds the test bodies, by its edges. */
function boxEdges(view: PictureView, { min, max }: TestField): Mark[] {
  const corner = (i: number): Vec3 => [i & 1 ? max[0] : min[0], i & 2 ? max[1] : min[1], i & 4 ? max[2] : min[2]];
  const d = [0, 1, 2, 3, 4, 5, 6, 7]
    .flatMap((i) => [1, 2, 4].flatMap((bit) => (i & bit ? [] : [view.line([corner(i), corner(i | bit)])])))
    .join('');
  return d ? [{ ink: 'region-edge', d }] : [];
}

/** What Visibility adds to the pictures: every body in the tint of its verdict, and its shape beside it. */
export const marks: Marks<VisibilityState, Derived> = {
  derive: (now) => ({ seen: seenNow(now) }),

  standing(view, now, { seen }, { selected }) {
    if (view.name.startsWith('screen')) return {};
    const marks: Mark[] = [];
    const words: Word[] = [];
    const { slice, placed, roots, frame, project } = now;
    const layer = fieldLayer(now);
    if (layer) marks.push(...boxEdges(view, slice.field!));
    if (seen.length <= mostShapes)
      // A shape stands at what names each body that is no part of another.
      seen.forEach((one, i) => {
        if (roots.get(one.id) !== one.id) return;
        const at = view.point(transformPoint(placed.get(one.id)!.toWorld, project.bodies[i]!.handle));
        const inside = at && at[0] > 0 && at[1] > 0 && at[0] < view.size.width && at[1] < view.size.height;
        if (inside) marks.push(...glyph(shownVerdict(slice, one), at));
      });
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
    return { marks, words, layers: layer ? [layer] : [] };
  },

  tints: ({ slice }, { seen }) =>
    Uint8Array.from(seen, (one) =>
      tintByte(slice.method === 'planes' && one.falseAlarm ? 'fault' : shownVerdict(slice, one)),
    ),
};
