import { lazy, Suspense } from 'react';
import type { Size } from '../../pictures/contract';

// Grammars of ten languages are fetched with the pane that needs them.
const Content = lazy(() => import('./Code').then(({ CodePane: Pane }) => ({ default: Pane })));

/** The code in a pane of its own. */
export const CodePane = ({ size }: { size: Size }) => (
  <Suspense fallback={null}>
    <Content size={size} />
  </Suspense>
);
