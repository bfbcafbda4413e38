import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../demo/saltmarrow';
import { keepUnknown } from './lossless';
import { parseProject, readProject, writeProject } from './project';

const later = () => {
  const now = JSON.parse(writeProject(saltmarrow())) as Record<string, unknown>;
  const bodies = now.bodies as Record<string, unknown>[];
  bodies[3]!.mass = 12;
  (bodies[3]!.shape as Record<string, unknown>).bevel = { radius: 0.2 };
  (now.camera as Record<string, unknown>).aperture = 2.8;
  (now.screens as { sizes: Record<string, unknown>[] }).sizes[1]!.notch = [10, 20];
  now.weather = { wind: [1, 2, 3], names: ['calm'] };
  now.tasks = { spawn: { version: 7, region: { kind: 'ring' } }, 'of the future': 'text' };
  return now;
};

describe('what a schema does not know', () => {
  it('survives opening and saving, at the top, in bodies, in lists and in tasks that nobody knows', () => {
    const given = later();
    const read = readProject(given);
    if (!read.ok) throw new Error(read.problems[0]!.message);
    const written = JSON.parse(writeProject(read.project)) as typeof given;
    expect(written.weather).toEqual(given.weather);
    expect(written.tasks).toEqual(given.tasks);
    expect(written).toEqual(given);
    // And again: nothing is lost by going round twice.
    const again = parseProject(writeProject(read.project));
    expect(again.ok && JSON.parse(writeProject(again.project))).toEqual(given);
  });

  it('is put back at any depth and no known value changed, whatever the two are', () => {
    const value = fc.letrec((tie) => ({
      any: fc.oneof({ depthSize: 'small' }, fc.integer(), fc.string(), tie('list'), tie('record')),
      list: fc.array(tie('any'), { maxLength: 4 }),
      record: fc.dictionary(fc.constantFrom('a', 'b', 'c', '__proto__', 'constructor'), tie('any'), { maxKeys: 4 }),
    })).any;
    /** A copy without some keys, as a schema leaves it. */
    const stripped = (v: unknown, drop: string): unknown =>
      Array.isArray(v)
        ? v.map((one) => stripped(one, drop))
        : typeof v === 'object' && v !== null
          ? Object.fromEntries(
              Object.entries(v)
                .filter(([key]) => key !== drop)
                .map(([key, one]) => [key, stripped(one, drop)]),
            )
          : v;
    fc.assert(
      fc.property(value, fc.constantFrom('a', '__proto__', 'constructor'), (given, drop) => {
        expect(keepUnknown(stripped(given, drop), given)).toEqual(given);
      }),
    );
  });

  it('shares what lacks nothing', () => {
    const parsed = { a: { b: [1, 2] }, c: [{ d: 1 }] };
    expect(keepUnknown(parsed, structuredClone(parsed))).toBe(parsed);
    const kept = keepUnknown(parsed, { ...structuredClone(parsed), e: 5 });
    expect(kept.a).toBe(parsed.a);
    expect(kept).toEqual({ ...parsed, e: 5 });
  });
});
