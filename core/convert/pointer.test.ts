import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Vec2 } from '../math/vec3';
import { real } from '../testing/arbitraries';
import {
  explainPointer,
  matters,
  omissions,
  pictureToClient,
  pictureToFramebuffer,
  pointerSteps,
  type Omission,
  type PointerPath,
} from './pointer';

const paths: fc.Arbitrary<PointerPath> = fc.record({
  canvas: fc.tuple(real(3, 300), real(3, 300)),
  cssScale: real(0.3, 0.9),
  devicePixelRatio: real(1.2, 3),
  framebufferScale: real(0.4, 0.9),
  origin: fc.constantFrom('top-left', 'bottom-left'),
  viewport: fc.record({
    x: fc.integer({ min: 5, max: 90 }),
    y: fc.integer({ min: 5, max: 90 }),
    width: fc.integer({ min: 100, max: 2000 }),
    height: fc.integer({ min: 100, max: 2000 }),
    bottom: fc.integer({ min: 5, max: 90 }),
  }),
});
const places = fc.tuple(real(-0.9, 0.9), real(-0.9, 0.9));

describe('the pointer’s way', () => {
  it('is undone from the picture to the page', () => {
    fc.assert(
      fc.property(paths, places, (path, at) => {
        const { picture } = pointerSteps(path, pictureToClient(path, at));
        expect(Math.hypot(picture[0] - at[0], picture[1] - at[1])).toBeLessThan(1e-9);
      }),
    );
  });

  it('step by step, on numbers worked out by hand', () => {
    const path: PointerPath = {
      ...{ canvas: [100, 50], cssScale: 0.5, devicePixelRatio: 2, framebufferScale: 0.75, origin: 'top-left' },
      viewport: { x: 30, y: 60, width: 600, height: 300, bottom: 90 },
    };
    const { css, framebuffer, viewport, picture } = pointerSteps(path, [200, 150]);
    expect([css, framebuffer, viewport]).toEqual([
      [200, 200],
      [300, 300],
      [270, 240],
    ]);
    expect(picture[0]).toBeCloseTo(-0.1, 12);
    expect(picture[1]).toBeCloseTo(-0.6, 12);
    const without = (...list: Omission[]) => pointerSteps(path, [200, 150], new Set(list));
    expect(without('devicePixelRatio').framebuffer).toEqual([150, 150]);
    expect(without('canvasOffset', 'cssScale').css).toEqual([200, 150]);
    expect(without('viewportOrigin').viewport).toEqual([300, 300]);
    expect(without('flip').picture[1]).toBeCloseTo(0.6, 12);
    // The whole framebuffer is 660 × 450.
    expect(without('viewportOrigin', 'viewportSize').picture[1]).toBeCloseTo(1 - (2 * 300) / 450, 12);
  });

  it('counts CSS pixels downward and those of the framebuffer upward where its origin is at the bottom', () => {
    const path: PointerPath = {
      ...{ canvas: [100, 50], cssScale: 0.5, devicePixelRatio: 2, framebufferScale: 0.75, origin: 'bottom-left' },
      viewport: { x: 30, y: 60, width: 600, height: 300, bottom: 90 },
    };
    const { css, framebuffer, viewport, picture } = pointerSteps(path, [200, 150]);
    // 450 rows: 300 from the top are 150 from the bottom, and 60 above the bar below.
    expect([css, framebuffer, viewport]).toEqual([
      [200, 200],
      [300, 150],
      [270, 60],
    ]);
    expect(picture[0]).toBeCloseTo(-0.1, 12);
    expect(picture[1]).toBeCloseTo(-0.6, 12);
    const without = (...list: Omission[]) => pointerSteps(path, [200, 150], new Set(list));
    expect(without('flip').framebuffer).toEqual([300, 300]);
    expect(without('flip').viewport).toEqual([270, 210]);
    expect(without('viewportOrigin').viewport).toEqual([300, 150]);
    expect(matters({ ...path, viewport: { ...path.viewport, x: 0, bottom: 0 } }, 'viewportOrigin')).toBe(false);
  });

  it('is the same place whichever way the framebuffer is counted', () => {
    fc.assert(
      fc.property(paths, places, (path, at) => {
        const down = pointerSteps({ ...path, origin: 'top-left' }, pictureToClient(path, at));
        const up = pointerSteps({ ...path, origin: 'bottom-left' }, pictureToClient(path, at));
        expect(up.css).toEqual(down.css);
        expect(up.picture[0]).toBeCloseTo(down.picture[0], 9);
        expect(up.picture[1]).toBeCloseTo(down.picture[1], 9);
        const { y, height, bottom } = path.viewport;
        expect(up.framebuffer[1] + down.framebuffer[1]).toBeCloseTo(y + height + bottom, 7);
        expect(up.viewport[1] + down.viewport[1]).toBeCloseTo(height, 7);
        expect(pictureToFramebuffer({ ...path, origin: 'bottom-left' }, at)[1]).toBeCloseTo(up.framebuffer[1], 7);
      }),
    );
  });

  it('with steps left out is found again from the numbers that it gives', () => {
    fc.assert(
      fc.property(paths, places, fc.subarray([...omissions], { maxLength: 3 }), (path, at, left) => {
        const client = pictureToClient(path, at);
        const printed = pointerSteps(path, client, new Set(left)).picture;
        const found = explainPointer(path, client, printed, ({ picture }) => picture, 1e-9);
        expect(found.length).toBeGreaterThan(0);
        // What is found explains it, and with no more steps than were left out.
        expect(found[0]!.omissions.length).toBeLessThanOrEqual(left.length);
        for (const { omissions: set } of found) {
          const again = pointerSteps(path, client, new Set(set)).picture;
          expect(Math.hypot(again[0] - printed[0], again[1] - printed[1])).toBeLessThan(1e-8);
        }
      }),
    );
  });

  it('blames nothing that changes nothing', () => {
    const path: PointerPath = {
      ...{ canvas: [0, 0], cssScale: 1, devicePixelRatio: 2, framebufferScale: 1, origin: 'top-left' },
      viewport: { x: 0, y: 0, width: 400, height: 200, bottom: 0 },
    };
    const says = ({ framebuffer }: { framebuffer: Vec2 }) => framebuffer;
    expect(explainPointer(path, [50, 60], [50, 60], says, 1e-9)).toEqual([
      { omissions: ['devicePixelRatio'], miss: 0 },
    ]);
    expect(explainPointer(path, [50, 60], [7, 7], says, 1e-9)).toEqual([]);
  });
});
