import fc from 'fast-check';
import { expect, it } from 'vitest';
import { frameOf, type CameraFrame } from '../camera/frame';
import { orthographicOf } from '../camera/camera2d';
import { planesViolated, viewRufToClip, worldToViewRuf } from '../convert/project';
import { pointBatch } from '../kernels/batch';
import { pointKernel } from '../kernels/points';
import { spawn as spawnOrNot, type Spawned } from './spawn';
import { flatSurface, planeSurface, type Surface } from './surface';
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
      const visible = surface.visible(frame);
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
