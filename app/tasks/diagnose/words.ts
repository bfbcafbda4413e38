import type { PastedRole } from '../../../formats/pasted';
import type { Role2d } from '../../../formats/pasted2d';
import { editable } from '../../ui/figures';

export type Triple = readonly [number, number, number];

/** A number to some significant figures, without zeros at the end. */
export const significant = (v: number, figures = 5): string =>
  editable(Math.abs(v) < 1e-9 ? 0 : Number(v.toPrecision(Math.max(1, figures)))).replace('-', '−');
/** A number to the figures that its source supports, at most five; with none, that it is not determined. */
export const supported = (v: number, digits: number | undefined, most = 5): string =>
  digits === 0 ? 'not determined' : significant(v, Math.min(digits ?? most, most));
/** Numbers of one source to the figures of the largest, the others to the same place. */
export function supportedEach(list: readonly number[], digits: number | undefined, most = 4): readonly string[] {
  const size = Math.max(...list.map(Math.abs));
  const figures = Math.min(digits ?? most, most);
  if (size === 0) return list.map(() => '0');
  if (figures === 0) return list.map(() => 'not determined');
  const place = Math.floor(Math.log10(size)) + 1 - figures;
  return list.map((v) => significant(Math.round(v / 10 ** place) * 10 ** place, 9));
}
/** The same as one text. */
export const supportedAll = (list: readonly number[], digits: number | undefined, most?: number): string =>
  digits === 0 && list.some(Boolean) ? 'not determined' : supportedEach(list, digits, most).join(', ');

/** What each role is called. */
export const roleWords: Readonly<Record<PastedRole | Role2d, string>> = {
  view: 'view',
  cameraToWorld: 'camera to world',
  projection: 'projection',
  viewProjection: 'view projection',
  world: 'in the world',
  screen: 'on the screen',
  point: 'a point, both',
  unused: 'not used',
  worldToPixel: 'world to pixel',
  pixelToWorld: 'pixel to world',
};
