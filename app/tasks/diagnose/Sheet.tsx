import { Sections, type Section } from '../../sheet/Sections';
import { Paste } from './Paste';
import { Verdict } from './Verdict';
import { lazyPart } from '../../ui/lazyPart';

const ReadingList = lazyPart(() => import('./ReadingList').then((module) => module.ReadingList));
const ReadOff = lazyPart(() => import('./ReadOff').then((module) => module.ReadOff));
const Alone = lazyPart(() => import('./Alone').then((module) => module.Alone));

const sections: readonly Section[] = [
  { id: 'diagnose-paste', title: 'The engine’s numbers', short: 'Paste', Content: Paste },
  { id: 'diagnose-verdict', title: 'Verdict', short: 'Verdict', Content: Verdict },
  { id: 'diagnose-reading', title: 'What was read', short: 'Reading', Content: ReadingList },
  { id: 'diagnose-alone', title: 'By themselves', short: 'Alone', Content: Alone },
  { id: 'diagnose-read', title: 'Read off them', short: 'Read off', Content: ReadOff },
];

/** Diagnose: an engine's numbers, read, held against the camera, and by themselves. */
export const DiagnoseSheet = () => <Sections list={sections} />;
