import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conventions } from '../testing/arbitraries';
import { compute } from './compute';

/**
 * Numbers from everywhere: round ones, ordinary ones, and every order of magnitude that a request
 * may have.
 */
const number = fc.oneof(
  { weight: 20, arbitrary: fc.constantFrom(0, 1, -1, 0.5, -0.5, 90, -90, 180, 1e-9, 1e6) },
  { weight: 30, arbitrary: fc.double({ min: -100, max: 100, noNaN: true }) },
  {
    weight: 30,
    arbitrary: fc.tuple(fc.integer({ min: -30, max: 29 }), fc.constantFrom(1, -1)).map(([e, s]) => s * 10 ** e),
  },
  { weight: 1, arbitrary: fc.constantFrom(Number.MIN_VALUE, 1e-300, 1e-31) },
);
const above0 = number.map((v) => Math.max(1e-30, Math.abs(v)));
const turn = fc.tuple(number, number, number, number).map((q) => (q.some((v) => v !== 0) ? q : [0, 0, 0, 1]));
const vec2 = fc.tuple(number, number);
const vec3 = fc.tuple(number, number, number);
const plane = fc.record({ point: vec3, normal: vec3 });
const optional = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });

const orientation = fc.oneof(
  fc.record({ lookAt: vec3, up: optional(vec3) }),
  fc.record({ yaw: number, pitch: number, roll: number }),
  fc.record({ quaternion: turn }),
);
const fov = fc.oneof(number, fc.double({ min: 1e-6, max: 179.9, noNaN: true }));
/** Near, and a far beyond it or at infinity, as request fields. */
const range = fc
  .tuple(above0, fc.option(above0))
  .map(([near, beyond]) => ({ near, far: beyond === null ? null : Math.min(1e30, near + beyond) }));
const from = (low: number, size: number) => Math.max(-1e30, Math.min(1e30, low + size));
const projection = fc.oneof(
  fc.record({ range, verticalFov: fov, aspect: optional(above0), shift: optional(vec2) }).map(({ range, ...rest }) => ({ kind: 'perspective', ...range, ...rest })), // prettier-ignore
  fc.record({ range, focalLength: above0, sensorHeight: above0 }).map(({ range, ...rest }) => ({ kind: 'perspective', ...range, ...rest })), // prettier-ignore
  fc.tuple(number, above0, above0).map(([near, deep, height]) => ({ kind: 'orthographic', near, far: from(near, deep), height })), // prettier-ignore
  fc.record({ range, left: number, bottom: number, size: fc.tuple(above0, above0) }).map(({ range, left, bottom, size }) => ({ kind: 'frustum', ...range, left, bottom, right: from(left, size[0]), top: from(bottom, size[1]) })), // prettier-ignore
);
const shape = fc.oneof(
  fc.constant({ kind: 'point' }),
  fc.record({ kind: fc.constant('sphere'), radius: above0 }),
  fc.record({ kind: fc.constant('box'), size: fc.tuple(above0, above0, above0) }),
  fc.record({ kind: fc.constant('quad'), size: fc.tuple(above0, above0) }),
  fc.record({ kind: fc.constant('mesh'), positions: fc.array(number, { minLength: 9, maxLength: 9 }), indices: fc.constant([0, 1, 2, 2, 1, 0]) }), // prettier-ignore
);
const bodies = (point: fc.Arbitrary<readonly number[]>) =>
  fc
    .array(
      fc.record({
        shape,
        position: point,
        rotation: optional(fc.tuple(number, number, number, number)),
        scale: optional(number),
      }),
      { maxLength: 3 },
    ) // prettier-ignore
    .map((list) => list.map((one, i) => ({ id: `b${i}`, ...one })));
