import type { SignedAxis } from '../../../core/conventions/axes';
import type { ConventionCodec } from '../../../core/conventions/codec';
import type { Vec3 } from '../../../core/math/vec3';
import type { Moment } from '../../state/moment';
import { screenUnit, unitMark } from '../../state/wording';
import { scaleBarOf } from './drawingGeometry';
import type { PictureView, Size } from './contract';
import type { InkRole } from './inks';
import type { Rect } from './labels';
import { n2, type Mark } from './marks';
import { textBoxes } from './textBoxes';
import { rulerX, rulerY } from './slots';
import { niceAbove } from '../../../core/math/nice';

/** A block of the pixel rulers: the round number of pixels that is at least 40 px on the page. */
export const blockOf = (scale: number) => Math.max(10, niceAbove(40 / scale));

/* Frames, rulers, axes and scale bars of the pictures. Places are in pixels from a picture's top left corner. */

export const rectangle = (x: number, y: number, width: number, height: number): string =>
  `M${n2(x)} ${n2(y)}h${n2(width)}v${n2(height)}h${n2(-width)}Z`;
/** A rectangle that cuts a hole into the one before it, by the non-zero rule. */
const hole = (x: number, y: number, width: number, height: number): string =>
  `M${n2(x)} ${n2(y)}v${n2(height)}h${n2(width)}v${n2(-height)}Z`;

/** Returns the frame round the camera's picture, its rulers left out. */
export function plateMarks({ width, height }: Size): Mark[] {
  const [w, h] = [width + 2 * rulerX, height + 2 * rulerY];
  const [x, y] = [-rulerX, -rulerY];
  return [
    { ink: 'plate-field', d: rectangle(x, y, w, h) + hole(0, 0, width, height) },
    { ink: 'plate-outer', d: rectangle(x + 0.75, y + 0.75, w - 1.5, h - 1.5) },
    { ink: 'plate-inner', d: rectangle(x + 4.5, y + 4.5, w - 9, h - 9) },
  ];
}

/** Returns the frame round a snapshot's picture. */
export function snapshotPlateMarks({ width, height }: Size): Mark[] {
  return [
    ...plateMarks({ width, height }).filter(({ ink }) => ink !== 'plate-inner'),
    { ink: 'neat-line', d: rectangle(0, 0, width, height) },
  ];
}

const chequer = 4;

/** Returns the rulers round the camera's picture without their figures: pixels above and left, NDC below and right. */
export function rulerMarks(e: ConventionCodec, viewport: Size, { width, height }: Size): Mark[] {
  const v = { x: 0, y: 0, width: viewport.width, height: viewport.height };
  const block = blockOf(width / viewport.width);
  const across = (user: number) => ((e.fromScreen(v, [user, 0])[0] + 1) / 2) * width;
  const down = (user: number) => ((1 - e.fromScreen(v, [0, user])[1]) / 2) * height;
  const [blocks, ticks]: [string[], string[]] = [[], []];
  const isMajor = (u: number) => Math.abs(u / block - Math.round(u / block)) < 1e-9;
  const isBlock = (u: number) => isMajor(u) && Math.round(u / block) % 2 === 0;
  for (let u = 0; u <= v.width; u += block / 5) {
    const x = across(u);
    if (x < -0.01 || x > width + 0.01) continue;
    ticks.push(`M${n2(x)} ${-chequer}v${isMajor(u) ? -4 : -2}`);
    if (isBlock(u)) blocks.push(`M${n2(x)} ${-chequer}H${n2(Math.min(width, across(u + block)))}V0H${n2(x)}Z`);
  }
  for (let u = 0; u <= v.height; u += block / 5) {
    const y = down(u);
    if (y < -0.01 || y > height + 0.01) continue;
    ticks.push(`M${-chequer} ${n2(y)}h${isMajor(u) ? -4 : -2}`);
    if (isBlock(u))
      blocks.push(`M${-chequer} ${n2(y)}V${n2(Math.max(0, Math.min(height, down(u + block))))}H0V${n2(y)}Z`);
  }
  for (let i = 0; i < 8; i += 2) {
    blocks.push(rectangle((i * width) / 8, height, width / 8, chequer));
    blocks.push(rectangle(width, ((i + 1) * height) / 8, chequer, height / 8));
  }
  for (let i = -20; i <= 20; i++) {
    const long = i % 5 ? 2 : 4;
    ticks.push(`M${n2(((i / 20 + 1) / 2) * width)} ${n2(height + chequer)}v${long}`);
    ticks.push(`M${n2(width + chequer)} ${n2(((1 - i / 20) / 2) * height)}h${long}`);
  }
  const [w, h] = [width + 2 * chequer, height + 2 * chequer];
  return [
    { ink: 'ruler-ground', d: rectangle(-chequer, -chequer, w, h) + hole(0, 0, width, height) },
    { ink: 'ruler-blocks', d: blocks.join('') },
    { ink: 'ruler-border', d: rectangle(-chequer, -chequer, w, h) },
    { ink: 'neat-line', d: rectangle(0, 0, width, height) },
    { ink: 'ruler-ticks', d: ticks.join('') },
    { ink: 'ruler-unit', x: -33, y: -10.5, text: screenUnit(e).replace(' px', '') },
    { ink: 'ruler-unit', x: width + 34, y: height + 19, anchor: 'end', text: 'NDC' },
  ];
}

