import type { Vec2 } from '../math/vec3';
import { randomFrom } from '../math/random';
import { areaAndCentroid, distanceToPolygon, grownOutlines, regionOf, type Outline, type Region } from './region';

/**
 * Where a body may appear, in coordinates of the surface. Distances in world units, angles in
 * radians.
 */
export interface SpawnTerms {
  /**
   * What is to be kept away from (the visible footprint, grown by pixels if the padding is in
   * them): convex, counter-clockwise.
   */
  readonly visible: readonly Vec2[];
  /** The least distance from it: padding (in world units) and radius. */
  readonly clearance: number;
  readonly bounds: { readonly min: Vec2; readonly max: Vec2 } | { readonly ringOuter: number };
  readonly keepAway: readonly { readonly centre: Vec2; readonly distance: number }[];
  /** A sector seen from `apex`. */
  readonly ahead: { readonly apex: Vec2; readonly direction: Vec2; readonly halfAngle: number } | null;
}

export interface Spawned {
  readonly points: readonly Vec2[];
  readonly areaAllowed: number;
  readonly areaBounds: number;
  readonly tries: number;
  /** The most tries that one point took. */
  readonly worst: number;
}
/** The same with the points as pairs after one another. */
export interface SpawnedPairs extends Omit<Spawned, 'points'> {
  readonly pairs: Float64Array;
}

/** Why nothing is spawned: the terms leave no area, or rolling again would roll too often. */
export type NotSpawned = { readonly why: 'noAreaLeft' } | { readonly why: 'tooManyTries'; readonly expected: number };

/** More rolls than this for one lot of points are not begun. */
export const mostTries = 20_000_000;

/** What the terms leave, ready to be drawn from. */
export interface SpawnRegion {
  readonly region: Region;
  /** The box that rolling again rolls over. */
  readonly box: { readonly min: Vec2; readonly max: Vec2 };
  /** Whether the terms leave a point. */
  readonly allowed: (p: Vec2) => boolean;
  readonly areaBounds: number;
}

/** The region that terms leave, in coordinates of the surface; null where they leave no area. */
export function spawnRegion(terms: SpawnTerms): SpawnRegion | null {
  const { visible, clearance, bounds, keepAway, ahead } = terms;
  const outer = 'ringOuter' in bounds ? clearance + bounds.ringOuter : null;
  const box = outer === null ? (bounds as { min: Vec2; max: Vec2 }) : boxAbout(visible, outer);
  if (!(box.max[0] > box.min[0] && box.max[1] > box.min[1])) return null;
  const apart = (p: Vec2) => distanceToPolygon(visible, p);
  const covered = discsAt(keepAway);
  const sector = sectorTest(ahead);
  const allowed = (p: Vec2) => {
    if (!(p[0] >= box.min[0] && p[0] <= box.max[0] && p[1] >= box.min[1] && p[1] <= box.max[1])) return false;
    const d = apart(p);
    return d > 0 && d >= clearance && (outer === null || d <= outer) && !covered(p, 1) && sector(p);
  };
  const { min, max } = box;
  const far =
    Math.hypot(max[0] - min[0], max[1] - min[1]) * 4 +
    (ahead ? Math.hypot(ahead.apex[0] - min[0], ahead.apex[1] - min[1]) * 4 : 0);
  const outlines: Outline[] = [
    { kind: 'segment', from: [min[0], min[1]], to: [min[0], max[1]] },
    { kind: 'segment', from: [max[0], min[1]], to: [max[0], max[1]] },
    ...grownOutlines(visible, clearance),
    ...(outer === null ? [] : grownOutlines(visible, outer)),
    ...keepAway.map(({ centre, distance }): Outline => ({ kind: 'circle', centre, radius: distance })),
    ...sectorSides(ahead, far),
  ];
  const region = regionOf(outlines, min[1], max[1], allowed, (p) => covered(p, 1 - 1e-9));
  if (!region) return null;
  return { region, box, allowed, areaBounds: outer === null ? (max[0] - min[0]) * (max[1] - min[1]) : grownArea(visible, outer) }; // prettier-ignore
}

/** Returns the area of a convex polygon expanded by a distance. */
function grownArea(polygon: readonly Vec2[], distance: number): number {
  const { area, perimeter } = areaAndCentroid(polygon);
  return area + perimeter * distance + Math.PI * distance * distance;
}

/** After so many tries others have a turn. */
const triesAtOnce = 1 << 14;

/**
 * Points uniform by area over what the terms leave. `direct` draws from the region itself, one try
 * a point; `rejection` rolls over the bounding box until a point fits, and counts: what it is to be
 * expected to roll, the ratio of the areas a point, is known before. The same seed gives the same
 * points. In steps, each of which gives the share of the points that there are.
 */
