import './Curves.css';
import { lazy, Suspense, type ReactElement } from 'react';
import { WhenNear } from '../ui/WhenNear';
import type { CurvesProps } from './CurvesChart';
import { plotInsets } from './plot';

const Chart = lazy(() => import('./CurvesChart'));

/**
 * Curves over an axis, with lines across for what they are held against. Decoration to a reader of
 * the screen: what it shows is said in words beside it. Made when it is scrolled near to.
 */
export const Curves = (props: CurvesProps) => (
  <WhenNear height={props.height ?? 160}>
    <Suspense fallback={<div style={{ height: props.height ?? 160 }} />}>
      <Chart {...props} />
    </Suspense>
  </WhenNear>
);

/**
 * A chart over time with the moment on it: the moment moves without the chart being made anew, which
 * costs much more. The axis has a domain; `chart` stays the same object while its curves do.
 */
export function AtMoment({
  chart,
  at,
  domain,
}: {
  chart: ReactElement;
  at: number;
  domain: readonly [number, number];
}) {
  const share = Math.max(0, Math.min(1, (at - domain[0]) / (domain[1] - domain[0] || 1)));
  const { left, right, top, bottom } = plotInsets;
  return (
    <div style={{ position: 'relative' }}>
      {chart}
      <div
        className="moment-line"
        style={{ left: `calc(${left}px + (100% - ${left + right}px) * ${share.toFixed(5)})`, top, bottom }}
      />
    </div>
  );
}
