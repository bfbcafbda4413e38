import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldOfView } from '../camera/projection';
import { codecOf } from '../conventions/codec';
import { mat4, multiply } from '../math/mat4';
import { distance } from '../math/vec3';
import { frameOf, frameFov } from '../camera/frame';
import { conventions } from '../testing/arbitraries';
import { readLens, readView, readViewProjection } from './decompose';
import { frameOfReading } from './readFrame';
import { runs } from '../testing/seed';

const real = (min: number, max: number) => fc.integer({ min: 0, max: 4096 }).map((v) => min + ((max - min) * v) / 4096);
const kinds = fc.constantFrom('perspective' as const, 'infinite' as const, 'orthographic' as const);
const place = fc.tuple(real(-30, 30), real(-30, 30), real(-30, 30));
const frames = fc
  .record({
    kind: kinds,
    position: place,
    yaw: real(-3, 3),
    pitch: real(-1.4, 1.4),
    roll: real(-1, 1),
    fov: real(0.3, 2),
    shift: fc.tuple(real(-0.5, 0.5), real(-0.5, 0.5)),
  }) // prettier-ignore
  .map(({ kind, position, yaw, pitch, roll, fov, shift }) => {
    const made = frameOf(
      {
        ...{ position, orientation: { kind: 'angles', yaw, pitch, roll } },
        projection:
          kind === 'orthographic'
            ? { kind, near: 1, far: 60, size: { height: 10 * fov }, shift }
            : {
                kind: 'perspective',
                near: 0.5,
                far: kind === 'infinite' ? null : 80,
                lens: { verticalFov: fov },
                shift,
              },
      },
      { x: 0, y: 0, width: 1280, height: 720 },
    );
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return made.value;
  });

describe('a camera read off its numbers', () => {
  it('is the one that they are of, in any conventions: from view, projection, and both in one', () => {
    let [parallel, infinite] = [0, 0];
    fc.assert(
      fc.property(frames, conventions, (frame, c) => {
        const e = codecOf(c);
        const pose = readView(e.matrix(frame, 'view'), e)!;
        const lens = readLens(e.matrix(frame, 'projection'), e)!;
        const whole = readViewProjection(e.matrix(frame, 'viewProjection'), e)!;
        const { extents: x, near, far } = frame;
        for (const one of [pose, whole.pose]) {
          expect(distance(one.forward, frame.forward)).toBeLessThan(1e-6);
          expect(distance(one.right, frame.right)).toBeLessThan(1e-6);
          expect(one.mirrored).toBe(false);
          expect(one.shear).toBeLessThan(1e-6);
        }
        expect(distance(pose.eye, frame.eye)).toBeLessThan(1e-6);
        expect([lens.kind, whole.lens.kind]).toEqual([frame.kind, frame.kind]);
        expect(lens.near).toBeCloseTo(near, 5);
        if (frame.kind === 'orthographic') {
          parallel++;
          expect(2 * lens.half[1]).toBeCloseTo(x.top - x.bottom, 6);
          expect(lens.far).toBeCloseTo(far!, 5);
          return;
        }
        expect(distance(whole.pose.eye, frame.eye)).toBeLessThan(1e-5);
        for (const one of [lens, whole.lens]) {
          expect(fieldOfView(2 * one.half[1], 1)).toBeCloseTo(frameFov(frame)!, 6);
          expect(one.shift[0]).toBeCloseTo((x.right + x.left) / (x.right - x.left), 6);
          if (far === null) {
            infinite++;
            expect(one.far).toBeNull();
          } else expect(one.far! / far).toBeCloseTo(1, 4);
        }
      }),
      { numRuns: runs(150) },
    );
    expect(parallel).toBeGreaterThan(10);
    expect(infinite).toBeGreaterThan(10);
  });

  it('is none in numbers that flatten or shear, and a mirrored one says so', () => {
    const e = codecOf(fc.sample(conventions, { seed: 1, numRuns: 1 })[0]!);
    const flat = mat4([1, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);
    expect(readView(flat, e)).toBeNull();
    expect(readLens(mat4([1, 2, 0, 0, 3, 1, 0, 0, 0, 0, 1, 0, 0, 0, 1, 0]), e)).toBeNull();
    expect(readViewProjection(mat4(Array<number>(16).fill(0)), e)).toBeNull();
    const frame = fc.sample(frames, { seed: 2, numRuns: 1 })[0]!;
    const mirrored = e.toViewMatrix(mat4([...frame.right.map((v) => -v), 0, ...frame.up, 0, ...frame.forward, 0, 0, 0, 0, 1])); // prettier-ignore
    expect(readView(mirrored, e)!.mirrored).toBe(true);
  });
});

it('a camera that was read is looked through as its numbers have it, mirrored where they mirror', () => {
  fc.assert(
    fc.property(frames, conventions, fc.boolean(), fc.boolean(), (frame, c, flipX, flipY) => {
      const e = codecOf(c);
      const rows = [...e.matrix(frame, 'projection')];
      if (flipX) for (let i = 0; i < 4; i++) rows[i] = -rows[i]!;
      if (flipY) for (let i = 4; i < 8; i++) rows[i] = -rows[i]!;
      const pose = readView(e.matrix(frame, 'view'), e)!;
      const lens = readLens(mat4(rows), e);
      if (!lens) return;
      const back = frameOfReading(pose, lens, frame.viewport)!;
      const made = e.matrix(back, 'viewProjection');
      const wanted = multiply(mat4(rows), e.matrix(frame, 'view'));
      const size = Math.max(...wanted.map(Math.abs));
      made.forEach((v, i) => expect(Math.abs(v - wanted[i]!)).toBeLessThan(1e-6 * size));
    }),
  );
});
