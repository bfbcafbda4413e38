import fc from 'fast-check';
import type * as z from 'zod';
import { describe, expect, it, vi } from 'vitest';
import { conventions } from '../../core/testing/arbitraries';
import { definitionOf, kindOf, metaOf, writeValue } from '../../core/quantities/convert';
import { codecOf } from '../../core/conventions/codec';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import type { Project } from '../../formats/project';
import { momentOf } from '../state/moment';
import { rereadSlices, sliceOf, slices, taskMoment, withSliceIn } from '../state/slices';
import { fieldEntries, fieldFacts, putAt, schemaAt, valueAt, type FieldPath } from '../sheet/fieldFacts';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });
await (await import('./page')).loadAllTasks();

/* Fields of described states, over the table of tasks: units, conventions, limits, links and search follow from the description. */

/** The paths of the quantities that a value of a schema has now. */
function pathsOf(schema: z.ZodType, value: unknown, path: FieldPath = []): FieldPath[] {
  if (metaOf(schema)) return [path];
  const { shape, element, innerType } = definitionOf(schema);
  if (value === null || value === undefined) return [];
  if (innerType) return pathsOf(innerType, value, path);
  if (element) return (value as unknown[]).slice(0, 1).flatMap((one) => pathsOf(element, one, [...path, 0]));
  return Object.entries(shape ?? {}).flatMap(([key, part]) => pathsOf(part, (value as Record<string, unknown>)[key], [...path, key])); // prettier-ignore
}

const described = Object.entries(slices()).filter(([, { schema }]) => {
  const has = (part: z.ZodType): boolean => {
    const { shape, element, innerType } = definitionOf(part);
    return Boolean(metaOf(part)) || [...Object.values(shape ?? {}), element, innerType].some((one) => one && has(one));
  };
  return has(schema);
});
const projects: readonly (readonly [string, Project])[] = [['3D', saltmarrow()], ['2D', saltmarrowChart()]]; // prettier-ignore

it('describes the state of at least one task', () => expect(described.map(([task]) => task)).toContain('spawn'));

describe.each(described)('the fields of %s', (task, { schema }) => {
  describe.each(projects)('in %s', (_, demo) => {
    it('show the written value in any conventions, and put back the canonical one', () => {
      fc.assert(
        fc.property(conventions, (own) => {
          const now = taskMoment(task, momentOf({ ...demo, conventions: own } as Project));
          for (const path of pathsOf(schema, now.slice)) {
            const value = valueAt(now.slice, path);
            for (const facts of fieldFacts(task, schema, path, now)) {
              const again = structuredClone(now.slice);
              putAt(again, path, facts.withNumber(facts.value));
              [valueAt(again, path)].flat().forEach((v, i) => expect(v as number).toBeCloseTo(([value].flat() as number[])[i]!, 9)); // prettier-ignore
              expect(facts.reject(facts.value)).toBeNull();
              const { unit } = kindOf(metaOf(schemaAt(schema, path))!);
              if (unit === 'angle') expect(facts.unit).toBe(own.angles.unit === 'degrees' ? '°' : 'rad');
            }
          }
        }),
        { numRuns: 40 },
      );
    });

    it('keep their numbers when the conventions change, by the shared code', () => {
      fc.assert(
        fc.property(conventions, (other) => {
          const project = withSliceIn(task, demo, sliceOf(task, demo));
          const now = taskMoment(task, momentOf(project));
          const again = rereadSlices(project, now.codec, codecOf(other));
          const then = taskMoment(task, momentOf({ ...again, conventions: other } as Project));
          const angles = new Set(pathsOf(schema, now.slice).filter((path) => kindOf(metaOf(schemaAt(schema, path))!).unit === 'angle').map(String)); // prettier-ignore
          const [before, after] = [writeValue(schema, now.slice, now), writeValue(schema, then.slice, then)];
          for (const path of pathsOf(schema, now.slice))
            if (!angles.has(String(path))) [valueAt(after, path)].flat().forEach((v, i) => expect(v as number).toBeCloseTo(([valueAt(before, path)].flat() as number[])[i]!, 9)); // prettier-ignore
        }),
        { numRuns: 40 },
      );
    });
  });

  it('are found by the search under a name of their own, once', () => {
    const names = fieldEntries(task, schema).map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    for (const { at } of fieldEntries(task, schema)) expect(at).toMatch(/^\[data-field="\w+( \w+)+"\]$/);
  });
});
