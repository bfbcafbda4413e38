import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { randomFrom } from '../math/random';
import type { Vec2 } from '../math/vec3';
import { chiSquare, countTouching, fatesOf, paddingToHide, roundPlayer, takenByTerm, upperGamma } from './measures';
import { distanceToPolygon, touchesPolygon } from './region';
import { spawn, spawnRegion, type SpawnTerms } from './spawn';
import { runs } from '../testing/seed';

const real = (min: number, max: number) => fc.integer({ min: 0, max: 1024 }).map((v) => min + ((max - min) * v) / 1024);
const terms: fc.Arbitrary<SpawnTerms> = fc
  .record({
    w: real(4, 30),
    h: real(4, 20),
    clearance: real(0, 6),
    wide: real(20, 60),
    ring: fc.boolean(),
    disc: real(1, 12),
    sector: fc.option(real(0.3, 3)),
  }) // prettier-ignore
  .map(({ w, h, clearance, wide, ring, disc, sector }) => ({
    visible: [[-w, -h], [w, -h * 0.8], [w * 0.7, h], [-w * 0.8, h * 0.9]], // prettier-ignore
    clearance,
    bounds: ring ? { ringOuter: wide / 2 } : { min: [-wide, -wide], max: [wide, wide * 0.8] },
    keepAway: [{ centre: [w + 2, 0], distance: disc }],
    ahead: sector === null ? null : { apex: [0, 0], direction: [1, 0.4], halfAngle: sector },
  }));

describe('whether a disc touches what is seen', () => {
  it('is told as its distance tells it, of any size, wherever it lies', () => {
    const turns = fc.uniqueArray(fc.integer({ min: 0, max: 255 }), { minLength: 3, maxLength: 9 });
    let [inside, at, off] = [0, 0, 0];
    fc.assert(
      fc.property(turns, real(-12, 12), real(0.2, 1), real(0, 2), fc.tuple(real(-1.6, 1.6), real(-1.6, 1.6)), real(-1e4, 1e4), (list, power, flat, share, [x, y], far) => {
        const size = 2 ** power;
        const place = (u: number, v: number): Vec2 => [(far + u) * size, (v - far) * size];
        const polygon = list.sort((a, b) => a - b).map((v) => place(Math.cos((v * Math.PI) / 128), flat * Math.sin((v * Math.PI) / 128))); // prettier-ignore
        const p = place(x, y);
        const distance = distanceToPolygon(polygon, p);
        const rounding = 1e-12 * size * (1 + Math.abs(far));
        // Beside any radius those that just touch, and just do not.
        for (const radius of [share * size, distance + rounding, Math.max(0, distance - rounding)]) {
          if (Math.abs(distance - radius) < 0.5 * rounding && distance > 0) continue;
          expect(touchesPolygon(polygon, radius)(...p)).toBe(distance <= radius);
        }
        if (distance === 0) inside++;
        else if (distance < share * size) at++;
        else off++;
      }),
      { numRuns: runs(3000) },
    ); // prettier-ignore
    expect(Math.min(inside, at, off)).toBeGreaterThan(runs(60));
  });
});

