import { conventionsSchema, readConventions } from '../core/request/conventions';
import { listOf, quatSchema, vec2Schema, vec3Schema } from '../core/quantities/numbers';
import { shapeSchema } from '../core/request/shapes';
import * as z from 'zod';
import { problemsOf } from '../core/compute/issues';
import { omissions, type Omission } from '../core/convert/pointer';
import { screenFits, type ScreenFit } from '../core/camera/fit';
import { meshProblems, placeBodies } from '../core/bodies/body';
import type { Problem } from '../core/reasons';
import { imageProblems, imageSchema } from './images';
import { keepUnknown } from './lossless';
import { pointSetProblems } from './pointSetProblems';

/**
 * A project as it is kept, exported and imported (`docs/project.md`). Everything with a direction
 * is on the canonical axes (right-handed, +y up, heading 0 along −z) and angles are in degrees,
 * whatever conventions the project is shown in: so a change of conventions changes one entry and
 * cannot move the scene.
 */

const number = z.number();

/**
 * What the numbers of every project file are written in, in so many words: the conventions that
 * stand beside them say only how they are shown. It goes out with each file (`writeProject`), and
 * one that says otherwise is refused, since its numbers would be taken for their mirror image.
 */
export const writtenIn = {
  note: 'Every position, direction, rotation and number of this file is written in what is said here, whatever “conventions” says: that is only how they are shown.',
  axes: { handedness: 'right', right: '+x', up: '+y', forward: '-z' },
  angles:
    'degrees: yaw positive to the right from forward, pitch positive upward, roll positive as the right side goes down',
  rotations: 'quaternions [x, y, z, w], from a body’s own axes to its parent’s',
  camera: 'right, up and forward of “basis” are in the axes of the world',
  pixels: 'from the top left, y downward, in CSS pixels of the viewport',
  depth: '0 at near, 1 at far',
  positionsOf2d: '[right, up, 0]; rotation counter-clockwise',
} as const;

export const orientationSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('lookAt'),
    target: vec3Schema,
    up: vec3Schema.optional().describe('The world’s up if it is left out'),
  }),
  z.object({ kind: z.literal('angles'), yaw: number, pitch: number, roll: number }),
  z.object({ kind: z.literal('basis'), right: vec3Schema, up: vec3Schema, forward: vec3Schema }),
]);

const shaped = {
  shift: vec2Schema.default([0, 0]),
  aspect: number.nullable().default(null).describe('Width over height of the picture; null is the viewport’s'),
};
export const projectionSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('perspective'),
    verticalFov: number,
    near: number,
    far: number.nullable().describe('null is infinity'),
    ...shaped,
  }),
  z.object({ kind: z.literal('orthographic'), height: number, near: number, far: number, ...shaped }),
]);

export const toneSchema = z.enum(['stone', 'white', 'dark', 'roof', 'glass']);

/** The most places that a body goes through. */
export const mostPlaces = 2000;

/** How a body moves by itself (`core/motion/bodies`), angles in degrees. */
export const motionSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('drift'),
    velocity: vec3Schema,
    axis: vec3Schema.default([0, 1, 0]),
    turnRate: number.default(0).describe('Degrees a second about the axis'),
  }),
  z.object({
    kind: z.literal('orbit'),
    centre: vec3Schema,
    axis: vec3Schema.default([0, 1, 0]),
    period: number.describe('Seconds for a round; negative goes the other way'),
    turns: z.boolean().default(true).describe('Whether it turns with the way'),
  }),
  z.object({ kind: z.literal('shuttle'), to: vec3Schema, period: number }),
  z.object({
    kind: z.literal('swing'),
    pivot: vec3Schema,
    axis: vec3Schema,
    amplitude: number.describe('Degrees to either side'),
    period: number,
  }),
  z.object({
    kind: z.literal('path'),
    keys: listOf(z.object({ time: number.positive(), place: vec3Schema }))
      .min(1)
      .max(mostPlaces)
      .refine((keys) => keys.every(({ time }, i) => i === 0 || time > keys[i - 1]!.time), 'times that rise')
      .describe('Places at times above 0, rising; it sets out from where it rests'),
    turns: z.boolean().default(true).describe('Whether it turns with the way'),
    axis: vec3Schema.default([0, 1, 0]).describe('What it turns about'),
  }),
]);

