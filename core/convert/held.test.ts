import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heldPixel, insetAt, type Hold } from './held';

const side = fc.integer({ min: 1, max: 16384 });
const inset = fc.double({ min: -3000, max: 3000, noNaN: true });
const way = fc.constantFrom(-1 as const, 0 as const, 1 as const);

describe('points held to the screen', () => {
  it('stand at their inset from the corner that they are held to', () => {
    const screen = { width: 800, height: 600 };
    const at = (hold: Hold) => heldPixel(screen, hold, [24, 10]);
    expect(at([-1, 1])).toEqual([24, 10]);
    expect(at([1, 1])).toEqual([776, 10]);
    expect(at([1, -1])).toEqual([776, 590]);
    expect(at([0, 0])).toEqual([424, 310]);
  });

  it('keep their distance from their edges on any screen, and are where an inset says', () => {
    fc.assert(
      fc.property(side, side, side, side, way, way, inset, inset, (w, h, w2, h2, across, upward, x, y) => {
        const hold: Hold = [across, upward];
        const [a, b] = [heldPixel({ width: w, height: h }, hold, [x, y]), heldPixel({ width: w2, height: h2 }, hold, [x, y])]; // prettier-ignore
        // What a screen grows by is before the point, behind it, or half and half.
        expect(b[0] - a[0]).toBeCloseTo((w2 - w) * ((across + 1) / 2), 6);
        expect(b[1] - a[1]).toBeCloseTo((h2 - h) * ((1 - upward) / 2), 6);
        const back = insetAt({ width: w2, height: h2 }, hold, b);
        expect(back[0]).toBeCloseTo(x, 9);
        expect(back[1]).toBeCloseTo(y, 9);
      }),
    );
  });
});
