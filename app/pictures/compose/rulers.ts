import { axesAndScaleMarks, blockOf, neatLineMarks, rulerMarks } from './furniture';
import type { Vec2 } from '../../../core/math/vec3';
import { readPointer } from '../../state/pointerReadout';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import { overlap, textWidth, type Rect } from './labels';
import { n2, type Mark } from './marks';
import { rulerX } from './slots';
import type { PictureView, Size } from './contract';

/** No pointer: it takes no place on the rulers. */
const nowhere: Vec2 = [-1e6, -1e6];

/** Returns everything of a saved picture that lies over its other marks. */
export function furnitureMarks(view: PictureView, now: Moment): Mark[] {
  const { name, size } = view;
  if (name === 'camera')
    return [...rulerMarks(now.codec, now.frame.viewport, size), ...rulerFigures(now, nowhere, size.width, size.height)];
  const axes = name === 'plan' || name === 'world' ? axesAndScaleMarks(view, now) : [];
  return [...axes, ...neatLineMarks(size)];
}

/** NDC as it stands on the rulers: no leading zero, so that the side fields keep their width. */
const shortNdc = (v: number, decimals: number) =>
  v === 0 ? '0' : figure(v, Math.abs(v) === 1 ? 0 : decimals).replace('0.', '.');

/** The figures of the rulers; one gives way where the pointer's tag stands. */
export function rulerFigures({ codec: e, frame }: Moment, css: Vec2, width: number, height: number): Mark[] {
  const { viewport: v } = frame;
  const block = blockOf(width / v.width);
  const [px, py] = [(css[0] / v.width) * width, (css[1] / v.height) * height];
  const figures = (size: number, step: number, at: (user: number) => number, room: number) => {
    const out: (readonly [number, string])[] = [];
    for (let u = 0; u <= size; u += step) if (at(u) >= -0.01 && at(u) <= room + 0.01) out.push([at(u), String(u)]);
    return out;
  };
  const x = figures(v.width, 2 * block, (u) => ((e.fromScreen(v, [u, 0])[0] + 1) / 2) * width, width);
  const y = figures(v.height, block, (u) => ((1 - e.fromScreen(v, [0, u])[1]) / 2) * height, height);
  const marks: Mark[] = [];
  const write = (x: number, y: number, anchor: 'middle' | 'end', text: string) =>
    marks.push({ ink: 'ruler-figure', x, y, anchor, text });
  for (const [at, text] of x) if (Math.abs(at - px) >= 28 && at > 6 - rulerX) write(at, -11, 'middle', text);
  for (const [at, text] of y) if (Math.abs(at - py) >= 14) write(-10, at + 4, 'end', text);
  for (const q of [-1, -0.5, 0, 0.5, 1]) {
    const [qx, qy] = [((q + 1) / 2) * width, ((1 - e.fromNdc([0, q, 0]).upward) / 2) * height];
    if (Math.abs(qx - px) >= 36 && qx < width + 1) write(q === 1 ? qx - 6 : qx, height + 19, 'middle', shortNdc(q, 1));
    if (Math.abs(qy - py) >= 14) write(width + 34, qy + (qy > height - 4 ? 0 : 4), 'end', shortNdc(q, 1));
  }
  return marks;
}

/**
 * Returns the hairlines at the pointer, their tags in the rulers, and the distance of the surface there.
 *
 * @param taken - text of the picture, which the distance leaves free where it can
 */
export function pointerMarks(
  moment: Moment,
  css: Vec2,
  { size: { width, height }, scale }: Pick<PictureView, 'size' | 'scale'>,
  taken: readonly Rect[],
): Mark[] {
  const { codec: e, frame } = moment;
  const [x, y] = [css[0] * scale, css[1] * scale];
  if (x < 0 || y < 0 || x > width || y > height) return [];
  const reading = readPointer(moment, css);
  const screen = e.toScreen(frame.viewport, ...reading.picture);
  const ndc = e.toNdc({ across: reading.picture[0], upward: reading.picture[1], depth01: { near: 1, far: 0 } });
  const [hx, hy] = [Math.round(x) + 0.5, Math.round(y) + 0.5];
  const range = reading.hit?.distance ?? reading.groundRange;
  const decimals =
    Number.isInteger(css[0]) && Number.isInteger(css[1]) && e.conventions.screen.pixelCentre === 0.5 ? 0 : 1;
  return [
    { ink: 'hairline', d: `M${hx} 0V${hy - 9}M${hx} ${hy + 9}V${height}M0 ${hy}H${hx - 9}M${hx + 9} ${hy}H${width}` },
    { ink: 'hair-cross', d: `M${hx} ${hy - 5}V${hy + 5}M${hx - 5} ${hy}H${hx + 5}` },
    ...(range === null ? [] : rangeNote(hx, hy, { width, height }, figure(range, 2), taken)),
    ...tag(x, -12.5, figure(screen[0], decimals), 'middle'),
    // The left field has room for four characters.
    ...tag(-7, y, figure(screen[1], Math.abs(screen[1]) < 100 ? decimals : 0), 'end'),
    ...tag(x, height + 12.5, shortNdc(ndc[0], 3), 'middle'),
    ...tag(width + 35, y, shortNdc(ndc[1], 3), 'end'),
  ];
}

const box = (x: number, y: number, width: number, height: number) =>
  `M${n2(x)} ${n2(y)}h${n2(width)}v${n2(height)}h${n2(-width)}Z`;
const figureWidth = (text: string) => textWidth(text, true) + 6;

/** Returns the distance beside the pointer, on a ground of its own: in the first corner where no text is. */
function rangeNote(x: number, y: number, { width, height }: Size, text: string, taken: readonly Rect[]): Mark[] {
  const wide = figureWidth(text);
  const corners = [6, -21, 22, -37, 38, -53].flatMap((dy) =>
    [6, -8 - wide].map((dx) => ({ x: x + dx, y: y + dy, width: wide, height: 15 })),
  );
  const inside = corners.filter((box) => box.x >= 0 && box.y >= 0 && box.x + wide <= width && box.y + 15 <= height);
  const at = inside.find((box) => !taken.some((other) => overlap(other, box)));
  // Without room it is read in the strip below the pictures.
  if (!at) return [];
  return [
    { ink: 'range-note', d: box(at.x, at.y, wide, 15) },
    { ink: 'figure-bare', x: at.x + 3, y: at.y + 11.5, text },
  ];
}

function tag(x: number, y: number, text: string, anchor: 'middle' | 'end'): Mark[] {
  const wide = figureWidth(text);
  const start = anchor === 'middle' ? x - wide / 2 : x - wide;
  return [
    { ink: 'tag-box', d: box(start, y - 8, wide, 16) },
    { ink: 'tag-figure', x: start + wide / 2, y: y + 4, anchor: 'middle', text },
  ];
}
