import { usePart } from '../../state/derive';
import { BackToWorld } from './BackToWorld';
import { Nodes } from './Nodes';
import { Points } from './Points';
import { PointerWay } from './PointerWay';
import { PointToScreen } from './PointToScreen';
import { Scroll } from './Scroll';

/** Convert: a world point to the screen and a pixel back, the pointer's own way, nodes among one another, and many points at once. */
export function ConvertSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return (
    <>
      <PointToScreen />
      <BackToWorld />
      <PointerWay />
      <Nodes />
      {flat && <Scroll />}
      <Points />
    </>
  );
}
