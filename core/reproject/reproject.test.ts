import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import type { ComputeRequest } from '../compute/schema';
import { codecOf } from '../conventions/codec';
import { transform } from '../math/mat4';
import type { Vec3 } from '../math/vec3';
import { conventions, real, vectors } from '../testing/arbitraries';
import { runs } from '../testing/seed';

/* Reprojection, against the two cameras asked one by one. */

interface Item {
  readonly screen: [number, number] | null;
  readonly depth: number | null;
  readonly previous: { readonly screen: [number, number]; readonly depth: number } | null;
  readonly motion: { readonly pixels: number[]; readonly ndc: number[]; readonly uv: number[] } | null;
  readonly reason?: string;
}
interface Answered {
  readonly matrix: number[];
  readonly points?: Item[];
  readonly pixels?: Item[];
}
type Row = { screen: [number, number] | null; ndc: Vec3 | null; depth: number | null };

const viewport = { x: 10, y: 20, width: 640, height: 360 };
const base = { astrolabe: 1, viewport };

function results<T>(request: object): T[] {
  const answered = compute(request as ComputeRequest);
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
  return answered.response.results as unknown as T[];
}
const reproject = (request: object, query: object): Answered =>
  results<Answered>({ ...request, queries: [{ id: 'q', op: 'reproject', ...query }] })[0]!;

const cameras = fc
  .record({
    position: vectors(3),
    yaw: real(-0.3, 0.3),
    pitch: real(-0.3, 0.3),
    fov: real(0.5, 1.5),
    isInfinite: fc.boolean(),
  })
  .map(({ position, yaw, pitch, fov, isInfinite }) => ({
    position,
    orientation: { yaw, pitch },
    projection: { kind: 'perspective', near: 0.5, far: isInfinite ? null : 80, verticalFov: fov },
  }));
const near = (a: readonly number[], b: readonly number[], tolerance = 1e-7) =>
  a.forEach((v, i) => expect(Math.abs(v - b[i]!), `${a} and ${b}`).toBeLessThan(tolerance * (1 + Math.abs(b[i]!))));

/** A world point ahead of cameras near the origin that look along the world's forward. */
const pointsAhead = fc.tuple(real(-4, 4), real(-3, 3), real(8, 40));

describe('reproject', () => {
  it('agrees with projecting by the two cameras, and with its own matrix', () => {
    fc.assert(
      fc.property(cameras, cameras, conventions, pointsAhead, vectors(1), (now, then, given, [r, u, f], step) => {
        const radians = { ...given, angles: { ...given.angles, unit: 'radians' as const } };
        const codec = codecOf(radians);
        const written = (camera: typeof now) => ({ ...camera, position: [...codec.toWorld(camera.position)] });
        const request = { ...base, conventions: radians, camera: written(now) };
        const point = [...codec.toWorld([r, u, -f])];
        const before = point.map((v, i) => v + step[i]!);
        const shownBy = (camera: typeof now, at: number[]) =>
          results<{ points: Row[] }>({
            ...request,
            camera: written(camera),
            queries: [{ id: 'q', op: 'worldToScreen', points: [at] }],
          })[0]!.points[0]!;
        const [a, b, c] = [shownBy(now, point), shownBy(then, point), shownBy(then, before)];
        const found = reproject(request, {
          previous: written(then),
          points: [point],
          pixels: [{ screen: a.screen, depth: a.depth }],
        });
        for (const item of [found.points![0]!, found.pixels![0]!]) {
          near(item.screen!, a.screen!);
          near(item.previous!.screen, b.screen!, 1e-5);
          near(item.motion!.pixels, [a.screen![0] - b.screen![0], a.screen![1] - b.screen![1]], 1e-4);
          near(item.motion!.ndc, [a.ndc![0] - b.ndc![0], a.ndc![1] - b.ndc![1]], 1e-5);
          near(item.motion!.uv, [(a.screen![0] - b.screen![0]) / 640, (a.screen![1] - b.screen![1]) / 360], 1e-5);
        }
        const [x, y, , w] = transform(codec.fromList(found.matrix), [...a.ndc!, 1] as never);
        near([x / w, y / w], [b.ndc![0], b.ndc![1]], 1e-5);
        const moving = reproject(request, { previous: written(then), points: [point], previousPoints: [before] });
        near(moving.points![0]!.previous!.screen, c.screen!);
      }),
      { numRuns: runs(120) },
    );
  });

  const still = {
    ...base,
    camera: {
      position: [0, 0, 0],
      orientation: { yaw: 0, pitch: 0 },
      projection: { kind: 'perspective', near: 1, far: null, verticalFov: 90 },
    },
  };

  it('does not move without a change, and by the jitter alone with one', () => {
    const query = { previous: still.camera, points: [[1, 2, -9]] };
    expect(reproject(still, query).points![0]!.motion!.pixels).toEqual([0, 0]);
    const jitter = { now: [0.25, -0.125], previous: [-0.25, 0.375] };
    near(reproject(still, { ...query, jitter }).points![0]!.motion!.pixels, [0.5, -0.5], 1e-9);
  });

  it('follows the track of the query', () => {
    const track = { kind: 'scroll', velocity: [1, 0, 0] };
    const query = { points: [[0, 0, -10]], when: { track, time: 2 }, previous: { time: 1 } };
    // A unit to the right at 10 ahead is 18 pixels of a picture 360 high; the point moves to the left.
    near(reproject(still, query).points![0]!.motion!.pixels, [-18, 0], 1e-9);
    const missing = compute({ ...still, queries: [{ id: 'q', op: 'reproject', previous: { time: 1 } }] } as never);
    expect(missing.ok ? null : missing.problem.errors[0]).toMatchObject({ path: 'queries[0].previous.time' });
  });

  it('takes a depth of infinity as a direction, and says where there is no answer', () => {
    const turned = { ...still.camera, orientation: { yaw: 180, pitch: 0 } };
    const moved = { ...still.camera, position: [100, 0, 0] };
    const at = { screen: [330, 200], depth: 1 };
    near(reproject(still, { previous: moved, pixels: [at] }).pixels![0]!.motion!.pixels, [0, 0], 1e-9);
    expect(reproject(still, { previous: turned, pixels: [at] }).pixels![0]).toMatchObject({
      ...{ screen: [330, 200], previous: null, motion: null, reason: 'behindEye' },
    });
    expect(reproject(still, { previous: still.camera, points: [[0, 0, 5]] }).points![0]).toMatchObject({
      ...{ screen: null, depth: null, motion: null, reason: 'behindEye' },
    });
    const uneven = compute({
      ...still,
      queries: [{ id: 'q', op: 'reproject', previous: still.camera, points: [], previousPoints: [[0, 0, 1]] }],
    } as never);
    expect(uneven.ok ? null : uneven.problem.errors[0]).toMatchObject({ path: 'queries[0].previousPoints' });
  });
});
