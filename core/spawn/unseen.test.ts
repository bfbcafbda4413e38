import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, type CameraFrame } from '../camera/frame';
import { orthographicOf } from '../camera/camera2d';
import { planesViolated, viewRufToClip, worldToViewRuf } from '../convert/project';
import { pointBatch } from '../kernels/batch';
import { pointKernel } from '../kernels/points';
import { spawn as spawnOrNot, type Spawned } from './spawn';
import { expandBox, flatSurface, planeSurface, type Surface } from './surface';
import { compute } from '../compute/compute';
import { distanceToEdges, type GroundEdge } from '../ground/distance';
import { footprintEdges } from '../ground/footprint';
import type { Vec2 } from '../math/vec3';
import { distanceToPolygon } from './region';
import { runs } from '../testing/seed';

/** What is spawned; null where nothing is. */
const spawn = (...given: Parameters<typeof spawnOrNot>): Spawned | null => {
  const found = spawnOrNot(...given);
  return 'why' in found ? null : found;
};

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const viewport = { x: 0, y: 0, width: 1280, height: 720 };
const framed = (made: ReturnType<typeof frameOf>): CameraFrame => {
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
};

/**
 * Cameras over level ground that look down on it far enough to see a bounded piece, and cameras of
 * a flat world.
 */
const views: fc.Arbitrary<{ frame: CameraFrame; surface: Surface }> = fc.oneof(
  fc
    .record({
      x: real(-50, 50),
      z: real(-50, 50),
      height: real(2, 60),
      yaw: real(-3, 3),
      pitch: real(-1.5, -0.2),
      roll: real(-0.3, 0.3),
      fov: real(0.3, 1.6),
    }) // prettier-ignore
    .map(({ x, z, height, yaw, pitch, roll, fov }) => ({
      frame: framed(
        frameOf(
          {
            position: [x, height, z],
            orientation: { kind: 'angles', yaw, pitch, roll },
            projection: { kind: 'perspective', near: 0.1, far: 200, lens: { verticalFov: fov } },
          },
          viewport,
        ),
      ),
      surface: planeSurface([0, 0, 0], [0, 1, 0])!,
    })),
  fc
    .record({ a: real(-90, 90), b: real(-90, 90), zoom: real(2, 80), rotation: real(-3, 3) })
    .map(({ a, b, zoom, rotation }) => ({
      frame: framed(
        frameOf(orthographicOf({ focus: [a, b], anchor: [0.2, -0.3], zoom, rotation }, viewport), viewport),
      ),
      surface: flatSurface,
    })),
);

it(`no spawned point is visible: ${runs(1_000_000)} of them in ${runs(200)} random setups, by the projection itself`, () => {
  let [asked, setUps, nearest] = [0, 0, Infinity];
  const batch = pointBatch(5000);
  fc.assert(
    fc.property(views, real(0.1, 20), real(0, 2), fc.integer(), ({ frame, surface }, ring, clearance, seed) => {
      const visible = surface.visible(frame, null);
      if (typeof visible === 'string') return;
      const made = spawn({ visible, clearance, bounds: { ringOuter: ring }, keepAway: [], ahead: null }, 5000, seed, 'direct'); // prettier-ignore
      if (!made) return;
      setUps++;
      made.points.forEach((p, i) => batch.points.set(surface.at(p), 3 * i));
      batch.project(pointKernel(frame));
      const seen = batch.outside.findIndex((bits) => bits === 0);
      expect(seen, seen < 0 ? '' : `${made.points[seen]}`).toBe(-1);
      asked += batch.outside.length;
      // And by the plain form, for the points nearest to being seen.
      for (const p of made.points.slice(0, 50)) {
        const parts = worldToViewRuf(frame, surface.at(p));
        expect(planesViolated(frame, viewRufToClip(frame, parts), parts[2])).not.toEqual([]);
      }
      nearest = Math.min(nearest, clearance);
    }),
    { numRuns: runs(240) },
  );
  expect(setUps).toBeGreaterThanOrEqual(runs(200));
  expect(asked).toBeGreaterThanOrEqual(runs(1_000_000));
  // Some of them hug the border of what is seen.
  expect(nearest).toBeLessThan(0.1);
}, 120_000);

/** Cameras over level ground that see it up to the horizon, as far as a far plane says. */
const levelViews = fc
  .record({
    position: fc.tuple(real(-30, 30), real(1, 30), real(-30, 30)),
    yaw: real(-3, 3),
    pitch: real(-0.6, 0.25),
    roll: real(-0.8, 0.8),
    fov: real(0.7, 1.6),
  })
  .map(({ position, yaw, pitch, roll, fov }) => (far: number | null) => {
    const orientation = { kind: 'angles', yaw, pitch, roll } as const;
    const projection = { kind: 'perspective', near: 0.1, far, lens: { verticalFov: fov } } as const;
    return framed(frameOf({ position, orientation, projection }, viewport));
  });
