import './convert.css';
import { Sections, type Section } from '../../sheet/Sections';
import { usePart } from '../../state/tempo';
import { BackToWorld } from './BackToWorld';
import { Held, HeldCount } from './Held';
import { Nodes } from './Nodes';
import { PointCount, Points } from './Points';
import { PointerWay } from './PointerWay';
import { PointToScreen } from './PointToScreen';
import { Scroll } from './Scroll';

const first: readonly Section[] = [
  { id: 'to-screen', title: 'World point to screen', short: 'To screen', Content: PointToScreen },
  { id: 'back', title: 'Back to world', short: 'Back', Content: BackToWorld },
  { id: 'pointer', title: 'The pointer’s way', short: 'Pointer', Content: PointerWay, Aside: () => 'page to NDC' },
  { id: 'nodes', title: 'Nodes', short: 'Nodes', Content: Nodes, Aside: () => 'transform stack' },
];
const scroll: Section = { id: 'scroll', title: 'Scroll and seams', short: 'Scroll', Content: Scroll };
const held: Section = { id: 'held', title: 'Held to the screen', short: 'Held', Content: Held, Aside: HeldCount };
const points: Section = { id: 'points', title: 'Points', short: 'Points', Content: Points, Aside: PointCount };

const inSpace = [...first, held, points];
const onFlat = [...first, held, scroll, points];

/**
 * Convert: a world point to the screen and a pixel back, the pointer's own way, nodes among one
 * another, and many points at once.
 */
export function ConvertSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return <Sections list={flat ? onFlat : inSpace} />;
}
