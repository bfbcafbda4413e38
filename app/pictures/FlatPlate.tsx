import { flatCamera } from '../../formats/camera';
import { useSituation } from '../state/derive';
import { moveAnchor } from './camera2d';
import { Handle } from './Handle';
import { n2 } from './marks';

/* What lies over the picture of a 2D camera alone. */

/** Where the focus lands: the cross that the world turns about. Dragging it makes another world point the focus. */
export function Anchor({ scale }: { scale: number }) {
  const { project } = useSituation();
  const [x, y] = flatCamera(project).anchor.map((v) => v * scale) as [number, number];
  return (
    <>
      <path
        className="anchor"
        d={`M${n2(x - 13)} ${n2(y)}h9M${n2(x + 4)} ${n2(y)}h9M${n2(x)} ${n2(y - 13)}v9M${n2(x)} ${n2(y + 4)}v9`}
        pointerEvents="none"
      />
      <Handle
        x={x}
        y={y}
        name="the anchor, the picture kept"
        onMove={(px, py, gesture) => moveAnchor([px / scale, py / scale], gesture)}
      />
    </>
  );
}
