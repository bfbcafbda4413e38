import type { Project } from '../../../formats/project';
import { moves } from '../../state/span';

/* Which panes stand in the centre below the camera's picture. */

/** The panes of the house; a task's own go by `task/pane`. */
export const housePanes = ['plan', 'section', 'screens', 'points', 'outside'] as const;
export type HousePane = (typeof housePanes)[number];
export type PaneName = HousePane | (string & {});

/** What the pane's caption says. */
export const paneTitles: Readonly<Record<HousePane, readonly [title: string, sub: string]>> = {
  plan: ['Plan', 'from above'],
  section: ['Section', 'along the gaze'],
  screens: ['Screens', 'at one scale'],
  points: ['Points', 'in every space'],
  outside: ['Outside', 'from anywhere'],
};

/**
 * Whether a pane has a meaning in a world: a flat one has no section and is not seen from outside.
 */
export const paneFits = (pane: PaneName, flat: boolean): boolean => !flat || (pane !== 'section' && pane !== 'outside');

/**
 * The row of panes: the user's, or the plan and what the task opens with. Two or three; what has no
 * meaning in the world is replaced by the screens.
 */
export function rowOf(wanted: readonly PaneName[] | undefined, usual: PaneName, flat: boolean): readonly PaneName[] {
  const row = (wanted?.length ? wanted : ['plan', usual]).map((pane) => (paneFits(pane, flat) ? pane : 'screens'));
  return [...new Set(row)].slice(0, 3);
}

/** How high the time rule stands: only where a project moves. */
export const timeRuleHeight = 46;
export const stripHeight = (project: Project, ofTask: number): number => (moves(project) ? timeRuleHeight : 0) + ofTask;
