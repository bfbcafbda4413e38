import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vec2 } from '../math/vec3';
import { randomFrom } from '../math/random';
import { areaAndCentroid, distanceToPolygon } from './region';
import { spawn as spawnOrNot, type SpawnTerms, type Spawned } from './spawn';
import { runs } from '../testing/seed';

/** What is spawned; null where nothing is. */
const spawn = (...given: Parameters<typeof spawnOrNot>): Spawned | null => {
  const found = spawnOrNot(...given);
  return 'why' in found ? null : found;
};

const square: Vec2[] = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
];
const terms = (part: Partial<SpawnTerms> = {}): SpawnTerms => ({
  visible: square,
  clearance: 0.5,
  bounds: { min: [-5, -4], max: [5, 4] },
  keepAway: [],
  ahead: null,
  ...part,
});
const area = (t: SpawnTerms) => spawn(t, 0, 1, 'direct')!.areaAllowed;
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('the allowed area', () => {
  const rounded = 4 + 8 * 0.5 + Math.PI * 0.25;
  it('is exact for lines and circles', () => {
    expect(area(terms())).toBeCloseTo(80 - rounded, 11);
    expect(area(terms({ clearance: 0 }))).toBeCloseTo(76, 11);
    expect(area(terms({ bounds: { ringOuter: 2 } }))).toBeCloseTo(8 * 2 + Math.PI * (6.25 - 0.25), 10);
    expect(area(terms({ keepAway: [{ centre: [-3.5, 0], distance: 1 }] }))).toBeCloseTo(80 - rounded - Math.PI, 11);
    // Half of a disc at the bounds' edge, and two discs that overlap in a lens.
    expect(area(terms({ keepAway: [{ centre: [5, 0], distance: 1 }] }))).toBeCloseTo(80 - rounded - Math.PI / 2, 11);
    const lens = 2 * Math.acos(0.5) - 0.5 * Math.sqrt(3);
    expect(
      area(
        terms({
          keepAway: [
            { centre: [3, 0], distance: 1 },
            { centre: [4, 0], distance: 1 },
          ],
        }),
      ),
    ).toBeCloseTo(80 - rounded - (2 * Math.PI - lens), 11);
    expect(area(terms({ ahead: { apex: [0, 0], direction: [0, 3], halfAngle: Math.PI / 2 } }))).toBeCloseTo(
      (80 - rounded) / 2,
      10,
    );
    expect(
      area(terms({ ahead: { apex: [0, 0], direction: [1, 0], halfAngle: Math.PI / 4 } })) * 2 +
        area(terms({ ahead: { apex: [0, 0], direction: [0, 1], halfAngle: Math.PI / 4 } })) * 2,
    ).toBeCloseTo(80 - rounded, 9);
  });
  it('says at once when nothing is left', () => {
    expect(spawn(terms({ clearance: 30 }), 10, 1, 'rejection')).toBeNull();
    expect(spawn(terms({ bounds: { min: [-1, -1], max: [1, 1] } }), 10, 1, 'direct')).toBeNull();
  });
});

/**
 * Corners on an ellipse, at multiples of 15° with no gap of half a turn: convex, counter-clockwise,
 * about a middle.
 */
const polygons = fc
  .tuple(
    fc.tuple(real(-5, 5), real(-5, 5)),
    fc.tuple(
      fc.integer({ min: 0, max: 7 }),
      fc.integer({ min: 8, max: 11 }),
      fc.integer({ min: 16, max: 19 }),
      fc.integer({ min: 20, max: 23 }),
    ),
    real(0.5, 6),
  )
  .map(([[x, y], turns, r]) =>
    turns.map((k): Vec2 => [x + r * Math.cos((k * Math.PI) / 12), y + 0.6 * r * Math.sin((k * Math.PI) / 12)]),
  );
const setUps: fc.Arbitrary<SpawnTerms> = fc
  .record({
    visible: polygons,
    clearance: real(0, 3),
    bounds: fc.oneof(
      fc.record({ min: fc.tuple(real(-20, -6), real(-20, -6)), max: fc.tuple(real(6, 20), real(6, 20)) }),
      fc.record({ ringOuter: real(0.5, 6) }),
    ),
    keepAway: fc.array(fc.record({ centre: fc.tuple(real(-12, 12), real(-12, 12)), distance: real(0.1, 5) }), {
      maxLength: 3,
    }),
    sector: fc.option(fc.record({ direction: fc.tuple(real(-1, 1), real(0.1, 1)), halfAngle: real(0.2, 3.3) })),
  })
  .map(({ sector, ...rest }) => ({
    ...rest,
    ahead: sector && { ...sector, apex: areaAndCentroid(rest.visible).centroid },
  }));

