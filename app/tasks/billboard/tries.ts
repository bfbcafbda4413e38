import { radians } from '../../../core/math/angle';
import type { Project } from '../../../formats/project';
import type { Try } from '../task';
import type { BillboardState } from './kept';

const kept = ({ tasks }: Project) => tasks.billboard as BillboardState | undefined;

export const tries: { readonly harbour: readonly Try[]; readonly chart: readonly Try[] } = {
  harbour: [
    {
      id: 'billboard-down',
      text: 'Press D and look steeply down on the board: the two about an axis stay upright, the other two tip over to you.',
      done: ({ frame }) => frame.forward[1] < -0.8,
    },
    {
      id: 'billboard-wrong',
      text: 'Under Result suppose the wrong product: the lettering is mirrored, and it says why.',
      done: ({ project }) => kept(project)?.fault === 'handedness',
    },
    {
      id: 'billboard-stale',
      text: 'Under Stale turn boards before the camera, at 360°/s: so many pixels off with every frame.',
      done: ({ project }) => kept(project)?.stale.on === true && kept(project)!.stale.turnRate >= radians(300),
    },
  ],
  chart: [
    {
      id: 'billboard-chart-turn',
      text: 'Turn the camera by its handle in the plan: the board stays upright.',
      done: ({ frame }) => Math.abs(frame.right[1]) > 0.2,
    },
    {
      id: 'billboard-chart-lie',
      text: 'Let boards turn with the world, and see what becomes of the lettering.',
      done: ({ project }) => kept(project)?.upright === false,
    },
    {
      id: 'billboard-chart-size',
      text: 'Have boards keep their size on the screen, and zoom.',
      done: ({ project }) => kept(project)?.screen.on === true,
    },
  ],
};
