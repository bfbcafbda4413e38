import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { viewRufToWorld, worldToPixel, worldToViewRuf } from '../../../core/convert/project';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { frames } from '../../../core/testing/arbitraries';
import { pictureView } from './view';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const viewOf = (frame: Parameters<typeof pictureView>[1]) => {
  const width = 480;
  return pictureView('camera', frame, { width, height: (width * frame.viewport.height) / frame.viewport.width });
};
const places = (path: string): Vec2[] =>
  [...path.matchAll(/[ML]?(-?[\d.e+-]+) (-?[\d.e+-]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('a picture’s view', () => {
  it('cuts lines and areas to what is ahead of near and in the picture', () => {
    fc.assert(
      fc.property(
        frames,
        fc.array(fc.tuple(number(-3, 3), number(-3, 3), number(-2, 3)), { minLength: 2, maxLength: 6 }),
        (frame, offsets) => {
          const view = viewOf(frame);
          // Round about the frustum's near end, in its own measure.
          const unit = Math.max(frame.near, 1e-3);
          const points = offsets.map(([r, u, f]): Vec3 => viewRufToWorld(frame, [r * unit, u * unit, f * unit * 2]));
          for (const path of [
            view.line(points),
            view.line(points, true),
            points.length > 2 ? view.area(points.slice(0, 3)) : '',
          ]) {
            expect(path).not.toMatch(/NaN|Infinity/);
            for (const [x, y] of places(path)) {
              expect(x).toBeGreaterThan(-0.02);
              expect(y).toBeGreaterThan(-0.02);
              expect(x).toBeLessThan(view.size.width + 0.02);
              expect(y).toBeLessThan(view.size.height + 0.02);
            }
          }
        },
      ),
    );
  });

  it('has a point where the projection has it, scaled to the page, and none before near', () => {
    fc.assert(
      fc.property(frames, number(-2, 2), number(-2, 2), number(-3, 4), (frame, r, u, f) => {
        const view = viewOf(frame);
        const p = viewRufToWorld(frame, [r, u, f]);
        const at = view.point(p);
        const pixel = worldToPixel(frame, p);
        if (!pixel.ok || (frame.kind === 'perspective' && worldToViewRuf(frame, p)[2] < frame.near))
          return void expect(at).toBeNull();
        const { x, y } = frame.viewport;
        expect(at![0]).toBeCloseTo((pixel.value[0] - x) * view.scale, 6);
        expect(at![1]).toBeCloseTo((pixel.value[1] - y) * view.scale, 6);
      }),
    );
  });

  it('keeps a line whole that is wholly in the picture, and has nothing of one that is not', () => {
    fc.assert(
      fc.property(frames, (frame) => {
        const view = viewOf(frame);
        const { extents: e, near, kind } = frame;
        const ahead = kind === 'perspective' ? near * 2 : near + 1;
        const k = kind === 'perspective' ? 2 : 1;
        const at = (s: number, t: number): Vec3 =>
          viewRufToWorld(frame, [
            (e.left + (e.right - e.left) * s) * k,
            (e.bottom + (e.top - e.bottom) * t) * k,
            ahead,
          ]);
        expect(places(view.line([at(0.25, 0.25), at(0.75, 0.5), at(0.5, 0.75)]))).toHaveLength(3);
        expect(view.line([at(1.5, 0.2), at(1.5, 0.8)])).toBe('');
        expect(view.area([at(1.2, 0), at(1.4, 0), at(1.4, 1)])).toBe('');
      }),
    );
  });
});
