import type { Moment } from '../../state/moment';
import type { Try } from '../task';
import type { DiagnoseState } from './kept';

const kept = ({ project }: Moment) => project.tasks.diagnose as DiagnoseState | undefined;

export const tries: { readonly harbour: readonly Try[]; readonly chart: readonly Try[] } = {
  harbour: [
    {
      id: 'diagnose-mend-one',
      text: 'Mend one of the two in the text: take the minus from −0.994522, −0.104528 and give 0.722690 one. One fault is left.',
      done: (now) => /^\S+ \S+ +0\.994522/m.test(kept(now)?.text ?? ''),
    },
    {
      id: 'diagnose-points-alone',
      text: 'Say that view and projection are not used: the points alone explain themselves, by more than one set.',
      done: (now) => (kept(now)?.corrections.filter(({ role }) => role === 'unused').length ?? 0) >= 2,
    },
    {
      id: 'diagnose-over',
      text: 'Turn the camera: the numbers are those of another camera then, and it says in what they differ.',
      done: ({ project }) => project.camera.kind === '3d' && (project.camera.orientation.kind !== 'angles' || project.camera.orientation.yaw !== 6) && project.camera.id === 'bridge-wing', // prettier-ignore
    },
  ],
  chart: [
    {
      id: 'diagnose-chart-paste',
      text: 'Paste the matrix of an engine that flips y: two rows, “4.8 0 702.4” and “0 4.8 890.4”. The verdict names what is wrong with it.',
      done: (now) => /\d[^]*\d/.test(kept(now)?.text ?? ''),
    },
  ],
};
