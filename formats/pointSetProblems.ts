import type { Problem } from '../core/reasons';

interface SetInFile {
  readonly id: string;
  readonly name: string;
  readonly key: string;
  readonly coordinates?: readonly number[] | undefined;
  readonly names?: readonly string[] | undefined;
}

/** Returns the problems of a file's sets of points that their schema does not find. */
export function pointSetProblems(sets: readonly SetInFile[]): Problem[] {
  return sets.flatMap(({ id, name, coordinates, names, key }, i): Problem[] => {
    const at = `pointSets[${i}]`;
    if (sets.findIndex((one) => one.id === id) < i)
      return [{ path: `${at}.id`, message: `Two sets of points have the id “${id}”. Give each its own.` }];
    if (!coordinates)
      return key
        ? []
        : [{ path: `${at}.coordinates`, message: `The set “${name}” has no points. Give its coordinates, or take it out.` }]; // prettier-ignore
    if (coordinates.length % 3)
      return [{ path: `${at}.coordinates`, message: `The set “${name}” has ${coordinates.length} numbers, and every point takes three.` }]; // prettier-ignore
    if (names && names.length !== coordinates.length / 3)
      return [{ path: `${at}.names`, message: `The set “${name}” has ${coordinates.length / 3} points and ${names.length} names. Give each its own, or none.` }]; // prettier-ignore
    return [];
  });
}
