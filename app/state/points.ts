import { readPair, writePair } from '../../core/compute/readValues';
import { letterOf } from '../../core/conventions/axes';
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

export const pointFormOf = (e: ConventionCodec, flat: boolean): PointForm =>
  flat
    ? {
        letters: [letterOf(e.conventions.world.right), letterOf(e.conventions.world.up)],
        show: (p) => writePair(p, e),
        read: ([a, b]) => readPair([a!, b!], e),
      }
    : {
        letters: ['x', 'y', 'z'],
        show: (p) => e.toWorld(p),
        read: ([x, y, z]) => e.fromWorld([x!, y!, z!]),
      };

/** A list's points in canonical world space, x, y, z after one another. */
export function insidePoints({ coordinates, size }: PointList, conventions: Conventions): Float64Array<ArrayBuffer> {
  const form = pointFormOf(codecOf(conventions), size === 2);
  const points = new Float64Array((coordinates.length / size) * 3);
  for (let i = 0; i < coordinates.length / size; i++)
    points.set(form.read([...coordinates.subarray(i * size, (i + 1) * size)]), i * 3);
  return points;
}
