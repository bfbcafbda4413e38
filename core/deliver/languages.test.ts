import type { RequestCamera } from '../request/cameraSchema';
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import { presets, type Conventions } from '../conventions/conventions';
import { codecOf } from '../conventions/codec';
import type * as Reflect from 'wgsl_reflect';
import { compilers, quiet, skippedFor, there } from '../testing/compilers';
import { conventionsBy, dice } from '../testing/wrongEngine';
import { emitCode, emitExample, emitHarness, languageOf, setUpOf, sourceOf, type Asked, type CodeWish } from './code';
import { named, Printer } from './print';
import { parseProgram, type Item, type Type } from './program';
import { reservedWords } from './reserved';
import type { SetUp3d } from './cameraSetup';
import { codeParts } from './library';
import { deliverLanguages } from './languages';
import { polygonEdges } from '../testing/polygonEdges';

/*
 * The code of random set-ups, compiled by every compiler that is there, run, and held against the core.
 * A language whose compiler is missing is skipped, and said to be.
 */

// By its module file: what Node would take by the name alone is not one.
const { WgslReflect } = (await import('wgsl_reflect/wgsl_reflect.module.js' as string)) as typeof Reflect; // prettier-ignore
const root = mkdtempSync(join(tmpdir(), 'astrolabe-code-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

/** A random set-up: every form of camera comes about in a few. */
function setUpBy(seed: number): SetUp3d {
  const d = dice(seed * 7919);
  const conventions = conventionsBy(d) as Conventions;
  const e = codecOf(conventions);
  const viewport = { x: d.of([0, 20]), y: d.of([0, 10]), width: 1280, height: 720 };
  const own = (v: readonly [number, number, number]) => [...e.toWorld(v)] as [number, number, number];
  const form = seed % 3;
  const angles = { yaw: e.toAngle(d.real(-2, 2)), pitch: e.toAngle(d.real(-1, 1)), roll: e.toAngle(d.real(-0.5, 0.5)) };
  const orientation: RequestCamera['orientation'] = form === 0 ? angles : form === 1 ? { lookAt: own([d.real(-4, 4), 1, -20]) } : { quaternion: [0, 0, 0, 1] }; // prettier-ignore
  const shift: [number, number] = d.chance(0.6) ? [d.real(-0.4, 0.4), d.real(-0.4, 0.4)] : [0, 0];
  const lens: RequestCamera['projection'] = seed % 4 === 3 ? { kind: 'orthographic', near: 1, far: 90, height: 30, shift } : { kind: 'perspective', near: 0.5, far: seed % 4 === 2 ? null : 120, verticalFov: e.toAngle(d.real(0.5, 1.4)), shift }; // prettier-ignore
  const turned = form === 2 && e.handedness.world !== e.handedness.view ? angles : orientation;
  const made = setUpOf({ position: own([d.real(-9, 9), d.real(1, 9), d.real(-9, 9)]), orientation: turned, projection: lens }, viewport, e, polygonEdges([[-3, -2], [4, -2.5], [5, 6], [-4, 5]])); // prettier-ignore
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value.setUp;
}

const vec = (v: readonly number[]): string =>
  `vec${v.length}(${v.map((one) => (one < 0 ? `-${-one}` : String(one))).join(', ')})`;

/** What is asked of the code, and what the core has for it, number by number. */
function askedOf(setUp: SetUp3d): { asked: Asked[]; wanted: number[][] } {
  const { camera, viewport, e } = setUp;
  const world = e.toWorld([1.5, 2, -14]);
  const behind = e.toWorld([3, 2, 40]);
  const pixel = [310.5, 201.25] as const;
  const queries = [
    { id: 'm', op: 'matrices' },
    { id: 'p', op: 'worldToScreen', points: [world, behind] },
    { id: 'b', op: 'screenToWorld', pixels: [pixel], at: { ahead: 12 } },
    { id: 'r', op: 'rays', pixels: [pixel] },
    { id: 'f', op: 'planes' },
    { id: 'bb', op: 'billboard', items: ['viewPlane', 'eyePoint', 'axisEye'].map((mode) => ({ position: world, size: [1, 1], mode })) },
  ]; // prettier-ignore
  const made = compute({ astrolabe: 1, conventions: e.conventions, viewport, camera, queries });
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  const [m, p, b, r, f, bb] = made.response.results as unknown as [Record<string, number[]>, { points: { screen: number[] | null; depth: number; ahead: number; inFront: boolean }[] }, { pixels: { point: number[] }[] }, { pixels: { origin: number[]; direction: number[] }[] }, { planes: { plane: number[] }[] }, { items: { right: number[]; up: number[]; normal: number[] }[] }]; // prettier-ignore
  const asked: Asked[] = [];
  const wanted: number[][] = [];
  const ask = (text: string, of: readonly number[]) => {
    asked.push({ text, comment: null });
    wanted.push([...of]);
  };
  const frame = 'frame_of(this_camera())';
  ask(`view_matrix(${frame})`, m['view']!);
  ask(`projection_matrix(${frame})`, m['projection']!);
  ask(`view_projection_matrix(${frame})`, m['viewProjection']!);
  ask(`camera_to_world(${frame})`, m['cameraToWorld']!);
  for (const [i, point] of [world, behind].entries()) {
    const { screen, depth, ahead } = p.points[i]!;
    ask(`world_to_screen(${frame}, ${vec(point)})`, screen ? [...screen, depth, ahead, 1] : [0, 0, 0, ahead, 0]);
  }
  ask(`screen_to_world(${frame}, ${vec(pixel)}, 12)`, b.pixels[0]!.point);
  ask(`pixel_ray(${frame}, ${vec(pixel)})`, [...r.pixels[0]!.origin, ...r.pixels[0]!.direction]);
  ask(
    `frustum_of(${frame})`,
    f.planes.flatMap(({ plane }) => plane),
  );
  const outside = (centre: readonly number[], reach: (n: readonly number[]) => number) => Number(f.planes.some(({ plane: [x, y, z, d] }) => x! * centre[0]! + y! * centre[1]! + z! * centre[2]! + d! < -reach([x!, y!, z!]))); // prettier-ignore
  for (const centre of [world, behind]) {
    ask(`sphere_is_outside(frustum_of(${frame}), ${vec(centre)}, 2.5)`, [outside(centre, () => 2.5)]);
    ask(`box_is_outside(frustum_of(${frame}), ${vec(centre)}, vec3(1, 2, 3))`, [outside(centre, (n) => Math.abs(n[0]!) + 2 * Math.abs(n[1]!) + 3 * Math.abs(n[2]!))]); // prettier-ignore
  }
  const perspective = camera.projection.kind === 'perspective';
  const boards = bb.items.map(({ right, up, normal }) => [...right, ...up, ...normal]);
  ask(`board_in_view_plane(${frame})`, boards[0]!);
  const stands = perspective ? `, ${vec(world)}` : '';
  ask(`board_towards_eye(${frame}${stands})`, boards[1]!);
  ask(`board_upright(${frame}${stands})`, boards[2]!);
  ask('may_appear(vec2(0, 1), 0.5, 1)', [0]);
  ask('may_appear(vec2(20, 1), 0.5, 1)', [1]);
  ask('may_appear(vec2(5.5, 1), 0.5, 1)', [0]);
  if (perspective) {
    ask('fov_for_height(10, 7)', [e.toAngle(2 * Math.atan(5 / 7))]);
    const half = Math.tan(e.fromAngle((camera.projection as { verticalFov: number }).verticalFov) / 2);
    ask(`height_at(${frame}, 7)`, [14 * half]);
  }
  ask('follow(1, 9, 2, 0.5, 0.25)', [7 + (1 - 7) * 2 ** -0.5]);
  ask('follow(1, 2.5, 2, 0.5, 0.25)', [1]);
  ask('follow(1, -9, 2, 0, 0.25)', [-7]);
  ask(`key_ahead(${frame}, ${vec(world)})`, [p.points[0]!.ahead]);
  ask(`key_distance(${frame}, ${vec(world)})`, [Math.hypot(...world.map((v, i) => v - camera.position[i]!))]);
  return { asked, wanted };
}

/** The vectors, matrices and functions of HLSL that the code uses, in C++. */
const hlslInCpp = `#include <cmath>
#include <cstdio>
#define row_major
#define column_major
using std::sin; using std::cos; using std::tan; using std::asin; using std::acos; using std::atan; using std::sqrt;
using std::abs; using std::floor; using std::exp2;
static float min(float a, float b) { return a < b ? a : b; }
static float max(float a, float b) { return a > b ? a : b; }
struct float2 { float x, y; float2() {} float2(float a, float b) : x(a), y(b) {} };
struct float3 { float x, y, z; float3() {} float3(float a, float b, float c) : x(a), y(b), z(c) {} };
static float2 operator+(float2 a, float2 b) { return float2(a.x + b.x, a.y + b.y); }
static float2 operator-(float2 a, float2 b) { return float2(a.x - b.x, a.y - b.y); }
static float2 operator*(float2 a, float k) { return float2(a.x * k, a.y * k); }
static float3 operator+(float3 a, float3 b) { return float3(a.x + b.x, a.y + b.y, a.z + b.z); }
static float3 operator-(float3 a, float3 b) { return float3(a.x - b.x, a.y - b.y, a.z - b.z); }
static float3 operator-(float3 a) { return float3(-a.x, -a.y, -a.z); }
static float3 operator*(float3 a, float k) { return float3(a.x * k, a.y * k, a.z * k); }
static float dot(float3 a, float3 b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
static float length(float3 a) { return sqrt(dot(a, a)); }
static float3 normalize(float3 a) { return a * (1 / length(a)); }
static float3 cross(float3 a, float3 b) { return float3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x); }
struct float4x4 {
  float m[4][4];
  template <class... T> float4x4(T... v) { const float list[16] = {float(v)...}; for (int i = 0; i < 16; i++) m[i / 4][i % 4] = list[i]; }
  float* operator[](int r) { return m[r]; }
};
static float4x4 mul(float4x4 a, float4x4 b) {
  float4x4 p(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0);
  for (int r = 0; r < 4; r++) for (int c = 0; c < 4; c++) for (int k = 0; k < 4; k++) p.m[r][c] += a.m[r][k] * b.m[k][c];
  return p;
}
`;
/** Expressions of a program in HLSL, each with its type. */
function hlslCalls(setUp: SetUp3d, own: CodeWish, asked: readonly Asked[]) {
  const items = parseProgram(`${sourceOf(setUp, own)}\n${asked.map(({ text }, i) => `const asked_${i} = ${text};`).join('\n')}`); // prettier-ignore
  const { vectors } = setUp.e.conventions.matrix;
  const printer = new Printer(languageOf('HLSL')!, { number: 'float', naming: 'own', listing: { vectors, columns: setUp.e.listsColumns } }).knows(items); // prettier-ignore
  const calls = items.flatMap((one) => one.kind === 'const' && one.name.startsWith('asked_') ? [{ text: printer.expr(one.value), type: one.value.type }] : []); // prettier-ignore
  return { items, calls };
}
/** C++ that prints the numbers of a value, matrices in the listing. */
function printOf(
  text: string,
  type: Type,
  items: readonly Item[],
  byColumns: boolean,
  vectors: 'column' | 'row',
): string {
  const one = (value: string) => `printf("%.9g\\n", double(${value}));`;
  const all = (of: Type, value: string): string[] => {
    if (of === 'mat4')
      return Array.from({ length: 16 }, (_, k) => {
        const [r, c] = byColumns ? [k % 4, k >> 2] : [k >> 2, k % 4];
        return one(vectors === 'column' ? `${value}[${r}][${c}]` : `${value}[${c}][${r}]`);
      });
    if (of === 'vec2' || of === 'vec3')
      return [...(of === 'vec2' ? 'xy' : 'xyz')].map((axis) => one(`${value}.${axis}`));
    if (typeof of === 'object' && 'of' in of)
      return Array.from({ length: of.count }, (_, i) => all(of.of, `${value}[${i}]`)).flat();
    if (typeof of === 'object') {
      const struct = items.find((item) => item.kind === 'struct' && item.name === of.struct);
      return struct?.kind === 'struct'
        ? struct.fields.flatMap((field) => all(field.type, `${value}.${field.name}`))
        : [];
    }
    return [one(value)];
  };
  return `{ auto v = ${text}; ${all(type, 'v').join(' ')} }`;
}

const wish = (language: string, number: CodeWish['number'], naming: CodeWish['naming'] = 'own'): CodeWish => ({ language, parts: codeParts, number, naming, constants: true }); // prettier-ignore

describe.each(Object.entries(compilers))('code in %s', (name, { needs, files, build }) => {
  const missing = needs.filter((program) => !there(program));
  const language = deliverLanguages.find((one) => one.name === name)!;
  const cases = [[1, 'double', 'own'], [2, 'double', 'own'], [3, 'double', 'camel'], [4, 'float', 'own']] as const; // prettier-ignore
  it.skipIf(missing.length > 0).each(cases)(
    `of set-up %i in %ss is compiled without a warning and has the core’s numbers${skippedFor(needs)}`,
    (seed, number, naming) => {
      const setUp = setUpBy(seed);
      const { asked, wanted } = askedOf(setUp);
      const own = wish(name, number, naming);
      const at = join(root, `${name.replace(/\W/g, 'x')}-${seed}`);
      const file = emitCode(setUp, own);
      files(at, { [file.name]: file.text, [language.mainFile]: emitExample(setUp, own, asked) });
      const printed = quiet(at, ...build(at, language.mainFile)).trim().split('\n').map((line) => (line === 'true' ? 1 : line === 'false' ? 0 : Number(line))); // prettier-ignore
      const flat = wanted.flat();
      expect(printed).toHaveLength(flat.length);
      let next = 0;
      wanted.forEach((list, i) => {
        const size = Math.max(1, ...list.map(Math.abs));
        for (const v of list) expect(Math.abs(printed[next++]! - v) / size, `${asked[i]!.text}: ${printed[next - 1]} for ${v}`).toBeLessThan(number === 'double' ? 1e-12 : 2e-5); // prettier-ignore
      });
      expect(language.file).toBe(file.name);
    },
    120_000,
  );
}); // prettier-ignore

describe('the code of one camera', () => {
  // Read by eye when they change: what is written is what a user takes home.
  it.each(deliverLanguages.map(({ name, file }) => [name, file]))(
    'in %s is as it was read last',
    async (name, file) => {
      const e = codecOf(presets.WebGPU);
      const camera = { position: [-6, 14, 64] as [number, number, number], orientation: { yaw: 6, pitch: -8, roll: 0 }, projection: { kind: 'perspective' as const, near: 5, far: 140, verticalFov: 36 } }; // prettier-ignore
      const made = setUpOf(
        camera,
        { x: 0, y: 0, width: 1280, height: 720 },
        e,
        polygonEdges([
          [-6, 0],
          [10, -2],
          [9, 8],
          [-5, 7],
        ]),
      );
      if (!made.ok) throw new Error('a proper camera');
      const { text } = emitCode(made.value.setUp, wish(name!, 'double'));
      await expect(text).toMatchFileSnapshot(`golden/${file}.golden`);
      const { harnessFile } = deliverLanguages.find((one) => one.name === name)!;
      await expect(emitHarness(made.value.setUp, wish(name!, 'double'))).toMatchFileSnapshot(`golden/${name === 'WGSL' ? 'wgsl.' : ''}${harnessFile}.golden`); // prettier-ignore
    },
  );
});

describe('shaders', () => {
  it('WGSL is parsed, with its functions and structs', () => {
    for (const seed of [1, 2, 3, 4]) {
      const setUp = setUpBy(seed);
      const found = new WgslReflect(emitCode(setUp, wish('WGSL', 'float')).text);
      expect(found.functions.map(({ name }) => name)).toEqual(expect.arrayContaining(['frame_of', 'world_to_screen', 'this_camera'])); // prettier-ignore
      expect(found.structs.map(({ name }) => name)).toContain('Frustum');
      expect(() => new WgslReflect(emitCode(setUp, wish('WGSL', 'float')).text.replace('return', 'retrun'))).toThrow();
    }
  });

  it.skipIf(!there('glslangValidator'))(
    `HLSL and its harness are taken by the reference compiler’s front end${skippedFor(['glslangValidator'])}`,
    () => {
      for (const seed of [1, 2, 3, 4]) {
        const setUp = setUpBy(seed);
        const folder = join(root, `hlsl-${seed}`);
        mkdirSync(folder, { recursive: true });
        const own = wish('HLSL', 'float');
        writeFileSync(join(folder, 'camera.hlsl'), emitCode(setUp, own).text);
        const harness = emitHarness(setUp, own).replace('#include "camera.hlsl"', emitCode(setUp, own).text);
        writeFileSync(join(folder, 'harness.comp'), harness);
        execFileSync('glslangValidator', ['-D', '-V', '-e', 'main', '-o', join(folder, 'out.spv'), join(folder, 'harness.comp')], { encoding: 'utf8' }); // prettier-ignore
      }
    },
  );

  it.skipIf(!there('g++'))(
    `HLSL has the core’s numbers, run as C++ with its types${skippedFor(['g++'])}`,
    () => {
      for (const seed of [1, 2, 3, 4, 5, 6]) {
        const setUp = setUpBy(seed);
        const { asked, wanted } = askedOf(setUp);
        const own = wish('HLSL', 'float');
        const folder = join(root, `hlsl-run-${seed}`);
        const { items, calls } = hlslCalls(setUp, own, asked);
        const file = emitCode(setUp, own);
        const [e] = [setUp.e];
        const lines = calls.map(({ text, type }) => printOf(text, type, items, e.listsColumns, e.conventions.matrix.vectors)); // prettier-ignore
        compilers['C++']!.files(folder, { 'hlsl.h': hlslInCpp, 'main.cpp': `#include "hlsl.h"\n${file.text}\nint main() {\n${lines.join('\n')}\n}\n` }); // prettier-ignore
        // Warnings are about C++, and the code is HLSL.
        execFileSync('g++', ['-std=c++17', '-w', 'main.cpp', '-o', 'main'], { cwd: folder, encoding: 'utf8' });
        const printed = execFileSync(join(folder, 'main'), { encoding: 'utf8' }).trim().split('\n').map(Number);
        expect(printed).toHaveLength(wanted.flat().length);
        let next = 0;
        wanted.forEach((list, i) => {
          const size = Math.max(1, ...list.map(Math.abs));
          for (const v of list)
            expect(Math.abs(printed[next++]! - v) / size, `${seed} ${asked[i]!.text}`).toBeLessThan(2e-5);
        });
      }
    },
    120_000,
  );

  it.skipIf(!there('glslangValidator'))(
    `GLSL is taken by the reference compiler${skippedFor(['glslangValidator'])}`,
    () => {
      for (const seed of [1, 2, 3, 4]) {
        const { text } = emitCode(setUpBy(seed), wish('GLSL', 'float'));
        const file = join(root, `camera-${seed}.frag`);
        writeFileSync(file, `#version 300 es\nprecision highp float;\n${text}\nout vec4 colour;\nvoid main() { colour = vec4(world_to_screen(frame_of(this_camera()), vec3(1.0)).x); }\n`); // prettier-ignore
        execFileSync('glslangValidator', [file], { encoding: 'utf8' });
      }
    },
  );
});

describe('code beside what real projects define', () => {
  /** A camera of reversed depth, from a tenth of a unit to thousands. */
  const reversed = (far: number | null, kind: 'perspective' | 'orthographic' = 'perspective') => {
    const e = codecOf({ ...presets.WebGPU, ndc: { up: '+y', near: 1, far: 0 } });
    const projection: RequestCamera['projection'] =
      kind === 'perspective'
        ? { kind, near: 0.1, far, verticalFov: e.toAngle(1) }
        : { kind, near: 0.1, far: far!, height: 20 };
    const made = setUpOf({ position: [0, 0, 0], orientation: { yaw: 0, pitch: 0, roll: 0 }, projection }, { x: 0, y: 0, width: 1280, height: 720 }, e, polygonEdges([[-3, -2], [4, -2.5], [5, 6], [-4, 5]])); // prettier-ignore
    if (!made.ok) throw new Error(JSON.stringify(made.problems));
    return made.value.setUp;
  };
  /** What a program in C or C++ prints, compiled after some lines. */
  const printed = (name: 'C' | 'C++', setUp: SetUp3d, number: CodeWish['number'], asked: readonly Asked[], before: readonly string[], folder: string) => {
    const language = deliverLanguages.find((one) => one.name === name)!;
    const { files, build } = compilers[name]!;
    const at = join(root, folder);
    const file = emitCode(setUp, wish(name, number));
    files(at, { [file.name]: [...before, file.text].join('\n'), [language.mainFile]: emitExample(setUp, wish(name, number), asked) });
    return quiet(at, ...build(at, language.mainFile)).trim().split('\n').map(Number);
  }; // prettier-ignore
  const ask = (text: string): Asked => ({ text, comment: null });

  it.skipIf(!there('gcc') || !there('g++')).each(['C', 'C++'] as const)(
    `in %s compiles after the macros of a widespread platform header${skippedFor(['gcc', 'g++'])}`,
    (name) => {
      const before = ['#include <math.h>', ...(name === 'C++' ? ['#include <algorithm>', '#include <cmath>'] : []), '#define near', '#define far', '#define small char', '#define min(a, b) (((a) < (b)) ? (a) : (b))', '#define max(a, b) (((a) > (b)) ? (a) : (b))', '#define IN', '#define OUT', '#define interface struct', '#define pascal']; // prettier-ignore
      const out = printed(name, reversed(500), 'double', [ask('view_matrix(frame_of(this_camera()))')], before, `macros-${name.length}`); // prettier-ignore
      expect(out.every(Number.isFinite)).toBe(true);
    },
  );

  // Of a float near 1 the digits of 1 minus it are lost: far away, reversed depth is the small number itself.
  it.skipIf(!there('gcc')).each([
    [500, 499],
    [5_000, 4_990],
    [null, 40_000],
  ] as const)(`in floats, depth reversed and far at %s, keeps its digits at %i${skippedFor(['gcc'])}`, (far, ahead) => {
    const setUp = reversed(far);
    const point = setUp.e.toWorld([0, 0, -ahead]);
    const answered = compute({ astrolabe: 1, conventions: setUp.e.conventions, viewport: setUp.viewport, camera: setUp.camera, queries: [{ id: 'p', op: 'worldToScreen', points: [point] }, { id: 'm', op: 'matrices' }] }); // prettier-ignore
    if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
    const [p, m] = answered.response.results as unknown as [{ points: { depth: number }[] }, { projection: number[] }];
    const frame = 'frame_of(this_camera())';
    const out = printed('C', setUp, 'float', [ask(`world_to_screen(${frame}, ${vec(point)})`), ask(`projection_matrix(${frame})`)], [], `digits-${far}`); // prettier-ignore
    expect(Math.abs(out[2]! / p.points[0]!.depth - 1)).toBeLessThan(1e-4);
    m.projection.forEach((v, i) => expect(Math.abs(out[5 + i]! - v)).toBeLessThanOrEqual(2e-6 * Math.abs(v)));
  });

  it('has no name that a language has for itself, in any naming', () => {
    for (const language of deliverLanguages) {
      const reserved = reservedWords[language.name]!;
      expect(reserved.size, language.name).toBeGreaterThan(20);
      for (const naming of ['own', 'snake', 'camel', 'pascal'] as const)
        for (const seed of [1, 2, 3, 4]) {
          const setUp = setUpBy(seed);
          const style = { number: 'double', naming, listing: { vectors: 'column', columns: true } } as const;
          for (const item of parseProgram(sourceOf(setUp, wish(language.name, 'double')))) {
            const names = [named(item.name, item.kind === 'fn' ? 'fn' : item.kind === 'struct' ? 'type' : 'const', language, style)]; // prettier-ignore
            if (item.kind === 'fn') names.push(...item.params.map(({ name }) => named(name, 'value', language, style)));
            if (item.kind === 'struct') names.push(...item.fields.map(({ name }) => named(name, 'field', language, style))); // prettier-ignore
            for (const name of names) expect(reserved.has(name), `${name} in ${language.name}`).toBe(false);
          }
        }
    }
    const style = { number: 'float', naming: 'own', listing: { vectors: 'column', columns: true } } as const;
    expect(named('point', 'value', languageOf('HLSL')!, style)).toBe('point_');
    expect(named('point', 'value', languageOf('C')!, style)).toBe('point');
  });

  it('is found by the names that people type', () => {
    for (const [typed, name] of [
      ['cpp', 'C++'],
      ['c++', 'C++'],
      ['cs', 'C#'],
      ['csharp', 'C#'],
      ['ts', 'TypeScript'],
      ['js', 'JavaScript'],
      ['hlsl', 'HLSL'],
      ['py', 'Python'],
      ['rs', 'Rust'],
      ['golang', 'Go'],
      [' GLSL ', 'GLSL'],
    ] as const)
      // prettier-ignore
      expect(languageOf(typed)?.name).toBe(name);
    expect(languageOf('basic')).toBeNull();
  });
});
