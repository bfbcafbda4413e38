import * as z from 'zod';
import { largest, listOf, number, positive } from '../quantities/numbers';
import { describe } from '../quantities/quantity';

/* Schemas of bodies' shapes, for requests and projects. */

const isNumber = (value: unknown): boolean => typeof value === 'number' && Math.abs(value) <= largest;
const isIndex = (value: unknown): boolean => Number.isSafeInteger(value) && (value as number) >= 0;

/** Returns the schema of a shape, by the schema of a box's size. */
export const shapes = <Size extends z.ZodType>(boxSize: Size) =>
  z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('point') }),
    z.object({ kind: z.literal('sphere'), radius: positive }),
    z.object({ kind: z.literal('box'), size: boxSize }),
    z.object({ kind: z.literal('quad'), size: z.tuple([positive, positive]) }),
    z.object({
      kind: z.literal('mesh'),
      positions: describe(listOf(number, isNumber), 'points', {}),
      indices: listOf(z.int().nonnegative(), isIndex),
    }),
  ]);
export const boxSize = z.tuple([positive, positive, positive]);
export const shapeSchema = shapes(boxSize);
