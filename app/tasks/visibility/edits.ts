import type { Draft } from 'immer';
import { degrees } from '../../../core/math/angle';
import type { ShowingChange } from '../../../core/visibility/showing';
import { moveEye, setHeight, setLimit, setVerticalFov, turnTo } from '../../edits/camera';
import { endGesture } from '../../state/document';
import { editSlice } from '../../state/slices';
import type { VisibilityState } from './kept';
import { firstField } from './state';

export const change = (name: string, recipe: (draft: Draft<VisibilityState>) => void, gesture?: string): void =>
  editSlice<VisibilityState>('visibility', name, recipe, gesture ?? null);

/** Makes a change of the camera that shows a body, as one step. */
export function showBody(made: ShowingChange): void {
  const gesture = `show ${performance.now()}`;
  switch (made.kind) {
    case 'turn':
      turnTo(degrees(made.yaw), degrees(made.pitch), gesture);
      break;
    case 'widen':
      setVerticalFov(degrees(made.verticalFov), gesture);
      break;
    case 'enlarge':
      setHeight(made.height, gesture);
      break;
    case 'near':
    case 'far':
      setLimit(made.kind, made.kind === 'near' ? made.near : made.far, gesture);
      break;
    case 'back':
    case 'step':
    case 'closer':
      moveEye(made.eye, gesture, true);
  }
  endGesture();
}

/** Shows the field, or puts it away: the first time it goes through all of the scene. */
export const toggleField = (bounds: Parameters<typeof firstField>[0], flat: boolean): void =>
  change('show or hide the test bodies', (draft) => {
    if (draft.field) draft.field.shown = !draft.field.shown;
    else draft.field = firstField(bounds, flat);
  });
