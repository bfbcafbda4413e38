import fc from 'fast-check';
import type * as z from 'zod';
import { describe, expect, it, vi } from 'vitest';
import { conventions } from '../../core/testing/arbitraries';
import { definitionOf, kindOf, metaOf, quantitiesIn, writeValue } from '../../core/quantities/convert';
import { codecOf } from '../../core/conventions/codec';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import type { Project } from '../../formats/project';
import { momentOf } from '../state/moment';
import { rereadSlices, sliceOf, slices, taskMoment, unreadSlices, withSliceIn } from '../state/slices';
import { fieldEntries, fieldFacts, putAt, schemaAt, valueAt, type FieldPath } from '../sheet/fieldFacts';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });
await (await import('./page')).loadAllTasks();

/* Fields of described states, over the table of tasks: units, conventions, limits, links and search follow from the description. */

/** The paths of the quantities that a value of a schema has now. */
function pathsOf(schema: z.ZodType, value: unknown, path: FieldPath = []): FieldPath[] {
  if (metaOf(schema)) return [path];
  const { shape, element, items, innerType, valueType, options, discriminator } = definitionOf(schema);
  if (value === null || value === undefined) return [];
  if (innerType) return pathsOf(innerType, value, path);
  if (valueType) return [];
  if (options) {
    const kind = (value as Record<string, unknown>)[discriminator!];
    return pathsOf(
      options.find((one) => definitionOf(definitionOf(one).shape![discriminator!]!).values!.includes(kind))!,
      value,
      path,
    );
  }
  if (items) return items.flatMap((item, i) => pathsOf(item, (value as unknown[])[i], [...path, i]));
  if (element) return (value as unknown[]).slice(0, 1).flatMap((one) => pathsOf(element, one, [...path, 0]));
  return Object.entries(shape ?? {}).flatMap(([key, part]) => pathsOf(part, (value as Record<string, unknown>)[key], [...path, key])); // prettier-ignore
}

/** A value with every group that may be absent, and one entry in every list, so that all quantities are asked. */
function filled(schema: z.ZodType, value: unknown, is2d: boolean): unknown {
  const meta = metaOf(schema);
  const { type, shape, element, innerType, values, options, entries } = definitionOf(schema) as ReturnType<typeof definitionOf> & { readonly entries?: Readonly<Record<string, string>> }; // prettier-ignore
  if (meta) {
    if (value !== undefined && value !== null) return value;
    const { items } = definitionOf(schema);
    const allowed = (v: number) => (meta.max !== undefined ? Math.min(v, meta.max) : v);
    return items ? items.map((_, i) => (is2d && i === 2 ? 0 : i + 1)) : allowed(Math.max(1, meta.min ?? 1));
  }
  if (innerType) return filled(innerType, value ?? undefined, is2d);
  if (element) return (value as unknown[] | undefined)?.length ? (value as unknown[]).map((one) => filled(element, one, is2d)) : [filled(element, undefined, is2d)]; // prettier-ignore
  if (shape) return Object.fromEntries(Object.entries(shape).map(([key, part]) => [key, filled(part, (value as Record<string, unknown> | undefined)?.[key], is2d)])); // prettier-ignore
  if (options) return value;
  return (
    value ?? (type === 'string' ? 'a' : type === 'boolean' ? true : (values?.[0] ?? Object.values(entries ?? {})[0]))
  );
}

const described = Object.entries(slices()).filter(([, { schema }]) => quantitiesIn(schema).length);

/** A demo in which a task has all the quantities that it can have. */
function withAll(task: string, schema: z.ZodType, demo: Project): Project {
  const slice = filled(schema, sliceOf(task, demo), demo.camera.kind === '2d');
  expect(schema.safeParse(slice).error).toBeUndefined();
  return withSliceIn(task, demo, slice);
}

const projects: readonly (readonly [string, Project])[] = [['3D', saltmarrow()], ['2D', saltmarrowChart()]]; // prettier-ignore

