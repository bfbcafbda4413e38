import * as z from 'zod';
import { failure, operation } from '../request/operation';
import { list, output, plane } from '../request/values';
import { footprint } from './footprint';

export const groundOperations = [
  operation('footprint', {
    summary:
      'The polygon in which the frustum meets a plane, in order, counter-clockwise as seen from the tip of the normal.',
    worlds: ['3d'],
    input: { plane: plane() },
    output: { polygon: list(output.point3d()), unbounded: z.boolean().describe('It extends to infinity') },
    run: ({ plane: { point, normal } }, { frame }) =>
      footprint(frame, point, normal) ??
      failure('footprintEmpty', 'The frustum does not meet this plane. Move the plane or the camera.'),
  }),
] as const;
