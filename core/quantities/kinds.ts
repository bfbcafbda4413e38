import type { ConventionCodec } from '../conventions/codec';
import type { Viewport } from '../camera/frame';
import type { Depth01 } from '../convert/project';
import type { Quat } from '../math/quat';
import type { Vec2, Vec3 } from '../math/vec3';
import type { World } from './world';

/** The conventions, the world and the viewport that a value is written in. */
export interface QuantityContext {
  readonly codec: ConventionCodec;
  readonly world: World;
  /** Needed by `screenPoint` alone. */
  readonly viewport?: Viewport;
}

/** The unit that a written quantity has. */
export type QuantityUnit = 'length' | 'angle' | 'angularRate' | 'pixels' | 'seconds' | 'none';

/**
 * A kind of quantity: how its canonical value is written in conventions, and read back. Canonical values are radians,
 * right-handed axes (x right, y up, z backward) and scene units.
 */
export interface QuantityKind<Value> {
  readonly unit: QuantityUnit;
  /** Whether written and canonical values are the same in any conventions. */
  readonly isPlain: boolean;
  /** Axis names of the components; empty for a scalar. */
  axes(context: QuantityContext): readonly string[];
  write(value: Value, context: QuantityContext): Written<Value>;
  /** The inverse of `write`. */
  read(written: Written<Value>, context: QuantityContext): Value;
}
/** Written values: vectors may have fewer components, as in 2D. */
export type Written<Value> = Value extends readonly number[]
  ? readonly number[]
  : Value extends Depth01
    ? number
    : Value;

/** Converts points that are listed by their components. */
function convertTriples(list: readonly number[], convert: (v: Vec3) => Vec3): number[] {
  const converted = new Array<number>(list.length);
  for (let i = 0; i < list.length; i += 3) {
    const [x, y, z] = convert([list[i]!, list[i + 1]!, list[i + 2]!]);
    converted[i] = x;
    converted[i + 1] = y;
    converted[i + 2] = z;
  }
  return converted;
}

const noAxes = (): readonly string[] => [];

const plainKind = (unit: QuantityUnit): QuantityKind<number> => ({
  unit,
  isPlain: true,
  axes: noAxes,
  write: (value) => value,
  read: (written) => written,
});

const scalarKind = (
  unit: QuantityUnit,
  write: (value: number, codec: ConventionCodec) => number,
  read: (written: number, codec: ConventionCodec) => number,
): QuantityKind<number> => ({
  unit,
  isPlain: false,
  axes: noAxes,
  write: (value, { codec }) => write(value, codec),
  read: (written, { codec }) => read(written, codec),
});

const angleKind = (unit: 'angle' | 'angularRate'): QuantityKind<number> =>
  scalarKind(
    unit,
    (value, codec) => codec.toAngle(value),
    (written, codec) => codec.fromAngle(written),
  );

/** An angle with a sense: turns one way in some conventions and the other way in others. */
const turnKind = (unit: 'angle' | 'angularRate', name: 'yaw' | 'pitch' | 'roll'): QuantityKind<number> =>
  scalarKind(
    unit,
    (value, codec) => codec.toAngles({ yaw: 0, pitch: 0, roll: 0, [name]: value })[name],
    (written, codec) => codec.fromAngles({ yaw: 0, pitch: 0, roll: 0, [name]: written })[name],
  );

const pointKind = (unit: QuantityUnit): QuantityKind<Vec3> => ({
  unit,
  isPlain: false,
  axes: ({ world, codec }) => world.pointAxes(codec),
  write: (value, { world, codec }) => world.writePoint(value, codec),
  read: (written, { world, codec }) => world.readPoint(written, codec),
});

const surfaceKind = (unit: QuantityUnit): QuantityKind<Vec2> => ({
  unit,
  isPlain: false,
  axes: ({ world, codec }) => world.surfaceAxes(codec),
  write: (value, { world, codec }) => world.writeSurface(value, codec),
  read: (written, { world, codec }) => world.readSurface(written as unknown as Vec2, codec),
});

const pitchKind = turnKind('angle', 'pitch');

function viewportOf({ viewport }: QuantityContext): Viewport {
  if (!viewport) throw new Error('a screen point is written in the pixels of a viewport');
  return viewport;
}

