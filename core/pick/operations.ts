import * as z from 'zod';
import { pictureToViewRuf, viewRufToWorld } from '../convert/project';
import { positive } from '../quantities/numbers';
import { lengthOf, operation } from '../request/operation';
import { answers, body, input, list, output, pixels } from '../request/values';
import { aim } from './aim';
import { pick, pickFlat } from './pick';
import { lookedAt } from './sceneTree';

const hit = () =>
  z.object({
    body: body(),
    distance: z.number().describe('From the ray’s origin'),
    point: output.point(),
    normal: output.axis(),
    facing: z.enum(['front', 'back']),
    triangle: z.int().optional().describe('Triangle of a mesh, from 0'),
  });

/** Looks at a body that the ray of a pixel costs at least. */
const looksPerRay = 20;

export const pickOperations = [
  operation('pick', {
    summary:
      'Casts the ray of each pixel at the bodies. Hits come nearest first; hits nearer than near or beyond far do not count.',
    input: {
      pixels: pixels(),
      backFaces: z.boolean().default(false),
      all: z.boolean().default(false).describe('All hits of a ray, not the first alone'),
      statistics: z.boolean().default(false),
    },
    output: {
      pixels: answers(
        z.object({
          hits: list(hit()),
          tested: z
            .object({ boxes: z.int(), triangles: z.int() })
            .optional()
            .describe('What a tree over all surfaces tests, spheres among the triangles; informative'),
        }),
      ),
    },
    cost: ({ pixels: asked, statistics }, { bodies, vertices }) =>
      lengthOf(asked) * (bodies + looksPerRay) + (statistics ? 10 * (bodies + vertices) : 0),
    run: ({ pixels, backFaces, all, statistics }, { frame, placed, world }) => ({
      pixels: pixels.map((at) => {
        const hits = world.hasDepth
          ? pick(frame, ...at, placed, { backFaces, all })
          : pickFlat(viewRufToWorld(frame, pictureToViewRuf(frame, ...at, 0)), placed, all);
        if (!statistics) return { hits };
        return {
          hits,
          tested: world.hasDepth ? lookedAt(placed, frame, at, backFaces, all) : { boxes: 0, triangles: placed.length },
        };
      }),
    }),
  }),

  operation('aim', {
    summary:
      'Aims in two stages: the ray of the pixel finds the target, the ray from the muzzle to the target finds the hit.',
    worlds: ['3d'],
    input: {
      muzzle: input.point3d(),
      pixel: input.pixel('The centre of the viewport if absent').optional(),
      reach: positive.describe('Length of the ray of the pixel'),
    },
    output: {
      target: output.point3d('What the ray of the pixel meets, or its point at `reach`'),
      targetBody: body().nullable(),
      hit: hit().nullable().describe('What the ray from the muzzle meets first'),
      blockedBy: body().nullable().describe('The body that cuts the line from the muzzle short of the target'),
      angle: output.angle('Between the two rays'),
    },
    cost: (_, { bodies, vertices }) => 2 * bodies + vertices,
    run: ({ muzzle, pixel, reach }, { frame, placed }) => aim(frame, placed, muzzle, reach, pixel ?? [0, 0]),
  }),
] as const;
