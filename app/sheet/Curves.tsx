import { lazy, Suspense } from 'react';
import { WhenNear } from '../ui/WhenNear';
import type { CurvesProps } from './CurvesChart';

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
