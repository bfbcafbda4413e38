import './frame.css';
import { lazy, Suspense } from 'react';
import { Sections, type Section } from '../../sheet/Sections';
import { usePart } from '../../state/tempo';
import { WhenNear } from '../../ui/WhenNear';
import { FocusAndAnchor, WholePixels, WholeZooms, ZoomAndTurn } from './Flat';
import { FlatSeen } from './FlatSeen';
import { Gaze } from './Gaze';
import { Lens } from './Lens';
import { Screens } from './Screens';
import { Seen } from './Seen';

/** The chart brings its library with it: fetched when it is come near to. */
const Chart = lazy(() => import('./Depth'));
/** About what it will take. */
const depthHeight = 356;

const Depth = () => (
  <WhenNear height={depthHeight}>
    <Suspense fallback={<div style={{ height: depthHeight }} />}>
      <Chart />
    </Suspense>
  </WhenNear>
);

const screens: Section = { id: 'screens', title: 'Screens', short: 'Screens', Content: Screens };

const inSpace: readonly Section[] = [
  { id: 'seen', title: 'What the camera sees', short: 'Sees', Content: Seen },
  { id: 'lens', title: 'Lens', short: 'Lens', Content: Lens },
  { id: 'gaze', title: 'Eye and gaze', short: 'Eye, gaze', Content: Gaze },
  { id: 'depth', title: 'Depth resolution', short: 'Depth', Content: Depth },
  screens,
];

const onFlat: readonly Section[] = [
  { id: 'flat-seen', title: 'What the camera sees', short: 'Sees', Content: FlatSeen },
  { id: 'focus', title: 'Focus and anchor', short: 'Focus', Content: FocusAndAnchor },
  { id: 'zoom', title: 'Zoom and turn', short: 'Zoom', Content: ZoomAndTurn },
  { id: 'whole-pixels', title: 'Whole pixels', short: 'Pixels', Content: WholePixels },
  { id: 'whole-zooms', title: 'Integer scaling', short: 'Scaling', Content: WholeZooms },
  screens,
];

/**
 * Frame: what the camera sees, its lens, where it stands and looks, its depth, and the screens it
 * is shown on; on a flat world what lies where, and how large.
 */
export function FrameSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return <Sections list={flat ? onFlat : inSpace} />;
}
