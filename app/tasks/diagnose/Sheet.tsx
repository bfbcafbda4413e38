import { Sections, type Section } from '../../sheet/Sections';
import { Alone } from './Alone';
import { Paste, ReadingList } from './Paste';
import { ReadOff } from './ReadOff';
import { Verdict } from './Verdict';

const sections: readonly Section[] = [
  { id: 'diagnose-paste', title: 'The engine’s numbers', short: 'Paste', Content: Paste },
  { id: 'diagnose-verdict', title: 'Verdict', short: 'Verdict', Content: Verdict },
  { id: 'diagnose-reading', title: 'What was read', short: 'Reading', Content: ReadingList },
  { id: 'diagnose-alone', title: 'By themselves', short: 'Alone', Content: Alone },
  { id: 'diagnose-read', title: 'Read off them', short: 'Read off', Content: ReadOff },
];

/** Diagnose: an engine's numbers, read, held against the camera, and by themselves. */
export const DiagnoseSheet = () => <Sections list={sections} />;