const pixels = fc.array(vec2, { minLength: 1, maxLength: 2 });
const spawnTerms = {
  bounds: fc.oneof(fc.record({ min: vec2, max: vec2 }), fc.record({ ringOuter: above0 })),
  padding: above0,
  paddingUnit: fc.constantFrom('world', 'pixels'),
  radius: above0,
  count: fc.constant(3),
  seed: fc.integer(),
  ahead: optional(fc.record({ direction: vec2, halfAngle: above0 })),
  keepAway: fc.array(fc.record({ centre: vec2, distance: above0 }), { maxLength: 2 }),
};
const query = (point: fc.Arbitrary<readonly number[]>) => {
  const op = <T>(name: string, fields: { [K in keyof T]: fc.Arbitrary<T[K]> }) =>
    fc.record(fields).map((rest) => ({ id: name, op: name, ...rest }));
  return fc.tuple(
    op('matrices', {}),
    op('worldToScreen', { points: fc.array(point, { maxLength: 3 }) }),
    op('screenToWorld', { pixels, at: fc.oneof(fc.record({ depth: number }), fc.record({ ahead: number }), fc.record({ range: number }), fc.record({ plane })) }), // prettier-ignore
    op('rays', { pixels }),
    op('pick', { pixels, all: fc.boolean(), backFaces: fc.boolean() }),
    op('aim', { muzzle: vec3, reach: above0, pixel: optional(vec2) }),
    op('planes', {}),
    op('visibility', { method: fc.constantFrom('exact', 'planes'), margin: number }),
    op('shadowVisibility', { light: vec3, receiver: plane }),
    op('screenBounds', {}),
    op('billboard', { items: fc.array(fc.record({ position: vec3, mode: fc.constantFrom('viewPlane', 'eyePoint', 'axisEye', 'axisView'), axis: optional(vec3), front: fc.constantFrom('+n', '-n') }), { maxLength: 2 }) }), // prettier-ignore
    op('spawn', { surface: fc.oneof(fc.constant('2d'), fc.record({ plane })), ...spawnTerms }),
    op('footprint', { plane }),
    op('dollyZoom', { target: vec3, distances: fc.array(number, { maxLength: 2 }) }),
    op('horizon', { normal: optional(vec3) }),
    op('drawOrder', { key: fc.constantFrom('ahead', 'distance', 'worldUp') }),
    op('convert', { to: conventions }),
  );
};
const viewport = fc.record({ x: number, y: number, width: above0, height: above0 });
const requests = fc.oneof(
  fc.record({ astrolabe: fc.constant(1), conventions, viewport, camera: fc.record({ position: vec3, orientation, projection }), bodies: bodies(vec3), queries: query(vec3) }), // prettier-ignore
  fc.record({ astrolabe: fc.constant(1), conventions, viewport, camera: fc.record({ kind: fc.constant('2d'), focus: vec2, anchor: vec2, zoom: above0, rotation: number, snap: fc.constantFrom('none', 'floor', 'round') }), bodies: bodies(vec2), queries: query(vec2) }), // prettier-ignore
);

/**
 * Nulls that are answers of their own kind: no far plane, nothing hit, no angle of an orthographic
 * camera, and which side a horizon is on when it is on the screen.
 */
const plainNulls = new Set(['far', 'hit', 'targetBody', 'blockedBy', 'verticalFov', 'horizontalFov', 'where']);

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

describe('a request of the most extreme numbers', () => {
  it('is answered with numbers, or with reasons where there are none, in every operation, or refused with a sentence', () => {
    const answered = new Map<string, number>();
    fc.assert(
      fc.property(requests, (request) => {
        const made = compute(request);
        if (!made.ok) {
          for (const { message } of made.problem.errors) expect(message).toMatch(/\.$/);
          return;
        }
        expect(faults(made.response)).toEqual([]);
        for (const result of made.response.results)
          if (!('error' in result)) answered.set(result.op, (answered.get(result.op) ?? 0) + 1);
      }),
      { numRuns: 2500 },
    );
    // Every operation came to answers, not to refusals alone.
    for (const op of [
      'matrices',
      'worldToScreen',
      'screenToWorld',
      'rays',
      'pick',
      'aim',
      'planes',
      'visibility',
      'shadowVisibility',
      'screenBounds',
      'billboard',
      'footprint',
      'horizon',
      'drawOrder',
      'convert',
    ])
      // prettier-ignore
      expect(answered.get(op), op).toBeGreaterThan(20);
  }, 60_000);

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
});
