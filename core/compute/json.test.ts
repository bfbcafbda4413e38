import { Series, seriesOf } from '../quantities/series';
import { writeJson } from './json';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';

const whole = (value: unknown): unknown =>
  value instanceof Series
    ? value.all()
    : Array.isArray(value)
      ? value.map(whole)
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(Object.entries(value).map(([key, one]) => [key, whole(one)]))
        : value;

describe('answers written in pieces', () => {
  it('are what they would be as a whole, in one line or indented', () => {
    const list = fc.array(fc.jsonValue({ maxDepth: 2 }), { maxLength: 6 });
    const result = fc.record({
      id: fc.string(),
      points: list.map((all) => seriesOf(all)),
      other: fc.jsonValue(),
      none: fc.constant(undefined),
    });
    fc.assert(
      fc.property(
        fc.record({ camera: fc.jsonValue(), results: fc.array(result) }),
        fc.constantFrom(0, 2),
        (value, indent) => {
          expect([...writeJson(value, indent)].join('')).toBe(JSON.stringify(whole(value), null, indent));
        },
      ),
    );
  });

  it('hold no more than a part at a time', () => {
    let most = 0;
    const list = new Series(10_000, (from, to) => {
      most = Math.max(most, to - from);
      return Array.from({ length: to - from }, (_, i) => from + i);
    });
    expect(list.all()).toHaveLength(10_000);
    expect(JSON.parse([...writeJson({ list })].join(''))).toEqual({ list: list.all() });
    expect(most).toBeLessThanOrEqual(4096);
  });
});
