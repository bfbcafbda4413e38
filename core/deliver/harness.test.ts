import type { RequestCamera } from '../request/cameraSchema';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { presets, type Conventions } from '../conventions/conventions';
import { compilers, quiet, skippedFor, there } from '../testing/compilers';
import { lookAtMutants, mutants } from '../testing/mutants';
import { readAnswers, vectorsTable } from '../../formats/vectors';
import { emitCode, emitHarness, printSource, sourceOf, type CodeWish } from './code';
import { deliverLanguages } from './languages';
import type { SetUp } from './cameraSetup';
import { codeParts3d, type CodePart } from './library';
import { setUpOfRequest } from './setUp';
import { kindsOf } from './vectorKinds';
import { checkAnswers } from './checkVectors';
import { vectorsOf, type Vectors } from './vectors';
import { soaks } from '../testing/seed';

/*
 * The harness of each language, run: right code has every row right, and each fault that is really put
 * into the code fails one. `npm run soak` puts every fault into every language; `npm test` every one
 * into the languages that need no compiler, and each compiled language has its share.
 */

const root = mkdtempSync(join(tmpdir(), 'astrolabe-harness-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

const conventions: readonly Conventions[] = [
  { ...presets.WebGPU, angles: { ...presets.WebGPU.angles, unit: 'degrees' } },
  {
    world: { right: '+x', up: '+z', forward: '+y' },
    view: { right: '+x', up: '-y', forward: '+z' },
    ndc: { up: '-y', near: 1, far: 0 },
    screen: { origin: 'bottom-left', pixelCentre: 0.5 },
    matrix: { vectors: 'row', storage: 'row-major' },
    angles: { unit: 'degrees', yaw: 'left', pitch: 'down', roll: 'right' },
  },
];
const viewport = { x: 16, y: 9, width: 1280, height: 720 };
const lens = { kind: 'perspective', near: 0.5, far: 120, verticalFov: 50, shift: [0.1, -0.2] } satisfies RequestCamera['projection']; // prettier-ignore
const cameras = {
  angles: { position: [3, -5, 7], orientation: { yaw: 25, pitch: -12, roll: 8 }, projection: lens },
  lookAt: { position: [3, -5, 7], orientation: { lookAt: [9, 2, -4] }, projection: lens },
  infinite: { position: [3, -5, 7], orientation: { lookAt: [9, 2, -4] }, projection: { ...lens, far: null } },
  behind: {
    position: [3, -5, 7],
    orientation: { yaw: 25, pitch: -12, roll: 8 },
    projection: { kind: 'orthographic', near: -1, far: 60, height: 30, shift: [0.1, -0.2] },
  },
  fromEye: {
    position: [3, -5, 7],
    orientation: { yaw: 25, pitch: -12, roll: 8 },
    projection: { kind: 'orthographic', near: 0, far: 60, height: 30 },
  },
} satisfies Record<string, RequestCamera>;
const parts: readonly CodePart[] = codeParts3d;

function caseOf(which: number, said: keyof typeof cameras): { setUp: SetUp; vectors: Vectors } {
  const own = conventions[which]!;
  const made = setUpOfRequest({ astrolabe: 1, conventions: own, viewport, camera: cameras[said], queries: [] });
  const given = vectorsOf({ astrolabe: 1, conventions: own, viewport, camera: cameras[said], queries: [] }, 14, 3);
  if (!made.ok || !given.ok) throw new Error('a proper camera');
  return { setUp: made.setUp, vectors: given.vectors };
}
const wish = (language: string, number: CodeWish['number'] = 'double', constants = true): CodeWish => ({ ...{ language, parts, number, constants }, naming: 'own' }); // prettier-ignore

/** What the harness of a language answers to test vectors. */
function runs(name: string, folder: string, code: { name: string; text: string }, harness: string, { vectors }: ReturnType<typeof caseOf>) {
  const language = deliverLanguages.find((one) => one.name === name)!;
  const at = join(root, folder.replace(/[^\w-]/g, 'x'));
  const { files, build } = compilers[name]!;
  files(at, { [code.name]: code.text, [language.harnessFile]: harness, 'vectors.csv': vectorsTable(vectors) });
  const [program, args] = build(at, language.harnessFile);
  const answers = readAnswers(quiet(at, program, [...args, 'vectors.csv']));
  if (typeof answers === 'string') throw new Error(answers);
  return answers;
} // prettier-ignore

const quick = ['Python', 'Lua'];
const all = [
  ...Object.entries(mutants).map(([name, edit]) => ({ name, edit, said: 'angles' as const })),
  ...Object.entries(lookAtMutants).map(([name, edit]) => ({ name, edit, said: 'lookAt' as const })),
];

describe.each(Object.entries(compilers).map(([name, { needs }], i) => ({ name, needs, i })))(
  'the harness in $name',
  ({ name, needs, i }) => {
    const able = needs.every(there);
    it.skipIf(!able)(
      `has every row right, in doubles and in floats, by parameters and of some parts${skippedFor(needs)}`,
      () => {
        const [first, second, third] = [caseOf(0, 'angles'), caseOf(1, 'infinite'), caseOf(i % 2, quick.includes(name) ? 'fromEye' : 'behind')]; // prettier-ignore
        const harness = emitHarness(first.setUp, wish(name));
        expect(harness.trim().split('\n').length).toBeLessThan(160);
        const answers = runs(name, `${name}-right`, emitCode(first.setUp, wish(name)), harness, first);
        expect(checkAnswers(first.vectors, answers, 1e-9)).toMatchObject({ wrong: 0, explanations: [] });
        const parallel = runs(name, `${name}-parallel`, emitCode(third.setUp, wish(name)), emitHarness(third.setUp, wish(name)), third); // prettier-ignore
        expect(checkAnswers(third.vectors, parallel, 1e-9)).toMatchObject({ wrong: 0, explanations: [] });
        const own = { ...wish(name, 'float', false), parts: ['camera', 'worldToScreen', 'ray'] } satisfies CodeWish;
        const floats = runs(name, `${name}-floats`, emitCode(second.setUp, own), emitHarness(second.setUp, own), second); // prettier-ignore
        const asked = kindsOf(own.parts, false);
        const rows = second.vectors.rows.filter(({ kind }) => asked.includes(kind));
        expect(checkAnswers({ ...second.vectors, rows }, floats, 1e-5).wrong).toBe(0);
      },
      120_000,
    );

    const mine = all.filter((_, k) => soaks || (quick.includes(name) ? k % 2 === i % 2 : k % 45 === i));
    it.skipIf(!able).each(mine)(
      `has a row wrong where $name is put into the code${skippedFor(needs)}`,
      ({ name: fault, edit, said }) => {
        const one = caseOf(all.findIndex((own) => own.name === fault) % 2, said);
        const code = printSource(edit(sourceOf(one.setUp, wish(name))), one.setUp.e, wish(name));
        const answers = runs(name, `${name}-${fault}`, code, emitHarness(one.setUp, wish(name)), one);
        expect(checkAnswers(one.vectors, answers, 1e-9).wrong, fault).toBeGreaterThan(0);
      },
      120_000,
    );
  },
);
