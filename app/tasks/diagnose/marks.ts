import { reframed } from '../../../core/camera/frame';
import { pictureToPixel, worldToPixel } from '../../../core/convert/project';
import type { Vec2 } from '../../../core/math/vec3';
import type { Drawn, Marks, PictureView, Size, Word } from '../../pictures/compose/contract';
import { cutPoint, pictureCorners } from '../../pictures/compose/drawings';
import { n2, type Mark } from '../../pictures/compose/marks';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { engineEdges, engineOf, type EngineSees } from './engine';
import { engine2dOf } from './engine2d';
import type { DiagnoseState } from './kept';

type Derived = EngineSees | null;
type Parts = Required<Pick<Drawn, 'marks' | 'words'>>;
const nothing: Parts = { marks: [], words: [] };

/** A segment cut at the picture's edges, with room about it; null where nothing of it is inside. */
function cut([ax, ay]: Vec2, [bx, by]: Vec2, { width, height }: Size): readonly [Vec2, Vec2] | null {
  let [from, to] = [0, 1];
  const [dx, dy] = [bx - ax, by - ay];
  for (const [p, q] of [[-dx, ax], [dx, width - ax], [-dy, ay], [dy, height - ay]] as const) {
    if (p === 0) {
      if (q < 0) return null;
    } else if (p < 0) from = Math.max(from, q / p);
    else to = Math.min(to, q / p);
  }
  return from < to ? [[ax + dx * from, ay + dy * from], [ax + dx * to, ay + dy * to]] : null;
} // prettier-ignore

/** The engine's picture over the right one: its creases, dashed, and streaks from where the given points belong. */
function overPicture(view: PictureView, now: Moment<DiagnoseState>, engine: EngineSees): Parts {
  const { frame, scale, size } = view;
  const place = ([x, y]: Vec2): Vec2 => [(x - frame.viewport.x) * scale, (y - frame.viewport.y) * scale];
  const marks: Mark[] = [];
  const words: Word[] = [];
  if (engine.whole) {
    const edges = engineEdges(engine.whole, frame, now.placed);
    let d = '';
    for (let i = 0; i < edges.length; i += 4) {
      const seen = cut(place([edges[i]!, edges[i + 1]!]), place([edges[i + 2]!, edges[i + 3]!]), size);
      if (seen) d += `M${n2(seen[0][0])} ${n2(seen[0][1])}L${n2(seen[1][0])} ${n2(seen[1][1])}`;
    }
    if (d) marks.push({ ink: 'engine-way', d });
  }
  const { codec: e } = now;
  for (const { world, screen } of engine.points.slice(0, 200)) {
    const right = worldToPixel(frame, e.fromWorld(world));
    const given = place(pictureToPixel(frame, ...e.fromScreen(frame.viewport, screen)));
    const at = right.ok ? place(right.value) : null;
    const inside = ([x, y]: Vec2) => x >= 0 && y >= 0 && x <= size.width && y <= size.height;
    const streak = at && cut(at, given, size);
    if (streak) marks.push({ ink: 'fault', d: `M${n2(streak[0][0])} ${n2(streak[0][1])}L${n2(streak[1][0])} ${n2(streak[1][1])}` }); // prettier-ignore
    if (inside(given)) marks.push({ ink: 'engine-pointer', x: given[0], y: given[1], d: 'M-4 -4L4 4M-4 4L4 -4' });
    if (at && inside(given)) words.push({ text: `${figure(Math.hypot(at[0] - given[0], at[1] - given[1]) / scale, 1)} px`, at: given, ink: 'figure', priority: 8, mono: true }); // prettier-ignore
  }
  return { marks, words };
}

/** The engine's camera from outside: its eye and what it sees, where its numbers are a camera's. */
function engineCamera(view: PictureView, now: Moment<DiagnoseState>, { frame }: EngineSees): Parts {
  if (!frame) return nothing;
  const { radius } = now.sceneBounds;
  const reach = Math.max(frame.near * 2, Math.min(frame.far ?? Infinity, radius / 3));
  const corners = pictureCorners(frame, reach);
  const middle = cutPoint(frame, reach, (frame.extents.left + frame.extents.right) / 2, (frame.extents.bottom + frame.extents.top) / 2); // prettier-ignore
  const perspective = frame.kind === 'perspective';
  const d = view.line(corners, true) + (perspective ? corners.map((p) => view.line([frame.eye, p])).join('') : '') + view.line([frame.eye, middle]); // prettier-ignore
  const eye = view.point(frame.eye);
  return {
    marks: [...(d ? [{ ink: 'engine-way' as const, d }] : []), ...(eye ? [{ ink: 'engine-pointer' as const, x: eye[0], y: eye[1], d: 'M0 -4L4 4H-4Z' }] : [])], // prettier-ignore
    words: eye ? [{ text: 'as the engine has it', at: eye, ink: 'note', priority: 7 }] : [],
  };
}

/** What Diagnose adds to the pictures. */
export const marks: Marks<DiagnoseState, Derived> = {
  derive: (now) => (now.flat ? engine2dOf(now) : engineOf(now)),

  standing(view, now, engine) {
    if (!engine || view.name.startsWith('screen') || view.name.startsWith('diagnose')) return {};
    if (view.name !== 'camera') return engineCamera(view, now, engine);
    return now.slice.over ? overPicture(view, now, engine) : {};
  },

  pictures: [
    {
      ...{ name: 'engine', title: 'As the engine sees', world: 'space' },
      frame: (_now, engine, size) => {
        if (!engine?.frame) return null;
        const { frame } = engine;
        // The whole of the engine's picture, whatever the pane is like.
        const wide = frame.viewport.width / frame.viewport.height;
        const own = size.width / Math.max(1, size.height);
        const { extents: x } = frame;
        const [cx, cy] = [(x.left + x.right) / 2, (x.bottom + x.top) / 2];
        const [w, h] = [((x.right - x.left) / 2) * Math.max(1, own / wide), ((x.top - x.bottom) / 2) * Math.max(1, wide / own)];
        return reframed(frame, { left: cx - w, right: cx + w, bottom: cy - h, top: cy + h }, { x: 0, y: 0, width: Math.max(1, size.width), height: Math.max(1, size.height) });
      },
    },
  ],
}; // prettier-ignore
