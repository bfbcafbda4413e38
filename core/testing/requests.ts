import fc from 'fast-check';
import * as z from 'zod';
import { operationNamed, operationTable } from '../compute/operations';
import { trackSchema } from '../motion/trackSchema';
import { definitionOf, metaOf } from '../quantities/convert';
import { plane, space, type World } from '../quantities/world';
import { conventionsObject } from '../request/conventions';
import { conventions } from './arbitraries';
import { valuesOf, type SchemaValues } from './fromSchema';

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
  { weight: 1, arbitrary: fc.constantFrom(-0, Number.MIN_VALUE, -1e-310, 1e-308, 1e-300, 1e-31) },
);
const above0 = number.map((v) => Math.max(1e-30, Math.abs(v)));
const turn = fc.tuple(number, number, number, number).map((q) => (q.some((v) => v !== 0) ? q : [0, 0, 0, 1]));
const vec2 = fc.tuple(number, number);
const vec3 = fc.tuple(number, number, number);
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
        scale: optional(fc.oneof(number, fc.tuple(number, number, number))),
        hangs: fc.boolean(),
      }),
      { maxLength: 3 },
    )
    .map((list) =>
      list.map(({ hangs, ...one }, i) => ({ id: `b${i}`, ...one, ...(hangs && i && { parent: `b${i - 1}` }) })),
    );
/** Conventions, now and then with NDC depths from everywhere. */
const anyConventions = fc
  .tuple(
    conventions,
    fc.oneof({ weight: 5, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: fc.tuple(number, number) }),
  )
  .map(([c, depths]) => (depths ? { ...c, ndc: { ...c.ndc, near: depths[0], far: depths[1] } } : c));
const rising = <T>(one: fc.Arbitrary<T>) =>
  fc
    .array(fc.tuple(fc.double({ min: 0, max: 20, noNaN: true }), one), { minLength: 1, maxLength: 3 })
    .map((list) => list.sort((a, b) => a[0] - b[0]).map(([t, v], i) => [t + i, v] as const));
const ease = fc.constantFrom('even', 'gentle', 'gentleStart', 'gentleEnd');
const tracks = (point: fc.Arbitrary<readonly number[]>) =>
  fc.oneof(
    fc.record({ kind: fc.constant('scroll'), velocity: point }),
    fc.record({ kind: fc.constant('follow'), target: rising(point), halfLife: above0 }),
    fc.record({ kind: fc.constant('orbit'), centre: vec3, yawRate: number, pitchRate: number, distanceRate: number }),
    rising(fc.record({ position: vec3, yaw: number, pitch: number, verticalFov: fov, ease })).map((keys) => ({ kind: 'path', keys: keys.map(([time, key]) => ({ time, ...key })) })), // prettier-ignore
    fc.record({ kind: fc.constant('walk'), inputs: fc.array(fc.record({ from: above0, to: above0, ahead: number, yawRate: number, pitchRate: number }), { maxLength: 2 }) }), // prettier-ignore
    fc.record({ kind: fc.constant('dollyZoom'), target: vec3, distance: fc.tuple(above0, above0), duration: above0, ease }), // prettier-ignore
    fc.record({ kind: fc.constant('shake'), seed: fc.integer(), frequency: above0, decay: above0, strength: fc.double({ min: 0, max: 1, noNaN: true }), offset: vec2 }), // prettier-ignore
  );

/**
 * Another camera: a plain one as a rule, since one that cannot be is a problem of the whole request,
 * as most of the others are. Its angles are some in degrees and in radians.
 */
const plainCamera = { position: [1, 2, 3], orientation: { yaw: 0.3, pitch: -0.1, roll: 0 }, projection: { kind: 'perspective', near: 0.5, far: null, verticalFov: 0.9 } }; // prettier-ignore
const others = {
  camera: fc.oneof({ weight: 5, arbitrary: fc.constant(plainCamera) }, { weight: 1, arbitrary: fc.record({ position: vec3, orientation, projection }) }), // prettier-ignore
  viewport: fc.constant({ width: 200, height: 100 }),
};

const moment = (point: fc.Arbitrary<readonly number[]>) =>
  fc.record({ track: tracks(point), time: number.map(Math.abs) });

