import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { projectPoint } from '../convert/project';
import { magnitude, picturePositions, real, viewports } from '../testing/arbitraries';
import type { Vec2 } from '../math/vec3';
import { focusFor, orthographicOf, wholeZoomFor, wholeZooms, worldAt, type Camera2d } from './camera2d';
import { frameOf } from './frame';

const cameras: fc.Arbitrary<Camera2d> = fc.record({
  focus: fc.tuple(real(-500, 500), real(-500, 500)),
  anchor: fc.tuple(real(-1.5, 1.5), real(-1.5, 1.5)),
  zoom: magnitude(0.05, 100),
  rotation: real(-Math.PI, Math.PI),
});

const near = (a: Vec2, b: Vec2, tolerance: number) => {
  expect(Math.abs(a[0] - b[0])).toBeLessThan(tolerance);
  expect(Math.abs(a[1] - b[1])).toBeLessThan(tolerance);
};

describe('a 2D camera', () => {
  it('shows at a picture position the point that its frame projects there', () => {
    fc.assert(
      fc.property(cameras, viewports, picturePositions, (camera, viewport, at) => {
        const frame = frameOf(orthographicOf(camera, viewport), viewport);
        if (!frame.ok) throw new Error();
        const world = worldAt(camera, viewport, at);
        const { picture } = projectPoint(frame.value, [...world, 0]);
        if (!picture.ok) throw new Error();
        near([picture.value.across, picture.value.upward], at, 1e-7);
      }),
    );
  });

  it('has its focus at its anchor, and a focus for every point at every place', () => {
    fc.assert(
      fc.property(cameras, viewports, picturePositions, (camera, viewport, at) => {
        near(worldAt(camera, viewport, camera.anchor), camera.focus, 1e-9);
        const world: Vec2 = [17, -4];
        const focus = focusFor(camera, viewport, world, at);
        near(worldAt({ ...camera, focus }, viewport, at), world, 1e-7 * (1 + Math.hypot(...focus)));
      }),
    );
  });

  it('turns what is right of the focus upward on the screen, a quarter turn counter-clockwise', () => {
    const camera: Camera2d = { focus: [3, 4], anchor: [0, 0], zoom: 2, rotation: Math.PI / 2 };
    near(worldAt(camera, { x: 0, y: 0, width: 200, height: 100 }, [0, 1]), [28, 4], 1e-12);
  });
});

describe('whole-number zooms', () => {
  it('say what a viewport shows, and whether its edges cut a unit', () => {
    expect(wholeZooms({ width: 1280, height: 720 }, 6.9).map(({ zoom, whole }) => [zoom, whole])).toEqual([
      [1, true],
      [2, true],
      [3, false],
      [4, true],
      [5, true],
      [6, false],
    ]);
    expect(wholeZooms({ width: 1280, height: 720 }, 5)[4]!.size).toEqual([256, 144]);
  });
  it('are the largest that show at least a rectangle', () => {
    fc.assert(
      fc.property(viewports, magnitude(1, 3000), magnitude(1, 3000), (viewport, width, height) => {
        const zoom = wholeZoomFor(viewport, [width, height]);
        const shows = (k: number) => viewport.width / k >= width && viewport.height / k >= height;
        if (zoom === null) expect(shows(1)).toBe(false);
        else expect([shows(zoom), shows(zoom + 1)]).toEqual([true, false]);
      }),
    );
  });
});
