import { z } from 'zod';
import { problemsOf } from '../core/compute/issues';
import { conventionsSchema, quatSchema, shapeSchema, vec2Schema, vec3Schema } from '../core/compute/schema';
import { readConventions } from '../core/compute/read';
import { screenFits, type ScreenFit } from '../core/camera/fit';
import { meshProblems, placeBodies } from '../core/bodies/body';
import type { Problem } from '../core/reasons';

/**
 * A project as it is kept, exported and imported (`docs/project.md`). Everything with a direction is on the inside's axes (right-handed, +y up,
 * heading 0 along −z) and angles are in degrees, whatever conventions the project is shown in: so a change of conventions changes one entry
 * and cannot move the scene.
 */

const number = z.number();

export const orientationSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('lookAt'), target: vec3Schema }),
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
});

export const screenSchema = z.object({
  name: z.string().min(1),
  width: z.int().min(1).max(16384),
  height: z.int().min(1).max(16384),
});

/** The screens that a new project is shown on. */
const commonScreens = [
  { name: 'Phone, upright', width: 390, height: 844 },
  { name: 'Phone, lying', width: 844, height: 390 },
  { name: '16 : 9', width: 1920, height: 1080 },
  { name: '21 : 9', width: 2560, height: 1080 },
  { name: '4 : 3', width: 1024, height: 768 },
];

const rung = z.enum(['local', 'world', 'view', 'ndc', 'screen']);

export const projectSchema = z.object({
  astrolabeProject: z.literal(1).describe('The version of this format'),
  id: z.string().min(1),
  name: z.string().min(1),
  unit: z.string().min(1).default('metres').describe('What one world unit is called'),
  conventions: conventionsSchema,
  viewport: z.object({
    width: z.int().min(1).max(16384),
    height: z.int().min(1).max(16384),
    devicePixelRatio: number.min(0.25).max(8).default(1),
  }),
  camera: z.object({
    name: z.string().min(1),
    position: vec3Schema,
    orientation: orientationSchema,
    projection: projectionSchema,
    sensorHeight: number.positive().default(24).describe('Millimetres; what a focal length is said for'),
  }),
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
  bodies: z.array(bodySchema).default([]),
  probe: z.object({
    body: z.string().nullable(),
    drive: z.object({ rung, value: vec3Schema }),
  }),
  back: z.object({
    pixel: vec2Schema.describe('From the top left of the viewport, centres at .5'),
    route: z.enum(['depth', 'ahead', 'range', 'plane']),
    value: number.describe('Of the route: depth 0 at near and 1 at far, a distance, or the height of a level plane'),
  }),
});

export type Project = z.output<typeof projectSchema>;
export type ProjectBody = Project['bodies'][number];
export type ProjectCamera = Project['camera'];
export type Tone = z.output<typeof toneSchema>;

export type ReadProject = { ok: true; project: Project } | { ok: false; problems: Problem[] };

/**
 * A project from a parsed JSON value, or everything that is wrong with it. A camera that cannot be (near beyond far) is no
 * fault of the file: it is kept and explained where it is edited. Bodies and conventions must hold together.
 */
export function readProject(value: unknown): ReadProject {
  const parsed = projectSchema.safeParse(value, { reportInput: true });
  if (!parsed.success) return { ok: false, problems: problemsOf(parsed.error) };
  const project = parsed.data;
  const conventions = readConventions(project.conventions);
  const bodies = placeBodies(project.bodies);
  const problems: Problem[] = [
    ...(conventions.ok ? [] : conventions.problems),
    ...(bodies.ok ? [] : bodies.problems),
    ...project.bodies.flatMap(({ shape }, i) => meshProblems(shape, `bodies[${i}].shape`)),
  ];
  if (project.probe.body !== null && !project.bodies.some(({ id }) => id === project.probe.body))
    problems.push({
      path: 'probe.body',
      message: `There is no body “${project.probe.body}” to probe. Name one of the bodies, or null.`,
    });
  return problems.length ? { ok: false, problems } : { ok: true, project };
}

/** A project from the text of a file, or what is wrong with it. */
export function parseProject(text: string): ReadProject {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return { ok: false, problems: [{ path: '', message: `The file is not JSON: ${(error as Error).message}.` }] };
  }
  if (typeof value === 'object' && value !== null && 'astrolabe' in value && !('astrolabeProject' in value))
    return {
      ok: false,
      problems: [
        {
          path: 'astrolabe',
          message:
            'This file is a compute request, not a project. Give it to the command line: astrolabe compute FILE.',
        },
      ],
    };
  return readProject(value);
}

/** A project as the text of a file: indented, the numbers of a mesh on one line each. */
export const writeProject = (project: Project): string => JSON.stringify(project, null, 2) + '\n';
