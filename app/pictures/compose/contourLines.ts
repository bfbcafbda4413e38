import { contours } from 'd3-contour';
import type { CameraFrame } from '../../../core/camera/frame';
import type { Vec2 } from '../../../core/math/vec3';
import type { Drawn, PictureView } from './contract';
import { n2, type Mark } from './marks';
import type { Word } from './contract';

/* A number that belongs to every pixel of a picture, and the lines along which it is the same. */

/** How many places across and down the number is asked at. */
const grid = { across: 97, down: 55 };

export interface PictureMap {
  /** The greatest number over the places of the grid, and the pixel at which it is. */
  readonly most: number;
  readonly at: Vec2;
  /** Lines of one number, as rings in shares of the picture from its top left. */
  readonly lines: readonly { readonly level: number; readonly rings: readonly (readonly Vec2[])[] }[];
}

/**
 * The map of a number over a frame's viewport: `valueAt` is told pixels (canonical, from the top
 * left), `levelsFor` the greatest number, and gives the numbers that are to have lines, rising.
 */
export function mapPicture(
  frame: CameraFrame,
  valueAt: (pixel: Vec2) => number,
  levelsFor: (most: number) => number[],
): PictureMap {
  const { x, y, width, height } = frame.viewport;
  const { across, down } = grid;
  const values: number[] = [];
  let [most, at]: [number, Vec2] = [0, [x, y]];
  for (let j = 0; j < down; j++)
    for (let i = 0; i < across; i++) {
      const pixel: Vec2 = [x + (width * i) / (across - 1), y + (height * j) / (down - 1)];
      const value = valueAt(pixel);
      values.push(value);
      if (value > most) [most, at] = [value, pixel];
    }
  const made = contours().size([across, down]).thresholds(levelsFor(most))(values);
  const lines = made.map(({ value, coordinates }) => ({
    level: value,
    rings: coordinates.flatMap((polygon) =>
      polygon.map((ring) =>
        // The middle of the first cell is the first place.
        ring.map((p): Vec2 => [(p[0]! - 0.5) / (across - 1), (p[1]! - 0.5) / (down - 1)]),
      ),
    ),
  }));
  return { most, at, lines };
}

/** The lines of a map over its picture, each with its number once, at the middle of its longest stretch. */
export function mapLines(
  { size }: PictureView,
  { lines }: PictureMap,
  show: (level: number) => string,
): Required<Pick<Drawn, 'marks' | 'words'>> {
  const { width, height } = size;
  const marks: Mark[] = [];
  const words: Word[] = [];
  for (const { level, rings } of lines) {
    // Along the picture's own edges a ring has no line: the number is larger beyond.
    const edge = ([x, y]: Vec2) => x <= 1e-6 || y <= 1e-6 || x >= 1 - 1e-6 || y >= 1 - 1e-6;
    let longest: Vec2[] = [];
    let d = '';
    for (const ring of rings) {
      let run: Vec2[] = [];
      const close = () => {
        if (run.length > longest.length) longest = run;
        if (run.length > 1) d += `M${run.map(([x, y]) => `${n2(x * width)} ${n2(y * height)}`).join('L')}`;
        run = [];
      };
      for (let i = 0; i < ring.length; i++) {
        const p = ring[i]!;
        const q = ring[i + 1];
        run.push(p);
        if (q && edge(p) && edge(q)) close();
      }
      close();
    }
    marks.push({ ink: 'second-reticle', d });
    const at = longest[longest.length >> 1];
    if (at)
      words.push({
        ...{ text: show(level), at: [at[0] * width, at[1] * height], ink: 'figure' },
        ...{ priority: 8, mono: true },
      });
  }
  return { marks, words };
}