/** The kinds by their names. */
export const kinds = {
  /** A place in the world. */
  point: pointKind('length'),
  /** A direction in the world, of any length. */
  direction: pointKind('none'),
  /** A direction in the world with three components, in a 2D world too. */
  axis: {
    unit: 'none',
    isPlain: false,
    axes: () => ['x', 'y', 'z'],
    write: (value, { codec }) => codec.toWorld(value),
    read: (written, { codec }) => codec.fromWorld(written as unknown as Vec3),
  } satisfies QuantityKind<Vec3> as QuantityKind<Vec3>,
  /** Points of the world, their components one after another. */
  points: {
    unit: 'length',
    isPlain: false,
    axes: noAxes,
    write: (list, { codec }) => convertTriples(list, codec.toWorld),
    read: (list, { codec }) => convertTriples(list, codec.fromWorld),
  } satisfies QuantityKind<readonly number[]> as QuantityKind<readonly number[]>,
  /** A point of the viewport: canonically (across, upward), −1…1 each; written in pixels. */
  screenPoint: {
    unit: 'pixels',
    isPlain: false,
    axes: () => ['x', 'y'],
    write: ([across, upward], context) => context.codec.toScreen(viewportOf(context), across, upward),
    read: (written, context) => context.codec.fromScreen(viewportOf(context), written as unknown as Vec2),
  } satisfies QuantityKind<Vec2> as QuantityKind<Vec2>,
  /** A depth value: canonically its shares of near and far; written 0…1. */
  depth: {
    unit: 'none',
    isPlain: false,
    axes: noAxes,
    write: (value, { codec }) => codec.toDepth(value),
    read: (written, { codec }) => codec.fromDepth(written),
  } as QuantityKind<Depth01>,
  /** Scene units per second. */
  velocity: pointKind('length'),
  /** A place on the surface bodies stand on: to the right, and ahead in 3D or up in 2D. */
  surfacePoint: surfaceKind('length'),
  /** A displacement or a velocity along that surface. */
  surfaceVector: surfaceKind('length'),
  /** A place along the world's up axis. */
  height: scalarKind(
    'length',
    (value, codec) => codec.toHeight(value),
    (written, codec) => codec.fromHeight(written),
  ),
  /** Lengths along the world's axes, whichever way they point: sizes and scales. */
  sizes: {
    unit: 'length',
    isPlain: false,
    axes: () => ['x', 'y', 'z'],
    write: (value, { codec }) => codec.toSizes(value),
    // A box of a 2D world may leave out its third size, which has no meaning there.
    read: (written, { codec }) =>
      written.length === 2 ? [written[0]!, written[1]!, 1] : codec.fromSizes(written as unknown as Vec3),
  } satisfies QuantityKind<Vec3> as QuantityKind<Vec3>,
  /** A rotation as a unit quaternion (x, y, z, w). */
  rotation: {
    unit: 'none',
    isPlain: false,
    axes: () => ['x', 'y', 'z', 'w'],
    write: (value, { codec }) => codec.toRotation(value),
    read: (written, { codec }) => codec.fromRotation(written as unknown as Quat),
  } satisfies QuantityKind<Quat> as QuantityKind<Quat>,
  /** An angle without a sense, such as a field of view. */
  angle: angleKind('angle'),
  /** Clockwise from straight ahead in 3D, from up in 2D, seen from above; in any conventions. */
  heading: angleKind('angle'),
  yaw: turnKind('angle', 'yaw'),
  pitch: pitchKind,
  roll: turnKind('angle', 'roll'),
  /** The lowest and the highest pitch, in rising order in any conventions. */
  pitchRange: {
    unit: 'angle',
    isPlain: false,
    axes: () => ['lowest', 'highest'],
    write: (range, context) => range.map((v) => pitchKind.write(v, context)).sort((a, b) => a - b),
    read: (written, context) =>
      written.map((v) => pitchKind.read(v, context)).sort((a, b) => a - b) as [number, number],
  } satisfies QuantityKind<Vec2> as QuantityKind<Vec2>,
  angularRate: angleKind('angularRate'),
  yawRate: turnKind('angularRate', 'yaw'),
  pitchRate: turnKind('angularRate', 'pitch'),
  length: plainKind('length'),
  pixels: plainKind('pixels'),
  seconds: plainKind('seconds'),
  ratio: plainKind('none'),
  count: plainKind('none'),
  /** A value that stays as it is written; its reader converts it. */
  written: plainKind('none'),
} as const;

export type KindName = keyof typeof kinds;
/** The canonical value of a kind. */
export type ValueOf<Name extends KindName> = (typeof kinds)[Name] extends QuantityKind<infer Value> ? Value : never;