/* eslint-disable @typescript-eslint/no-explicit-any -- queries of any shape */
/** Makes random queries fit the rules that join several of their values: one wrong query rejects a whole request. */
const fitted: Readonly<Record<string, (query: any) => object>> = {
  derive: (query) => ({
    ...derivedTerms,
    ...query,
    count: 1 + ((query.count ?? 1) % 8),
    columns: 1 + ((query.columns ?? 1) % 4),
    rows: 1 + ((query.rows ?? 1) % 4),
    eyes: (query.eyes ?? []).map((eye: object, i: number) => ({ ...eye, name: `eye ${i}` })),
  }),
  reproject: ({ previousPoints, ...query }) => ({
    ...query,
    previous: 'time' in query.previous ? plainCamera : query.previous,
    ...(previousPoints && {
      points: query.points ?? [],
      previousPoints: (query.points ?? []).map((point: unknown, i: number) => previousPoints[i] ?? point),
    }),
  }),
};
/* eslint-enable @typescript-eslint/no-explicit-any */
const derivedTerms = {
  sequence: 'grid',
  separation: 0.1,
  convergence: 3,
  blend: 0.5,
  light: [1, -2, 0.5],
  mapSize: 64,
  fit: 'box',
  plane: { point: [0, -1, 0], normal: [0, 1, 0] },
  clip: false,
};

/** A query of each operation, and one at a time of a track. */
function query(point: fc.Arbitrary<readonly number[]>, world: World) {
  const arbitraries = new Map<unknown, fc.Arbitrary<unknown>>([
    [trackSchema, tracks(point)],
    [conventionsObject, anyConventions],
  ]);
  // By their shape: a schema that is marked as written is a copy.
  const ownCamera = (schema: z.ZodType) => metaOf(schema)?.kind === 'written';
  const settings: SchemaValues = {
    world,
    number,
    most: 3,
    own: (schema) =>
      arbitraries.get(schema) ?? (ownCamera(schema) ? (definitionOf(schema).shape?.['width'] ? others.viewport : others.camera) : undefined), // prettier-ignore
  };
  const of = (name: string) => {
    const {
      id: _id,
      op: _op,
      when: _when,
      ...parts
    } = (operationNamed(name)!.query as z.ZodObject).shape as Record<string, z.ZodType>;
    return valuesOf(z.object(parts), settings).map((rest) => ({
      id: name,
      op: name,
      ...(fitted[name]?.(rest) ?? (rest as object)),
    }));
  };
  const queries = operationTable.map(({ name }) => of(name));
  const later = fc.tuple(of('worldToScreen'), moment(point)).map(([one, when]) => ({ ...one, id: 'when', when }));
  return fc.tuple(...queries, later);
}
const viewport = fc.record({ x: number, y: number, width: above0, height: above0 });
/** Requests for every operation, with every kind of body and camera, of numbers from everywhere. */
export const requests = fc.oneof(
  fc.record({ astrolabe: fc.constant(1), conventions: anyConventions, viewport, camera: fc.record({ position: vec3, orientation, projection }), bodies: bodies(vec3), queries: query(vec3, space) }), // prettier-ignore
  fc.record({ astrolabe: fc.constant(1), conventions: anyConventions, viewport, camera: fc.record({ kind: fc.constant('2d'), focus: vec2, anchor: vec2, zoom: above0, rotation: number, snap: fc.constantFrom('none', 'floor', 'round') }), bodies: bodies(vec2), queries: query(vec2, plane) }), // prettier-ignore
);

/** What may stand where something else should. */
const junk: fc.Arbitrary<unknown> = fc.oneof(
  fc.constantFrom(null, true, '', 'x', '__proto__', 'constructor', -1, 0.5, 1e31, 1e308, Number.MAX_SAFE_INTEGER),
  fc.constantFrom([], {}, [[]], [{}], { length: 3 }, [null], [1, 2, 3, 4]),
  fc.jsonValue({ maxDepth: 2 }),
);

type Mutation = (parent: Record<string, unknown>, key: string, other: unknown) => void;
const mutations: readonly Mutation[] = [
  (parent, key, other) => (parent[key] = other),
  (parent, key) => delete parent[key],
  (parent, key, other) => (parent[key] = [parent[key], other]),
  (parent, key) => (parent[key] = { [key]: parent[key] }),
  (parent, key, other) => (parent[`${key}s`] = other),
];

/** Places of a JSON value, an object or a list each with a key of it. */
function placesOf(value: unknown, found: [Record<string, unknown>, string][] = []) {
  if (typeof value !== 'object' || value === null) return found;
  for (const [key, inner] of Object.entries(value)) {
    found.push([value as Record<string, unknown>, key]);
    placesOf(inner, found);
  }
  return found;
}

/** The same requests with one to four things in them changed, left out, doubled or put elsewhere. */
export const badRequests: fc.Arbitrary<unknown> = fc
  .tuple(requests, fc.array(fc.tuple(fc.nat(), fc.constantFrom(...mutations), junk), { minLength: 1, maxLength: 4 }))
  .map(([request, changes]) => {
    const changed = JSON.parse(JSON.stringify(request)) as unknown;
    for (const [at, mutate, other] of changes) {
      const places = placesOf(changed);
      if (places.length) mutate(...places[at % places.length]!, structuredClone(other));
    }
    return changed;
  });
