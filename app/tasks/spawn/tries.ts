import type { Project } from '../../../formats/project';
import type { Try } from '../task';
import type { SpawnState } from './kept';

const kept = ({ tasks }: Project) => tasks.spawn as SpawnState | undefined;
/** By the padding that the demo begins with. */
const list = (prefix: string, padding: number): readonly Try[] => [
  {
    id: `${prefix}-first`,
    text: 'Some bodies appear in view: under First frame put “bodies appear” behind “the camera moves”, and none does.',
    done: ({ project }) =>
      kept(project) !== undefined &&
      kept(project)!.first.order.indexOf('spawn') > kept(project)!.first.order.indexOf('camera'),
  },
  {
    id: `${prefix}-circle`,
    text: 'Under Points choose the circle: what pops into view and what is thrown away.',
    done: ({ project }) => kept(project)?.method === 'circle',
  },
  {
    id: `${prefix}-screens`,
    text: 'Under Screens take the padding that hides them on every screen.',
    done: ({ project }) => kept(project) !== undefined && kept(project)!.padding !== padding,
  },
];

export const tries = { harbour: list('spawn', 4), chart: list('spawn-chart', 8) };
