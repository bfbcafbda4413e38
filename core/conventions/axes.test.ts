import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { axisFrames } from '../testing/arbitraries';
import { axesAreDistinct, axisVector, letterOf, opposite, signedAxes, withAxis } from './axes';

const anyAxis = fc.constantFrom(...signedAxes);
const direction = fc.constantFrom('right' as const, 'up' as const, 'forward' as const);

describe('axes', () => {
  it('have an other end, whose other end they are', () => {
    for (const axis of signedAxes) {
      expect(opposite(opposite(axis))).toBe(axis);
      expect(axisVector(opposite(axis))).toEqual(axisVector(axis).map((v) => -v || 0));
    }
  });

  it('stay three different ones when a direction is given another', () => {
    fc.assert(
      fc.property(axisFrames, direction, anyAxis, (frame, which, axis) => {
        const next = withAxis(frame, which, axis);
        expect(next[which]).toBe(axis);
        expect(axesAreDistinct(next)).toBe(true);
        // No more than two directions are others, and the one that gave way has what was set free.
        for (const other of ['right', 'up', 'forward'] as const)
          if (other !== which)
            expect(next[other]).toBe(letterOf(frame[other]) === letterOf(axis) ? frame[which] : frame[other]);
      }),
    );
  });
});
