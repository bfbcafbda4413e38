import type { Size } from '../../pictures/compose/contract';
import { n2 } from '../../pictures/compose/marks';
import { saveMarks } from '../../pictures/page/saving';
import { FixedMarks } from '../../pictures/page/svgMarks';
import { currentTaskMoment, useTaskMoment } from '../../state/tempo';
import type { OrderState } from './kept';
import { threeLayers } from './threeMarks';

/** The followed polygon three times side by side: divided by w uncut, cut at near, cut at the frustum. */
export function Three({ size }: { size: Size }) {
  const now = useTaskMoment<OrderState>('order');
  const layers = threeLayers(now, size);
  if (!layers)
    return (
      <div className="three-none" style={size}>
        <p>{now.flat ? 'In 2D nothing is behind the eye, and nothing is cut.' : 'No face is followed.'}</p>
      </div>
    );
  return (
    <svg className="three" width={size.width} height={size.height} role="img" aria-label="The face three ways">
      {layers.map(({ marks, x, clip }, i) => (
        <g key={i} transform={`translate(${n2(x)} 0)`}>
          <clipPath id={`three-${i}`}>
            <rect {...clip} />
          </clipPath>
          <g clipPath={`url(#three-${i})`}>
            <FixedMarks marks={marks} />
          </g>
        </g>
      ))}
    </svg>
  );
}

/** The size of the saved panels. */
const saved: Size = { width: 960, height: 320 };

/** Saves the three panels as SVG. */
export function saveThree(): void {
  const layers = threeLayers(currentTaskMoment<OrderState>('order'), saved);
  if (layers) void saveMarks('Three ways', saved, layers);
}
