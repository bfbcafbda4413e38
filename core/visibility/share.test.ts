import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundingSphere } from '../bodies/body';
import { frameOf, type CameraFrame } from '../camera/frame';
import { placeOne, scenes } from '../testing/bodies';
import { add, type Vec3 } from '../math/vec3';
import { seenShare } from './share';
import { visibility } from './visibility';
import { askUntil } from '../testing/askUntil';
import { soaks } from '../testing/seed';

/** Looks along −z from the origin: 4 × 2 units at every distance, near 1 and far 9. */
const frame: CameraFrame = (() => {
  const made = frameOf(
    {
      position: [0, 0, 0],
      orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 },
      projection: { kind: 'orthographic', size: { height: 2 }, near: 1, far: 9 },
    },
    { x: 0, y: 0, width: 400, height: 200 },
  );
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
})();
const upright = [0, 0, 0, 1] as const;
const at = (shape: Parameters<typeof placeOne>[0], position: Vec3) => placeOne(shape, position, upright, [1, 1, 1]);

describe('how much of a body is within the frustum', () => {
  it('is the share of its area, by hand', () => {
    const board = { kind: 'quad', size: [2, 1] } as const;
    expect(seenShare(frame, [at(board, [0, 0, -5])])).toBe(1);
    expect(seenShare(frame, [at(board, [2, 0, -5])])).toBeCloseTo(0.5, 12);
    expect(seenShare(frame, [at(board, [2, 1, -5])])).toBeCloseTo(0.25, 12);
    expect(seenShare(frame, [at(board, [0, 0, -10])])).toBe(0);
    // Half of a cube beyond far: of 24 squares of 1/4 two sides and four halves are left… 1 + 4/2.
    expect(seenShare(frame, [at({ kind: 'box', size: [1, 1, 1] }, [0, 0, -9])])).toBeCloseTo(3 / 6, 12);
    // A cap of a sphere has the share of the diameter that it is high (Archimedes).
    expect(seenShare(frame, [at({ kind: 'sphere', radius: 0.8 }, [0, 0, -9.4])])).toBeCloseTo(0.25, 1);
    expect(seenShare(frame, [at({ kind: 'point' }, [2, 1, -1])])).toBe(1);
    expect(seenShare(frame, [at({ kind: 'point' }, [2, 1.001, -1])])).toBe(0);
    // Of several together by their areas; none have no share.
    expect(seenShare(frame, [at(board, [0, 0, -5]), at(board, [9, 0, -5])])).toBeCloseTo(0.5, 12);
    expect(seenShare(frame, [at({ kind: 'point' }, [0, 0, -2]), at({ kind: 'point' }, [9, 0, -2])])).toBe(0.5);
    expect(seenShare(frame, [])).toBe(null);
  });

  it('has a body without a surface be a point', () => {
    const empty = at({ kind: 'mesh', positions: [], indices: [] }, [0, 0, -5]);
    expect(seenShare(frame, [empty])).toBe(1);
    expect(boundingSphere(empty)).toEqual({ centre: [0, 0, -5], radius: 0 });
    expect(visibility(frame, [empty], { method: 'planes' })[0]!.verdict).toBe('inside');
  });

  it('takes a flat world’s bodies as they lie', () => {
    const flatBox = at({ kind: 'box', size: [2, 1, 50] }, [2, 0, -5]);
    expect(seenShare(frame, [flatBox], true)).toBeCloseTo(0.5, 12);
    expect(seenShare(frame, [flatBox])).toBeLessThan(0.2);
  });

  it('is all of what is inside, nothing of what is outside, and between them for what crosses', () => {
    const of = (wanted: string) =>
      askUntil(scenes, soaks ? 100 : 12, ({ frame: any, placed }) => {
        const { verdict } = visibility(any, [placed], { method: 'exact' })[0]!;
        const share = seenShare(any, [placed])!;
        expect(share).toBeGreaterThanOrEqual(0);
        expect(share).toBeLessThanOrEqual(1);
        if (verdict === 'inside') expect(share).toBeGreaterThan(1 - 1e-9);
        if (verdict === 'outside') expect(share).toBeLessThan(1e-6);
        return Number(verdict === wanted);
      });
    ['inside', 'crosses', 'outside'].forEach(of);
  });

  it('grows by nothing but what comes in: the halves of a board have together its share', () => {
    const across = fc.double({ min: -4, max: 4, noNaN: true });
    fc.assert(
      fc.property(across, across, (x, y) => {
        const half = (dx: number) =>
          seenShare(frame, [at({ kind: 'quad', size: [1, 1] }, add([x, y, -5], [dx, 0, 0]))]);
        const whole = seenShare(frame, [at({ kind: 'quad', size: [2, 1] }, [x, y, -5])])!;
        expect((half(-0.5)! + half(0.5)!) / 2).toBeCloseTo(whole!, 9);
      }),
    );
  });
});
