import './billboard.css';
import { BillboardSheet } from './Sheet';
import type { HandleSpec } from '../../pictures/page/handles';
import { jumpTo } from '../../sheet/Sections';
import type { Moment } from '../../state/moment';
import type { Task } from '../task';
import { chosenOf, placeOf } from './boards';
import { addBoard, change, lookDown, moveBoard, removeBoard } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { BillboardState } from './kept';
import { tries } from './tries';

/** The chosen board by its middle, in every picture of the house. */
function boardHandles(now: Moment<BillboardState>, picture: string): HandleSpec<BillboardState>[] {
  const board = chosenOf(now.slice);
  const at = board && placeOf(now, board);
  if (!board || !at || !['camera', 'plan', 'section', 'outside', 'world'].includes(picture)) return [];
  return [{ id: 'board', name: `the board ${board.name}`, picture, at, move: (to, edit) => moveBoard(to, edit) }];
}

const billboard: Task<BillboardState> = {
  Sheet: BillboardSheet,
  corner: 'billboard/close',
  commands: [
    { name: 'Add a board', run: addBoard },
    { name: 'Delete the chosen board', run: removeBoard },
    { name: 'Look steeply down on the board', run: lookDown, world: 'space' },
    { name: 'Turn boards before or after the camera', run: () => change('change the order of a frame', (draft) => void (draft.stale.on = !draft.stale.on)), world: 'space' }, // prettier-ignore
    { name: 'Suppose nothing wrong with the board', run: () => change('suppose no fault', (draft) => void (draft.fault = null)), world: 'space' }, // prettier-ignore
  ],
  keys: [
    { key: 'd', says: 'looks steeply down on the board', run: lookDown },
    { key: 'b', says: 'goes to the list of boards', run: () => jumpTo('billboard-boards') },
  ],
  finds,
  help,
  tries,
  workings: {
    titles: {
      apart: 'The angle between two modes',
      facing: 'The normal of the board',
      passRate: 'The rate of turn straight above',
      screenHeight: 'The height of a constant size',
      lean: 'The lean of what is upright',
    },
    load: () => import('./workings'),
    sources: { board: 'the board', axis: 'its axis', pass: 'the passage', screenSize: 'the height on the screen' },
  },
  handles: boardHandles,
};
export default billboard;
