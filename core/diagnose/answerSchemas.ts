import * as z from 'zod';
import { conventionsObject } from '../request/conventions';
import { output } from '../request/values';
import { givenNames2d } from './diagnose2d';
import { faultNames2d } from './engine2d';
import { faultNames, givenNames } from './faults';

/* The schemas of answers of `diagnose` and `identify`. Their numbers are in the request's conventions as they come. */

const matrixNames = ['view', 'cameraToWorld', 'projection', 'viewProjection'] as const;
const digits = () => z.record(z.string(), z.int()).describe('Figures of each number that the input supports');

const said = z.object({
  where: z.enum([...new Set([...givenNames, ...givenNames2d, 'matrices'] as const)]),
  fault: z.enum([...new Set([...faultNames, ...faultNames2d, 'otherCamera', 'differs'] as const)]),
  which: z.string().optional().describe('The other camera by its name, or the variant of the fault'),
  what: z
    .array(
      z.object({
        name: z.enum([
          'position',
          'orientation',
          'fieldOfView',
          'aspect',
          'near',
          'far',
          'shift',
          'zoom',
          'rotation',
          'mirrored',
        ]),
        intended: z.unknown(),
        given: z.unknown(),
        digits: z.int().optional(),
      }),
    )
    .optional(),
});
const deciding = z.union([
  z.object({
    where: z.enum(matrixNames),
    row: z.int(),
    column: z.int(),
    values: z.tuple([z.number(), z.number()]).describe('By the first set of faults, and by the other'),
  }),
  z.object({ where: z.null(), reason: z.literal('nothingDecides') }),
]);
const noPicture = () => z.literal('noPicture').optional();
const residual = () => z.number().nullable();
const byGiven = () =>
  z.object({
    view: residual().optional(),
    cameraToWorld: residual().optional(),
    projection: residual().optional(),
    viewProjection: residual().optional(),
    points: residual().optional(),
    reason: noPicture(),
  });

const pose = z.object({
  position: output.triple(),
  right: output.triple(),
  up: output.triple(),
  forward: output.triple(),
  yaw: z.number(),
  pitch: z.number(),
  roll: z.number(),
  mirrored: z.boolean(),
  scale: output.triple().describe('Of the three rows'),
  shear: z.number().describe('The greatest between two rows'),
  digits: digits(),
});
const lens = z.object({
  kind: z.enum(['perspective', 'orthographic']),
  aspect: z.number(),
  horizontalFov: z.number().optional(),
  verticalFov: z.number().optional(),
  width: z.number().optional(),
  height: z.number().optional(),
  shift: output.pair(),
  near: z.number(),
  far: z.number().nullable(),
  digits: digits(),
});

const decomposed2d = z.object({
  zoom: z.number().describe('Pixels per world unit'),
  isUniform: z.boolean().describe('Whether both axes have the zoom, at right angles'),
  rotation: z.number().describe('Of the world, counter-clockwise as seen'),
  mirrored: z.boolean().describe('Against the conventions'),
  focus: output.pair().describe('The world point at the anchor'),
});

export const diagnosedShape = {
  verdict: z.enum(['agrees', 'explained', 'unexplained']),
  residual: residual().describe('Greatest difference in pixels'),
  depthResidual: residual().optional().describe('Greatest difference in depth; not of a 2D camera'),
  reason: noPicture(),
  residuals: byGiven().optional().describe('Of each given thing by itself, the others being right; not of a 2D camera'),
  depthResiduals: byGiven().optional(),
  listing: z.enum(['given', 'other']).optional(),
  explanations: z.array(
    z.object({
      faults: z.array(said),
      equivalent: z.array(z.array(said)).describe('Other sets that give the same numbers to their digits'),
      decides: z
        .array(deciding)
        .optional()
        .describe('For each of `equivalent`, the number that tells it from `faults`'),
      residual: residual(),
      depthResidual: residual().optional(),
      reason: noPicture(),
      likelihood: z.number(),
      mend: z.string(),
      listing: z.literal('other').optional(),
    }),
  ),
  decomposed: z.union([
    z.object({
      pose: pose.nullable(),
      lens: lens.nullable(),
      reason: z.literal('notACamera').optional(),
    }),
    decomposed2d,
    z.object({ reason: z.literal('notACamera') }),
  ]),
};

const openNumber = z.union([z.number(), output.triple()]);
export const identifiedShape = {
  candidates: z
    .array(
      z.object({
        conventions: conventionsObject,
        camera: z.looseObject({}).describe('In the form of a request, as much as the numbers hold'),
        digits: digits().optional(),
      }),
    )
    .describe('Likeliest first'),
  decided: z.looseObject({}).describe('Conventions and numbers that all candidates share'),
  open: z.array(
    z.object({
      name: z.enum(['world', 'view', 'ndc', 'matrix', 'anchor']),
      number: z.enum(['near', 'position', 'viewOfPoint', 'yaw', 'anchor']),
      decides: z.string(),
      values: z.array(z.looseObject({ number: openNumber })),
    }),
  ),
  reason: z.literal('notACamera').optional(),
};
