import { presets } from '../../../core/conventions/conventions';
import type { Project } from '../../../formats/project';
import type { Moment } from '../../state/moment';
import type { Try } from '../task';

const sameConventions = ({ conventions }: Project) => JSON.stringify(conventions) === JSON.stringify(presets.WebGPU);
const flat = ({ project: { camera } }: Moment) => (camera.kind === '2d' ? camera : null);

export const tries: { readonly [guide in 'harbour' | 'chart' | 'quay']: readonly Try[] } = {
  harbour: [
    {
      id: 'harbour-click',
      text: 'Click a body in the picture: it becomes the probe, and the Chain has it in every space.',
      done: ({ project }) => project.probe.body !== 'lighthouse',
    },
    {
      id: 'harbour-drive',
      text: 'In the Chain drive from Screen and type 640 for x: the world point follows from the pixel.',
      done: ({ project: { probe } }) => probe.drive.rung === 'screen' && Math.abs(probe.drive.value[0] - 640) < 1,
    },
    {
      id: 'harbour-conventions',
      text: 'Choose your engine’s conventions at the top. Numbers change, and nothing in the picture moves.',
      done: ({ project }) => !sameConventions(project),
    },
  ],
  chart: [
    {
      id: 'chart-follow',
      text: 'Move the pointer over the chart: the strip below has it in every space. Click something to probe it.',
      done: ({ project }) => project.probe.body !== 'launch',
    },
    {
      id: 'chart-snap',
      text: 'Unfold Scroll and seams and snap downward: the edges that lie between pixels are counted.',
      done: (now) => (flat(now)?.snap ?? 'none') !== 'none',
    },
    {
      id: 'chart-conventions',
      text: 'Choose conventions whose world has y down: every number of y turns over, and the chart stays.',
      done: ({ codec }) => codec.toHeight(1) < 0,
    },
  ],
  quay: [
    {
      id: 'quay-pointer',
      text: 'Move the pointer over the quay: the strip below has it in texels of the world.',
      done: ({ project }) => project.probe.body !== 'fisher',
    },
    {
      id: 'quay-seams',
      text: 'Open Scroll and seams and choose no snapping: edges of tiles between pixels are counted.',
      done: (now) => flat(now)?.snap === 'none',
    },
    {
      id: 'quay-up',
      text: 'Choose conventions whose world has y up: every y changes its sign, and the picture stays.',
      done: ({ codec }) => codec.toHeight(1) > 0,
    },
  ],
};
