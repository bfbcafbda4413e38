import type { Project } from '../../../formats/project';
import type { Try } from '../task';
import type { PickState } from './kept';

const kept = ({ tasks }: Project) => tasks.pick as PickState | undefined;

export const tries: { readonly harbour: readonly Try[]; readonly chart: readonly Try[] } = {
  harbour: [
    {
      id: 'pick-fault',
      text: 'On the fault bench choose “without shake”: the second reticle is where the controller’s ray goes.',
      done: ({ project }) => kept(project)?.fault === 'shakeLeftOut',
    },
    {
      id: 'pick-muzzle',
      text: 'Drag the muzzle behind the lamp mole in the plan: its line to the target is blocked, and it says by what.',
      done: ({ project }) => kept(project) !== undefined && kept(project)!.muzzle[0] !== -36,
    },
    {
      id: 'pick-boxes',
      text: 'Tint the sweep by boxes: what every pixel’s ray has to test, dark where bodies crowd.',
      done: ({ project }) => kept(project)?.by === 'boxes',
    },
  ],
  chart: [
    {
      id: 'pick-chart-all',
      text: 'Click the lamp on its mole and list all: what lies under a point, on top first.',
      done: ({ project }) => kept(project)?.all === true,
    },
    {
      id: 'pick-chart-half',
      text: 'Choose “without the half”: half a pixel up and to the left, a tenth of a metre here.',
      done: ({ project }) => kept(project)?.fault === 'halfLeftOut',
    },
    {
      id: 'pick-chart-scroll',
      text: 'Raise the scroll under In the picture’s camera: the frame before misses by what a frame scrolls.',
      done: ({ project }) => kept(project) !== undefined && kept(project)!.velocity[0] > 30,
    },
  ],
};
