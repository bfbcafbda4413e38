import { radians } from '../../../core/math/angle';
import type { Ink } from '../compose/inks';
import type { Mark } from '../compose/marks';
import type { Sink } from './sink';

/** Draws marks on a canvas, whose transform says how many device pixels a pixel of the page has. */
export function canvasSink(context: OffscreenCanvasRenderingContext2D): Sink {
  let last: Ink | null = null;
  /** Sets the context's styles where the ink differs from the one before. */
  const applyInk = (ink: Ink): void => {
    if (ink === last) return;
    last = ink;
    context.globalAlpha = ink.opacity;
    context.lineWidth = ink.width;
    context.lineJoin = ink.join;
    context.setLineDash([...ink.dash]);
    if (ink.font) context.font = ink.font.css;
    if (ink.stroke) context.strokeStyle = ink.stroke;
    if (ink.fill) context.fillStyle = ink.fill;
  };
  const at = ({ x = 0, y = 0, turn }: Mark, draw: () => void): void => {
    const angle = radians(turn ?? 0);
    context.translate(x, y);
    if (angle) context.rotate(angle);
    draw();
    if (angle) context.rotate(-angle);
    context.translate(-x, -y);
  };
  return {
    begin: ({ clip, x, y }) => {
      last = null;
      context.save();
      context.translate(x, y);
      context.beginPath();
      context.rect(clip.x, clip.y, clip.width, clip.height);
      context.clip();
    },
    shape: (mark, ink) => {
      applyInk(ink);
      at(mark, () => {
        const path = new Path2D(mark.d);
        if (ink.stroke && ink.isStrokeBelow) context.stroke(path);
        if (ink.fill) context.fill(path);
        if (ink.stroke && !ink.isStrokeBelow) context.stroke(path);
      });
    },
    text: (mark, ink) => {
      applyInk(ink);
      const { text, anchor = 'start' } = mark;
      at(mark, () => {
        context.textAlign = anchor === 'middle' ? 'center' : anchor;
        // The stroke of text is its halo.
        if (ink.stroke) context.strokeText(text, 0, 0);
        context.fillText(text, 0, 0);
        if (!ink.underline) return;
        const { width } = context.measureText(text);
        const left = anchor === 'start' ? 0 : anchor === 'end' ? -width : -width / 2;
        context.fillStyle = ink.underline.colour;
        context.fillRect(left, ink.underline.below, width, ink.underline.width);
        last = null;
      });
    },
    end: () => context.restore(),
  };
}
