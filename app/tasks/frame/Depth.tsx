import { useMemo, useState } from 'react';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { depthResolution, type DepthFormat } from '../../../core/camera/depthPrecision';
import type { DepthRange } from '../../../core/camera/projection';
import { passedBy } from '../../sheet/passedBy';
import { usePart } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { subjectOf } from './edits';

interface Curve {
  readonly key: string;
  readonly label: string;
  readonly format: DepthFormat;
  readonly reversed: boolean;
  readonly dash?: string;
  readonly colour: string;
}

/** Whole numbers are as fine plain as reversed, so they are one curve. */
const curves: readonly Curve[] = [
  { key: 'u24', label: '24-bit whole', format: 'unorm24', reversed: false, colour: 'var(--ink)' },
  { key: 'f', label: 'float 32, plain', format: 'float32', reversed: false, colour: 'var(--plum)', dash: '5 2' },
  { key: 'r', label: 'float 32, reversed', format: 'float32', reversed: true, colour: 'var(--teal)' },
];

const steps = 72;

/**
 * Distances from near to far (or to where an infinite one has stopped mattering), even by their
 * logarithm, with what each format tells apart there.
 */
function sample(lens: DepthRange, to: number): Record<string, number>[] {
  const from = Math.max(lens.near, to / 1e5);
  return Array.from({ length: steps + 1 }, (_, i) => {
    const ahead = Math.min(to, from * (to / from) ** (i / steps));
    const values = curves.map(({ key, format, reversed }) => [key, depthResolution(lens, ahead, format, reversed)]);
    return { ahead, ...(Object.fromEntries(values) as Record<string, number>) };
  });
}

const power = (v: number) => {
  const e = Math.round(Math.log10(v));
  return e >= -2 && e <= 4 ? String(10 ** e) : `1e${e}`;
};
/** A length for the eye: two or three digits and the power of ten, if it is far from 1. */
const length = (v: number) => (v >= 0.001 && v < 1e5 ? figure(v, v < 0.1 ? 4 : v < 10 ? 3 : 1) : v.toExponential(1));
const decades = (low: number, high: number) => {
  const [a, b] = [Math.ceil(Math.log10(low) - 1e-9), Math.floor(Math.log10(high) + 1e-9)];
  const stride = Math.max(1, Math.ceil((b - a) / 5));
  return Array.from({ length: Math.max(0, Math.floor((b - a) / stride) + 1) }, (_, i) => 10 ** (a + i * stride));
};

/**
 * What two surfaces must be apart for the depth buffer to tell them, against the distance ahead.
 */
export default function Depth() {
  // The picture's edges play no part: while the camera is turned and widened nothing here is drawn
  // anew.
  const { near, far, kind, unit, subject, from } = usePart((moment) => {
    const { frame, project } = moment;
    const { name, ahead } = subjectOf(moment);
    return { near: frame.near, far: frame.far, kind: frame.kind, unit: project.unit, subject: name, from: ahead };
  });
  const [held, setHeld] = useState<number | null>(null);
  const to = far ?? near * 1e5;
  const lens = useMemo(() => ({ kind, near, far }) as DepthRange, [kind, near, far]);
  const data = useMemo(() => sample(lens, to), [lens, to]);
  const ahead = Math.min(to, Math.max(near, held ?? from));
  const chart = useMemo(() => {
    const values = data.flatMap((row) => curves.map(({ key }) => row[key]!)).filter((v) => v > 0);
    if (!values.length) return null;
    const high = Math.max(...values);
    // At a depth of exactly 0 a float is finer than anything: that end of the curve leaves the
    // chart.
    const low = Math.max(Math.min(...values), high * 1e-8);
    const positive = data[0]!.ahead! > 0;
    return (
      <ResponsiveContainer width="100%" height={150}>
        <LineChart
          data={data}
          margin={{ top: 6, right: 6, bottom: 0, left: -12 }}
          onMouseMove={({ activeLabel }) => setHeld(activeLabel === undefined ? null : Number(activeLabel))}
          onMouseLeave={() => setHeld(null)}
          accessibilityLayer={false}
        >
          <CartesianGrid stroke="var(--hair)" strokeWidth={0.6} />
          <XAxis
            dataKey="ahead"
            type="number"
            scale={positive ? 'log' : 'linear'}
            domain={['dataMin', 'dataMax']}
            ticks={positive ? decades(data[0]!.ahead!, to) : undefined}
            tickFormatter={positive ? power : (v: number) => figure(v, 0)}
            tick={{ fontSize: 11.5, fontFamily: 'var(--mono)', fill: 'var(--ink2)' }}
            stroke="var(--ink)"
          />
          <YAxis
            type="number"
            scale="log"
            domain={[low / 2, high * 2]}
            allowDataOverflow
            ticks={decades(low / 2, high * 2)}
            tickFormatter={power}
            tick={{ fontSize: 11.5, fontFamily: 'var(--mono)', fill: 'var(--ink2)' }}
            stroke="var(--ink)"
            width={52}
          />
          {curves.map(({ key, colour, dash }) => (
            <Line
              key={key}
              dataKey={key}
              stroke={colour}
              strokeWidth={1.25}
              strokeDasharray={dash}
              dot={false}
              activeDot={false}
              isAnimationActive={false}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    );
  }, [data, to]);
  return (
    <>
      <p className="text-note leading-4 text-ink2">
        How far apart two surfaces must be, in {unit}, for the depth buffer to tell them, against the distance ahead.
      </p>
      <div className="depth-chart" aria-hidden="true" ref={passedBy}>
        {chart}
      </div>
      <div className="rule">
        {held === null ? `At ${subject}` : 'Under the pointer'} <em>{figure(ahead, 2)} ahead</em>
      </div>
      {curves.map(({ key, label, colour, dash, format, reversed }) => {
        const value = depthResolution(lens, ahead, format, reversed);
        return (
          <div className="row" key={key}>
            <svg width="22" height="8" aria-hidden="true">
              <path d="M0 4H22" stroke={colour} strokeWidth="1.5" strokeDasharray={dash} />
            </svg>
            <span>{label}</span>
            <span className="ml-auto font-mono" data-testid={`depth-${key}`}>
              {value === null ? 'none' : length(value)}
            </span>
          </div>
        );
      })}
      {kind === 'orthographic' && (
        <p className="text-small text-ink2">Orthographic depth is even: whole numbers lose nothing at a distance.</p>
      )}
    </>
  );
}
