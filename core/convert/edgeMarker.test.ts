import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { frameOf, type CameraFrame } from '../camera/frame';
import { frames, real } from '../testing/arbitraries';
import { edgeMarker } from './edgeMarker';
import { viewRufToWorld, worldToPixel } from './project';

const inFront = fc.tuple(real(-30, 30), real(-30, 30), real(0.2, 30));

describe('the marker of what is off the picture', () => {
  it('stands on the border between the middle and the point’s own pixel', () => {
    fc.assert(
      fc.property(frames, inFront, (frame, [x, y, f]) => {
        const world = viewRufToWorld(frame, [x * f, y * f, f]);
        const pixel = worldToPixel(frame, world);
        const marker = edgeMarker(frame, world, 10);
        if (!pixel.ok || !marker) return;
        const { viewport: v } = frame;
        const [mx, my] = [v.x + v.width / 2, v.y + v.height / 2];
        const way = [pixel.value[0] - mx, my - pixel.value[1]] as const;
        // A way of no length has no direction to compare.
        if (!(Math.hypot(...way) > 1e-6)) return;
        const cross = way[0] * marker.direction[1] - way[1] * marker.direction[0];
        expect(Math.abs(cross)).toBeLessThanOrEqual(1e-6 * Math.hypot(...way));
        expect(way[0] * marker.direction[0] + way[1] * marker.direction[1]).toBeGreaterThan(0);
        const [px, py] = [Math.abs(marker.pixel[0] - mx), Math.abs(marker.pixel[1] - my)];
        const [w, h] = [Math.max(0, v.width / 2 - 10), Math.max(0, v.height / 2 - 10)];
        expect(px).toBeLessThan(w + 1e-6 * (1 + w));
        expect(py).toBeLessThan(h + 1e-6 * (1 + h));
        expect(Math.min(w - px, h - py)).toBeLessThan(1e-6 * (1 + w + h));
      }),
    );
  });

  it('does not jump as a point passes from before the eye to behind it', () => {
    fc.assert(
      fc.property(frames, real(-5, 5), real(-5, 5), (frame, x, y) => {
        if (frame.kind !== 'perspective' || Math.hypot(x, y) < 0.1) return;
        const at = (f: number) => edgeMarker(frame, viewRufToWorld(frame, [x, y, f]), 0);
        const e = frame.near * 1e-9;
        const [before, behind] = [at(e), at(-e)];
        if (!before || !behind) return;
        expect(Math.hypot(before.direction[0] - behind.direction[0], before.direction[1] - behind.direction[1])).toBeLessThan(1e-3); // prettier-ignore
      }),
    );
  });

  const made = frameOf(
    {
      position: [0, 0, 0],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      projection: { kind: 'perspective', near: 1, far: 100, lens: { verticalFov: Math.PI / 2 } },
    },
    { x: 0, y: 0, width: 200, height: 100 },
  );
  const frame = (made as { ok: true; value: CameraFrame }).value;
  it('of a point behind on the right stands on the right edge, not on the mirrored left', () => {
    expect(edgeMarker(frame, [5, 0, 20], 10)).toEqual({ pixel: [190, 50], direction: [1, 0], side: 'right' });
    expect(edgeMarker(frame, [0, -3, 20], 10)).toMatchObject({ pixel: [100, 90], side: 'bottom' });
  });
  it('is none within the border, nor for what lies straight behind', () => {
    expect(edgeMarker(frame, [0, 0, -5], 10)).toBeNull();
    expect(edgeMarker(frame, [0, 0, 5], 10)).toBeNull();
    // Within the picture, but not within its border.
    expect(edgeMarker(frame, [9.5, 0, -5], 10)).toMatchObject({ side: 'right' });
  });
});
