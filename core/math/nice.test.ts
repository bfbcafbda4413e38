import fc from 'fast-check';
import { expect, it } from 'vitest';
import { niceAbove, niceBelow, niceNear } from './nice';

const isNice = (v: number) => /^[125](\.0*)?e[+-]\d+$/.test(v.toExponential());

it('nice numbers are 1, 2 or 5 times a power of ten, and none lies between one and what it was asked for', () => {
  fc.assert(
    fc.property(fc.double({ min: 1e-12, max: 1e12, noNaN: true }), (v) => {
      const [below, above, near] = [niceBelow(v), niceAbove(v), niceNear(v)];
      for (const one of [below, above, near]) expect(isNice(one)).toBe(true);
      expect(below).toBeLessThanOrEqual(v);
      expect(above).toBeGreaterThanOrEqual(v);
      expect(above / below).toBeLessThan(2.5 * (1 + 1e-9));
      expect([below, above]).toContain(near);
    }),
  );
});

it.each([1, 2, 5, 10, 0.05, 0.2, 1000])('%d is its own', (v) => {
  expect([niceBelow(v), niceAbove(v), niceNear(v)]).toEqual([v, v, v]);
});
