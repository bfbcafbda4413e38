import { describe, expect, it } from 'vitest';
import { dice, type Dice } from '../core/testing/wrongEngine';
import { soaks } from '../core/testing/seed';
import { printedByRows, readPasted, type MatrixRole } from './pasted';

/*
 * Printed forms of other programs, made here without the reader: every form with random cameras, labels and noise
 * about it. A second generator makes texts with numbers and without a matrix.
 */

type M = readonly (readonly number[])[];
type Role = MatrixRole;

const labels: Readonly<Record<Role, readonly string[]>> = {
  view: ['view', 'View matrix', 'worldToView', 'current view matrix of the player camera', 'm_ViewMatrix', 'world_to_camera'],
  projection: ['projection', 'Projection matrix (main pass)', 'projMat', 'cameraProjection', 'clip_from_view', 'active projection matrix after resize'],
  viewProjection: ['viewProj', 'View * projection', 'view-projection matrix for culling', 'u_viewProjection', 'worldToClip'],
  cameraToWorld: ['cameraToWorld', 'camera to world', 'inverse view matrix', 'InvView', 'camera transform as uploaded'],
}; // prettier-ignore

/** Matrices of one camera in some axes, for column vectors, as floats. */
function cameraOf(d: Dice): Record<Role, M> {
  const [yaw, pitch] = [d.real(0.2, 2.8), d.real(-1.1, -0.2)];
  const [sy, cy, sp, cp] = [Math.sin(yaw), Math.cos(yaw), Math.sin(pitch), Math.cos(pitch)];
  const hand = d.of([1, -1]);
  const axes = [[cy, 0, sy], [sy * sp, cp, -cy * sp], [-sy * cp, sp, cy * cp].map((v) => v * hand)]; // prettier-ignore
  const eye = [d.real(-300, 300), d.real(2, 20), d.real(-30, 30)];
  const view = [...axes.map((row) => [...row, -row.reduce((sum, v, i) => sum + v * eye[i]!, 0)]), [0, 0, 0, 1]];
  const t = 1 / Math.tan(d.real(0.3, 0.7));
  const [n, f] = [d.of([0.1, 0.25, 1]), d.of([200, 1000])];
  const [slope, constant] = d.of([[f / (n - f), (f * n) / (n - f)], [(f + n) / (n - f), (2 * f * n) / (n - f)], [n / (f - n), (f * n) / (f - n)]]); // prettier-ignore
  const projection = [[t / 1.6, 0, 0, 0], [0, t, 0, 0], [0, 0, slope! * hand, constant!], [0, 0, -hand, 0]]; // prettier-ignore
  const times = (a: M, b: M) =>
    a.map((row) => [0, 1, 2, 3].map((c) => row.reduce((sum, v, k) => sum + v * b[k]![c]!, 0)));
  const float = (m: M) => m.map((row) => row.map((v) => Math.fround(v)));
  const own = [...[0, 1, 2].map((r) => [axes[0]![r]!, axes[1]![r]!, axes[2]![r]!, eye[r]!]), [0, 0, 0, 1]];
  return { view: float(view), projection: float(projection), viewProjection: float(times(projection, view)), cameraToWorld: float(own) }; // prettier-ignore
}

const fixed = (v: number) => v.toFixed(6);
const short = (v: number) => String(Number(v.toPrecision(7)));
const comma = (v: number) => v.toFixed(5).replace('.', ',');
const lines = (m: M, one: (v: number) => string, between = ' ') => m.map((row) => row.map(one).join(between));

interface Form {
  readonly name: string;
  /** `said`: the text says the order of a flat list, `turn` which it was. */
  readonly print: (label: string, m: M, d: Dice) => string;
  /** Absolute error of a printed number. */
  readonly loose?: number;
  readonly order?: 'rows' | 'columns';
  readonly exact?: true;
}
const form = (name: string, print: Form['print'], more: Partial<Form> = {}): Form => ({ name, print, ...more });
const names16 = (first: number) => [0, 1, 2, 3].flatMap((r) => [0, 1, 2, 3].map((c) => `${r + first}${c + first}`));

