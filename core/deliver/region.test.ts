import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { codecOf } from '../conventions/codec';
import { defaultConventions } from '../conventions/conventions';
import type { Vec2 } from '../math/vec3';
import { randomFrom } from '../math/random';
import { spawnRegion, type SpawnTerms } from '../spawn/spawn';
import { compilers, quiet, skippedFor, there } from '../testing/compilers';
import { emitRegion, printExample, printSource, type CodeWish } from './code';
import { deliverLanguages } from './languages';
import { regionSource } from './region';
import { soaks } from '../testing/seed';

/* The region of Spawn as code: what it allows is what the core allows, in every language whose compiler is there. */

const root = mkdtempSync(join(tmpdir(), 'astrolabe-region-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));

const seen: readonly Vec2[] = [[-20.5, -10], [20, -12.25], [18, 11], [-15, 9]]; // prettier-ignore
const cases: readonly SpawnTerms[] = [
  { visible: seen, clearance: 3.5, bounds: { min: [-60, -40], max: [70, 45] }, keepAway: [{ centre: [30, -5], distance: 12 }], ahead: null }, // prettier-ignore
  { visible: seen, clearance: 2, bounds: { ringOuter: 14 }, keepAway: [], ahead: { apex: [-1.5, 2], direction: [1, -0.4], halfAngle: 0.9 } }, // prettier-ignore
  // In the numbers of mirrored axes what is seen runs the other way round.
  { visible: [...seen].reverse(), clearance: 4, bounds: { min: [-60, -40], max: [70, 45] }, keepAway: [], ahead: null },
];
const e = codecOf(defaultConventions);
const numbersOf = (terms: SpawnTerms) => {
  const { box, region, allowed } = spawnRegion({ ...terms, visible: seen })!;
  const whole = (box.max[0] - box.min[0]) * (box.max[1] - box.min[1]);
  return { numbers: { terms, box, expected: whole / region.area }, allowed };
};
const wish = (language: string): CodeWish => ({
  language,
  parts: [],
  number: 'double',
  naming: 'own',
  constants: true,
});
const quick = ['Python', 'Lua'];

describe.each(Object.entries(compilers).map(([name, one], i) => ({ name, i, ...one })))(
  'a region as code in $name',
  ({ name, i: place, needs, files, build }) => {
    // What needs a compiler has one of them; `npm run soak` has all.
    const own = quick.includes(name) || soaks ? cases : [cases[place % cases.length]!];
    it.skipIf(!needs.every(there))(
      `allows what the core allows, and rolls over the bounds${skippedFor(needs)}`,
      () => {
        const language = deliverLanguages.find((one) => one.name === name)!;
        own.forEach((terms, k) => {
          const { numbers, allowed } = numbersOf(terms);
          const random = randomFrom(k + 5);
          const shares = Array.from({ length: 60 }, () => [random(), random()] as const);
          const { min, max } = numbers.box;
          const places = shares.map(([u, v]): Vec2 => [min[0] + (max[0] - min[0]) * u, min[1] + (max[1] - min[1]) * v]);
          const source = regionSource(numbers);
          const said = (v: number) => (v < 0 ? `-${-v}` : String(v));
          const asked = [
            ...places.map(([x, y]) => ({ text: `may_appear(${said(x)}, ${said(y)})`, comment: null })),
            ...shares.slice(0, 3).flatMap(([u, v]) => [{ text: `rolled_x(${u})`, comment: null }, { text: `rolled_y(${v})`, comment: null }]), // prettier-ignore
          ];
          const at = join(root, `${name.replace(/\W/g, 'x')}-${k}`);
          const file = printSource(source, e, wish(name));
          files(at, { [file.name]: file.text, [language.mainFile]: printExample(source, e, wish(name), asked) });
          const printed = quiet(at, ...build(at, language.mainFile)).trim().split('\n').map((line) => (line === 'true' ? 1 : line === 'false' ? 0 : Number(line))); // prettier-ignore
          const wanted = [...places.map((p) => Number(allowed(p))), ...places.slice(0, 3).flat()];
          expect(printed).toHaveLength(wanted.length);
          wanted.forEach((v, i) => expect(printed[i], asked[i]!.text).toBeCloseTo(v, 9));
          expect(wanted.slice(0, 60)).toContain(1);
          expect(wanted.slice(0, 60)).toContain(0);
        });
      },
      120_000,
    );
  },
);

it('a region is a file of its own, without vectors that it has no use for', () => {
  const { numbers } = numbersOf(cases[0]!);
  for (const { name } of deliverLanguages) {
    const { text, name: file } = emitRegion(numbers, e, name);
    expect(file).toMatch(/spawn/i);
    expect(text).not.toMatch(/vec3|matrix|camera/i);
    expect(text).toMatch(/may_?appear/i);
    expect(text.split('\n').length).toBeLessThan(75);
  }
});
