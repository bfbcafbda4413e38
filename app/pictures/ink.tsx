import { useLayoutEffect, useRef } from 'react';
import { useMoving } from '../state/pace';
import type { Rect } from './labels';
import { n2, type Mark, type Stroke, type Text } from './marks';

/** Marks as elements of a drawing: sharp at any zoom, found and read by whoever looks for their words. */
export const SetMarks = ({ marks }: { marks: readonly Mark[] }) =>
  marks.map((mark, i) => {
    const { className, x = 0, y = 0, turn } = mark;
    const transform = `translate(${n2(x)} ${n2(y)})${turn ? ` rotate(${n2(turn)})` : ''}`;
    return 'd' in mark ? (
      <path key={i} className={className} d={mark.d} transform={x || y || turn ? transform : undefined} />
    ) : (
      <text key={i} className={className} textAnchor={mark.anchor} {...(turn ? { transform } : { x: n2(x), y: n2(y) })}>
        {mark.text}
      </text>
    );
  });

interface Ink {
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

/** By the theme and the drawing that the marks belong to, then by tag and class. */
const inks = new Map<string, Map<string, Ink>>();

/** What the style sheet says of classes in a drawing: asked once for each theme. */
function inksOf(host: SVGSVGElement): (tag: 'path' | 'text', className: string) => Ink {
  const key = `${document.documentElement.dataset.theme} ${host.getAttribute('class')}`;
  const known = inks.get(key) ?? new Map<string, Ink>();
  inks.set(key, known);
  return (tag, className) => {
    const own = tag + className;
    const found = known.get(own) ?? readInk(host, tag, className);
    known.set(own, found);
    return found;
  };
}

function readInk(host: SVGSVGElement, tag: 'path' | 'text', className: string): Ink {
  const sample = host.appendChild(document.createElementNS('http://www.w3.org/2000/svg', tag));
  sample.setAttribute('class', className);
  const style = getComputedStyle(sample);
  const colour = (value: string) => (value === 'none' ? null : value);
  const ink: Ink = {
    fill: colour(style.fill),
    stroke: colour(style.stroke),
    width: Number.parseFloat(style.strokeWidth),
    dashes: style.strokeDasharray === 'none' ? [] : style.strokeDasharray.split(',').map(Number.parseFloat),
    join: style.strokeLinejoin as CanvasLineJoin,
    opacity: Number(style.opacity),
    strokeFirst: style.paintOrder.startsWith('stroke'),
    // The shorthand is empty where something stands that it cannot say.
    font: `${style.fontStyle} ${style.fontWeight} ${style.fontSize} ${style.fontFamily}`,
    underline: style.textDecorationLine.includes('underline')
      ? {
          colour: style.textDecorationColor,
          width: Number.parseFloat(style.textDecorationThickness) || 1,
          below: Number.parseFloat(style.textUnderlineOffset) || 2,
        }
      : null,
  };
  sample.remove();
  return ink;
}

function dip(context: CanvasRenderingContext2D, ink: Ink): void {
  context.globalAlpha = ink.opacity;
  context.lineWidth = ink.width;
  context.lineJoin = ink.join;
  context.setLineDash([...ink.dashes]);
  context.font = ink.font;
  if (ink.stroke) context.strokeStyle = ink.stroke;
  if (ink.fill) context.fillStyle = ink.fill;
}

function paintShape(context: CanvasRenderingContext2D, { d }: Stroke, ink: Ink): void {
  const path = new Path2D(d);
  if (ink.stroke && ink.strokeFirst) context.stroke(path);
  if (ink.fill) context.fill(path);
  if (ink.stroke && !ink.strokeFirst) context.stroke(path);
}

function paintLetters(context: CanvasRenderingContext2D, { text, anchor = 'start' }: Text, ink: Ink): void {
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

/** Paints marks, dipping the pen anew only where the ink is another. */
function paint(context: CanvasRenderingContext2D, host: SVGSVGElement, marks: readonly Mark[]): void {
  const inkOf = inksOf(host);
  let last: Ink | null = null;
  for (const mark of marks) {
    const { x = 0, y = 0 } = mark;
    const turn = ((mark.turn ?? 0) * Math.PI) / 180;
    const ink = inkOf('d' in mark ? 'path' : 'text', mark.className);
    if (ink !== last) dip(context, ink);
    last = ink;
    context.translate(x, y);
    if (turn) context.rotate(turn);
    if ('d' in mark) paintShape(context, mark, ink);
    else paintLetters(context, mark, ink);
    if (turn) context.rotate(-turn);
    context.translate(-x, -y);
  }
}

export interface Layer {
  readonly marks: readonly Mark[];
  /** Nothing of it is seen outside of this, in the layer's own pixels. */
  readonly clip?: Rect;
}

/**
 * Marks painted: for what is drawn anew with every move, where laying out and recording some dozens of elements would take more of the frame than everything else in
 * it. `left` and `top` are where the layers' own pixels begin.
 */
export function PaintedMarks({
  layers,
  width,
  height,
  left = 0,
  top = 0,
  inked = '',
}: {
  layers: readonly Layer[];
  width: number;
  height: number;
  left?: number;
  top?: number;
  /** Classes of the drawing that the marks belong to. */
  inked?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const host = useRef<SVGSVGElement>(null);
  const density = window.devicePixelRatio || 1;
  useLayoutEffect(() => {
    const context = canvas.current!.getContext('2d')!;
    const draw = () => {
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, width, height);
      context.translate(left, top);
      for (const { marks, clip } of layers) {
        context.save();
        if (clip) {
          context.beginPath();
          context.rect(clip.x, clip.y, clip.width, clip.height);
          context.clip();
        }
        paint(context, host.current!, marks);
        context.restore();
      }
    };
    draw();
    // Letters that are still on their way are put in when they have come.
    document.fonts.addEventListener('loadingdone', draw);
    return () => document.fonts.removeEventListener('loadingdone', draw);
  });
  return (
    <>
      <svg ref={host} className={`overlay ${inked}`} width="0" height="0" aria-hidden="true" />
      <canvas
        ref={canvas}
        className="overlay painted"
        width={Math.round(width * density)}
        height={Math.round(height * density)}
        style={{ width, height }}
        aria-hidden="true"
      />
    </>
  );
}

/** Whether the marks over the pictures are painted now rather than set: while the hand moves something in one of them. */
export const usePainting = (): boolean => useMoving(({ where }) => where !== null);
