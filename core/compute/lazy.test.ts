import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lazily, Lazy, writeJson } from './lazy';

const whole = (value: unknown): unknown =>
  value instanceof Lazy
    ? value.whole()
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
      points: list.map((all) => lazily(all, (one) => one)),
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
    const list = new Lazy(10_000, (from, to) => {
      most = Math.max(most, to - from);
      return Array.from({ length: to - from }, (_, i) => from + i);
    });
    expect(list.whole()).toHaveLength(10_000);
    expect(JSON.parse([...writeJson({ list })].join(''))).toEqual({ list: list.whole() });
    expect(most).toBeLessThanOrEqual(4096);
  });
});