/** Returns the axes by the names that the conventions give them, and the scale bar. */
export function axesAndScaleMarks(view: PictureView, { codec: e, project, flat }: Moment): Mark[] {
  const nameOf = (canonical: Vec3): string => {
    const v = e.toWorld(canonical);
    const i = v.findIndex((x) => x !== 0);
    return `${v[i]! > 0 ? '+' : '-'}${'xyz'[i]}`.replace('-', '\u2212') as SignedAxis;
  };
  const { height: h } = view.size;
  const unitName = unitMark(project.unit);
  const { unit, width: w, left: x0 } = scaleBarOf(view, unitName);
  const last = String(Number((unit * 5).toPrecision(12)));
  const figure = (x: number, y: number, text: string, anchor: 'start' | 'middle' = 'start'): Mark => ({
    ...{ ink: 'figure', x, y, text, anchor },
  });
  return [
    { ink: 'dimension', d: `M16.5 ${n2(h - 16.5)}V${n2(h - 37)}M16.5 ${n2(h - 16.5)}H37` },
    { ink: 'dimension-head', d: `M16.5 ${n2(h - 42)}l-2 7h4ZM42 ${n2(h - 16.5)}l-7-2v4Z` },
    figure(22, h - 33, nameOf(flat ? [0, 1, 0] : [0, 0, -1])),
    figure(45, h - 13, nameOf([1, 0, 0])),
    { ink: 'scale-bar-border', d: rectangle(x0, h - 16.5, w * 5, 4) },
    { ink: 'scale-bar', d: [0, 2, 4].map((i) => rectangle(x0 + i * w, h - 16.5, w, 4)).join('') },
    figure(x0, h - 21, '0', 'middle'),
    // The number over the end of the bar, the unit behind it.
    figure(x0 + 5 * w - last.length * 3.5, h - 21, `${last} ${unitName}`),
  ];
}

/** Returns where the axes and the scale bar are: no name may be there. */
export function furnitureBoxes(view: PictureView, now: Moment): Rect[] {
  const { height: h } = view.size;
  const { width, left } = scaleBarOf(view, unitMark(now.project.unit));
  return [
    { x: 12, y: h - 44, width: 32, height: 32 },
    { x: left - 2, y: h - 18, width: 5 * width + 4, height: 8 },
    ...textBoxes(axesAndScaleMarks(view, now)),
  ];
}

/** Returns the line round a picture below the camera's. */
export const neatLineMarks = ({ width, height }: Size): Mark[] => [
  { ink: 'neat-line' satisfies InkRole, d: rectangle(0.5, 0.5, width - 1, height - 1) },
];
