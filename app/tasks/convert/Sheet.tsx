import { BackToWorld } from './BackToWorld';
import { PointToScreen } from './PointToScreen';

/** Convert: a world point to the screen, and a pixel back to the world. */
export function ConvertSheet() {
  return (
    <>
      <PointToScreen />
      <BackToWorld />
    </>
  );
}
