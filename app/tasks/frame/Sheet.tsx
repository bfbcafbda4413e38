import { lazy, Suspense } from 'react';
import { usePart } from '../../state/derive';
import { FlatSeen, FocusAndAnchor, WholePixels, WholeZooms, ZoomAndTurn } from './Flat';
import { WhenNear } from '../../ui/WhenNear';
import { Gaze } from './Gaze';
import { Lens } from './Lens';
import { Screens } from './Screens';
import { Seen } from './Seen';

/** The chart brings its library with it: fetched when it is come near to. */
const Depth = lazy(() => import('./Depth'));
/** About what it will take. */
const depthHeight = 380;

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
      <WhenNear name="Depth resolution" height={depthHeight}>
        <Suspense fallback={<section aria-label="Depth resolution" style={{ height: depthHeight }} />}>
          <Depth />
        </Suspense>
      </WhenNear>
      <Screens />
    </>
  );
}
