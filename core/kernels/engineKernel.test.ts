import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CameraFrame } from '../camera/frame';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import { projectPoint, rayThrough } from '../convert/project';
import { randomFrom } from '../math/random';
import type { Vec3 } from '../math/vec3';
import { conventions, frames } from '../testing/arbitraries';
import { runs } from '../testing/seed';
import { enginePlaneKernel, enginePointKernel, pixelRays, unprojectPoints } from './engineKernel';
import { projectPoints } from './points';
import { planeKernel } from './spheres';

const count = 20;
/** Runs a check on random frames in random conventions, with random world points around the eye. */
const forFrames = (check: (frame: CameraFrame, e: ConventionCodec, points: Float64Array) => void) =>
  fc.assert(
    fc.property(frames, conventions, fc.integer(), (frame, own, seed) => {
      const random = randomFrom(seed);
      const points = Float64Array.from({ length: 3 * count }, () => (random() - 0.5) * 300);
      check(frame, codecOf(own), points);
    }),
    { numRuns: runs(200) },
  );
const tripleAt = (list: Float64Array, i: number): Vec3 => [list[i]!, list[i + 1]!, list[i + 2]!];
/** Expects numbers to agree within a share of the larger of their size and a scale. */
function expectNear(got: readonly number[], expected: readonly number[], scale: number) {
  got.forEach((v, i) => {
    const size = Math.max(scale, Math.abs(expected[i]!));
    expect(Math.abs(v - expected[i]!) / size, `${got} is not ${expected}`).toBeLessThan(1e-9);
  });
}

describe('kernels in the conventions of an engine', () => {
  it('project as the codec writes each point', () => {
    forFrames((frame, e, points) => {
      const [screen, outside] = [new Float64Array(3 * count), new Uint8Array(count)];
      projectPoints(enginePointKernel(frame, e), points, screen, outside);
      for (let i = 0; i < count; i++) {
        const one = projectPoint(frame, e.fromWorld(tripleAt(points, 3 * i)));
        if (!one.picture.ok) continue;
        const { across, upward, depth01 } = one.picture.value;
        const size = Math.max(frame.viewport.width, frame.viewport.height);
        expectNear([screen[3 * i]!, screen[3 * i + 1]!], e.toScreen(frame.viewport, across, upward), size * (1 + Math.abs(across) + Math.abs(upward))); // prettier-ignore
        expectNear([screen[3 * i + 2]!], [e.toDepth(depth01)], 1);
      }
    });
  });

  it('convert pixels with depths back to the points', () => {
    forFrames((frame, e) => {
      const kernel = enginePointKernel(frame, e);
      const { near, far } = frame;
      const random = randomFrom(7);
      const ahead = Array.from({ length: count }, () => near + ((far ?? near * 30) - near) * 0.9 * random());
      const screen = Float64Array.from(
        ahead.flatMap((distance) => {
          const depth = frame.kind === 'perspective' ? kernel.numbers[22]! + kernel.numbers[23]! / distance : kernel.numbers[22]! + kernel.numbers[23]! * distance; // prettier-ignore
          return [...e.toScreen(frame.viewport, random() * 2 - 1, random() * 2 - 1), depth];
        }),
      );
      const [points, back, outside] = [new Float64Array(3 * count), new Float64Array(3 * count), new Uint8Array(count)];
      unprojectPoints(kernel, screen, points);
      projectPoints(kernel, points, back, outside);
      const size = Math.max(frame.viewport.width, frame.viewport.height);
      for (let i = 0; i < count; i++) {
        // Distances from the depth lose digits as far / near grows.
        const lost = (far ?? near * 30) / near;
        expect(Math.abs(back[3 * i]! - screen[3 * i]!) / size).toBeLessThan(1e-12 * lost * (1 + size) + 1e-7);
        expect(Math.abs(back[3 * i + 2]! - screen[3 * i + 2]!)).toBeLessThan(1e-9);
      }
    });
  });

  it('have no point for depths at infinity', () => {
    forFrames((frame, e) => {
      if (frame.kind !== 'perspective' || frame.far !== null) return;
      const points = new Float64Array(3);
      unprojectPoints(enginePointKernel(frame, e), Float64Array.of(1, 1, e.toDepth({ near: 0, far: 1 })), points);
      expect([...points]).toEqual([NaN, NaN, NaN]);
    });
  });

  it('cast the rays of pixels', () => {
    forFrames((frame, e) => {
      const random = randomFrom(3);
      const pictures = Array.from({ length: count }, () => [random() * 2 - 1, random() * 2 - 1] as const);
      const pixels = Float64Array.from(pictures.flatMap(([x, y]) => e.toScreen(frame.viewport, x, y)));
      const rays = new Float64Array(6 * count);
      pixelRays(enginePointKernel(frame, e), pixels, rays);
      pictures.forEach(([x, y], i) => {
        const { origin, direction } = rayThrough(frame, x, y);
        expectNear([...tripleAt(rays, 6 * i)], [...e.toWorld(origin)], Math.hypot(...origin, 1));
        expectNear([...tripleAt(rays, 6 * i + 3)], [...e.toWorld(direction)], 1);
      });
    });
  });

  it('have the planes in world axes', () => {
    forFrames((frame, e, points) => {
      const [own, canonical] = [enginePlaneKernel(frame, e), planeKernel(frame)];
      for (let p = 0; p < own.length; p += 4)
        for (let i = 0; i < count; i++) {
          const written = tripleAt(points, 3 * i);
          const world = e.fromWorld(written);
          const sum = (planes: Float64Array, [x, y, z]: Vec3) => planes[p]! * x + planes[p + 1]! * y + planes[p + 2]! * z + planes[p + 3]!; // prettier-ignore
          expectNear([sum(own, written)], [sum(canonical, world)], 1e3);
        }
    });
  });
});
