import { worldUp } from '../../core/camera/orientation';
import { pixelToPicture } from '../../core/convert/project';
import { pictureToWorld } from '../../core/convert/unproject';
import { aheadOf, backFormulas, forwardFormulas, viewFormulas } from '../../core/formulas/camera';
import type { Formulas } from '../../core/formulas/expression';
import { addScaled, type Vec3 } from '../../core/math/vec3';
import { depthChoiceOf, flatCamera } from '../../formats/camera';
import type { Moment } from '../state/moment';

/** The formulas without matrices: to the pixel, back from it, and of the view matrix. */
export type FormulasOf = 'there' | 'back' | 'view';

/** The formulas at a moment; null where the question has no answer. */
export function formulasOf(which: FormulasOf, { project, frame, codec: e, chain, flat }: Moment): Formulas | null {
  const focus: Vec3 | null = flat ? [...flatCamera(project).focus, 0] : null;
  if (which === 'there') {
    if (!chain.ok || !chain.value.picture.ok) return null;
    return forwardFormulas(frame, e, chain.value.world, focus);
  }
  if (which === 'back') {
    const { back } = project;
    const [across, upward] = pixelToPicture(frame, back.pixel);
    const choice = flat ? ({ kind: 'ahead', ahead: 0 } as const) : depthChoiceOf(back);
    const found = pictureToWorld(frame, across, upward, choice);
    if (!found.ok) return null;
    return backFormulas(frame, e, e.toScreen(frame.viewport, across, upward), aheadOf(frame, found.value), focus);
  }
  const { camera } = project;
  const aimed = camera.kind !== '2d' && camera.orientation.kind === 'lookAt' ? camera.orientation : null;
  const target = aimed?.target ?? addScaled(frame.eye, frame.forward, 10);
  return viewFormulas(e, frame.eye, target, aimed ? (aimed.up ?? worldUp) : frame.up);
}
