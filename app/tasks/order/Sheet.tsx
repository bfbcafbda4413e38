import './order.css';
import { Sections, type Section } from '../../sheet/Sections';
import { usePart } from '../../state/tempo';
import { Angles } from './Angles';
import { Draw } from './Draw';
import { Horizon } from './Horizon';
import { Shadow } from './Shadow';
import { Sprites } from './Sprites';
import { Through } from './Through';
import { Winding } from './Winding';

const draw: Section = { id: 'order-draw', title: 'Draw order', short: 'Order', Content: Draw };

const in2d: readonly Section[] = [
  draw,
  { id: 'order-sprites', title: 'Sprites and feet', short: 'Sprites', Content: Sprites },
];

const inSpace: readonly Section[] = [
  { id: 'order-through', title: 'Through the eye’s plane', short: 'Clipping', Content: Through },
  { id: 'order-winding', title: 'Winding', short: 'Winding', Content: Winding },
  draw,
  { id: 'order-horizon', title: 'Horizon and vanishing points', short: 'Horizon', Content: Horizon },
  { id: 'order-shadow', title: 'Shadow on a plane', short: 'Shadow', Content: Shadow },
  { id: 'order-angles', title: 'Equal angles against a plane', short: 'Angles', Content: Angles },
];

/** Order: faces, clipping, draw order; on a flat world the order alone. */
export function OrderSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return flat ? (
    <>
      <Sections list={in2d} />
      <p className="mt-2 text-note leading-4 text-ink2">
        Clipping, horizon, shadows and angles need a third dimension. A negative scale mirrors a sprite and turns its
        winding with it.
      </p>
    </>
  ) : (
    <Sections list={inSpace} />
  );
}
