import * as z from 'zod';
import type { Answer } from '../reasons';
import { lengthOf, operation } from '../request/operation';
import { answers, input, reason, series } from '../request/values';
import { distancesTried, pipelineError, pipelines, pipesOf, safeDistance } from './pipelines';

const pixelsOff = (what: string) => z.number().nullable().describe(what);
const valueOf = (found: Answer<number>): number | null => (found.ok ? found.value : null);

export const precisionOperations = [
  operation('precision', {
    summary:
      'By how many pixels customary single-precision pipelines miss the true place of points, and at which distance from the world’s origin that first exceeds half a pixel.',
    worlds: ['3d'],
    input: { points: series(input.point3d()) },
    output: {
      points: answers(
        z.object({
          position: pixelsOff('The point rounded to float32, all else in doubles'),
          world: pixelsOff('View-projection in float32 by the rounded world point'),
          relative: pixelsOff('The point less the eye in doubles, then float32'),
          safeDistance: z
            .number()
            .nullable()
            .describe('Distance from the world’s origin at which `world` first exceeds half a pixel'),
          reason: reason('behindEye', 'onEyePlane', 'neverExceeds', 'noDirection'),
        }),
      ),
    },
    cost: ({ points }) => lengthOf(points) * distancesTried,
    run: ({ points }, { frame, codec }) => {
      const pipes = pipesOf(frame, codec);
      return {
        points: points.map((point) => {
          const [position, world, relative] = pipelines.map((pipeline) => pipelineError(pipes, pipeline, point)) as [
            Answer<number>,
            Answer<number>,
            Answer<number>,
          ];
          const safe = safeDistance(pipes, point);
          const missing = [position, world, relative, safe].find((one) => !one.ok);
          return {
            position: valueOf(position),
            world: valueOf(world),
            relative: valueOf(relative),
            safeDistance: valueOf(safe),
            ...(missing && !missing.ok && { reason: missing.reason }),
          };
        }),
      };
    },
  }),
] as const;
