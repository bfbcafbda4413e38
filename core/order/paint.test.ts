import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body, type Shape } from '../bodies/body';
import { frameOf, reposed, type CameraFrame } from '../camera/frame';
import { rayThrough, worldToViewRuf } from '../convert/project';
import { radians } from '../math/angle';
import { multiplyQuat, quatAbout } from '../math/quat';
import { cross, distance, dot, sub, type Vec3 } from '../math/vec3';
import { castRay } from '../pick/pick';
import { horizonPitches, horizonPoints } from './horizon';
import { countFacings, leftOutFaces, paint, paintFaults, paintOrder, worldTriangles } from './paint';
import { windingOf } from './winding';
import { lightFrom, lightPlace, shadowOf, shadowTriangles, type Light } from './shadow';
import { runs } from '../testing/seed';

const size = { width: 64, height: 48 };
function cameraAt(position: Vec3, yaw: number, pitch: number, roll = 0): CameraFrame {
  const made = frameOf(
    {
      position,
      orientation: { kind: 'angles', yaw, pitch, roll },
      projection: { kind: 'perspective', near: 0.5, far: 60, lens: { verticalFov: 1 } },
    },
    { x: 0, y: 0, ...size },
  );
  if (!made.ok) throw new Error('the camera of the test');
  return made.value;
}
const place = (list: readonly (Pick<Body, 'shape' | 'position'> & Partial<Body>)[]) => {
  const placed = placeBodies(list.map((one, i): Body => ({ id: `b${i}`, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true, ...one }))); // prettier-ignore
  if (!placed.ok) throw new Error(placed.problems[0]!.message);
  return placed.placed;
};

const number = (min: number, max: number) => fc.integer({ min: min * 16, max: max * 16 }).map((v) => v / 16);
const shape: fc.Arbitrary<Shape> = fc.oneof(
  fc.tuple(number(1, 4), number(1, 4), number(1, 4)).map((of): Shape => ({ kind: 'box', size: of })),
  fc.tuple(number(1, 4), number(1, 4)).map((of): Shape => ({ kind: 'quad', size: of })),
);
const scenes = fc
  .array(fc.tuple(shape, number(-6, 6), number(-4, 4), number(-30, -3), number(-3, 3), fc.boolean()), {
    minLength: 1,
    maxLength: 8,
  })
  .map((list) =>
    place(
      list.map(([own, x, y, z, turn, mirrored]) => ({
        ...{ shape: own, position: [x, y, z] as Vec3, rotation: quatAbout([0, 1, 0], turn) },
        scale: [mirrored ? -1 : 1, 1, 1] as Vec3,
      })),
    ),
  );
const frame = cameraAt([0, 0, 0], 0, 0);

/** The pixels of a picture whose answer does not hang on less than rounding. */
const rayOf = (i: number) =>
  rayThrough(frame, (2 * ((i % size.width) + 0.5)) / size.width - 1, 1 - (2 * (Math.floor(i / size.width) + 0.5)) / size.height); // prettier-ignore

describe('painting by the distances', () => {
  it('shows at every pixel the body that its ray meets first', () => {
    let compared = 0;
    fc.assert(
      fc.property(scenes, (placed) => {
        const triangles = worldTriangles(placed);
        const { triangle, ahead } = paint(frame, triangles, { ...size, order: null });
        let odd = 0;
        for (let i = 0; i < triangle.length; i += 7) {
          const ray = rayOf(i);
          const [hit] = castRay(ray, placed, { backFaces: true, from: frame.near * ray.rangePerAhead, to: 60 * ray.rangePerAhead }); // prettier-ignore
          const shown = triangle[i]! < 0 ? undefined : placed[triangles.body[triangle[i]!]!]!.body.id;
          compared++;
          if (hit?.body !== shown) odd++;
          else if (hit) expect(Math.abs(worldToViewRuf(frame, hit.point)[2] / ahead[i]! - 1)).toBeLessThan(1e-6);
        }
        // Rays through an edge, and surfaces in one place, may go either way.
        expect(odd).toBeLessThan(12);
      }),
      { numRuns: runs(60) },
    );
    expect(compared).toBeGreaterThan(runs(12000));
  });

  it('leaves out the faces that are asked for, by how they run in the world', () => {
    fc.assert(
      fc.property(scenes, fc.constantFrom(leftOutFaces.front, leftOutFaces.back), (placed, which) => {
        const triangles = worldTriangles(placed);
        const leftOut = new Uint8Array(placed.length).fill(which);
        const { triangle } = paint(frame, triangles, { ...size, order: null, leftOut });
        for (const i of new Set(triangle)) {
          if (i < 0) continue;
          const [a, b, c] = [0, 3, 6].map((k) => [...triangles.corners.subarray(9 * i + k, 9 * i + k + 3)]) as unknown as [Vec3, Vec3, Vec3]; // prettier-ignore
          const front = dot(cross(sub(b, a), sub(c, a)), sub(frame.eye, a)) > 0;
          expect(front).toBe(which === leftOutFaces.back);
        }
      }),
      { numRuns: runs(40) },
    );
  });
});

