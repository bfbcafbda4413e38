import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body, type Shape } from '../bodies/body';
import { lathe } from '../bodies/mesh';
import { frameOf, type CameraFrame } from '../camera/frame';
import { pictureToPixel } from '../convert/project';
import { quatAbout } from '../math/quat';
import { dot, length, type Vec3 } from '../math/vec3';
import { paint, worldTriangles } from '../order/paint';
import { triangleTree } from '../kernels/triangleTree';
import { awaitTree, castRay, giveTree, pick, type Mesh } from './pick';
import { firstOfScene, lookedAt, sceneTree, type SceneHit } from './sceneTree';
import { emptySweep, sweepDifference, sweepRows, sweepTile } from './sweep';
import { runs } from '../testing/seed';

const [width, height] = [48, 36];
const tower = lathe([[0, 0], [1.5, 0], [1, 3], [0, 3.5]], 14); // prettier-ignore
const number = (min: number, max: number) => fc.integer({ min: min * 16, max: max * 16 }).map((v) => v / 16);
const shape: fc.Arbitrary<Shape> = fc.oneof(
  fc.tuple(number(1, 4), number(1, 4), number(1, 4)).map((size): Shape => ({ kind: 'box', size })),
  fc.tuple(number(1, 4), number(1, 4)).map((size): Shape => ({ kind: 'quad', size })),
  number(1, 2).map((radius): Shape => ({ kind: 'sphere', radius })),
  fc.constant<Shape>({ kind: 'mesh', ...tower }),
  fc.constant<Shape>({ kind: 'point' }),
);
const scenes = fc.array(fc.tuple(shape, number(-9, 9), number(-6, 6), number(-30, 3), number(-3, 3), fc.boolean()), { minLength: 1, maxLength: 14 }).map((list) => {
  const bodies = list.map(([own, x, y, z, turn, mirrored], i): Body => ({
    ...{ id: `b${i}`, shape: own, position: [x, y, z], rotation: quatAbout([0, 1, 0], turn), parent: null },
    ...{ scale: own.kind !== 'sphere' && mirrored ? [-1, 1, 1] : [1, 1, 1], castsShadow: true },
  }));
  const placed = placeBodies(bodies);
  if (!placed.ok) throw new Error(placed.problems[0]!.message);
  return placed.placed;
}); // prettier-ignore
const cameras: fc.Arbitrary<CameraFrame> = fc
  .tuple(number(-1, 1), fc.boolean(), number(0, 1), fc.boolean())
  .map(([yaw, orthographic, shift, endless]) => {
    const made = frameOf(
      {
        position: [0, 0, 0],
        orientation: { kind: 'angles', yaw, pitch: 0.1, roll: 0.2 },
        projection: orthographic
          ? { kind: 'orthographic', near: -2, far: 40, size: { height: 14 }, shift: [shift, 0] }
          : { kind: 'perspective', near: 1, far: endless ? null : 40, lens: { verticalFov: 1 }, shift: [shift, 0] },
      },
      { x: 0, y: 0, width, height },
    );
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return made.value;
  });

describe('a sweep of the picture', () => {
  it('finds at every pixel what a pick finds there: body, distance and normal', () => {
    let [met, odd] = [0, 0];
    fc.assert(
      fc.property(scenes, cameras, fc.boolean(), (placed, frame, backFaces) => {
        const swept = emptySweep(width, height);
        const tree = sceneTree(placed);
        for (let row = 0; row < height; row += sweepTile)
          sweepRows(frame, tree, swept, row, row + sweepTile, backFaces);
        for (let at = 0; at < width * height; at += 11) {
          const [x, y] = [(at % width) + 0.5, Math.floor(at / width) + 0.5];
          const [hit] = pick(frame, (2 * x) / width - 1, 1 - (2 * y) / height, placed, { backFaces });
          const own = swept.body[at]!;
          if ((hit?.body ?? null) !== (own < 0 ? null : placed[own]!.body.id)) {
            // Two surfaces in one place, or an edge that the ray runs along.
            odd++;
            continue;
          }
          if (!hit) continue;
          met++;
          if (Math.abs(swept.distance[at]! / hit.distance - 1) > 1e-6) odd++;
          const n: Vec3 = [swept.normal[3 * at]!, swept.normal[3 * at + 1]!, swept.normal[3 * at + 2]!];
          expect(length(n)).toBeCloseTo(1, 5);
          if (Math.abs(Math.abs(dot(n, hit.normal)) - 1) > 1e-5) odd++;
        }
      }),
      { numRuns: runs(200) },
    );
    expect(met).toBeGreaterThan(runs(480));
    expect(odd / met).toBeLessThan(0.002);
  });

  it('differs from the painted picture at silhouettes alone', () => {
    let differing = 0;
    fc.assert(
      fc.property(scenes, cameras, (placed, frame) => {
        const swept = emptySweep(width, height);
        sweepRows(frame, sceneTree(placed), swept, 0, height, true);
        const triangles = worldTriangles(placed);
        const painted = paint(frame, triangles, { width, height, order: null });
        const bodies = Int32Array.from(painted.triangle, (i) => (i < 0 ? -1 : triangles.body[i]!));
        const { count, offSilhouette, where } = sweepDifference(swept, bodies);
        differing += count;
        expect(where.reduce((sum, v) => sum + Number(v > 0), 0)).toBe(count);
        // Bodies that share a surface show either.
        expect(offSilhouette).toBeLessThanOrEqual(count);
        if (placed.length < 3) expect(offSilhouette).toBeLessThan(3);
      }),
      { numRuns: runs(60) },
    );
    expect(differing).toBeGreaterThan(0);
    // A pixel that is changed in the middle of a body is found.
    const swept = emptySweep(9, 9);
    const painted = new Int32Array(81).fill(-1);
    swept.body.fill(2);
    painted.fill(2);
    painted[40] = 3;
    swept.body[40] = 2;
    expect(sweepDifference(swept, painted)).toMatchObject({ count: 1, offSilhouette: 0 });
    painted.fill(3);
    expect(sweepDifference(swept, painted)).toMatchObject({ count: 81, offSilhouette: 81 });
  });
});

