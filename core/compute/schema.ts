import * as z from 'zod';
import { largest } from './limits';
import {
  boxSize,
  conventionsObject,
  conventionsSchema,
  listOf,
  number,
  positive,
  quatSchema,
  shapes,
  vec2Schema,
  vec3Schema,
} from './valueSchemas';

/*
 * The shape of a compute request (`docs/compute.md`). What a number may be is said here; what
 * numbers may be together (near below far, distinct axes, one field of view) is checked when the
 * request is read.
 */

export const viewportSchema = z
  .object({ x: number.default(0), y: number.default(0), width: number, height: number })
  .describe('Pixels, measured from the screen’s origin');

const orientationSchema = z.union([
  z.object({ lookAt: vec3Schema, up: vec3Schema.optional() }),
  z.object({ yaw: number, pitch: number, roll: number.default(0) }),
  z.object({ quaternion: quatSchema }),
  z.object({ right: vec3Schema, up: vec3Schema, forward: vec3Schema }),
]);

const shaped = { aspect: number.optional(), shift: vec2Schema.optional() };
const far = number.nullable().describe('null is infinity');
export const projectionSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('perspective'),
    near: number,
    far,
    verticalFov: number.optional(),
    horizontalFov: number.optional(),
    diagonalFov: number.optional(),
    focalLength: number.optional(),
    sensorHeight: number.optional(),
    ...shaped,
  }),
  z.object({
    kind: z.literal('orthographic'),
    near: number,
    far: number,
    height: number.optional(),
    width: number.optional(),
    ...shaped,
  }),
  z.object({
    kind: z.literal('frustum'),
    near: number,
    far,
    left: number,
    right: number,
    bottom: number,
    top: number,
  }),
]);

export const camera3dSchema = z.object({
  position: vec3Schema,
  orientation: orientationSchema,
  projection: projectionSchema,
});

export const camera2dSchema = z.object({
  kind: z.literal('2d'),
  focus: vec2Schema.describe('The world point that lands on the anchor'),
  anchor: vec2Schema.describe('A screen point'),
  zoom: number.describe('Pixels per world unit'),
  rotation: number.default(0),
  snap: z.enum(['none', 'floor', 'round']).default('none'),
});

export const cameraSchema = z.union([camera3dSchema, camera2dSchema]);

/** A world point: three numbers, or two with a 2D camera. */
const pointSchema = z.union([vec3Schema, vec2Schema]);

/** In a 2D world a box may leave out its third size. */
const requestShapeSchema = shapes(z.union([boxSize, z.tuple([positive, positive])]));

export const bodySchema = z.object({
  id: z.string().min(1),
  shape: requestShapeSchema,
  position: pointSchema,
  rotation: quatSchema.optional(),
  scale: z.union([number, vec3Schema]).optional(),
  parent: z.string().optional(),
  castsShadow: z.boolean().optional(),
});

const areNumbers = (value: unknown, least: number, most: number): boolean => {
  if (!Array.isArray(value) || value.length < least || value.length > most) return false;
  for (const one of value) if (typeof one !== 'number' || !(Math.abs(one) <= largest)) return false;
  return true;
};
const points = listOf(pointSchema, (value) => areNumbers(value, 2, 3));
const pixels = listOf(vec2Schema, (value) => areNumbers(value, 2, 2));
const sixteen = z.array(number).length(16).describe('Listed as the conventions have it');
/** An engine's numbers, believed to be in the request's conventions. */
const givenSchema = z
  .object({
    view: sixteen.optional(),
    projection: sixteen.optional(),
    viewProjection: sixteen.optional(),
    cameraToWorld: sixteen.optional(),
    points: listOf(z.object({ world: vec3Schema, screen: vec2Schema, depth: number.optional() })).optional(),
  })
  .refine((given) => Object.values(given).some((one) => one !== undefined && one.length > 0), 'a matrix or a point');
const matrixNames = ['view', 'projection', 'viewProjection', 'cameraToWorld'] as const;
const digitsSchema = z.int().min(2).max(15).default(6).describe('Digits of the given numbers that can be trusted');