describe('points', () => {
  it('never come nearer than they may, in 200 set-ups of 5,000 points', () => {
    let total = 0;
    fc.assert(
      fc.property(setUps, fc.integer(), (t, seed) => {
        const made = spawn(t, 5000, seed, 'direct');
        if (!made) return;
        total += made.points.length;
        expect(made.tries).toBe(5000);
        const most = 'ringOuter' in t.bounds ? t.clearance + t.bounds.ringOuter : Infinity;
        // One comparison a set-up: a million expectations would take minutes.
        const wrong = made.points.filter((p) => {
          const d = distanceToPolygon(t.visible, p);
          const clear = t.keepAway.every(
            ({ centre, distance }) => Math.hypot(p[0] - centre[0], p[1] - centre[1]) >= distance - 1e-9,
          );
          return d < t.clearance - 1e-9 || d > most + 1e-9 || !clear;
        });
        expect(wrong).toEqual([]);
      }),
      { numRuns: runs(200) },
    );
    expect(total).toBeGreaterThan(runs(540000));
  }, 120_000);

  it('have the area that counting finds', () => {
    fc.assert(
      fc.property(setUps, (t) => {
        // Rolling again over a ring's bounding box, or for a sliver, would say nothing in any time
        // worth waiting.
        const first = spawn(t, 0, 5, 'direct');
        if (!first || 'ringOuter' in t.bounds || first.areaAllowed < 0.05 * first.areaBounds) return;
        const made = spawn(t, 4000, 5, 'rejection')!;
        const share = made.areaAllowed / made.areaBounds;
        const found = 4000 / made.tries;
        expect(Math.abs(found - share)).toBeLessThan(5 * Math.sqrt((share * (1 - share)) / made.tries) + 1e-3);
      }),
      { numRuns: runs(60) },
    );
  }, 60_000);

  it('are uniform by area: chi-square over cells of equal size', () => {
    // Cells of 1 × 1 that lie wholly in the allowed region.
    const t = terms({ keepAway: [{ centre: [3.5, 2.5], distance: 0.9 }] });
    const cells = Array.from({ length: 80 }, (_, i): Vec2 => [-5 + (i % 10), -4 + Math.floor(i / 10)]).filter(
      ([x, y]) => Math.max(Math.abs(x + 0.5), Math.abs(y + 0.5)) > 2 && !(x >= 2 && y >= 1),
    );
    const counts = new Map(cells.map(([x, y]) => [`${x} ${y}`, 0]));
    const made = spawn(t, 100_000, 12345, 'direct')!;
    for (const [x, y] of made.points) {
      const key = `${Math.floor(x)} ${Math.floor(y)}`;
      if (counts.has(key)) counts.set(key, counts.get(key)! + 1);
    }
    const expected = 100_000 / made.areaAllowed;
    const chi = [...counts.values()].reduce((sum, n) => sum + (n - expected) ** 2 / expected, 0);
    const freedom = counts.size;
    expect(freedom).toBeGreaterThan(45);
    expect(chi).toBeLessThan(freedom + 4 * Math.sqrt(2 * freedom));
    expect(chi).toBeGreaterThan(freedom - 4 * Math.sqrt(2 * freedom));
  });

  it('are the same from the same seed, and the generator is the one that is named', () => {
    expect(spawn(terms(), 3, 42, 'direct')!.points).toEqual(spawn(terms(), 3, 42, 'direct')!.points);
    expect(spawn(terms(), 3, 42, 'direct')!.points).not.toEqual(spawn(terms(), 3, 43, 'direct')!.points);
    const random = randomFrom(1);
    const mean = Array.from({ length: 100_000 }, random).reduce((a, b) => a + b) / 100_000;
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.004);
  });
});

describe('discs over one another, and rolling again', () => {
  it('has the area that points rolled at random find, however many discs lie over one another', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 60 }), (seed, count) => {
        const random = randomFrom(seed);
        const keepAway = Array.from({ length: count }, () => ({
          centre: [40 * random() - 20, 40 * random() - 20] as [number, number],
          distance: 1 + 5 * random(),
        }));
        const visible: [number, number][] = [[-2, -2], [2, -2], [2, 2], [-2, 2]]; // prettier-ignore
        const terms = { visible, clearance: 0.5, bounds: { min: [-20, -20], max: [20, 20] }, keepAway, ahead: null } as const; // prettier-ignore
        const rolls = 20_000;
        let hits = 0;
        for (let i = 0; i < rolls; i++) {
          const p = [40 * random() - 20, 40 * random() - 20] as const;
          const off = [Math.max(0, Math.abs(p[0]) - 2), Math.max(0, Math.abs(p[1]) - 2)] as const;
          if (Math.hypot(...off) >= 0.5 && keepAway.every(({ centre, distance }) => Math.hypot(p[0] - centre[0], p[1] - centre[1]) >= distance)) hits++; // prettier-ignore
        }
        const share = hits / rolls;
        const found = spawn(terms, 0, 1, 'direct');
        // Five standard deviations of the rolls.
        expect(Math.abs((found?.areaAllowed ?? 0) / 1600 - share)).toBeLessThan(5 * Math.sqrt((share * (1 - share) + 1e-4) / rolls)); // prettier-ignore
      }),
      { numRuns: runs(25) },
    );
  });

  it('does not begin what would roll for ever, and says how often it would', () => {
    const terms = {
      visible: [[-2, -2], [2, -2], [2, 2], [-2, 2]], // prettier-ignore
      clearance: 0,
      bounds: { min: [-20, -20], max: [20, 20] },
      keepAway: [],
      ahead: { apex: [0, 0], direction: [1, 0], halfAngle: 1e-7 },
    } as const;
    const found = spawnOrNot(terms, 1000, 1, 'rejection');
    expect(found).toMatchObject({ why: 'tooManyTries' });
    expect((found as { expected: number }).expected).toBeGreaterThan(1e9);
    expect(spawn(terms, 1000, 1, 'direct')!.points).toHaveLength(1000);
  });
});
