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
  it('have matrices on four lines when they are indented, inside series as well', () => {
    const m = Array.from({ length: 16 }, (_, i) => i / 2);
    const text = [...writeJson({ results: [{ id: 'm', view: m, items: seriesOf([{ matrix: m }]) }] }, 2)].join('');
    expect(text).toContain('      "view": [\n        0, 0.5, 1, 1.5,\n        2, 2.5, 3, 3.5,\n        4, 4.5, 5, 5.5,\n        6, 6.5, 7, 7.5\n      ],');
    expect(text).toContain('          "matrix": [\n            0, 0.5, 1, 1.5,\n');
    expect(JSON.parse(text)).toEqual({ results: [{ id: 'm', view: m, items: [{ matrix: m }] }] });
  }); // prettier-ignore

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
