import { create } from 'zustand';
import { pictureToWorld } from '../../core/convert/unproject';
import { pixelToPicture } from '../../core/convert/project';
import type { Vec2 } from '../../core/math/vec3';
import { depthChoiceOf } from '../../formats/camera';
import { currentSituation } from './derive';
import { edit, endGesture } from './document';

/** Whether the probe follows the pointer at the depth that is chosen on the way back; the name of the gesture while it does. */
export const useFollow = create<{ gesture: string | null }>(() => ({ gesture: null }));

export const startFollowing = (): void => useFollow.setState({ gesture: `follow ${performance.now()}` });

export function stopFollowing(): void {
  if (useFollow.getState().gesture === null) return;
  useFollow.setState({ gesture: null });
  endGesture();
}

/** Takes the probe to a pixel at the kept depth; where the depth has no point there, it stays. */
export function followTo(pixel: Vec2): void {
  const { gesture } = useFollow.getState();
  if (gesture === null) return;
  const { frame, project, flat } = currentSituation();
  const choice = flat ? ({ kind: 'ahead', ahead: 0 } as const) : depthChoiceOf(project.back);
  const found = pictureToWorld(frame, ...pixelToPicture(frame, pixel), choice);
  if (!found.ok) return;
  edit(
    'have the probe follow the pointer',
    (draft) => {
      draft.back.pixel = [pixel[0], pixel[1]];
      draft.probe = { body: null, drive: { rung: 'world', value: [...found.value] } };
    },
    gesture,
  );
}
