import './visibility.css';
import { VisibilitySheet } from './Sheet';
import { jumpTo } from '../../sheet/Sections';
import type { HandleSpec } from '../../pictures/page/handles';
import type { Moment } from '../../state/moment';
import { currentMoment } from '../../state/tempo';
import type { Task } from '../task';
import { change, toggleField } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { VisibilityState } from './kept';
import { tries } from './tries';

const showField = () => {
  const { sceneBounds, flat } = currentMoment();
  toggleField(sceneBounds, flat);
  jumpTo('visibility-field');
};

/** The corners of the box of test bodies: in the plan those of its base, in the section its lowest and highest. */
function fieldHandles({ slice }: Moment<VisibilityState>, picture: string): HandleSpec<VisibilityState>[] {
  const { field } = slice;
  if (!field?.shown || !['plan', 'world', 'section', 'outside'].includes(picture)) return [];
  const corner = (
    id: string,
    name: string,
    x: 'min' | 'max',
    y: 'min' | 'max',
    z: 'min' | 'max',
  ): HandleSpec<VisibilityState> => ({
    ...{ id: `test bodies ${id}`, name: `the box of test bodies by its ${name}`, picture },
    at: [field[x][0], field[y][1], field[z][2]],
    move: (to, edit) =>
      edit('move the box of test bodies', ({ field: draft }) => {
        if (!draft) return;
        [draft[x][0], draft[y][1], draft[z][2]] = to;
      }),
  });
  return [
    corner('min', 'first corner', 'min', 'min', 'min'),
    corner('max', 'last corner', 'max', 'max', 'max'),
    // What moves along the picture keeps its height: the other two corners of the base.
    ...(picture === 'plan'
      ? [corner('right', 'right corner', 'max', 'min', 'min'), corner('left', 'left corner', 'min', 'min', 'max')]
      : picture === 'world'
        ? [corner('right', 'right corner', 'max', 'min', 'min'), corner('left', 'left corner', 'min', 'max', 'min')]
        : []),
  ];
}

const visibility: Task<VisibilityState> = {
  Sheet: VisibilitySheet,
  corner: 'section',
  commands: [
    {
      name: 'Why is it not seen?',
      words: 'invisible missing hidden culled culling',
      run: () => jumpTo('visibility-why'),
    },
    { name: 'Tint bodies by the exact test', run: () => change('change the test', (draft) => void (draft.method = 'exact')) }, // prettier-ignore
    { name: 'Tint bodies by the test of planes', run: () => change('change the test', (draft) => void (draft.method = 'planes')) }, // prettier-ignore
    { name: 'Show or hide the test bodies', run: showField },
  ],
  keys: [{ key: 'y', says: 'asks why it is not seen', run: () => jumpTo('visibility-why') }],
  handles: fieldHandles,
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
