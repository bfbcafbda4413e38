import type { Vec2 } from '../../../core/math/vec3';

/*
 * Letters of a few straight strokes, for boards in the world: drawn as triangles in the board's own
 * plane, so that they are turned, hidden and mirrored as the board is.
 */

/** Strokes on a grid of 4 across and 6 up: two digits a point, points of a stroke after one another, strokes parted by bars. */
const strokes: Readonly<Record<string, string>> = {
  ...{ A: '00 26 40|12 32', B: '00 06 36 45 44 33 03|33 42 41 30 00', C: '45 36 16 05 01 10 30 41' },
  ...{ D: '00 06 26 44 42 20 00', E: '46 06 00 40|03 33', F: '46 06 00|03 33', G: '45 36 16 05 01 10 30 41 43 23' },
  ...{ H: '00 06|40 46|03 43', I: '20 26|10 30|16 36', J: '46 41 30 10 01', K: '00 06|46 03 40', L: '06 00 40' },
  ...{ M: '00 06 23 46 40', N: '00 06 40 46', O: '16 36 45 41 30 10 01 05 16', P: '00 06 36 45 44 33 03' },
  ...{ Q: '16 36 45 41 30 10 01 05 16|22 40', R: '00 06 36 45 44 33 03|23 40' },
  ...{ S: '45 36 16 05 04 13 33 42 41 30 10 01', T: '06 46|26 20', U: '06 01 10 30 41 46', V: '06 20 46' },
  ...{ W: '06 10 24 30 46', X: '00 46|06 40', Y: '06 23 46|23 20', Z: '06 46 00 40' },
  ...{ 0: '16 36 45 41 30 10 01 05 16|12 34', 1: '14 26 20|10 30', 2: '05 16 36 45 44 00 40' },
  ...{ 3: '05 16 36 45 44 33 13|33 42 41 30 10 01', 4: '30 36 02 42', 5: '46 06 04 34 43 41 30 10 01' },
  ...{ 6: '45 36 16 05 01 10 30 41 42 33 03', 7: '06 46 10', 8: '13 04 05 16 36 45 44 33 13 02 01 10 30 41 42 33' },
  ...{ 9: '01 10 30 41 45 36 16 05 04 13 43', '-': '13 33', '.': '20 21', '\u2019': '26 25' },
};
/** From one letter to the next, and how far a stroke reaches to each side, in steps of the grid. */
const [advance, half] = [5.6, 0.42];

/** The characters that can be written; any other stands for a gap. */
export const writable = (text: string): string =>
  [...text.toUpperCase()].map((one) => (one in strokes ? one : ' ')).join('');

/** Two triangles for a stroke from one point to another, its ends a half width longer. */
function strokeTriangles([ax, ay]: Vec2, [bx, by]: Vec2): Vec2[] {
  const long = Math.hypot(bx - ax, by - ay) || 1;
  const [ux, uy] = [((bx - ax) / long) * half, ((by - ay) / long) * half];
  const corners: Vec2[] = [
    [ax - ux + uy, ay - uy - ux],
    [bx + ux + uy, by + uy - ux],
    [bx + ux - uy, by + uy + ux],
    [ax - ux - uy, ay - uy + ux],
  ];
  return [0, 1, 2, 0, 2, 3].map((i) => corners[i]!);
}

/**
 * A line of lettering about the middle of a board, as triangles (three places to one): as large as
 * fits within nine tenths of its width and six tenths of its height.
 */
export function letterTriangles(text: string, [width, height]: Vec2): Vec2[] {
  const letters = [...writable(text)];
  if (!letters.length) return [];
  const long = letters.length * advance - (advance - 4);
  const scale = Math.min((width * 0.86) / long, (height * 0.56) / 6);
  return letters.flatMap((letter, i) =>
    (strokes[letter] ?? '')
      .split('|')
      .flatMap((stroke) => {
        const points = stroke.split(' ').flatMap((at): Vec2[] => (at ? [[Number(at[0]), Number(at[1])]] : []));
        return points.slice(1).flatMap((to, k) => strokeTriangles(points[k]!, to));
      })
      .map(([x, y]): Vec2 => [(x + i * advance - long / 2) * scale, (y - 3) * scale]),
  );
}

/** A frame round a board, inside its edge, as triangles. */
export function frameTriangles([width, height]: Vec2): Vec2[] {
  const [w, h] = [width / 2, height / 2];
  const t = Math.min(w, h) * 0.07;
  const strip = (l: number, b: number, r: number, top: number): Vec2[] => [[l, b], [r, b], [r, top], [l, b], [r, top], [l, top]]; // prettier-ignore
  return [
    ...strip(-w, -h, w, -h + t),
    ...strip(-w, h - t, w, h),
    ...strip(-w, -h + t, -w + t, h - t),
    ...strip(w - t, -h + t, w, h - t),
  ];
}

/** The whole of a board, as two triangles. */
export function sheetTriangles([width, height]: Vec2): Vec2[] {
  const [w, h] = [width / 2, height / 2];
  return [[-w, -h], [w, -h], [w, h], [-w, -h], [w, h], [-w, h]]; // prettier-ignore
}
