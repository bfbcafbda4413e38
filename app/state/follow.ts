import { create } from 'zustand';
import { pictureToWorld } from '../../core/convert/unproject';
import { pixelToPicture } from '../../core/convert/project';
import { transformPoint } from '../../core/math/mat4';
import type { Vec2 } from '../../core/math/vec3';
import { depthChoiceOf } from '../../formats/camera';
import { currentMoment } from './tempo';
import { edit, endGesture } from './document';

/**
 * Whether the probe follows the pointer at the depth that is chosen on the way back, or a body does
 * instead; the name of the gesture while it does.
 */
export const useFollow = create<{ gesture: string | null; body: string | null }>(() => ({
  gesture: null,
  body: null,
}));

/** Begins: with a body, by its origin, or else with the probe. */
export const startFollowing = (body: string | null = null): void =>
  useFollow.setState({ gesture: `follow ${performance.now()}`, body });

export function stopFollowing(): void {
  if (useFollow.getState().gesture === null) return;
  useFollow.setState({ gesture: null, body: null });
  endGesture();
}

/**
 * Takes what follows to a pixel at the kept depth; where the depth has no point there, it stays. A
 * body keeps its rotation and scale; one that has gone is let go.
 */
export function followTo(pixel: Vec2): void {
  const { gesture, body } = useFollow.getState();
  if (gesture === null) return;
  const { frame, project, flat, placed } = currentMoment();
  const choice = flat ? ({ kind: 'ahead', ahead: 0 } as const) : depthChoiceOf(project.back);
  const found = pictureToWorld(frame, ...pixelToPicture(frame, pixel), choice);
  if (!found.ok) return;
  if (body === null) {
    edit(
      'have the probe follow the pointer',
      (draft) => {
        draft.back.pixel = [pixel[0], pixel[1]];
        draft.probe = { body: null, drive: { rung: 'world', value: [...found.value] } };
      },
      gesture,
    );
    return;
  }
  const node = project.bodies.find(({ id }) => id === body);
  if (!node) return stopFollowing();
  const parent = node.parent === null ? null : (placed.get(node.parent) ?? null);
  const at = parent ? transformPoint(parent.toLocal, found.value) : found.value;
  edit(
    `hold ${node.name} under the pointer`,
    (draft) => {
      draft.back.pixel = [pixel[0], pixel[1]];
      draft.bodies.find(({ id }) => id === body)!.position = [at[0], at[1], flat ? 0 : at[2]];
    },
    gesture,
  );
}
