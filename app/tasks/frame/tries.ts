import type { Moment } from '../../state/moment';
import type { Try } from '../task';

/** The lens of a camera in space, and the camera of a flat world: null in the other. */
const lens = ({ project: { camera } }: Moment) => (camera.kind === '3d' ? camera.projection : null);
const flat = ({ project: { camera } }: Moment) => (camera.kind === '2d' ? camera : null);
const outside = ({ chain }: Moment) => chain.ok && chain.value.outside.length > 0;

export const tries: { readonly [guide in 'harbour' | 'chart' | 'quay']: readonly Try[] } = {
  harbour: [
    {
      id: 'harbour-turn',
      text: 'Drag in the picture until the lighthouse has left it. The Chain says by which edge, and an arrow there points to it.',
      done: outside,
    },
    {
      id: 'harbour-near',
      text: 'Type 200 for Near, beyond Far. The last picture that could be stays, and says how to mend it.',
      done: (now) => now.seen.problems.length > 0 && lens(now)?.near === 200,
    },
    {
      id: 'harbour-ortho',
      text: 'Take the orthographic lens: what the lighthouse measures in the picture stays the same.',
      done: (now) => lens(now)?.kind === 'orthographic',
    },
  ],
  chart: [
    {
      id: 'chart-zoom',
      text: 'Zoom by the wheel in the picture: the chart grows about the pointer, and the zoom is no whole number.',
      done: (now) => (flat(now)?.zoom ?? 4.8) !== 4.8,
    },
    {
      id: 'chart-whole',
      text: 'Take a zoom under Integer scaling: each says what it shows, and pixel art stays even.',
      done: (now) => Number.isInteger(flat(now)?.zoom),
    },
    {
      id: 'chart-turn',
      text: 'Type 30 for Rotation: the world turns about the focus, and the pointer’s x and y with it.',
      done: (now) => (flat(now)?.rotation ?? 0) !== 0,
    },
  ],
  quay: [
    {
      id: 'quay-zoom',
      text: 'Type 3 for Zoom: the picture shows more of the quay, and texels stay square.',
      done: (now) => flat(now)?.zoom === 3,
    },
    {
      id: 'quay-half',
      text: 'Type 2.5 for Zoom: Whole pixels says how many texels get two pixels and how many three.',
      done: (now) => flat(now)?.zoom === 2.5,
    },
    {
      id: 'quay-probe',
      text: 'Click the net shed: the Chain has it in local, world and screen coordinates.',
      done: ({ project }) => project.probe.body === 'net-shed',
    },
  ],
};
