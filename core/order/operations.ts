import * as z from 'zod';
import { depthFormats, depthResolution } from '../camera/depthPrecision';
import { worldUp } from '../camera/orientation';
import { viewRufToClip, viewRufToWorld } from '../convert/project';
import { normalize, type Vec3 } from '../math/vec3';
import { listOf } from '../quantities/numbers';
import { chosen, costOfBodies, ids, lengthOf, operation } from '../request/operation';
import { answers, body, input, list, output, plane, reason, series, sixteen, writtenPixels } from '../request/values';
import { angularOfPicture } from './angular';
import { clipPolygon, unclippedPositions, type ClippedCorner } from './clip';
import { drawOrder, type SortKey } from './drawOrder';
import { horizonPlace, horizonPoints, vanishingPoint } from './horizon';
import { planarShadow, shadowOf, type Light } from './shadow';
import { windingOf } from './winding';

const sortKeys = ['ahead', 'distance', 'worldUp', 'screenHeight'] as const satisfies readonly SortKey[];
const vanishing = () => z.object({ point: output.pixel().nullable(), reason: reason('parallelToScreen', 'behindEye') });
const corner = () => z.object({ point: output.point3d(), screen: output.pixel() });
const worldDirections = {
  right: [1, 0, 0],
  left: [-1, 0, 0],
  up: [0, 1, 0],
  down: [0, -1, 0],
  forward: [0, 0, -1],
  back: [0, 0, 1],
} as const;

