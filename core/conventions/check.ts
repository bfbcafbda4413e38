import type { Problem } from '../reasons';
import { axesAreDistinct } from './axes';
import type { Conventions } from './conventions';

/** The least difference of NDC depths that can be divided by. */
const leastSpan = 1e-30;

/**
 * Checks conventions whose parts are each valid.
 *
 * @param at - path of the conventions in the request
 * @returns the problems of axes that share a letter and of NDC depths that are equal; none for usable conventions
 */
export function conventionProblems(conventions: Conventions, at = 'conventions'): Problem[] {
  const problems: Problem[] = [];
  for (const space of ['world', 'view'] as const) {
    const { right, up, forward } = conventions[space];
    if (!axesAreDistinct(conventions[space]))
      problems.push({
        path: `${at}.${space}`,
        code: 'axesNotDistinct',
        message: `The ${space} axes ${right}, ${up}, ${forward} use a letter twice. Name x, y and z once each.`,
      });
  }
  const { near, far } = conventions.ndc;
  if (Math.abs(near - far) < leastSpan)
    problems.push({
      path: `${at}.ndc.far`,
      message:
        near === far
          ? `NDC near and far are both ${near}, so no depth could be told from another. Make them differ.`
          : `NDC near and far, ${near} and ${far}, differ by less than 1e-30, which is too little to divide by. Move them apart.`,
    });
  return problems;
}
