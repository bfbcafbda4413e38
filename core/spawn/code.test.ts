import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../math/random';
import type { Vec2 } from '../math/vec3';
import { spawnCode, type SpawnLanguage } from './code';
import { spawnRegion, type SpawnTerms } from './spawn';

const seen: readonly Vec2[] = [[-20.5, -10], [20, -12.25], [18, 11], [-15, 9]]; // prettier-ignore
const cases: readonly SpawnTerms[] = [
  { visible: seen, clearance: 3.5, bounds: { min: [-60, -40], max: [70, 45] }, keepAway: [{ centre: [30, -5], distance: 12 }], ahead: null }, // prettier-ignore
  { visible: seen, clearance: 2, bounds: { ringOuter: 14 }, keepAway: [], ahead: { apex: [-1.5, 2], direction: [1, -0.4], halfAngle: 0.9 } }, // prettier-ignore
  // In the numbers of mirrored axes what is seen runs the other way round.
  { visible: [...seen].reverse(), clearance: 4, bounds: { min: [-60, -40], max: [70, 45] }, keepAway: [], ahead: null },
];
/** Whether a place is allowed, give or take what rounding on the border does. */
const allowed = (terms: SpawnTerms) => {
  const own = { ...terms, visible: seen, clearance: terms.clearance - 1e-9 };
  return spawnRegion(own)!.allowed;
};
const codeOf = (terms: SpawnTerms, language: SpawnLanguage) => {
  const { box, region } = spawnRegion({ ...terms, visible: seen })!;
  const whole = (box.max[0] - box.min[0]) * (box.max[1] - box.min[1]);
  return spawnCode({ terms, box, expected: whole / region.area }, language);
};
const count = 300;

/** A random source of one's own that is short in any language: the same numbers everywhere. */
const has = (program: string, ...args: string[]) => spawnSync(program, args).status === 0;
const run: Readonly<Record<Exclude<SpawnLanguage, 'JavaScript'>, (code: string, folder: string) => string>> = {
  Python: (code, folder) => {
    const main = `\nstate = 12345\ndef source():\n    global state\n    state = (state * 1103515245 + 12345) % 2147483648\n    return state / 2147483648\nfor _ in range(${count}):\n    print(*spawn(source))\n`;
    writeFileSync(join(folder, 'a.py'), code + main);
    return execFileSync('python3', [join(folder, 'a.py')], { encoding: 'utf8' });
  },
  C: (code, folder) => {
    const main = `\n#include <stdio.h>\nstatic unsigned long long state = 12345;\nstatic double source(void) { state = (state * 1103515245ULL + 12345ULL) % 2147483648ULL; return (double)state / 2147483648.0; }\nint main(void) { double p[2]; for (int i = 0; i < ${count}; i++) if (spawn(source, p, 1000)) printf("%.17g %.17g\\n", p[0], p[1]); return 0; }\n`;
    writeFileSync(join(folder, 'a.c'), code + main);
    execFileSync('gcc', ['-std=c99', '-O1', '-Wall', '-Wextra', '-Wpedantic', '-Werror', join(folder, 'a.c'), '-o', join(folder, 'a'), '-lm']); // prettier-ignore
    return execFileSync(join(folder, 'a'), { encoding: 'utf8' });
  },
};

describe('a region as a few lines of code', () => {
  it('gives places that the core allows, all over the region: JavaScript', () => {
    for (const terms of cases) {
      // What was written is run as it is.
      const made = new Function(`${codeOf(terms, 'JavaScript')}return spawn;`)() as (
        random: () => number,
      ) => Vec2 | null;
      const random = randomFrom(7);
      const places = Array.from({ length: count }, () => made(random)!);
      const ok = allowed(terms);
      for (const place of places) expect(ok(place), place.join()).toBe(true);
      expect(new Set(places.map(([x]) => Math.sign(x))).size).toBeGreaterThan(terms.ahead ? 0 : 1);
      // Nothing fits: none is given.
      expect(made(() => 0.5)).toBeNull();
    }
  });

  it.skipIf(!has('python3', '--version'))('the same: Python', () => check('Python'));
  it.skipIf(!has('gcc', '--version'))('the same, without a warning: C', () => check('C'));
});

function check(language: 'Python' | 'C'): void {
  for (const terms of cases) {
    const out = run[language](codeOf(terms, language), mkdtempSync(join(tmpdir(), 'spawn-code-')));
    const places = out.trim().split('\n').map((line) => line.split(' ').map(Number) as unknown as Vec2); // prettier-ignore
    expect(places).toHaveLength(count);
    const ok = allowed(terms);
    for (const place of places) expect(ok(place), place.join()).toBe(true);
  }
}