export const bodySchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  shape: shapeSchema,
  position: vec3Schema,
  rotation: quatSchema.default([0, 0, 0, 1]),
  scale: vec3Schema.default([1, 1, 1]),
  parent: z.string().nullable().default(null),
  castsShadow: z.boolean().default(true),
  tone: toneSchema.default('stone'),
  /** Stands on the bottom: gets water lines on the plan. */
  fixed: z.boolean().default(false),
  /** The point that stands for the body when it is probed, in its own space. */
  handle: vec3Schema.default([0, 0, 0]),
  motion: motionSchema.nullable().default(null).describe('How it moves by itself; in the space of its parent'),
  foot: vec3Schema.optional().describe('The point by which it is sorted, in its own space; its origin if absent'),
  image: z.string().optional().describe('The id of the image that a quad of a 2D world is drawn with'),
});

export const screenSchema = z.object({
  name: z.string().min(1),
  width: z.int().min(1).max(16384),
  height: z.int().min(1).max(16384),
});

/** The screens that a new project is shown on. */
export const commonScreens = [
  { name: 'Phone, upright', width: 390, height: 844 },
  { name: 'Phone, lying', width: 844, height: 390 },
  { name: '16 : 9', width: 1920, height: 1080 },
  { name: '21 : 9', width: 2560, height: 1080 },
  { name: '4 : 3', width: 1024, height: 768 },
];

const cameraId = z.string().min(1).default('camera').describe('Which camera; each of a project has its own');

const camera3dSchema = z.object({
  kind: z.literal('3d').default('3d'),
  id: cameraId,
  name: z.string().min(1),
  position: vec3Schema,
  orientation: orientationSchema,
  projection: projectionSchema,
  sensorHeight: number.positive().default(24).describe('Millimetres; what a focal length is said for'),
});

const camera2dSchema = z.object({
  kind: z.literal('2d'),
  id: cameraId,
  name: z.string().min(1),
  focus: vec2Schema.describe('The world point, right and up, that lands on the anchor'),
  anchor: vec2Schema.describe('A pixel, from the top left of the viewport, centres at .5'),
  zoom: number.describe('Pixels per world unit'),
  rotation: number.default(0).describe('Degrees by which the world is turned counter-clockwise about the focus'),
  snap: z.enum(['none', 'floor', 'round']).default('none'),
});

const cameraSchema = z.union([camera3dSchema, camera2dSchema]);

const viewportSchema = z.object({
  width: z.int().min(1).max(16384),
  height: z.int().min(1).max(16384),
  devicePixelRatio: number.min(0.25).max(8).default(1),
});

/** A frame that was set aside: the camera, the viewport and the time as they were. */
export const snapshotSchema = z.object({
  id: z.string().min(1),
  name: z.string().min(1),
  camera: cameraSchema,
  viewport: viewportSchema,
  time: number.default(0).describe('Seconds, where the project moves'),
});

const tilesSchema = z.object({
  name: z.string().min(1).describe('What the numbers are'),
  corner: vec2Schema.describe('The least right and up of the map'),
  size: number.positive().describe('The side of a tile in world units'),
  columns: z.int().min(1).max(2048),
  bands: z.array(number).max(6).default([]).describe('Rising numbers at which the tone of the map changes'),
  values: z
    .array(number.nullable())
    .max(1 << 20)
    .describe('One number a tile, row by row from the lowest, each from the left; null is land'),
  images: z
    .array(z.string().nullable())
    .max(64)
    .optional()
    .describe('Ids of the images that tiles are drawn with: that of the value 0, of the value 1 and so on'),
});

const rung = z.enum(['local', 'world', 'view', 'clip', 'ndc', 'screen']);

