import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import type { Vec2 } from '../math/vec3';
import { firstTouch, firstTouchesMoving, velocityAt } from './firstSeen';
import { areaAndCentroid, distanceToPolygon } from './region';
import { planeSurface } from './surface';
import { runs } from '../testing/seed';

const real = (min: number, max: number) => fc.integer({ min: 0, max: 4096 }).map((v) => min + ((max - min) * v) / 4096);
const vec = (size: number) => fc.tuple(real(-size, size), real(-size, size));
/** Convex, counter-clockwise: corners on a circle in the order of their angles. */
const regions = fc
  .tuple(fc.uniqueArray(fc.integer({ min: 0, max: 63 }), { minLength: 3, maxLength: 7 }), real(1, 20), vec(10))
  .map(([turns, radius, [x, y]]) =>
    turns
      .sort((a, b) => a - b)
      .map((k): Vec2 => [x + radius * Math.cos((k * Math.PI) / 32), y + radius * Math.sin((k * Math.PI) / 32)]),
  )
  .filter((region) => areaAndCentroid(region).area > 0.05);

/** How far a disc is off a region after so many seconds; below 0 in it. */
const apartAt = (region: readonly Vec2[], place: Vec2, body: Vec2, camera: Vec2, radius: number, t: number) =>
  distanceToPolygon(region, [place[0] + (body[0] - camera[0]) * t, place[1] + (body[1] - camera[1]) * t]) - radius;

