import { lazy, Suspense } from 'react';
import { usePart } from '../../state/derive';
import { FlatSeen, FocusAndAnchor, WholePixels, WholeZooms, ZoomAndTurn } from './Flat';
import { Gaze } from './Gaze';
import { Lens } from './Lens';
import { Screens } from './Screens';
import { Seen } from './Seen';

/** The chart brings its library with it: fetched when the rest stands. */
const Depth = lazy(() => import('./Depth'));

/** Frame: what the camera sees, its lens, where it stands and looks, its depth, and the screens it is shown on; on a flat world what lies where, and how large. */
export function FrameSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return flat ? (
    <>
      <FlatSeen />
      <FocusAndAnchor />
      <ZoomAndTurn />
      <WholePixels />
      <WholeZooms />
      <Screens />
    </>
  ) : (
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
