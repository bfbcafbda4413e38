import fc from 'fast-check';
import { expect, it } from 'vitest';
import { differences } from './compare';

it('names every place in which two values differ', () => {
  expect(differences({ a: 1, b: [1, 2], c: { d: null } }, { a: 1, b: [1, 3, 4], c: { d: 0 }, e: 'new' })).toEqual([
    { path: 'b[1]', before: 2, after: 3 },
    { path: 'b[2]', before: undefined, after: 4 },
    { path: 'c.d', before: null, after: 0 },
    { path: 'e', before: undefined, after: 'new' },
  ]);
});

it('finds none exactly where two values are written alike', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
      expect(differences(a, a)).toEqual([]);
      const alike = JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));
      expect(differences(a, b).length === 0).toBe(alike);
      expect(differences(a, b, 2).length).toBeLessThanOrEqual(2);
    }),
  );
});
const sorted = (v: unknown): unknown =>
  Array.isArray(v)
    ? v.map(sorted)
    : typeof v === 'object' && v !== null
      ? Object.fromEntries(Object.entries(v).map(([k, x]) => [k, sorted(x)]).sort(([a], [b]) => (String(a) < String(b) ? -1 : 1)))
      : Object.is(v, -0) ? 0 : v; // prettier-ignore