export function* spawnInSteps(
  found: SpawnRegion | null,
  count: number,
  seed: number,
  method: 'direct' | 'rejection',
): Generator<number, SpawnedPairs | NotSpawned> {
  if (!found) return { why: 'noAreaLeft' };
  const { region, box, allowed, areaBounds } = found;
  const { min, max } = box;
  const expected = (count * (max[0] - min[0]) * (max[1] - min[1])) / region.area;
  if (method === 'rejection' && expected > mostTries) return { why: 'tooManyTries', expected };
  const random = randomFrom(seed);
  const pairs = new Float64Array(2 * count);
  let [made, tries, before, worst] = [0, 0, 0, 0];
  while (made < count) {
    if (++tries % triesAtOnce === 0) yield made / count;
    if (method === 'direct') region.drawInto(random, pairs, 2 * made);
    else {
      const p: Vec2 = [min[0] + (max[0] - min[0]) * random(), min[1] + (max[1] - min[1]) * random()];
      if (!allowed(p)) continue;
      pairs[2 * made] = p[0];
      pairs[2 * made + 1] = p[1];
    }
    made++;
    if (tries - before > worst) worst = tries - before;
    before = tries;
  }
  return { pairs, areaAllowed: region.area, areaBounds, tries, worst };
}

/** The same in one go. */
export function spawn(
  terms: SpawnTerms,
  count: number,
  seed: number,
  method: 'direct' | 'rejection',
): Spawned | NotSpawned {
  const steps = spawnInSteps(spawnRegion(terms), count, seed, method);
  for (;;) {
    const step = steps.next();
    if (!step.done) continue;
    if ('why' in step.value) return step.value;
    const { pairs, ...rest } = step.value;
    return { ...rest, points: Array.from({ length: pairs.length / 2 }, (_, i): Vec2 => [pairs[2 * i]!, pairs[2 * i + 1]!]) }; // prettier-ignore
  }
}

/**
 * Whether a point lies within one of the discs, each made smaller by a share: asked of those alone
 * that reach its height, by bands.
 */
function discsAt(discs: SpawnTerms['keepAway']): (p: Vec2, share: number) => boolean {
  let [low, high] = [Infinity, -Infinity];
  for (const { centre, distance } of discs) {
    low = Math.min(low, centre[1] - distance);
    high = Math.max(high, centre[1] + distance);
  }
  const count = Math.max(1, Math.min(1024, discs.length));
  const bandOf = (y: number) => Math.max(0, Math.min(count - 1, Math.floor(((y - low) / (high - low || 1)) * count)));
  const bands = Array.from({ length: count }, () => [] as (typeof discs)[number][]);
  for (const disc of discs) {
    const last = bandOf(disc.centre[1] + disc.distance);
    for (let i = bandOf(disc.centre[1] - disc.distance); i <= last; i++) bands[i]!.push(disc);
  }
  return ([x, y], share) =>
    y >= low &&
    y <= high &&
    bands[bandOf(y)]!.some(({ centre, distance }) => Math.hypot(x - centre[0], y - centre[1]) < distance * share);
}

function boxAbout(polygon: readonly Vec2[], distance: number): { min: Vec2; max: Vec2 } {
  const side = (i: 0 | 1, pick: (...values: number[]) => number) => pick(...polygon.map((p) => p[i]));
  return {
    min: [side(0, Math.min) - distance, side(1, Math.min) - distance],
    max: [side(0, Math.max) + distance, side(1, Math.max) + distance],
  };
}

function sectorTest(ahead: SpawnTerms['ahead']): (p: Vec2) => boolean {
  if (!ahead || ahead.halfAngle >= Math.PI) return () => true;
  const { apex, direction: d, halfAngle } = ahead;
  return (p) => {
    const [x, y] = [p[0] - apex[0], p[1] - apex[1]];
    return Math.abs(Math.atan2(d[0] * y - d[1] * x, d[0] * x + d[1] * y)) <= halfAngle;
  };
}

function sectorSides(ahead: SpawnTerms['ahead'], far: number): Outline[] {
  if (!ahead || ahead.halfAngle >= Math.PI) return [];
  const heading = Math.atan2(ahead.direction[1], ahead.direction[0]);
  const side = (turn: number): Outline => ({
    kind: 'segment',
    from: ahead.apex,
    to: [ahead.apex[0] + far * Math.cos(heading + turn), ahead.apex[1] + far * Math.sin(heading + turn)],
  });
  return [side(ahead.halfAngle), side(-ahead.halfAngle)];
}
