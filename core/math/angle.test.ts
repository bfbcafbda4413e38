import fc from 'fast-check';
import { expect, it } from 'vitest';
import { degrees, radians, tidyDegrees } from './angle';

const typed = fc.integer({ min: -3_600_000, max: 3_600_000 }).map((v) => v / 1e4 || 0);

it('degrees and radians are each other’s way back, and a typed angle comes back as it was typed', () => {
  expect(radians(180)).toBe(Math.PI);
  expect(degrees(-Math.PI / 2)).toBe(-90);
  fc.assert(
    fc.property(typed, (angle) => {
      expect(degrees(radians(angle))).toBeCloseTo(angle, 11);
      expect(radians(degrees(radians(angle)))).toBeCloseTo(radians(angle), 14);
      expect(tidyDegrees(radians(angle))).toBe(angle);
    }),
  );
  expect(Object.is(tidyDegrees(-0), 0)).toBe(true);
});
