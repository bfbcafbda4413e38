import * as z from 'zod';
import { multiply } from '../math/mat4';
import { number, positive } from '../quantities/numbers';
import { asWritten } from '../quantities/quantity';
import type { Problem, Read } from '../reasons';
import { camera3dSchema } from '../request/cameraSchema';
import { failure, lengthOf, operation } from '../request/operation';
import type { Setup } from '../request/setup';
import { input, inputList, list, output, plane, sixteen } from '../request/values';
import { writeCamera } from '../request/write';
import { cascadeCameras } from './cascades';
import { cubeCameras } from './cube';
import type { DerivedCamera } from './derivedCamera';
import { eyeCameras, stereoCameras } from './eyes';
import { jitterCameras } from './jitter';
import { mirrorCamera } from './mirror';
import { tileCameras } from './tiles';

/** The most cameras of one answer. */
const mostCameras = 1024;
const count = () => z.int().min(1).max(mostCameras);

const kinds = ['jitter', 'tiles', 'stereo', 'eyes', 'cube', 'cascades', 'mirror'] as const;
type Kind = (typeof kinds)[number];

const terms = {
  count: count().optional().describe('`jitter`: cameras of the cycle; `cascades`: parts'),
  sequence: z
    .enum(['halton', 'grid'])
    .optional()
    .describe('`jitter`: bases 2 and 3 from index 1, or the cell middles of the least square grid'),
  columns: count().optional().describe('`tiles`'),
  rows: count().optional().describe('`tiles`'),
  separation: number.optional().describe('`stereo`: between the eyes along the camera’s right'),
  convergence: number.optional().describe('`stereo`: distance ahead at which both pictures agree'),
  eyes: inputList(
    z.object({
      name: z.string().min(1),
      offset: z.tuple([number, number, number]).describe('To the right, up and ahead of the camera'),
      angles: z
        .object({ left: input.angle(), right: input.angle(), down: input.angle(), up: input.angle() })
        .describe('From the view direction; left and down are negative'),
    }),
  )
    .optional()
    .describe('`eyes`: cameras by four half-angles each'),
  blend: z.number().min(0).max(1).optional().describe('`cascades`: share of the logarithmic split; the rest is even'),
  to: positive.optional().describe('`cascades`: distance ahead where the last part ends; far if absent'),
  light: input.axis('`cascades`: direction in which the light travels').optional(),
  mapSize: z.int().min(2).max(65_536).optional().describe('`cascades`: texels along a side of the shadow map'),
  fit: z.enum(['box', 'sphere']).optional().describe('`cascades`: around each part'),
  plane: plane().optional().describe('`mirror`: the plane, its normal in either sense'),
  clip: z.boolean().optional().describe('`mirror`: whether the mirror replaces the near plane'),
};
type Term = keyof typeof terms;

/** The terms that each kind needs. */
const needed: Readonly<Record<Kind, readonly Term[]>> = {
  jitter: ['count', 'sequence'],
  tiles: ['columns', 'rows'],
  stereo: ['separation', 'convergence'],
  eyes: ['eyes'],
  cube: [],
  cascades: ['count', 'blend', 'light', 'mapSize', 'fit'],
  mirror: ['plane', 'clip'],
};

type Asked = { readonly kind: Kind } & { readonly [Name in Term]?: z.output<(typeof terms)[Name]> };
/** The same with the terms that are checked to be there. */
type Complete = { readonly kind: Kind } & { readonly [Name in Term]: NonNullable<z.output<(typeof terms)[Name]>> };

function derivedOf(asked: Asked, { frame, codec }: Setup): Read<readonly DerivedCamera[]> {
  // `problems` has checked that the terms of the kind are there.
  const query = asked as Complete;
  const { ndc } = codec.conventions;
  switch (query.kind) {
    case 'jitter':
      return jitterCameras(frame, query.count, query.sequence, codec.screenGrowsUp);
    case 'tiles':
      return tileCameras(frame, query.columns, query.rows);
    case 'stereo':
      return stereoCameras(frame, query.separation, query.convergence);
    case 'eyes':
      return eyeCameras(frame, query.eyes);
    case 'cube':
      return cubeCameras(frame, codec.fromWorld);
    case 'cascades':
      return cascadeCameras(frame, { ...query, to: asked.to });
    case 'mirror':
      return mirrorCamera(frame, query.plane, query.clip, ndc);
  }
}

