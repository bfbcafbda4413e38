import { Sections, type Section } from '../../sheet/Sections';
import { usePart } from '../../state/tempo';
import { Above } from './Above';
import { Boards } from './Boards';
import { Upright } from './Flat';
import { Lean } from './Lean';
import { Modes } from './Modes';
import { Result } from './Result';
import { ScreenSize } from './ScreenSize';
import { Stale } from './Stale';

const section = (id: string, title: string, short: string, Content: Section['Content']): Section => ({ id: `billboard-${id}`, title, short, Content }); // prettier-ignore

const boards = section('boards', 'Boards', 'Boards', Boards);
const size = section('size', 'Size on the screen', 'Size', ScreenSize);
const space = [
  section('modes', 'Modes side by side', 'Modes', Modes),
  boards,
  section('result', 'What turns it', 'Result', Result),
  section('above', 'Straight above', 'Above', Above),
  size,
  section('lean', 'Lean of flat sprites', 'Lean', Lean),
  section('stale', 'From the frame before', 'Stale', Stale),
];
const flatWorld = [boards, section('upright', 'Upright', 'Upright', Upright), size];

/** Billboard: facing the viewer. */
export function BillboardSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return <Sections list={flat ? flatWorld : space} />;
}
