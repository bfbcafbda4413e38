import type { Task } from '..';
import { fitEverything, fitProbed, holdBy } from './edits';
import { FrameSheet } from './Sheet';

export const frame: Task = {
  name: 'Frame',
  route: 'frame',
  key: '1',
  Sheet: FrameSheet,
  corner: 'screens',
  commands: [
    { name: 'Fit the probed body', run: fitProbed },
    { name: 'Fit everything', run: fitEverything },
    { name: 'Hold the gaze by a point', run: () => holdBy('lookAt') },
    { name: 'Hold the gaze by angles', run: () => holdBy('angles') },
    { name: 'Hold the gaze by a basis', run: () => holdBy('basis') },
  ],
};