export const orderOperations = [
  operation('horizon', {
    summary: 'Two points of the horizon line over the viewport, and the vanishing points of the six world directions.',
    worlds: ['3d'],
    input: { normal: input.axis('Of the planes that the horizon belongs to; the world’s up if absent').optional() },
    output: {
      points: list(output.pixel()).nullable(),
      where: z
        .enum(['above', 'below', 'left', 'right', 'atInfinity'])
        .nullable()
        .describe('Where the horizon is if it is not on the screen'),
      vanishingPoints: z.object({
        right: vanishing(),
        left: vanishing(),
        up: vanishing(),
        down: vanishing(),
        forward: vanishing(),
        back: vanishing(),
      }),
    },
    run: ({ normal }, { frame }) => {
      const up = (normal && normalize(normal)) ?? worldUp;
      const points = horizonPoints(frame, up);
      const vanishingOf = (direction: Vec3) => {
        const found = vanishingPoint(frame, direction);
        return found.ok ? { point: found.value } : { point: null, reason: found.reason };
      };
      const { right, left, up: above, down, forward, back } = worldDirections;
      return {
        points,
        where: points ? null : horizonPlace(frame, up),
        vanishingPoints: {
          right: vanishingOf(right),
          left: vanishingOf(left),
          up: vanishingOf(above),
          down: vanishingOf(down),
          forward: vanishingOf(forward),
          back: vanishingOf(back),
        },
      };
    },
  }),

  operation('drawOrder', {
    summary:
      'Ids of the bodies from far to near by a key of their feet (their origins where none is given), and the pairs that this key orders differently from the distance ahead.',
    input: { bodies: ids(), key: z.enum(sortKeys).describe('The higher, the farther') },
    output: {
      order: list(body()),
      conflicts: list(z.tuple([body(), body()]) as z.ZodType<readonly [string, string]>),
      conflictCount: z.int(),
    },
    cost: costOfBodies(20),
    run: ({ bodies, key }, setup) => chosen(setup, bodies, (placed) => drawOrder(setup.frame, placed, key)),
  }),

  operation('clip', {
    summary:
      'Clips polygons at the near plane alone and at all planes, and divides their corners by w without clipping, as a faulty renderer does.',
    worlds: ['3d'],
    input: {
      polygons: series(listOf(input.point3d()).min(3), 'Plane and convex, of either winding'),
    },
    output: {
      polygons: answers(
        z.object({
          near: list(corner(), 'Clipped at the near plane alone'),
          frustum: list(corner(), 'Clipped at all planes'),
          unclipped: list(
            z.object({
              screen: output.pixel().nullable(),
              ghost: z.boolean().describe('Behind the eye: w is negative'),
              reason: reason('onEyePlane'),
            }),
          ),
        }),
      ),
    },
    cost: ({ polygons }) =>
      (Array.isArray(polygons) ? (polygons as unknown[]) : []).reduce<number>((sum, one) => sum + 5 * lengthOf(one), 0),
    run: ({ polygons }, { frame }) => {
      const cornerOf = ({ viewRuf }: ClippedCorner) => {
        const { x, y, w } = viewRufToClip(frame, viewRuf);
        return { point: viewRufToWorld(frame, viewRuf), screen: [x / w, y / w] as const };
      };
      return {
        polygons: polygons.map((polygon) => ({
          near: clipPolygon(frame, polygon, ['near']).map(cornerOf),
          frustum: clipPolygon(frame, polygon).map(cornerOf),
          unclipped: unclippedPositions(frame, polygon).map(({ position, ghost }) =>
            position ? { screen: position, ghost } : { screen: null, ghost, reason: 'onEyePlane' as const },
          ),
        })),
      };
    },
  }),

  operation('winding', {
    summary:
      'Which side of each triangle faces the eye, and its signed area on the screen after clipping at the near plane.',
    worlds: ['3d'],
    input: { triangles: series(z.tuple([input.point3d(), input.point3d(), input.point3d()])) },
    output: {
      triangles: answers(
        z.object({
          facing: z.enum(['front', 'back', 'edgeOn']),
          onScreen: z.enum(['counterClockwise', 'clockwise', 'edgeOn']).nullable(),
          area: z.number().nullable().describe('Square pixels, above 0 if the corners run counter-clockwise'),
          reason: reason('behindEye'),
        }),
      ),
    },
    cost: ({ triangles }) => 8 * lengthOf(triangles),
    run: ({ triangles }, { frame }) => ({
      triangles: triangles.map((triangle) => {
        const { facing, area } = windingOf(frame, triangle);
        if (!area.ok) return { facing, onScreen: null, area: null, reason: area.reason };
        const runs = area.value > 0 ? ('counterClockwise' as const) : ('clockwise' as const);
        const isEdgeOn = facing === 'edgeOn' || area.value === 0;
        return { facing, onScreen: isEdgeOn ? ('edgeOn' as const) : runs, area: area.value };
      }),
    }),
  }),

  operation('planarShadow', {
    summary:
      'The matrix that takes a world point to its shadow on a plane (divide by w; w is 1 on the receiver), and the shadows of points.',
    worlds: ['3d'],
    input: {
      light: z.union([
        z.object({ direction: input.axis('Direction in which the light travels') }),
        z.object({ position: input.point3d() }),
      ]),
      receiver: plane(),
      points: series(input.point3d()).optional(),
    },
    output: {
      matrix: sixteen().nullable(),
      reason: reason('rayParallel'),
      points: answers(
        z.object({ point: output.point3d().nullable(), reason: reason('rayParallel', 'awayFromReceiver') }),
      ).optional(),
    },
    run: ({ light: given, receiver, points }, { codec }) => {
      const light: Light =
        'position' in given ? { kind: 'point', at: given.position } : { kind: 'directional', travels: given.direction };
      const matrix = planarShadow(light, receiver);
      return {
        ...(matrix.ok
          ? { matrix: codec.toList(codec.toModel(matrix.value)) }
          : { matrix: null, reason: matrix.reason }),
        ...(points && {
          points: points.map((point) => {
            const shadow = shadowOf(light, receiver, point);
            return shadow.ok ? { point: shadow.value } : { point: null, reason: shadow.reason };
          }),
        }),
      };
    },
  }),

  operation('angularMapping', {
    summary: 'Where a picture of equal angles per pixel shows the direction of a pixel.',
    worlds: ['3d'],
    input: { pixels: writtenPixels() },
    output: {
      pixels: answers(
        z.object({
          bearing: output.angle('To the right of the view direction').nullable(),
          elevation: output.angle('Above the level of the view direction').nullable(),
          pixel: output.pixel().nullable(),
          error: output.pair().nullable().describe('`pixel` less the pixel asked about, in pixels'),
          reason: reason('parallelToScreen'),
        }),
      ),
    },
    run: ({ pixels }, { frame, codec }) => ({
      pixels: pixels.map((asked) => {
        const found = angularOfPicture(frame, codec.fromScreen(frame.viewport, asked));
        if (!found)
          return { bearing: null, elevation: null, pixel: null, error: null, reason: 'parallelToScreen' as const };
        const [bearing, elevation] = found.direction;
        const [x, y] = codec.toScreen(frame.viewport, ...found.picture);
        return { bearing, elevation, pixel: found.picture, error: [x - asked[0], y - asked[1]] as const };
      }),
    }),
  }),

  operation('depthPrecision', {
    summary: 'The least difference in distance that a depth buffer resolves at distances ahead.',
    worlds: ['3d'],
    input: {
      distances: series(input.number(), 'Distances ahead'),
      format: z.enum(depthFormats as ['unorm16', 'unorm24', 'float32']),
    },
    output: {
      distances: answers(z.object({ resolution: z.number().nullable(), reason: reason('outsideDepth') })),
    },
    run: ({ distances, format }, { frame, codec }) => {
      const { near, far } = codec.conventions.ndc;
      return {
        distances: distances.map((ahead) => {
          const resolution = depthResolution(frame, ahead, format, near > far);
          return resolution === null ? { resolution, reason: 'outsideDepth' as const } : { resolution };
        }),
      };
    },
  }),
] as const;
