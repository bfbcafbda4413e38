import type { Project } from '../../../formats/project';
import type { Try } from '../task';
import type { OrderState } from './kept';

const kept = ({ tasks }: Project) => tasks.order as OrderState | undefined;

export const tries: { readonly [guide in 'harbour' | 'chart' | 'quay']: readonly Try[] } = {
  harbour: [
    {
      id: 'order-ghosts',
      text: 'Press G: the gangway as dividing uncut would paint it, two corners mirrored, streaks across the picture.',
      done: ({ project }) => kept(project)?.ghosts === true,
    },
    {
      id: 'order-cull',
      text: 'Under Winding cull back faces, then suppose a mirrored view: the harbour is seen from its inside.',
      done: ({ project }) => kept(project)?.cull === 'back' && kept(project)!.supposed.mirrored,
    },
    {
      id: 'order-ring',
      text: 'Lay three spars in a ring and paint whole bodies: no key gets them right.',
      done: ({ project }) =>
        project.bodies.some(({ id }) => id.startsWith('spar-')) && kept(project)?.paint === 'bodies',
    },
  ],
  chart: [
    {
      id: 'order-chart-height',
      text: 'Order by world y and paint bodies: what lies higher on the chart is covered by what lies lower.',
      done: ({ project }) => kept(project)?.key === 'worldUp' && kept(project)!.paint === 'bodies',
    },
    {
      id: 'order-chart-ring',
      text: 'Lay three spars in a ring: on a flat world each is wholly over or under another, and layers are right.',
      done: ({ project }) => project.bodies.some(({ id }) => id.startsWith('spar-')),
    },
    {
      id: 'order-chart-faces',
      text: 'Paint faces: every triangle goes by its own middle, and what comes out wrong changes.',
      done: ({ project }) => kept(project)?.paint === 'faces',
    },
  ],
  quay: [
    {
      id: 'order-quay-list',
      text: 'Under Sprites and feet let bodies cover one another by list, and play: the fisher walks over the shed.',
      done: ({ project }) => project.bodyOrder === 'list',
    },
    {
      id: 'order-quay-foot',
      text: 'Probe the net shed and put its foot at the origin: the fisher is covered too early.',
      done: ({ project }) => project.bodies.some(({ id, foot }) => id === 'net-shed' && !foot),
    },
    {
      id: 'order-quay-key',
      text: 'Order by screen y: the list has the row of each foot, and equal rows keep the order of the list.',
      done: ({ project }) => kept(project)?.key === 'screenHeight',
    },
  ],
};
