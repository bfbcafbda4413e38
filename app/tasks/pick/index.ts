import './pick.css';
import { PickSheet } from './Sheet';
import type { Task } from '../task';
import { change, followHit, muzzleToEye, throughCentre, throughPointer } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { PickState } from './kept';
import { saveSweep, SweepPane } from './Sweep';
import { tries } from './tries';

const pick: Task<PickState> = {
  Sheet: PickSheet,
  corner: 'pick/sweep',
  panes: [
    {
      ...{
        name: 'sweep',
        title: 'Sweep',
        sub: 'every pixel picked',
        Content: SweepPane,
        save: saveSweep,
        place: 'row',
      },
      world: 'space',
    },
  ],
  commands: [
    { name: 'Pick through the centre of the view', run: throughCentre },
    { name: 'Pick under the pointer', run: throughPointer },
    { name: 'Bring the muzzle to the eye', run: muzzleToEye, world: 'space' },
    { name: 'Put the second reticle away', run: () => change('put the second reticle away', (draft) => void (draft.fault = null)) }, // prettier-ignore
  ],
  keys: [{ key: 'm', says: 'picks through the middle of the view', run: throughCentre }],
  finds,
  help,
  tries,
  workings: {
    titles: {
      ray: 'The ray of the pixel',
      aimAngle: 'The angle between the two rays',
      miss: 'The miss of the chosen ray',
    },
    load: () => import('./workings'),
    sources: { rayPixel: 'the pixel', muzzle: 'the muzzle', shake: 'what is in the picture’s camera' },
  },
  handles: ({ slice, flat }, picture) =>
    flat || !['camera', 'plan', 'section', 'outside'].includes(picture)
      ? []
      : [
          {
            ...{ id: 'muzzle', name: 'the muzzle', picture, at: slice.muzzle },
            move: ([x, y, z], edit) => edit('move the muzzle', (draft) => void (draft.muzzle = [x, y, z])),
          },
        ],
  onHit: followHit,
};
export default pick;
