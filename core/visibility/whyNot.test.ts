import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body, type Shape } from '../bodies/body';
import { frameOf, type CameraFrame } from '../camera/frame';
import { quatAbout } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import { visibility } from './visibility';
import { whyUnseen } from './whyNot';
import { runs } from '../testing/seed';

const camera = (part: { yaw?: number; pitch?: number; roll?: number; near?: number; far?: number | null } = {}): CameraFrame => {
  const { yaw = 0, pitch = 0, roll = 0, near = 1, far = 60 } = part;
  const made = frameOf({ position: [0, 2, 0], orientation: { kind: 'angles', yaw, pitch, roll }, projection: { kind: 'perspective', near, far, lens: { verticalFov: 0.8 } } }, { x: 0, y: 0, width: 640, height: 360 }); // prettier-ignore
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
}; // prettier-ignore
const place = (list: readonly (Pick<Body, 'shape' | 'position'> & Partial<Body>)[]) => {
  const made = placeBodies(list.map((one, i): Body => ({ id: `b${i}`, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true, ...one }))); // prettier-ignore
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.placed;
};
const one = (shape: Shape, position: Vec3, more: Partial<Body> = {}) => place([{ shape, position, ...more }])[0]!;
const box: Shape = { kind: 'box', size: [2, 2, 2] };
const why = (body: ReturnType<typeof one>, others = [body], frame = camera()) => whyUnseen(frame, body, others);

describe('why a body is not seen', () => {
  it('is said by the kind, with its number', () => {
    expect(why(one(box, [0, 2, -10]))).toBeNull();
    expect(why(one(box, [0, 2, 10]))).toEqual({ kind: 'behindEye', behind: 9 });
    expect(why(one({ kind: 'box', size: [0.2, 0.2, 0.2] }, [0, 2, -0.5]))).toMatchObject({ kind: 'beforeNear' });
    expect(why(one(box, [0, 2, -90]))).toEqual({ kind: 'pastFar', ahead: 89 });
    const off = why(one({ kind: 'sphere', radius: 1 }, [30, 2, -10]));
    expect(off).toMatchObject({ kind: 'offPicture', upward: 0 });
    expect(off?.kind === 'offPicture' && off.across).toBeGreaterThan(500);
    expect(why(one({ kind: 'point' }, [0, 2, -10]))).toEqual({ kind: 'noExtent' });
    expect(why(one({ kind: 'sphere', radius: 0.01 }, [0, 2, -50]))).toMatchObject({ kind: 'tooSmall' });
    // A quad fronts +z, towards the camera; turned half round it faces away.
    expect(why(one({ kind: 'quad', size: [2, 2] }, [0, 2, -10]))).toBeNull();
    expect(why(one({ kind: 'quad', size: [2, 2] }, [0, 2, -10], { rotation: quatAbout([0, 1, 0], Math.PI) }))).toEqual({ kind: 'facingAway' }); // prettier-ignore
    const scene = place([
      { shape: box, position: [0, 2, -20] },
      { shape: { kind: 'box', size: [8, 8, 1] }, position: [0, 2, -10] },
    ]);
    expect(why(scene[0]!, scene)).toEqual({ kind: 'hidden', by: 'b1' });
    expect(why(scene[1]!, scene)).toBeNull();
    // Its own parts do not hide it.
    expect(whyUnseen(camera(), scene[0]!, scene, { own: new Set(['b1']) })).toBeNull();
  });

  it('is null or in the frustum’s terms exactly as the exact test has it', () => {
    const number = (min: number, max: number) => fc.integer({ min: min * 8, max: max * 8 }).map((v) => v / 8);
    fc.assert(
      fc.property(number(-60, 60), number(-30, 30), number(-90, 60), number(1, 3), number(-1, 1), fc.boolean(), (x, y, z, size, tilt, round) => {
        const frame = camera({ pitch: tilt / 3, roll: -tilt / 3 });
        const body = one(round ? { kind: 'sphere', radius: size } : { kind: 'box', size: [size, 2 * size, size] }, [x, y, z]);
        const { verdict } = visibility(frame, [body], { method: 'exact' })[0]!;
        const found = whyUnseen(frame, body, [body]);
        const outside = found !== null && ['behindEye', 'beforeNear', 'pastFar', 'offPicture'].includes(found.kind);
        expect(outside).toBe(verdict === 'outside');
      }),
      { numRuns: runs(300) },
    ); // prettier-ignore
  });
});
