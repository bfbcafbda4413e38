import fc from 'fast-check';
import * as z from 'zod';
import { describe, expect, it } from 'vitest';
import { depth01Of } from '../convert/project';
import { codecOf } from '../conventions/codec';
import { defaultConventions, type Conventions } from '../conventions/conventions';
import { conventions, real } from '../testing/arbitraries';
import { metaOf, readValue, reinterpretValue, writeValue } from './convert';
import { kinds, type KindName, type QuantityContext } from './kinds';
import { angle, choice, group, heading, height, length, list, optional, point, surfacePoint, yaw } from './quantity';
import { plane, space, worldOf } from './world';

/* Quantities survive being written in any conventions and read back, at any depth of a schema. */

const contexts: fc.Arbitrary<QuantityContext> = fc
  .tuple(conventions, fc.constantFrom(space, plane))
  .map(([own, world]) => ({ codec: codecOf(own), world, viewport: { x: 3, y: -2, width: 640, height: 360 } }));
const components: Partial<Record<KindName, number>> = {
  rotation: 4,
  surfacePoint: 2,
  surfaceVector: 2,
  pitchRange: 2,
  screenPoint: 2,
  points: 6,
};
const vectorKinds: readonly KindName[] = ['pitchRange', 'point', 'direction', 'velocity', 'sizes', 'surfacePoint', 'surfaceVector', 'rotation', 'axis', 'points', 'screenPoint']; // prettier-ignore

/** A canonical value of a kind in a world: points of a 2D world have z = 0, rotations length 1. */
const valueIn = (kind: KindName, { world }: QuantityContext): fc.Arbitrary<unknown> => {
  if (kind === 'depth') return real(0, 1).map(depth01Of);
  if (!vectorKinds.includes(kind)) return real(-1000, 1000);
  const size = components[kind] ?? 3;
  return fc.array(real(-1000, 1000), { minLength: size, maxLength: size }).map((v) => {
    if (kind === 'rotation') {
      const [x, y, z, w] = v as [number, number, number, number];
      const norm = Math.hypot(x, y, z, w);
      return norm > 1e-3 ? v.map((one) => one / norm) : [0, 0, 0, 1];
    }
    if (kind === 'pitchRange') return [...v].sort((a, b) => a - b);
    return world === plane && ['point', 'direction', 'velocity'].includes(kind) ? [v[0]!, v[1]!, 0] : v;
  });
};
const near = (a: number | readonly number[], b: number | readonly number[]): void => {
  const [x, y] = [[a].flat(), [b].flat()] as [number[], number[]];
  expect(x).toHaveLength(y.length);
  x.forEach((v, i) => expect(Math.abs(v - y[i]!)).toBeLessThanOrEqual(1e-12 * Math.max(1, Math.abs(v))));
};

describe('a kind of quantity', () => {
  it.each(Object.keys(kinds) as KindName[])('%s is read back as it was written', (kind) => {
    fc.assert(
      fc.property(
        contexts.chain((context) => fc.tuple(fc.constant(context), valueIn(kind, context))),
        ([context, value]) => {
          const { write, read, isPlain, axes } = kinds[kind] as unknown as {
            write: (v: unknown, c: QuantityContext) => number | number[];
            read: (v: unknown, c: QuantityContext) => number | number[];
            isPlain: boolean;
            axes: (c: QuantityContext) => readonly string[];
          };
          const written = write(value, context);
          if (isPlain) expect(written).toBe(value);
          const back = read(written, context);
          // A rotation and its negative are one.
          const sign = kind === 'rotation' && (back as number[]).some((v, i) => v * (value as number[])[i]! < -1e-3) ? -1 : 1; // prettier-ignore
          if (kind === 'depth') return near(Object.values(back), Object.values(value as object) as number[]);
          near(Array.isArray(back) ? back.map((v) => sign * v) : back, value as number | number[]);
          if (Array.isArray(written) && kind !== 'points') expect(axes(context)).toHaveLength(written.length);
        },
      ),
    );
  });

  it('writes turns by their sense, and angles in their unit', () => {
    const left: Conventions = { ...defaultConventions, angles: { ...defaultConventions.angles, yaw: 'left' } };
    const radians: Conventions = { ...defaultConventions, angles: { ...defaultConventions.angles, unit: 'radians' } };
    const at = (own: Conventions) => ({ codec: codecOf(own), world: space });
    const turn = Math.PI / 6;
    near(writeValue(yaw(), turn, at(defaultConventions)), 30);
    near(writeValue(yaw(), turn, at(left)), -30);
    near(writeValue(heading(), turn, at(left)), 30);
    near(writeValue(angle(), turn, at(radians)), turn);
  });

  it('writes a place by the axes of its world', () => {
    const down: Conventions = { ...defaultConventions, world: { right: '+x', up: '-y', forward: '+z' } };
    const of = (kind: '2d' | '3d') => ({ codec: codecOf(down), world: worldOf(kind) });
    expect(writeValue(point(), [1, 2, -3], of('3d'))).toEqual([1, -2, 3]);
    expect(writeValue(point(), [1, 2, 0], of('2d'))).toEqual([1, -2]);
    expect(writeValue(surfacePoint(), [1, 2], of('3d'))).toEqual([1, 2]);
    expect(writeValue(surfacePoint(), [1, 2], of('2d'))).toEqual([1, -2]);
    expect(kinds.surfacePoint.axes(of('3d'))).toEqual(['x', 'z']);
    expect(kinds.point.axes(of('2d'))).toEqual(['x', 'y']);
  });
});

