import type { Shape } from '../core/bodies/body';
import type { Problem } from '../core/reasons';

/*
 * How much a project may hold to be worked with on the page: one measure for all ways in, by file,
 * request, model, points or from another project. What is kept already is opened whatever it holds.
 */

export const mostBodies = 10_000;
/** Of all meshes together. */
export const mostTriangles = 1_000_000;

const many = (count: number): string => count.toLocaleString('en');

export const tooManyTriangles = (count: number): string =>
  `It has ${many(count)} triangles, and a project takes ${many(mostTriangles)}. Thin it out, or take a part of it.`;

/** What is too much about bodies that are to be in one project; empty where they fit. */
export function tooMuch(bodies: readonly { readonly shape: Shape }[]): Problem[] {
  const problems: Problem[] = [];
  if (bodies.length > mostBodies)
    problems.push({
      path: 'bodies',
      message: `It has ${many(bodies.length)} bodies, and a project takes ${many(mostBodies)}. Leave some out.`,
    });
  const triangles = bodies.reduce(
    (sum, { shape }) => sum + (shape.kind === 'mesh' ? Math.floor(shape.indices.length / 3) : 0),
    0,
  );
  if (triangles > mostTriangles) problems.push({ path: 'bodies', message: tooManyTriangles(triangles) });
  return problems;
}
