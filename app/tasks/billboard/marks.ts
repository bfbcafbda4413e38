import { tiltOf } from '../../../core/billboard/billboard';
import { worldUp } from '../../../core/camera/orientation';
import { degrees } from '../../../core/math/angle';
import { addScaled, sub, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { arrow } from '../../pictures/compose/arrow';
import { mapLines } from '../../pictures/compose/contourLines';
import type { Drawn, GpuLayer, Marks, PictureView, Tint, Word } from '../../pictures/compose/contract';
import { frameTriangles, letterTriangles, sheetTriangles } from '../../pictures/compose/lettering';
import { n2, type Mark } from '../../pictures/compose/marks';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { chosenOf, closeFrame, cornersOf, differencesNow, drawnNow, flatNow, placeOf, type DrawnBoard } from './boards';
import type { BillboardState } from './kept';
import { modeWords } from './words';

interface Derived {
  readonly boards: readonly DrawnBoard[];
  readonly layers: readonly GpuLayer[];
}

type Parts = Required<Pick<Drawn, 'marks' | 'words'>>;
type Placed = Pick<DrawnBoard, 'position' | 'axes' | 'size' | 'board'>;
let revision = 0;

/** Triangles of boards' own planes in the world, about a place. */
function inWorld(
  boards: readonly Placed[],
  of: (one: Placed) => readonly Vec2[],
  origin: Vec3,
  lift = 0,
): Float32Array {
  const values: number[] = [];
  for (const one of boards) {
    const at = sub(addScaled(one.position, one.axes.front, lift), origin);
    for (const [x, y] of of(one)) values.push(...addScaled(addScaled(at, one.axes.along, x), one.axes.up, y));
  }
  return new Float32Array(values);
}

/** Boards as layers: sheets that hide what is behind them, and on both sides of them frames and lettering. */
function layersFor(
  boards: readonly (Placed & { chosen?: boolean; opacity?: number })[],
  origin: Vec3,
  flat: boolean,
): GpuLayer[] {
  const layer = (name: string, some: readonly Placed[], of: (one: Placed) => readonly Vec2[], tint: Tint, more: object): GpuLayer[] =>
    some.length ? [{ key: name, kind: 'triangles', revision: ++revision, positions: inWorld(some, of, origin, flat ? 0.92 : 0), origin, tint, opacity: 1, ...more } as GpuLayer] : []; // prettier-ignore
  // What fades is seen through: a layer for every tenth.
  const shares = [...new Set(boards.map(({ opacity = 1 }) => Math.ceil(opacity * 10)))].sort((a, b) => a - b);
  return shares.flatMap((share) => {
    const some = boards.filter(({ opacity = 1 }) => Math.ceil(opacity * 10) === share);
    const more = share === 10 ? {} : { opacity: share / 10 };
    return [
      ...layer(`sheets ${share}`, some, ({ size }) => sheetTriangles(size), 'sheet', {
        ...more,
        ...(share === 10 && { solid: true }),
      }),
      ...layer(`frames ${share}`, some.filter(({ chosen }) => !chosen), ({ size }) => frameTriangles(size), 'ink', { ...more, onto: true }), // prettier-ignore
      ...layer(`frames of the chosen ${share}`, some.filter(({ chosen }) => chosen), ({ size }) => frameTriangles(size), 'chosen', { ...more, onto: true }), // prettier-ignore
      ...layer(`letters ${share}`, some, ({ size, board }) => letterTriangles(board.text, size), 'ink', { ...more, onto: true }), // prettier-ignore
    ];
  });
}

const derived = memo((now: Moment<BillboardState>): Derived => {
  const { flat, sceneBounds } = now;
  if (flat) {
    const { chosen } = now.slice;
    const boards = flatNow(now).map((one) => ({ ...one, chosen: one.board.id === chosen }));
    return { boards: [], layers: layersFor(boards, [sceneBounds.centre[0], sceneBounds.centre[1], 0], true) };
  }
  const boards = drawnNow(now);
  return {
    boards,
    layers: layersFor(
      boards.filter(({ culled }) => !culled),
      sceneBounds.centre,
      false,
    ),
  };
});

/** A board from outside and from the camera: its normal, its line in plan and section, its outline where it is not drawn. */
function boardMarks(view: PictureView, one: DrawnBoard): Parts {
  const { position, axes, size, chosen, culled, mode } = one;
  const corners = cornersOf({ position, ...axes }, size);
  const marks: Mark[] = [];
  const words: Word[] = [];
  if (view.name === 'plan' || view.name === 'section')
    marks.push({ ink: 'path', d: view.line([addScaled(position, axes.along, -size[0] / 2), addScaled(position, axes.along, size[0] / 2)]) }); // prettier-ignore
  if (culled) marks.push({ ink: 'ghost', d: view.line(corners, true) });
  // From the foot, so that it lies over no letter.
  const foot = addScaled(position, axes.up, -size[1] / 2);
  const tip = addScaled(foot, axes.front, size[1] * 1.3);
  const [a, b] = [view.point(foot), view.point(tip)];
  // Of the others only where it is more than a head.
  const long = a && b ? Math.hypot(b[0] - a[0], b[1] - a[1]) : 0;
  if (chosen || (view.name !== 'camera' && long > 14)) marks.push(...arrow(view, foot, tip));
  if (chosen) {
    const top = view.point(addScaled(position, axes.up, size[1] / 2));
    if (top)
      words.push({
        ...{ text: culled ? `${modeWords[mode].short}, culled` : modeWords[mode].short, at: top, priority: 5 },
        ink: culled ? 'error-note' : 'name',
        // Above it, so that it lies over no letter.
        spots: [-7, -20, -33].map((dy) => ({ dx: 0, dy, anchor: 'middle' as const })),
      });
  }
  return { marks, words };
}

/** How far each board’s upright leans on the screen, as a line from straight up. */
function leanMarks(view: PictureView, now: Moment<BillboardState>): Parts {
  const marks: Mark[] = [];
  const words: Word[] = [];
  for (const board of now.slice.boards) {
    const position = placeOf(now, board);
    const at = position && view.point(position);
    const tilt = position && tiltOf(now.frame, position, worldUp);
    if (!at || !tilt?.ok || at[0] < 0 || at[1] < 0 || at[0] > view.size.width || at[1] > view.size.height) continue;
    const [x, y] = [at[0] + 46 * Math.sin(tilt.value), at[1] - 46 * Math.cos(tilt.value)];
    marks.push({ ink: 'sight-line', d: `M${n2(at[0])} ${n2(at[1])}V${n2(at[1] - 46)}` });
    marks.push({ ink: 'second-reticle', d: `M${n2(at[0])} ${n2(at[1])}L${n2(x)} ${n2(y)}` });
    words.push({
      text: `${figure(Math.round(degrees(tilt.value) * 10) / 10, 1)}°`,
      at: [x, y],
      ink: 'figure',
      priority: 7,
      mono: true,
    });
  }
  return { marks, words };
}

/** What Billboard adds to the pictures. */
export const marks: Marks<BillboardState, Derived> = {
  derive: (now) => derived(now),

  standing(view, now, { boards, layers }, { folds }) {
    if (view.name.startsWith('screen')) return { layers };
    if (view.name.startsWith('billboard/')) {
      // The pane has its own words, so that the copies are told apart.
      const parts = boards.filter(({ chosen }) => chosen).map((one) => boardMarks(view, one));
      return { layers, marks: parts.flatMap((one) => one.marks), words: parts.flatMap((one) => one.words) };
    }
    const parts: Parts[] = boards.map((one) => boardMarks(view, one));
    if (view.name === 'camera' && !now.flat) {
      const map = differencesNow(now);
      if (map) parts.push(mapLines(view, map, (level) => `${figure(degrees(level), degrees(level) < 1 ? 2 : 0)}°`));
      if (folds['billboard-lean']) parts.push(leanMarks(view, now));
    }
    return { layers, marks: parts.flatMap((one) => one.marks), words: parts.flatMap((one) => one.words) };
  },

  pictures: [
    {
      ...{ name: 'close', title: 'The board, close', world: 'space' },
      frame: (now, _, size) => (chosenOf(now.slice) ? closeFrame(now, size) : null),
    },
  ],
};
