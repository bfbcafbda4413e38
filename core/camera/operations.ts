import * as z from 'zod';
import { billboard, type Billboard } from '../billboard/billboard';
import { items } from '../billboard/operations';
import type { MatrixName } from '../conventions/codec';
import { angleBetween, compareRays, turnBetween } from '../convert/compare';
import { projectPoint, rayThrough } from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import { positive } from '../quantities/numbers';
import { asWritten } from '../quantities/quantity';
import { reject, type Problem, type Read } from '../reasons';
import { cameraSchema, viewportSchema, type RequestCamera, type RequestCamera2d } from '../request/cameraSchema';
import { operation } from '../request/operation';
import { readFrame } from '../request/readCamera';
import type { Setup } from '../request/setup';
import { answers, input, list, output, planeName, reason, series, sixteen, writtenPixels } from '../request/values';
import { planesOf, type CameraFrame, type Viewport } from './frame';

const matrixNames = ['view', 'projection', 'viewProjection', 'cameraToWorld', 'inverseViewProjection'] as const;
const handedness = () => z.enum(['right', 'left']);

interface OtherCamera {
  readonly camera: RequestCamera | RequestCamera2d;
  readonly viewport?: Viewport | undefined;
}
/** Returns the frame of the other camera of a comparison, on its own viewport or the request's. */
function readOther(
  { camera, viewport }: OtherCamera,
  own: Pick<Setup, 'codec'>,
  ownViewport: Viewport,
): Read<CameraFrame> {
  if ('kind' in camera)
    return reject({
      path: 'camera',
      message: 'The other camera is one of space too, with position, orientation and projection.',
    });
  return readFrame(camera, own.codec, viewport ?? ownViewport);
}

const comparedPixel = () => output.pair().nullable();

export const frameOperations = [
  operation('matrices', {
    summary: 'The matrices of the camera, as the conventions list them.',
    input: {},
    output: {
      view: sixteen(),
      projection: sixteen(),
      viewProjection: sixteen(),
      cameraToWorld: sixteen(),
      inverseViewProjection: sixteen(),
      handedness: z.object({ world: handedness(), view: handedness() }),
    },
    run: (_, { codec, frame }) => {
      const listed = (name: MatrixName) => codec.toList(codec.matrix(frame, name));
      const [view, projection, viewProjection, cameraToWorld, inverseViewProjection] = matrixNames.map(listed);
      return {
        view: view!,
        projection: projection!,
        viewProjection: viewProjection!,
        cameraToWorld: cameraToWorld!,
        inverseViewProjection: inverseViewProjection!,
        handedness: codec.handedness,
      };
    },
  }),

  operation('planes', {
    summary: 'The planes of the frustum, six, or five with an infinite far.',
    worlds: ['3d'],
    input: {},
    output: {
      planes: list(
        z.object({ name: planeName(), plane: output.four().describe('Unit normal that points inward, and offset') }),
      ),
    },
    run: (_, { codec, frame }) => ({
      planes: planesOf(frame).map(({ name, plane: [x, y, z, d] }) => {
        const [nx, ny, nz] = codec.toWorld([x, y, z]);
        return { name, plane: [nx, ny, nz, d] as [number, number, number, number] };
      }),
    }),
  }),

  operation('compareCameras', {
    summary:
      'Compares another camera with the request’s: where it shows points, how far the rays of its pixels deviate, and how it turns billboards.',
    worlds: ['3d'],
    input: {
      camera: asWritten(cameraSchema),
      viewport: asWritten(viewportSchema).optional().describe('The request’s if absent'),
      points: series(input.point3d()).optional(),
      pixels: writtenPixels('Need `range`').optional(),
      range: positive.optional().describe('Distance along the rays of the pixels'),
      items: items().optional(),
    },
    output: {
      points: answers(
        z.object({
          now: comparedPixel().describe('Where the request’s camera shows the point'),
          then: comparedPixel().describe('Where the other camera shows it'),
          error: comparedPixel().describe('`then` less `now`'),
          reason: reason('behindEye', 'onEyePlane'),
        }),
      ).optional(),
      pixels: answers(
        z.object({
          angle: output.angle('Between the two rays'),
          miss: z.number().describe('Distance between their points at `range`'),
          shown: comparedPixel().describe('Where the request’s camera shows the other ray’s point'),
          error: comparedPixel().describe('`shown` less the pixel'),
          reason: reason('behindEye', 'onEyePlane'),
        }),
      ).optional(),
      items: answers(
        z.object({ angle: output.angle('Between the normals'), turn: output.angle('Between the orientations') }),
      ).optional(),
    },
    problems: (
      query: OtherCamera & { readonly pixels?: unknown; readonly range?: number },
      { codec, world, viewport },
    ): Problem[] => {
      const problems: Problem[] = [];
      if (query.pixels && query.range === undefined)
        problems.push({
          path: 'range',
          message: 'range is missing: how far along the rays of the pixels to compare.',
        });
      if (!world.hasDepth) return problems;
      const other = readOther(query, { codec }, viewport);
      return other.ok ? problems : [...problems, ...other.problems];
    },
    run: (query, { codec, frame }) => {
      const read = readOther(query, { codec }, frame.viewport);
      // Checked with the whole request (`problems`).
      if (!read.ok) throw new Error(read.problems[0]!.message);
      const other = read.value;
      const pixelOf = (of: CameraFrame, p: Vec2): Vec2 => codec.toScreen(of.viewport, ...p);
      const screen = (by: CameraFrame, point: Vec3) => {
        const { picture } = projectPoint(by, point);
        return picture.ok
          ? { at: pixelOf(by, [picture.value.across, picture.value.upward]), reason: null }
          : { at: null, reason: picture.reason };
      };
      const written = (p: Vec2 | null) => p && ([p[0], p[1]] as [number, number]);
      const less = (a: Vec2, b: Vec2): [number, number] => [a[0] - b[0], a[1] - b[1]];
      const { points, pixels, range, items } = query;
      return {
        ...(points && {
          points: points.map((point) => {
            const [now, then] = [screen(frame, point), screen(other, point)];
            const reason = now.reason ?? then.reason;
            return {
              now: written(now.at),
              then: written(then.at),
              error: now.at && then.at && less(then.at, now.at),
              ...(reason && { reason }),
            };
          }),
        }),
        ...(pixels && {
          pixels: pixels.map((asked) => {
            const rayOf = (by: CameraFrame) => rayThrough(by, ...codec.fromScreen(by.viewport, asked));
            const { angle, miss, point } = compareRays(rayOf(frame), rayOf(other), range!);
            const shown = screen(frame, point);
            return {
              angle,
              miss,
              shown: written(shown.at),
              error: shown.at && less(shown.at, asked),
              ...(shown.reason && { reason: shown.reason }),
            };
          }),
        }),
        ...(items && {
          items: items.map(({ position, mode, axis, front }) => {
            const [own, theirs] = [frame, other].map((by) => billboard(by, position, mode, axis, front === '-n')) as [
              Billboard,
              Billboard,
            ];
            return {
              angle: angleBetween(own.normal, theirs.normal),
              turn: turnBetween(own.quaternion, theirs.quaternion),
            };
          }),
        }),
      };
    },
  }),
] as const;
