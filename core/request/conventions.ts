import * as z from 'zod';
import { signedAxes } from '../conventions/axes';
import { conventionProblems } from '../conventions/check';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import { defaultConventions, type Conventions } from '../conventions/conventions';
import { number } from '../quantities/numbers';
import type { Read } from '../reasons';

/* The schema of conventions, for requests, projects and settings. */

const signedAxis = z.enum(signedAxes as [(typeof signedAxes)[number], ...(typeof signedAxes)[number][]]);
const d = defaultConventions;
const axisFrame = z
  .object({
    right: signedAxis.default(d.world.right),
    up: signedAxis.default(d.world.up),
    forward: signedAxis.default(d.world.forward),
  })
  .describe('The signed axes that point right, up and ahead: three different letters');

export const conventionsObject = z.object({
  world: axisFrame.prefault({}),
  view: axisFrame.prefault({}),
  ndc: z
    .object({
      up: z.enum(['+y', '-y']).default(d.ndc.up),
      near: number.default(d.ndc.near),
      far: number.default(d.ndc.far),
    })
    .describe('Direction of NDC y and the NDC depths of the near and far plane, two different numbers')
    .prefault({}),
  screen: z
    .object({
      origin: z.enum(['top-left', 'bottom-left']).default(d.screen.origin),
      pixelCentre: z.union([z.literal(0), z.literal(0.5)]).default(d.screen.pixelCentre),
    })
    .prefault({}),
  matrix: z
    .object({
      vectors: z.enum(['column', 'row']).default(d.matrix.vectors),
      storage: z.enum(['column-major', 'row-major']).default(d.matrix.storage),
    })
    .prefault({}),
  angles: z
    .object({
      unit: z.enum(['degrees', 'radians']).default(d.angles.unit),
      yaw: z.enum(['right', 'left']).default(d.angles.yaw),
      pitch: z.enum(['up', 'down']).default(d.angles.pitch),
      roll: z.enum(['right', 'left']).default(d.angles.roll),
    })
    .prefault({}),
});
/** Conventions; missing parts have their defaults. */
export const conventionsSchema = conventionsObject.prefault({});

/**
 * Checks conventions whose parts are each valid.
 *
 * @param at - path of the conventions in the request
 * @returns their codec, or the problems of `conventionProblems`
 */
export function readConventions(conventions: Conventions, at = 'conventions'): Read<ConventionCodec> {
  const problems = conventionProblems(conventions, at);
  return problems.length ? { ok: false, problems } : { ok: true, value: codecOf(conventions) };
}
