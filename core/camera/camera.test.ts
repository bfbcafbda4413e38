import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conventions } from '../testing/arbitraries';
import { codecOf } from '../conventions/codec';
import { cross, distance, dot, length, negate, type Vec3 } from '../math/vec3';
import { frameOf, type Camera } from './frame';
import { anglesOfBasis, basisOfAngles, basisOfLookAt, orthonormalError, repairBasis, type Basis } from './orientation';
import { lensForms, resolveProjection, verticalFovOf } from './projection';

const angle = fc.double({ min: -Math.PI, max: Math.PI, noNaN: true });
const pitch = fc.double({ min: -1.57, max: 1.57, noNaN: true });
const angles = fc.record({ yaw: angle, pitch, roll: angle });
const same = (a: Basis, b: Basis) =>
  Math.max(distance(a.right, b.right), distance(a.up, b.up), distance(a.forward, b.forward));

describe('orientation', () => {
  it('turns the way its words say', () => {
    const quarter = Math.PI / 2;
    const close = (a: Vec3, b: Vec3) => expect(distance(a, b)).toBeLessThan(1e-15);
    close(basisOfAngles({ yaw: quarter, pitch: 0, roll: 0 }).forward, [1, 0, 0]); // to the right of −z
    close(basisOfAngles({ yaw: 0, pitch: quarter, roll: 0 }).forward, [0, 1, 0]); // the gaze rises
    close(basisOfAngles({ yaw: 0, pitch: 0, roll: quarter }).up, [1, 0, 0]); // the head tilts to its right
  });

  it('is orthonormal and right-handed from any angles, and comes back to the same basis', () => {
    fc.assert(
      fc.property(angles, (a) => {
        const basis = basisOfAngles(a);
        expect(orthonormalError(basis)).toBeLessThan(1e-15 * 4);
        expect(distance(cross(basis.right, basis.up), negate(basis.forward))).toBeLessThan(1e-15 * 4);
        expect(same(basisOfAngles(anglesOfBasis(basis)), basis)).toBeLessThan(1e-12);
      }),
    );
  });

  it('keeps yaw and lets roll be 0 at the poles', () => {
    for (const sign of [1, -1]) {
      const back = anglesOfBasis(basisOfAngles({ yaw: 0.5, pitch: (sign * Math.PI) / 2, roll: 0 }));
      expect(back.yaw).toBeCloseTo(0.5, 12);
      expect(back.pitch).toBeCloseTo((sign * Math.PI) / 2, 12);
      expect(back.roll).toBe(0);
    }
    fc.assert(
      fc.property(angle, angle, fc.constantFrom(1, -1), (yaw, roll, sign) => {
        const basis = basisOfAngles({ yaw, roll, pitch: (sign * Math.PI) / 2 });
        expect(same(basisOfAngles(anglesOfBasis(basis)), basis)).toBeLessThan(1e-9);
      }),
    );
  });

  it('goes through the quaternion of any conventions of one handedness, and refuses the others', () => {
    fc.assert(
      fc.property(angles, conventions, (a, c) => {
        const e = codecOf(c);
        const basis = basisOfAngles(a);
        const q = e.toQuaternion(basis);
        expect(q === null).toBe(e.handedness.world !== e.handedness.view);
        if (!q) return;
        expect(Math.hypot(...q)).toBeCloseTo(1, 14);
        expect(same(e.fromQuaternion(q)!, basis)).toBeLessThan(1e-14);
      }),
    );
  });

  it('re-expresses angles without moving the camera', () => {
    fc.assert(
      fc.property(angles, conventions, (a, c) => {
        const e = codecOf(c);
        expect(same(basisOfAngles(e.fromAngles(e.toAngles(a))), basisOfAngles(a))).toBeLessThan(1e-14);
      }),
    );
  });

  it('looks at what it is told to, upright, or says that it cannot', () => {
    const basis = basisOfLookAt([1, 2, 3], [4, 2, -1])!;
    expect(distance(basis.forward, [0.6, 0, -0.8])).toBeLessThan(1e-15);
    expect(distance(basis.up, [0, 1, 0])).toBeLessThan(1e-15);
    expect(basisOfLookAt([1, 2, 3], [1, 2, 3])).toBeNull();
    expect(basisOfLookAt([1, 2, 3], [1, 9, 3])).toBeNull();
    expect(basisOfLookAt([1, 2, 3], [4, 2, -1], [0, 0, 0])).toBeNull();
  });

  it('repairs a drifted basis with forward kept', () => {
    const drifted: Basis = { right: [1, 1e-7, 0], up: [0, 1, 2e-7], forward: [0, 0, -1.0000001] };
    expect(orthonormalError(drifted)).toBeCloseTo(2e-7, 10);
    const repaired = repairBasis(drifted)!;
    expect(repaired.forward).toEqual([0, 0, -1]);
    expect(orthonormalError(repaired)).toBeLessThan(1e-15);
    expect(dot(repaired.right, [1, 0, 0])).toBe(1);
  });
});

