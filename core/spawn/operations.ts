import * as z from 'zod';
import type { Vec2 } from '../math/vec3';
import { positive } from '../quantities/numbers';
import { seriesOf } from '../quantities/series';
import { failure, lengthOf, operation, type Failure } from '../request/operation';
import type { Setup } from '../request/setup';
import { answers, input, reason, output, plane, points } from '../request/values';
import { grown } from '../visibility/visibility';
import { firstTouch, velocityAt } from './firstSeen';
import { areaAndCentroid } from './region';
import { mostTries, spawn } from './spawn';
import { flatSurface, planeSurface, type Surface } from './surface';

const surface = () =>
  z.union([z.literal('2d'), z.object({ plane: plane() })]).describe('The world of a 2D camera, or a plane');
type AskedSurface = z.output<ReturnType<typeof surface>>;

/** Returns the failure of a surface that does not suit the camera. */
function surfaceProblem(asked: AskedSurface, { world }: Setup): Failure | null {
  if ((asked === '2d') === !world.hasDepth) return null;
  return failure(
    'notIn2d',
    world.hasDepth ? 'The surface "2d" needs a 2D camera; give a plane.' : 'With a 2D camera the surface is "2d".',
  );
}

/** Returns the surface; null for a plane whose normal has no length. */
const surfaceOf = (asked: AskedSurface): Surface | null =>
  asked === '2d' ? flatSurface : planeSurface(asked.plane.point, asked.plane.normal);

/** Returns the failure of a camera that sees nothing of a surface, or sees it to infinity. */
const notVisible = (why: string | readonly unknown[]): Failure =>
  why === 'footprintUnbounded'
    ? failure('footprintUnbounded', 'The camera sees this surface to infinity. Bring far in or look farther down.')
    : failure(
        'footprintEmpty',
        'The camera sees nothing of this surface, so there is nothing to keep out of. Turn it towards the surface.',
      );

/** The box between two opposite corners. */
const boxBetween = (a: Vec2, b: Vec2): { min: Vec2; max: Vec2 } => ({
  min: [Math.min(a[0], b[0]), Math.min(a[1], b[1])],
  max: [Math.max(a[0], b[0]), Math.max(a[1], b[1])],
});

const notNegative = () => input.number().nonnegative();
/** Tries a point where a point that is not allowed is drawn again: how many that takes is not known before. */
const triesPerPoint = 50;

export const spawnOperations = [
  operation('spawn', {
    summary: 'Draws points of a surface that are out of sight and allowed by the terms, uniformly by area.',
    input: {
      surface: surface(),
      bounds: z
        .union([
          z.object({ min: input.surfacePoint(), max: input.surfacePoint() }),
          z.object({ ringOuter: positive.describe('Outer radius of a ring about the visible region') }),
        ])
        .describe('Where points may be'),
      padding: notNegative().default(0).describe('Distance from the visible region'),
      paddingUnit: z.enum(['world', 'pixels']).default('world'),
      radius: notNegative().default(0).describe('Radius of the discs that appear'),
      count: z.int().min(0).max(1_000_000),
      seed: z.int().default(1),
      ahead: z
        .object({ direction: input.surfaceVector(), halfAngle: input.angle(undefined, positive) })
        .optional()
        .describe('A sector about a direction, with its apex at the centroid of the visible region'),
      keepAway: z
        .array(z.object({ centre: input.surfacePoint(), distance: notNegative() }))
        .default([])
        .describe('Discs where no point may be'),
      method: z.enum(['direct', 'rejection']).default('direct'),
    },
    output: {
      points: answers(output.point()),
      statistics: z.object({ areaAllowed: z.number(), areaBounds: z.number(), tries: z.number() }),
    },
    cost: ({ count, method, keepAway }) =>
      (method === 'rejection' ? triesPerPoint : 2) * (typeof count === 'number' ? count : 0) + lengthOf(keepAway) ** 2,
    counts: ({ count, keepAway }) => ({
      spawned: typeof count === 'number' && count > 0 ? count : 0,
      discs: lengthOf(keepAway),
    }),
    countedLists: ['keepAway'],
    run: (query, setup) => {
      const { frame } = setup;
      const problem = surfaceProblem(query.surface, setup);
      if (problem) return problem;
      const surface = surfaceOf(query.surface);
      const inPixels = query.paddingUnit === 'pixels';
      const visible = surface?.visible(inPixels ? grown(frame, query.padding) : frame) ?? 'footprintEmpty';
      const plain = surface?.visible(frame) ?? 'footprintEmpty';
      if (typeof visible === 'string' || typeof plain === 'string' || !surface)
        return notVisible(visible === 'footprintUnbounded' ? visible : plain);
      const { bounds, ahead, keepAway } = query;
      const found = spawn(
        {
          visible,
          clearance: inPixels ? query.radius : query.padding + query.radius,
          bounds: 'ringOuter' in bounds ? bounds : boxBetween(bounds.min, bounds.max),
          keepAway,
          ahead: ahead ? { apex: areaAndCentroid(plain).centroid, ...ahead } : null,
        },
        query.count,
        query.seed,
        query.method,
      );
      if ('why' in found)
        return found.why === 'noAreaLeft'
          ? failure('noAreaLeft', 'The terms leave no area to appear in. Widen the bounds or ask for less padding.')
          : failure(
              'tooManyTries',
              `Rolling again would take about ${found.expected.toExponential(1)} tries, and up to ${mostTries.toLocaleString('en')} are made. Draw directly, or ask for fewer points.`,
            );
      const { areaAllowed, areaBounds, tries } = found;
      return {
        points: seriesOf(found.points).map(surface.at),
        statistics: { areaAllowed, areaBounds, tries },
      };
    },
  }),

  operation('firstSeen', {
    summary:
      'When a disc that moves evenly first touches the visible region of a surface, which moves with the camera; 0 if it does so already. The camera keeps its orientation and moves along the surface.',
    input: {
      points: points('Where the discs are'),
      radius: notNegative().default(0),
      surface: surface(),
      bodyVelocity: z
        .union([
          input.surfaceVector(),
          z.object({ towards: input.surfacePoint('Aimed at once, at the start'), speed: notNegative() }),
        ])
        .describe('Velocity of the discs'),
      cameraVelocity: input.surfaceVector(),
      within: notNegative().describe('Seconds'),
    },
    output: { points: answers(z.object({ seconds: z.number().nullable(), reason: reason('notWithin') })) },
    run: ({ points, radius, surface: asked, bodyVelocity, cameraVelocity, within }, setup) => {
      const problem = surfaceProblem(asked, setup);
      if (problem) return problem;
      const surface = surfaceOf(asked);
      const visible = surface?.visible(setup.frame) ?? 'footprintEmpty';
      if (typeof visible === 'string' || !surface) return notVisible(visible);
      const motion = 'towards' in bodyVelocity ? bodyVelocity : { velocity: bodyVelocity };
      return {
        points: points.map((point) => {
          const place = surface.coordinates(point);
          const found = firstTouch(visible, place, radius, velocityAt(place, motion), cameraVelocity, within);
          return found.ok ? { seconds: found.value } : { seconds: null, reason: found.reason };
        }),
      };
    },
  }),
] as const;
