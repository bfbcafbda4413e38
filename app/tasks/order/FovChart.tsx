import { useMemo } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { degrees } from '../../../core/math/angle';
import { passedBy } from '../../sheet/passedBy';
import { usePart } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { errorOverFov } from './contours';

const tick = { fontSize: 11.5, fontFamily: 'var(--mono)', fill: 'var(--ink2)' };

/** How the error of an angular mapping grows with the field of view, for a picture of this size. */
export default function FovChart() {
  const { width, height, frame, fov } = usePart(({ frame: f }) => ({
    ...{ width: f.viewport.width, height: f.viewport.height, frame: f },
    fov: degrees(Math.atan(f.extents.right / f.near) - Math.atan(f.extents.left / f.near)),
  }));
  const data = useMemo(
    () =>
      errorOverFov(width, height, frame).map(({ fov: at, most }) => ({ fov: degrees(at), most: Math.max(most, 0.01) })),
    [width, height, frame],
  );
  return (
    <div className="fov-chart" aria-hidden="true" ref={passedBy}>
      <ResponsiveContainer width="100%" height={160}>
        <LineChart data={data} margin={{ top: 6, right: 6, bottom: 0, left: -12 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--hair)" strokeWidth={0.6} />
          <XAxis
            dataKey="fov"
            type="number"
            domain={[10, 154]}
            ticks={[30, 60, 90, 120, 150]}
            tickFormatter={(v: number) => `${v}°`}
            tick={tick}
            stroke="var(--ink)"
          />
          <YAxis
            type="number"
            scale="log"
            domain={['dataMin', 'dataMax']}
            tickCount={5}
            tickFormatter={(v: number) => figure(v, v < 1 ? 2 : 0)}
            tick={tick}
            stroke="var(--ink)"
            width={52}
          />
          <Line
            dataKey="most"
            stroke="var(--plum)"
            strokeWidth={1.25}
            dot={false}
            activeDot={false}
            isAnimationActive={false}
          />
          <ReferenceLine x={Math.abs(fov)} stroke="var(--brass)" strokeDasharray="4 2" />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
