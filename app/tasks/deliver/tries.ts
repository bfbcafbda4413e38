import type { Moment } from '../../state/moment';
import type { Try } from '../task';
import type { DeliverState } from './kept';

const kept = ({ project }: Moment) => project.tasks.deliver as DeliverState | undefined;
const language: Omit<Try, 'id'> = {
  text: 'Choose another language: the same mathematics, as someone would write it there.',
  done: (now) => (kept(now)?.language ?? 'C++') !== 'C++',
};
const floats: Omit<Try, 'id'> = {
  text: 'Have floats instead of doubles, and names in camelCase.',
  done: (now) => kept(now)?.number === 'float' && kept(now)?.naming === 'camel',
};

export const tries: { readonly harbour: readonly Try[]; readonly chart: readonly Try[] } = {
  harbour: [
    { id: 'deliver-language', ...language },
    { id: 'deliver-floats', ...floats },
    {
      id: 'deliver-axes',
      text: 'Change the world’s axes at the top to z up: the code decides its signs anew, and the picture stays.',
      done: ({ project }) => project.conventions.world.up.endsWith('z'),
    },
  ],
  chart: [
    { id: 'deliver-chart-language', ...language },
    { id: 'deliver-chart-floats', ...floats },
  ],
};
