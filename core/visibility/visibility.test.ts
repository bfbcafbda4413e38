import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PlacedBody, Shape } from '../bodies/body';
import { frameOf, planesOf, type CameraFrame } from '../camera/frame';
import { aheadAt, frames, real } from '../testing/arbitraries';
import { placeOne, scenes } from '../testing/bodies';
import { viewRufToWorld, pictureToViewRuf, projectPoint, worldToPixel, pixelToPicture } from '../convert/project';
import type { Quat } from '../math/quat';
import { dot, normalize, scale, type Vec3 } from '../math/vec3';
import { transformPoint } from '../math/mat4';
import { pictureBounds, shadowVisibility, visibility } from './visibility';
import { runs } from '../testing/seed';

/** Points of a body, inside and on its surface, from weights in 0…1. */
function pointOf({ body: { shape }, toWorld }: PlacedBody, [a, b, c]: readonly number[]): Vec3 {
  const s = [2 * a! - 1, 2 * b! - 1, 2 * c! - 1] as const;
  if (shape.kind === 'point') return transformPoint(toWorld, [0, 0, 0]);
  if (shape.kind === 'sphere') return transformPoint(toWorld, scale(normalize(s) ?? [1, 0, 0], shape.radius));
  if (shape.kind === 'box')
    return transformPoint(toWorld, [
      (s[0] * shape.size[0]) / 2,
      (s[1] * shape.size[1]) / 2,
      (s[2] * shape.size[2]) / 2,
    ]);
  if (shape.kind === 'quad')
    return transformPoint(toWorld, [(s[0] * shape.size[0]) / 2, (s[1] * shape.size[1]) / 2, 0]);
  const weights = [a!, b!, c!, 0.5].map((w, _i, all) => w / all.reduce((p, q) => p + q));
  return transformPoint(
    toWorld,
    [0, 1, 2].map((k) => weights.reduce((sum, w, i) => sum + w * shape.positions[3 * i + k]!, 0)) as unknown as Vec3,
  );
}

const grid = [0, 0.25, 0.5, 0.75, 1];
const samples = grid.flatMap((a) => grid.flatMap((b) => grid.map((c) => [a, b, c])));

describe('visibility', () => {
  it('never calls outside what has a point inside, nor inside what has a point outside, and plane rejection is a proof', () => {
    const seen = new Map<string, number>();
    fc.assert(
      fc.property(scenes, ({ frame, placed }) => {
        const [exact] = visibility(frame, [placed], { method: 'exact' });
        const [planes] = visibility(frame, [placed], { method: 'planes' });
        seen.set(exact!.verdict, (seen.get(exact!.verdict) ?? 0) + 1);
        const inside = samples.filter((s) => projectPoint(frame, pointOf(placed, s)).outside.length === 0).length;
        if (inside > 0) expect(exact!.verdict).not.toBe('outside');
        if (inside < samples.length) expect(exact!.verdict).not.toBe('inside');
        // The customary test is the same or more careful, never less.
        expect(planes!.rejectedBy).toEqual(exact!.rejectedBy);
        if (planes!.verdict === 'outside') expect(exact!.verdict).toBe('outside');
        expect(planes!.verdict === 'inside').toBe(exact!.verdict === 'inside');
      }),
      { numRuns: runs(1500) },
    );
    for (const verdict of ['inside', 'crosses', 'outside'])
      expect(seen.get(verdict), verdict).toBeGreaterThan(runs(30));
  });

  const camera = frameOf(
    {
      position: [0, 0, 0],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      projection: { kind: 'perspective', near: 1, far: 10, lens: { verticalFov: Math.PI / 2 } },
    },
    { x: 0, y: 0, width: 100, height: 100 },
  );
  const frame = (camera as { value: CameraFrame }).value;
  const still: Quat = [0, 0, 0, 1];
  const verdictOf = (shape: Shape, at: Vec3, method: 'exact' | 'planes' = 'exact', margin = 0) =>
    visibility(frame, [placeOne(shape, at, still, [1, 1, 1])], { method, margin })[0]!;

  it('tells the corner case that no plane rejects', () => {
    // Beyond the edge where the right and the far plane meet: behind neither wholly, yet without a
    // common point.
    const shape: Shape = { kind: 'sphere', radius: 1 };
    const at: Vec3 = [10.9, 0, -10.7];
    expect(verdictOf(shape, at, 'planes')).toMatchObject({ verdict: 'crosses', rejectedBy: [] });
    expect(verdictOf(shape, at)).toMatchObject({ verdict: 'outside', rejectedBy: [] });
  });
  it('counts touching as crossing, from either side', () => {
    expect(verdictOf({ kind: 'box', size: [1, 1, 1] }, [0, 0, -0.5]).verdict).toBe('crosses');
    expect(verdictOf({ kind: 'box', size: [1, 1, 1] }, [0, 0, -1.5]).verdict).toBe('crosses');
    expect(verdictOf({ kind: 'box', size: [1, 1, 1] }, [0, 0, -0.4999]).verdict).toBe('outside');
    expect(verdictOf({ kind: 'box', size: [1, 1, 1] }, [0, 0, -2.6]).verdict).toBe('inside');
    expect(verdictOf({ kind: 'box', size: [90, 90, 90] }, [0, 0, -5]).verdict).toBe('crosses');
  });
  it('grows the viewport by a margin in pixels', () => {
    expect(verdictOf({ kind: 'point' }, [5.5, 0, -5]).rejectedBy).toEqual(['right']);
    expect(verdictOf({ kind: 'point' }, [5.5, 0, -5], 'exact', 5.1).verdict).toBe('inside');
  });
  it('keeps casters whose shadow alone is seen', () => {
    const high = placeOne({ kind: 'box', size: [1, 1, 1] }, [0, 30, -5], still, [1, 1, 1]);
    const behind = placeOne({ kind: 'sphere', radius: 1 }, [0, 30, 40], still, [1, 1, 1]);
    const found = shadowVisibility(frame, [high, behind], [0, -1, 0], { point: [0, -2, 0], normal: [0, 1, 0] });
    expect(found).toMatchObject({
      ok: true,
      value: [
        { onlyShadow: true, bodyOnScreen: false },
        { onlyShadow: false, shadowOnScreen: false },
      ],
    });
    expect(shadowVisibility(frame, [high], [1, 0, 0], { point: [0, 0, 0], normal: [0, 1, 0] })).toEqual({
      ok: false,
      reason: 'rayParallel',
    });
    // Below the receiver nothing is cast upward on it.
    const below = placeOne({ kind: 'box', size: [1, 1, 1] }, [0, -9, -5], still, [1, 1, 1]);
    expect(shadowVisibility(frame, [below], [0, -1, 0], { point: [0, -2, 0], normal: [0, 1, 0] })).toMatchObject({
      value: [{ shadowOnScreen: false }],
    });
  });
});

