import * as z from 'zod';
import { manyFrom } from '../kernels/many';
import { Series } from '../quantities/series';
import { operation } from '../request/operation';
import { answerPoint, answerPoints } from '../request/pointAnswers';
import { answers, input, list, output, pixels, plane, planeName, points, reason } from '../request/values';
import { rayThrough } from './project';
import { pictureToWorld, rayEnds, type DepthChoice } from './unproject';

/** The schema of a depth at which a pixel is taken into the world. */
export const depthChoice = () =>
  z.union([
    z.object({ depth: input.depth('Depth value') }),
    z.object({ ahead: input.number().describe('Distance along the view direction') }),
    z.object({ range: input.number().describe('Distance along the ray') }),
    z.object({ plane: plane() }),
  ]);
/** Returns a depth of a query as the core has it. */
export function depthChoiceOf(at: z.output<ReturnType<typeof depthChoice>>): DepthChoice {
  if ('depth' in at) return { kind: 'depth', shares: at.depth };
  if ('ahead' in at) return { kind: 'ahead', ahead: at.ahead };
  if ('range' in at) return { kind: 'range', range: at.range };
  return { kind: 'plane', ...at.plane };
}

export const convertOperations = [
  operation('worldToScreen', {
    summary:
      'Each point in every space. In perspective, behind the eye or on its plane, a point has no NDC, screen position or depth: never a mirrored ghost.',
    input: { points: points() },
    // Computed in the request's conventions, by the batch kernels where there are many.
    output: {
      points: answers(
        z.object({
          view: output.triple(),
          clip: output.four(),
          ndc: output.triple().nullable(),
          screen: output.pair().nullable().describe('Pixels'),
          depth: z.number().nullable(),
          ahead: z.number().describe('Distance along the view direction'),
          inFront: z.boolean(),
          onScreen: z.boolean(),
          outside: list(planeName()),
          pixelsPerUnit: output
            .pair()
            .nullable()
            .describe('Pixels that a unit along the camera’s right, and up, spans at that depth'),
          reason: reason('behindEye', 'onEyePlane'),
        }),
      ),
    },
    run: ({ points }, setup) => ({
      points: new Series(points.length, (from, to) => {
        const worlds = points.part(from, to);
        return points.length < manyFrom
          ? worlds.map((world) => answerPoint(setup, world))
          : answerPoints(setup, worlds);
      }),
    }),
  }),

  operation('screenToWorld', {
    summary: 'The world point of each pixel at a depth. A 2D world has one point under a pixel, whatever the depth.',
    input: { pixels: pixels(), at: depthChoice() },
    output: {
      pixels: answers(
        z.object({
          point: output.point().nullable(),
          reason: reason('rayParallel', 'planeBehindEye', 'depthAtInfinity', 'behindEye', 'onEyePlane'),
        }),
      ),
    },
    run: ({ pixels, at }, { frame, world }) => {
      const choice: DepthChoice = world.hasDepth ? depthChoiceOf(at) : { kind: 'ahead', ahead: 0 };
      return {
        pixels: pixels.map((pixel) => {
          const point = pictureToWorld(frame, ...pixel, choice);
          return point.ok ? { point: point.value } : { point: null, reason: point.reason };
        }),
      };
    },
  }),

  operation('rays', {
    summary: 'The ray of each pixel: from the eye, or from the pixel’s point of the eye plane if orthographic.',
    worlds: ['3d'],
    input: { pixels: pixels() },
    output: {
      pixels: answers(
        z.object({
          origin: output.point3d(),
          direction: output.axis('Of length 1'),
          nearPoint: output.point3d(),
          farPoint: output.point3d().nullable(),
          reason: reason('depthAtInfinity'),
        }),
      ),
    },
    run: ({ pixels }, { frame }) => ({
      pixels: pixels.map((pixel) => {
        const ray = rayThrough(frame, ...pixel);
        const { near, far } = rayEnds(frame, ray);
        const { origin, direction } = ray;
        return {
          origin,
          direction,
          nearPoint: near,
          ...(far.ok ? { farPoint: far.value } : { farPoint: null, reason: far.reason }),
        };
      }),
    }),
  }),
] as const;
