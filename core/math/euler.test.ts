import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { real } from '../testing/arbitraries';
import { eulerOf, eulerOrders, quatOfEuler } from './euler';
import { quatAbout, rotateByQuat } from './quat';
import { distance, type Vec3 } from './vec3';
import { runs } from '../testing/seed';

const orders = fc.constantFrom(...eulerOrders);
const angles = fc.tuple(real(-3.1, 3.1), real(-1.57, 1.57), real(-3.1, 3.1));
const units: Readonly<Record<string, Vec3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

describe('angles in an order', () => {
  it('turn by hand: about y by a right angle, then about the x that this has made of it', () => {
    const q = quatOfEuler([Math.PI / 2, Math.PI / 2, 0], 'yxz');
    // Ahead (−z) comes to lie along −x, and then is tilted up.
    expect(distance(rotateByQuat(q, [0, 0, -1]), [0, 1, 0])).toBeLessThan(1e-12);
    expect(distance(rotateByQuat(q, [1, 0, 0]), [0, 0, -1])).toBeLessThan(1e-12);
  });

  it('turn about axes that stay when they are taken the other way round', () => {
    fc.assert(
      fc.property(orders, angles, fc.tuple(real(-1, 1), real(-1, 1), real(-1, 1)), (order, three, v) => {
        let moved: Vec3 = v;
        for (const k of [2, 1, 0]) moved = rotateByQuat(quatAbout(units[order[k]!]!, three[k]!), moved);
        expect(distance(moved, rotateByQuat(quatOfEuler(three, order), v))).toBeLessThan(1e-12);
      }),
    );
  });

  it('come back from the rotation that they make', () => {
    fc.assert(
      fc.property(orders, angles, (order, three) => {
        const back = eulerOf(quatOfEuler(three, order), order);
        // Near the lock the first and the third share what is left of their digits.
        const tolerance = 1e-12 / Math.max(1e-6, Math.cos(three[1]));
        back.forEach((v, i) => expect(Math.abs(v - three[i]!)).toBeLessThan(tolerance));
      }),
      { numRuns: runs(500) },
    );
  });

  it('are one turn where the middle one is a right angle, and the rotation stays', () => {
    fc.assert(
      fc.property(orders, real(-3, 3), real(-3, 3), fc.constantFrom(1, -1), (order, a, c, sign) => {
        const q = quatOfEuler([a, (sign * Math.PI) / 2, c], order);
        const back = eulerOf(q, order);
        const again = quatOfEuler(back, order);
        for (const v of Object.values(units))
          expect(distance(rotateByQuat(again, v), rotateByQuat(q, v))).toBeLessThan(1e-7);
      }),
    );
  });
});
