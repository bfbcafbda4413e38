import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codecOf } from '../conventions/codec';
import { defaultConventions } from '../conventions/conventions';
import { real } from '../testing/arbitraries';
import { rotations } from '../testing/bodies';
import { anglesOfBasis, basisOfAngles, basisOfQuat, quatOfBasis, type Basis } from './orientation';
import { runs } from '../testing/seed';

/* The camera's axes as angles and as a rotation, and back. */

const names = ['right', 'up', 'forward'] as const;
const near = (a: Basis, b: Basis) => names.forEach((name) => a[name].forEach((v, i) => expect(v).toBeCloseTo(b[name][i]!, 9))); // prettier-ignore

describe('the camera’s axes', () => {
  it('come back from a rotation, and a rotation from them up to its sign', () => {
    fc.assert(
      fc.property(rotations, (q) => {
        const basis = basisOfQuat(q);
        near(basisOfQuat(quatOfBasis(basis)), basis);
        const again = quatOfBasis(basis);
        expect(Math.abs(q.reduce((sum, v, i) => sum + v * again[i]!, 0))).toBeCloseTo(1, 9);
      }),
      { numRuns: runs(500) },
    );
  });

  it('are what the canonical conventions make of a quaternion', () => {
    const e = codecOf(defaultConventions);
    fc.assert(
      fc.property(rotations, (q) => {
        near(e.fromQuaternion(q)!, basisOfQuat(q));
        const own = quatOfBasis(basisOfQuat(q));
        e.toQuaternion(basisOfQuat(q))!.forEach((v, i) => expect(v).toBeCloseTo(own[i]!, 15));
      }),
      { numRuns: runs(300) },
    );
  });

  it('come back from angles, at the poles too', () => {
    const pitch = fc.oneof(real(-1.57, 1.57), fc.constantFrom(Math.PI / 2, -Math.PI / 2));
    fc.assert(
      fc.property(real(-3.1, 3.1), pitch, real(-3.1, 3.1), (yaw, p, roll) => {
        const basis = basisOfAngles({ yaw, pitch: p, roll });
        near(basisOfAngles(anglesOfBasis(basis)), basis);
      }),
      { numRuns: runs(500) },
    );
  });

  it('without a rotation look along −z, with y up', () => {
    near(basisOfQuat([0, 0, 0, 1]), { right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, -1] });
    // A quarter turn about +y, counter-clockwise from above, looks along −x.
    near(basisOfQuat([0, Math.SQRT1_2, 0, Math.SQRT1_2]), { right: [0, 0, -1], up: [0, 1, 0], forward: [-1, 0, 0] });
  });
});
