import './visibility.css';
import { lazy } from 'react';
import { jumpTo } from '../../sheet/Sections';
import type { Task } from '../task';
import { change } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { VisibilityState } from './state';
import { tries } from './tries';

const visibility: Task<VisibilityState> = {
  name: 'Visibility',
  key: '5',
  Sheet: lazy(() => import('./Sheet').then(({ VisibilitySheet }) => ({ default: VisibilitySheet }))),
  corner: 'section',
  commands: [
    { name: 'Why is it not seen?', run: () => jumpTo('visibility-why') },
    { name: 'Tint bodies by the exact test', run: () => change('change the test', (draft) => void (draft.method = 'exact')) }, // prettier-ignore
    { name: 'Tint bodies by the test of planes', run: () => change('change the test', (draft) => void (draft.method = 'planes')) }, // prettier-ignore
  ],
  keys: [{ key: 'y', says: 'asks why it is not seen', run: () => jumpTo('visibility-why') }],
  finds,
  help,
  tries,
  workings: {
    titles: { clearance: 'The clearance from a plane', diameter: 'The diameter on the screen' },
    load: () => import('./workings'),
    sources: {
      margin: 'the margin',
      factor: 'the radii of the sphere',
      thresholds: 'the thresholds',
      hysteresis: 'the hysteresis',
      over: 'what moves',
    },
  },
};
export default visibility;
