import { turnWorld } from '../../edits/camera2d';
import type { Task } from '../task';
import { centreAnchor, fitEverything, fitProbed, fitSelection, focusOnProbe, holdBy, stepZoom } from './edits';
import { finds } from './finds';
import { help } from './help';
import { FrameSheet } from './Sheet';
import { tries } from './tries';

const frame: Task = {
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
  finds,
  help,
  tries,
  workings: {
    titles: { seen: 'What is seen at a distance' },
    load: () => import('./workings'),
    sources: {
      eye: 'the eye',
      gaze: 'the gaze',
      lens: 'the lens',
      near: 'the near limit',
      far: 'the far limit',
      zoom: 'the zoom',
      turned: 'the turn of the world',
      focus: 'focus and anchor',
    },
  },
};
export default frame;
