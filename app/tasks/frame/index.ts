import type { Task } from '..';
import { turnWorld } from '../../pictures/camera2d';
import { centreAnchor, fitEverything, fitProbed, fitSelection, focusOnProbe, holdBy, stepZoom } from './edits';
import { FrameSheet } from './Sheet';

export const frame: Task = {
  name: 'Frame',
  route: 'frame',
  key: '1',
  Sheet: FrameSheet,
  corner: 'screens',
  commands: [
    { name: 'Fit the probed body', run: fitProbed },
    { name: 'Fit the selection', run: fitSelection },
    { name: 'Fit everything', run: fitEverything },
    { name: 'Hold the gaze by a point', run: () => holdBy('lookAt'), world: 'space' },
    { name: 'Hold the gaze by angles', run: () => holdBy('angles'), world: 'space' },
    { name: 'Hold the gaze by a basis', run: () => holdBy('basis'), world: 'space' },
    { name: 'Put the anchor in the middle', run: centreAnchor, world: 'flat' },
    { name: 'Focus on the probe', run: focusOnProbe, world: 'flat' },
    { name: 'Zoom in to the next whole number', run: () => stepZoom(true), world: 'flat' },
    { name: 'Zoom out to the next whole number', run: () => stepZoom(false), world: 'flat' },
    { name: 'Turn the world upright', run: () => turnWorld(0), world: 'flat' },
  ],
};
