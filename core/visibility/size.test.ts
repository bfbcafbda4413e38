import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, viewRufPlanes } from '../camera/frame';
import { worldToViewRuf } from '../convert/project';
import { addScaled, dot } from '../math/vec3';
import { placeOne, scenes } from '../testing/bodies';
import { real } from '../testing/arbitraries';
import { apparentSize, boxCorners, distanceForSize, visibilityBy } from './size';
import { pictureBounds, visibility } from './visibility';
import { runs } from '../testing/seed';

const camera = (distance: number) => {
  const made = frameOf(
    {
      position: [0, 0, distance],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      projection: { kind: 'perspective', near: 0.01, far: null, lens: { verticalFov: 0.9 } },
    },
    { x: 0, y: 0, width: 1600, height: 900 },
  );
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
};

describe('the apparent size', () => {
  it('of a sphere on the axis is what its silhouette measures, and is just so at the distance that it names', () => {
    fc.assert(
      fc.property(real(0.1, 5), real(1.01, 60), real(1, 400), (radius, times, pixels) => {
        const ball = placeOne({ kind: 'sphere', radius }, [0, 0, 0], [0, 0, 0, 1], [1, 1, 1]);
        const frame = camera(radius * times + 0.02);
        const { diameter, ahead } = apparentSize(frame, ball);
        const bounds = pictureBounds(frame, ball);
        if (!diameter.ok || !bounds.ok) throw new Error('has a size');
        expect(ahead).toBeCloseTo(radius * times + 0.02, 9);
        expect(diameter.value / ((bounds.value.max[1] - bounds.value.min[1]) * 450)).toBeCloseTo(1, 9);
        const far = distanceForSize(frame, radius, pixels)!;
        const there = apparentSize(camera(far), ball).diameter;
        expect(there.ok && there.value / pixels).toBeCloseTo(1, 9);
        // Wherever it stands at that distance.
        const aside = placeOne({ kind: 'sphere', radius }, [far, 0, far], [0, 0, 0, 1], [1, 1, 1]);
        const same = apparentSize(camera(far), aside).diameter;
        expect(same.ok && same.value / pixels).toBeCloseTo(1, 9);
      }),
    );
    const ball = placeOne({ kind: 'sphere', radius: 2 }, [0, 0, 0], [0, 0, 0, 1], [1, 1, 1]);
    expect(apparentSize(camera(2), ball).diameter).toEqual({ ok: false, reason: 'eyeInside' });
  });
});

describe('the customary shortcuts', () => {
  it('err each in their way: a centre and corners miss, a sphere sees too much, and never misses at full size', () => {
    const found = { missed: 0, alarms: 0 };
    fc.assert(
      fc.property(scenes, ({ frame, placed }) => {
        const [truth] = visibility(frame, [placed], { method: 'exact' });
        const [centre] = visibilityBy(frame, [placed], 'centre');
        const [corners] = visibilityBy(frame, [placed], 'corners');
        const [sphere] = visibilityBy(frame, [placed], { sphere: 1 });
        for (const one of [centre!, corners!, sphere!]) {
          expect(one.truth).toBe(truth!.verdict !== 'outside');
          expect(one.verdict).toBe(one.seen === one.truth ? 'right' : one.truth ? 'missed' : 'false alarm');
        }
        expect(sphere!.verdict).not.toBe('missed');
        if (placed.body.shape.kind === 'point') expect(centre!.verdict).toBe('right');
        if (placed.body.shape.kind === 'box' && corners!.seen) expect(corners!.truth).toBe(true);
        if (centre!.verdict === 'missed' || corners!.verdict === 'missed') found.missed++;
        if (sphere!.verdict === 'false alarm') found.alarms++;
        // A sphere of no size is its centre, but for rounding at the border.
        const at = worldToViewRuf(frame, centreOf(placed));
        const clear = viewRufPlanes(frame).every(({ normal, offset }) => Math.abs(dot(normal, at) + offset) > 1e-9 * (1 + Math.abs(at[2]))); // prettier-ignore
        if (clear) expect(visibilityBy(frame, [placed], { sphere: 0 })[0]!.seen).toBe(centre!.seen);
      }),
      { numRuns: runs(500) },
    );
    expect(found.missed).toBeGreaterThan(5);
    expect(found.alarms).toBeGreaterThan(0);
  });
});

/** The middle of the corners of a box is its own. */
const centreOf = (placed: Parameters<typeof boxCorners>[0]) => {
  const corners = boxCorners(placed);
  return corners.reduce((sum, p) => addScaled(sum, p, 1 / corners.length), [0, 0, 0] as const);
};
