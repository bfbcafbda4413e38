import * as z from 'zod';
import { number } from '../quantities/numbers';
import type { Written } from '../quantities/quantity';
import { input } from './values';

/*
 * The shape of a request's camera (`docs/compute.md`). Numbers that must fit together (near below far, one field of
 * view) are checked when the request is read.
 */

export const viewportSchema = z
  .object({ x: number.default(0), y: number.default(0), width: number, height: number })
  .describe('Pixels, measured from the screen’s origin');

const orientationSchema = z.union([
  z.object({ lookAt: input.point3d(), up: input.axis().optional() }),
  z.object({ yaw: input.yaw(), pitch: input.pitch(), roll: input.roll().default(0) }),
  z.object({ quaternion: input.four() }),
  z.object({ right: input.axis(), up: input.axis(), forward: input.axis() }),
]);

const shaped = { aspect: number.optional(), shift: input.pair().optional() };
const far = number.nullable().describe('null is infinity');
export const projectionSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('perspective'),
    near: number,
    far,
    verticalFov: input.angle().optional(),
    horizontalFov: input.angle().optional(),
    diagonalFov: input.angle().optional(),
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
  position: input.point3d(),
  orientation: orientationSchema,
  projection: projectionSchema,
});

export const camera2dSchema = z.object({
  kind: z.literal('2d'),
  focus: input.surfacePoint('The world point that lands on the anchor'),
  anchor: input.pixel('A screen point'),
  zoom: number.describe('Pixels per world unit'),
  rotation: input.angle().default(0),
  snap: z.enum(['none', 'floor', 'round']).default('none'),
});

export const cameraSchema = z.union([camera3dSchema, camera2dSchema]);

/** A request's camera as parsed: written in its conventions, with its defaults. */
export type RequestCamera = Written<typeof camera3dSchema>;
export type RequestCamera2d = Written<typeof camera2dSchema>;
export type RequestProjection = RequestCamera['projection'];
