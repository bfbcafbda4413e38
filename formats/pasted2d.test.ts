import { describe, expect, it } from 'vitest';
import { affineList, affineOf } from '../core/request/affine2d';
import { case2dBy } from '../core/testing/case2d';
import { runs } from '../core/testing/seed';
import { readPasted2d } from './pasted2d';

const read = (text: string, corrections: Parameters<typeof readPasted2d>[1] = [], byColumns = false) =>
  readPasted2d(text, corrections, { byColumns });

describe('numbers of a 2D camera in a text', () => {
  const numbers = [2, 0.5, 640, 0.25, -2, 360];
  it.each([
    ['two rows', '2 0.5 640\n0.25 -2 360'],
    ['brackets about rows', 'view = [[2, 0.5, 640], [0.25, -2, 360]]'],
    ['three rows', 'camera:\n  2 0.5 640\n  0.25 -2 360\n  0 0 1'],
    ['the matrix of row vectors, 3×2', 'transform:\n2 0.25\n0.5 -2\n640 360'],
    ['the matrix of row vectors, 3×3', '{{2, 0.25, 0}, {0.5, -2, 0}, {640, 360, 1}}'],
    ['four rows', '2 0.5 0 640\n0.25 -2 0 360\n0 0 1 0\n0 0 0 1'],
  ])('are a matrix in %s', (_, text) => {
    expect(read(text).given).toEqual({ worldToPixel: numbers });
    expect(read(text, [], true).given).toEqual({ worldToPixel: [2, 0.25, 0.5, -2, 640, 360] });
  });

  it('are a flat list as the conventions list it', () => {
    expect(read('m = (2, 0.5, 640, 0.25, -2, 360)').given).toEqual({ worldToPixel: numbers });
  });

  it('are named by the words before them, and by their order', () => {
    const text = 'screenToWorld 1 0 5\n0 1 6\n\nworldToScreen 1 0 -5\n0 1 -6';
    expect(read(text).given).toEqual({ pixelToWorld: [1, 0, 5, 0, 1, 6], worldToPixel: [1, 0, -5, 0, 1, -6] });
    expect(Object.keys(read('1 0 5\n0 1 6\n\n2 0 5\n0 2 6').given!)).toEqual(['worldToPixel', 'pixelToWorld']);
  });

  it('are points with their pixels, by arrows, on one line, in brackets', () => {
    const text = 'buoy (12.5, -3) -> (640.25, 361.5)\npier 1 2 30.5 40.5\n{"world": [4, 5], "screen": [6, 7]}';
    expect(read(text).given).toEqual({
      points: [
        { world: [12.5, -3], screen: [640.25, 361.5] },
        { world: [1, 2], screen: [30.5, 40.5] },
        { world: [4, 5], screen: [6, 7] },
      ],
    });
  });

  it('take corrections, and leave out a second matrix of one role', () => {
    const text = '1 0 5\n0 1 6\n\n2 0 5\n0 2 6';
    const [first, second] = read(text).items;
    expect(read(text, [{ from: first!.from, role: 'unused' }]).given).toEqual({ worldToPixel: [2, 0, 5, 0, 2, 6] });
    const both = read(text, [{ from: second!.from, role: 'worldToPixel' }]);
    expect(both.items[1]!.why).toContain('another');
    expect(both.given).toEqual({ worldToPixel: [1, 0, 5, 0, 1, 6] });
    expect(read('nothing here').given).toBeNull();
  });

  it('have the digits that were printed', () => {
    expect(read('2.13 0.52 640.11\n0.25 -2.10 360.99').digits).toBeLessThan(5);
    expect(read('2.134567 0.521234 640.115\n0.254321 -2.101234 360.998').digits).toBe(6);
    // A zero that was rounded is known no better than the numbers of its row and column.
    expect(read('0.200000 0.000000 640.000000\n0.000000 -0.200000 360.000000').digits).toBe(5);
  });

  it('come back as they were printed, in random conventions', () => {
    for (let seed = 1; seed <= runs(30); seed++) {
      const { camera, codec } = case2dBy(seed);
      const of = affineOf(camera, codec);
      const text = `${[of.a, of.b, of.tx].join(' ')}\n${[of.c, of.d, of.ty].join(' ')}`;
      expect(read(text, [], codec.listsColumns).given).toEqual({ worldToPixel: affineList(of, codec.listsColumns) });
    }
  });
});
