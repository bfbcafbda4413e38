import { ConvertSheet } from './Sheet';
import type { Task } from '../task';
import { finds } from './finds';
import { help } from './help';
import { holdPoint } from './hold';
import { tries } from './tries';

const convert: Task = {
  Sheet: ConvertSheet,
  corner: 'section',
  commands: [{ name: 'Hold a point to the screen', run: holdPoint }],
  keys: [{ key: 'h', says: 'hold a point to the screen', run: holdPoint }],
  finds,
  help,
  tries,
  workings: {
    titles: {
      screen: 'From the point to the pixel',
      flat: 'From the point to the pixel',
      back: 'From the pixel to the point',
      flatBack: 'From the pixel to the point',
      scale: 'Pixels per unit',
      edge: 'Where the edge marker stands',
      derivative: 'The Jacobian of the pixel',
      rectangle: 'The bounding rectangle',
      edges: 'An edge on the screen',
      normal: 'The normal matrix',
      between: 'The probe in the other space',
      pointer: 'The pointer’s way',
    },
    load: () => import('./workings'),
    sources: {
      body: 'the node',
      space: 'the other node',
      canvas: 'where the canvas lies',
      canvasScale: 'the scale it is shown at',
      devicePixels: 'the device pixel ratio',
      framebuffer: 'the framebuffer’s scale',
      bars: 'the bars',
      tiles: 'the map',
      pixel: 'the pixel',
      back: 'the depth',
    },
  },
};
export default convert;