describe('screen bounds', () => {
  it('hold every point of the body ahead of near, and are reached', () => {
    fc.assert(
      fc.property(scenes, ({ frame, placed }) => {
        const bounds = pictureBounds(frame, placed);
        const seen = samples
          .map((s) => pointOf(placed, s))
          .filter((p) => projectPoint(frame, p).viewRuf[2] >= frame.near * (1 + 1e-9) + 1e-9);
        if (!bounds.ok) {
          expect(seen).toHaveLength(0);
          return;
        }
        const { min, max } = bounds.value;
        for (const p of seen) {
          const pixel = worldToPixel(frame, p);
          if (!pixel.ok) continue;
          const [x, y] = pixelToPicture(frame, pixel.value);
          const slack = 1e-6 * (1 + Math.abs(x) + Math.abs(y));
          expect(x >= min[0] - slack && x <= max[0] + slack && y >= min[1] - slack && y <= max[1] + slack).toBe(true);
        }
      }),
      { numRuns: runs(600) },
    );
  });
  it('of a sphere are reached by its points, also where the near plane cuts it', () => {
    let cut = 0;
    fc.assert(
      fc.property(scenes, real(0.2, 12), ({ frame, placed }, radius) => {
        const centre = transformPoint(placed.toWorld, [0, 0, 0]);
        const bounds = pictureBounds(frame, placeOne({ kind: 'sphere', radius }, centre, [0, 0, 0, 1], [1, 1, 1]));
        if (!bounds.ok) return;
        if (bounds.value.clipped) cut++;
        // The sphere in the camera's own axes: circles of equal distance ahead, that of near among
        // them.
        const { viewRuf } = projectPoint(frame, centre);
        const first = Math.max(frame.near, viewRuf[2] - radius);
        let [most, least] = [-Infinity, Infinity];
        for (let i = 0; i <= 2000; i++) {
          // Crowded towards the ends, where the extremes may lie.
          const ahead = first + (viewRuf[2] + radius - first) * (0.5 - 0.5 * Math.cos((Math.PI * i) / 2000));
          const half = Math.sqrt(Math.max(0, radius * radius - (ahead - viewRuf[2]) ** 2));
          for (const r of [viewRuf[0] - half, viewRuf[0] + half]) {
            const { picture } = projectPoint(frame, viewRufToWorld(frame, [r, viewRuf[1], ahead]));
            if (!picture.ok) continue;
            most = Math.max(most, picture.value.across);
            least = Math.min(least, picture.value.across);
          }
        }
        const { min, max } = bounds.value;
        const wide = max[0] - min[0];
        expect(Math.abs(most - max[0])).toBeLessThan(1e-4 * wide + 1e-9 * (1 + Math.abs(most)));
        expect(Math.abs(least - min[0])).toBeLessThan(1e-4 * wide + 1e-9 * (1 + Math.abs(least)));
      }),
      { numRuns: runs(150) },
    );
    expect(cut).toBeGreaterThan(10);
  }, 60_000);
  it('give a sphere the exact extent of its ellipse', () => {
    // Seen at r = f from 45°: the tangents leave the axis at 45° ± asin(ρ/|c|).
    const made = frameOf(
      {
        position: [0, 0, 0],
        orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
        projection: { kind: 'perspective', near: 0.1, far: null, lens: { verticalFov: Math.PI / 2 } },
      },
      { x: 0, y: 0, width: 2, height: 2 },
    );
    const bounds =
      made.ok &&
      pictureBounds(made.value, placeOne({ kind: 'sphere', radius: 1 }, [5, 0, -5], [0, 0, 0, 1], [1, 1, 1]));
    if (!bounds || !bounds.ok) throw new Error();
    const half = Math.asin(1 / Math.hypot(5, 5));
    expect(bounds.value.min[0]).toBeCloseTo(Math.tan(Math.PI / 4 - half), 13);
    expect(bounds.value.max[0]).toBeCloseTo(Math.tan(Math.PI / 4 + half), 13);
    expect(bounds.value.max[1]).toBeCloseTo(Math.tan(Math.asin(1 / 5)), 13);
  });
});

it('planes point inward at every corner of the frustum', () => {
  fc.assert(
    fc.property(frames, (frame) => {
      const middle = viewRufToWorld(frame, pictureToViewRuf(frame, 0, 0, aheadAt(frame, 0.5)));
      for (const {
        plane: [x, y, z, d],
      } of planesOf(frame))
        expect(dot([x, y, z], middle) + d).toBeGreaterThan(0);
    }),
  );
});
