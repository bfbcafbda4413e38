import type { CameraFrame } from '../../core/camera/frame';
import { fieldOfView } from '../../core/camera/projection';
import { worldToPixel } from '../../core/convert/project';
import { letterOf } from '../../core/conventions/axes';
import { addScaled, dot, sub, type Vec2, type Vec3 } from '../../core/math/vec3';
import type { Situation } from '../state/situation';
import { figure } from '../ui/figures';
import {
  cutPoint,
  drawnFar,
  headingOf,
  planFrame,
  sectionFrame,
  type DrawingName,
  type DrawingView,
  type Size,
} from './drawings';
import { around, place, textWidth, type Label, type Rect, type Spot } from './labels';
import { closed, dimensionMarks, n2, open, probeMarks, type Mark } from './marks';

/* What is drawn over Plan and Section: the frustum with its dimensions, and the names. */

interface Shared {
  readonly drawing: CameraFrame;
  readonly size: Size;
  readonly view: DrawingView;
  readonly at: (p: Vec3) => Vec2;
}

/** A drawing of a situation: its frame, and where in it a point of the world lies. */
export function sharedOf(name: DrawingName, size: Size, view: DrawingView, { frame, extent }: Situation): Shared {
  const drawing = name === 'plan' ? planFrame(view, size, extent) : sectionFrame(view, size, frame, extent);
  return { drawing, size, view, at: placeIn(drawing) };
}

/** Where in a drawing a point of the world lies, in its pixels. */
export const placeIn =
  (drawing: CameraFrame) =>
  (p: Vec3): Vec2 => {
    const pixel = worldToPixel(drawing, p);
    return pixel.ok ? pixel.value : [0, 0];
  };

/** The classes that a drawing's marks are inked by: others over water. */
export const inkedIn = (name: DrawingName, { flat, project }: Situation): string =>
  name === 'plan' && (flat || project.ground) ? 'on-water' : '';

/** What of a drawing its marks may cover: all within its border. */
export const drawingClip = ({ width, height }: Size): Rect => ({ x: 1, y: 1, width: width - 2, height: height - 2 });

/** Everything that is drawn over Plan or Section. */
export function drawingMarks(name: DrawingName, size: Size, view: DrawingView, situation: Situation): Mark[] {
  const shared = sharedOf(name, size, view, situation);
  return [...constructionOf(name, shared, situation), ...namesOf(name, shared, situation)];
}