describe('what is wrong with a camera is named with its field', () => {
  const fine: Camera = {
    position: [0, 2, 10],
    orientation: { kind: 'lookAt', target: [0, 2, 0] },
    projection: { kind: 'perspective', near: 0.1, far: 100, lens: { verticalFov: 1 } },
  };
  const viewport = { x: 0, y: 0, width: 640, height: 480 };
  const perspective = { kind: 'perspective', near: 0.1, far: 100, lens: { verticalFov: 1 } } as const;
  it.each<[string, string, Partial<Camera>, Partial<typeof viewport>]>([
    ['camera.orientation.lookAt', 'lookAtDegenerate', { orientation: { kind: 'lookAt', target: [0, 9, 10] } }, {}],
    [
      'camera.orientation',
      'notOrthonormal',
      { orientation: { kind: 'basis', right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, 1] } },
      {},
    ],
    ['camera.projection.near', 'nearNotPositive', { projection: { ...perspective, near: 0 } }, {}],
    ['camera.projection.far', 'farNotBeyondNear', { projection: { ...perspective, far: 0.1 } }, {}],
    [
      'camera.projection.verticalFov',
      'fovOutOfRange',
      { projection: { ...perspective, lens: { verticalFov: Math.PI } } },
      {},
    ],
    ['viewport.height', 'viewportEmpty', {}, { height: 0 }],
  ])('%s: %s', (path, code, camera, size) => {
    const made = frameOf({ ...fine, ...camera }, { ...viewport, ...size });
    expect(made.ok).toBe(false);
    if (!made.ok)
      expect(made.problems).toEqual([expect.objectContaining({ path, code, message: expect.stringMatching(/\.$/) })]);
  });

  it('answers mirrored extents with a warning', () => {
    const made = resolveProjection({ kind: 'frustum', near: 1, far: 9, left: 1, right: -1, bottom: -1, top: 1 }, 1);
    expect(made).toMatchObject({ ok: true, warnings: [{ path: 'projection.left' }] });
  });
});

describe('projection forms', () => {
  const extents = (projection: Camera['projection']) => {
    const made = resolveProjection(projection, 16 / 9);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return made.value.extents;
  };
  const base = { kind: 'perspective', near: 2, far: null } as const;
  it('are one projection said in different words', () => {
    const vertical = extents({ ...base, lens: { verticalFov: Math.PI / 2 } });
    expect(vertical.top).toBeCloseTo(2, 14);
    expect(vertical.right).toBeCloseTo(32 / 9, 14);
    const others = [
      { horizontalFov: 2 * Math.atan(16 / 9) },
      { diagonalFov: 2 * Math.atan(Math.hypot(16, 9) / 9) },
      { focalLength: 12, sensorHeight: 24 },
    ];
    for (const lens of others) {
      const e = extents({ ...base, lens });
      expect(e.top).toBeCloseTo(vertical.top, 13);
      expect(e.right).toBeCloseTo(vertical.right, 13);
    }
  });
  it('say one lens, and come back from each form', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 3, noNaN: true }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        (fov, aspect) => {
          const { verticalFov, horizontalFov, diagonalFov, focalLength } = lensForms(fov, aspect, 24);
          for (const lens of [{ verticalFov }, { horizontalFov }, { diagonalFov }, { focalLength, sensorHeight: 24 }])
            expect(verticalFovOf(lens, aspect)).toBeCloseTo(fov, 12);
        },
      ),
    );
  });
  it('shift [1, 1] puts the optical axis on the left and bottom edges', () => {
    const e = extents({ ...base, lens: { verticalFov: 1 }, shift: [1, 1] });
    expect([e.left, e.bottom]).toEqual([0, 0]);
    expect(length([e.right, e.top, 0])).toBeGreaterThan(0);
  });
});
