import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Word } from './contract';
import { overlap } from './labels';
import { placeWords } from './placement';
import { housePanes, paneFits, rowOf, stripHeight } from './panes';
import { instanceCorners } from '../render/layers/instances';
import { saltmarrow } from '../../../demo/saltmarrow';
import { emptySpace } from '../../../demo/empty';

const bounds = { x: 0, y: 0, width: 500, height: 320 };
const words: fc.Arbitrary<Word[]> = fc.array(
  fc.record({
    text: fc.string({ minLength: 1, maxLength: 24 }),
    at: fc.tuple(fc.integer({ min: -50, max: 550 }), fc.integer({ min: -50, max: 370 })),
    ink: fc.constantFrom('name' as const, 'figure' as const, 'note' as const),
    priority: fc.integer({ min: 0, max: 60 }),
    leader: fc.boolean(),
  }),
  { maxLength: 40 },
);

describe('the one placement of words', () => {
  it('has none touch another nor what is taken, and none leave the picture', () => {
    const taken = [{ x: 180, y: 100, width: 120, height: 60 }];
    fc.assert(
      fc.property(words, (list) => {
        const { boxes, placed } = placeWords(list, bounds, taken);
        expect(placed.size).toBe(boxes.length);
        boxes.forEach((box, i) => {
          expect(box.x).toBeGreaterThanOrEqual(0);
          expect(box.y).toBeGreaterThanOrEqual(0);
          expect(box.x + box.width).toBeLessThanOrEqual(bounds.width);
          expect(box.y + box.height).toBeLessThanOrEqual(bounds.height);
          for (const other of [...taken, ...boxes.slice(i + 1)]) expect(overlap(box, other)).toBe(false);
        });
      }),
    );
  });

  it('places what comes first whatever comes after it', () => {
    fc.assert(
      fc.property(words, words, (first, later) => {
        const before = first.map((word) => ({ ...word, priority: 5 }));
        const after = later.map((word) => ({ ...word, priority: 6 }));
        const alone = placeWords(before, bounds, []);
        const both = placeWords([...after, ...before], bounds, []);
        for (const word of before) expect(both.placed.has(word)).toBe(alone.placed.has(word));
        expect(both.boxes.slice(0, alone.boxes.length)).toEqual(alone.boxes);
      }),
    );
  });

  it('draws a leader from the point to the nearer end of the word', () => {
    const word: Word = { text: 'Lighthouse', at: [250, 160], ink: 'name', priority: 1, leader: true };
    const { marks } = placeWords([word], bounds, []);
    expect(marks.map(({ ink }) => ink)).toEqual(['leader', 'leader-dot', 'name']);
    expect(marks[0]).toHaveProperty('d', expect.stringMatching(/^M250 160L/));
    expect(placeWords([{ ...word, leader: false }], bounds, []).marks).toHaveLength(1);
  });
});

describe('the row of panes', () => {
  const anyPane = fc.oneof(fc.constantFrom(...housePanes), fc.constant('sample/chart'));

  it('has one to three, none twice, and none without a meaning in the world', () => {
    fc.assert(
      fc.property(fc.array(anyPane, { maxLength: 6 }), anyPane, fc.boolean(), (wanted, usual, flat) => {
        const row = rowOf(wanted, usual, flat);
        expect(row.length).toBeGreaterThanOrEqual(1);
        expect(row.length).toBeLessThanOrEqual(3);
        expect(new Set(row).size).toBe(row.length);
        for (const pane of row) expect(paneFits(pane, flat)).toBe(true);
      }),
    );
  });

  it('is the plan and what the task opens with until the user says otherwise', () => {
    expect(rowOf(undefined, 'section', false)).toEqual(['plan', 'section']);
    expect(rowOf([], 'points', false)).toEqual(['plan', 'points']);
    expect(rowOf(undefined, 'section', true)).toEqual(['plan', 'screens']);
    expect(rowOf(['outside', 'section'], 'section', true)).toEqual(['screens']);
  });

  it('leaves room for the time rule only where something moves', () => {
    expect(stripHeight(saltmarrow(), 0)).toBeGreaterThan(0);
    expect(stripHeight(emptySpace('new'), 0)).toBe(0);
    expect(stripHeight(emptySpace('new'), 90)).toBe(90);
  });
});

describe('the shapes of instances', () => {
  it.each(['box', 'sphere', 'quad', 'cross'] as const)(
    '%s is of size 1 about its own origin, corners shared',
    (shape) => {
      const { places, indices } = instanceCorners(shape);
      expect(new Set(places.map((place) => place.join())).size).toBe(places.length);
      expect(new Set(indices).size).toBe(places.length);
      expect(Math.max(...indices)).toBe(places.length - 1);
      for (const axis of [0, 1, 2]) {
        const along = places.map((place) => place[axis]!);
        const wanted = shape === 'quad' && axis === 2 ? 0 : 1;
        expect(Math.max(...along) - Math.min(...along)).toBeCloseTo(wanted, 2);
        expect(Math.max(...along) + Math.min(...along)).toBeCloseTo(0, 6);
      }
      if (shape === 'sphere') for (const place of places) expect(Math.hypot(...place)).toBeCloseTo(0.5, 6);
    },
  );

  it('has its faces turned outwards', () => {
    for (const shape of ['box', 'sphere'] as const) {
      const { places, indices } = instanceCorners(shape);
      for (let i = 0; i < indices.length; i += 3) {
        const [a, b, c] = [places[indices[i]!]!, places[indices[i + 1]!]!, places[indices[i + 2]!]!];
        const volume =
          a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
        expect(volume).toBeGreaterThan(0);
      }
    }
  });
});
