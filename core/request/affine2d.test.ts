import { describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import { case2dBy } from '../testing/case2d';
import { runs } from '../testing/seed';
import {
  affineList,
  affineOf,
  applyAffine,
  invertAffine,
  readAffine,
  snapAffine,
  visibleBounds,
  type Affine2d,
} from './affine2d';

const numbers = ({ a, b, tx, c, d, ty }: Affine2d) => [a, b, tx, c, d, ty];
const expectNear = (left: readonly number[], right: readonly number[], share = 1e-9) => {
  expect(left).toHaveLength(right.length);
  left.forEach((v, i) => expect(Math.abs(v - right[i]!)).toBeLessThan(share * Math.max(1, ...right.map(Math.abs))));
};

describe('the mapping of a 2D camera', () => {
  it('takes points where compute takes them, in random conventions and snapped', () => {
    for (let seed = 1; seed <= runs(60); seed++) {
      const { camera, viewport, codec, request } = case2dBy(seed);
      const points = [camera.focus, [0, 0], [13.25, -7.5]] as const;
      const made = compute({ ...request, queries: [{ id: 'p', op: 'worldToScreen', points }] });
      if (!made.ok) throw new Error(JSON.stringify(made.problem));
      const [{ points: answers }] = made.response.results as unknown as [{ points: { screen: [number, number] }[] }];
      const toPixel = snapAffine(affineOf(camera, codec), camera.snap);
      points.forEach((p, i) => expectNear(applyAffine(toPixel, [p[0], p[1]]), answers[i]!.screen));
      const { min, max } = visibleBounds(toPixel, viewport, codec)!;
      // The corners of the viewport are in the box, and each side of it has one.
      const half = codec.conventions.screen.pixelCentre === 0 ? 0.5 : 0;
      const back = invertAffine(toPixel)!;
      const corners = [0, 1].flatMap((u) => [0, 1].map((v) => applyAffine(back, [viewport.x - half + u * viewport.width, viewport.y - half + v * viewport.height]))); // prettier-ignore
      for (const axis of [0, 1] as const) {
        const along = corners.map((corner) => corner[axis]);
        expectNear([Math.min(...along), Math.max(...along)], [min[axis], max[axis]]);
      }
    }
  });

  it('has an inverse that takes back, and none without an extent', () => {
    for (let seed = 1; seed <= runs(40); seed++) {
      const { camera, codec } = case2dBy(seed);
      const of = affineOf(camera, codec);
      expectNear(applyAffine(invertAffine(of)!, applyAffine(of, [3, -8])), [3, -8]);
    }
    expect(invertAffine({ a: 1, b: 2, tx: 0, c: 2, d: 4, ty: 1 })).toBeNull();
  });

  it('is listed and read again as 6, 9 and 16 numbers', () => {
    const of: Affine2d = { a: 1, b: 2, tx: 3, c: 4, d: 5, ty: 6 };
    expect(affineList(of, false)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(affineList(of, true)).toEqual([1, 4, 2, 5, 3, 6]);
    for (const isByColumns of [false, true])
      expect(numbers(readAffine(affineList(of, isByColumns), isByColumns)!)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(numbers(readAffine([1, 2, 3, 4, 5, 6, 0, 0, 1], false)!)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(numbers(readAffine([1, 4, 0, 2, 5, 0, 3, 6, 1], true)!)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(numbers(readAffine([1, 2, 0, 3, 4, 5, 0, 6, 0, 0, 1, 0, 0, 0, 0, 1], false)!)).toEqual([1, 2, 3, 4, 5, 6]);
    expect(readAffine([1, 2, 3, 4, 5, 6, 0, 1, 1], false)).toBeNull();
    expect(readAffine([1, 2, 3, 4], false)).toBeNull();
  });
});