export const projectSchema = z.object({
  astrolabeProject: z.literal(1).describe('The version of this format'),
  id: z.string().min(1),
  name: z.string().min(1),
  unit: z.string().min(1).default('metres').describe('What one world unit is called'),
  guide: z
    .enum(['harbour', 'chart', 'quay'])
    .nullable()
    .default(null)
    .describe('The demo whose exercises are shown with the project'),
  conventions: conventionsSchema,
  viewport: viewportSchema,
  camera: cameraSchema.describe(
    'The camera looked through: in space, or on a flat world: then every body lies in the plane of right and up',
  ),
  cameras: z.array(cameraSchema).max(64).default([]).describe('The other cameras, in their order'),
  cameraPlace: z
    .int()
    .nonnegative()
    .default(0)
    .describe('How many of the others stand before the camera looked through'),
  snapshots: z
    .array(snapshotSchema)
    .max(64)
    .default([])
    .describe('Frames set aside, to be shown beside the present one'),
  screens: z
    .object({
      fit: z.enum(screenFits as [ScreenFit, ...ScreenFit[]]),
      sizes: z.array(screenSchema).max(24),
    })
    .default({ fit: 'showAll', sizes: commonScreens })
    .describe('The other screens that the picture is to be shown on, and how it is fitted to them'),
  ground: z
    .object({ name: z.string().min(1), height: number })
    .nullable()
    .default(null),
  tiles: tilesSchema.nullable().default(null).describe('The ground of a flat world: a map of square tiles'),
  tile: z
    .object({
      size: number.positive().max(1e9).default(1).describe('Its side in world units, where no map says it'),
      texels: z.int().min(1).max(8192).default(16).describe('How many texels it is across'),
    })
    .prefault({})
    .describe('What a flat world is drawn with'),
  bodyOrder: z
    .enum(['list', 'feet'])
    .default('list')
    .describe(
      'How bodies of a 2D world cover one another: later ones of the list over earlier ones, or lower feet over higher ones',
    ),
  images: z.array(imageSchema).default([]).describe('What sprites and tiles are drawn with'),
  bodies: listOf(bodySchema).default([]),
  pointSets: z
    .array(
      z.object({
        id: z.string().min(1),
        name: z.string().min(1),
        key: z.string().default('').describe('Of its points, in the browser that keeps them'),
        count: z.int().nonnegative().default(0).describe('How many points'),
        coordinates: listOf(number).max(6_000_000).optional().describe('In a file: x, y, z after one another'),
        names: listOf(z.string()).optional().describe('In a file: a name a point'),
      }),
    )
    .max(64)
    .default([])
    .describe('Sets of points'),
  probe: z.object({
    body: z.string().nullable(),
    drive: z.object({ rung, value: vec3Schema }),
  }),
  pointer: z
    .object({
      canvas: vec2Schema.default([0, 0]).describe('The canvas’s corner on the page, in CSS pixels'),
      cssScale: number.positive().default(1).describe('How much larger the canvas is shown than its own size'),
      framebufferScale: number.positive().default(1).describe('Rendered pixels to a device pixel'),
      bars: z
        .tuple([number.nonnegative(), number.nonnegative(), number.nonnegative()])
        .default([0, 0, 0])
        .describe('What the framebuffer has left of, above and below the viewport, in its pixels'),
      leftOut: z
        .array(z.enum(omissions as [Omission, ...Omission[]]))
        .default([])
        .describe('The steps that the engine looked at leaves out'),
    })
    .prefault({})
    .describe('What lies between a pointer event and the viewport'),
  back: z.object({
    pixel: vec2Schema.describe('From the top left of the viewport, centres at .5'),
    route: z.enum(['depth', 'ahead', 'range', 'plane']),
    value: number.describe('Of the route: depth 0 at near and 1 at far, a distance, or the height of a level plane'),
  }),
  tasks: z
    .record(z.string(), z.unknown())
    .default({})
    .describe('What each task keeps, by its name, with a version of its own; what no task knows is kept as it is'),
});

export type Project = z.output<typeof projectSchema>;
export type ProjectBody = Project['bodies'][number];
export type ProjectCamera = Project['camera'];
/** The camera of a project in space, and of one whose world is flat. */
export type ProjectCamera3d = Extract<ProjectCamera, { kind: '3d' }>;
export type ProjectCamera2d = Extract<ProjectCamera, { kind: '2d' }>;
export type BodyMotionKept = z.output<typeof motionSchema>;
export type Snapshot = z.output<typeof snapshotSchema>;
export type Tiles = NonNullable<Project['tiles']>;
export type Tone = z.output<typeof toneSchema>;

export type ReadProject = { ok: true; project: Project } | { ok: false; problems: Problem[] };

/**
 * A project from a parsed JSON value, or everything that is wrong with it. A camera that cannot be
 * (near beyond far) is no fault of the file: it is kept and explained where it is edited. Bodies
 * and conventions must hold together.
 */
