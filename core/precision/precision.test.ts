import { describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import type { ComputeRequest } from '../compute/schema';

/* Single-precision pipelines, against the same sums written out here. */

interface Row {
  readonly position: number | null;
  readonly world: number | null;
  readonly relative: number | null;
  readonly safeDistance: number | null;
  readonly reason?: string;
}

const requestAt = (eye: readonly number[], points: readonly (readonly number[])[]): ComputeRequest =>
  ({
    astrolabe: 1,
    viewport: { width: 1920, height: 1080 },
    camera: {
      position: eye,
      orientation: { yaw: 20, pitch: -5 },
      projection: { kind: 'perspective', near: 0.1, far: 1000, verticalFov: 60 },
    },
    queries: [
      { id: 'p', op: 'precision', points },
      { id: 'm', op: 'matrices' },
      { id: 's', op: 'worldToScreen', points },
    ],
  }) as ComputeRequest;

const ask = (eye: readonly number[], points: readonly (readonly number[])[]) => {
  const answered = compute(requestAt(eye, points));
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
  const [rows, matrices, screen] = answered.response.results as unknown as [
    { points: Row[] },
    { view: number[]; projection: number[]; viewProjection: number[] },
    { points: { screen: [number, number] }[] },
  ];
  return { rows: rows.points, matrices, screen: screen.points };
};

const f = Math.fround;
/** Column-major, column vectors: the default listing. */
function screenInSingle(m: readonly number[], [x, y, z]: readonly number[]): [number, number] {
  const row = (i: number) =>
    f(f(f(f(f(m[i]!) * f(x!)) + f(f(m[i + 4]!) * f(y!))) + f(f(m[i + 8]!) * f(z!))) + f(m[i + 12]!));
  const w = row(3);
  return [((row(0) / w + 1) / 2) * 1920, ((1 - row(1) / w) / 2) * 1080];
}
const apart = (a: readonly number[], b: readonly number[]) => Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!);

describe('precision', () => {
  it('answers the error of world and camera-relative coordinates in float32', () => {
    for (const far of [10, 5_000, 300_000]) {
      const eye = [far, 12, -far / 3];
      const point = [far + 9.137, 10.731, -far / 3 - 20.443];
      const { rows, matrices, screen } = ask(eye, [point]);
      const [row] = rows;
      expect(row!.world).toBeCloseTo(apart(screenInSingle(matrices.viewProjection, point), screen[0]!.screen), 6);
      // The view without its translation, times the projection: the fourth column is the projection's.
      const { view: v, projection: p } = matrices;
      const turned = v.map((one, i) => (i >= 12 && i < 15 ? 0 : one));
      const product = Array.from({ length: 16 }, (_, i) => {
        const [column, r] = [i >> 2, i & 3];
        return [0, 1, 2, 3].reduce((sum, k) => sum + p[k * 4 + r]! * turned[column * 4 + k]!, 0);
      });
      const relative = point.map((one, i) => one - eye[i]!);
      expect(row!.relative).toBeCloseTo(apart(screenInSingle(product, relative), screen[0]!.screen), 5);
      expect(row!.relative!).toBeLessThan(0.01);
    }
  });

  it('grows with the distance from the origin in the world pipeline alone', () => {
    const at = (far: number) => ask([far, 2, 0], [[far + 6.1, 1.7, -20.3]]).rows[0]!;
    expect(at(10).world!).toBeLessThan(0.01);
    expect(at(1e6).world!).toBeGreaterThan(0.5);
    expect(at(1e6).relative!).toBeLessThan(0.01);
    expect(at(1e6).position!).toBeGreaterThan(at(10).position!);
  });

  it('names the distance at which half a pixel is passed', () => {
    const [eye, point] = [
      [100, 2, 0],
      [106.1, 1.7, -20.3],
    ];
    const safe = ask(eye, [point]).rows[0]!.safeDistance!;
    const away = Math.hypot(...point);
    const errorAt = (distance: number) => {
      const moved = point.map((v) => (v * distance) / away);
      return ask(
        moved.map((v, i) => eye[i]! + v - point[i]!),
        [moved],
      ).rows[0]!.world!;
    };
    expect(errorAt(safe)).toBeGreaterThan(0.49);
    for (let k = 1; k < 40; k++) expect(errorAt(safe / 1.01 ** k)).toBeLessThan(0.51);
    expect(Math.log(safe) / Math.log(1.01)).toBeCloseTo(Math.round(Math.log(safe) / Math.log(1.01)), 6);
  });

  it('gives its reasons', () => {
    const { rows } = ask(
      [0, 0, 5],
      [
        [0, 0, 0],
        [0, 0, 50],
      ],
    );
    expect(rows[0]).toMatchObject({ safeDistance: null, reason: 'noDirection' });
    expect(rows[0]!.world).not.toBeNull();
    expect(rows[1]).toEqual({ position: null, world: null, relative: null, safeDistance: null, reason: 'behindEye' });
  });
});
