import { answerPoint, answerPoints } from '../request/pointAnswers';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body } from '../bodies/body';
import { codecOf } from '../conventions/codec';
import { normalizeQuat } from '../math/quat';
import { randomFrom } from '../math/random';
import type { Vec3 } from '../math/vec3';
import { conventions, frames } from '../testing/arbitraries';
import { visibility } from '../visibility/visibility';
import { classifyMany, manyFrom, projectedBy, projectMany } from './many';
import { pointKernel, projectPoints } from './points';
import { classifySpheres, planeKernel } from './spheres';
import { runs } from '../testing/seed';

/** So many numbers round about a frame's eye, as far as it sees. */
const scattered = (frame: { near: number; eye: Vec3 }, count: number, seed: number): Vec3[] => {
  const random = randomFrom(seed);
  const reach = Math.max(frame.near * 20, 1);
  return Array.from({ length: count }, () => frame.eye.map((v) => v + (random() - 0.5) * reach) as unknown as Vec3);
};
const counts = fc.constantFrom(manyFrom - 1, manyFrom, manyFrom + 1, 3 * manyFrom + 7);

describe('the kernels as they are asked', () => {
  it('give the same to the last bit in either form, on either side of where the compiled one begins', () => {
    fc.assert(
      fc.property(frames, counts, fc.integer({ min: 1, max: 1e6 }), (frame, count, seed) => {
        const flat = Float64Array.from(scattered(frame, count, seed).flat());
        const [screen, outside] = [new Float64Array(3 * count), new Uint8Array(count)];
        projectPoints(pointKernel(frame), flat, screen, outside);
        const made = projectedBy(frame, flat);
        expect(made.screen).toEqual(screen);
        expect(made.outside).toEqual(outside);
        const spheres = Float64Array.from({ length: 4 * count }, (_, i) =>
          i % 4 === 3 ? Math.abs(flat[(3 * i) % flat.length]!) / 50 : flat[3 * Math.floor(i / 4) + (i % 4)]!,
        );
        const [plain, many] = [new Uint8Array(count), new Uint8Array(count)];
        classifySpheres(planeKernel(frame), spheres, plain);
        classifyMany(planeKernel(frame), spheres, many);
        expect(many).toEqual(plain);
      }),
      { numRuns: runs(60) },
    );
  });

  it('keep nothing of what was asked before', () => {
    const frame = fc.sample(frames, { numRuns: 1, seed: 4 })[0]!;
    const kernel = pointKernel(frame);
    const [big, small] = [scattered(frame, 9000, 1), scattered(frame, manyFrom, 2)].map((p) => Float64Array.from(p.flat())); // prettier-ignore
    for (const flat of [big!, small!, big!]) {
      const n = flat.length / 3;
      const [a, b] = [new Float64Array(3 * n), new Float64Array(3 * n)];
      projectMany(kernel, flat, a, new Uint8Array(n));
      projectPoints(kernel, flat, b, new Uint8Array(n));
      expect(a).toEqual(b);
    }
  });

  it('answer worldToScreen with many points as with one, in any conventions', () => {
    fc.assert(
      fc.property(frames, conventions, fc.integer({ min: 1, max: 1e6 }), (frame, c, seed) => {
        const resolved = { frame, codec: codecOf(c) };
        const worlds = scattered(frame, manyFrom, seed);
        const many = answerPoints(resolved, worlds);
        worlds.forEach((world, i) => {
          const one = answerPoint(resolved, world);
          const two = many[i]!;
          expect(Object.keys(two).sort()).toEqual(Object.keys(one).sort());
          expect([two.outside, two.onScreen, two.inFront]).toEqual([one.outside, one.onScreen, one.inFront]);
          const numbers = (v: unknown): number[] =>
            typeof v === 'number' ? [v] : Array.isArray(v) ? v.flatMap(numbers) : [];
          for (const key of ['view', 'clip', 'ndc', 'screen', 'depth', 'ahead', 'pixelsPerUnit'] as const) {
            const [a, b] = [numbers(one[key]), numbers(two[key])];
            expect(b).toHaveLength(a.length);
            const scale = Math.max(1, ...a.map(Math.abs));
            a.forEach((v, k) => expect(Math.abs(v - b[k]!)).toBeLessThan(1e-9 * scale));
          }
        });
      }),
      { numRuns: runs(40) },
    );
  });

  it('leave the verdicts on many bodies what they are one by one', () => {
    fc.assert(
      fc.property(
        frames,
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom('exact' as const, 'planes' as const),
        (frame, seed, method) => {
          const random = randomFrom(seed);
          const at = scattered(frame, manyFrom + 20, seed);
          const reach = Math.max(frame.near * 20, 1);
          const bodies = at.map((position, i): Body => {
            const size = reach * (0.002 + 0.2 * random() ** 4);
            const shape: Body['shape'] =
              i % 3 === 0
                ? { kind: 'sphere', radius: size }
                : i % 3 === 1
                  ? { kind: 'box', size: [size, size * random() + 1e-6, size] }
                  : { kind: 'point' };
            const rotation = normalizeQuat([random() - 0.5, random() - 0.5, random() - 0.5, random() + 0.1])!;
            return { id: String(i), shape, position, rotation, scale: [1, 1, 1], parent: null, castsShadow: true };
          });
          const made = placeBodies(bodies);
          if (!made.ok) throw new Error(made.problems[0]!.message);
          const many = visibility(frame, made.placed, { method });
          const few = made.placed.flatMap((one) => visibility(frame, [one], { method }));
          expect(many).toEqual(few);
        },
      ),
      { numRuns: runs(40) },
    );
  });
});
