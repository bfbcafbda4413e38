import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import { requests } from '../testing/requests';
import { runs } from '../testing/seed';
import { cameraOf, type Camera } from './camera';
import { createPointBatch } from './batch';
import type { Queries, Setup } from './types';

type Ask = (op: string, parts: object) => { ok: boolean; code?: string; problems?: readonly { message: string }[] };

/** Copies an object without some keys. */
const without = (object: object, ...keys: readonly string[]) =>
  Object.fromEntries(Object.entries(object).filter(([key]) => !keys.includes(key)));

describe('the package', () => {
  it('reads setups and queries, and answers them, as requests are', () => {
    let [answered, rejected] = [0, 0];
    fc.assert(
      fc.property(requests, (given) => {
        const made = cameraOf(without(given, 'astrolabe', 'queries') as unknown as Setup);
        const { queries } = given as { queries: { id: string; op: string }[] };
        for (const query of queries) {
          const whole = compute({ ...given, queries: [query] });
          if (!made.ok) {
            expect(whole.ok).toBe(false);
            continue;
          }
          const { ok, ...found } = (made.camera.ask as Ask).call(made.camera, query.op, without(query, 'id', 'op'));
          if (!whole.ok) {
            rejected++;
            expect(found.code).toBe('invalid');
            const texts = whole.problem.errors.map(({ message }) => message.replaceAll('queries[0].', ''));
            expect(found.problems!.map(({ message }) => message)).toEqual(texts);
            continue;
          }
          answered++;
          const result = without(whole.response.results[0]!, 'id', 'op');
          if (ok) expect(found).toEqual(result);
          else
            expect(result).toEqual({ error: { code: found.code, message: (found as { message?: string }).message } });
        }
      }),
      { numRuns: runs(150) },
    );
    expect(answered).toBeGreaterThan(50);
    expect(answered + rejected).toBeGreaterThan(runs(150) / 4);
  });

  const setup: Setup = {
    conventions: 'Vulkan',
    viewport: { width: 1280, height: 720 },
    camera: {
      position: [0, 2, 10],
      orientation: { yaw: 0, pitch: 0 },
      projection: { kind: 'perspective', near: 0.5, far: 100, verticalFov: 60 },
    },
  };
  const flat: Setup = { ...setup, camera: { kind: '2d', focus: [0, 0], anchor: [640, 360], zoom: 2 } };
  const cameraBy = (given: Setup): Camera => {
    const made = cameraOf(given);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return made.camera;
  };

  it.each([NaN, Infinity, '3', null, undefined])(
    'has a problem for %s where a number is meant, and throws nowhere',
    (odd) => {
      const camera = cameraBy(setup);
      const wrong = cameraOf({ ...setup, viewport: { width: odd as number, height: 720 } });
      expect(wrong.ok ? [] : wrong.problems.map(({ path }) => path)).toEqual(['viewport.width']);
      const point = [0, odd, 0] as unknown as Queries['worldToScreen']['points'][number];
      expect(camera.worldToScreen(point)).toMatchObject({ ok: false, code: 'invalid' });
      expect(camera.along({ kind: 'scroll', velocity: [0, 0, odd as number] }, 1)).toMatchObject({
        ok: false,
        code: 'invalid',
      });
      expect(camera.ray([odd as number, 1])).toMatchObject({ ok: false, code: 'invalid' });
    },
  );

  it('rejects keys and operations that it does not know, with suggestions', () => {
    const camera = cameraBy(setup);
    const ask = camera.ask.bind(camera) as unknown as Ask;
    expect(ask('worldToScreen', { points: [[0, 0, 0]], point: 1 })).toMatchObject({
      ok: false,
      problems: [{ path: 'point', message: expect.stringContaining('points') }],
    });
    expect(ask('horizons', {})).toMatchObject({ ok: false, code: 'invalid' });
  });

  it('has batches for 3D cameras, and says so in 2D', () => {
    const camera = cameraBy(setup);
    const batch = createPointBatch(3);
    batch.points.set([0, 2, 0, 5, 2, 0, 0, 2, 20]);
    expect(batch.project(camera)).toBe(true);
    const many = camera.projectPoints(batch.points);
    if (!many.ok) throw new Error(many.message);
    expect([...batch.screen]).toEqual([...many.screen]);
    expect([...batch.outside]).toEqual([...many.outside]);
    for (const i of [0, 1]) {
      const one = camera.worldToScreen([...batch.points.subarray(3 * i, 3 * i + 3)] as [number, number, number]);
      if (!one.ok) throw new Error(one.message);
      expect(many.screen[3 * i]).toBeCloseTo(one.screen![0], 9);
      expect(many.screen[3 * i + 2]).toBeCloseTo(one.depth!, 9);
    }
    const plane = cameraBy(flat);
    expect(batch.project(plane)).toBe(false);
    for (const found of [
      plane.projectPoints(batch.points),
      plane.pixelRays(batch.points),
      plane.unprojectPoints(batch.points),
      plane.classifySpheres(batch.points),
    ])
      expect(found).toMatchObject({ ok: false, code: 'notIn2d' });
  });
});
