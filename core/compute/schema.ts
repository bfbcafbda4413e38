import * as z from 'zod';
import { listOf } from '../quantities/numbers';
import { bodySchema } from '../request/bodySchema';
import { cameraSchema, viewportSchema, type RequestCamera, type RequestCamera2d } from '../request/cameraSchema';
import { conventionsSchema } from '../request/conventions';
import { resolvedCameraSchema } from '../request/resolvedCamera';
import type { RequestBody } from '../request/bodySchema';
import type { Conventions } from '../conventions/conventions';
import type { Viewport } from '../camera/frame';
import { operationTable, querySchema, type Query } from './operations';

/*
 * The shape of a compute request and its response (`docs/compute.md`). Schemas check each number; numbers that must
 * fit together are checked when the request is read.
 */

export const requestSchema = z
  .object({
    $schema: z.string().optional().describe('The address of this schema, for editors; it is not read'),
    astrolabe: z.literal(1).describe('The version of this format'),
    conventions: conventionsSchema,
    viewport: viewportSchema,
    camera: cameraSchema,
    bodies: listOf(bodySchema).default([]),
    queries: listOf(querySchema),
  })
  .describe('A compute request');

/** A request as it is written. */
export type ComputeRequest = z.input<typeof requestSchema>;
/** A request as it is parsed: written values, with their defaults. */
export interface ReadRequest {
  readonly astrolabe: 1;
  readonly conventions: Conventions;
  readonly viewport: Viewport;
  readonly camera: RequestCamera | RequestCamera2d;
  readonly bodies: readonly RequestBody[];
  readonly queries: readonly Query[];
}

const error = z.object({ code: z.string(), message: z.string() });
const result = <Shape extends z.ZodRawShape>(name: string, shape: Shape) =>
  z.object({ id: z.string(), op: z.literal(name), ...shape });

/** The schema of a response. */
export const responseSchema = z
  .object({
    $schema: z.string().optional().describe('The address of this schema, for editors; it is not read'),
    astrolabe: z.literal(1),
    camera: resolvedCameraSchema.nullable(),
    reason: z.literal('cameraNotGiven').optional(),
    results: z.array(
      z.union([
        ...operationTable.map(({ name, output }) => result(name, output.shape)),
        z.object({ id: z.string(), op: z.string(), error }).describe('A query that has no answer'),
      ]),
    ),
    warnings: z.array(z.object({ path: z.string(), message: z.string() })),
  })
  .describe('The answer to a compute request');
