import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { orthographicOf } from '../camera/camera2d';
import { frameOf, reposed } from '../camera/frame';
import { anglesOfBasis, basisOfAngles } from '../camera/orientation';
import { addScaled, length, sub, type Vec3 } from '../math/vec3';
import { faultError, faultySource, rayFaults, type FaultTerms } from './faults';

const real = (min: number, max: number) => fc.integer({ min: 0, max: 4096 }).map((v) => min + ((max - min) * v) / 4096);
const terms = (part: Partial<FaultTerms> = {}): FaultTerms => ({
  ...{ shake: { angles: { yaw: 0, pitch: 0, roll: 0 }, offset: [0, 0] }, recoil: 0, turnRate: 0, velocity: [0, 0, 0] },
  ...{ frameTime: 1 / 60, aspect: 2, devicePixelRatio: 1, ...part },
});
const cameras = fc.tuple(real(-3, 3), real(-1, 1), real(-1, 1), real(0.4, 1.6), real(-0.6, 0.6)).map(([yaw, pitch, roll, verticalFov, shift]) => {
  const made = frameOf({ position: [1, 2, 3], orientation: { kind: 'angles', yaw, pitch, roll }, projection: { kind: 'perspective', near: 0.1, far: 500, lens: { verticalFov }, shift: [shift, 0] } }, { x: 0, y: 0, width: 800, height: 400 }); // prettier-ignore
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}); // prettier-ignore
const pixels = fc.tuple(real(0, 800), real(0, 400));
const flatFrame = (rotation = 0) => {
  const made = frameOf(orthographicOf({ focus: [5, -3], anchor: [400, 200], zoom: 4, rotation }, { x: 0, y: 0, width: 800, height: 400 }), { x: 0, y: 0, width: 800, height: 400 }); // prettier-ignore
  if (!made.ok) throw new Error('the flat camera');
  return made.value;
};

describe('a ray made from another source', () => {
  it('is right where nothing is left out', () => {
    fc.assert(
      fc.property(cameras, pixels, real(1, 200), (frame, pixel, range) => {
        const none = terms({ aspect: 2 });
        for (const fault of ['shakeLeftOut', 'recoilLeftOut', 'frameBefore', 'otherAspect', 'devicePixels'] as const) {
          const found = faultError(frame, pixel, fault, none, range)!;
          expect(found.angle, fault).toBeLessThan(1e-9);
          expect(found.miss, fault).toBeLessThan(1e-6);
          expect(Math.hypot(...found.error!), fault).toBeLessThan(1e-3);
        }
      }),
    );
  });

  it('undoes the shake, the recoil and the turn that the picture’s camera has', () => {
    fc.assert(
      fc.property(cameras, pixels, real(-0.1, 0.1), real(-0.1, 0.1), real(-0.1, 0.1), real(-1, 1), (frame, pixel, a, b, c, offset) => {
        // The picture's camera is the steady one, shaken.
        const own = anglesOfBasis(frame);
        const shaken = reposed(frame, {
          eye: addScaled(addScaled(frame.eye, basisOfAngles({ yaw: own.yaw + a, pitch: own.pitch + b, roll: own.roll + c }).right, offset), basisOfAngles({ yaw: own.yaw + a, pitch: own.pitch + b, roll: own.roll + c }).up, offset / 2),
          basis: basisOfAngles({ yaw: own.yaw + a, pitch: own.pitch + b, roll: own.roll + c }),
        })!;
        const back = faultySource(shaken, pixel, 'shakeLeftOut', terms({ shake: { angles: { yaw: a, pitch: b, roll: c }, offset: [offset, offset / 2] } }))!; // prettier-ignore
        expect(length(sub(back.frame.eye, frame.eye))).toBeLessThan(1e-9);
        for (const axis of ['right', 'up', 'forward'] as const) expect(length(sub(back.frame[axis], frame[axis]))).toBeLessThan(1e-9);
      }),
    ); // prettier-ignore
    const level = reposed(flatFrame(), {})!;
    const forward: Vec3 = [0, 0, -1];
    expect(level.forward).toEqual(forward);
  });

  it('misses by the chord of its angle, and by so many pixels at the middle of the picture', () => {
    fc.assert(
      fc.property(real(0.3, 1.5), real(-0.05, 0.05), real(1, 300), (verticalFov, recoil, range) => {
        const made = frameOf({ position: [0, 0, 0], orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 }, projection: { kind: 'perspective', near: 0.1, far: 500, lens: { verticalFov } } }, { x: 0, y: 0, width: 800, height: 400 }); // prettier-ignore
        if (!made.ok) throw new Error('camera');
        const found = faultError(made.value, [400, 200], 'recoilLeftOut', terms({ recoil }), range)!;
        expect(found.angle).toBeCloseTo(Math.abs(recoil), 12);
        expect(found.miss).toBeCloseTo(2 * range * Math.sin(Math.abs(recoil) / 2), 9);
        // The gaze without the recoil is lower by it: farther down the picture.
        expect(found.error![1]).toBeCloseTo((200 / Math.tan(verticalFov / 2)) * Math.tan(recoil), 6);
      }),
    );
  });

  it('of pixels: the half, the other edge, device pixels', () => {
    fc.assert(
      fc.property(cameras, pixels, (frame, pixel) => {
        const t = terms({ devicePixelRatio: 0.5 });
        for (const [fault, by] of [
          ['halfLeftOut', [-0.5, -0.5]],
          ['otherEdge', [0, 400 - 2 * pixel[1]]],
          ['devicePixels', [-pixel[0] / 2, -pixel[1] / 2]],
        ] as const) {
          const { error } = faultError(frame, pixel, fault, t, 10)!;
          // The faulty point is as far along its own ray: it lies on the pixel that was taken.
          expect(Math.hypot(error![0] - by[0], error![1] - by[1])).toBeLessThan(1e-6);
        }
      }),
    );
  });

  it('on a flat world: offset, roll and scroll, and no angles of space', () => {
    const frame = flatFrame();
    const at = faultError(frame, [500, 250], 'shakeLeftOut', terms({ shake: { angles: { yaw: 1, pitch: 1, roll: 0 }, offset: [2, -1] } }), 0, true)!; // prettier-ignore
    expect(at.miss).toBeCloseTo(Math.hypot(2, 1), 9);
    expect(at.error!.map((v) => Math.round(v * 1e6) / 1e6 + 0)).toEqual([-8, -4]);
    const scrolled = faultError(frame, [500, 250], 'frameBefore', terms({ velocity: [60, 0, 0] }), 0, true)!;
    expect(scrolled.error!.map((v) => Math.round(v * 1e6) / 1e6 + 0)).toEqual([-4, 0]);
    const turned = faultError(frame, [500, 200], 'shakeLeftOut', terms({ shake: { angles: { yaw: 0, pitch: 0, roll: 0.1 }, offset: [0, 0] } }), 0, true)!; // prettier-ignore
    // About the anchor here, 100 pixels off it.
    expect(turned.miss * 4).toBeCloseTo(2 * 100 * Math.sin(0.05), 6);
    expect(rayFaults.filter((fault) => faultError(frame, [1, 1], fault, terms(), 0, true) === null)).toEqual(['recoilLeftOut', 'shiftLeftOut']); // prettier-ignore
  });
});
