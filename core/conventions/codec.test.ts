import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aheadAt, conventions, frames, picturePositions, shares, vectors } from '../testing/arbitraries';
import { pictureToViewRuf, viewRufToWorld, worldToViewRuf } from '../convert/project';
import { projectionMatrix } from '../camera/frame';
import { mat4, multiply, transform } from '../math/mat4';
import { normalizeQuat, quatToColumns, type Quat } from '../math/quat';
import { distance, dot, type Vec3 } from '../math/vec3';
import { codecOf, reexpressAngle, reexpressAngles } from './codec';

const real = fc.double({ min: -5, max: 5, noNaN: true });
const rotations: fc.Arbitrary<Quat> = fc
  .tuple(real, real, real, real)
  .map((q) => normalizeQuat(q))
  .filter((q) => q !== null);
const turn = (q: Quat, [x, y, z]: Vec3): Vec3 => {
  const [a, b, c] = quatToColumns(q);
  const part = (i: 0 | 1 | 2) => a[i] * x + b[i] * y + c[i] * z;
  return [part(0), part(1), part(2)];
};

describe('matrices', () => {
  it('of canonical spaces are those of the frame once written, and come back', () => {
    fc.assert(
      fc.property(conventions, frames, (c, frame) => {
        const e = codecOf(c);
        const { near, far } = c.ndc;
        const { right, up, forward, eye } = frame;
        const view = mat4([...[right, up, forward].flatMap((v) => [...v, -dot(v, eye)]), 0, 0, 0, 1]);
        const projection = projectionMatrix(frame, near, far);
        const close = (a: readonly number[], b: readonly number[]) => a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThanOrEqual(1e-9 * (Math.abs(v) + Math.max(...b.map(Math.abs))))); // prettier-ignore
        close(e.toViewMatrix(view), e.matrix(frame, 'view'));
        expect(e.toProjection(projection)).toEqual(e.matrix(frame, 'projection'));
        close(e.toViewProjection(multiply(projection, view)), e.matrix(frame, 'viewProjection'));
        close(e.fromViewMatrix(e.toViewMatrix(view)), view);
        close(e.fromProjection(e.toProjection(projection)), projection);
        close(e.fromViewProjection(e.toViewProjection(view)), view);
      }),
    );
  });

  it('undo one another in any conventions', () => {
    const pairs = [
      ['view', 'cameraToWorld'],
      ['projection', 'inverseProjection'],
      ['viewProjection', 'inverseViewProjection'],
    ] as const;
    fc.assert(
      fc.property(conventions, frames, picturePositions, shares, (c, frame, [x, y], share) => {
        const e = codecOf(c);
        const world = viewRufToWorld(frame, pictureToViewRuf(frame, x, y, aheadAt(frame, share)));
        for (const [there, back] of pairs) {
          // A point of the picture there and back, by the matrices alone.
          const from = there === 'projection' ? e.toView(worldToViewRuf(frame, world)) : e.toWorld(world);
          const moved = transform(e.matrix(frame, back), transform(e.matrix(frame, there), [...from, 1]));
          const again = moved.slice(0, 3).map((v) => v / moved[3]) as unknown as Vec3;
          const size = Math.hypot(...from) + Math.hypot(...frame.eye) + frame.near;
          expect(distance(again, from)).toBeLessThan(1e-5 * size);
        }
      }),
    );
  });
});

describe('every passage has its way back', () => {
  it('for vectors, sizes, pairs, heights and depths, to the digit', () => {
    fc.assert(
      fc.property(conventions, vectors(100), (c, v) => {
        const e = codecOf(c);
        expect(distance(e.fromWorld(e.toWorld(v)), v)).toBe(0);
        expect(distance(e.fromView(e.toView(v)), v)).toBe(0);
        expect(distance(e.fromSizes(e.toSizes(v)), v)).toBe(0);
        // Sizes change letters and keep their signs.
        expect([...e.toSizes(v)].sort()).toEqual([...v].map((x) => x).sort());
        for (const second of ['up', 'forward'] as const)
          expect(distance([...e.fromPair(second, e.toPair(second, [v[0], v[1]])), 0], [v[0], v[1], 0])).toBe(0);
        expect(e.fromHeight(e.toHeight(v[1])) - v[1]).toBe(0);
        // A pair and a height are the world's own numbers on their axes' letters.
        const letter = (axis: 'right' | 'up' | 'forward') => 'xyz'.indexOf(c.world[axis][1]!);
        const up = e.toWorld([v[0], v[1], 0]);
        expect(e.toPair('up', [v[0], v[1]])).toEqual([up[letter('right')], up[letter('up')]]);
        expect(e.toHeight(v[1])).toBe(up[letter('up')]);
        const ahead = e.toWorld([v[0], 0, -v[1]]);
        expect(e.toPair('forward', [v[0], v[1]])).toEqual([ahead[letter('right')], ahead[letter('forward')]]);
      }),
    );
  });

  it('for rotations: turning and re-expressing may change places', () => {
    fc.assert(
      fc.property(conventions, rotations, vectors(10), (c, q, v) => {
        const e = codecOf(c);
        expect(distance(e.toWorld(turn(q, v)), turn(e.toRotation(q), e.toWorld(v)))).toBeLessThan(1e-12);
        expect(distance(turn(e.fromRotation(e.toRotation(q)), v), turn(q, v))).toBeLessThan(1e-12);
      }),
    );
  });

  it('for angles between two conventions, exactly where the unit is the same', () => {
    fc.assert(
      fc.property(conventions, conventions, real, real, real, (a, b, yaw, pitch, roll) => {
        const [from, to] = [codecOf(a), codecOf(b)];
        const there = reexpressAngles({ yaw, pitch, roll }, from, to);
        const back = reexpressAngles(there, to, from);
        expect(back.yaw).toBeCloseTo(yaw, 12);
        expect(from.fromAngles({ yaw, pitch, roll }).pitch).toBeCloseTo(to.fromAngles(there).pitch, 12);
        if (a.angles.unit === b.angles.unit) expect(reexpressAngle(yaw, from, to)).toBe(yaw);
      }),
    );
  });
});
