import { BackToWorld } from './BackToWorld';
import { CameraSection } from './CameraSection';
import { PointToScreen } from './PointToScreen';

/** Convert: a world point to the screen, a pixel back to the world, and the camera between them. */
export function ConvertSheet() {
  return (
    <>
      <PointToScreen />
      <BackToWorld />
      <CameraSection />
    </>
  );
}
