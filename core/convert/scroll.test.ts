import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { orthographicOf } from '../camera/camera2d';
import { frameOf } from '../camera/frame';
import { codecOf } from '../conventions/codec';
import { conventions, magnitude, real } from '../testing/arbitraries';
import { projectPoint } from './project';
import { onScreenAxis, tileEdges } from './scroll';

const viewport = { x: 0, y: 0, width: 640, height: 400 };

describe('the edges of tiles on the screen', () => {
  it('are where the camera puts them, in any conventions and at any quarter of a turn', () => {
    fc.assert(
      fc.property(
        conventions,
        magnitude(0.5, 8),
        fc.integer({ min: -4, max: 4 }),
        fc.constantFrom(0 as const, 1 as const),
        real(-30, 30),
        (c, zoom, quarters, axis, focus) => {
          const e = codecOf(c);
          const camera = {
            focus: [focus, -focus] as const,
            anchor: [0.1, -0.2] as const,
            zoom,
            rotation: (quarters * Math.PI) / 2,
          };
          const frame = frameOf(orthographicOf(camera, viewport), viewport);
          if (!frame.ok) throw new Error();
          const place = (right: number, up: number) => {
            const { picture } = projectPoint(frame.value, [right, up, 0]);
            if (!picture.ok) throw new Error();
            return e.toScreen(viewport, picture.value.across, picture.value.upward);
          };
          const { screen, sense } = onScreenAxis((a, u) => e.toScreen(viewport, a, u), quarters, axis);
          const translation = place(0, 0)[screen];
          const length = screen ? viewport.height : viewport.width;
          const edges = tileEdges(
            { from: -200, size: 5, tiles: 80, zoom, translation, snapped: Math.floor(translation), length, sense },
            12,
          );
          for (const { at, pixel, between } of edges) {
            expect(Math.abs(place(axis ? 0 : at, axis ? at : 0)[screen] - pixel)).toBeLessThan(1e-6);
            expect(between).toBe(Math.abs(pixel - Math.round(pixel)) >= 1e-6);
          }
          // One after another on the screen, a tile apart.
          edges.slice(1).forEach((one, i) => expect(one.pixel - edges[i]!.pixel).toBeCloseTo(5 * zoom, 6));
        },
      ),
    );
  });

  it('are whole once t is and the zoom makes a tile whole, and not before', () => {
    const axis = {
      from: 0,
      size: 8,
      tiles: Infinity,
      zoom: 4,
      translation: 10.4,
      snapped: 10,
      length: 100,
      sense: 1 as const,
    };
    expect(tileEdges(axis, 9)).toEqual([
      { at: 0, pixel: 10.4, snappedPixel: 10, between: true, snappedBetween: false },
      { at: 8, pixel: 42.4, snappedPixel: 42, between: true, snappedBetween: false },
      { at: 16, pixel: 74.4, snappedPixel: 74, between: true, snappedBetween: false },
    ]);
    expect(tileEdges({ ...axis, zoom: 4.1 }, 9).map(({ snappedBetween }) => snappedBetween)).toEqual([
      false,
      true,
      true,
    ]);
    expect(tileEdges({ ...axis, sense: -1, translation: 90 }, 2).map(({ at, pixel }) => [at, pixel])).toEqual([
      [16, 26],
      [8, 58],
    ]);
  });
});
