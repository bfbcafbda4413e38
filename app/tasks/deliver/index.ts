import './deliver.css';
import { lazy } from 'react';
import { jumpTo } from '../../sheet/Sections';
import type { Task } from '../task';
import { CodePane } from './CodePane';
import { copyCode, saveAll } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { DeliverState } from './state';
import { tries } from './tries';

const deliver: Task<DeliverState> = {
  name: 'Deliver',
  key: '0',
  Sheet: lazy(() => import('./Sheet').then(({ DeliverSheet }) => ({ default: DeliverSheet }))),
  corner: 'deliver/code',
  panes: [{ name: 'code', title: 'Code', Content: CodePane, place: 'row' }],
  commands: [
    { name: 'Copy the code', run: copyCode },
    { name: 'Save code, example and commands as a zip', run: () => void saveAll() },
  ],
  keys: [{ key: 'e', says: 'goes to the example', run: () => jumpTo('deliver-example') }],
  finds,
  help,
  tries,
};
export default deliver;
