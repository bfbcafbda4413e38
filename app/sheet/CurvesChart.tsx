import type { PointerEvent } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { passedBy } from './passedBy';
import { plotInsets as plot } from './plot';

const tick = { fontSize: 11.5, fontFamily: 'var(--mono)', fill: 'var(--ink2)' };

/** How an axis runs. */
export interface CurveAxis {
  readonly log?: boolean;
  /** From what is least to what is greatest, if not said. */
  readonly domain?: readonly [number, number];
  readonly ticks?: readonly number[];
  readonly show: (v: number) => string;
}

export interface CurvesProps {
  /** Numbers by name, a row a place; null where a curve has none. */
  readonly data: readonly Readonly<Record<string, number | null>>[];
  /** What of a row runs along the axis. */
  readonly over: string;
  readonly x: CurveAxis;
  readonly y: CurveAxis;
  /** What of a row is drawn, in a colour of the theme. */
  readonly curves: readonly { readonly of: string; readonly color: string; readonly dash?: string }[];
  /** Lines across: at a value of one axis. */
  readonly lines?: readonly (({ readonly x: number } | { readonly y: number }) & {
    readonly color: string;
    readonly dash?: string;
  })[];
  readonly height?: number;
  /** Called with the place along the axis that the pointer takes; the axis has a domain then. */
  readonly onPick?: (x: number) => void;
}

const axis = ({ log, domain, ticks, show }: CurveAxis) => ({
  type: 'number' as const,
  ...(log && { scale: 'log' as const }),
  domain: domain ? [...domain] : (['dataMin', 'dataMax'] as const as unknown as string[]),
  ...(ticks ? { ticks: [...ticks] } : { tickCount: 5 }),
  ...{ tickFormatter: show, tick, stroke: 'var(--ink)', allowDataOverflow: domain !== undefined },
});

/** The chart itself, with its library. */
export default function CurvesChart({ data, over, x, y, curves, lines = [], height = 160, onPick }: CurvesProps) {
  const pick = (event: PointerEvent<HTMLElement>) => {
    if (!onPick || !x.domain || event.buttons !== 1) return;
    const { left, width } = event.currentTarget.getBoundingClientRect();
    const share = (event.clientX - left - plot.left) / Math.max(1, width - plot.left - plot.right);
    const [low, high] = x.domain;
    onPick(low + (high - low) * Math.max(0, Math.min(1, share)));
  };
  return (
    <div
      style={{ height: height + 6, cursor: onPick && 'ew-resize', touchAction: onPick && 'none' }}
      aria-hidden="true"
      data-moves={onPick && 'chart'}
      ref={passedBy}
      onPointerDown={(event) => {
        if (onPick) event.currentTarget.setPointerCapture(event.pointerId);
        pick(event);
      }}
      onPointerMove={pick}
    >
      <ResponsiveContainer width="100%" height={height}>
        <LineChart
          data={data as Record<string, number>[]}
          margin={{ top: plot.top, right: plot.right, bottom: 0, left: -12 }}
          accessibilityLayer={false}
        >
          <CartesianGrid stroke="var(--hair)" strokeWidth={0.6} />
          <XAxis dataKey={over} {...axis(x)} height={24} />
          <YAxis {...axis(y)} width={62} />
          {curves.map(({ of, color, dash }) => (
            <Line
              key={of}
              dataKey={of}
              stroke={`var(--${color})`}
              {...(dash && { strokeDasharray: dash })}
              {...{ strokeWidth: 1.25, dot: false, activeDot: false, isAnimationActive: false }}
            />
          ))}
          {lines.map((line, i) => (
            <ReferenceLine
              key={i}
              {...('x' in line ? { x: line.x } : { y: line.y })}
              stroke={`var(--${line.color})`}
              strokeDasharray={line.dash ?? '4 2'}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}