const described = group({
  ground: height({ world: '3d' }),
  mode: choice(['bounds', 'ring']),
  corner: surfacePoint(),
  sector: optional(group({ heading: heading(), half: angle({ above: 0, max: Math.PI }) })),
  discs: list(group({ name: z.string(), centre: surfacePoint(), radius: length({ min: 0 }) })),
  way: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('still') }),
    z.object({ kind: z.literal('keys'), keys: list(group({ time: z.number(), place: point() })) }),
  ]),
  byName: z.record(z.string(), yaw()),
});
type Described = z.infer<typeof described>;
const describedValues = fc.record({
  ground: real(-10, 10),
  mode: fc.constantFrom('bounds' as const, 'ring' as const),
  corner: fc.tuple(real(-10, 10), real(-10, 10)),
  sector: fc.option(fc.record({ heading: real(-3, 3), half: real(0.01, 3) })),
  discs: fc.array(fc.record({ name: fc.string(), centre: fc.tuple(real(-9, 9), real(-9, 9)), radius: real(0, 5) })),
  way: fc.oneof(
    fc.constant({ kind: 'still' as const }),
    fc.record({ kind: fc.constant('keys' as const), keys: fc.array(fc.record({ time: real(0, 9), place: fc.tuple(real(-9, 9), real(-9, 9), fc.constant(0)) })) }), // prettier-ignore
  ),
  byName: fc.dictionary(fc.string(), real(-3, 3)),
}) as fc.Arbitrary<Described>;

/** All numbers and texts of a value, in order. */
const leaves = (value: unknown): unknown[] =>
  typeof value === 'object' && value !== null ? Object.entries(value).flatMap(([key, one]) => [key, ...leaves(one)]) : [value]; // prettier-ignore
const alike = (a: unknown, b: unknown): void => {
  const [x, y] = [leaves(a), leaves(b)];
  expect(x).toHaveLength(y.length);
  x.forEach((v, i) => (typeof v === 'number' ? near(v, y[i] as number) : expect(v).toBe(y[i])));
};

describe('a described value', () => {
  it('is read back as it was written, wherever its quantities are', () => {
    fc.assert(
      fc.property(describedValues, contexts, (value, context) => {
        alike(readValue(described, writeValue(described, value, context), context), value);
      }),
    );
  });

  it('keeps its written numbers when the conventions change, where they are allowed', () => {
    fc.assert(
      fc.property(describedValues, contexts, conventions, (value, from, other) => {
        const to = { codec: codecOf(other), world: from.world };
        const next = reinterpretValue(described, value, from, to);
        expect(described.safeParse(next).success).toBe(true);
        const [before, after] = [writeValue(described, value, from), writeValue(described, next, to)];
        // A half angle of 60° is no half angle of 60 radians: its meaning stays.
        if (value.sector && next.sector!.half === value.sector.half) after.sector!.half = before.sector!.half = 0;
        alike(after, before);
        // A 2D world has no height.
        if (from.world === plane) expect(next.ground).toBe(value.ground);
      }),
    );
  });

  it('has the limits and the type of its description', () => {
    const schema = group({ padding: length({ label: 'Padding', min: 0 }), half: angle({ above: 0, max: Math.PI }) });
    expect(schema.safeParse({ padding: 0, half: Math.PI }).success).toBe(true);
    for (const wrong of [
      { padding: -1, half: 1 },
      { padding: 0, half: 0 },
      { padding: 0, half: 4 },
    ])
      expect(schema.safeParse(wrong).success).toBe(false);
    expect(metaOf(schema.shape.padding)).toEqual({ kind: 'length', label: 'Padding', min: 0 });
    expect(z.toJSONSchema(schema)).toMatchObject({ properties: { padding: { minimum: 0 }, half: { exclusiveMinimum: 0 } } }); // prettier-ignore
  });
});
