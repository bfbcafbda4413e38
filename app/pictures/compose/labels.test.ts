import fc from 'fast-check';
import { expect, it } from 'vitest';
import { around, overlap, place, type Label } from './labels';

it('never lets two words touch or leave the picture, and loses none', () => {
  const labels = fc.array(
    fc.record({
      key: fc.string(),
      x: fc.integer({ min: 0, max: 600 }),
      y: fc.integer({ min: 0, max: 300 }),
      width: fc.integer({ min: 5, max: 140 }),
    }),
    { maxLength: 60 },
  );
  fc.assert(
    fc.property(labels, (list) => {
      const all: Label[] = list.map((one) => ({ ...one, spots: around }));
      const taken = [{ x: 100, y: 100, width: 80, height: 30 }];
      const { placed, left } = place(all, { x: 0, y: 0, width: 600, height: 300 }, taken);
      expect(placed.length + left.length).toBe(all.length);
      const boxes = [...taken, ...placed.map(({ box }) => box)];
      boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => expect(overlap(a, b)).toBe(false)));
      placed.forEach(({ box }) =>
        expect(box.x >= 0 && box.y >= 0 && box.x + box.width <= 600 && box.y + box.height <= 300).toBe(true),
      );
      if (all.length)
        expect(place(all.slice(0, 1), { x: -200, y: -200, width: 1000, height: 700 }).placed).toHaveLength(1);
    }),
  );
});
