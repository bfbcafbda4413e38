import * as z from 'zod';
import { length2, type Vec2 } from '../math/vec3';
import { positive } from '../quantities/numbers';
import { seriesOf } from '../quantities/series';
import { failure, lengthOf, operation, type Failure } from '../request/operation';
import type { Setup } from '../request/setup';
import { answers, input, reason, output, plane, points } from '../request/values';
import { grown } from '../visibility/visibility';
import { firstTouch, velocityAt } from './firstSeen';
import { areaAndCentroid } from './region';
import { mostTries, spawn } from './spawn';
import { expandBox, flatSurface, planeSurface, type Surface, type SurfaceBox } from './surface';

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
const notVisible = (why: 'footprintEmpty' | 'footprintUnbounded', answer: string): Failure =>
  why === 'footprintUnbounded'
    ? failure('footprintUnbounded', `The camera sees this surface to infinity, so ${answer}`)
    : failure(
        'footprintEmpty',
        'The camera sees nothing of this surface, so there is nothing to keep out of. Turn it towards the surface.',
      );

/** Returns the box around places of a surface, at least one. */
function boxAround(places: readonly Vec2[]): SurfaceBox {
  const [min, max]: [[number, number], [number, number]] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (const place of places)
    for (const i of [0, 1] as const) {
      min[i] = Math.min(min[i], place[i]);
      max[i] = Math.max(max[i], place[i]);
    }
  return { min, max };
}
const ringUnbounded = 'a ring about what it sees has no end. Give bounds by two corners, bring far in or look farther down.'; // prettier-ignore
const apexMissing = 'a sector needs a part of it within the bounds to begin at. Leave “ahead” out, widen the bounds or bring far in.'; // prettier-ignore
const sweepUnbounded = 'discs that go beyond all numbers meet nothing. Give a shorter time or smaller velocities.';

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
        .describe(
          'A sector about a direction, with its apex at the centroid of the visible region; of its part within the bounds where it reaches infinity',
        ),
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
      if (!surface) return notVisible('footprintEmpty', '');
      const { bounds, ahead, keepAway } = query;
      const inPixels = query.paddingUnit === 'pixels';
      const clearance = inPixels ? query.radius : query.padding + query.radius;
      const box = 'ringOuter' in bounds ? null : boxAround([bounds.min, bounds.max]);
      // Clipping beyond the clearance leaves every distance that counts as it is.
      const size = box ? Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1]) : 0;
      const within = box && expandBox(box, 2 * clearance + size);
      const visible = surface.visible(inPixels ? grown(frame, query.padding) : frame, within);
      if (typeof visible === 'string') return notVisible(visible, ringUnbounded);
      const plain = surface.visible(frame, box);
      if (typeof plain === 'string') return notVisible(plain, ringUnbounded);
      if (ahead && !plain.length) return notVisible('footprintUnbounded', apexMissing);
      const found = spawn(
        {
          visible,
          clearance,
          bounds: box ?? (bounds as { ringOuter: number }),
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
      if (!surface) return notVisible('footprintEmpty', '');
      const motion = 'towards' in bodyVelocity ? bodyVelocity : { velocity: bodyVelocity };
      const places = points.map(surface.coordinates);
      // No disc meets anything beyond the paths of all of them, seen from the region.
      const speed = 'towards' in bodyVelocity ? bodyVelocity.speed : length2(...bodyVelocity);
      const range = 2 * ((speed + length2(...cameraVelocity)) * within + radius) + 1;
      const around = boxAround(places.length ? places.all() : [[0, 0]]);
      const visible = surface.visible(setup.frame, expandBox(around, range));
      if (typeof visible === 'string') return notVisible(visible, sweepUnbounded);
      return {
        points: places.map((place) => {
          const found = firstTouch(visible, place, radius, velocityAt(place, motion), cameraVelocity, within);
          return found.ok ? { seconds: found.value } : { seconds: null, reason: found.reason };
        }),
      };
    },
  }),
] as const;