describe('painting in an order', () => {
  it('is right where nothing lies in front of anything, and in the order of the distances for what is parallel', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(number(-5, 5), number(-4, 4)), { minLength: 2, maxLength: 9 }), (places) => {
        // Sheets square to the gaze, each at a distance of its own.
        const placed = place(places.map(([x, y], i) => ({ shape: { kind: 'quad', size: [4, 3] }, position: [x, y, -4 - ((i * 5) % 7) - i / 16] }))); // prettier-ignore
        const triangles = worldTriangles(placed);
        const right = paint(frame, triangles, { ...size, order: null });
        for (const unit of ['bodies', 'faces'] as const) {
          const order = paintOrder(frame, placed, triangles, 'ahead', unit);
          expect([...order].sort((a, b) => a - b)).toEqual([...order.keys()]);
          expect(paintFaults(paint(frame, triangles, { ...size, order }), right, triangles).count).toBe(0);
          // The other way round the farther covers the nearer wherever two overlap.
          const wrong = paintFaults(paint(frame, triangles, { ...size, order: order.slice().reverse() }), right, triangles); // prettier-ignore
          expect(wrong.count).toBe(wrong.wrong.reduce((sum, v) => sum + v, 0));
          expect(wrong.count).toBe(wrong.pairs.reduce((sum, { pixels }) => sum + pixels, 0));
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('is wrong by any key for three spars that lie over one another in a ring', () => {
    // Each passes over the next: tilted, so that one end is nearer than the other.
    const spar = (turn: number) => {
      const a = radians(turn);
      return { shape: { kind: 'box', size: [9, 0.9, 0.4] } as Shape, position: [-2.1 * Math.sin(a), 2.1 * Math.cos(a), -14] as Vec3, rotation: multiplied(turn) }; // prettier-ignore
    };
    const multiplied = (turn: number) =>
      multiplyQuat(quatAbout([0, 0, 1], radians(turn)), quatAbout([0, 1, 0], radians(20)));
    const placed = place([0, 120, 240].map(spar));
    const triangles = worldTriangles(placed);
    const right = paint(frame, triangles, { ...size, order: null });
    expect(new Set([...right.triangle].map((i) => (i < 0 ? -1 : triangles.body[i]))).size).toBe(4);
    const leftOut = new Uint8Array(3).fill(leftOutFaces.back);
    for (const key of ['ahead', 'distance', 'worldUp', 'screenHeight'] as const) {
      const order = paintOrder(frame, placed, triangles, key, 'bodies');
      const { count, pairs } = paintFaults(paint(frame, triangles, { ...size, order, leftOut }), right, triangles);
      expect(count, key).toBeGreaterThan(3);
      expect(pairs[0]!.over).not.toBe(pairs[0]!.hidden);
    }
  });

  it('of a flat world is wrong where another body shows than by the layers', () => {
    const placed = place([
      { shape: { kind: 'box', size: [6, 6, 1] }, position: [0, -1, -9] },
      { shape: { kind: 'sphere', radius: 2 }, position: [0, 1, -9] },
    ]);
    const triangles = worldTriangles(placed, true);
    const layers = paint(frame, triangles, { ...size, order: Int32Array.from(triangles.body.keys()) });
    const byHeight = paint(frame, triangles, { ...size, order: paintOrder(frame, placed, triangles, 'worldUp', 'bodies') }); // prettier-ignore
    const { count, pairs } = paintFaults(byHeight, layers, triangles, true);
    expect(pairs).toEqual([{ over: 0, hidden: 1, pixels: count }]);
    expect(count).toBeGreaterThan(50);
  });
});

describe('the pitch at which the horizon leaves the picture', () => {
  it('is where its line comes to lie in a corner', () => {
    fc.assert(
      fc.property(number(-3, 3), number(-1, 1), number(-1, 1), (yaw, roll, pitch) => {
        const pitches = horizonPitches(cameraAt([0, 2, 0], yaw, pitch, roll))!;
        for (const [i, at] of pitches.entries())
          for (const [beyond, crosses] of [
            [-1e-4, i === 1],
            [1e-4, i === 0],
          ] as const)
            expect(horizonPoints(cameraAt([0, 2, 0], yaw, at + beyond, roll), [0, 1, 0]) !== null).toBe(crosses);
      }),
    );
    // Without roll it leaves at half the field of view.
    expect(horizonPitches(frame)!.map((v) => Math.round(v * 1e9) / 1e9)).toEqual([-0.5, 0.5]);
    const down = reposed(frame, { basis: { right: [1, 0, 0], up: [0, 0, -1], forward: [0, -1, 0] } })!;
    expect(horizonPitches(down)).toBeNull();
  });
});

describe('a light by compass and altitude', () => {
  it('comes back, and from the north-east travels south-west and down', () => {
    fc.assert(
      fc.property(number(-3, 3), number(-1, 1), (bearing, altitude) => {
        const back = lightPlace(lightFrom(bearing, altitude))!;
        expect(Math.hypot(back.bearing - bearing, back.altitude - altitude)).toBeLessThan(1e-12);
      }),
    );
    const [x, y, z] = lightFrom(Math.PI / 4, Math.PI / 6);
    expect([Math.sign(x), Math.sign(y), Math.sign(z)]).toEqual([-1, -1, 1]);
    expect(y).toBeCloseTo(-0.5, 12);
    expect(lightPlace([0, 0, 0])).toBeNull();
  });
});

describe('the shadows of triangles', () => {
  it('have the shadows of their corners for corners, and what is beyond the receiver has none', () => {
    let [whole, cut] = [0, 0];
    const point = fc.tuple(number(-5, 5), number(-3, 6), number(-5, 5));
    const light = fc.oneof(
      fc.tuple(number(-1, 1), number(-2, 2), number(-1, 1)).map((travels): Light => ({ kind: 'directional', travels })),
      fc.tuple(number(-5, 5), number(4, 12), number(-5, 5)).map((at): Light => ({ kind: 'point', at })),
    );
    fc.assert(
      fc.property(point, point, point, light, (a, b, c, lit) => {
        const receiver = { point: [0, 0.5, 0], normal: [0, 1, 0] } as const;
        const found = shadowTriangles(lit, receiver, Float64Array.from([...a, ...b, ...c]));
        for (let i = 1; i < found.length; i += 3) expect(Math.abs(found[i]! - 0.5)).toBeLessThan(1e-6 * (1 + Math.abs(found[i - 1]!) + Math.abs(found[i + 1]!))); // prettier-ignore
        const shadows = [a, b, c].map((p) => shadowOf(lit, receiver, p));
        if (lit.kind === 'point' && [a, b, c].some((p) => Math.abs(p[1] - lit.at[1]) < 0.02)) return;
        if (shadows.every((one) => one.ok)) {
          whole++;
          const corners = shadows.map((one) => (one.ok ? one.value : a));
          // prettier-ignore
          corners.forEach((p, k) => expect(distance(p, [...found.subarray(3 * k, 3 * k + 3)] as unknown as Vec3)).toBeLessThan(1e-9 * (1 + distance(p, a))));
        } else if (shadows.every((one) => !one.ok && one.reason === 'awayFromReceiver')) {
          // All beyond the receiver, or all beyond the lamp: nothing of it lies between the two.
          const side = lit.kind === 'point' ? Math.sign(lit.at[1] - 0.5) : -Math.sign(lit.travels[1]);
          if ([a, b, c].every((p) => (p[1] - 0.5) * side < 0)) expect(found).toHaveLength(0);
        } else cut++;
      }),
      { numRuns: runs(600) },
    );
    expect(whole).toBeGreaterThan(runs(24));
    expect(cut).toBeGreaterThan(60);
  });
});

describe('the count of facings', () => {
  it('is that of the winding of every triangle, whatever is left out', () => {
    fc.assert(
      fc.property(scenes, number(-3, 3), number(0, 2), (placed, yaw, which) => {
        const frame = cameraAt([0, 0, 0], yaw, 0.1);
        const triangles = worldTriangles(placed);
        const out = Math.floor(which) as 0 | 1 | 2;
        const corner = (i: number, k: number): Vec3 => [0, 1, 2].map((axis) => triangles.corners[9 * i + 3 * k + axis]!) as unknown as Vec3; // prettier-ignore
        const facings = Array.from({ length: triangles.count }, (_, i) => windingOf(frame, [0, 1, 2].map((k) => corner(i, k))).facing); // prettier-ignore
        const count = (facing: string) => facings.filter((one) => one === facing).length;
        const culled = out === leftOutFaces.none ? 0 : count(out === leftOutFaces.front ? 'front' : 'back');
        expect(countFacings(frame, triangles, new Uint8Array(placed.length).fill(out))).toEqual({
          ...{ culled, edgeOn: count('edgeOn'), count: triangles.count },
          drawn: triangles.count - culled - count('edgeOn'),
        });
      }),
    );
  });
});
