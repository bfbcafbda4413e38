import type { World } from '../quantities/world';
import type { Problem } from '../reasons';

/** Returns the problem of a point whose number of components is not that of the world. */
export const pointProblem = (path: string, world: World): Problem => ({
  path,
  message: world.hasDepth
    ? 'A point has three coordinates, x, y and z.'
    : 'With a 2D camera a point is a pair: the world’s coordinates to the right and up.',
});
