import * as z from 'zod';
import { asWritten, type Written } from '../quantities/quantity';
import { bodySchema } from '../request/bodySchema';
import { cameraSchema } from '../request/cameraSchema';
import { conventionsObject, readConventions } from '../request/conventions';
import { operation } from '../request/operation';
import { list, sixteen } from '../request/values';
import { reexpressCamera, reexpressCamera2d, writeBody } from '../request/write';
import { codecOf, type MatrixName } from './codec';
import type { Conventions } from './conventions';

export const conventionsOperations = [
  operation('convert', {
    summary: 'The camera, the bodies and the matrices in other conventions. Pixels stay where they are on the screen.',
    input: { to: conventionsObject },
    output: {
      camera: asWritten(cameraSchema),
      bodies: list(asWritten(bodySchema)),
      matrices: z.object({
        view: sixteen(),
        projection: sixteen(),
        viewProjection: sixteen(),
        cameraToWorld: sixteen(),
      }),
    },
    problems: ({ to }: { readonly to: Conventions }) => {
      const read = readConventions(to, 'to');
      return read.ok ? [] : read.problems;
    },
    run: ({ to }, { codec: from, context, frame, camera, bodies }) => {
      const codec = codecOf(to);
      const listed = (name: MatrixName) => codec.toList(codec.matrix(frame, name));
      return {
        camera:
          'kind' in camera
            ? reexpressCamera2d(camera, frame.viewport, from, codec)
            : reexpressCamera(camera, from, codec),
        bodies: bodies.map((body) => writeBody(body, { ...context, codec }) as Written<typeof bodySchema>),
        matrices: {
          view: listed('view'),
          projection: listed('projection'),
          viewProjection: listed('viewProjection'),
          cameraToWorld: listed('cameraToWorld'),
        },
      };
    },
  }),
] as const;
