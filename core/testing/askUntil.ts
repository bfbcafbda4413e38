import fc from 'fast-check';
import { expect } from 'vitest';
import { seeded } from './seed';

/**
 * Asks random values until enough of them count, so that a test of rare cases has them without luck.
 *
 * @param check - asserts what holds for a value, and returns how many cases of the wanted kind it was
 * @param most - values asked at most; fewer than `enough` cases among them fail the test
 */
export function askUntil<T>(values: fc.Arbitrary<T>, enough: number, check: (value: T) => number, most = 4_000): void {
  let counted = 0;
  for (let from = 0; from < most && counted < enough; from += 50)
    for (const value of fc.sample(values, { numRuns: 50, seed: seeded(from + 1) })) {
      if (counted >= enough) break;
      counted += check(value);
    }
  expect(counted).toBeGreaterThanOrEqual(enough);
}
