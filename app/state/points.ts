import { plane, space } from '../../core/quantities/world';
import type { Conventions } from '../../core/conventions/conventions';
import { codecOf, type ConventionCodec } from '../../core/conventions/codec';
import type { Vec3 } from '../../core/math/vec3';
import type { PointList } from '../../formats/csv';

/**
 * How points of the world are written: three numbers, or a pair on the letters of right and up
 * where the world is flat.
 */
export interface PointForm {
  readonly letters: readonly string[];
  show(point: Vec3): readonly number[];
  /** The inverse of `show`. */
  read(numbers: readonly number[]): Vec3;
}

export function pointFormOf(codec: ConventionCodec, flat: boolean): PointForm {
  const world = flat ? plane : space;
  return {
    letters: world.pointAxes(codec),
    show: (point) => world.writePoint(point, codec),
    read: (numbers) => world.readPoint(numbers, codec),
  };
}

/** A list's points in canonical world space, x, y, z after one another. */
export function insidePoints({ coordinates, size }: PointList, conventions: Conventions): Float64Array<ArrayBuffer> {
  const form = pointFormOf(codecOf(conventions), size === 2);
  const points = new Float64Array((coordinates.length / size) * 3);
  for (let i = 0; i < coordinates.length / size; i++)
    points.set(form.read([...coordinates.subarray(i * size, (i + 1) * size)]), i * 3);
  return points;
}
