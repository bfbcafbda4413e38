import './diagnose.css';
import { DiagnoseSheet } from './Sheet';
import { holdsMatrix } from '../../../formats/pasted';
import { jumpTo } from '../../sheet/Sections';
import type { Task } from '../task';
import { say } from '../../ui/notices';
import { change, setText } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { DiagnoseState } from './kept';
import { tries } from './tries';

/** Puts the cursor into the field that is pasted into. */
function toText(): void {
  jumpTo('diagnose-paste');
  requestAnimationFrame(() =>
    document.querySelector<HTMLTextAreaElement>('textarea[aria-label="The engine’s numbers"]')?.focus(),
  );
}

const diagnose: Task<DiagnoseState> = {
  Sheet: DiagnoseSheet,
  corner: 'diagnose/engine',
  commands: [
    { name: 'Paste an engine’s numbers', run: toText },
    { name: 'Empty the pasted text', run: () => setText('') },
    {
      ...{ name: 'Draw the engine’s picture over the right one', world: 'space' },
      run: () => change('draw the engine’s picture', (draft) => void (draft.over = !draft.over)),
    },
  ],
  keys: [
    { key: 'n', says: 'goes to the engine’s numbers', run: toText },
    { key: 'o', says: 'draws the engine’s picture over the right one, or not', run: () => change('draw the engine’s picture', (draft) => void (draft.over = !draft.over)) }, // prettier-ignore
  ],
  finds,
  help,
  tries,
  workings: {
    titles: { off: 'How far off the probe is' },
    load: () => import('./workings'),
    sources: { pasted: 'the pasted numbers' },
  },
  accepts: [
    {
      says: 'numbers of an engine',
      opensTask: true,
      // Prose, projects, tables and models are others’: this is for texts with a matrix in them.
      accepts: ({ name, text }) =>
        text !== null &&
        text.length < 100_000 &&
        !/\.(?:json|csv|obj|glb|gltf)$/i.test(name) &&
        !/"astrolabe(?:Project)?"/.test(text) &&
        holdsMatrix(text),
      take: ({ text }) => {
        setText(text!);
        say('Pasted into Diagnose. Undo brings back what was there.');
        jumpTo('diagnose-paste');
      },
    },
  ],
};
export default diagnose;
