import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundingSphere } from '../bodies/body';
import { orthographicOf } from '../camera/camera2d';
import { frameOf } from '../camera/frame';
import { add, sub, type Vec3 } from '../math/vec3';
import { real } from '../testing/arbitraries';
import { placeOne, scenes } from '../testing/bodies';
import { fieldCentres, fieldInView, fieldTree, gridOf, type Field } from './field';
import { visibility } from './visibility';
import { runs } from '../testing/seed';

const bytes = { outside: 7, crosses: 1, inside: 2, falseAlarm: 3 };
const placed = ({ shape, size }: Field, at: Vec3) =>
  placeOne(
    shape === 'sphere' ? { kind: 'sphere', radius: size / 2 } : { kind: 'box', size: [size, size, size] },
    at,
    [0, 0, 0, 1],
    [1, 1, 1],
  );

/** The verdicts one by one, by the customary test and by the exact one. */
function oneByOne(frame: Parameters<typeof fieldInView>[0], field: Field, margin: number, flat: boolean): number[] {
  const centres = fieldCentres(field);
  return Array.from({ length: field.count }, (_, i) => {
    const body = placed(field, [centres[3 * i]!, centres[3 * i + 1]!, centres[3 * i + 2]!]);
    const [exact] = visibility(frame, [body], { method: 'exact', margin, flat });
    const [planes] = visibility(frame, [body], { method: 'planes', margin, flat });
    if (exact!.verdict !== 'outside') return bytes[exact!.verdict];
    return planes!.verdict === 'outside' ? bytes.outside : bytes.falseAlarm;
  });
}

/**
 * Whether verdicts are those of one by one. A body that touches a plane to the last digit may be
 * found on either side of it: then it is what it is a hair smaller or larger.
 */
function expectSame(
  verdicts: Uint8Array,
  frame: Parameters<typeof fieldInView>[0],
  field: Field,
  margin: number,
  flat: boolean,
): void {
  const [own, ...near] = [1, 1 - 1e-9, 1 + 1e-9].map((k) => oneByOne(frame, { ...field, size: k * field.size }, margin, flat)); // prettier-ignore
  verdicts.forEach((verdict, i) => {
    if (verdict !== own![i])
      expect(
        near.map((list) => list[i]),
        `${i}`,
      ).toContain(verdict);
  });
}

const fields = fc.record({
  arrangement: fc.constantFrom<Field['arrangement']>('grid', 'scatter'),
  shape: fc.constantFrom<Field['shape']>('sphere', 'box'),
  count: fc.integer({ min: 1, max: 60 }),
  share: real(0.01, 1),
  seed: fc.integer(),
});

describe('a field of test bodies', () => {
  it('has for every body the verdict that it has alone', () => {
    const seen = { 1: 0, 2: 0, 3: 0, 7: 0 };
    fc.assert(
      fc.property(
        scenes,
        fields,
        real(1, 40),
        real(-20, 60),
        ({ frame, placed: near }, { share, ...some }, wide, margin) => {
          const { centre } = boundingSphere(near);
          const span: Vec3 = [wide, wide * 0.7, wide * 1.3];
          const field: Field = { ...some, size: share * wide, min: sub(centre, span), max: add(centre, span) };
          const by = Math.min(frame.viewport.width, frame.viewport.height) + 2 * margin > 1 ? margin : 0;
          const verdicts = new Uint8Array(field.count);
          const found = fieldInView(frame, field, fieldTree(fieldCentres(field)), verdicts, { bytes, margin: by });
          expectSame(verdicts, frame, field, by, false);
          const count = (byte: number) => verdicts.filter((one) => one === byte).length;
          expect(found).toMatchObject({
            ...{ inside: count(2), crosses: count(1), falseAlarms: count(3), outside: count(3) + count(7) },
          });
          verdicts.forEach((one) => seen[one as keyof typeof seen]++);
        },
      ),
      { numRuns: runs(400) },
    );
    // Every verdict has come up, and often.
    expect(Math.min(...Object.values(seen))).toBeGreaterThan(10);
  });

  it('lies on a flat world too, turned pictures included', () => {
    const seen = { 1: 0, 2: 0, 3: 0, 7: 0 };
    fc.assert(
      fc.property(fields, real(-180, 180), real(0.5, 20), ({ share, ...some }, rotation, zoom) => {
        const screen = { x: 0, y: 0, width: 320, height: 200 };
        const made = frameOf(
          orthographicOf({ focus: [10, 20], anchor: [0, 0], zoom, rotation: (rotation * Math.PI) / 180 }, screen),
          screen,
        );
        if (!made.ok) throw new Error(made.problems[0]!.message);
        const wide = 260 / zoom;
        const field: Field = {
          ...some,
          size: share * wide,
          min: [10 - wide, 20 - wide, 0],
          max: [10 + wide, 20 + wide, 0],
        };
        const verdicts = new Uint8Array(field.count);
        fieldInView(made.value, field, fieldTree(fieldCentres(field)), verdicts, { bytes, flat: true });
        expectSame(verdicts, made.value, field, 0, true);
        verdicts.forEach((one) => seen[one as keyof typeof seen]++);
      }),
      { numRuns: runs(400) },
    );

    expect(Math.min(...Object.values(seen))).toBeGreaterThan(2);
  });

  it('is a grid of cells as near to cubes as they go, or a scatter that a seed brings back', () => {
    const box = { min: [0, 0, 0] as Vec3, max: [40, 20, 10] as Vec3 };
    expect(gridOf({ ...box, count: 8 })).toEqual([4, 2, 1]);
    expect(gridOf({ ...box, count: 64 })).toEqual([8, 4, 2]);
    expect(gridOf({ min: [0, 5, 0], max: [30, 5, 10], count: 12 })).toEqual([6, 1, 2]);
    expect(gridOf({ min: [1, 1, 1], max: [1, 1, 1], count: 5 })).toEqual([5, 1, 1]);
    // A sheet that is next to flat is one layer of cells, and a needle one row.
    expect(gridOf({ min: [0, 0, 0], max: [10, 1e-9, 10], count: 100 })).toEqual([10, 1, 10]);
    expect(gridOf({ min: [0, 0, 0], max: [10, 5e-324, 1e-6], count: 30 })).toEqual([30, 1, 1]);
    const like = { shape: 'box', size: 1, count: 8, seed: 4, ...box } as const;
    expect([...fieldCentres({ ...like, arrangement: 'grid' }).subarray(0, 6)]).toEqual([5, 5, 5, 15, 5, 5]);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), real(0.01, 500), real(0, 500), (count, a, b) => {
        const [nx, ny, nz] = gridOf({ min: [0, 0, 0], max: [a, b, 7], count });
        expect(nx * ny * nz).toBeGreaterThanOrEqual(count);
        // No layer of cells too many.
        expect(Math.min((nx - 1) * ny * nz, nx * (ny - 1) * nz, nx * ny * (nz - 1))).toBeLessThan(1.6 * count + 8);
      }),
    );
    const scatter = fieldCentres({ ...like, arrangement: 'scatter', count: 1000 });
    expect([...fieldCentres({ ...like, arrangement: 'scatter', count: 1000 })]).toEqual([...scatter]);
    scatter.forEach((v, i) => expect(v >= 0 && v < box.max[i % 3]!).toBe(true));
  });
});
