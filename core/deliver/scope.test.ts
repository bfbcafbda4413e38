import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { readAnswers, vectorsTable } from '../../formats/vectors';
import { quiet, skippedFor, there } from '../testing/compilers';
import { presets } from '../conventions/conventions';
import { runs } from '../testing/seed';
import { checkedRows } from './checkedRows';
import { checkAnswers } from './checkVectors';
import { deliverLanguages } from './languages';
import { emitCode, emitHarness, type CodeWish } from './code';
import { codeParts3d } from './library';
import { scopeProblem } from './scope';
import { setUpOfRequest } from './setUp';
import { vectorsOf } from './vectors';

const root = mkdtempSync(join(tmpdir(), 'astrolabe-scope-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

const camera = { position: [3, 20, 7], orientation: { yaw: 25, pitch: -60 }, projection: { kind: 'perspective', near: 0.5, far: 120, verticalFov: 50 } }; // prettier-ignore
const request = { astrolabe: 1, viewport: { width: 1280, height: 720 }, camera, queries: [] };
const made = setUpOfRequest(request);
const given = vectorsOf(request, 6, 1);
if (!made.ok || !given.ok) throw new Error('a proper camera');
const { vectors } = given;

/** Warnings of which any fails a build. */
const warnings = ['-Wall', '-Wextra', '-Wpedantic', '-Werror', '-Wconversion', '-Wsign-conversion'];
const wishOf = (language: string, scope: string, number: CodeWish['number']): CodeWish => ({ language, scope, number, parts: codeParts3d, naming: 'own', constants: true }); // prettier-ignore

const cases = [
  { compiler: 'gcc', language: 'C', standard: '-std=c99', scope: 'harbour_', second: 'other_' },
  { compiler: 'clang', language: 'C', standard: '-std=c99', scope: 'harbour_', second: 'other_' },
  { compiler: 'g++', language: 'C++', standard: '-std=c++11', scope: 'engine::camera', second: 'other' },
  { compiler: 'clang++', language: 'C++', standard: '-std=c++11', scope: 'engine::camera', second: 'other' },
] as const;

describe('exported names', () => {
  describe.each(cases)('in $language by $compiler', ({ compiler, language, standard, scope, second }) => {
    it.skipIf(!there(compiler)).each(['double', 'float'] as const)(
      `take a scope, beside a second file of another, without a warning in %ss${skippedFor([compiler])}`,
      (number) => {
        const code = emitCode(made.setUp, wishOf(language, scope, number));
        const other = emitCode(made.setUp, wishOf(language, second, number));
        const ending = language === 'C' ? 'c' : 'cpp';
        const put = (name: string, text: string) => writeFileSync(join(root, name), text);
        put(code.name, code.text);
        put(`other-${code.name}`, other.text);
        const harness = emitHarness(made.setUp, wishOf(language, scope, number));
        put(`harness.${ending}`, `#include "other-${code.name}"\n${harness}`);
        put('vectors.csv', vectorsTable(vectors));
        // Functions of the second file are not called.
        quiet(root, compiler, [standard, ...warnings, '-Wno-unused-function', `harness.${ending}`, '-o', 'main', ...(language === 'C' ? ['-lm'] : [])]); // prettier-ignore
        const answers = readAnswers(quiet(root, './main', ['vectors.csv']));
        if (typeof answers === 'string') throw new Error(answers);
        const { wrong, rows } = checkAnswers(vectors, answers, number === 'double' ? 1e-9 : 1e-5);
        expect(rows.filter(({ ok }) => !ok)).toEqual([]);
        expect(wrong).toBe(0);
        if (language === 'C') expect(code.text).not.toMatch(/^static inline \w+ (?!harbour_)/m);
      },
      60_000,
    );
  });

  it('state the version, the command and the conventions in the first comment of every language', () => {
    const { text } = emitCode(made.setUp, wishOf('C', 'harbour_', 'float'));
    expect(text.split('\n').slice(0, 6)).toEqual([
      expect.stringMatching(/^\/\/ Camera mathematics by Astrolabe \d+\.\d+\.\d+\. Written by:$/),
      '//   astrolabe code REQUEST.json --language C --number float --prefix harbour_',
      '// World: right +x, up +y, forward -z. View: right +x, up +y, forward -z.',
      '// NDC: y up, depth 0 at near and 1 at far. Screen: from the top left, pixel centres at 0.5.',
      '// Matrices: column vectors, column-major. Angles: degrees, yaw right, pitch up, roll right positive.',
      '// Needs C99.',
    ]);
    for (const { name, comment } of deliverLanguages)
      expect(emitCode(made.setUp, { ...wishOf(name, '', 'float'), scope: undefined }).text).toMatch(
        new RegExp(`^${comment} Camera mathematics by Astrolabe .*\\n${comment}   astrolabe code REQUEST\\.json --language ${name.replace(/\+/g, '\\+')}`),
      );
  }); // prettier-ignore

  it.skipIf(!there('gcc'))(`in floats have every row right by the usual tolerance, at any count and seed${skippedFor(['gcc'])}`, () => {
    const cases = [
      { near: 0.1, far: null, conventions: { ...presets.WebGPU, ndc: { up: '+y', near: 1, far: 0 } } },
      { near: 0.05, far: 5000, conventions: presets.Vulkan },
      { near: 0.5, far: 120, conventions: { ...presets.WebGL, ndc: { up: '+y', near: 1, far: -1 } } },
    ];
    for (const [i, { near, far, conventions }] of cases.entries()) {
      const own = { ...request, conventions, camera: { ...camera, projection: { kind: 'perspective', near, far, verticalFov: conventions.angles.unit === 'degrees' ? 50 : 0.9 } } }; // prettier-ignore
      const setUp = setUpOfRequest(own);
      if (!setUp.ok) throw new Error(JSON.stringify(setUp.problem));
      writeFileSync(join(root, 'camera.h'), emitCode(setUp.setUp, wishOf('C', '', 'float')).text);
      writeFileSync(join(root, 'harness.c'), emitHarness(setUp.setUp, wishOf('C', '', 'float')));
      quiet(root, 'gcc', ['-std=c99', '-O1', 'harness.c', '-o', 'main', '-lm']);
      for (let seed = 1; seed <= runs(8); seed++) {
        const some = vectorsOf(own, [7, 60, 300][seed % 3]!, seed + 100 * i);
        if (!some.ok) throw new Error('a proper camera');
        writeFileSync(join(root, 'vectors.csv'), vectorsTable(some.vectors));
        const answers = readAnswers(quiet(root, './main', ['vectors.csv']));
        if (typeof answers === 'string') throw new Error(answers);
        expect(checkedRows(some.vectors.rows, answers, 1e-5).filter(({ ok }) => !ok)).toEqual([]);
      }
    }
  }); // prettier-ignore

  it('are rejected where they are not identifiers, or where the language has none', () => {
    expect(scopeProblem('C', '3d_')).toContain('is not a prefix');
    expect(scopeProblem('C++', 'a::')).toContain('is not a namespace');
    expect(scopeProblem('Lua', 'a')).toContain('C takes --prefix');
    expect(scopeProblem('C++', 'a::b')).toBeNull();
  });
});
