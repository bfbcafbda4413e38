import { useDocument } from '../../state/document';
import { deferred } from '../../ui/deferred';
import { Caret } from '../../ui/icons';

/** The name of the camera looked through; opens the menu of cameras and snapshots. */
export const CameraMenu = deferred(
  'menu',
  () => import('./CameraMenuContent'),
  () => {
    const name = useDocument((state) => state.project!.camera.name);
    return {
      className: 'camera-button',
      'aria-label': `Camera: ${name}`,
      children: (
        <>
          {name} <Caret />
        </>
      ),
    };
  },
);
