import * as z from 'zod';
import { listOf, number } from '../quantities/numbers';
import { setupAlong } from '../request/along';
import { failure, lengthOf, operation, type Failure, type RawQuery } from '../request/operation';
import { resolvedCamera, resolvedCameraSchema } from '../request/resolvedCamera';
import type { Setup } from '../request/setup';
import { input, list, output } from '../request/values';
import { dollyZoom } from './dollyZoom';
import { trackSchema } from './trackSchema';

/** Looks at a camera that a time of a track costs. */
const looksPerTime = 20;

/** Returns how many points, keys or stretches the track of an unchecked query has. */
function trackLength(query: RawQuery): number {
  const track = (query['track'] ?? {}) as RawQuery;
  return lengthOf(track['target']) + lengthOf(track['keys']) + lengthOf(track['inputs']);
}

const camera2d = z.object({
  focus: output.pair(),
  anchor: output.pair(),
  zoom: z.number(),
  rotation: z.number(),
});

/** Describes the camera of a setup: resolved, or a 2D camera's own numbers, which are written already. */
function cameraOf({ frame, codec, camera }: Setup) {
  if (!('kind' in camera)) return resolvedCamera(frame, codec);
  const { focus, anchor, zoom, rotation } = camera;
  return { focus, anchor, zoom, rotation };
}

export const motionOperations = [
  operation('motion', {
    summary:
      'The camera at times of a track. The request’s camera is where the track begins; a 2D camera can scroll and follow.',
    input: { track: trackSchema, times: listOf(number).describe('Seconds, 0 or more, in any order') },
    hasWhen: false,
    output: {
      times: list(z.object({ time: z.number(), camera: z.union([resolvedCameraSchema, camera2d]) })),
    },
    cost: (query) => lengthOf(query['times']) * (looksPerTime + trackLength(query)),
    run: ({ track, times }, setup) => {
      const found: { time: number; camera: ReturnType<typeof cameraOf> }[] = [];
      // A wrong track is a failure without a time being asked for.
      for (const time of [...times, 0]) {
        const there = setupAlong(setup, track, time);
        if (!there.ok) return failure(there.code, there.message) as Failure;
        found.push({ time, camera: cameraOf(there.value) });
      }
      return { times: found.slice(0, -1) };
    },
  }),

  operation('dollyZoom', {
    summary: 'Cameras at other distances from a target that keep the height seen at it.',
    worlds: ['3d'],
    input: { target: input.point3d(), distances: listOf(number).describe('Distances ahead, above 0') },
    output: {
      distances: list(
        z.object({
          distance: z.number(),
          position: output.point3d(),
          verticalFov: output.angle('null for an orthographic camera').nullable(),
          heightAtTarget: z.number(),
        }),
      ),
    },
    run: ({ target, distances }, { frame }) => {
      const stops = dollyZoom(frame, target, distances);
      return stops
        ? { distances: stops }
        : failure('distanceNotPositive', 'Every distance must be above 0 and the target ahead of the camera.');
    },
  }),
] as const;
