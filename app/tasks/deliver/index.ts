import './deliver.css';
import { DeliverSheet } from './Sheet';
import { jumpTo } from '../../sheet/Sections';
import { isGlb } from '../../../formats/glb';
import type { Task } from '../task';
import { CodePane } from './Code';
import { copyCode, saveAll, saveCode, saveReport, saveScene, takeScene } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { DeliverState } from './kept';
import { tries } from './tries';

const deliver: Task<DeliverState> = {
  Sheet: DeliverSheet,
  corner: 'deliver/code',
  panes: [{ name: 'code', title: 'Code', Content: CodePane, save: saveCode, place: 'row' }],
  commands: [
    { name: 'Copy the code', run: copyCode },
    { name: 'Save code, harness and commands as a zip', run: () => void saveAll() },
    { name: 'Save a report of the set-up', run: () => void saveReport() },
    { name: 'Save the scene as glTF', run: () => void saveScene(true) },
  ],
  accepts: [
    {
      says: 'a scene as glTF',
      accepts: ({ name, bytes, text }) =>
        isGlb(bytes) || (text !== null && (/\.gltf$/i.test(name) || (/^\s*\{/.test(text) && /"asset"\s*:\s*\{[^}]*"version"/.test(text)))), // prettier-ignore
      take: ({ bytes, name }) => takeScene(bytes, name),
    },
  ],
  keys: [{ key: 'e', says: 'goes to the example', run: () => jumpTo('deliver-example') }],
  finds,
  help,
  tries,
};
export default deliver;
