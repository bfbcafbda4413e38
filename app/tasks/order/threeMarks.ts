import { viewRufToClip } from '../../../core/convert/project';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import type { Size } from '../../pictures/compose/contract';
import { rectangle } from '../../pictures/compose/furniture';
import type { Layer } from '../../pictures/compose/layer';
import { closed, type Mark } from '../../pictures/compose/marks';
import { followedPolygon, threeWays } from './followed';
import type { OrderState } from './kept';

interface Corner {
  readonly name: string;
  /** Across and upward in the picture; null where w is 0. */
  readonly at: Vec2 | null;
  readonly isGhost: boolean;
}

/** Far beyond any panel. */
const farthest = 4000;
const gap = 8;
/** The height of the titles below the panels. */
const titleHeight = 20;

/**
 * Returns the followed polygon in three panels: divided by w uncut, cut at near, cut at the frustum. Null where
 * no polygon is followed, and in 2D, where nothing is behind the eye.
 */
export function threeLayers(now: Moment<OrderState>, size: Size): Layer[] | null {
  const polygon = followedPolygon(now);
  if (now.flat || !polygon) return null;
  const { frame } = now;
  const { near, frustum, unclipped, names } = threeWays(frame, polygon);
  const place = (viewRuf: Vec3): Vec2 => {
    const { x, y, w } = viewRufToClip(frame, viewRuf);
    return [x / w, y / w];
  };
  const cut = (list: typeof near): Corner[] =>
    list.map((one) => ({ name: names.get(one)!, at: place(one.viewRuf), isGhost: false }));
  const panels: readonly { title: string; corners: readonly Corner[]; isFault: boolean }[] = [
    {
      ...{ title: 'Uncut', isFault: unclipped.some(({ ghost }) => ghost) },
      corners: unclipped.map(({ position, ghost }, i) => ({ name: String(i + 1), at: position, isGhost: ghost })),
    },
    { title: 'Near', corners: cut(near), isFault: false },
    { title: 'Frustum', corners: cut(frustum), isFault: false },
  ];
  const room: Size = { width: (size.width - 2 * gap) / 3, height: size.height - titleHeight };
  const { width, height } = frame.viewport;
  // The viewport takes a little more than half of a panel, so that what leaves it is visible.
  const k = Math.min((room.width * 0.6) / width, ((room.height - 14) * 0.6) / height);
  return panels.flatMap(({ title, corners, isFault }, i): Layer[] => {
    const x = i * (room.width + gap);
    const layer = (marks: readonly Mark[], clip: Layer['clip']): Layer => ({ marks, x, y: 0, clip, ground: 'plate' });
    return [
      layer(panelMarks(corners, isFault, [(width * k) / 2, (height * k) / 2], room), { x: 0, y: 0, ...room }),
      layer(
        [
          {
            ...{ ink: isFault ? 'error-note' : 'note-bare-muted', anchor: 'middle' },
            ...{ x: room.width / 2, y: size.height - 5, text: isFault ? `${title}, wrong` : title },
          },
        ],
        { x: 0, y: room.height, width: room.width, height: titleHeight },
      ),
    ];
  });
}

/** Returns one panel: the viewport, and the polygon about it. `half` is half the viewport in pixels. */
function panelMarks(corners: readonly Corner[], isFault: boolean, half: Vec2, room: Size): Mark[] {
  const middle: Vec2 = [room.width / 2, room.height / 2];
  const held = (v: number) => Math.max(-farthest, Math.min(farthest, v));
  const placeOf = ([x, y]: Vec2): Vec2 => [held(middle[0] + x * half[0]), held(middle[1] - y * half[1])];
  const known = corners.flatMap((one) => (one.at ? [{ ...one, place: placeOf(one.at) }] : []));
  const marks: Mark[] = [
    { ink: 'panel-field', d: rectangle(0, 0, room.width, room.height) },
    { ink: 'panel-viewport', d: rectangle(middle[0] - half[0], middle[1] - half[1], 2 * half[0], 2 * half[1]) },
  ];
  if (!known.length)
    return [...marks, { ink: 'note-bare-muted', x: middle[0], y: middle[1], anchor: 'middle', text: 'nothing left' }];
  const outline = closed(known.map(({ place }) => place));
  marks.push({ ink: isFault ? 'fault-fill' : 'region', d: outline }, { ink: isFault ? 'fault' : 'region-edge', d: outline }); // prettier-ignore
  // A corner off the panel is named at its edge, in its direction.
  const inside = ([x, y]: Vec2): Vec2 => {
    const [dx, dy] = [x - middle[0], y - middle[1]];
    const t = Math.min(
      1,
      (middle[0] - 9) / Math.max(1e-9, Math.abs(dx)),
      (middle[1] - 9) / Math.max(1e-9, Math.abs(dy)),
    );
    return [middle[0] + dx * t, middle[1] + dy * t];
  };
  // Names that would touch are written under one another.
  const groups: { at: Vec2; names: string[]; isGhost: boolean }[] = [];
  for (const { name, place, isGhost } of known) {
    const at = inside(place);
    const there = groups.find(
      ({ at: p, names: list }) =>
        Math.abs(p[0] - at[0]) < 6 + 3.6 * (name.length + Math.max(...list.map((one) => one.length))) &&
        Math.abs(p[1] - at[1]) < 2 + 12 * list.length,
    );
    if (there) there.names.push(name);
    else groups.push({ at, names: [name], isGhost });
  }
  for (const { at, names: list, isGhost } of groups) {
    const [x, y] = at;
    const off = y > middle[1] ? 12 : -5;
    marks.push({ ink: isGhost ? 'fault-dot' : 'ray-head', x, y, d: 'M2 0A2 2 0 1 1 -2 0A2 2 0 1 1 2 0Z' });
    list.slice(0, 4).forEach((name, i) =>
      marks.push({
        ink: isGhost ? 'figure-fault' : 'figure',
        x: Math.max(3, Math.min(room.width - 3, x)),
        y: Math.max(11, Math.min(room.height - 3, y + off + (off < 0 ? -12 * i : 12 * i))),
        anchor: x > room.width - 30 ? 'end' : x < 30 ? 'start' : 'middle',
        text: i === 3 && list.length > 4 ? '…' : name,
      }),
    );
  }
  return marks;
}
