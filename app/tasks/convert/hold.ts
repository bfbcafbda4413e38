import { newId } from '../../state/crashLog';
import { editSlice } from '../../state/slices';
import { jumpTo } from '../../sheet/Sections';
import { mostHeld, type ConvertState } from './state';

/** Holds another point to the screen, in its upper right corner, and shows where it is set. */
export function holdPoint(): void {
  editSlice<ConvertState>('convert', 'hold a point to the screen', ({ held }) => {
    if (held.length < mostHeld)
      held.push({ id: newId(), name: `Label ${held.length + 1}`, hold: [1, 1], inset: [24, 24] });
  });
  jumpTo('held');
}
