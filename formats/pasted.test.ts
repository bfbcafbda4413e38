import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded, soaks } from '../core/testing/seed';
import { emptyReading, printedByRows, printedDigits, readPasted, type MatrixRole } from './pasted';

/*
 * Samples written for these tests: a camera's matrices and points, printed in as many manners as logs,
 * debuggers and source have.
 */

type M = readonly (readonly number[])[];
const names: Readonly<Record<MatrixRole, readonly string[]>> = {
  view: ['view', 'viewMatrix', 'u_view', 'world_to_camera', 'View matrix', 'mView'],
  projection: ['projection', 'proj', 'u_Projection', 'projMatrix', 'clip_from_view', 'Projection matrix'],
  viewProjection: ['viewProj', 'view_projection', 'VP', 'ViewProjection', 'u_viewProj', 'worldToClip'],
  cameraToWorld: ['cameraToWorld', 'inv_view', 'camera_to_world', 'world_from_camera', 'inverseView', 'c2w'],
};
const roles = Object.keys(names) as MatrixRole[];

function dice(seed: number) {
  let state = seeded(seed) * 2654435761;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 374761393) | 0;
    return ((state ^ (state >>> 13)) >>> 0) / 2 ** 32;
  };
}
/** Matrices of one camera, as floats. */
function camera(seed: number): Record<MatrixRole, M> {
  const roll = dice(seed);
  const real = (low: number, high: number) => low + (high - low) * roll();
  const [yaw, pitch] = [real(0.2, 2.8), real(-1.1, -0.2)];
  const [sy, cy, sp, cp] = [Math.sin(yaw), Math.cos(yaw), Math.sin(pitch), Math.cos(pitch)];
  const axes = [[cy, 0, sy], [sy * sp, cp, -cy * sp], [-sy * cp, sp, cy * cp]]; // prettier-ignore
  const eye = [real(-30, 30), real(2, 20), real(-30, 30)];
  const view = [...axes.map((row) => [...row, -row.reduce((sum, v, i) => sum + v * eye[i]!, 0)]), [0, 0, 0, 1]];
  const t = 1 / Math.tan(real(0.3, 0.7));
  const [n, f] = [0.25, 200];
  const projection = [[t / 1.6, 0, 0, 0], [0, t, 0, 0], [0, 0, f / (n - f), (f * n) / (n - f)], [0, 0, -1, 0]]; // prettier-ignore
  const times = (a: M, b: M) => a.map((row) => [0, 1, 2, 3].map((c) => row.reduce((sum, v, k) => sum + v * b[k]![c]!, 0))); // prettier-ignore
  const float = (m: M) => m.map((row) => row.map((v) => Math.fround(v)));
  const own = [...[0, 1, 2].map((r) => [axes[0]![r]!, axes[1]![r]!, axes[2]![r]!, eye[r]!]), [0, 0, 0, 1]];
  return { view: float(view), projection: float(projection), viewProjection: float(times(projection, view)), cameraToWorld: float(own) }; // prettier-ignore
}
const turned = (m: M): M => [0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((c) => m[c]![r]!));
const fixed = (v: number) => v.toFixed(6);
const short = (v: number) => String(Number(v.toPrecision(7)));
const hex = (v: number): string => {
  if (v === 0) return '0x0p+0';
  const power = Math.floor(Math.log2(Math.abs(v)));
  const share = Math.abs(v) / 2 ** power - 1;
  return `${v < 0 ? '-' : ''}0x1.${Math.round(share * 2 ** 24).toString(16).padStart(6, '0')}p${power < 0 ? '' : '+'}${power}`; // prettier-ignore
};
const bitsOf = (v: number) => {
  const view = new DataView(new ArrayBuffer(4));
  view.setFloat32(0, v);
  return `0x${view.getUint32(0).toString(16).padStart(8, '0')}`;
};
const asRows = (m: M, one: (v: number) => string, between: string) => m.map((row) => row.map(one).join(between));
const indent = (lines: readonly string[], by: string) => lines.map((line) => by + line).join('\n');

