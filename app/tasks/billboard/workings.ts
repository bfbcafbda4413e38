import { modesApart, tiltOf } from '../../../core/billboard/billboard';
import { turnRateAt } from '../../../core/billboard/passing';
import { screenSize } from '../../../core/billboard/size';
import { worldUp } from '../../../core/camera/orientation';
import { worldToViewRuf, pixelsPerUnit } from '../../../core/convert/project';
import { degrees } from '../../../core/math/angle';
import { cross, dot, length, sub, type Vec3 } from '../../../core/math/vec3';
import { taskMoment } from '../../state/slices';
import type { Moment } from '../../state/moment';
import type { WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { Line } from '../../working/tex';
import { chosenOf, itemOf, placeOf } from './boards';
import type { BillboardState } from './kept';

/** The chosen board at its place; null where there is none, and on a flat world. */
function boardIn(facts: unknown) {
  const now = taskMoment<BillboardState>('billboard', facts as Moment);
  const board = chosenOf(now.slice);
  const place = board && placeOf(now, board);
  return board && place && !now.flat ? { now, board, place } : null;
}
const inDegrees = (unit: string): string => (unit === 'degrees' ? '\\cdot \\dfrac{180}{\\pi }' : '');

/** From sine and cosine together, exact for small angles too. */
const apart: WorkingBuilder = (facts, t) => {
  const found = boardIn(facts);
  if (!found) return [];
  const { now, board, place } = found;
  const { frame, codec: e, slice } = now;
  const [a, b] = slice.pair.map((mode) => itemOf(frame, place, board, mode).normal) as [Vec3, Vec3];
  const [n, m] = [e.toWorld(a), e.toWorld(b)];
  const [cosine, sine] = [dot(a, b), length(cross(a, b))];
  return [
    {
      ...{ id: 'line-cos', says: 'The cosine: both normals multiplied', name: 'c' },
      formula: [0, 1, 2].map((i) => `${t.term(n[i]!, 'board')}\\cdot ${t.term(m[i]!, 'board')}`).join('+'),
      result: [cosine],
    },
    {
      ...{ id: 'line-sin', says: 'The sine: the length of their cross product', name: 's' },
      formula: `\\left|${t.vector(n.map((v) => t.number(v, 'board')))}\\times ${t.vector(m.map((v) => t.number(v, 'board')))}\\right|`,
      result: [sine],
    },
    {
      ...{ id: 'line-angle', says: 'The angle between them', name: '\\alpha ' },
      formula: `\\operatorname{atan2}(${t.number(sine, 'line-sin')},${t.number(cosine, 'line-cos')})${inDegrees(e.conventions.angles.unit)}`,
      result: [e.toAngle(modesApart(frame, place, slice.pair, board.axis))],
    },
  ];
};

/** The board's own normal, from the eye or the gaze. */
const facing: WorkingBuilder = (facts, t) => {
  const found = boardIn(facts);
  if (!found) return [];
  const { now, board, place } = found;
  const { frame, codec: e } = now;
  const item = itemOf(frame, place, board);
  const byEye = frame.kind === 'perspective' && (board.mode === 'eyePoint' || board.mode === 'axisEye');
  const way: Vec3 = byEye ? sub(frame.eye, place) : [-frame.forward[0], -frame.forward[1], -frame.forward[2]];
  const [eye, at, w] = [frame.eye, place, way].map((v) => e.toWorld(v)) as [Vec3, Vec3, Vec3];
  const gaze = e.toWorld(frame.forward);
  const lines = [0, 1, 2].map((i): Line => ({
    ...{
      id: `line-w-${i}`,
      says: i ? '' : byEye ? 'From the board to the eye' : 'Against the gaze',
      name: `w_${'xyz'[i]}`,
    },
    formula: byEye ? `${t.number(eye[i]!, 'eye')}-${t.term(at[i]!, 'board')}` : `-${t.term(gaze[i]!, 'gaze')}`,
    result: [w[i]!],
  }));
  if (item.degenerate) return lines;
  const n = e.toWorld(item.normal);
  if (board.mode === 'viewPlane' || board.mode === 'eyePoint') {
    const long = length(way);
    return [
      ...lines,
      ...[0, 1, 2].map((i): Line => ({
        ...{ id: `line-n-${i}`, says: i ? '' : 'The normal, of length 1', name: `n_${'xyz'[i]}` },
        formula: t.fraction(t.number(w[i]!, `line-w-${i}`), t.number(long, `line-w-${i}`)),
        result: [n[i]!],
      })),
    ];
  }
  const axis = e.toWorld(item.up);
  const along = dot(way, item.up);
  const across = length(sub(way, [item.up[0] * along, item.up[1] * along, item.up[2] * along]));
  return [
    ...lines,
    {
      ...{ id: 'line-along', says: 'Of it along the axis', name: 'a' },
      formula: [0, 1, 2].map((i) => `${t.term(w[i]!, `line-w-${i}`)}\\cdot ${t.term(axis[i]!, 'axis')}`).join('+'),
      result: [along],
    },
    ...[0, 1, 2].map((i): Line => ({
      ...{ id: `line-n-${i}`, says: i ? '' : 'The rest, of length 1, is the normal', name: `n_${'xyz'[i]}` },
      formula: t.fraction(
        `${t.number(w[i]!, `line-w-${i}`)}-${t.term(along, 'line-along')}\\cdot ${t.term(axis[i]!, 'axis')}`,
        t.number(across, 'line-along'),
      ),
      result: [n[i]!],
    })),
  ];
};

/** The greatest rate of turn of a passage. */
const passRate: WorkingBuilder = (facts, t) => {
  const { slice, codec: e, flat } = taskMoment<BillboardState>('billboard', facts as Moment);
  if (flat) return [];
  const { offset, speed, height, hold } = slice.pass;
  if (!(offset > 0)) return [];
  const p = { offset, speed, height, hold };
  return [
    {
      ...{ id: 'line-rate', says: 'As the eye is nearest, at t = 0', name: '\\omega ' },
      formula: `${t.fraction(`${t.number(speed, 'pass')}\\cdot ${t.number(offset, 'pass')}`, `${t.number(offset, 'pass')}^2`)}${inDegrees(e.conventions.angles.unit)}`,
      result: [e.toAngle(turnRateAt(p, 0, false))],
    },
    {
      ...{ id: 'line-later', says: 'A tenth of a second later', name: '\\omega _{0.1}' },
      formula: `${t.fraction(`${t.number(speed, 'pass')}\\cdot ${t.number(offset, 'pass')}`, `${t.number(offset, 'pass')}^2+${t.number(speed, 'pass')}^2\\cdot ${t.number(0.1, 'pass')}^2`)}${inDegrees(e.conventions.angles.unit)}`,
      result: [e.toAngle(turnRateAt(p, 0.1, false))],
    },
  ];
};

/** The world height of so many pixels. */
const screenHeight: WorkingBuilder = (facts, t) => {
  const found = boardIn(facts);
  if (!found) return [];
  const { frame, slice } = found.now;
  const size = screenSize(frame, found.place, slice.screen);
  if (!size.ok) return [];
  const { extents: x, near, viewport: v, kind } = frame;
  const kept = Math.max(slice.screen.nearest, Math.min(slice.screen.farthest, worldToViewRuf(frame, found.place)[2]));
  const unit = Math.abs(pixelsPerUnit(frame, kept)[1]);
  const span = `${t.number(Math.max(x.top, x.bottom), 'lens')}-${t.term(Math.min(x.top, x.bottom), 'lens')}`;
  return [
    {
      ...{
        id: 'line-k',
        says: kind === 'perspective' ? 'Pixels of a unit so far ahead' : 'Pixels of a unit',
        name: 'k',
      },
      formula:
        t.fraction(t.number(v.height, 'viewport'), span) +
        (kind === 'perspective' ? `\\cdot ${t.fraction(t.number(near, 'near'), t.number(kept, 'board'))}` : ''),
      result: [unit],
    },
    {
      ...{ id: 'line-h', says: 'The height that takes so many pixels', name: 'h' },
      formula: t.fraction(t.number(slice.screen.pixels, 'screenSize'), t.number(unit, 'line-k')),
      result: [size.value.height],
    },
  ];
};

/** The direction on the screen of what is upright at the board: the derivative of its place along up, times f². */
const lean: WorkingBuilder = (facts, t) => {
  const found = boardIn(facts);
  if (!found) return [];
  const { frame, codec: e } = found.now;
  const tilt = tiltOf(frame, found.place, worldUp);
  if (!tilt.ok) return [];
  const [r, u, f] = worldToViewRuf(frame, found.place);
  const d: Vec3 = [dot(worldUp, frame.right), dot(worldUp, frame.up), dot(worldUp, frame.forward)];
  const { extents: x, viewport: v } = frame;
  const [kx, ky] = [v.width / (x.right - x.left), v.height / (x.top - x.bottom)];
  const perspective = frame.kind === 'perspective';
  const line = (
    id: string,
    says: string,
    name: string,
    at: number,
    along: number,
    k: number,
    size: number,
    high: number,
    low: number,
  ): Line => ({
    ...{ id, says, name },
    formula: `${t.fraction(t.number(size, 'viewport'), `${t.number(high, 'lens')}-${t.term(low, 'lens')}`)}\\cdot ${perspective ? `(${t.number(along, 'gaze')}\\cdot ${t.term(f, 'board')}-${t.term(at, 'board')}\\cdot ${t.term(d[2], 'gaze')})` : t.term(along, 'gaze')}`,
    result: [k * (perspective ? along * f - at * d[2] : along)],
  });
  const a = line(
    'line-across',
    'How its top moves across the screen from its foot',
    'a',
    r,
    d[0],
    kx,
    v.width,
    x.right,
    x.left,
  );
  const b = line('line-upward', 'and up it', 'b', u, d[1], ky, v.height, x.top, x.bottom);
  return [
    a,
    b,
    {
      ...{ id: 'line-tilt', says: 'From straight up, clockwise', name: '\\tau ' },
      formula: `\\operatorname{atan2}(${t.number(a.result[0]!, 'line-across')},${t.number(b.result[0]!, 'line-upward')})${inDegrees(e.conventions.angles.unit)}`,
      result: [e.conventions.angles.unit === 'degrees' ? degrees(tilt.value) : tilt.value],
    },
  ];
};

/** The workings of Billboard, by the names that its sheet asks for. */
export const workings: WorkingTable = { apart, facing, passRate, screenHeight, lean };
