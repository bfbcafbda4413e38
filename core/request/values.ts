import * as z from 'zod';
import type { Depth01 } from '../convert/project';
import type { Quat } from '../math/quat';
import type { Vec2, Vec3 } from '../math/vec3';
import { asSeries } from '../quantities/convert';
import type { KindName } from '../quantities/kinds';
import { areNumbers, largest, listOf } from '../quantities/numbers';
import { describe } from '../quantities/quantity';
import type { NullReason } from '../reasons';

/*
 * Described values of requests and answers. `z.input` is the written value, in the request's conventions, which the
 * schema checks; `z.output` is the canonical one, which `readValue` converts it to.
 */

type Described<Canonical, Written> = z.ZodType<Canonical, Written>;
type Pair = [number, number];
type Triple = [number, number, number];
type Four = [number, number, number, number];

/** Builders of described values over a schema of numbers. */
function buildersOver(number: () => z.ZodNumber) {
  /** Describes a schema of written values; the schema library knows the written type alone. */
  const described = <Canonical, Written>(
    schema: z.ZodType<unknown, Written>,
    kind: KindName,
    description?: string,
    world?: '3d',
  ): Described<Canonical, Written> =>
    describe(schema, kind, {
      ...(description !== undefined && { description }),
      ...(world && { world }),
    }) as Described<Canonical, Written>;
  const pair = (): Described<Vec2, Pair> => z.tuple([number(), number()]);
  const triple = (): Described<Vec3, Triple> => z.tuple([number(), number(), number()]);
  const four = (): Described<Quat, Four> => z.tuple([number(), number(), number(), number()]);
  const scalarOf =
    (kind: KindName) =>
    (description?: string, schema: z.ZodNumber = number()): Described<number, number> =>
      described(schema.clone(), kind, description);
  const pairOf =
    (kind: KindName) =>
    (description?: string): Described<Vec2, Pair> =>
      described(pair(), kind, description);
  return {
    number,
    pair,
    triple,
    four,
    /** A world point: three components, or two with a 2D camera. */
    point: (description?: string): Described<Vec3, Triple | Pair> =>
      described(z.union([triple(), pair()]), 'point', description),
    velocity: (description?: string): Described<Vec3, Triple | Pair> =>
      described(z.union([triple(), pair()]), 'velocity', description),
    /** A world point where only a 3D camera has one. */
    point3d: (description?: string): Described<Vec3, Triple> => described(triple(), 'point', description, '3d'),
    /** A direction in the world, of any length, with three components in any world. */
    axis: (description?: string): Described<Vec3, Triple> => described(triple(), 'axis', description),
    /** A point of the surface bodies stand on: to the right, and ahead in 3D or up in 2D. */
    surfacePoint: pairOf('surfacePoint'),
    surfaceVector: pairOf('surfaceVector'),
    /** A point of the viewport, in pixels. */
    pixel: pairOf('screenPoint'),
    /** The lowest and the highest pitch. */
    pitchRange: pairOf('pitchRange'),
    rotation: (description?: string): Described<Quat, Four> => described(four(), 'rotation', description),
    /** A depth value, 0…1. */
    depth: (description?: string): Described<Depth01, number> => described(number(), 'depth', description),
    angle: scalarOf('angle'),
    yaw: scalarOf('yaw'),
    pitch: scalarOf('pitch'),
    roll: scalarOf('roll'),
    yawRate: scalarOf('yawRate'),
    pitchRate: scalarOf('pitchRate'),
  };
}

/** Builders of values that come in: their numbers are bounded. */
export const input = buildersOver(() => z.number().min(-largest).max(largest));
/** Builders of values that go out: any finite numbers. */
export const output = buildersOver(() => z.number());

/**
 * The schema of a list that may be long, which is computed a part at a time.
 *
 * @param fits - where it holds for every entry, the list is used without a visit by the schema library
 */
export function series<Entry extends z.ZodType>(
  entry: Entry,
  description?: string,
  fits?: (value: unknown) => boolean,
) {
  const list = listOf(entry, fits);
  if (description !== undefined) z.globalRegistry.add(list, { description });
  return asSeries(list);
}
export const points = (description?: string) => series(input.point(), description, (value) => areNumbers(value, 2, 3));
/** Pixels that an operation needs as they are written, to the digit. */
export const writtenPixels = (description?: string) =>
  series(input.pair(), description, (value) => areNumbers(value, 2, 2));
export const pixels = (description?: string) => series(input.pixel(), description, (value) => areNumbers(value, 2, 2));

/** A plane by a point and a normal. */
export const plane = () => z.object({ point: input.point3d(), normal: input.axis() });
/** Sixteen numbers of a matrix, listed as the conventions say. */
export const sixteen = () => z.array(output.number()).length(16).describe('16 numbers');
/** The reason for a null in the same object. */
export const reason = (...reasons: readonly [NullReason, ...NullReason[]]) =>
  (z.enum(reasons) as z.ZodType<NullReason, NullReason>).optional();

/** The schema of a list of a request. */
export const inputList = <Entry extends z.ZodType>(
  entry: Entry,
): z.ZodType<readonly z.output<Entry>[], z.input<Entry>[]> => listOf(entry);
/** The schema of a list of an answer. */
export const list = <Entry extends z.ZodType>(
  entry: Entry,
  description?: string,
): z.ZodType<readonly z.output<Entry>[], readonly z.input<Entry>[]> => {
  const schema = z.array(entry);
  return (description === undefined ? schema : schema.describe(description)) as never;
};
/** The schema of a list of an answer that may be long, which is computed a part at a time. */
export const answers = <Entry extends z.ZodType>(entry: Entry) => asSeries(z.array(entry));
/** The identifier of a body. */
export const body = () => z.string().describe('Id of a body');
export const planeName = () => z.enum(['left', 'right', 'bottom', 'top', 'near', 'far']);
