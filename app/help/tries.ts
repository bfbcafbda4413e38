import { presets } from '../../core/conventions/conventions';
import type { Project } from '../../formats/project';
import type { Situation } from '../state/situation';

/** Something to try on a demo: what to do and what is to be seen by it, and how it is told that it was done. */
export interface Try {
  readonly id: string;
  readonly text: string;
  readonly done: (now: Situation) => boolean;
}

const sameConventions = ({ conventions }: Project) => JSON.stringify(conventions) === JSON.stringify(presets.WebGPU);
/** The lens of a camera in space, and the camera of a flat world: null in the other. */
const lens = ({ project: { camera } }: Situation) => (camera.kind === '3d' ? camera.projection : null);
const flat = ({ project: { camera } }: Situation) => (camera.kind === '2d' ? camera : null);
const outside = ({ chain }: Situation) => chain.ok && chain.value.outside.length > 0;

/** By demo and by the task's route. */
export const tries: Readonly<Record<'harbour' | 'chart', Readonly<Record<string, readonly Try[]>>>> = {
  harbour: {
    frame: [
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
    convert: [
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
  },
  chart: {
    frame: [
      {
        id: 'chart-zoom',
        text: 'Zoom by the wheel in the picture: the chart grows about the pointer, and the zoom is no whole number.',
        done: (now) => (flat(now)?.zoom ?? 4.8) !== 4.8,
      },
      {
        id: 'chart-whole',
        text: 'Take a zoom from the whole-number zooms: each says what it shows, and pixel art stays even.',
        done: (now) => Number.isInteger(flat(now)?.zoom),
      },
      {
        id: 'chart-turn',
        text: 'Type 30 for Turned: the world turns about the focus, and the pointer’s x and y with it.',
        done: (now) => (flat(now)?.rotation ?? 0) !== 0,
      },
    ],
    convert: [
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
        done: ({ expression }) => expression.toHeight(1) < 0,
      },
    ],
  },
};
