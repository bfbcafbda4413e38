import type { Project } from '../../formats/project';
import { memo } from './memo';
import { sliceOf, slices } from './slices';

/** Seconds that the slices have the camera of a project move; null where it stands. */
const journeySpan = memo((project: Project): number | null => {
  const spans = Object.entries(slices()).flatMap(([name, slice]) => slice.span?.(sliceOf(name, project), project) ?? []); // prettier-ignore
  return spans.length ? Math.max(...spans) : null;
});

/** Whether anything in a project moves by itself: a body, or the camera. */
export const moves = (project: Project): boolean =>
  project.bodies.some(({ motion }) => motion !== null) || journeySpan(project) !== null;

/** No rule is longer, seconds. */
export const longestRule = 600;

/**
 * How long the rule of a project is: what its camera does, and the longest round or way of its
 * bodies; from 10 seconds to 10 minutes.
 */
export function spanOf(project: Project): number {
  const longest = project.bodies.reduce((most, { motion }) => {
    if (!motion) return most;
    if (motion.kind === 'drift') return Math.max(most, 60);
    return Math.max(most, motion.kind === 'path' ? motion.keys.at(-1)!.time : Math.abs(motion.period));
  }, 0);
  return Math.min(longestRule, Math.ceil(Math.max(10, longest, journeySpan(project) ?? 0)));
}
