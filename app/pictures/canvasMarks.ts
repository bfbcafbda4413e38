import { radians } from '../../core/math/angle';
import type { Layer } from './compose';
import type { InkRole } from './inkRoles';
import type { Stroke, Text } from './marks';

/*
 * Marks painted: for what is drawn anew with every move, where laying out and recording some dozens
 * of elements would take most of the frame.
 */

/** What the style sheet says of a class of marks. */
export interface Ink {
  readonly fill: string | null;
  readonly stroke: string | null;
  readonly width: number;
  readonly dashes: readonly number[];
  readonly join: CanvasLineJoin;
  readonly opacity: number;
  readonly strokeFirst: boolean;
  readonly font: string;
  readonly underline: { readonly colour: string; readonly width: number; readonly below: number } | null;
}

/** What an ink is asked for by: the classes of the drawing, then the mark's own tag and role. */
export interface InkName {
  readonly inked: string;
  readonly tag: 'path' | 'text';
  readonly role: InkRole;
}

type Context = OffscreenCanvasRenderingContext2D;

function dip(context: Context, ink: Ink): void {
  context.globalAlpha = ink.opacity;
  context.lineWidth = ink.width;
  context.lineJoin = ink.join;
  context.setLineDash([...ink.dashes]);
  context.font = ink.font;
  if (ink.stroke) context.strokeStyle = ink.stroke;
  if (ink.fill) context.fillStyle = ink.fill;
}

function paintShape(context: Context, { d }: Stroke, ink: Ink): void {
  const path = new Path2D(d);
  if (ink.stroke && ink.strokeFirst) context.stroke(path);
  if (ink.fill) context.fill(path);
  if (ink.stroke && !ink.strokeFirst) context.stroke(path);
}

function paintLetters(context: Context, { text, anchor = 'start' }: Text, ink: Ink): void {
  context.textAlign = anchor === 'middle' ? 'center' : anchor;
  // Letters have a halo or no line at all.
  if (ink.stroke) context.strokeText(text, 0, 0);
  context.fillText(text, 0, 0);
  if (!ink.underline) return;
  const { width } = context.measureText(text);
  const left = anchor === 'start' ? 0 : anchor === 'end' ? -width : -width / 2;
  context.fillStyle = ink.underline.colour;
  context.fillRect(left, ink.underline.below, width, ink.underline.width);
  context.fillStyle = ink.fill ?? context.fillStyle;
}

/**
 * Paints a layer, dipping the pen anew only where the ink is another; marks whose ink is not known
 * are left out.
 */
export function paintLayer(context: Context, layer: Layer, inkOf: (name: InkName) => Ink | null): void {
  const { marks, clip, inked } = layer;
  context.save();
  context.translate(layer.x, layer.y);
  context.beginPath();
  context.rect(clip.x, clip.y, clip.width, clip.height);
  context.clip();
  let last: Ink | null = null;
  for (const mark of marks) {
    const { x = 0, y = 0, ink: role } = mark;
    const turn = radians(mark.turn ?? 0);
    const ink = inkOf({ inked, tag: 'd' in mark ? 'path' : 'text', role });
    if (!ink) continue;
    if (ink !== last) dip(context, ink);
    last = ink;
    context.translate(x, y);
    if (turn) context.rotate(turn);
    if ('d' in mark) paintShape(context, mark, ink);
    else paintLetters(context, mark, ink);
    if (turn) context.rotate(-turn);
    context.translate(-x, -y);
  }
  context.restore();
}
