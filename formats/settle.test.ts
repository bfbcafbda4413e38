import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies } from '../core/bodies/body';
import { worldShape } from '../core/bodies/geometry';
import { saltmarrow } from '../demo/saltmarrow';
import { origins, settledBodies } from './settle';
import { runs } from '../core/testing/seed';

const boxOf = (bodies: ReturnType<typeof settledBodies>) => {
  const placed = placeBodies(bodies);
  if (!placed.ok) throw new Error(placed.problems[0]!.message);
  const all = placed.placed.flatMap((one) => {
    const shape = worldShape(one);
    if (shape.kind === 'hull') return [...shape.points];
    return [-1, 1].map((s) => shape.centre.map((v) => v + s * shape.radius) as [number, number, number]);
  });
  return [0, 1, 2].map((i) => [Math.min(...all.map((p) => p[i]!)), Math.max(...all.map((p) => p[i]!))] as const);
};

describe('what is brought in, settled', () => {
  it('is as large as said, and has its origin where it is wanted', () => {
    const bodies = saltmarrow().bodies.map((body) => ({ ...body, motion: null }));
    const before = boxOf(bodies);
    fc.assert(
      fc.property(fc.constantFrom(...origins), fc.double({ min: 1e-3, max: 1e3, noNaN: true }), (origin, factor) => {
        const after = boxOf(settledBodies(bodies, origin, factor));
        after.forEach(([low, high], i) => {
          const size = (before[i]![1] - before[i]![0]) * factor;
          expect((high - low) / size).toBeCloseTo(1, 9);
          if (origin === 'kept') expect(Math.abs(low - before[i]![0] * factor)).toBeLessThan(1e-9 * size);
          else if (origin === 'base' && i === 1) expect(Math.abs(low)).toBeLessThan(1e-9 * size);
          else expect(Math.abs(low + high)).toBeLessThan(1e-9 * size);
        });
      }),
      { numRuns: runs(40) },
    );
  });

  it('is the same where nothing is changed', () => {
    const { bodies } = saltmarrow();
    expect(settledBodies(bodies, 'kept', 1)).toEqual(bodies);
  });
});