describe('what a ray looks at', () => {
  it('is less for the first hit than for all, and grows with the logarithm of what there is', () => {
    const made = frameOf({ position: [0, 0, 0], orientation: { kind: 'angles', yaw: 0, pitch: 0, roll: 0 }, projection: { kind: 'perspective', near: 0.1, far: null, lens: { verticalFov: 1 } } }, { x: 0, y: 0, width, height }); // prettier-ignore
    if (!made.ok) throw new Error('the camera of the test');
    const frame = made.value;
    const grid = (n: number) => {
      const placed = placeBodies(Array.from({ length: n * n }, (_, i): Body => ({ id: `b${i}`, shape: { kind: 'box', size: [0.8, 0.8, 0.8] }, position: [(i % n) - n / 2, Math.floor(i / n) - n / 2, -40], rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true }))); // prettier-ignore
      if (!placed.ok) throw new Error('bodies');
      return placed.placed;
    };
    const [few, many] = [grid(8), grid(64)].map((placed) => lookedAt(placed, frame, [0.01, 0.01], false, false));
    expect(many!.boxes).toBeLessThan(few!.boxes * 4);
    expect(many!.triangles).toBeLessThan(200);
    const all = lookedAt(grid(64), frame, [0.01, 0.01], false, true);
    expect(all.boxes).toBeGreaterThanOrEqual(many!.boxes);
    expect(lookedAt([], frame, [0, 0], false, false)).toEqual({ boxes: 0, triangles: 0 });
    expect(pictureToPixel(frame, 0, 0)).toEqual([width / 2, height / 2]);
    const hit: SceneHit = { item: 0, t: 0, boxes: 9, surfaces: 9 };
    expect(firstOfScene(sceneTree([]), 0, 0, 0, 0, 0, -1, 0, Infinity, true, hit)).toBe(false);
    expect(hit).toEqual({ item: -1, t: Infinity, boxes: 0, surfaces: 0 });
  });
});

describe('a large mesh', () => {
  it('is picked the same while its tree is awaited, and once it is given', () => {
    const n = 40;
    const positions: number[] = [];
    const indices: number[] = [];
    for (let j = 0; j <= n; j++) for (let i = 0; i <= n; i++) positions.push(i - n / 2, Math.sin(i / 4) * Math.cos(j / 5), j - n / 2); // prettier-ignore
    for (let j = 0; j < n; j++)
      for (let i = 0; i < n; i++) {
        const a = j * (n + 1) + i;
        indices.push(a, a + n + 1, a + 1, a + 1, a + n + 1, a + n + 2);
      }
    const meshes = [0, 1].map((): Mesh => ({ kind: 'mesh', positions, indices }));
    const placed = meshes.map((own) => {
      const made = placeBodies([{ id: 'a', shape: own, position: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true }]); // prettier-ignore
      if (!made.ok) throw new Error('mesh');
      return made.placed;
    });
    awaitTree(meshes[1]!);
    const ask = () =>
      placed.map((one) => [0.3, 4.7, -9.1, 40].map((x) => castRay({ origin: [x, 9, 0.7], direction: [0.1, -1, 0.05] }, one))); // prettier-ignore
    const [own, waiting] = ask();
    expect(own!.filter((hits) => hits.length)).toHaveLength(3);
    expect(waiting).toEqual(own);
    const shares: number[] = [];
    giveTree(
      meshes[1]!,
      triangleTree(positions, indices, undefined, (share) => shares.push(share)),
    );
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(ask()[1]).toEqual(own);
  });
});