describe('seconds until seen', () => {
  it('of a region that moves as it likes are those of one that moves evenly, where it does', () => {
    let touched = 0;
    fc.assert(
      fc.property(regions, vec(28), real(1, 6), vec(8), vec(8), (region, place, radius, body, camera) => {
        const within = 12;
        const even = firstTouch(region, place, radius, body, camera, within);
        const moving = firstTouchesMoving((t) => region.map(([x, y]): Vec2 => [x + camera[0] * t, y + camera[1] * t]), radius, within); // prettier-ignore
        const found = moving(...place, ...body);
        const late = even.ok ? even.value : NaN;
        if (Number.isNaN(found)) {
          // What falls between two looks is brief: by then it has gone through the region’s rim.
          if (even.ok) expect(apartAt(region, place, body, camera, radius, Math.min(within, late + 1 / 32))).toBeGreaterThan(-0.03); // prettier-ignore
          return;
        }
        touched++;
        expect(even.ok).toBe(true);
        expect(found - late).toBeGreaterThan(-1e-6);
        expect(found - late).toBeLessThanOrEqual(found === 0 ? 0 : 1 / 1024 + 1 / 32);
      }),
      { numRuns: runs(300) },
    );
    expect(touched).toBeGreaterThan(10);
    // Nothing seen, nothing touched; what opens later is met then.
    const square: readonly Vec2[] = [[0, 0], [1, 0], [1, 1], [0, 1]]; // prettier-ignore
    expect(firstTouchesMoving(() => null, 1, 5)(0, 0, 0, 0)).toBeNaN();
    expect(firstTouchesMoving((t) => (t >= 2 ? square : null), 1, 5)(0.5, 0.5, 0, 0)).toBeCloseTo(2, 2);
  });

  it('is when the distance first comes down to the radius, and not before', () => {
    let [touched, never] = [0, 0];
    fc.assert(
      fc.property(regions, vec(60), real(0, 6), vec(8), vec(8), (region, place, radius, body, camera) => {
        const within = 30;
        const found = firstTouch(region, place, radius, body, camera, within);
        const apart = (t: number) =>
          distanceToPolygon(region, [place[0] + (body[0] - camera[0]) * t, place[1] + (body[1] - camera[1]) * t]) -
          radius;
        if (!found.ok) {
          never++;
          for (let t = 0; t <= within; t += 0.25) expect(apart(t)).toBeGreaterThan(-1e-9);
          return;
        }
        if (found.value === 0) {
          expect(apart(0)).toBeLessThanOrEqual(1e-9);
          return;
        }
        touched++;
        expect(Math.abs(apart(found.value))).toBeLessThan(1e-7);
        for (let k = 0; k < 40; k++) expect(apart((found.value * k) / 40)).toBeGreaterThan(-1e-9);
      }),
      { numRuns: runs(1000) },
    );
    expect(Math.min(touched, never)).toBeGreaterThan(15);
  });

  it('aims once, rests where it aims, and counts the last moment', () => {
    expect(velocityAt([3, 4], { towards: [0, 0], speed: 10 })).toEqual([-6, -8]);
    expect(velocityAt([3, 4], { towards: [3, 4], speed: 10 })).toEqual([0, 0]);
    const square: Vec2[] = [[0, 0], [10, 0], [10, 10], [0, 10]]; // prettier-ignore
    // Twelve to the left of a side that comes at 2 a second, with a radius of 2: five seconds.
    expect(firstTouch(square, [-12, 5], 2, [0, 0], [-2, 0], 5)).toEqual({ ok: true, value: 5 });
    expect(firstTouch(square, [-12, 5], 2, [0, 0], [-2, 0], 4.999)).toEqual({ ok: false, reason: 'notWithin' });
    // Past a corner by just its radius it touches; past it by more it does not.
    expect(firstTouch(square, [-5, 12], 2, [5, 0], [0, 0], 9)).toMatchObject({ ok: true, value: 1 });
    expect(firstTouch(square, [-5, 12.001], 2, [5, 0], [0, 0], 9)).toMatchObject({ ok: false });
    expect(firstTouch(square, [3, 3], 0, [5, 0], [0, 0], 9)).toEqual({ ok: true, value: 0 });
  });

  it('is asked of a flat camera and of level ground, in any axes the same', () => {
    const ask = (request: object) => {
      const made = compute({ astrolabe: 1, viewport: { width: 200, height: 100 }, ...request });
      if (!made.ok) throw new Error(JSON.stringify(made.problem));
      return made.response.results[0] as unknown as { points: { seconds: number | null }[]; error?: { code: string } };
    };
    // 20 units across and 10 up about the origin; a body 14 to the left at 2 a second is there after 2.
    const flat = ask({
      camera: { kind: '2d', focus: [0, 0], anchor: [100, 50], zoom: 10, rotation: 0 },
      queries: [{ id: 'a', op: 'firstSeen', points: [[-14, 1], [0, 30], [3, 3]], surface: '2d', bodyVelocity: { towards: [0, 1], speed: 2 }, cameraVelocity: [0, 0], within: 20 }], // prettier-ignore
    });
    expect(flat.points[0]!.seconds).toBeCloseTo(2, 12);
    expect(flat.points[1]!.seconds).toBeCloseTo(12.5, 12);
    expect(flat.points[2]!.seconds).toBe(0);
    const turn = Math.PI / 180;
    const camera = { position: [0, 20, 0], orientation: { yaw: 0, pitch: -1 / turn, roll: 0 }, projection: { kind: 'perspective', near: 0.1, far: 200, verticalFov: 0.8 / turn } }; // prettier-ignore
    const query = { id: 'a', op: 'firstSeen', points: [[0, 0, 30], [0, 0, -10], [500, 0, 0]], radius: 1, surface: { plane: { point: [0, 0, 0], normal: [0, 1, 0] } }, bodyVelocity: [0, -3], cameraVelocity: [0, 1], within: 100 }; // prettier-ignore
    const ground = ask({ camera, queries: [query] });
    // Pairs go by the letters of the axes: ahead is −z. The near edge of what is seen lies 20·cot(1 + 0.4) ahead.
    expect(ground.points[0]!.seconds).toBeCloseTo((30 + 20 / Math.tan(1.4) - 1) / 4, 9);
    expect(ground.points[1]!.seconds).toBe(0);
    expect(ground.points[2]).toEqual({ seconds: null, reason: 'notWithin' });
    // A view that reaches infinity has its near edge all the same: 20·cot 0.4 ahead.
    const level = ask({ camera: { ...camera, orientation: { yaw: 0, pitch: 0, roll: 0 }, projection: { ...camera.projection, far: null } }, queries: [query] }); // prettier-ignore
    expect(level.points[0]!.seconds).toBeCloseTo((30 + 20 / Math.tan(0.4) - 1) / 4, 9);
    const none = { ...query, points: [] };
    expect(ask({ camera: { ...camera, orientation: { yaw: 0, pitch: 0, roll: 0 }, projection: { ...camera.projection, far: null } }, queries: [none] })).toMatchObject({ points: [] }); // prettier-ignore
  });
});

it('a surface gives back the coordinates of its own points', () => {
  fc.assert(
    fc.property(
      vec(50),
      fc.tuple(real(-9, 9), real(-9, 9), real(-9, 9)),
      fc.tuple(real(-1, 1), real(-1, 1), real(-1, 1)),
      ([a, b], point, normal) => {
        const surface = planeSurface(point, normal);
        if (!surface) return;
        const back = surface.coordinates(surface.at([a, b]));
        expect(Math.hypot(back[0] - a, back[1] - b)).toBeLessThan(1e-9);
      },
    ),
  );
});
