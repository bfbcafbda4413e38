import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { castRay } from '../pick/pick';
import { placeOne } from '../testing/bodies';
import { badRequests, requests } from '../testing/requests';
import { askUntil } from '../testing/askUntil';
import { soaks } from '../testing/seed';
import { compute, type ComputeResponse } from './compute';
import { unknownKeys } from './issues';
import { operationNamed, operationTable } from './operations';

/**
 * Nulls that are answers of their own kind: no far plane, nothing hit, no angle of an orthographic
 * camera, and which side a horizon is on when it is on the screen.
 */
const plainNulls = new Set([
  'far',
  'hit',
  'targetBody',
  'blockedBy',
  'verticalFov',
  'horizontalFov',
  'where',
  'switches',
  'given',
  'intended',
]);

/** Every number that is none, and every null without a reason beside it, by its path. */
function faults(value: unknown, path = '', explained = true): string[] {
  if (typeof value === 'number') return Number.isFinite(value) ? [] : [`${path} is ${value}`];
  if (value === null) return explained ? [] : [`${path} is null without a reason`];
  if (Array.isArray(value)) return value.flatMap((one, i) => faults(one, `${path}[${i}]`, false));
  if (typeof value !== 'object' || value === undefined) return [];
  return Object.entries(value as object).flatMap(([key, one]) =>
    faults(one, `${path}.${key}`, plainNulls.has(key) || 'reason' in value! || 'where' in value!),
  );
}

/** Returns what of an answer is not as its operation describes it. */
function undescribed(result: ComputeResponse['results'][number]): unknown {
  if ('error' in result) return [];
  const { id: _id, op, ...answer } = result as Readonly<Record<string, unknown>>;
  const parsed = operationNamed(op)!.output.safeParse(answer);
  return parsed.success ? unknownKeys(answer, parsed.data) : parsed.error.issues;
}