/** A manner of printing a matrix under a name; `by` is how its numbers stand: by columns or rows, as a square or flat. */
interface Manner {
  readonly name: string;
  readonly by: 'rows' | 'columns';
  readonly square: boolean;
  readonly print: (name: string, m: M) => string;
  readonly exact?: boolean;
  readonly last3?: boolean;
}
/** The rows of what is printed: of the matrix, or its columns. */
const manner = (
  name: string,
  by: Manner['by'],
  square: boolean,
  print: (name: string, rows: M) => string,
  more: Partial<Manner> = {},
): Manner =>
  // prettier-ignore
  ({ name, by, square, print: (label, m) => print(label, by === 'rows' ? m : turned(m)), ...more });
const time = '12:04:31.207';
const manners: readonly Manner[] = [
  manner('rows on lines under a heading', 'rows', true, (n, m) => `${n}:\n${asRows(m, fixed, ' ').join('\n')}\n`),
  manner('rows in brackets', 'rows', true, (n, m) => `${n} =\n${indent(asRows(m, fixed, ', ').map((r) => `[ ${r} ]`), '  ')}\n`), // prettier-ignore
  manner('rows between bars', 'rows', true, (n, m) => `${n}\n${asRows(m, (v) => fixed(v).padStart(11), ' ').map((r) => `| ${r} |`).join('\n')}`), // prettier-ignore
  manner('one line', 'columns', false, (n, m) => `${n}: ${m.flat().map(short).join(' ')}`),
  manner('one line with commas in brackets', 'columns', false, (n, m) => `${n}=[${m.flat().map(short).join(', ')}]`),
  manner('lists of lists', 'rows', true, (n, m) => `${n} = ${JSON.stringify(m.map((row) => row.map((v) => Number(short(v)))))}`),
  manner('JSON', 'columns', false, (n, m) => JSON.stringify({ frame: 812, [n]: m.flat().map((v) => Number(short(v))) }, null, 1)),
  manner('JSON in rows', 'rows', true, (n, m) => JSON.stringify({ time: 3.25, camera: { [n]: m.map((row) => row.map((v) => Number(short(v)))) } }, null, 2)),
  manner('an array printed by a scientific notebook', 'rows', true, (n, m) => `${n} = array([[${asRows(m, (v) => v.toExponential(8), ', ').join('],\n       [')}]], dtype=float32)`),
  manner('an initialiser of C', 'columns', false, (n, m) => `static const float ${n}[16] = { ${m.flat().map((v) => `${fixed(v)}f`).join(', ')} };`),
  manner('an initialiser of C in rows', 'rows', true, (n, m) => `float ${n}[4][4] = {\n${asRows(m, (v) => `${fixed(v)}f`, ', ').map((r) => `    { ${r} }`).join(',\n')}\n};`),
  manner('constructors by columns', 'columns', true, (n, m) => `mat4 ${n} = mat4(${m.map((row) => `vec4(${row.map(fixed).join(', ')})`).join(', ')});`),
  manner('one constructor', 'columns', false, (n, m) => `const ${n} = new Matrix4(${m.flat().map(short).join(', ')})`),
  manner('a struct with named axes', 'columns', true, (n, m) => `${n}: Mat4 { ${m.map((row, i) => `${'xyzw'[i]}_axis: Vec4(${row.map(short).join(', ')})`).join(', ')} }`),
  manner('suffixes of a language with types after them', 'columns', true, (n, m) => `let ${n} = [${m.map((row) => `[${row.map((v) => `${fixed(v)}_f32`).join(', ')}]`).join(', ')}];`),
  manner('a debugger', 'columns', true, (n, m) => `$4 = {${n} = {m = {${m.map((row) => `{${row.map(short).join(', ')}}`).join(', ')}}}}`),
  manner('a debugger with indices', 'columns', false, (n, m) => `(float [16]) ${n} = ([0] = ${m.flat().map((v, i) => `${i ? `[${i}] = ` : ''}${short(v)}`).join(', ')})`),
  manner('elements set one by one', 'rows', false, (n, m) => m.flatMap((row, r) => row.map((v, c) => `${n}.m[${r}][${c}] = ${fixed(v)}f;`)).join('\n')),
  manner('named elements', 'rows', false, (n, m) => `${n} { ${m.flatMap((row, r) => row.map((v, c) => `m${r}${c}:${short(v)}`)).join(' ')} }`),
  manner('named elements on lines', 'rows', true, (n, m) => `${n}\n${m.map((row, r) => row.map((v, c) => `_${r + 1}${c + 1}=${fixed(v)}`).join(' ')).join('\n')}`),
  manner('log lines with times', 'rows', true, (n, m) => `${time} [render] ${n}:\n${asRows(m, fixed, ' ').map((r) => `${time} [render]   ${r}`).join('\n')}`),
  manner('log lines with levels and sources', 'rows', true, (n, m) => `2026-11-27 ${time} DEBUG camera.cpp:142: ${n}\n${asRows(m, fixed, ', ').map((r) => `2026-11-27 ${time} DEBUG camera.cpp:143:   (${r})`).join('\n')}`),
  manner('every row under the name', 'rows', true, (n, m) => asRows(m, fixed, ' ').map((r, i) => `I/Renderer(4211): ${n} row ${i}: ${r}`).join('\n')),
  manner('kernel times and one line', 'columns', false, (n, m) => `[  812.004512] engine: ${n} ${m.flat().map((v) => v.toExponential(7)).join(' ')}`),
  manner('hexadecimal floats', 'columns', false, (n, m) => `${n} ${m.flat().map(hex).join(' ')}`, { exact: true }),
  manner('bits of floats', 'columns', false, (n, m) => `${n}: { ${m.flat().map(bitsOf).join(', ')} } at 0x7ffd9e4c`, { exact: true }),
  manner('a list of a markup of indents', 'rows', true, (n, m) => `${n}:\n${asRows(m, short, ', ').map((r) => `  - [${r}]`).join('\n')}`),
  manner('a list of single numbers', 'columns', false, (n, m) => `${n}:\n${m.flat().map((v) => `  - ${short(v)}`).join('\n')}\n`),
  manner('rows parted by semicolons', 'rows', true, (n, m) => `${n} = [${asRows(m, fixed, ' ').join('; ')}]`),
  manner('two rows a line', 'columns', false, (n, m) => `${n}:\n${m[0]!.concat(m[1]!).map(fixed).join(', ')},\n${m[2]!.concat(m[3]!).map(fixed).join(', ')}\n`),
  manner('angle brackets', 'columns', false, (n, m) => `${n} <${m.flat().map(short).join(',')}>`),
  manner('three rows of four', 'rows', true, (n, m) => `${n} (3x4)\n${asRows(m.slice(0, 3), fixed, ' ').join('\n')}\n`, { last3: true }),
]; // prettier-ignore

