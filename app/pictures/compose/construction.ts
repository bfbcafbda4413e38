import { cameraHandleBoxes } from './handlePoints';
import { placeIn, unitsPerPixel, cutOf } from './drawingGeometry';
import { degrees } from '../../../core/math/angle';
import type { CameraFrame } from '../../../core/camera/frame';
import { fieldOfView } from '../../../core/camera/projection';
import { letterOf } from '../../../core/conventions/axes';
import { addScaled, dot, sub, type Vec2, type Vec3 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import { angleText } from '../../ui/angles';
import { figure } from '../../ui/figures';
import type { PictureView, Word } from './contract';
import { cutPoint, headingOf, type DrawingName } from './drawings';
import type { Rect, Spot } from './labels';
import { dimensionMarks } from './dimension';
import { closed, n2, open, probeMarks, type Mark } from './marks';

/**
 * Returns the frustum in a drawing with its axis and field of view, and the distance of the probe.
 *
 * @param taken - rectangles where no figure may be
 */
export function constructionOf(
  view: PictureView,
  moment: Moment,
  taken: readonly Rect[],
): { marks: Mark[]; words: Word[] } {
  const name = view.name as DrawingName;
  const at = placeIn(view);
  const { frame, chain, codec: e } = moment;
  const cut = cutOf(name, moment);
  const [n0, n1, f0, f1] = [at(cut.near0), at(cut.near1), at(cut.far0), at(cut.far1)];
  const eye = at(frame.eye);
  const axisEnd = at(addScaled(frame.eye, frame.forward, cut.far * 1.03));
  const perspective = frame.kind === 'perspective';
  const infinite = frame.far === null;
  const size = name === 'plan' ? frame.extents.right - frame.extents.left : frame.extents.top - frame.extents.bottom;
  const field = perspective ? fieldOfView(size, frame.near) : null;
  // The arc of the field of view, as long as the drawing has room for.
  const reach = Math.hypot(f0[0] - eye[0], f0[1] - eye[1]);
  const radius = Math.min(46, reach * 0.4);
  const onArc = (p: Vec2): Vec2 => {
    const d = Math.hypot(p[0] - eye[0], p[1] - eye[1]) || 1;
    return [eye[0] + ((p[0] - eye[0]) / d) * radius, eye[1] + ((p[1] - eye[1]) / d) * radius];
  };
  const [a0, a1] = [onArc(f0), onArc(f1)];
  const middle: Vec2 = [(a0[0] + a1[0]) / 2, (a0[1] + a1[1]) / 2];
  const outward = Math.hypot(middle[0] - eye[0], middle[1] - eye[1]) || 1;
  const way: Vec2 = [(middle[0] - eye[0]) / outward, (middle[1] - eye[1]) / outward];
  const sweep = (a0[0] - eye[0]) * (a1[1] - eye[1]) - (a0[1] - eye[1]) * (a1[0] - eye[0]) > 0 ? 1 : 0;
  const probe = chain.ok ? chain.value.world : null;
  const marks: Mark[] = [{ ink: 'frustum-fill', d: closed([n0, f0, f1, n1]) }];
  if (perspective) marks.push({ ink: 'frustum-ray', d: `${open([eye, n0])}${open([eye, n1])}` });
  marks.push(
    { ink: 'frustum-line', d: infinite ? open([f0, n0, n1, f1]) : closed([n0, f0, f1, n1]) },
    { ink: 'gaze-axis', d: open([eye, axisEnd]) },
  );
  const words: Word[] = [];
  if (field !== null && radius > 18) {
    const arc = `A${n2(radius)} ${n2(radius)} 0 0 ${sweep} ${n2(a1[0])} ${n2(a1[1])}`;
    marks.push({ ink: 'dimension', d: `M${n2(a0[0])} ${n2(a0[1])}${arc}` });
    // Beyond the arc along the axis; where other text is, farther on, else to a side of it.
    const spots = [14, 28, 42, 56].flatMap((along) =>
      [0, -34, 34].map((side): Spot => ({
        ...{ dx: way[0] * along - way[1] * side, dy: way[1] * along + way[0] * side, anchor: 'middle' },
      })),
    );
    const order = spots.sort(
      (p, q) => Math.abs(p.dx * way[1] - p.dy * way[0]) - Math.abs(q.dx * way[1] - q.dy * way[0]),
    );
    words.push({ text: angleText(e, field), at: middle, ink: 'figure', priority: 3, spots: order });
  }
  if (probe) marks.push(...probeDistance(view, probe, moment, taken));
  marks.push({
    ink: 'eye',
    x: eye[0],
    y: eye[1],
    turn: degrees(Math.atan2(axisEnd[1] - eye[1], axisEnd[0] - eye[0])) + 90,
    d: 'M0 -5.5L4 4H-4Z',
  });
  if (probe) marks.push(...probeMarks(at(probe), 5.5));
  return { marks, words };
}

/**
 * Plan: the level distance along the heading. Section: the distance ahead along the gaze. Each
 * clear of the frustum's axis on the probe's side.
 */
function probeDistance(view: PictureView, probe: Vec3, { frame }: Moment, taken: readonly Rect[]): Mark[] {
  const at = placeIn(view);
  const perPixel = unitsPerPixel(view);
  const d = sub(probe, frame.eye);
  const { heading, right } = headingOf(frame);
  const plan = view.name === 'plan';
  const [along, across] = plan ? [heading, right] : [frame.forward, frame.up];
  const [length, off] = [dot(d, along), dot(d, across)];
  const sight: Mark = { ink: 'sight-line', d: open([at(frame.eye), at(probe)]) };
  if (length <= 0) return [sight];
  const side = plan ? (off < 0 ? -1 : 1) : -1;
  const clear = plan ? off + side * 34 * perPixel : Math.min(off, 0) - 62 * perPixel;
  const point = (a: number, b: number) => at(addScaled(addScaled(frame.eye, along, a), across, b));
  const past = clear + side * 4 * perPixel;
  return [
    sight,
    {
      ink: 'extension',
      d: `${open([point(0, side * 5 * perPixel), point(0, past)])}${open([point(length, off + side * 8 * perPixel), point(length, past)])}`,
    },
    ...dimensionMarks(point(0, clear), point(length, clear), `${figure(length, 2)} ${plan ? 'level' : 'ahead'}`, {
      ink: plan ? 'figure' : 'figure-water',
      taken,
    }),
  ];
}

/**
 * What is named in a drawing: the probe first, then the eye and the limits; and what room is taken.
 */
export function namesOf(view: PictureView, moment: Moment): { words: Word[]; taken: Rect[]; marks: Mark[] } {
  const { frame, chain, project, codec: e } = moment;
  const name = view.name as DrawingName;
  const at = placeIn(view);
  const { size } = view;
  const cut = cutOf(name, moment);
  const words: Word[] = [];
  const taken: Rect[] = cameraHandleBoxes(view, moment);
  if (chain.ok) {
    const p = at(chain.value.world);
    taken.push({ x: p[0] - 9, y: p[1] - 9, width: 18, height: 18 });
    const label = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point';
    words.push({ text: label, at: p, ink: 'name-strong', priority: 0 });
  }
  const eye = at(frame.eye);
  taken.push({ x: eye[0] - 6, y: eye[1] - 6, width: 12, height: 12 });
  const beside: Spot[] = [
    { dx: 10, dy: 8, anchor: 'start' },
    { dx: -10, dy: 8, anchor: 'end' },
    { dx: 0, dy: -14, anchor: 'middle' },
    { dx: 0, dy: 18, anchor: 'middle' },
  ];
  words.push({ text: 'eye', at: eye, ink: 'note', priority: 5, spots: beside });
  const short = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  const ofNear: Spot[] = [
    { dx: 8, dy: -6, anchor: 'start' },
    { dx: 8, dy: 10, anchor: 'start' },
    { dx: -8, dy: -6, anchor: 'end' },
    { dx: 0, dy: 16, anchor: 'middle' },
  ];
  words.push({
    ...{ text: `near ${short(frame.near)}`, at: at(cut.near1), ink: 'figure-brass', priority: 20, spots: ofNear },
  });
  const farMiddle: Vec2 = [(at(cut.far0)[0] + at(cut.far1)[0]) / 2, (at(cut.far0)[1] + at(cut.far1)[1]) / 2];
  const inward: Spot[] = [
    { dx: -8, dy: -14, anchor: 'end' },
    { dx: 0, dy: 14, anchor: 'middle' },
    { dx: -8, dy: 14, anchor: 'end' },
    { dx: 8, dy: 14, anchor: 'start' },
  ];
  const far = frame.far === null ? 'no far limit' : `far ${short(frame.far)}`;
  words.push({ text: far, at: farMiddle, ink: 'figure-brass', priority: 21, spots: inward });
  const { ground } = project;
  if (name !== 'section' || !ground) return { words, taken, marks: [] };
  const level = at([frame.eye[0], ground.height, frame.eye[2]])[1];
  words.push({
    text: `${letterOf(e.conventions.world.up)} = ${short(e.toHeight(ground.height))}`,
    at: [size.width - 44, level],
    ...{ ink: 'figure-muted', priority: 22 },
    spots: [
      { dx: 36, dy: 10, anchor: 'end' },
      { dx: 36, dy: -10, anchor: 'end' },
    ],
  });
  return { words, taken, marks: [{ ink: 'horizon', d: `M0 ${n2(level)}H${size.width}` }] };
}

/**
 * The frustum of a camera seen from anywhere: its edges to the far limit, its near plane, its gaze.
 */
export function frustumFrom(view: PictureView, frame: CameraFrame, far: number): Mark[] {
  const { extents: e, near } = frame;
  const corners = (ahead: number): Vec3[] =>
    (
      [
        [e.left, e.bottom],
        [e.right, e.bottom],
        [e.right, e.top],
        [e.left, e.top],
      ] as const
    ).map(([r, u]) => cutPoint(frame, ahead, r, u));
  const [n, f] = [corners(near), corners(far)];
  const sides = n.map((p, i) => view.line([p, f[i]!])).join('');
  const rays = frame.kind === 'perspective' ? n.map((p) => view.line([frame.eye, p])).join('') : '';
  const marks: Mark[] = [
    { ink: 'frustum-line', d: view.line(n, true) + sides + (frame.far === null ? '' : view.line(f, true)) },
    { ink: 'gaze-axis', d: view.line([frame.eye, addScaled(frame.eye, frame.forward, far)]) },
  ];
  if (rays) marks.push({ ink: 'frustum-ray', d: rays });
  return marks.filter((mark) => 'd' in mark && mark.d);
}