/** The four corners of the frustum's cut by the drawing's plane through the axis: near and far, on either side. */
export function cutOf(name: DrawingName, situation: Situation) {
  const { frame } = situation;
  const { extents: e } = frame;
  const far = drawnFar(situation);
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

/** The frustum in a drawing, its axis and angle, and how far the probe is. */
function constructionOf(name: DrawingName, shared: Shared, situation: Situation): Mark[] {
  const { at } = shared;
  const { frame, chain, expression: e } = situation;
  const cut = cutOf(name, situation);
  const [n0, n1, f0, f1] = [at(cut.near0), at(cut.near1), at(cut.far0), at(cut.far1)];
  const eye = at(frame.eye);
  const axisEnd = at(addScaled(frame.eye, frame.forward, cut.far * 1.03));
  const perspective = frame.kind === 'perspective';
  const infinite = frame.far === null;
  const size = name === 'plan' ? frame.extents.right - frame.extents.left : frame.extents.top - frame.extents.bottom;
  const field = perspective ? e.toAngle(fieldOfView(size, frame.near)) : null;
  const degrees = e.conventions.angles.unit === 'degrees';
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
  const arcText: Vec2 = [
    middle[0] + ((middle[0] - eye[0]) / outward) * 14,
    middle[1] + ((middle[1] - eye[1]) / outward) * 14,
  ];
  const sweep = (a0[0] - eye[0]) * (a1[1] - eye[1]) - (a0[1] - eye[1]) * (a1[0] - eye[0]) > 0 ? 1 : 0;
  const probe = chain.ok ? chain.value.world : null;
  const marks: Mark[] = [{ className: 'fru', d: closed([n0, f0, f1, n1]) }];
  if (perspective) marks.push({ className: 'fruv', d: `${open([eye, n0])}${open([eye, n1])}` });
  marks.push(
    { className: 'frul', d: infinite ? open([f0, n0, n1, f1]) : closed([n0, f0, f1, n1]) },
    { className: 'axis-line', d: open([eye, axisEnd]) },
  );
  if (field !== null && radius > 18)
    marks.push(
      {
        className: 'dl',
        d: `M${n2(a0[0])} ${n2(a0[1])}A${n2(radius)} ${n2(radius)} 0 0 ${sweep} ${n2(a1[0])} ${n2(a1[1])}`,
      },
      {
        className: 'nm halo',
        x: arcText[0],
        y: arcText[1] + 4,
        anchor: 'middle',
        text: `${figure(field, degrees ? 2 : 4)}${degrees ? '°' : ''}`,
      },
    );
  if (probe) marks.push(...probeDistance(name, probe, shared, situation));
  marks.push({
    className: 'eye-mark',
    x: eye[0],
    y: eye[1],
    turn: (Math.atan2(axisEnd[1] - eye[1], axisEnd[0] - eye[0]) * 180) / Math.PI + 90,
    d: 'M0 -5.5L4 4H-4Z',
  });
  return probe ? [...marks, ...probeMarks(at(probe), 5.5)] : marks;
}

/** Plan: the level distance along the heading. Section: the distance ahead along the gaze. Each clear of the frustum's axis on the probe's side. */
function probeDistance(name: DrawingName, probe: Vec3, { at, view }: Shared, { frame }: Situation): Mark[] {
  const d = sub(probe, frame.eye);
  const { heading, right } = headingOf(frame);
  const plan = name === 'plan';
  const [along, across] = plan ? [heading, right] : [frame.forward, frame.up];
  const [length, off] = [dot(d, along), dot(d, across)];
  const sight: Mark = { className: 'sightl', d: open([at(frame.eye), at(probe)]) };
  if (length <= 0) return [sight];
  const side = plan ? (off < 0 ? -1 : 1) : -1;
  const clear = plan ? off + side * 34 * view.unitsPerPixel : Math.min(off, 0) - 62 * view.unitsPerPixel;
  const point = (a: number, b: number) => at(addScaled(addScaled(frame.eye, along, a), across, b));
  const past = clear + side * 4 * view.unitsPerPixel;
  return [
    sight,
    {
      className: 'ext',
      d: `${open([point(0, side * 5 * view.unitsPerPixel), point(0, past)])}${open([point(length, off + side * 8 * view.unitsPerPixel), point(length, past)])}`,
    },
    ...dimensionMarks(point(0, clear), point(length, clear), `${figure(length, 2)} ${plan ? 'level' : 'ahead'}`, {
      className: plan ? '' : 'on-water',
    }),
  ];
}

interface Word extends Label {
  readonly text: string;
  readonly className: string;
}

/** What is named in a drawing: the probe first, then the eye and the limits. */
function namesOf(name: DrawingName, { at, size }: Shared, situation: Situation): Mark[] {
  const { frame, chain, project, expression: e } = situation;
  const cut = cutOf(name, situation);
  const words: Word[] = [];
  const word = (key: string, text: string, p: Vec2, className: string, spots: readonly Spot[] = around, mono = false) =>
    words.push({ key, text, x: p[0], y: p[1], className, spots, width: textWidth(text, mono) });
  const taken: Rect[] = [];
  if (chain.ok) {
    const p = at(chain.value.world);
    taken.push({ x: p[0] - 9, y: p[1] - 9, width: 18, height: 18 });
    const label = project.bodies.find(({ id }) => id === project.probe.body)?.name ?? 'Free point';
    word('probe', label, p, 'lb b6 halo');
  }
  const eye = at(frame.eye);
  taken.push({ x: eye[0] - 6, y: eye[1] - 6, width: 12, height: 12 });
  const beside: Spot[] = [
    { dx: 10, dy: 8, anchor: 'start' },
    { dx: -10, dy: 8, anchor: 'end' },
    { dx: 0, dy: -14, anchor: 'middle' },
    { dx: 0, dy: 18, anchor: 'middle' },
  ];
  word('eye', 'eye', eye, 'se halo', beside);
  const short = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  word(
    'near',
    `near ${short(frame.near)}`,
    at(cut.near1),
    'nm bt halo',
    [
      { dx: 8, dy: -6, anchor: 'start' },
      { dx: 8, dy: 10, anchor: 'start' },
      { dx: -8, dy: -6, anchor: 'end' },
      { dx: 0, dy: 16, anchor: 'middle' },
    ],
    true,
  );
  const farMiddle: Vec2 = [(at(cut.far0)[0] + at(cut.far1)[0]) / 2, (at(cut.far0)[1] + at(cut.far1)[1]) / 2];
  const inward: Spot[] = [
    { dx: -8, dy: -14, anchor: 'end' },
    { dx: 0, dy: 14, anchor: 'middle' },
    { dx: -8, dy: 14, anchor: 'end' },
    { dx: 8, dy: 14, anchor: 'start' },
  ];
  word('far', frame.far === null ? 'no far limit' : `far ${short(frame.far)}`, farMiddle, 'nm bt halo', inward, true);
  const ground = project.ground;
  if (name === 'section' && ground) {
    const up = e.conventions.world.up;
    const level = at([frame.eye[0], ground.height, frame.eye[2]])[1];
    word(
      'ground',
      `${letterOf(up)} = ${short(e.toHeight(ground.height))}`,
      [size.width - 44, level],
      'nm m2 halo',
      [
        { dx: 36, dy: 10, anchor: 'end' },
        { dx: 36, dy: -10, anchor: 'end' },
      ],
      true,
    );
  }
  const { placed } = place(words, { x: 3, y: 3, width: size.width - 6, height: size.height - 6 }, taken);
  const named = placed.map(({ label, at: { x, y }, spot }): Mark => ({
    className: label.className,
    x,
    y,
    anchor: spot.anchor,
    text: label.text,
  }));
  if (name !== 'section' || !ground) return named;
  const level = at([frame.eye[0], ground.height, frame.eye[2]])[1];
  return [{ className: 'horz', d: `M0 ${n2(level)}H${size.width}` }, ...named];
}