describe('what terms leave', () => {
  it('grows less with every term, and comes to the region itself', () => {
    fc.assert(
      fc.property(terms, (given) => {
        const taken = takenByTerm(given);
        taken.slice(1).forEach(({ left, took }, i) => {
          expect(left).toBeLessThanOrEqual(taken[i]!.left * (1 + 1e-9));
          expect(taken[i]!.left - left).toBeCloseTo(took, 6);
        });
        const region = spawnRegion(given);
        expect(taken.at(-1)!.left).toBeCloseTo(region?.region.area ?? 0, 6);
      }),
    );
    // No area left: the term that took the last of it is the one with nothing left first.
    const full: SpawnTerms = { visible: [[-9, -9], [9, -9], [9, 9], [-9, 9]], clearance: 1, bounds: { min: [-8, -8], max: [8, 8] }, keepAway: [], ahead: null }; // prettier-ignore
    expect(takenByTerm(full).find(({ left }) => left === 0)!.term).toBe('view');
  });

  it('is drawn by triangles that have its area, and whose middles are allowed', () => {
    fc.assert(
      fc.property(terms, (given) => {
        const found = spawnRegion(given);
        if (!found) return;
        const corners = found.region.triangles();
        let [area, least] = [0, 0];
        for (let i = 0; i < corners.length; i += 3) {
          const [a, b, c] = corners.slice(i, i + 3) as [Vec2, Vec2, Vec2];
          const own = ((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
          least = Math.min(least, own);
          area += own;
        }
        expect(least).toBeGreaterThan(-1e-6);
        // Chords in the place of arcs.
        expect(area / found.region.area).toBeGreaterThan(0.95);
        expect(area / found.region.area).toBeLessThan(1.05);
      }),
    );
  });
});

it('the padding that hides another view too is just enough', () => {
  const here: SpawnTerms['visible'] = [[-20, -10], [20, -10], [20, 10], [-20, 10]]; // prettier-ignore
  fc.assert(
    fc.property(real(5, 40), real(5, 30), real(0, 4), fc.integer(), (w, h, radius, seed) => {
      const other: Vec2[] = [[-w, -h], [w, -h], [w, h], [-w, h]]; // prettier-ignore
      const padding = paddingToHide(here, other);
      expect(padding).toBeCloseTo(Math.hypot(Math.max(0, w - 20), Math.max(0, h - 10)), 9);
      const made = spawn({ visible: here, clearance: padding + radius, bounds: { min: [-70, -60], max: [70, 60] }, keepAway: [], ahead: null }, 300, seed, 'direct'); // prettier-ignore
      if ('points' in made)
        for (const p of made.points) expect(distanceToPolygon(other, p)).toBeGreaterThanOrEqual(radius - 1e-9);
    }),
  );
});

describe('how even points lie', () => {
  it('is told by the two numbers that draw each of them', () => {
    fc.assert(
      fc.property(terms, fc.integer(), (given, seed) => {
        const found = spawnRegion(given);
        if (!found) return;
        const numbers: number[] = [];
        const random = randomFrom(seed);
        const noted = () => (numbers.push(random()), numbers.at(-1)!);
        for (let i = 0; i < 20; i++) {
          const [u, v] = found.region.sharesOf(found.region.draw(noted))!;
          expect(u).toBeCloseTo(numbers.at(-2)!, 6);
          expect(v).toBeCloseTo(numbers.at(-1)!, 5);
        }
        expect(found.region.sharesOf([1e6, 0])).toBeNull();
      }),
    );
  });

  it('by chi-square: drawn and rolled points pass, points round the player do not', () => {
    const given: SpawnTerms = { visible: [[-20, -10], [20, -10], [20, 10], [-20, 10]], clearance: 3, bounds: { min: [-60, -40], max: [60, 40] }, keepAway: [], ahead: null }; // prettier-ignore
    const { region, allowed } = spawnRegion(given)!;
    const p = (points: readonly Vec2[]) =>
      chiSquare(Float64Array.from(points.flatMap((one) => region.sharesOf(one) ?? [NaN, NaN])), 6)!.p;
    for (const method of ['direct', 'rejection'] as const) {
      const made = [1, 2, 3, 4, 5].map((seed) => spawn(given, 4000, seed, method));
      for (const one of made) expect('points' in one && p(one.points)).toBeGreaterThan(1e-4);
      if ('points' in made[0]! && method === 'rejection') {
        expect(made[0].tries).toBeGreaterThan(4000);
        expect(made[0].worst).toBeGreaterThan(2);
      }
    }
    const round = roundPlayer([0, 0], 15, 50, 4000, 1);
    const places = Array.from({ length: 4000 }, (_, i): Vec2 => [round[2 * i]!, round[2 * i + 1]!]);
    expect(p(places)).toBeLessThan(1e-9);
    places.forEach(([x, y]) => expect(Math.abs(Math.hypot(x, y) - 32.5)).toBeLessThanOrEqual(17.5 + 1e-9));
    const fates = fatesOf(round, given.visible, 1, allowed);
    expect(fates.seen + fates.wasted + fates.right).toBe(4000);
    expect(fates.seen).toBeGreaterThan(100);
    expect(countTouching(given.visible, round, 1)).toBe(fates.seen);
    expect(fates.wasted).toBeGreaterThan(100);
    expect(chiSquare(new Float64Array(0), 4)).toBeNull();
  });

  it('by a distribution that is known: of two degrees it is exp(−x/2), of one the error function’s', () => {
    fc.assert(
      fc.property(real(0.01, 80), (x) => void expect(upperGamma(1, x / 2) / Math.exp(-x / 2)).toBeCloseTo(1, 10)),
    );
    // Quantiles of tables.
    expect(upperGamma(0.5, 3.841458820694124 / 2)).toBeCloseTo(0.05, 10);
    expect(upperGamma(17.5, 49.80184956820187 / 2)).toBeCloseTo(0.05, 8);
    expect(upperGamma(5, 0)).toBe(1);
  });
});
