import { useContext } from 'react';
import { FirstPaintDone } from '../../ui/firstPaint';
import { inkClass } from '../compose/marks';
import { n2, type Mark } from '../compose/marks';

/** Marks as elements of a drawing. */
const Marks = ({ marks }: { marks: readonly Mark[] }) =>
  marks.map((mark, i) => {
    const { ink, x = 0, y = 0, turn } = mark;
    const className = inkClass(ink);
    const transform = `translate(${n2(x)} ${n2(y)})${turn ? ` rotate(${n2(turn)})` : ''}`;
    return 'd' in mark ? (
      <path key={i} className={className} d={mark.d} transform={x || y || turn ? transform : undefined} />
    ) : (
      <text key={i} className={className} textAnchor={mark.anchor} {...(turn ? { transform } : { x: n2(x), y: n2(y) })}>
        {mark.text}
      </text>
    );
  });

/** Marks that the painter paints while something moves; hidden then. */
export const SetMarks = ({ marks }: { marks: readonly Mark[] }) => (
  <g className="set" pointerEvents="none">
    <Marks marks={useContext(FirstPaintDone) ? marks : []} />
  </g>
);

/** Marks that the page always shows: frames, rulers, axes. */
export const FixedMarks = ({ marks }: { marks: readonly Mark[] }) => (
  <g pointerEvents="none">
    <Marks marks={marks} />
  </g>
);
