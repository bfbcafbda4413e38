import { basisOfAngles } from '../../../core/camera/orientation';
import { addScaled, type Vec2, type Vec3 } from '../../../core/math/vec3';
import type { Course } from '../../../core/motion/course';
import { followed } from '../../../core/motion/track';
import { layerFocus } from './layers';
import type { Marks, PictureView, Word } from '../../pictures/compose/contract';
import { n2, type Mark } from '../../pictures/compose/marks';
import type { Journey } from '../../state/journey';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { spanOf } from '../../state/span';
import type { Compared } from './job';
import { journeyOf, trackOf } from './journey';
import { wayOf } from './series';
import type { CameraTrack, MotionState } from './kept';
import { subjectAt, subjectOf, type Subject } from './subject';

type Now = Moment<MotionState>;

interface Derived {
  readonly journey: Journey | null;
  readonly track: CameraTrack | null;
  readonly way: readonly Vec3[];
  readonly subject: Subject | null;
  /** The way stepped by the frame, thinned for drawing. */
  readonly stepped: readonly Vec3[];
}

const thinned = memo((found: Compared): readonly Vec3[] => {
  const count = found.times.length;
  const step = Math.max(1, Math.ceil(count / 400));
  const points: Vec3[] = [];
  for (let i = 0; i < count; i += step) {
    const [x, y, z] = found.stepped.subarray(3 * i, 3 * i + 3);
    if (!Number.isNaN(x)) points.push([x!, y!, z!]);
  }
  return points;
});

const derived = memo((now: Now, found: Compared | undefined): Derived => {
  const journey = journeyOf(now);
  return {
    journey,
    track: trackOf(now),
    way: journey ? wayOf(journey, spanOf(now.project)) : [],
    subject: subjectOf(now),
    stepped: journey && found ? thinned(found) : [],
  };
});

/** On a flat world a place over all layers. */
const over = (p: Vec3, flat: boolean): Vec3 => (flat ? [p[0], p[1], 0] : p);

/** The corners of a rectangle of a flat world. */
const corners = ([x0, y0]: Vec2, [x1, y1]: Vec2): Vec3[] => [[x0, y0, 0], [x1, y0, 0], [x1, y1, 0], [x0, y1, 0]]; // prettier-ignore

/** The place that a following camera holds, about which the dead zone lies: in canonical world space. */
export function heldPlace(now: Now, journey: Journey): { readonly middle: Vec3; readonly half: Vec3 } | null {
  const track = trackOf(now);
  if (track?.travel.kind !== 'follow') return null;
  const begin = journey.kind === 'flat' ? journey.motion : journey.motion.travel;
  if (begin?.kind !== 'follow') return null;
  const first = begin.target[0]![1];
  // Bounds, snapping and a shake move the picture, not the place that is held.
  const by = followed(begin.target as Course<Vec3>, begin, now.time);
  return {
    middle: [first[0] + by[0], first[1] + by[1], (first[2] ?? 0) + (by[2] ?? 0)],
    half: track.travel.deadZone,
  };
}

/** A lattice of small crosses that goes with the camera by a factor, so that a layer's motion is seen. */
function layerMark(view: PictureView, now: Now, factor: number): Mark {
  const { frame } = now;
  const { focus, layer } = layerFocus(now, factor);
  const off: Vec2 = [focus[0] - layer[0], focus[1] - layer[1]];
  const wide = Math.abs(frame.extents.right - frame.extents.left);
  const step = 10 ** Math.floor(Math.log10(wide / 4));
  const arm = step / 12;
  const d: string[] = [];
  const from = (i: 0 | 1) => Math.floor((focus[i] - wide - off[i]) / step);
  for (let i = from(0); i * step + off[0] < focus[0] + wide; i++)
    for (let k = from(1); k * step + off[1] < focus[1] + wide; k++) {
      const [x, y] = [i * step + off[0], k * step + off[1]];
      d.push(view.line([[x - arm, y, 0], [x + arm, y, 0]]), view.line([[x, y - arm, 0], [x, y + arm, 0]])); // prettier-ignore
    }
  return { ink: 'path', d: d.join('') };
}

