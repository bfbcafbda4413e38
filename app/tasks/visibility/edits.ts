import type { Draft } from 'immer';
import { anglesOfBasis } from '../../../core/camera/orientation';
import { degrees, radians } from '../../../core/math/angle';
import { addScaled } from '../../../core/math/vec3';
import type { ShowingMend } from '../../../core/visibility/whyNot';
import { moveEye, setDepthLimit, turnTo } from '../../edits/camera';
import { endGesture } from '../../state/document';
import { editSlice } from '../../state/slices';
import { currentMoment } from '../../state/tempo';
import { firstField, type VisibilityState } from './state';

export const change = (name: string, recipe: (draft: Draft<VisibilityState>) => void, gesture?: string): void =>
  editSlice<VisibilityState>('visibility', name, recipe, gesture ?? null);

/** What of a change is made beyond the least, so that rounding does not take it back. */
const beyond = { degrees: 0.25, share: 0.02 };

/** Makes the smallest change of the camera that shows a body, and a hair more, as one step. */
export function showBody(mend: ShowingMend): void {
  const gesture = `show ${performance.now()}`;
  const { frame } = currentMoment();
  if (mend.kind === 'turn') {
    const own = anglesOfBasis(frame);
    const k = 1 + radians(beyond.degrees) / Math.max(1e-6, mend.angle);
    // The shorter way round.
    const round = (v: number) => v - 2 * Math.PI * Math.round(v / (2 * Math.PI));
    turnTo(
      degrees(own.yaw + round(mend.yaw - own.yaw) * k),
      degrees(own.pitch + (mend.pitch - own.pitch) * k),
      gesture,
    );
  } else if (mend.kind === 'near') setDepthLimit('near', mend.near * (1 - beyond.share), gesture);
  else if (mend.kind === 'far') setDepthLimit('far', mend.far * (1 + beyond.share), gesture);
  else moveEye(addScaled(mend.eye, frame.forward, mend.by * beyond.share), gesture);
  endGesture();
}

/** Shows the field, or puts it away: the first time it goes through all of the scene. */
export const toggleField = (bounds: Parameters<typeof firstField>[0], flat: boolean): void =>
  change('show or hide the test bodies', (draft) => {
    if (draft.field) draft.field.shown = !draft.field.shown;
    else draft.field = firstField(bounds, flat);
  });
