import './alive';
import { createPainter } from '../pictures/render/painter';
import type { ToPictures } from '../pictures/render/protocol';
import { installMovingTasks, loadParts } from '../tasks/parts';

/* The painter in a thread of its own. */

installMovingTasks();

const painter = createPainter({
  isPage: false,
  fonts: self.fonts,
  send: (message) => self.postMessage(message),
  requestFrame: (draw) => self.requestAnimationFrame(draw),
  createCanvas: () => new OffscreenCanvas(1, 1),
  loadTask: loadParts,
});
self.addEventListener('message', ({ data }: MessageEvent<ToPictures>) => painter.receive(data));
