import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../demo/saltmarrow';
import { readProject } from './project';
import { repairProject } from './repair';
import { runs } from '../core/testing/seed';

/** Every place of a value where a number stands. */
function numbersIn(value: unknown, path: readonly (string | number)[] = []): (readonly (string | number)[])[] {
  if (typeof value === 'number') return [path];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, one]) =>
    numbersIn(one, [...path, Array.isArray(value) ? Number(key) : key]),
  );
}
function put(value: unknown, path: readonly (string | number)[], to: unknown): void {
  const parent = path.slice(0, -1).reduce<unknown>((at, key) => (at as Record<string | number, unknown>)[key], value);
  (parent as Record<string | number, unknown>)[path.at(-1)!] = to;
}

describe('a project with wrong numbers', () => {
  const project = saltmarrow();
  const places = numbersIn(project).filter(([first]) => first !== 'astrolabeProject');

  it('opens with them replaced, wherever they stand, and nothing else is another', () => {
    let repairs = 0;
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(places.length - 1), { minLength: 1, maxLength: 5 }),
        fc.constantFrom(null, NaN, Infinity, -Infinity),
        (chosen, wrong) => {
          const broken: unknown = structuredClone(project);
          for (const i of chosen) put(broken, places[i]!, wrong);
          // Some numbers may be null: then nothing is wrong.
          if (readProject(broken).ok) return;
          const before = structuredClone(broken);
          const repaired = repairProject(broken);
          expect(broken).toEqual(before);
          // A size of 0, or a scale, may be wrong together with others: then it says so by null.
          if (!repaired) return;
          repairs++;
          const again: unknown = structuredClone(repaired.project);
          for (const i of chosen) put(again, places[i]!, 0);
          const plain: unknown = structuredClone(project);
          for (const i of chosen) put(plain, places[i]!, 0);
          expect(again).toEqual(plain);
          expect(repaired.replaced.length).toBeGreaterThan(0);
        },
      ),
      { numRuns: runs(60) },
    );
    expect(repairs).toBeGreaterThan(10);
  });

  it('is not opened where something else is wrong', () => {
    expect(repairProject({ ...project, bodies: 'none' })).toBeNull();
    expect(repairProject('nothing')).toBeNull();
    const { bodies } = structuredClone(project);
    bodies[0]!.position[0] = NaN;
    expect(repairProject({ ...project, bodies })!.replaced).toEqual([{ path: 'bodies[0].position[0]', by: 0 }]);
  });
});
