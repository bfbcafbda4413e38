import type { Project } from './project';

/*
 * Sets of points of a project. They may be long, and a project is written down at every change: so
 * it holds what a set is called and a key to its points, which lie beside it and never change. A
 * file has them in the set.
 */

/** Points in canonical world space, x, y, z after one another, and their names if they have any. */
export interface PointData {
  readonly points: Float64Array;
  readonly names: readonly string[] | null;
}

/** The keyed sets of a project, as it is open. */
export type PointSet = Project['pointSets'][number];

/**
 * A key to points: 106 bits of a hash of their numbers, bit by bit, and their names, in
 * hexadecimal. The same points have the same key. (Two of Bob Jenkins' one-at-a-time kind with
 * multiplications, over the words; not meant to withstand anybody.)
 */
export function keyOfPoints({ points, names }: PointData): string {
  const state = [0x9e3779b9, 0x85ebca6b, 0xc2b2ae35, 0x27d4eb2f];
  const take = (word: number) => {
    for (let i = 0; i < 4; i++) {
      const mixed = Math.imul(state[i]! ^ word, [2654435761, 1597334677, 2246822519, 3266489917][i]!);
      state[i] = mixed ^ (mixed >>> (15 + i));
    }
  };
  take(points.length);
  // No file tells −0 from 0.
  for (const word of new Uint32Array(Float64Array.from(points, (v) => v + 0).buffer)) take(word);
  for (const name of names ?? []) {
    take(name.length + 1);
    for (let i = 0; i < name.length; i++) take(name.charCodeAt(i));
  }
  return state.map((word) => (word >>> 0).toString(16).padStart(8, '0')).join('');
}

/** A set with its points, as it stands in a file. */
export const setInFile = (set: PointSet, { points, names }: PointData): PointSet => ({
  ...set,
  coordinates: [...points],
  ...(names && { names: [...names] }),
});

/**
 * A project as a file has it: every set with its points, as far as they are at hand. The inverse is
 * `withoutPoints`.
 */
export const withPoints = (project: Project, dataOf: (key: string) => PointData | undefined): Project => ({
  ...project,
  pointSets: project.pointSets.map((set) => {
    const data = dataOf(set.key);
    return data ? setInFile(set, data) : set;
  }),
});

/** A project from a file as it is when it is open, and the points of its sets by their keys. */
export function withoutPoints(project: Project): { project: Project; data: Map<string, PointData> } {
  const data = new Map<string, PointData>();
  if (!project.pointSets.some(({ coordinates }) => coordinates)) return { project, data };
  const pointSets = project.pointSets.map(({ coordinates, names, ...set }) => {
    if (!coordinates) return set;
    const own = { points: Float64Array.from(coordinates), names: names ?? null };
    const key = keyOfPoints(own);
    data.set(key, own);
    return { ...set, key, count: coordinates.length / 3 };
  });
  return { project: { ...project, pointSets }, data };
}
