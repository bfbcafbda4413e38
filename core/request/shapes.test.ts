import { expect, it } from 'vitest';
import { shapeSchema } from './shapes';

/** A list of numbers with a hole, as only a caller in the same program can give it. */
function sparse(length: number): number[] {
  const list: number[] = [];
  for (let i = 0; i < length; i++) if (i !== 1) list[i] = i;
  return list;
}

it('rejects a mesh with holes or wrong entries in its lists, and takes right lists as they are', () => {
  const good = { kind: 'mesh', positions: [0, 1, 2, 3, 4, 5, 6, 7, 8], indices: [0, 1, 2] } as const;
  expect(shapeSchema.parse(good)).toEqual(good);
  for (const wrong of [{ positions: sparse(9) }, { indices: sparse(3) }, { positions: [NaN, 1, 2] }, { positions: [1e31, 0, 0] }, { indices: [0, 1.5, 2] }, { indices: [0, -1, 2] }, { indices: [0, 2 ** 53, 1] }])
    expect(shapeSchema.safeParse({ ...good, ...wrong }).success, Object.keys(wrong)[0]).toBe(false);
}); // prettier-ignore
