import type { Vec2 } from '../math/vec3';
import { randomFrom } from '../math/random';
import { distanceToPolygon, touchesPolygon } from './region';
import { spawnRegion, type SpawnTerms } from './spawn';

/* How terms and methods of spawning measure up: what each term takes, and how even points lie. */

/** The terms in the order in which they are taken away from the bounds. */
export const spawnTermNames = ['bounds', 'view', 'discs', 'sector'] as const;
export type SpawnTermName = (typeof spawnTermNames)[number];

export interface TermTaken {
  readonly term: SpawnTermName;
  /** Area left after it, in square units. */
  readonly left: number;
  /** What it took of what was left before. */
  readonly took: number;
}

/**
 * What each term leaves, one after another: the bounds themselves, less the view with its padding,
 * less the keep-away discs, within the sector. The first that leaves nothing is the one to widen;
 * those after it take nothing more. `all` is the region of all terms, where it is known.
 */
export function takenByTerm(terms: SpawnTerms, all = spawnRegion(terms)): readonly TermTaken[] {
  const steps: readonly SpawnTerms[] = [{ ...terms, keepAway: [], ahead: null }, { ...terms, ahead: null }, terms];
  const { bounds } = terms;
  const first = spawnRegion(steps[0]!);
  const whole =
    first?.areaBounds ??
    ('min' in bounds ? Math.max(0, bounds.max[0] - bounds.min[0]) * Math.max(0, bounds.max[1] - bounds.min[1]) : 0);
  const taken: TermTaken[] = [{ term: 'bounds', left: whole, took: 0 }];
  let before = whole;
  steps.forEach((step, i) => {
    const left = before > 0 ? ((i === 0 ? first : step === terms ? all : spawnRegion(step))?.region.area ?? 0) : 0;
    taken.push({ term: spawnTermNames[i + 1]!, left, took: Math.max(0, before - left) });
    before = left;
  });
  return taken;
}

/** Points uniform by area in a ring about a place, as pairs after one another: what is customary, and knows nothing of the view. */
export function roundPlayer(centre: Vec2, inner: number, outer: number, count: number, seed: number): Float64Array {
  const random = randomFrom(seed);
  const pairs = new Float64Array(2 * count);
  for (let i = 0; i < pairs.length; i += 2) {
    const r = Math.sqrt(inner * inner + random() * (outer * outer - inner * inner));
    const a = 2 * Math.PI * random();
    pairs[i] = centre[0] + r * Math.cos(a);
    pairs[i + 1] = centre[1] + r * Math.sin(a);
  }
  return pairs;
}

/** What becomes of points that were spawned without asking what is seen. */
export interface Fates {
  /** Off the bounds, or where another term would not have them: to be thrown away. */
  readonly wasted: number;
  /** Touching what is seen: they pop into view. */
  readonly seen: number;
  readonly right: number;
}

/** How many discs of a radius about points (pairs after one another) touch a convex region. */
export function countTouching(region: readonly Vec2[], pairs: Float64Array, radius: number): number {
  const touching = touchesPolygon(region, radius);
  let count = 0;
  for (let i = 0; i < pairs.length; i += 2) if (touching(pairs[i]!, pairs[i + 1]!)) count++;
  return count;
}

/** Counts points (pairs after one another) by what becomes of them; what is seen is never counted as wasted beside. */
export function fatesOf(
  pairs: Float64Array,
  visible: readonly Vec2[],
  radius: number,
  allowed: (p: Vec2) => boolean,
): Fates {
  const touching = touchesPolygon(visible, radius);
  return fatesBy(pairs, (i) => touching(pairs[2 * i]!, pairs[2 * i + 1]!), allowed);
}

/** The same, with whether a point is seen known by its place in the list; null for all that are allowed. */
export function fatesBy(
  pairs: Float64Array,
  isSeen: (i: number) => boolean,
  allowed: ((p: Vec2) => boolean) | null,
): Fates {
  let [seen, right] = [0, 0];
  const count = pairs.length / 2;
  for (let i = 0; i < count; i++)
    if (isSeen(i)) seen++;
    else if (!allowed || allowed([pairs[2 * i]!, pairs[2 * i + 1]!])) right++;
  return { seen, right, wasted: count - seen - right };
}

/**
 * The least padding about one convex view that keeps out of another too, whatever the body’s radius:
 * the greatest distance from the one of a place of the other, which is that of a corner, since the
 * distance from a convex region is convex. A body that is at least so far off the one, beside its
 * radius, does not touch the other. World units; 0 where the other lies within the one.
 */
export const paddingToHide = (from: readonly Vec2[], other: readonly Vec2[]): number =>
  other.reduce((most, corner) => Math.max(most, distanceToPolygon(from, corner)), 0);

/** How even points lie: Pearson’s statistic over equal bins. */
export interface ChiSquare {
  readonly statistic: number;
  /** Degrees of freedom, one less than there are bins. */
  readonly freedom: number;
  /** The share of even lots of points that come out no more even than these; 0…1. */
  readonly p: number;
  /** Points in each bin, row by row. */
  readonly counts: readonly number[];
}

/**
 * Pearson's chi-square of shares (0…1, pairs after one another, as `sharesInto` gives them) over `bins` × `bins`
 * equal cells, in each of which as many are to be expected. Pairs that are NaN count as off the
 * region and are left out. Null with fewer than five to a bin, where the statistic says nothing.
 */
export function chiSquare(shares: Float64Array, bins: number): ChiSquare | null {
  const counts = Array<number>(bins * bins).fill(0);
  let all = 0;
  for (let i = 0; i < shares.length; i += 2) {
    const a = shares[i]!;
    if (Number.isNaN(a)) continue;
    counts[Math.min(bins - 1, Math.floor(a * bins)) * bins + Math.min(bins - 1, Math.floor(shares[i + 1]! * bins))]!++;
    all++;
  }
  const expected = all / counts.length;
  if (expected < 5) return null;
  const statistic = counts.reduce((sum, n) => sum + (n - expected) ** 2 / expected, 0);
  const freedom = counts.length - 1;
  return { statistic, freedom, p: upperGamma(freedom / 2, statistic / 2), counts };
}

/**
 * The regularised upper incomplete gamma function Q(a, x): by its series below a + 1, by its
 * continued fraction above (DLMF 8.7.1, 8.9.2; Lentz's method).
 */
export function upperGamma(a: number, x: number): number {
  if (!(x > 0)) return 1;
  const scale = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let [term, sum] = [1 / a, 1 / a];
    for (let n = 1; n < 10_000 && term > sum * 1e-16; n++) sum += term *= x / (a + n);
    return Math.max(0, 1 - sum * scale);
  }
  const tiny = 1e-300;
  let b = x + 1 - a;
  let c = 1 / tiny;
  let d = 1 / b;
  let h = d;
  for (let i = 1; i < 10_000; i++) {
    const an = -i * (i - a);
    b += 2;
    d = 1 / (an * d + b || tiny);
    c = b + an / c || tiny;
    h *= d * c;
    if (Math.abs(d * c - 1) < 1e-15) break;
  }
  return Math.min(1, scale * h);
}

/** The logarithm of the gamma function for a > 0: Stirling's series from 10 on, by recurrence below. */
function logGamma(a: number): number {
  let [x, less] = [a, 0];
  while (x < 10) less += Math.log(x++);
  const i = 1 / (x * x);
  return (x - 0.5) * Math.log(x) - x + Math.log(2 * Math.PI) / 2 + (1 / 12 - i * (1 / 360 - i * (1 / 1260 - i / 1680))) / x - less; // prettier-ignore
}
