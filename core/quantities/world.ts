import { letterOf } from '../conventions/axes';
import type { ConventionCodec } from '../conventions/codec';
import type { Vec2, Vec3 } from '../math/vec3';

/**
 * A kind of world: what its points are made of and which axes bodies stand on. Code asks the world instead of
 * branching on the number of dimensions.
 */
export interface World {
  readonly kind: '2d' | '3d';
  /** Components of a written point. */
  readonly dimensions: 2 | 3;
  /** The axis that, with right, spans the surface bodies stand on: the ground of a 3D world, the plane of a 2D one. */
  readonly surfaceAxis: 'forward' | 'up';
  /** Whether surfaces have a height, and cameras a near and a far plane. */
  readonly hasDepth: boolean;
  /** Axis names of a written point, in its order. */
  pointAxes(codec: ConventionCodec): readonly string[];
  /** Axis names of a written point of the surface, in its order. */
  surfaceAxes(codec: ConventionCodec): readonly string[];
  /** Writes a canonical point; a 2D world's point has z = 0. */
  writePoint(point: Vec3, codec: ConventionCodec): [number, number, number] | [number, number];
  /** Reads a written point: the inverse of `writePoint`. */
  readPoint(written: readonly number[], codec: ConventionCodec): [number, number, number];
  /** Writes a point of the surface, given to the right and along the surface axis. */
  writeSurface(point: Vec2, codec: ConventionCodec): [number, number];
  /** Reads a written point of the surface: the inverse of `writeSurface`. */
  readSurface(written: Vec2, codec: ConventionCodec): [number, number];
}

const surfaceOf = (
  axis: World['surfaceAxis'],
): Pick<World, 'surfaceAxis' | 'surfaceAxes' | 'writeSurface' | 'readSurface'> => ({
  surfaceAxis: axis,
  surfaceAxes: ({ conventions: { world } }) => [letterOf(world.right), letterOf(world[axis])],
  writeSurface: (point, codec) => codec.toPair(axis, point) as [number, number],
  readSurface: (written, codec) => codec.fromPair(axis, written) as [number, number],
});

/** A 3D world; bodies stand on its ground. */
export const space: World = {
  kind: '3d',
  dimensions: 3,
  hasDepth: true,
  ...surfaceOf('forward'),
  pointAxes: () => ['x', 'y', 'z'],
  writePoint: (point, codec) => codec.toWorld(point) as [number, number, number],
  readPoint: (written, codec) => codec.fromWorld(written as unknown as Vec3) as [number, number, number],
};

const flatSurface = surfaceOf('up');
/** A 2D world: the plane of right and up. */
export const plane: World = {
  kind: '2d',
  dimensions: 2,
  hasDepth: false,
  ...flatSurface,
  pointAxes: flatSurface.surfaceAxes,
  writePoint: (point, codec) => flatSurface.writeSurface([point[0], point[1]], codec),
  readPoint: (written, codec) => {
    const [right, up] = flatSurface.readSurface(written as unknown as Vec2, codec);
    return [right, up, 0];
  },
};

/** Returns the world of a kind. */
export const worldOf = (kind: World['kind']): World => (kind === '2d' ? plane : space);