/** Returns a count of a query that is not checked yet, as far as it is allowed; 0 for other values. */
const countIn = (value: unknown): number => (typeof value === 'number' && value > 0 ? Math.min(value, mostCameras) : 0);

/** Returns the names that occur more than once. */
const repeated = (names: readonly string[]): readonly string[] => names.filter((name, i) => names.indexOf(name) !== i);

export const deriveOperations = [
  operation('derive', {
    summary:
      'The cameras that a renderer makes of the request’s: a jitter cycle, tiles, a stereo pair, eyes by half-angles, cube map faces, shadow cascades, a mirrored camera.',
    worlds: ['3d'],
    input: { kind: z.enum(kinds), ...terms },
    output: {
      cameras: list(
        z.object({
          name: z.string(),
          camera: asWritten(camera3dSchema).describe('In the form of a request'),
          view: sixteen(),
          projection: sixteen(),
          viewProjection: sixteen(),
          offset: output.pair().optional().describe('`jitter`: pixels that the picture moved by'),
          split: output.pair().optional().describe('`cascades`: distances ahead of the part'),
          mirrored: z.literal(true).optional().describe('`mirror`: front faces run the other way round'),
        }),
      ),
    },
    cost: ({ kind, count, columns, rows, eyes }) =>
      20 * (countIn(count) * (kind === 'cascades' ? 50 : 1) + countIn(columns) * countIn(rows) + lengthOf(eyes)),
    problems: (query: Asked): Problem[] => {
      const missing = needed[query.kind]
        .filter((name) => query[name] === undefined)
        .map((name) => ({ path: name, message: `${name} is missing. Cameras of kind “${query.kind}” need it.` }));
      if (query.kind === 'tiles' && (query.columns ?? 0) * (query.rows ?? 0) > mostCameras)
        missing.push({
          path: 'columns',
          message: `columns times rows is at most ${mostCameras}. Ask for fewer tiles.`,
        });
      if (query.kind === 'eyes')
        for (const name of repeated((query.eyes ?? []).map((eye) => eye.name)))
          missing.push({ path: 'eyes', message: `Two eyes have the name “${name}”. Give each its own.` });
      return missing;
    },
    run: (query, setup) => {
      const found = derivedOf(query as Asked, setup);
      if (!found.ok) return failure(found.problems[0]!.code!, found.problems[0]!.message);
      const { codec } = setup;
      const cameras = found.value.map(({ name, frame, own, offset, split, mirrored }) => ({
        name,
        camera: writeCamera(frame, codec),
        ...matricesOf(frame, own, codec),
        ...(offset && { offset }),
        ...(split && { split }),
        ...(mirrored && { mirrored }),
      }));
      // A request has bounds that the numbers of an answer do not have.
      const tooLarge = cameras.find(({ camera }) => !camera3dSchema.safeParse(camera).success);
      if (tooLarge)
        return failure(
          'outOfRange',
          `The numbers of the camera “${tooLarge.name}” are beyond what a request may hold. Bring them closer to 0.`,
        );
      return { cameras };
    },
  }),
] as const;

/** Lists the matrices of a derived camera: its own, or those of its snapshot. */
function matricesOf(frame: DerivedCamera['frame'], own: DerivedCamera['own'], codec: Setup['codec']) {
  const view = own ? codec.toViewMatrix(own.view) : codec.matrix(frame, 'view');
  const projection = own ? codec.toProjection(own.projection) : codec.matrix(frame, 'projection');
  return {
    view: codec.toList(view),
    projection: codec.toList(projection),
    viewProjection: codec.toList(multiply(projection, view)),
  };
}
