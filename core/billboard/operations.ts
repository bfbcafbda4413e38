import * as z from 'zod';
import { operation } from '../request/operation';
import { answers, input, output, reason, series, sixteen } from '../request/values';
import { billboard } from './billboard';

/** The schema of billboards that are asked about. */
export const items = () =>
  series(
    z.object({
      position: input.point3d(),
      size: input.pair().optional(),
      mode: z.enum(['viewPlane', 'eyePoint', 'axisEye', 'axisView']),
      axis: input.axis('For the modes about an axis; the world’s up if absent').optional(),
      front: z.enum(['+n', '-n']).default('+n').describe('Which side faces the camera'),
    }),
  );

export const billboardOperations = [
  operation('billboard', {
    summary:
      'Orients billboards towards the camera. The matrix takes the billboard’s own space to the world, with its position and without its size.',
    worlds: ['3d'],
    input: { items: items() },
    output: {
      items: answers(
        z.object({
          right: output.axis(),
          up: output.axis(),
          normal: output.axis(),
          matrix: sixteen(),
          quaternion: output.rotation(),
          tilt: output.angle('On the screen, clockwise from straight up to the projected `up`').nullable(),
          degenerate: z.boolean().describe('Geometry gives no answer, and the camera’s right is kept'),
          reason: reason('behindEye', 'onEyePlane', 'rayParallel'),
        }),
      ),
    },
    run: ({ items }, { frame, codec }) => ({
      items: items.map(({ position, mode, axis, front }) => {
        const { tilt, matrix, ...turned } = billboard(frame, position, mode, axis, front === '-n');
        return {
          ...turned,
          matrix: codec.toList(codec.toModel(matrix)),
          ...(tilt.ok ? { tilt: tilt.value } : { tilt: null, reason: tilt.reason }),
        };
      }),
    }),
  }),
] as const;
