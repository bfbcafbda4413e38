import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { projectPoint } from '../convert/project';
import { distance, dot, type Vec3 } from '../math/vec3';
import { frames, vectors } from '../testing/arbitraries';
import { fitPoints, onScreen, screenFits, type ScreenFit } from './fit';
import type { CameraFrame } from './frame';

const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** The frame as it is once it stands where the fit says, seeing as much as it says. */
const moved = (frame: CameraFrame, eye: Vec3, scale: number): CameraFrame => {
  const e = frame.extents;
  return { ...frame, eye, extents: { left: e.left * scale, right: e.right * scale, bottom: e.bottom * scale, top: e.top * scale } }; // prettier-ignore
};

describe('fitting points', () => {
  it('brings all of them into the picture, two opposite edges touched, and nothing nearer than near', () => {
    fc.assert(
      fc.property(
        frames,
        fc.array(vectors(60), { minLength: 2, maxLength: 9 }),
        real(0, 0.5),
        (frame, points, margin) => {
          // Points that all but coincide as seen leave nothing but rounding to fit.
          const spread = (axis: Vec3) => Math.max(...points.map((p) => dot(p, axis))) - Math.min(...points.map((p) => dot(p, axis))); // prettier-ignore
          if (spread(frame.right) < 0.01 && spread(frame.up) < 0.01) return;
          const fit = fitPoints(frame, points, margin)!;
          const there = moved(frame, fit.eye, fit.scale);
          const seen = points.map((p) => projectPoint(there, p));
          const places = seen.map(({ picture }) => {
            if (!picture.ok) throw new Error(picture.reason);
            return picture.value;
          });
          const ahead = seen.map(({ viewRuf }) => viewRuf[2]);
          expect(Math.min(...ahead)).toBeGreaterThan(frame.near - 1e-9 * (1 + distance(fit.eye, [0, 0, 0])));
          expect(Math.min(...ahead)).toBeCloseTo(fit.ahead[0], 6);
          const furthest = (pick: (p: (typeof places)[number]) => number) =>
            Math.max(...places.map((p) => Math.abs(pick(p))));
          const most = Math.max(furthest((p) => p.across), furthest((p) => p.upward)); // prettier-ignore
          expect(most).toBeLessThan(1 - margin + 1e-6);
          // As near as can be: an edge is touched, unless near itself holds the camera back.
          if (fit.ahead[0] > frame.near * (1 + 1e-6) + 1e-6) expect(most).toBeGreaterThan(1 - margin - 1e-6);
        },
      ),
    );
    fc.assert(
      fc.property(frames, (frame) => {
        expect(fitPoints(frame, [])).toBeNull();
      }),
      { numRuns: 3 },
    );
  });
});

describe('a picture on other screens', () => {
  const extents = { left: -3, right: 1, bottom: -1, top: 1 };
  const reference = { width: 400, height: 200 };
  const size = fc.record({ width: fc.integer({ min: 50, max: 4000 }), height: fc.integer({ min: 50, max: 4000 }) });
  it('shows what its policy says, at equal scales both ways, the axis at its share', () => {
    fc.assert(
      fc.property(size, fc.constantFrom(...screenFits), (screen, fit) => {
        const { viewport: v, extents: e } = onScreen(fit, extents, reference, screen);
        const [width, height] = [e.right - e.left, e.top - e.bottom];
        const barred = fit === 'wholeMultiples' || fit === 'letterbox';
        // With bars it is rounded to whole pixels.
        const slack = barred ? 1 / Math.min(v.width, v.height) : 1e-12;
        if (fit !== 'stretch') expect(Math.abs(v.width / width / (v.height / height) - 1)).toBeLessThan(slack + 1e-12);
        else expect(e).toEqual(extents);
        expect(-e.left / width).toBeCloseTo(0.75, 12);
        if (fit === 'keepHeight') expect(height).toBe(2);
        if (fit === 'keepWidth') expect(width).toBe(4);
        if (fit === 'showAll') expect(Math.min(width / 4, height / 2)).toBeCloseTo(1, 12);
        if (fit === 'fillAndCrop') expect(Math.max(width / 4, height / 2)).toBeCloseTo(1, 12);
        if (!barred) expect(v).toEqual({ x: 0, y: 0, ...screen });
        else {
          expect(e).toEqual(extents);
          expect(v.x).toBeGreaterThanOrEqual(0);
          expect(v.y).toBeGreaterThanOrEqual(0);
          expect(v.width).toBeLessThanOrEqual(screen.width);
          expect(v.height).toBeLessThanOrEqual(screen.height);
          const multiple = v.width / 400;
          if (fit === 'wholeMultiples' && multiple >= 1) expect(Number.isInteger(multiple)).toBe(true);
          // It reaches both edges one way, and as much is left on either side the other.
          if (fit === 'letterbox') expect(v.width === screen.width || v.height === screen.height).toBe(true);
          expect(Math.abs(screen.width - v.width - 2 * v.x)).toBeLessThanOrEqual(1);
          expect(Math.abs(screen.height - v.height - 2 * v.y)).toBeLessThanOrEqual(1);
        }
      }),
    );
    expect(onScreen('wholeMultiples', extents, reference, { width: 1000, height: 500 }).viewport).toEqual({
      x: 100,
      y: 50,
      width: 800,
      height: 400,
    });
    for (const fit of screenFits satisfies readonly ScreenFit[])
      expect(onScreen(fit, extents, reference, reference).extents).toEqual(extents);
  });
});
