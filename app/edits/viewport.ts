import { focusFor, worldAt } from '../../core/camera/camera2d';
import { fitZoom } from '../../core/camera/fit';
import { coreCamera2d, coreViewport, flatCamera } from '../../formats/camera';
import type { Project } from '../../formats/project';
import { currentProject, edit, projectBefore } from '../state/document';

/** Digits that say it: sums of short numbers stay short. */
const tidy = (v: number) => Number(v.toPrecision(12));

/**
 * The camera and viewport that a fitted camera comes from: width and height are typed one after the other, and the
 * fit is of both.
 */
const originByCamera = new WeakMap<Project['camera'], Pick<Project, 'camera' | 'viewport'>>();

/**
 * Changes the viewport. A flat camera goes on showing what it shows, by the way in which screens
 * are fitted: the world point in the middle stays there, the anchor keeps its share of the picture,
 * and the zoom follows. In space the lens is what it is.
 */
export function setViewport(
  part: Partial<Project['viewport']>,
  gesture: string | null = null,
  name = 'change the viewport',
): void {
  const before = projectBefore(gesture);
  const origin = originByCamera.get(before.camera) ?? before;
  const viewport = { ...before.viewport, ...part };
  edit(
    name,
    (draft) => {
      draft.viewport = viewport;
      const now = draft.camera;
      if (now.kind !== '2d' || !(now.zoom > 0)) return;
      if (viewport.width === before.viewport.width && viewport.height === before.viewport.height) return;
      const kept = flatCamera(origin);
      const core = coreCamera2d(kept, coreViewport(origin));
      const middle = worldAt(core, coreViewport(origin), [0, 0]);
      now.zoom = tidy(fitZoom(before.screens.fit, kept.zoom, origin.viewport, viewport));
      now.anchor = [
        tidy((kept.anchor[0] * viewport.width) / origin.viewport.width),
        tidy((kept.anchor[1] * viewport.height) / origin.viewport.height),
      ];
      const made = { ...core, zoom: now.zoom };
      const size = coreViewport({ ...before, viewport });
      const [right, up] = focusFor(made, size, middle, [0, 0]);
      now.focus = [tidy(right), tidy(up)];
    },
    gesture,
  );
  const after = currentProject();
  if (after.camera !== before.camera) originByCamera.set(after.camera, origin);
}