describe('a request of the most extreme numbers', () => {
  it('is answered with numbers, or with reasons where there are none, in every operation, or refused with a sentence', () => {
    fc.assert(
      fc.property(requests, (request) => {
        const made = compute(request);
        if (made.ok) {
          expect(faults(made.response)).toEqual([]);
          for (const result of made.response.results) expect(undescribed(result), result.op).toEqual([]);
        } else for (const { message } of made.problem.errors) expect(message).toMatch(/\.$/);
      }),
      { numRuns: soaks ? 10_000 : 400 },
    );
  }, 600_000);

  // A request of all operations is rejected for any of them: each is asked alone until enough are answered.
  it.each(operationTable.map(({ name }) => name))('%s has answers, not only problems', (op) => {
    const alone = requests.map((request) => ({
      ...request,
      queries: (request.queries as readonly { readonly op: string }[]).filter((query) => query.op === op),
    }));
    askUntil(alone, 20, (request) => {
      const made = compute(request);
      if (!made.ok) return 0;
      expect(faults(made.response)).toEqual([]);
      for (const result of made.response.results) expect(undescribed(result)).toEqual([]);
      return made.response.results.filter((result) => !('error' in result)).length;
    });
  });

  it('beyond what doubles carry is refused by name', () => {
    for (const [field, value] of [
      ['position', [0, 1e31, 0]],
      ['position', [1e300, 0, 0]],
    ] as const) {
      // prettier-ignore
      const made = compute({ astrolabe: 1, viewport: { width: 2, height: 1 }, camera: { orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 1, far: null, verticalFov: 60 }, [field]: value }, queries: [] }); // prettier-ignore
      expect(made).toMatchObject({ ok: false, problem: { errors: [{ path: expect.stringMatching(/^camera\.position\[\d]$/), message: expect.stringContaining('at most') }] } }); // prettier-ignore
    }
  });

  it('with something wrong in it is refused with sentences that name the field, and never throws', () => {
    let [refused, answered] = [0, 0];
    fc.assert(
      fc.property(badRequests, (given) => {
        const made = compute(given);
        if (made.ok) {
          answered++;
          // What was changed may have been nothing that matters.
          expect(faults(made.response)).toEqual([]);
          return;
        }
        refused++;
        const { errors, count = errors.length } = made.problem;
        expect(errors.length).toBeGreaterThan(0);
        expect(count).toBeGreaterThanOrEqual(errors.length);
        for (const { path, message } of errors) {
          expect(message).toMatch(/^.{8,}[.?]$/su);
          expect(message).not.toMatch(/undefined|NaN|\[object|TypeError|RangeError/);
          expect(path).toMatch(/^$|^[\w$]+/u);
        }
      }),
      { numRuns: soaks ? 10_000 : 400 },
    );
    expect(refused).toBeGreaterThan(answered);
  }, 600_000);

  it('whose lists are wrong a hundred thousand times over is refused as quickly, and all are counted', () => {
    const wrong = (rest: object) =>
      compute({ astrolabe: 1, viewport: { width: 2, height: 1 }, camera: { kind: '2d', focus: [0, 0], anchor: [0, 0], zoom: 1 }, queries: [], ...rest }); // prettier-ignore
    const bodies = Array.from({ length: 100_000 }, (_, i) => ({ id: i, shape: 3, position: 'x' }));
    expect(wrong({ bodies })).toMatchObject({ ok: false, problem: { count: 300_000, errors: { length: 20 } } });
    const positions = Array.from({ length: 150_000 }, () => 'x');
    expect(
      wrong({
        bodies: [{ id: 'm', shape: { kind: 'mesh', positions, indices: [] }, position: [0, 0] }],
        queries: [{ id: 'r', op: 'rays', pixels: Array.from({ length: 150_000 }, () => [1]) }],
      }),
    ).toMatchObject({ ok: false, problem: { count: 300_000, errors: { length: 20 } } });
  });

  it('of a mesh of 150,000 vertices, or of none, is answered', () => {
    const shape = (vertices: number) => ({
      kind: 'mesh',
      positions: Array.from({ length: 3 * vertices }, (_, i) => Math.sin(1.3 * i)),
      indices: Array.from({ length: 3 * Math.floor(vertices / 3) }, (_, i) => i),
    });
    const bodies = [
      { id: 'much', shape: shape(150_000), position: [0, 0, 0] },
      { id: 'nothing', shape: shape(0), position: [0, 0, -5] },
    ];
    const made = compute({
      ...{ astrolabe: 1, viewport: { width: 200, height: 100 }, bodies },
      camera: { position: [0.4, 0.2, 0.1], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 60 } }, // prettier-ignore
      queries: [
        { id: 'exact', op: 'visibility', method: 'exact' },
        { id: 'planes', op: 'visibility', method: 'planes' },
        { id: 'bounds', op: 'screenBounds' },
        { id: 'shadow', op: 'shadowVisibility', light: [0, -1, 0], receiver: { point: [0, -1, 0], normal: [0, 1, 0] } }, // prettier-ignore
        { id: 'pick', op: 'pick', pixels: [[100, 50]], all: true, backFaces: true },
        { id: 'order', op: 'drawOrder', key: 'ahead' },
      ],
    });
    if (!made.ok) throw new Error(JSON.stringify(made.problem));
    expect(faults(made.response)).toEqual([]);
    for (const result of made.response.results) expect(result).not.toHaveProperty('error');
    expect(made.response.results[0]).toMatchObject({ bodies: [{ verdict: 'crosses' }, { verdict: 'inside' }] });
  });

  it('that names one mesh twenty thousand times looks at it once', () => {
    const many = 30_000;
    const shape = {
      kind: 'mesh',
      positions: Array.from({ length: 3 * many }, (_, i) => Math.sin(1.3 * i)),
      indices: Array.from({ length: many }, (_, i) => i),
    };
    const named = { bodies: Array.from({ length: 20_000 }, () => 'mesh') };
    const ask = (named: object) => [
      { id: 'exact', op: 'visibility', method: 'exact', ...named },
      { id: 'bounds', op: 'screenBounds', ...named },
      { id: 'shadow', op: 'shadowVisibility', light: [0, -1, 0], receiver: { point: [0, -1, 0], normal: [0, 1, 0] }, ...named }, // prettier-ignore
    ];
    const request = {
      ...{ astrolabe: 1, viewport: { width: 200, height: 100 } },
      ...{ bodies: [{ id: 'mesh', shape, position: [0, 0, 0] }] },
      camera: { position: [0.4, 0.2, 0.1], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 60 } }, // prettier-ignore
    };
    // A billion looks at a vertex, were each name looked up: far beyond this test's patience.
    const often = compute({ ...request, queries: ask(named) });
    const onceEach = compute({ ...request, queries: ask({}) });
    if (!often.ok || !onceEach.ok) throw new Error('refused');
    for (const [i, result] of often.response.results.entries()) {
      const bodies = (result as unknown as { bodies: object[] }).bodies;
      const [single] = (onceEach.response.results[i] as unknown as { bodies: [object] }).bodies;
      expect(bodies).toHaveLength(20_000);
      expect(bodies.at(-1)).toEqual(single);
    }
  }, 30_000);
});

it('a ray meets nothing beyond the range of doubles', () => {
  // A triangle across the ray, as far ahead as it is large, scaled by 1e100.
  const ahead = (size: number) => {
    const positions = [-2, -1, -1, 2, -1, -1, 0, 2, -1].map((v) => v * size);
    const mesh = placeOne({ kind: 'mesh', positions, indices: [0, 1, 2] }, [0, 0, 0], [0, 0, 0, 1], [1e100, 1e100, 1e100]); // prettier-ignore
    return castRay({ origin: [0, 0, 0], direction: [0, 0, -1] }, [mesh]);
  };
  expect(ahead(1)).toMatchObject([{ distance: expect.closeTo(1e100, -88), facing: 'front' }]);
  expect(ahead(1e150)).toEqual([]);
});