const planeSchema = z.object({ point: vec3Schema, normal: vec3Schema });
const course = listOf(z.tuple([number, pointSchema]));
const ease = z.enum(['even', 'gentle', 'gentleStart', 'gentleEnd']);
const turns = z.object({ yaw: number.default(0), pitch: number.default(0), roll: number.default(0) });
export const trackSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('scroll'), velocity: pointSchema }),
  z.object({
    kind: z.literal('follow'),
    target: course,
    halfLife: number.nonnegative(),
    deadZone: z.union([z.tuple([number.nonnegative(), number.nonnegative(), number.nonnegative()]), z.tuple([number.nonnegative(), number.nonnegative()])]).optional(), // prettier-ignore
    bounds: z.object({ min: vec2Schema, max: vec2Schema }).optional(),
  }),
  z.object({
    kind: z.literal('orbit'),
    centre: vec3Schema,
    yawRate: number,
    pitchRate: number.default(0),
    pitchLimits: vec2Schema.optional(),
    distanceRate: number.default(0),
  }),
  z.object({
    kind: z.literal('path'),
    keys: listOf(
      z.object({
        time: number,
        position: vec3Schema,
        yaw: number,
        pitch: number,
        roll: number.default(0),
        verticalFov: number,
        ease: ease.default('even'),
      }),
    ),
  }),
  z.object({
    kind: z.literal('walk'),
    inputs: listOf(
      z.object({
        ...{ from: number, to: number },
        ...{ right: number.default(0), up: number.default(0), ahead: number.default(0) },
        ...{ yawRate: number.default(0), pitchRate: number.default(0) },
      }),
    ),
    pitchLimit: number.nonnegative().optional(),
  }),
  z.object({
    kind: z.literal('dollyZoom'),
    target: vec3Schema,
    distance: vec2Schema,
    duration: number,
    ease: ease.default('even'),
  }),
  z.object({
    kind: z.literal('shake'),
    seed: z.int(),
    frequency: number.nonnegative(),
    decay: number.nonnegative(),
    strength: number.min(0).max(1),
    angles: turns.prefault({}),
    offset: vec2Schema.default([0, 0]),
  }),
]);
export type RequestTrack = z.output<typeof trackSchema>;
const when = z.object({ track: trackSchema, time: number }).optional();
/** A query of a name; each may be asked for the camera as it is at a time of a track. */
const query = <Op extends string, Shape extends z.ZodRawShape>(op: Op, shape: Shape) =>
  z.object({ id: z.string(), op: z.literal(op), when, ...shape });

const ids = listOf(z.string()).optional();
const items = listOf(
  z.object({
    position: vec3Schema,
    size: vec2Schema.optional(),
    mode: z.enum(['viewPlane', 'eyePoint', 'axisEye', 'axisView']),
    axis: vec3Schema.optional(),
    front: z.enum(['+n', '-n']).default('+n'),
  }),
);

export const depthChoiceSchema = z.union([
  z.object({ depth: number }),
  z.object({ ahead: number }),
  z.object({ range: number }),
  z.object({ plane: planeSchema }),
]);