const forms: readonly Form[] = [
  form('nested brackets', (n, m) => `${n} = [[${lines(m, short, ', ').join('], [')}]]`),
  form('nested brackets on lines, with a type', (n, m) => `${n}: Matrix4x4([\n  [${lines(m, short, ', ').join('],\n  [')}]\n])`),
  form('a type before round brackets', (n, m) => `${n} Mat4(\n\t(${lines(m, fixed, ', ').join('),\n\t(')})\n)`),
  form('columns aligned by spaces', (n, m, d) => `${n}\n${m.map((row) => row.map((v) => fixed(v).padStart(d.of([11, 12, 14]))).join(d.of([' ', '   ']))).join('\n')}`),
  form('columns aligned by tabs', (n, m, d) => `${n}:\n${m.map((row) => `\t${row.map(short).join(d.of(['\t', '\t\t', '  \t']))}`).join('\n')}`),
  form('a typed array, four a line', (n, m) => `${n} Float32Array(16) [\n${lines(m, short, ', ').map((row) => `  ${row}`).join(',\n')}\n]`),
  form('a typed array, three a line', (n, m) => `${n}: Float32Array(16) [\n${[0, 3, 6, 9, 12, 15].map((i) => `   ${m.flat().slice(i, i + 3).map(short).join(', ')}`).join(',\n')}\n]`),
  form('a typed array, six a line', (n, m) => `${n} = Float64Array(16) [\n${[0, 6, 12].map((i) => `   ${m.flat().slice(i, i + 6).map(short).join(',  ')}`).join(',\n')}\n]`),
  form('keys from 0', (n, m) => `${n}: {${m.flat().map((v, i) => `"${i}":${short(v)}`).join(',')}}`),
  form('keys from 0 on lines', (n, m) => `"${n}": {\n${m.flat().map((v, i) => `  "${i}": ${short(v)}`).join(',\n')}\n}`),
  form('a struct of vectors in a debugger', (n, m) => `(Camera::Matrix) ${n} = {\n${m.map((row, i) => `  col${i} = (x = ${fixed(row[0]!)}, y = ${fixed(row[1]!)}, z = ${fixed(row[2]!)}, w = ${fixed(row[3]!)})`).join('\n')}\n}`),
  form('a struct of members in a debugger', (n, m) => `${n} = {${m.flat().map((v, i) => `m${names16(0)[i]} = ${short(v)}`).join(', ')}}`),
  form('a watch window', (n, m) => `- ${n} {m=0x000000c2f1cff6a0 {0x000000c2f1cff6a0 {${lines(m, short, ', ').join('}, {')}}}} float[4][4]`),
  form('decimal commas with names', (n, m) => `${n} ${m.flat().map((v, i) => `M${names16(1)[i]}:${comma(v)}`).join(' ')}`, { loose: 6e-6 }),
  form('decimal commas in braces with names', (n, m) => `${n} = { ${m.map((row, r) => `{${row.map((v, c) => `M${r + 1}${c + 1}:${comma(v)}`).join(' ')}}`).join(' ')} }`, { loose: 6e-6 }),
  form('decimal commas and semicolons', (n, m) => `${n}:\n${lines(m, comma, '; ').join('\n')}`, { loose: 6e-6 }),
  form('decimal commas and spaces', (n, m) => `${n}\n${lines(m, comma, '  ').join('\n')}\n`, { loose: 6e-6 }),
  form('a factor before the block', (n, m) => { const k = 10 ** Math.ceil(Math.log10(Math.max(...m.flat().map(Math.abs)) / 10)); return `${n} =\n\n   ${k.toExponential(1).replace(/e([+-])(\d)$/, 'e$10$2')} *\n\n${m.map((row) => row.map((v) => (v / k).toFixed(7).padStart(12)).join('')).join('\n')}\n`; }, { loose: 6e-5 }),
  form('exponents by D', (n, m) => `${n}\n${lines(m, (v) => v.toExponential(8).replace('e', 'D').replace(/([+-])(\d)$/, '$10$2').padStart(17), '').join('\n')}`),
  form('exponents by d', (n, m) => `${n} = [ ${m.flat().map((v) => v.toExponential(7).replace('e', 'd')).join(' ')} ]`),
  form('exponents by E with plus', (n, m) => `${n}:\n${lines(m, (v) => v.toExponential(6).toUpperCase(), '\t').join('\n')}`),
  form('a list said to be by rows', (n, m) => `${n} (row-major): ${m.flat().map(short).join(', ')}`, { order: 'rows' }),
  form('a list said to be by columns', (n, m) => `${n}, column major = { ${m.flat().map(fixed).join(', ')} }`, { order: 'columns' }),
  form('a list with the order behind it', (n, m) => `${n} [${m.flat().map(short).join(' ')}] (column-major)`, { order: 'columns' }),
  form('times and ids in the lines', (n, m) => m.map((row, r) => `[t=${(81.25 + r / 60).toFixed(4)} tid=4711] cam#12 ${n} row${r} ${row.map(fixed).join(' ')}`).join('\n')),
  form('a frame and an address before it', (n, m) => `frame=88123 cmdbuf=0x5581c0de ${n}=(${m.flat().map(short).join(',')})`),
  form('one number a line with its place', (n, m) => m.flatMap((row, r) => row.map((v, c) => `${n}(${r},${c}) = ${fixed(v)}`)).join('\n')),
  form('values of a markup', (n, m) => `<matrix name="${n}">${m.flat().map(short).join(' ')}</matrix>`),
  form('a list under a key', (n, m) => `${n}:\n  rows:\n${lines(m, short, ', ').map((row) => `    - [${row}]`).join('\n')}`),
  form('bars and box drawing', (n, m) => `${n}\n┌ ${lines(m, fixed).join(' ┐\n│ ')} ┘`),
  form('a minus of typesetting', (n, m) => `${n}:\n${lines(m, (v) => fixed(v).replace('-', '−')).join('\n')}`),
  form('wide spaces and a colon', (n, m) => `${n} :\u00a0${m.flat().map(short).join(',\u00a0')}`),
]; // prettier-ignore

