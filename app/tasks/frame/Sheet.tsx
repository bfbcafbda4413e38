import { lazy, Suspense } from 'react';
import { Gaze } from './Gaze';
import { Lens } from './Lens';
import { Screens } from './Screens';
import { Seen } from './Seen';

/** The chart brings its library with it: fetched when the rest stands. */
const Depth = lazy(() => import('./Depth'));

/** Frame: what the camera sees, its lens, where it stands and looks, its depth, and the screens it is shown on. */
export function FrameSheet() {
  return (
    <>
      <Seen />
      <Lens />
      <Gaze />
      <Suspense fallback={<section aria-label="Depth resolution" style={{ height: 260 }} />}>
        <Depth />
      </Suspense>
      <Screens />
    </>
  );
}
