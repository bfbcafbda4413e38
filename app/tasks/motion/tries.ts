import type { Project } from '../../../formats/project';
import type { Try } from '../task';
import type { MotionState } from './kept';

const kept = ({ tasks }: Project) => tasks.motion as MotionState | undefined;

export const tries: { readonly [guide in 'harbour' | 'chart' | 'quay']: readonly Try[] } = {
  harbour: [
    {
      id: 'motion-moment',
      text: 'On the Breakwater, go to the end of the dolly zoom: the lighthouse keeps its height while the field of view opens.',
      done: ({ project, time }) => project.camera.id === 'breakwater' && time >= 15,
    },
    {
      id: 'motion-order',
      text: 'Look through Round the light, and drag “billboards turn” before “the camera moves”: a frame’s turn in pixels.',
      done: ({ project }) => {
        const order = kept(project)?.order;
        return order !== undefined && order.indexOf('billboards') < order.indexOf('camera');
      },
    },
    {
      id: 'motion-kind',
      text: 'On the Bridge wing give the shaken camera a path of keys, and drag a key in the plan.',
      done: ({ project }) => kept(project)?.tracks['bridge-wing']?.travel.kind === 'path',
    },
  ],
  chart: [
    {
      id: 'motion-chart-rate',
      text: 'Under Frame rates choose 144 a second: the factor that is right at 60 falls short of it.',
      done: ({ project }) => kept(project)?.rate === '144',
    },
    {
      id: 'motion-chart-zone',
      text: 'Drag the corner of the dead zone in the picture, and play: inside it the launch is not followed.',
      done: ({ project }) => {
        const travel = kept(project) && Object.values(kept(project)!.tracks)[0]?.travel;
        return travel?.kind === 'follow' && travel.deadZone[0] !== 6;
      },
    },
    {
      id: 'motion-chart-snap',
      text: 'Under Whole pixels snap the scroll: what becomes of the seams.',
      done: ({ project }) => project.camera.kind === '2d' && project.camera.snap !== 'none',
    },
  ],
  quay: [
    {
      id: 'motion-quay-play',
      text: 'Play: the camera follows the fisher and stops at the edges of the map.',
      done: ({ time }) => time > 0,
    },
    {
      id: 'motion-quay-zone',
      text: 'Drag the corner of the dead zone in the picture: inside it the fisher is not followed.',
      done: ({ project }) => {
        const travel = kept(project) && Object.values(kept(project)!.tracks)[0]?.travel;
        return travel?.kind === 'follow' && travel.deadZone[0] !== 24;
      },
    },
    {
      id: 'motion-quay-layers',
      text: 'Under Whole pixels add a layer of factor 0.25: its offset is a quarter of the camera’s way.',
      done: ({ project }) => kept(project)?.layers.includes(0.25) === true && kept(project)!.layers.length > 2,
    },
  ],
};