export function readProject(value: unknown): ReadProject {
  const otherwise = writtenOtherwise(value);
  if (otherwise) return { ok: false, problems: [otherwise] };
  const parsed = projectSchema.safeParse(value, { reportInput: true });
  if (!parsed.success) return { ok: false, problems: problemsOf(parsed.error) };
  // What the schema does not know comes back as it was: a file of a newer version loses nothing
  // here.
  const project: Project & { writtenIn?: unknown } = keepUnknown(parsed.data, value);
  delete project.writtenIn;
  const conventions = readConventions(project.conventions);
  const bodies = placeBodies(project.bodies);
  const problems: Problem[] = [
    ...(conventions.ok ? [] : conventions.problems),
    ...(bodies.ok ? [] : bodies.problems),
    ...pointSetProblems(project.pointSets),
    ...project.bodies.flatMap(({ shape }, i) => meshProblems(shape, `bodies[${i}].shape`)),
  ];
  const { tiles } = project;
  if (tiles && tiles.values.length % tiles.columns)
    problems.push({
      path: 'tiles.values',
      message: `The map has ${tiles.values.length} tiles in rows of ${tiles.columns}, and its last row is not full. Give every row its tiles.`,
    });
  problems.push(...imageProblems(project.images), ...unknownImages(project));
  if (project.camera.kind === '2d')
    project.bodies.forEach(({ position, foot }, i) => {
      if (foot && foot[2] !== 0)
        problems.push({
          path: `bodies[${i}].foot[2]`,
          message: `In a 2D world the foot of a body is at 0 behind right and up, and this one at ${foot[2]}. Set it to 0.`,
        });
      if (position[2] !== 0)
        problems.push({
          path: `bodies[${i}].position[2]`,
          message: `In a flat world a body lies at 0 behind right and up, and this one at ${position[2]}. Set it to 0.`,
        });
    });
  const all = allCameras(project);
  all.forEach(({ id, kind, name }, i) => {
    if (kind !== project.camera.kind)
      problems.push({
        path: 'cameras',
        message: `The camera “${name}” is of another kind of world than the one looked through. Take it out.`,
      });
    if (all.findIndex((one) => one.id === id) < i)
      problems.push({
        path: 'cameras',
        message: `Two cameras have the id “${id}”. Give each its own.`,
      });
  });
  if (project.probe.body !== null && !project.bodies.some(({ id }) => id === project.probe.body))
    problems.push({
      path: 'probe.body',
      message: `There is no body “${project.probe.body}” to probe. Name one of the bodies, or null.`,
    });
  return problems.length ? { ok: false, problems } : { ok: true, project };
}

/** Bodies and tiles that are to be drawn with images that the project does not have, or cannot be. */
function unknownImages({ images, bodies, tiles, camera }: Project): Problem[] {
  const ids = new Set(images.map(({ id }) => id));
  const missing = (path: string, id: string): Problem => ({
    path,
    message: `There is no image “${id}”. Name one of the images, or leave it out.`,
  });
  return [
    ...bodies.flatMap(({ image, shape, name }, i): Problem[] => {
      if (image === undefined) return [];
      if (camera.kind !== '2d' || shape.kind !== 'quad')
        return [
          {
            path: `bodies[${i}].image`,
            message: `“${name}” has an image, and only a quad in a 2D world is drawn with one. Take the image away, or make the shape a quad.`,
          },
        ];
      return ids.has(image) ? [] : [missing(`bodies[${i}].image`, image)];
    }),
    ...(tiles?.images ?? []).flatMap((id, i) =>
      id === null || ids.has(id) ? [] : [missing(`tiles.images[${i}]`, id)],
    ),
  ];
}

/** A file whose numbers are not written as those of project files are. */
function writtenOtherwise(value: unknown): Problem | null {
  const said = (value as { writtenIn?: { axes?: Record<string, unknown> } } | null)?.writtenIn?.axes;
  if (typeof said !== 'object' || said === null) return null;
  const other = Object.entries(writtenIn.axes).find(([name, own]) => name in said && said[name] !== own);
  return other
    ? {
        path: `writtenIn.axes.${other[0]}`,
        message: `The file says that its numbers are written with ${other[0]} ${String(said[other[0]])}, and those of a project are always written with ${other[0]} ${other[1]}. Give them as a compute request with those conventions instead; it opens as a project.`,
      }
    : null;
}

/** The side of a tile of a flat world, in world units: the map's, or what is said where there is none. */
export const tileSide = ({ tiles, tile }: Pick<Project, 'tiles' | 'tile'>): number => tiles?.size ?? tile.size;

/** All cameras of a project in their order, the one looked through in its place. */
export function allCameras({ camera, cameras, cameraPlace }: Pick<Project, 'camera' | 'cameras' | 'cameraPlace'>) {
  const place = Math.min(cameraPlace, cameras.length);
  return [...cameras.slice(0, place), camera, ...cameras.slice(place)];
}

/** A project from the text of a file, or what is wrong with it. */
export function parseProject(text: string): ReadProject {
  const parsed = parseJson(text);
  return parsed.ok ? readProject(parsed.value) : parsed;
}

/** A JSON value from text, or that it is none. */
export function parseJson(text: string): { ok: true; value: unknown } | { ok: false; problems: Problem[] } {
  try {
    return { ok: true, value: JSON.parse(text) };
  } catch (error) {
    return { ok: false, problems: [{ path: '', message: `The file is not JSON: ${(error as Error).message}.` }] };
  }
}

/** Whether a JSON value means to be a compute request rather than a project. */
export const isRequest = (value: unknown): boolean =>
  typeof value === 'object' && value !== null && 'astrolabe' in value && !('astrolabeProject' in value);

/** A project as the text of a file, with what its numbers are written in. */
export function writeProject({ astrolabeProject, ...project }: Project): string {
  return JSON.stringify({ astrolabeProject, writtenIn, ...project }, null, 2) + '\n';
}
