import * as z from 'zod';
import { signedAxes } from '../conventions/axes';
import { defaultConventions } from '../conventions/conventions';
import { shorten } from './issues';
import { largest } from './limits';

// A page’s security policy lets nothing be compiled from text; without this the schema library
// would try. Said here, where the first schema is made.
z.config({ jitless: true });

/* Schemas of values that requests, projects and settings share. */

export const number = z.number().min(-largest).max(largest);
export const positive = z
  .number()
  .positive()
  .min(1 / largest)
  .max(largest);
export const vec2Schema = z.tuple([number, number]);
export const vec3Schema = z.tuple([number, number, number]);
export const quatSchema = z.tuple([number, number, number, number]);

/** Returns whether a test holds for every entry, holes of a sparse list included (`every` passes over them). */
function fitsAll(list: readonly unknown[], fits: (value: unknown) => boolean): boolean {
  for (let i = 0; i < list.length; i++) if (!fits(list[i])) return false;
  return true;
}

/**
 * Creates the schema of a list of any length.
 *
 * Lists the first issues and counts the others (`issueCount`): the schema library passes issues on as arguments
 * of one call, which cannot take a hundred thousand.
 *
 * @param fits - where it holds for every entry, the list is used as it is; the library would visit and copy each
 *   of perhaps a million entries
 */
export function listOf<Entry extends z.ZodType>(entry: Entry, fits?: (value: unknown) => boolean): z.ZodArray<Entry> {
  const list = z.array(entry);
  const { run } = list._zod;
  list._zod.run = (payload, context) => {
    if (fits && Array.isArray(payload.value) && fitsAll(payload.value, fits)) return payload as never;
    const ran = run(payload, context);
    if (!(ran instanceof Promise)) shorten(ran.issues);
    return ran;
  };
  return list;
}

const isNumber = (value: unknown): boolean => typeof value === 'number' && Math.abs(value) <= largest;
const isIndex = (value: unknown): boolean => Number.isSafeInteger(value) && (value as number) >= 0;

const signedAxis = z.enum(signedAxes as [(typeof signedAxes)[number], ...(typeof signedAxes)[number][]]);
const d = defaultConventions;
const axisFrame = z
  .object({
    right: signedAxis.default(d.world.right),
    up: signedAxis.default(d.world.up),
    forward: signedAxis.default(d.world.forward),
  })
  .describe('The signed axes that point right, up and ahead: three different letters');

export const conventionsObject = z.object({
  world: axisFrame.prefault({}),
  view: axisFrame.prefault({}),
  ndc: z
    .object({
      up: z.enum(['+y', '-y']).default(d.ndc.up),
      near: number.default(d.ndc.near),
      far: number.default(d.ndc.far),
    })
    .describe('Direction of NDC y and the NDC depths of the near and far plane, two different numbers')
    .prefault({}),
  screen: z
    .object({
      origin: z.enum(['top-left', 'bottom-left']).default(d.screen.origin),
      pixelCentre: z.union([z.literal(0), z.literal(0.5)]).default(d.screen.pixelCentre),
    })
    .prefault({}),
  matrix: z
    .object({
      vectors: z.enum(['column', 'row']).default(d.matrix.vectors),
      storage: z.enum(['column-major', 'row-major']).default(d.matrix.storage),
    })
    .prefault({}),
  angles: z
    .object({
      unit: z.enum(['degrees', 'radians']).default(d.angles.unit),
      yaw: z.enum(['right', 'left']).default(d.angles.yaw),
      pitch: z.enum(['up', 'down']).default(d.angles.pitch),
      roll: z.enum(['right', 'left']).default(d.angles.roll),
    })
    .prefault({}),
});
/** Conventions; missing parts have their defaults. */
export const conventionsSchema = conventionsObject.prefault({});

export const shapes = <Size extends z.ZodType>(boxSize: Size) =>
  z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('point') }),
    z.object({ kind: z.literal('sphere'), radius: positive }),
    z.object({
      kind: z.literal('box'),
      size: boxSize,
    }),
    z.object({ kind: z.literal('quad'), size: z.tuple([positive, positive]) }),
    z.object({
      kind: z.literal('mesh'),
      positions: listOf(number, isNumber),
      indices: listOf(z.int().nonnegative(), isIndex),
    }),
  ]);
export const boxSize = z.tuple([positive, positive, positive]);
export const shapeSchema = shapes(boxSize);