/** What Motion adds to the pictures, and what it does to the camera. */
export const marks: Marks<MotionState, Derived> = {
  derive: (now) => derived(now, now.answer<Compared>('compared')),

  standing(view, now, { journey, track, way, subject, stepped }, look) {
    if (view.name.startsWith('screen') || !track || !journey) return {};
    const marks: Mark[] = [];
    const words: Word[] = [];
    const { flat } = now;
    const own = view.name === 'camera';
    const lozenge = (p: Vec3, text: string | null, priority = 14) => {
      const place = view.point(over(p, flat));
      if (!place) return;
      marks.push({ ink: 'path-key', x: Number(n2(place[0])), y: Number(n2(place[1])), d: 'M0 -4L4 0 0 4 -4 0Z' });
      if (text !== null) words.push({ text, at: place, ink: 'note', priority });
    };
    const { travel } = track;
    if (!own || flat) {
      if (stepped.length > 1) marks.push({ ink: 'fault', d: view.line(stepped.map((p) => over(p, flat))) });
      if (way.length > 1) marks.push({ ink: 'path', d: view.line(way.map((p) => over(p, flat))) });
    }
    if (!own && travel.kind === 'path')
      travel.keys.forEach(({ position, yaw, pitch, roll, time }) => {
        const { forward } = basisOfAngles({ yaw, pitch, roll });
        const far = subject ? Math.max(1, Math.hypot(...subject.middle.map((v, i) => v - position[i]!)) / 6) : 3;
        marks.push({ ink: 'gaze-axis', d: view.line([position, addScaled(position, forward, far)]) });
        lozenge(position, `${Number(time.toFixed(2))} s`);
      });
    if (!own && travel.kind === 'orbit') lozenge(travel.centre, 'centre');
    if (!own && travel.kind === 'dollyZoom') lozenge(travel.target, 'held');
    if (!own && travel.kind === 'blend') lozenge(travel.subject, 'held');
    if (travel.kind === 'follow') {
      if (flat && travel.bounds)
        marks.push({ ink: 'region-edge', d: view.line(corners(travel.bounds.min, travel.bounds.max), true) });
      const held = heldPlace(now, journey);
      if (held) {
        const { middle, half } = held;
        const [r, u, a] = half;
        const ring = (z: number): Vec3[] => [[-r, -u], [r, -u], [r, u], [-r, u]].map(([x, y]) => [middle[0] + x!, middle[1] + y!, flat ? 0 : middle[2] + z]); // prettier-ignore
        if (r > 0 || u > 0 || a > 0) {
          marks.push({ ink: 'second-reticle', d: view.line(ring(-a), true) });
          if (!flat && a > 0) {
            marks.push({ ink: 'second-reticle', d: view.line(ring(a), true) });
            ring(-a).forEach((p, i) => marks.push({ ink: 'second-reticle', d: view.line([p, ring(a)[i]!]) }));
          }
          const place = view.point(over([middle[0] + r, middle[1] + u, middle[2]], flat));
          if (place && own) words.push({ text: 'dead zone', at: place, ink: 'note', priority: 16 });
        }
      }
    }
    // Only while the sheet is about them: they would hide the chart.
    if (flat && own && look.folds['motion-pixels'])
      for (const factor of now.slice.layers) marks.push(layerMark(view, now, factor));
    if (own && subject) {
      const place = view.point(subjectAt(subject, now.time));
      if (place)
        marks.push({ ink: 'second-reticle', x: Number(n2(place[0])), y: Number(n2(place[1])), d: 'M-9 0h6M3 0h6M0 -9v6M0 3v6' }); // prettier-ignore
    }
    return { marks, words };
  },
};
