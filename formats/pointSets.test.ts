import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../demo/saltmarrow';
import { keyOfPoints, withPoints, withoutPoints, type PointData } from './pointSets';
import { parseProject, readProject, writeProject } from './project';
import { runs } from '../core/testing/seed';

const data = fc
  .array(fc.tuple(fc.double({ noNaN: true, noDefaultInfinity: true }), fc.integer(), fc.integer()), { maxLength: 20 })
  .chain((list) =>
    fc
      .option(fc.array(fc.string(), { minLength: list.length, maxLength: list.length }))
      .map((names): PointData => ({ points: Float64Array.from(list.flat()), names })),
  );

describe('sets of points', () => {
  it('come back from a file as they were, and the same points by the same key', () => {
    fc.assert(
      fc.property(fc.array(data, { minLength: 1, maxLength: 4 }), (lists) => {
        const known = new Map(lists.map((one) => [keyOfPoints(one), one]));
        const project = {
          ...saltmarrow(),
          pointSets: lists.map((one, i) => ({ id: `s${i}`, name: `Set ${i}`, key: keyOfPoints(one), count: one.points.length / 3 })), // prettier-ignore
        };
        const read = parseProject(writeProject(withPoints(project, (key) => known.get(key))));
        if (!read.ok) throw new Error(read.problems[0]!.message);
        const back = withoutPoints(read.project);
        expect(back.project.pointSets).toEqual(project.pointSets);
        for (const [key, one] of known) {
          // JSON has no negative zero.
          expect([...back.data.get(key)!.points].map((v) => v + 0)).toEqual([...one.points].map((v) => v + 0));
          expect(back.data.get(key)!.names).toEqual(one.names);
        }
      }),
      { numRuns: runs(40) },
    );
  });

  it('have other keys when a number, an order or a name is another', () => {
    const key = (points: number[], names: string[] | null = null) =>
      keyOfPoints({ points: Float64Array.from(points), names });
    const keys = [key([1, 2, 3]), key([1, 2, 3 + 1e-15 * 3]), key([2, 1, 3]), key([1, 2, 3, 0, 0, 0]), key([]), key([1, 2, 3], ['a']), key([1, 2, 3], ['b']), key([1, 2, 3, 1, 2, 3], ['a', 'bc']), key([1, 2, 3, 1, 2, 3], ['ab', 'c'])]; // prettier-ignore
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('say what is wrong with them', () => {
    const wrong = (set: object) => {
      const read = readProject({ ...saltmarrow(), pointSets: [{ id: 'a', name: 'Stakes', ...set }] });
      return read.ok ? '' : `${read.problems[0]!.path}: ${read.problems[0]!.message}`;
    };
    expect(wrong({})).toContain('pointSets[0].coordinates: The set “Stakes” has no points.');
    expect(wrong({ coordinates: [1, 2] })).toContain('has 2 numbers, and every point takes three');
    expect(wrong({ coordinates: [1, 2, 3], names: ['a', 'b'] })).toContain('has 1 points and 2 names');
    expect(wrong({ coordinates: [1, 'x', 3] })).toContain('pointSets[0].coordinates[1]');
    expect(wrong({ coordinates: [1, 2, 3] })).toBe('');
  });
});
