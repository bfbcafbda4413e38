import * as z from 'zod';
import type { CameraFrame } from '../camera/frame';
import type { PicturePosition } from '../convert/project';
import { jittered } from '../derive/jitter';
import type { Vec2 } from '../math/vec3';
import { number } from '../quantities/numbers';
import { Series } from '../quantities/series';
import { asWritten } from '../quantities/quantity';
import type { Answer, Problem, Read } from '../reasons';
import { setupAlong } from '../request/along';
import { camera3dSchema, type RequestCamera } from '../request/cameraSchema';
import { failure, lengthOf, operation, type Failure } from '../request/operation';
import { readFrame } from '../request/readCamera';
import type { Setup } from '../request/setup';
import { answers, input, output, reason, series, sixteen } from '../request/values';
import { pictureOf, previousPicture, reprojectionMatrix, screenMotion } from './reproject';

/** The previous camera: written as a request's camera, or the time of the query's track. */
type Previous = RequestCamera | { readonly time: number };

const motion = () =>
  z.object({
    pixels: output.pair().describe('In the axes of the screen'),
    ndc: output.pair().describe('Along NDC x and y'),
    uv: output.pair().describe('In the unit square of the viewport, with the screen’s origin'),
  });
const place = () => z.object({ screen: output.pixel(), depth: output.depth() });
const item = () =>
  z.object({
    screen: output.pixel().nullable(),
    depth: output.depth().nullable(),
    previous: place().nullable(),
    motion: motion().nullable().describe('Current less previous'),
    reason: reason('behindEye', 'outOfRange'),
  });

/** Returns the frame of the previous camera, or why there is none. */
function previousFrame(previous: Previous, { codec, frame, along }: Setup): Read<CameraFrame> | Failure {
  if (!('time' in previous)) return readFrame(previous, codec, frame.viewport);
  // `problems` has checked that the query has a track.
  const there = setupAlong(along!.rest, along!.track, previous.time);
  return there.ok ? { ok: true, value: there.value.frame } : failure(there.code, there.message);
}

/** Returns a frame with its picture moved by a jitter offset; the same frame without one. */
function withJitter(frame: CameraFrame, offset: Vec2 | undefined, { codec }: Setup): Read<CameraFrame> {
  if (!offset) return { ok: true, value: frame };
  const moved = jittered('jittered', frame, offset, codec.screenGrowsUp);
  return moved.ok ? { ok: true, value: moved.value.frame } : moved;
}

/** The written query as far as `problems` reads it. */
interface Asked {
  readonly previous: Previous;
  readonly points?: { readonly length: number };
  readonly previousPoints?: { readonly length: number };
  readonly when?: unknown;
}

export const reprojectOperations = [
  operation('reproject', {
    summary:
      'Where the previous camera showed what the current one shows, and how far it moved: motion vectors and the matrix that gives them.',
    worlds: ['3d'],
    input: {
      previous: z
        .union([asWritten(camera3dSchema), z.object({ time: number.describe('Seconds of the track of `when`') })])
        .describe('The previous camera: a camera as in a request, or another time of the query’s track'),
      points: series(input.point3d()).optional(),
      previousPoints: series(input.point3d(), 'Where `points` were: bodies in motion').optional(),
      pixels: series(z.object({ screen: input.pixel(), depth: input.depth() })).optional(),
      jitter: z
        .object({
          now: input.pair().describe('Of the current picture, right and along screen y'),
          previous: input.pair().describe('Of the previous picture'),
        })
        .optional()
        .describe('Pixels that each picture is moved by, as `derive` has them'),
    },
    output: {
      matrix: sixteen().describe('Current NDC (x, y, z, 1) to previous clip coordinates'),
      points: answers(item()).optional(),
      pixels: answers(item()).optional(),
    },
    cost: ({ points, pixels }) => 4 * (lengthOf(points) + lengthOf(pixels)),
    problems: ({ previous, points, previousPoints, when }: Asked, { codec, world, viewport }): Problem[] => {
      const problems: Problem[] = [];
      if (previousPoints && previousPoints.length !== (points?.length ?? 0))
        problems.push({
          path: 'previousPoints',
          message: `There are ${previousPoints.length} previous points and ${points?.length ?? 0} points. Give as many of both.`,
        });
      if ('time' in previous) {
        if (!when)
          problems.push({ path: 'previous.time', message: 'A previous time needs a track. Give the query `when`.' });
        return problems;
      }
      if (!world.hasDepth) return problems;
      const read = readFrame(previous, codec, viewport);
      return read.ok
        ? problems
        : [...problems, ...read.problems.map((one) => ({ ...one, path: one.path.replace(/^camera/, 'previous') }))];
    },
    run: (query, setup) => {
      const read = previousFrame(query.previous as Previous, setup);
      if ('error' in read) return read;
      if (!read.ok) return failure('outOfRange', read.problems[0]!.message);
      const now = withJitter(setup.frame, query.jitter?.now, setup);
      const then = withJitter(read.value, query.jitter?.previous, setup);
      if (!now.ok) return failure('outOfRange', now.problems[0]!.message);
      if (!then.ok) return failure('outOfRange', then.problems[0]!.message);
      const { codec } = setup;
      const [current, previous] = [now.value, then.value];
      const pair = (one: Answer<PicturePosition>, other: Answer<PicturePosition>) => {
        const missing = one.ok ? other : one;
        return {
          screen: one.ok ? ([one.value.across, one.value.upward] as const) : null,
          depth: one.ok ? one.value.depth01 : null,
          previous: other.ok
            ? { screen: [other.value.across, other.value.upward] as const, depth: other.value.depth01 }
            : null,
          motion: one.ok && other.ok ? screenMotion(current, codec, one.value, other.value) : null,
          ...(!missing.ok && { reason: missing.reason }),
        };
      };
      const { points, previousPoints, pixels } = query;
      return {
        matrix: codec.toList(reprojectionMatrix(current, previous, codec)),
        ...(points && {
          points: new Series(points.length, (from, to) => {
            const before = (previousPoints ?? points).part(from, to);
            return points
              .part(from, to)
              .map((point, i) => pair(pictureOf(current, point), pictureOf(previous, before[i]!)));
          }),
        }),
        ...(pixels && {
          pixels: pixels.map(({ screen: [across, upward], depth }) => {
            const then = previousPicture(current, previous, [across, upward], depth);
            return pair({ ok: true, value: { across, upward, depth01: depth } }, then);
          }),
        }),
      };
    },
  }),
] as const;
