/*
 * Faults put into the code that is taken home: each an edit of its source in the small language, which
 * is printed in every language after it. An edit that finds nothing to change is a fault of the test.
 */

type Edit = (source: string) => string;

/** Changes one place, or every place where `all`; refuses to change nothing. */
const put =
  (from: RegExp, to: string): Edit =>
  (source) => {
    const made = source.replace(from, to);
    if (made === source) throw new Error(`nothing matches ${from}`);
    return made;
  };
const both =
  (...edits: readonly Edit[]): Edit =>
  (source) =>
    edits.reduce((text, edit) => edit(text), source);
/** Of a function of the program alone. */
const inside =
  (fn: string, edit: Edit): Edit =>
  (source) => {
    const at = source.indexOf(`fn ${fn}(`);
    const end = source.indexOf('\n}', at);
    if (at < 0) throw new Error(`no function ${fn}`);
    return source.slice(0, at) + edit(source.slice(at, end)) + source.slice(end);
  };
/** The sixteen entries of a matrix written anew, row by row. */
const entries =
  (fn: string, change: (rows: string[][]) => string[][]): Edit =>
  (source) =>
    inside(fn, (text) =>
      text.replace(/return mat4\(([^;]*)\);/, (_, inner: string) => {
        const cells: string[] = [];
        let depth = 0;
        let cell = '';
        for (const letter of inner) {
          if (letter === '(') depth++;
          if (letter === ')') depth--;
          if (letter === ',' && !depth) {
            cells.push(cell.trim());
            cell = '';
          } else cell += letter;
        }
        cells.push(cell.trim());
        const rows = change([0, 4, 8, 12].map((i) => cells.slice(i, i + 4)));
        return `return mat4(${rows.map((row) => row.join(', ')).join(',\n')});`;
      }),
    )(source);
const transposed = (rows: string[][]) => rows.map((_, r) => rows.map((row) => row[r]!));
const negated = (name: string) => (rows: string[][]) =>
  rows.map((row) => (row.some((cell) => cell.includes(name)) ? row.map((cell) => (cell === '0' ? '0' : `-(${cell})`)) : row)); // prettier-ignore
const lastColumn = (cell: (name: string, r: number) => string) => (rows: string[][]) =>
  rows.map((row, r) => (r < 3 ? [...row.slice(0, 3), cell(row[3]!, r)] : row));
/** Put in where the basis stands whole. */
const basis = (text: string) => inside('frame_of', put(/let half_height/, `${text}\n  let half_height`));
/** A name of the basis made anew: the old one is kept by another. */
const renamed = (name: string, text: string) => both(inside('frame_of', put(new RegExp(`let ${name} =`), `let old_${name} =`)), basis(`let ${name} = ${text};`)); // prettier-ignore
const projected = (edit: Edit) => inside('projection_matrix', edit);
const screened = (edit: Edit) => inside('world_to_screen', edit);

