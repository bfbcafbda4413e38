import * as z from 'zod';
import { number, positive } from '../quantities/numbers';
import { describe } from '../quantities/quantity';
import { boxSize, shapes } from './shapes';
import { input } from './values';

/** The size of a box; in a 2D world it may leave out its third component. */
const requestBoxSize = describe(z.union([boxSize, z.tuple([positive, positive])]), 'sizes', {});
const sizes = describe(input.triple(), 'sizes', {});

/** The shape of a request's body (`docs/compute.md`). */
export const bodySchema = z.object({
  id: z.string().min(1),
  shape: shapes(requestBoxSize),
  position: input.point(),
  rotation: input.rotation().optional(),
  scale: z.union([number, sizes]).optional(),
  parent: z.string().optional(),
  castsShadow: z.boolean().optional(),
  foot: input
    .point(
      'The point by which `drawOrder` sorts the body, in its own space: the foot of a sprite. The origin if absent',
    )
    .optional(),
});
/** A body as a request writes it. */
export type RequestBody = z.input<typeof bodySchema>;