export const querySchema = z.discriminatedUnion('op', [
  query('matrices', {}),
  query('worldToScreen', { points }),
  query('screenToWorld', { pixels, at: depthChoiceSchema }),
  query('rays', { pixels }),
  query('pick', {
    pixels,
    backFaces: z.boolean().default(false),
    all: z.boolean().default(false),
    statistics: z.boolean().default(false),
  }),
  query('aim', { muzzle: vec3Schema, pixel: vec2Schema.optional(), reach: positive }),
  query('planes', {}),
  query('visibility', { bodies: ids, margin: number.default(0), method: z.enum(['exact', 'planes']) }),
  query('shadowVisibility', { light: vec3Schema, receiver: planeSchema, bodies: ids }),
  query('screenBounds', { bodies: ids }),
  query('billboard', { items }),
  query('spawn', {
    surface: z.union([z.literal('2d'), z.object({ plane: planeSchema })]),
    bounds: z.union([z.object({ min: vec2Schema, max: vec2Schema }), z.object({ ringOuter: positive })]),
    padding: number.nonnegative().default(0),
    paddingUnit: z.enum(['world', 'pixels']).default('world'),
    radius: number.nonnegative().default(0),
    count: z.int().min(0).max(1_000_000),
    seed: z.int().default(1),
    ahead: z.object({ direction: vec2Schema, halfAngle: positive }).optional(),
    keepAway: listOf(z.object({ centre: vec2Schema, distance: number.nonnegative() })).default([]),
    method: z.enum(['direct', 'rejection']).default('direct'),
  }),
  query('firstSeen', {
    points,
    radius: number.nonnegative().default(0),
    surface: z.union([z.literal('2d'), z.object({ plane: planeSchema })]),
    bodyVelocity: z.union([vec2Schema, z.object({ towards: vec2Schema, speed: number.nonnegative() })]),
    cameraVelocity: vec2Schema,
    within: number.nonnegative(),
  }),
  query('footprint', { plane: planeSchema }),
  query('dollyZoom', { target: vec3Schema, distances: listOf(number) }),
  query('horizon', { normal: vec3Schema.optional() }),
  query('drawOrder', { bodies: ids, key: z.enum(['ahead', 'distance', 'worldUp', 'screenHeight']) }),
  query('clip', { polygons: listOf(listOf(vec3Schema).min(3)) }),
  query('winding', { triangles: listOf(z.tuple([vec3Schema, vec3Schema, vec3Schema])) }),
  query('planarShadow', {
    light: z.union([z.object({ direction: vec3Schema }), z.object({ position: vec3Schema })]),
    receiver: planeSchema,
    points: listOf(vec3Schema).optional(),
  }),
  query('angularMapping', { pixels }),
  query('depthPrecision', { distances: listOf(number), format: z.enum(['unorm16', 'unorm24', 'float32']) }),
  query('apparentSize', { bodies: ids, thresholds: listOf(positive).optional() }),
  query('visibilityBy', {
    bodies: ids,
    test: z.union([z.enum(['centre', 'corners']), z.object({ sphere: number.nonnegative() })]),
  }),
  query('compareCameras', {
    camera: cameraSchema,
    viewport: viewportSchema.optional(),
    points: listOf(vec3Schema).optional(),
    pixels: pixels.optional(),
    range: positive.optional(),
    items: items.optional(),
  }),
  z.object({ id: z.string(), op: z.literal('motion'), track: trackSchema, times: listOf(number) }),
  query('convert', { to: conventionsObject }),
  query('diagnose', {
    given: givenSchema,
    digits: digitsSchema,
    others: z
      .array(z.object({ name: z.string().min(1), camera: camera3dSchema }))
      .max(64)
      .default([]),
    devicePixelRatio: positive.optional(),
    listingUnknown: z
      .array(z.enum(matrixNames))
      .max(4)
      .default([])
      .describe('Matrices that may be listed the other way than the conventions have it'),
  }),
  query('identify', {
    given: givenSchema,
    digits: digitsSchema,
    world: z
      .enum(['given', 'any'])
      .default('any')
      .describe('Whether the world axes of the conventions are kept, or found'),
  }),
]);

export const requestSchema = z
  .object({
    astrolabe: z.literal(1).describe('The version of this format'),
    conventions: conventionsSchema,
    viewport: viewportSchema,
    camera: cameraSchema,
    bodies: listOf(bodySchema).default([]),
    queries: listOf(querySchema),
  })
  .describe('A compute request');

export type ComputeRequest = z.input<typeof requestSchema>;
export type ReadRequest = z.output<typeof requestSchema>;
export type RequestCamera = z.output<typeof camera3dSchema>;
export type RequestCamera2d = z.output<typeof camera2dSchema>;
export type RequestBody = z.output<typeof bodySchema>;
export type RequestProjection = z.output<typeof projectionSchema>;
export type Query = z.output<typeof querySchema>;
export type QueryOf<Op extends Query['op']> = Extract<Query, { op: Op }>;
