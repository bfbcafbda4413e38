import { useMemo } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { distanceForSize } from '../../../core/visibility/size';
import { passedBy } from '../../sheet/passedBy';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import type { VisibilityState } from './state';

const tick = { fontSize: 11.5, fontFamily: 'var(--mono)', fill: 'var(--ink2)' };
const short = (v: number) => figure(v, v < 1 ? 2 : 0);

/** The diameter of one body over its distance, with the thresholds as lines and the present distance. */
export default function SizeChart({ radius, from }: { radius: number; from: number }) {
  const { frame, slice } = useTaskMoment<VisibilityState>('visibility');
  const data = useMemo(() => {
    // The distance at which it is so large, by sizes even in their logarithm.
    const [most, least] = [2 * frame.viewport.height, 2];
    return Array.from({ length: 49 }, (_, i) => {
      const px = most * (least / most) ** (i / 48);
      return { px, at: distanceForSize(frame, radius, px) ?? 0 };
    });
  }, [frame, radius]);
  return (
    <div className="size-chart" aria-hidden="true" ref={passedBy}>
      <ResponsiveContainer width="100%" height={160}>
        <LineChart data={data} margin={{ top: 6, right: 6, bottom: 0, left: -12 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--hair)" strokeWidth={0.6} />
          <XAxis
            dataKey="at"
            type="number"
            scale="log"
            domain={['dataMin', 'dataMax']}
            tickCount={4}
            tickFormatter={short}
            tick={tick}
            stroke="var(--ink)"
          />
          <YAxis
            dataKey="px"
            type="number"
            scale="log"
            domain={['dataMin', 'dataMax']}
            tickCount={4}
            tickFormatter={short}
            tick={tick}
            stroke="var(--ink)"
            width={52}
          />
          {slice.thresholds.map((threshold, i) => (
            <ReferenceLine key={i} y={threshold} stroke="var(--plum)" strokeDasharray="5 3" />
          ))}
          <Line
            dataKey="px"
            stroke="var(--teal)"
            strokeWidth={1.25}
            dot={false}
            activeDot={false}
            isAnimationActive={false}
          />
          <ReferenceLine x={from} stroke="var(--brass)" strokeDasharray="4 2" />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
