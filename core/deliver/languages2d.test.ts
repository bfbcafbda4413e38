import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import type * as Reflect from 'wgsl_reflect';
import { readAnswers, vectorsTable } from '../../formats/vectors';
import { affineOf, applyAffine, snapAffine } from '../request/affine2d';
import { fitZoom, screenFits } from '../camera/fit';
import { compute } from '../compute/compute';
import { case2dBy } from '../testing/case2d';
import { compilers, quiet, skippedFor, there } from '../testing/compilers';
import { mutants2d } from '../testing/mutants2d';
import { runs, soaks } from '../testing/seed';
import type { SetUp2d } from './cameraSetup';
import { emitCode, emitExample, emitHarness, printSource, sourceOf, vectorsOfParts, type Asked, type CodeWish } from './code'; // prettier-ignore
import { deliverLanguages } from './languages';
import { codeParts2d } from './library2d';
import { checkAnswers } from './checkVectors';
import { vectorsOf, type Vectors } from './vectors';

/*
 * The code of 2D cameras, compiled by every compiler that is there, run over test vectors, and compared with the
 * core; and faults put into it, each found by a row.
 */

// By its module file: Node resolves the bare name to another format.
const { WgslReflect } = (await import('wgsl_reflect/wgsl_reflect.module.js' as string)) as typeof Reflect; // prettier-ignore
const root = mkdtempSync(join(tmpdir(), 'astrolabe-code2d-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

const wish = (language: string, number: CodeWish['number'] = 'double', constants = true): CodeWish => ({ ...{ language, number, constants, parts: codeParts2d }, naming: 'own' }); // prettier-ignore

function caseOf(seed: number): { setUp: SetUp2d; vectors: Vectors } {
  const { camera, viewport, codec, request } = case2dBy(seed);
  const given = vectorsOf(request, 14, seed);
  if (!given.ok) throw new Error(JSON.stringify(given.problem));
  return { setUp: { camera, viewport, e: codec }, vectors: given.vectors };
}

/** Asks for everything that test vectors do not, with the numbers of the core. */
function askedOf({ camera, viewport, e }: SetUp2d): { asked: Asked[]; expected: number[][] } {
  const asked: Asked[] = [];
  const expected: number[][] = [];
  const ask = (text: string, of: readonly number[]) => {
    asked.push({ text, comment: null });
    expected.push([...of]);
  };
  const frame = 'frame_of(this_camera())';
  const screen = { width: 1000, height: 900 };
  const made = compute({ astrolabe: 1, conventions: e.conventions, viewport, camera, queries: [{ id: 'm', op: 'matrices' }] }); // prettier-ignore
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  const [{ viewProjection }] = made.response.results as unknown as [{ viewProjection: number[] }];
  ask(`view_projection_matrix(${frame})`, viewProjection);
  for (const [fit, name] of [
    ['keepHeight', 'keep_height'],
    ['keepWidth', 'keep_width'],
    ['showAll', 'show_all'],
    ['fillAndCrop', 'fill_and_crop'],
  ] as const)
    // prettier-ignore
    ask(`zoom_${name}(${frame}, vec2(1000, 900))`, [fitZoom(fit, camera.zoom, viewport, screen)]);
  ask(`zoom_stretch(${frame}, vec2(1000, 900))`, [(camera.zoom * 1000) / viewport.width, (camera.zoom * 900) / viewport.height]); // prettier-ignore
  const [width, height] = [Math.round(viewport.width / 2), Math.round(viewport.height / 2)];
  ask(`letterbox(${frame}, ${frame}.zoom / 2, vec2(1000, 900))`, [Math.floor((1000 - width) / 2), Math.floor((900 - height) / 2), width, height]); // prettier-ignore
  ask('snap_floor(-1.5)', [-2]);
  ask('snap_round(-1.5)', [-1]);
  ask('follow(1, 9, 2, 0.5, 0.25)', [7 + (1 - 7) * 2 ** -0.5]);
  // Places left of the viewport by 30 units: clear of it by a radius and padding of 29, not of 31.
  const toPixel = snapAffine(affineOf(camera, e), camera.snap);
  const determinant = toPixel.a * toPixel.d - toPixel.b * toPixel.c;
  const half = e.conventions.screen.pixelCentre === 0 ? 0.5 : 0;
  const [x, y] = [viewport.x - half - 30 * camera.zoom - toPixel.tx, viewport.y + viewport.height / 2 - toPixel.ty];
  const left = [(toPixel.d * x - toPixel.b * y) / determinant, (toPixel.a * y - toPixel.c * x) / determinant];
  const text = `vec2(${left.map((v) => (v < 0 ? `-${-v}` : String(v))).join(', ')})`;
  ask(`may_appear(${frame}, ${text}, 20, 9)`, [1]);
  ask(`may_appear(${frame}, ${text}, 20, 11)`, [0]);
  ask(`may_appear(${frame}, this_camera().focus, 1, 1)`, [0]);
  const [higher, lower] = [[1, 2], [3, -4]].map((p) => applyAffine(toPixel, [p[0]!, p[1]!])[1] - toPixel.ty); // prettier-ignore
  const sign = e.conventions.screen.origin === 'top-left' ? -1 : 1;
  ask(`key_screen_height(${frame}, vec2(1, 2))`, [sign * higher!]);
  ask(`key_screen_height(${frame}, vec2(3, -4))`, [sign * lower!]);
  return { asked, expected };
}

const nameOf = (name: string, what: string | number) => join(root, `${name}-${what}`.replace(/[^\w/-]/g, 'x'));

/** What the harness of a language answers to test vectors. */
function answersOf(
  name: string,
  folder: string,
  code: { name: string; text: string },
  harness: string,
  vectors: Vectors,
) {
  // prettier-ignore
  const language = deliverLanguages.find((one) => one.name === name)!;
  const at = nameOf(name, folder);
  const { files, build } = compilers[name]!;
  files(at, { [code.name]: code.text, [language.harnessFile]: harness, 'vectors.csv': vectorsTable(vectors) });
  const [program, args] = build(at, language.harnessFile);
  const answers = readAnswers(quiet(at, program, [...args, 'vectors.csv']));
  if (typeof answers === 'string') throw new Error(answers);
  return answers;
}

describe.each(Object.entries(compilers).map(([name, { needs }], i) => ({ name, needs, i })))(
  'the code of a 2D camera in $name',
  ({ name, needs, i }) => {
    const able = needs.every(there);
    it.skipIf(!able)(
      `has every row of its test vectors right, in doubles and in floats${skippedFor(needs)}`,
      () => {
        for (const [seed, number] of [
          [1 + i, 'double'],
          [2 + i, 'float'],
        ] as const) {
          // prettier-ignore
          const { setUp, vectors } = caseOf(seed);
          const own = wish(name, number, number === 'double');
          const answers = answersOf(name, `rows-${seed}`, emitCode(setUp, own), emitHarness(setUp, own), vectors);
          const { wrong, rows } = checkAnswers(vectors, answers, number === 'double' ? 1e-9 : 1e-4);
          expect(rows.filter(({ ok }) => !ok), `${seed}`).toEqual([]); // prettier-ignore
          expect(wrong).toBe(0);
        }
      },
      120_000,
    );

    it.skipIf(!able)(
      `has the core’s numbers in every other function${skippedFor(needs)}`,
      () => {
        const { setUp } = caseOf(3 + i);
        const { asked, expected } = askedOf(setUp);
        const { files, build } = compilers[name]!;
        const language = deliverLanguages.find((one) => one.name === name)!;
        const own = wish(name);
        const file = emitCode(setUp, own);
        // A 2D camera has no third coordinate.
        expect(file.text).not.toMatch(/vec3/i);
        const at = nameOf(name, 'others');
        files(at, { [file.name]: file.text, [language.mainFile]: emitExample(setUp, own, asked) });
        const printed = quiet(at, ...build(at, language.mainFile)).trim().split('\n').map((line) => (line === 'true' ? 1 : line === 'false' ? 0 : Number(line))); // prettier-ignore
        expect(printed).toHaveLength(expected.flat().length);
        let next = 0;
        expected.forEach((list, k) => {
          const size = Math.max(1, ...list.map(Math.abs));
          for (const v of list) expect(Math.abs(printed[next++]! - v) / size, `${asked[k]!.text}: ${printed[next - 1]} for ${v}`).toBeLessThan(1e-10); // prettier-ignore
        });
      },
      120_000,
    );

    const isQuick = name === 'Python' || name === 'Lua';
    const faults = Object.entries(mutants2d).filter((_, k) => soaks || (isQuick && k % 2 === i % 2));
    it.skipIf(!able).each(faults)(
      `has a row wrong where %s is put into the code${skippedFor(needs)}`,
      (fault, edit) => {
        // The first case that snaps and has its viewport off the corner.
        const { setUp, vectors } = Array.from({ length: 60 }, (_, k) => caseOf(k + 1)).find(({ setUp: { camera, viewport } }) => camera.snap === 'round' && viewport.x && viewport.y)!; // prettier-ignore
        const isInDegrees = setUp.e.conventions.angles.unit === 'degrees';
        const source = edit!(sourceOf(setUp, wish(name))).replaceAll('OTHER', isInDegrees ? '1' : 'pi / 180');
        const pi =
          source.includes('const pi') || !source.includes('pi /') ? '' : 'const pi = 3.14159265358979323846;\n';
        const code = printSource(pi + source, setUp.e, wish(name));
        const answers = answersOf(name, `fault-${fault}`, code, emitHarness(setUp, wish(name)), vectors);
        const { wrong, explanations } = checkAnswers(vectors, answers, 1e-9);
        expect(wrong, fault).toBeGreaterThan(0);
        expect(explanations.length, fault).toBeGreaterThan(0);
      },
      120_000,
    );
  },
);

describe('the code of a 2D camera in shading languages', () => {
  it('WGSL is parsed, with its functions', () => {
    for (const seed of [1, 2, 3]) {
      const found = new WgslReflect(emitCode(caseOf(seed).setUp, wish('WGSL', 'float')).text);
      expect(found.functions.map(({ name }) => name)).toEqual(expect.arrayContaining(['frame_of', 'world_to_screen', 'layer_to_screen', 'this_camera'])); // prettier-ignore
    }
  });

  it.skipIf(!there('glslangValidator'))(
    `GLSL and HLSL are taken by the reference compiler${skippedFor(['glslangValidator'])}`,
    () => {
      for (const seed of [1, 2, 3]) {
        const { setUp } = caseOf(seed);
        const folder = nameOf('shaders', seed);
        mkdirSync(folder, { recursive: true });
        const { text } = emitCode(setUp, wish('GLSL', 'float'));
        writeFileSync(join(folder, 'camera.frag'), `#version 300 es\nprecision highp float;\n${text}\nout vec4 colour;\nvoid main() { colour = vec4(world_to_screen(frame_of(this_camera()), vec2(1.0)).x); }\n`); // prettier-ignore
        execFileSync('glslangValidator', [join(folder, 'camera.frag')], { encoding: 'utf8' });
        const own = wish('HLSL', 'float');
        const harness = emitHarness(setUp, own).replace('#include "camera.hlsl"', emitCode(setUp, own).text);
        writeFileSync(join(folder, 'harness.comp'), harness);
        execFileSync('glslangValidator', ['-D', '-V', '-e', 'main', '-o', join(folder, 'out.spv'), join(folder, 'harness.comp')], { encoding: 'utf8' }); // prettier-ignore
      }
    },
  );
});

describe('test vectors of 2D cameras', () => {
  it('are the same by a seed, of the parts that are asked for, and every fault that shows fails a row', () => {
    for (let seed = 1; seed <= runs(30); seed++) {
      const { vectors } = caseOf(seed);
      expect(caseOf(seed).vectors).toEqual(vectors);
      const detectsOf = (id: string) => vectors.rows.find((row) => row.id === id)!.detects;
      expect(vectors.undetected!.filter((fault) => fault !== 'unprojectViewportOffset')).toEqual([]);
      expect(new Set(vectors.rows.flatMap(({ detects }) => detects)).size).toBeGreaterThan(22);
      // The matrices are before snapping.
      expect(detectsOf('worldToPixel')).not.toContain('snapMissing');
      expect(detectsOf('visible')).not.toContain('transposed');
    }
    const { vectors } = caseOf(1);
    expect(new Set(vectorsOfParts(vectors, ['camera', 'visible', 'fit']).rows.map(({ kind }) => kind))).toEqual(new Set(['visible', 'integerZoom', 'zoomKeepHeight', 'zoomKeepWidth', 'zoomShowAll', 'zoomFillAndCrop', 'zoomStretch', 'letterbox'])); // prettier-ignore
  });

  it('have the zoom of whole multiples by world units: 6 on 1920 × 1080 and 3 on 1024 × 768 of 320 × 180 at 4', () => {
    const camera = { kind: '2d', focus: [0, 0], anchor: [640, 360], zoom: 4 };
    const { conventions } = case2dBy(1).codec;
    const given = vectorsOf({ astrolabe: 1, conventions, viewport: { width: 1280, height: 720 }, camera, queries: [] }, 3, 1); // prettier-ignore
    if (!given.ok) throw new Error(JSON.stringify(given.problem));
    const zoomOn = (width: number, height: number) => given.vectors.rows.find(({ kind, input }) => kind === 'integerZoom' && input[0] === width && input[1] === height)!.expected; // prettier-ignore
    expect([zoomOn(1920, 1080), zoomOn(1024, 768)]).toEqual([[6], [3]]);
    expect(screenFits).toHaveLength(7);
  });
});
