import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compileKernels, kernelModule } from '../../scripts/lib/kernels.mjs';
import { placeBodies, type Body } from '../bodies/body';
import { pictureToPixel, projectPoint } from '../convert/project';
import { randomFrom } from '../math/random';
import type { Vec3 } from '../math/vec3';
import { castRay } from '../pick/pick';
import { conventions, frames } from '../testing/arbitraries';
import { codecOf } from '../conventions/codec';
import { visibility } from '../visibility/visibility';
import { movingSpheres, pointBatch, sphereBatch, triangleBatch } from './batch';
import { outsideBit, pointKernel, projectPoints } from './points';
import { projectSpaces, spacesStride } from './spaces';
import { classifySpheres, planeKernel, sphereVerdict } from './spheres';
import { refitSpheres, spheresInView, sphereTree } from './sphereTree';
import { firstTriangle, triangleTree } from './triangleTree';
import { runs } from '../testing/seed';

const body = (shape: Body['shape'], id: string, position: Vec3 = [0, 0, 0]): Body => ({
  ...{ id, shape, position, rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
  ...{ parent: null, castsShadow: true },
});
const place = (bodies: Body[]) => {
  const made = placeBodies(bodies);
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.placed;
};
const someSpheres = (count: number, seed: number, spread = 300) => {
  const random = randomFrom(seed);
  return Float64Array.from({ length: count * 4 }, (_, i) =>
    i % 4 === 3 ? 0.1 + 9 * random() ** 3 : (random() - 0.5) * spread,
  );
};
const sorted = (list: Uint32Array, count: number) => list.slice(0, count).sort();
const withVerdict = (verdicts: Uint8Array, wanted: number) =>
  Uint32Array.from([...verdicts.keys()].filter((i) => verdicts[i] === wanted));
const counts = fc.oneof(fc.integer({ min: 0, max: 40 }), fc.constantFrom(64, 65, 257, 1000));

describe('many points in every space', () => {
  it('are what each is by itself, in any conventions', () => {
    fc.assert(
      fc.property(frames, conventions, counts, fc.integer(), (frame, c, count, seed) => {
        const e = codecOf(c);
        const random = randomFrom(seed);
        const points = Float64Array.from({ length: count * 3 }, () => (random() - 0.5) * 300);
        const [spaces, outside] = [new Float64Array(count * spacesStride), new Uint8Array(count)];
        projectSpaces(frame, e, points, spaces, outside);
        for (let i = 0; i < count; i++) {
          const world: Vec3 = [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!];
          const one = projectPoint(frame, world);
          const { across, upward, depth01 } = one.picture.ok
            ? one.picture.value
            : { across: NaN, upward: NaN, depth01: { near: NaN, far: NaN } };
          const expected = [
            ...[...e.toView(one.viewRuf), ...e.toClip(one.clip), ...e.toNdc({ across, upward, depth01 })],
            ...[...e.toScreen(frame.viewport, across, upward), e.toDepth(depth01), one.viewRuf[2]],
          ];
          const got = [...spaces.subarray(i * spacesStride, (i + 1) * spacesStride)];
          // Near the eye's plane the division makes any rounding large.
          const w = one.clip.w;
          expected.forEach((v, k) => {
            if (Number.isNaN(v)) expect(got[k]).toBeNaN();
            else expect(Math.abs(got[k]! - v)).toBeLessThan(1e-8 * (1 + Math.abs(v)) * (1 + 1 / Math.abs(w)) * 10);
          });
          expect((outside[i]! & 63) !== 0).toBe(one.outside.length > 0);
        }
      }),
      { numRuns: runs(40) },
    );
  }, 30_000);
});

describe('the machine form', () => {
  it('is what its source compiles to', async () => {
    expect(readFileSync(kernelModule, 'utf8')).toBe(await compileKernels());
  }, 60_000);

  it('equals the plain form to the last bit: points', () => {
    fc.assert(
      fc.property(frames, counts, fc.integer(), (frame, count, seed) => {
        const random = randomFrom(seed);
        const batch = pointBatch(count);
        batch.points.set(Float64Array.from({ length: count * 3 }, () => (random() - 0.5) * 800));
        const kernel = pointKernel(frame);
        const [screen, outside] = [new Float64Array(count * 3), new Uint8Array(count)];
        projectPoints(kernel, batch.points, screen, outside);
        batch.project(kernel);
        expect(batch.screen).toEqual(screen);
        expect(batch.outside).toEqual(outside);
      }),
    );
  });

  it('equals the plain form to the last bit: spheres, and the tree over them, also after they moved', () => {
    fc.assert(
      fc.property(frames, counts, fc.integer(), (frame, count, seed) => {
        const given = someSpheres(count, seed);
        const batch = sphereBatch(count);
        batch.spheres.set(given);
        const verdicts = new Uint8Array(count);
        classifySpheres(planeKernel(frame), given, verdicts);
        batch.classify(planeKernel(frame));
        expect(batch.verdicts).toEqual(verdicts);

        const moving = movingSpheres(given);
        const plain = sphereTree(given);
        expect(moving.tree.order).toEqual(plain.order);
        expect(moving.tree.bounds).toEqual(plain.bounds);
        const elsewhere = someSpheres(count, seed + 1);
        refitSpheres(plain, elsewhere);
        moving.moved.set(elsewhere);
        moving.refit();
        expect(moving.tree.bounds).toEqual(plain.bounds);
        expect(moving.tree.spheres).toEqual(plain.spheres);
      }),
      { numRuns: runs(60) },
    );
  }, 60_000);
});

describe('many points at once', () => {
  it('land where each alone does, with the planes that it violates', () => {
    fc.assert(
      fc.property(frames, fc.integer(), (frame, seed) => {
        const random = randomFrom(seed);
        const points = Float64Array.from({ length: 60 }, () => (random() - 0.5) * 800);
        const [screen, outside] = [new Float64Array(60), new Uint8Array(20)];
        projectPoints(pointKernel(frame), points, screen, outside);
        for (let i = 0; i < 20; i++) {
          const p = points.slice(i * 3, i * 3 + 3) as unknown as Vec3;
          const one = projectPoint(frame, [p[0], p[1], p[2]]);
          expect((outside[i]! & outsideBit.noPicture) !== 0).toBe(!one.picture.ok);
          if (!one.picture.ok) continue;
          const { across, upward, depth01 } = one.picture.value;
          const pixel = pictureToPixel(frame, across, upward);
          const [width, height] = [frame.viewport.width, frame.viewport.height];
          const slack = 1e-12 * (1 + Math.abs(across) + Math.abs(upward)) * (width + height + 400);
          expect(Math.abs(screen[3 * i]! - pixel[0])).toBeLessThan(slack);
          expect(Math.abs(screen[3 * i + 1]! - pixel[1])).toBeLessThan(slack);
          expect(Math.abs(screen[3 * i + 2]! - depth01.far)).toBeLessThan(1e-12 * (1 + Math.abs(depth01.far)));
          const bits = one.outside.reduce((sum, name) => sum | outsideBit[name], 0);
          // On a plane, rounding may tell either way.
          const nearest = Math.min(Math.abs(Math.abs(across) - 1), Math.abs(Math.abs(upward) - 1), depth01.near);
          if (nearest > 1e-9) expect(outside[i]! & 63).toBe(bits);
        }
      }),
    );
  });
});

describe('spheres against planes', () => {
  it('are told as `visibility` tells them by planes', () => {
    fc.assert(
      fc.property(frames, fc.integer(), (frame, seed) => {
        const given = someSpheres(30, seed);
        const verdicts = new Uint8Array(30);
        classifySpheres(planeKernel(frame), given, verdicts);
        const placed = place(
          Array.from({ length: 30 }, (_, i) =>
            body({ kind: 'sphere', radius: given[4 * i + 3]! }, `${i}`, [
              given[4 * i]!,
              given[4 * i + 1]!,
              given[4 * i + 2]!,
            ]),
          ),
        );
        visibility(frame, placed, { method: 'planes' }).forEach(({ verdict }, i) =>
          expect(verdicts[i]).toBe(sphereVerdict[verdict]),
        );
      }),
    );
  });

  it('are found through the tree alike, before and after they moved', () => {
    let found = 0;
    fc.assert(
      fc.property(frames, counts, fc.integer(), (frame, count, seed) => {
        const given = someSpheres(count, seed);
        const planes = planeKernel(frame);
        const tree = sphereTree(given);
        const [verdicts, inside, crosses] = [new Uint8Array(count), new Uint32Array(count), new Uint32Array(count)];
        for (const now of [given, someSpheres(count, seed + 1)]) {
          refitSpheres(tree, now);
          classifySpheres(planes, now, verdicts);
          const seen = spheresInView(tree, planes, inside, crosses);
          expect(sorted(inside, seen.inside)).toEqual(withVerdict(verdicts, sphereVerdict.inside));
          expect(sorted(crosses, seen.crosses)).toEqual(withVerdict(verdicts, sphereVerdict.crosses));
          found += seen.inside + seen.crosses;
        }
      }),
      { numRuns: runs(300) },
    );
    expect(found).toBeGreaterThan(200);
  });

  it('far from the origin too, where boxes are hardest to tell', () => {
    const far = someSpheres(2000, 5, 40).map((v, i) => (i % 4 === 3 ? v / 100 : v + 1e6));
    const tree = sphereTree(far);
    const [inside, crosses, verdicts] = [new Uint32Array(2000), new Uint32Array(2000), new Uint8Array(2000)];
    const planes = Float64Array.of(Math.SQRT1_2, -Math.SQRT1_2, 0, 0, 0, 0, 1, -1e6);
    classifySpheres(planes, far, verdicts);
    const seen = spheresInView(tree, planes, inside, crosses);
    expect(sorted(inside, seen.inside)).toEqual(withVerdict(verdicts, sphereVerdict.inside));
    expect(sorted(crosses, seen.crosses)).toEqual(withVerdict(verdicts, sphereVerdict.crosses));
    expect(seen.inside).toBeGreaterThan(200);
  });
});

describe('the first triangle of a ray', () => {
  /** Triangles about the origin, some of them axis-parallel and some twice. */
  const soup = (count: number, seed: number) => {
    const random = randomFrom(seed);
    const at = () => Math.round((random() - 0.5) * 20) / 2;
    const positions = Array.from({ length: count * 9 }, at);
    const indices = Array.from({ length: count * 3 }, (_, i) => i);
    if (count > 4) indices.splice(3, 3, 0, 1, 2);
    return { positions, indices };
  };
  const coordinate = fc.oneof(fc.integer({ min: -12, max: 12 }), fc.double({ min: -12, max: 12, noNaN: true }));
  // A ray that all but runs in a triangle's plane meets it or not by its last digits.
  const fine = fc.double({ min: -1, max: 1, noNaN: true }).map((v) => (Math.abs(v) < 1e-6 ? 0 : v));
  const along = fc.oneof(fc.constantFrom(0, 1, -1), fine);

  it('is the one that looking at all of them finds, and the machine finds the same', () => {
    let hits = 0;
    fc.assert(
      fc.property(
        counts,
        fc.integer(),
        fc.tuple(coordinate, coordinate, coordinate),
        // Whole numbers where it matters: a ray that runs in a triangle's plane is then told to be
        // parallel without rounding.
        fc.tuple(along, along, along).filter((d) => Math.hypot(...d) > 1e-3),
        fc.boolean(),
        (count, seed, origin, direction, backFaces) => {
          const { positions, indices } = soup(count, seed);
          const tree = triangleTree(positions, indices);
          const placed = place([body({ kind: 'mesh', positions, indices }, 'soup')]);
          // All crossings are looked at one by one; the first alone goes through the tree.
          const [expected] = castRay({ origin, direction }, placed, { backFaces, all: true });
          const [picked] = castRay({ origin, direction }, placed, { backFaces });
          const [plain, machine] = [
            { triangle: 0, t: 0 },
            { triangle: 0, t: 0 },
          ];
          const facing = backFaces ? 0 : 1;
          const met = firstTriangle(tree, ...origin, ...direction, 0, 1e300, facing, plain);
          expect(met).toBe(expected !== undefined);
          expect(picked).toEqual(expected);
          expect(triangleBatch(positions, indices).first(...origin, ...direction, 0, 1e300, facing, machine)).toBe(met);
          expect(machine).toEqual(plain);
          if (!expected) return;
          hits++;
          expect(plain.t).toBe(expected.distance);
          expect(plain.triangle).toBe(expected.triangle);
        },
      ),
      { numRuns: runs(400) },
    );
    expect(hits).toBeGreaterThan(runs(24));
  }, 60_000);

  it('goes by a direction that has no reciprocal as by one of 0', () => {
    let hits = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const { positions, indices } = soup(200, seed);
      const tree = triangleTree(positions, indices);
      const machine = triangleBatch(positions, indices);
      const found = [0, 5e-324, -5e-324, 1e-310].flatMap((d) =>
        [firstTriangle.bind(null, tree), machine.first.bind(machine)].map((ask) => {
          const hit = { triangle: 0, t: 0 };
          ask(-12, 0.2371, 0.3113, 1, d, d, 0, 1e300, 0, hit);
          return hit;
        }),
      );
      if (found[0]!.triangle >= 0) hits++;
      expect(found).toEqual(found.map(() => found[0]));
    }
    expect(hits).toBeGreaterThan(10);
  });
});
