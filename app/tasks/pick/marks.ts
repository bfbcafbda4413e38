import { pictureToPixel, pixelToPicture } from '../../../core/convert/project';
import { addScaled, type Vec2 } from '../../../core/math/vec3';
import type { Drawn, Marks, PictureView, Word } from '../../pictures/compose/contract';
import { arrow } from '../../pictures/compose/arrow';
import { n2, type Mark } from '../../pictures/compose/marks';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { aimAt, benchOf, fallOf, lookThrough, pixelNow, type Looked } from './rays';
import type { PickState } from './kept';

type Parts = Required<Pick<Drawn, 'marks' | 'words'>>;

/** A reticle at a place of the camera's picture: ring and cross in CSS pixels. */
const reticle = ([x, y]: Vec2, ink: Mark['ink']): Mark => ({
  ...{ ink, x, y, d: 'M-9 0a9 9 0 1 0 18 0a9 9 0 1 0 -18 0M-13 0h7M6 0h7M0 -13v7M0 6v7' },
});

/** A ray from its beginning to what it meets, with the normals of its hits. */
function rayIn(view: PictureView, { ray, hits, end }: Looked, size: number): Mark[] {
  const marks = view.name === 'camera' ? [] : arrow(view, ray.origin, end);
  for (const { point, normal } of hits) {
    marks.push({ ink: 'region-edge', d: view.line([point, addScaled(point, normal, size)]) });
    const at = view.point(point);
    if (at) marks.push({ ink: 'path-key', x: at[0], y: at[1], d: 'M0 -3.4L3.4 0 0 3.4 -3.4 0Z' });
  }
  return marks;
}

/** How long a normal is drawn in the world. */
const normalLength = ({ sceneBounds }: Moment<PickState>): number => sceneBounds.radius / 24;

/** The place of a picture position in the camera's own picture. */
const placeOf = ({ frame, scale }: PictureView, [a, u]: Vec2): Vec2 => {
  const [x, y] = pictureToPixel(frame, a, u);
  return [(x - frame.viewport.x) * scale, (y - frame.viewport.y) * scale];
};

function rayParts(view: PictureView, now: Moment<PickState>, at: Vec2): Parts {
  const looked = lookThrough(now, at);
  const marks = now.flat ? [] : rayIn(view, looked, normalLength(now));
  const words: Word[] = [];
  if (view.name === 'camera') marks.push(reticle(placeOf(view, at), 'ray'));
  const place = view.point(looked.end);
  if (place && looked.hits.length && !now.flat)
    words.push({ text: `${figure(looked.range, 2)} along the ray`, at: place, ink: 'note', priority: 6 });
  return { marks, words };
}

/** The second reticle: where the picture shows what the chosen fault's ray comes to, joined to the first. */
function faultParts(view: PictureView, now: Moment<PickState>, at: Vec2): Parts {
  const { slice, frame } = now;
  if (!slice.fault) return { marks: [], words: [] };
  const looked = lookThrough(now, at);
  const pixel = pictureToPixel(frame, ...at);
  const row = benchOf(now, looked, pixel).find(({ fault }) => fault === slice.fault);
  if (!row) return { marks: [], words: [] };
  if (view.name !== 'camera')
    return { marks: now.flat ? [] : arrow(view, row.ray.origin, row.point, 'second-reticle'), words: [] };
  if (!row.shown.ok) return { marks: [], words: [] };
  const first = placeOf(view, at);
  const second = placeOf(view, pixelToPicture(frame, row.shown.value));
  return {
    marks: [
      { ink: 'second-reticle', d: `M${n2(first[0])} ${n2(first[1])}L${n2(second[0])} ${n2(second[1])}` },
      reticle(second, 'second-reticle'),
    ],
    words: [
      {
        ...{ text: `${figure(Math.hypot(...row.error!), 1)} px off`, at: second, ink: 'figure', priority: 3 },
        mono: true,
      },
    ],
  };
}

/** The muzzle, its line to the target, and where it lands when it fires along the gaze instead. */
function aimParts(view: PictureView, now: Moment<PickState>, at: Vec2): Parts {
  if (now.flat) return { marks: [], words: [] };
  const { slice } = now;
  const aim = aimAt(now, at);
  const muzzle = view.point(slice.muzzle);
  const marks: Mark[] = [];
  const words: Word[] = [];
  if (muzzle) {
    marks.push({ ink: 'path-key', x: muzzle[0], y: muzzle[1], d: 'M-6 -3.5H4V3.5H-6ZM4 -1.6H9V1.6H4Z' });
    words.push({ text: 'Muzzle', at: muzzle, ink: 'name', priority: 7 });
  }
  const end = aim.hit && aim.blockedBy ? aim.hit.point : aim.target;
  marks.push({ ink: 'path', d: view.line([slice.muzzle, end]) });
  if (aim.blockedBy) {
    const stopped = view.point(end);
    marks.push({ ink: 'fault', d: view.line([end, aim.target]) });
    if (stopped) {
      marks.push({ ink: 'fault', x: stopped[0], y: stopped[1], d: 'M-5 -5L5 5M-5 5L5 -5' });
      words.push({ text: 'blocked', at: stopped, ink: 'error-note', priority: 4 });
    }
  }
  if (slice.alongGaze) {
    const fall = fallOf(now, lookThrough(now, at), aim);
    const landed = view.point(fall.point);
    marks.push({ ink: 'second-reticle', d: view.line([slice.muzzle, fall.point]) });
    if (landed) {
      marks.push({
        ink: 'second-reticle',
        x: landed[0],
        y: landed[1],
        d: 'M-6 0a6 6 0 1 0 12 0a6 6 0 1 0 -12 0M-2 0h4M0 -2v4',
      });
      words.push({ text: `along the gaze, ${figure(fall.off, 1)} off`, at: landed, ink: 'note', priority: 5 });
    }
  }
  return { marks, words };
}

/** What Pick adds to the pictures. */
export const marks: Marks<PickState> = {
  derive: () => undefined,

  standing(view, now) {
    if (view.name.startsWith('screen')) return {};
    const { slice } = now;
    // Under the pointer the ray goes with it; what is aimed at stands where the view's middle looks.
    const at = slice.at === 'pointer' ? ([0, 0] as Vec2) : pixelNow(now);
    const parts = [
      ...(slice.at === 'pointer' ? [] : [rayParts(view, now, at), faultParts(view, now, at)]),
      aimParts(view, now, at),
    ];
    return { marks: parts.flatMap((one) => one.marks), words: parts.flatMap((one) => one.words) };
  },

  underPointer(view, css, now) {
    if (now.slice.at !== 'pointer') return [];
    const at = pixelToPicture(now.frame, css);
    return [...rayParts(view, now, at).marks, ...faultParts(view, now, at).marks];
  },
};