it('describes the states of tasks', () =>
  expect(described.map(([task]) => task)).toEqual(
    expect.arrayContaining(['billboard', 'motion', 'order', 'pick', 'spawn', 'visibility']),
  ));

describe.each(described)('the fields of %s', (task, { schema }) => {
  describe.each(projects)('in %s', (_, plain) => {
    const demo = withAll(task, schema, plain);
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
          const now = taskMoment(task, momentOf(demo));
          const again = rereadSlices(demo, now.codec, codecOf(other));
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

/** Numbers of the demo as they were stored before angles were in radians. */
const olderStates: Readonly<Record<string, { readonly version: number; readonly change: (state: never) => object }>> = {
  order: { version: 1, change: () => ({ light: { kind: 'sky', bearing: 120, altitude: 35 } }) },
  visibility: { version: 2, change: (state: { over: object }) => ({ over: { ...state.over, turnRate: 45 } }) },
  pick: { version: 1, change: () => ({ shake: { yaw: 0.8, pitch: -0.5, roll: 1.2, offset: [0.05, 0.03] }, recoil: 1.5, turnRate: 90 }) },
  billboard: { version: 1, change: (state: { stale: object }) => ({ contour: 10, stale: { ...state.stale, turnRate: 90 } }) },
  motion: {
    version: 1,
    change: (state: { tracks: object; turning: object }) => ({
      tracks: {
        ...state.tracks,
        'round-the-light': { travel: { kind: 'orbit', centre: [-21, 11, -20], yawRate: 12, pitchRate: 0, pitchLimits: [-60, 20], distanceRate: 0 }, shake: null },
        'bridge-wing': { travel: { kind: 'rest' }, shake: { seed: 5, frequency: 1.6, decay: 0, strength: 1, yaw: 0.8, pitch: 1.1, roll: 1.4, offset: [0.12, 0.2] } },
        'lamp-room': { travel: { kind: 'walk', pitchLimit: 89, inputs: [{ from: 0, to: 36, right: 0, up: 0, ahead: 0, yawRate: 10, pitchRate: 0 }] }, shake: null },
        breakwater: { travel: { kind: 'dollyZoom', target: [-21, 13, -20], distance: [43.7035468, 12], widest: 120, duration: 15, ease: 'gentle' }, shake: null },
      },
      turning: { ...state.turning, rate: 40 },
      steering: { speed: 6, sensitivity: 0.2, pitchLimit: 85 },
    }),
  },
}; // prettier-ignore
it.each(Object.entries(olderStates))(
  'the older state of %s is read as the present one',
  (task, { version, change }) => {
    const demo = saltmarrow();
    const present = sliceOf<object>(task, demo);
    const older = { ...present, ...change(present as never), version };
    const read = sliceOf(task, { ...demo, tasks: { [task]: older } } as Project);
    const numbers = (value: unknown): unknown[] => typeof value === 'object' && value !== null ? Object.keys(value).sort().flatMap((key) => [key, ...numbers((value as Record<string, unknown>)[key])]) : [value]; // prettier-ignore
    const [a, b] = [numbers(read), numbers(present)];
    expect(a).toHaveLength(b.length);
    a.forEach((v, i) => (typeof v === 'number' ? expect(v).toBeCloseTo(b[i] as number, 12) : expect(v).toBe(b[i])));
    expect(unreadSlices({ ...demo, tasks: { [task]: older } } as Project)).toEqual([]);
  },
);

it('reads a repair every second, which version 2 of Motion wrote as null', () => {
  const present = sliceOf<{ turning: { repair: number } }>('motion', saltmarrow());
  const older = { ...present, turning: { ...present.turning, repair: null }, version: 2 };
  const read = sliceOf<typeof present>('motion', { ...saltmarrow(), tasks: { motion: older } } as Project);
  expect(read.turning.repair).toBe(1);
});