describe('what is pasted', () => {
  it(`is read right in ${manners.length} manners of printing`, () => {
    const wrong: string[] = [];
    let asked = 0;
    for (let seed = 1; seed <= 12; seed++)
      for (const [k, { name, by, square, print, exact, last3 }] of manners.entries()) {
        const roll = dice(97 * seed + k);
        const of = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)]!;
        const matrices = camera(seed * 31 + k);
        const given = (last3 ? (['view', 'cameraToWorld'] as const) : roles).filter(() => roll() < 0.55);
        const picked = given.length ? given : (['view'] as const);
        const text = picked.map((role) => print(of(names[role]), matrices[role])).join(of(['\n', '\n\n']));
        const { items } = readPasted(text);
        asked++;
        const fine =
          items.length === picked.length &&
          picked.every((role, i) => {
            const item = items[i]!;
            const rows = by === 'rows' ? matrices[role] : turned(matrices[role]);
            const seen = printedByRows(item);
            return (
              item.role === role &&
              item.square === square &&
              (!square || seen === null || seen === (by === 'rows')) &&
              rows
                .flat()
                .every((v, j) => Math.abs(item.numbers[j]! - v) <= (exact ? 0 : 1e-6 * Math.max(1, Math.abs(v))))
            );
          });
        if (!fine) wrong.push(`${name} (${seed}):\n${text}\n${JSON.stringify(items.map(({ kind, role, square: s, numbers }) => [kind, role, s, numbers.length]))}`); // prettier-ignore
      }
    expect(asked).toBeGreaterThanOrEqual(300);
    expect(wrong.length / asked, wrong.join('\n\n')).toBeLessThanOrEqual(0.01);
  });

  const world = [-12.5, 4.25, 30.125];
  const screen = [640.25, 360.5];
  it.each<[string, string]>([
    ['arrows', 'buoy (-12.5, 4.25, 30.125) -> (640.25, 360.5)'],
    ['words', 'world=[-12.5 4.25 30.125] screen=[640.25 360.5]'],
    ['JSON', '{"points":[{"world":[-12.5,4.25,30.125],"screen":[640.25,360.5]}]}'],
    [
      'a log line',
      '12:00:01.250 [labels] frame 8812 worldToScreen vec3(-12.5f, 4.25f, 30.125f) => vec2(640.25f, 360.5f)',
    ],
    ['two lines', 'world position: -12.5, 4.25, 30.125\npixel: 640.25, 360.5'],
    ['columns', '-12.5 4.25 30.125 640.25 360.5'],
    ['named coordinates', 'point {x: -12.5, y: 4.25, z: 30.125} px {x: 640.25, y: 360.5}'],
  ])('reads points: %s', (_, text) => {
    const { items } = readPasted(text);
    if (items[0]!.kind === 'point') expect(items.map(({ numbers }) => numbers)).toEqual([[...world, ...screen]]);
    else expect(items.map(({ role, numbers }) => [role, numbers])).toEqual([['world', world], ['screen', screen]]); // prettier-ignore
  });

  it('reads several things at once, each with its place, and says what is left over', () => {
    const m = camera(5);
    const text = `2026-11-27 12:00:01 INFO frame 8812: fov 55.5 near 0.1\nview\n${asRows(m.view, fixed, ' ').join('\n')}\n\nproj: ${turned(m.projection).flat().map(short).join(', ')}\nworld (1, 2, 3) -> (400, 300, 0.5)\neye: 4 5 6`; // prettier-ignore
    const { items, left } = readPasted(text);
    expect(items.map(({ role }) => role)).toEqual(['view', 'projection', 'world', 'screen', 'unused']);
    expect(items[3]!.numbers).toEqual([400, 300, 0.5]);
    expect(text.slice(items[0]!.from, items[0]!.to)).toContain(fixed(m.view[0]![0]!));
    expect(left.map(({ from, to }) => text.slice(from, to))).toEqual(['55.5', '0.1']);
    expect(items.every(({ from, to }) => to > from)).toBe(true);
  });

  it('tells roles by the numbers where nothing is said', () => {
    const m = camera(9);
    const list = (one: M) => `${turned(one).flat().map(short).join(' ')}\n\n`;
    const read = readPasted(list(m.view) + list(m.projection) + list(m.viewProjection)).items;
    expect(read.map(({ role, by }) => [role, by])).toEqual([['view', 'numbers'], ['projection', 'numbers'], ['viewProjection', 'numbers']]); // prettier-ignore
  });

  it('knows how far printed digits can be trusted', () => {
    const [three, six] = [3, 6].map((n) => readPasted(`view\n${asRows(camera(3).view, (v) => v.toFixed(n), ' ').join('\n')}`).items[0]!); // prettier-ignore
    expect(printedDigits(three!)).toBeLessThan(printedDigits(six!));
    expect(printedDigits(six!)).toBeGreaterThanOrEqual(5);
    // Whole numbers among others with more figures are whole.
    const short7 = readPasted(`proj = { 0.7742148f, 0.0f, 0.0f, 0.0f, 0.0f, 1.376382f, 0.0f, 0.0f, 0.0f, 0.0f, -1.037037f, -1.0f, 0.0f, 0.0f, -5.185185f, 0.0f }`).items[0]!; // prettier-ignore
    expect(printedDigits(short7)).toBe(6);
  });

  it('never throws, and never reads what is not there', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400, unit: fc.constantFrom(...'0123456789.-+eExXpf[](){}<>,;:=|\n\t "\'mviewprojworldscreen$#') }), (text) => {
        const { items, left } = readPasted(text);
        for (const { from, to, numbers, steps } of items) {
          expect(from).toBeLessThan(to);
          expect(to).toBeLessThanOrEqual(text.length);
          expect(numbers).toHaveLength(steps.length);
        }
        for (const { from, to } of left) expect(from).toBeLessThan(to);
      }),
      { numRuns: soaks ? 100_000 : 700 },
    );
    expect(readPasted('Nothing was printed here.')).toEqual(emptyReading);
  }); // prettier-ignore
});