/** What stands in the code where a camera is said by angles in degrees, in perspective, with a shift and a far plane. */
export const mutants: Readonly<Record<string, Edit>> = {
  transposed: entries('view_matrix', transposed),
  'transposed projection': entries('projection_matrix', transposed),
  'transposed product': put(/return mul\((\w+)\((\w+)\), (\w+)\(\w+\)\);/, 'return mul($3($2), $1($2));'),
  inverted: both(put(/fn view_matrix\(/, 'fn other('), put(/fn camera_to_world\(/, 'fn view_matrix('), put(/fn other\(/, 'fn camera_to_world(')), // prettier-ignore
  identity: entries('view_matrix', (rows) => rows.map((row, r) => row.map((_, c) => (r === c ? '1' : '0')))),
  forwardNegated: both(renamed('forward', '-old_forward'), renamed('right', '-old_right')),
  aheadNegated: entries('view_matrix', negated('frame.forward')),
  rightNegated: entries('view_matrix', negated('frame.right')),
  upNegated: entries('view_matrix', negated('frame.up')),
  translationNotNegated: entries(
    'view_matrix',
    lastColumn((cell) => `-(${cell})`),
  ),
  translationNotRotated: entries(
    'view_matrix',
    lastColumn((_, r) => `-frame.eye.${'xyz'[r]}`),
  ),
  translationMissing: entries(
    'view_matrix',
    lastColumn(() => '0'),
  ),
  anglesInOtherUnit: inside('frame_of', put(/(camera\.(?:yaw|pitch|roll)) \* pi \/ 180/g, '$1')),
  yawNegated: inside('frame_of', put(/let yaw = (.*);/, 'let yaw = -($1);')),
  pitchNegated: inside('frame_of', put(/let pitch = (.*);/, 'let pitch = -($1);')),
  rollNegated: inside('frame_of', put(/let roll = (.*);/, 'let roll = -($1);')),
  fovInOtherUnit: inside('frame_of', put(/camera\.fov \* pi \/ 180/, 'camera.fov')),
  halfAngleTwice: inside('frame_of', put(/(camera\.fov[^;]*) \/ 2\)/, '$1 / 4)')),
  halfAngleMissing: inside('frame_of', put(/(camera\.fov[^;]*) \/ 2\)/, '$1)')),
  fovAxis: inside('frame_of', put(/let half_size = .*;/, 'let half_size = vec2(half_height, half_height * camera.size.y / camera.size.x);')), // prettier-ignore
  aspectInverted: inside('frame_of', put(/camera\.size\.x \/ camera\.size\.y/, 'camera.size.y / camera.size.x')),
  aspectMissing: inside('frame_of', put(/ \* camera\.size\.x \/ camera\.size\.y/, '')),
  yFlipped: projected(put(/1 \/ frame\.half_size\.y/, '-1 / frame.half_size.y')),
  xFlipped: projected(put(/1 \/ frame\.half_size\.x/, '-1 / frame.half_size.x')),
  'yFlipped points': screened(put(/let upward = (.*);/, 'let upward = -($1);')),
  'xFlipped points': screened(put(/let across = (.*);/, 'let across = -($1);')),
  // From 0 to 1, or from 1 to 0, to the range twice as long: twice the depth less one.
  depthRangeOther: both(projected(put(/let slope = (.*);/, 'let slope = 2 * ($1) - 1;')), entries('projection_matrix', (rows) => rows.map((row) => row.map((cell) => (cell === 'offset' ? '2 * offset' : cell))))), // prettier-ignore
  depthReversed: screened(put(/let depth = (.*);/, 'let depth = 1 - ($1);')),
  farLeftOut: projected(put(/ \* frame\.z_far \/ \(frame\.z_far - frame\.z_near\)/, '')),
  shiftLeftOut: projected(put(/frame\.shift\.[xy]/g, '0')),
  'shiftLeftOut points': screened(put(/ - frame\.shift\.[xy]/g, '')),
  wNegated: entries('projection_matrix', (rows) => rows.map((row, r) => (r < 3 ? row : row.map((cell) => (cell === '0' ? cell : `-(${cell})`))))), // prettier-ignore
  projectionOtherHanded: entries('projection_matrix', (rows) => {
    const ahead = rows[2]!.findIndex((cell) => cell !== '0');
    return rows.map((row) => row.map((cell, c) => (c === ahead && cell !== '0' ? `-(${cell})` : cell)));
  }),
  notDivided: screened(put(/\(ahead \* (frame\.half_size\.[xy])\)/g, '$1')),
  viewportMissing: screened(put(/frame\.origin\.x \+ \(across \+ 1\) \/ 2 \* frame\.size\.x/, 'across')),
  viewportOffset: screened(put(/frame\.origin\.[xy] \+ /g, '')),
  halfPixel: screened(put(/frame\.origin\.x \+/, '0.5 + frame.origin.x +')),
  devicePixelRatio: screened(put(/frame\.origin\.x \+ /, 'frame.origin.x + 2 * ')),
  ghosts: screened(put(/ahead <= 0/, 'ahead <= -1e9')),
  backHalfPixel: inside('screen_to_world', put(/\(pixel\.x/, '(0.5 + pixel.x')),
  rayOfAnotherEdge: inside('pixel_ray', put(/let upward = (.*);/, 'let upward = -($1);')),
  rayShiftLeftOut: inside('pixel_ray', put(/ \+ frame\.shift\.x/, '')),
  differs: put(/(return Camera \{ vec3\()/, '$10.5 + '),
};

/** The same of a camera that looks at a point. */
export const lookAtMutants: Readonly<Record<string, Edit>> = {
  upNotSquare: inside('frame_of', put(/let up = .*;/, 'let up = camera.up;')),
  notNormalised: inside('frame_of', put(/let right = normalize\((.*)\);/, 'let right = $1;')),
  'cross product the other way': inside('frame_of', put(/cross\((\w[\w.]*), (\w[\w.]*)\)/, 'cross($2, $1)')),
};
