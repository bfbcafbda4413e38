import type { Project } from '../../../formats/project';
import type { Try } from '../task';
import type { VisibilityState } from './kept';

const kept = ({ tasks }: Project) => tasks.visibility as VisibilityState | undefined;

export const tries: { readonly harbour: readonly Try[]; readonly chart: readonly Try[] } = {
  harbour: [
    {
      id: 'visibility-planes',
      text: 'Choose the test of planes: what it keeps though nothing of it is seen is marked as a false alarm.',
      done: ({ project }) => kept(project)?.method === 'planes',
    },
    {
      id: 'visibility-corners',
      text: 'Choose the shortcut by corners: it misses what is larger than the picture.',
      done: ({ project }) => kept(project)?.shortcut === 'corners',
    },
    {
      id: 'visibility-why',
      text: 'Press Y, ask about the pilot launch and take the turn: the camera turns just as far as it must.',
      done: ({ frame }) => frame.forward[2] > -0.95,
    },
  ],
  chart: [
    {
      id: 'visibility-chart-margin',
      text: 'Raise the margin to 100: what is near the picture counts as seen, before it comes in.',
      done: ({ project }) => (kept(project)?.margin ?? 0) >= 100,
    },
    {
      id: 'visibility-chart-centre',
      text: 'Choose the shortcut by corners, and zoom in on a quay until no corner of it is seen.',
      done: ({ project }) => kept(project)?.shortcut === 'corners',
    },
    {
      id: 'visibility-chart-size',
      text: 'Under Size set a threshold at the ferry’s pixels: its level is one lower from there on.',
      done: ({ project }) => kept(project) !== undefined && kept(project)!.thresholds.join() !== '200,60,15',
    },
  ],
};