const ground = planeSurface([0, 0, 0], [0, 1, 0])!;

describe('a view to the horizon', () => {
  const bounds = { min: [-60, -40], max: [50, 70] } as const;
  const termsOf = (visible: readonly Vec2[], clearance: number) => ({ visible, clearance, bounds, keepAway: [], ahead: null }); // prettier-ignore

  it('leaves the same area of bounds as one with a far plane beyond them', () => {
    let count = 0;
    fc.assert(
      fc.property(levelViews, real(0, 20), (viewBy, clearance) => {
        const wide = ground.visible(viewBy(null), expandBox(bounds, 2 * clearance + 10));
        const far = ground.visible(viewBy(3000), null);
        if (typeof wide === 'string' || typeof far === 'string') return;
        count++;
        const [a, b] = [wide, far].map(
          (visible) => spawn(termsOf(visible, clearance), 0, 1, 'direct')?.areaAllowed ?? 0,
        );
        expect(a).toBeCloseTo(b!, 5);
      }),
      { numRuns: runs(300) },
    );
    expect(count).toBeGreaterThan(runs(300) / 2);
  });

  it('has edges whose distances are those of its part in a large box', () => {
    fc.assert(
      fc.property(levelViews, real(-60, 60), real(-60, 60), (viewBy, x, z) => {
        const frame = viewBy(null);
        const visible = ground.visible(frame, { min: [-1e4, -1e4], max: [1e4, 1e4] });
        const edges = footprintEdges(frame, [0, 0, 0], [0, 1, 0]).map(({ corner, direction, from, to }): GroundEdge => ({ corner: [corner[0], corner[2]], direction: [direction[0], direction[2]], range: [from, to] })); // prettier-ignore
        if (typeof visible === 'string') return expect(edges).toEqual([]);
        // Seen from above, x and z are clockwise; the surface's second coordinate is ahead, −z.
        const turned = edges.map(({ corner, direction: [dx, dz], range: [from, to] }): GroundEdge => ({ corner, direction: [-dx, -dz], range: [-to, -from] })); // prettier-ignore
        expect(distanceToEdges(turned, [x, z])).toBeCloseTo(distanceToPolygon(visible, [x, -z]), 5);
      }),
      { numRuns: runs(500) },
    );
  });

  it('is answered by the operation, points out of sight; a ring around it has no end', () => {
    const camera = { position: [0, 8, 0], orientation: { yaw: 30, pitch: -5 }, projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 50 } }; // prettier-ignore
    const surface = { plane: { point: [0, 0, 0], normal: [0, 1, 0] } };
    const query = { op: 'spawn', surface, bounds: { min: [-60, -60], max: [60, 60] }, count: 500, radius: 1 };
    const queries = [
      { id: 'bounds', ...query },
      { id: 'padded', ...query, padding: 30, paddingUnit: 'pixels' },
      { id: 'sector', ...query, ahead: { direction: [0, -1], halfAngle: 60 } },
      { id: 'ring', ...query, bounds: { ringOuter: 30 } },
      {
        id: 'behind',
        ...query,
        bounds: { min: [-20, 20], max: [20, 60] },
        ahead: { direction: [0, 1], halfAngle: 60 },
      },
    ];
    const ask = (queries: readonly object[], bodies: readonly object[] = []) => {
      const made = compute({ astrolabe: 1, viewport: { width: 1280, height: 720 }, camera, bodies, queries });
      if (!made.ok) throw new Error(JSON.stringify(made.problem));
      return made.response.results as unknown as { id: string; points: [number, number, number][]; statistics: { areaAllowed: number }; counts: object; error?: { code: string } }[]; // prettier-ignore
    };
    const byId = Object.fromEntries(ask(queries).map((one) => [one.id, one]));
    const areas = ['bounds', 'padded', 'sector'].map((id) => byId[id]!.statistics.areaAllowed);
    for (const area of areas) expect(area).toBeLessThan(120 * 120);
    expect(areas[1]).toBeLessThan(areas[0]!);
    expect(areas[2]).toBeLessThan(areas[0]!);
    for (const id of ['bounds', 'padded', 'sector']) {
      const points = byId[id]!.points;
      expect(points).toHaveLength(500);
      const bodies = points.map((position, i) => ({ id: `${i}`, shape: { kind: 'sphere', radius: 1e-3 }, position }));
      const [seen] = ask([{ id: 'seen', op: 'visibility', method: 'exact' }], bodies);
      expect(seen!.counts).toEqual({ inside: 0, crosses: 0, outside: 500 });
    }
    for (const id of ['ring', 'behind']) expect(byId[id]!.error?.code).toBe('footprintUnbounded');
  });
});