const noise: readonly ((d: Dice) => string)[] = [
  () => '',
  (d) => `frame ${Math.floor(d.real(1, 9e4))} took ${d.real(1, 20).toFixed(2)} ms`,
  () => '2026-11-30 12:04:31.207 INFO renderer: swapchain 2560x1440, 3 images',
  (d) => `draw calls: ${Math.floor(d.real(10, 900))}`,
  () => 'camera updated',
];

describe('printed forms', () => {
  it(`of ${forms.length} kinds are read right`, () => {
    const wrong: string[] = [];
    let asked = 0;
    for (let seed = 1; seed <= (soaks ? 200 : 34); seed++)
      for (const [k, { name, print, loose = 0, order }] of forms.entries()) {
        const d = dice(1000 * seed + k);
        const m = cameraOf(d);
        const role = d.of(Object.keys(labels) as Role[]);
        const byRows = order ? order === 'rows' : d.chance(0.5);
        const rows = byRows ? m[role] : [0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((c) => m[role][c]![r]!));
        const text = [d.of(noise)(d), print(d.of(labels[role]), rows, d), d.of(noise)(d)].filter(Boolean).join('\n');
        const items = readPasted(text).items.filter((one) => one.role !== 'unused');
        const [item] = items;
        asked++;
        const right =
          items.length === 1 &&
          item!.role === role &&
          rows.flat().every((v, i) => Math.abs(item!.numbers[i]! - v) <= loose + 1e-6 * Math.max(1, Math.abs(v))) &&
          (order ? item!.order === order : (printedByRows(item!) ?? byRows) === byRows);
        if (!right)
          wrong.push(
            `${name} (${seed}, ${role} ${byRows ? 'by rows' : 'by columns'}):\n${text}\n${JSON.stringify(items.map((one) => [one.kind, one.role, one.by, one.square, one.order, printedByRows(one), one.numbers.length]))}`,
          );
      }
    expect(asked).toBeGreaterThanOrEqual(1000);
    expect(wrong.length / asked, wrong.slice(0, 12).join('\n\n')).toBeLessThanOrEqual(0.005);
  });

  const words =
    'the tide came in and gulls stood on the mole while ferries loaded crates of rope for a long morning'.split(' ');
  const integer = (d: Dice, most: number) => Math.floor(d.real(0, most));
  const texts: readonly ((d: Dice) => string)[] = [
    (d) => Array.from({ length: 60 }, () => (d.chance(0.15) ? String(integer(d, 500)) : d.of(words))).join(' '),
    (d) => Array.from({ length: 12 }, (_, i) => `12:04:${10 + i}.207 [net] client ${integer(d, 90)} ping ${d.real(1, 90).toFixed(1)} ms loss ${d.real(0, 3).toFixed(2)} %`).join('\n'),
    (d) => Array.from({ length: 14 }, (_, i) => `#${i} 0x${(integer(d, 2 ** 30) + 2 ** 30).toString(16)} in update_ship (dt=${d.real(0, 1).toFixed(4)}) at ship.cpp:${integer(d, 900)}`).join('\n'),
    (d) => JSON.stringify({ width: 1920, height: 1080, fov: 60, near: 0.1, far: 500, samples: integer(d, 8), sun: [d.real(-1, 1), d.real(-1, 1), d.real(-1, 1)] }, null, 2),
    (d) => `version 2.${integer(d, 30)}.${integer(d, 9)}, commit 4f2a9c1, 10.0.${integer(d, 255)}.${integer(d, 255)}:8080\nbuild 20261130.${integer(d, 20)}`,
    (d) => `for (int i = 0; i < ${integer(d, 100)}; i++) {\n  sum += weights[i] * 0.${integer(d, 999)}f;\n}\nreturn sum / ${integer(d, 50)}.0f;`,
    (d) => Array.from({ length: 9 }, () => `${integer(d, 40)} × ${d.of(words)} at ${d.real(1, 90).toFixed(2)} each`).join('\n'),
    (d) => `:root { --ink: #${integer(d, 2 ** 24).toString(16).padStart(6, '0')}; margin: ${integer(d, 9)}px ${integer(d, 9)}px; transition: 0.${integer(d, 9)}s; }`,
    (d) => `2026-11-${10 + integer(d, 19)} to 2026-12-${10 + integer(d, 19)}: ${integer(d, 31)} days, ${d.real(1, 9).toFixed(1)} m of tide`,
    (d) => Array.from({ length: 8 }, () => `00${integer(d, 9)}0: ${Array.from({ length: 6 }, () => (integer(d, 256)).toString(16).padStart(2, '0')).join(' ')}`).join('\n'),
    (d) => `[loader] ${integer(d, 3000)} triangles, ${integer(d, 90)} meshes, bounds of the harbour ready after ${d.real(1, 90).toFixed(1)} ms`,
  ]; // prettier-ignore
  it('of texts without a matrix hold nothing', () => {
    const read: string[] = [];
    const asked = soaks ? 5_500 : 550;
    for (let seed = 0; seed < asked; seed++) {
      const text = texts[seed % texts.length]!(dice(seed + 77));
      if (readPasted(text).items.some(({ role }) => role !== 'unused')) read.push(text);
    }
    expect(read.length / asked, read.slice(0, 5).join('\n\n')).toBeLessThanOrEqual(0.01);
  });
});
