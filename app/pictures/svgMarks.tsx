import { useContext } from 'react';
import { FirstPaintDone } from '../ui/firstPaint';
import { inkClass } from './inkRoles';
import { n2, type Mark } from './marks';
import type { Ink, InkName } from './canvasMarks';

/**
 * Marks as elements of a drawing: sharp at any zoom, found and read by whoever looks for their
 * words. Out of sight while they are painted.
 */
export const SetMarks = ({ marks }: { marks: readonly Mark[] }) => (
  <g className="set" pointerEvents="none">
    {(useContext(FirstPaintDone) ? marks : []).map((mark, i) => {
      const { ink, x = 0, y = 0, turn } = mark;
      const className = inkClass(ink);
      const transform = `translate(${n2(x)} ${n2(y)})${turn ? ` rotate(${n2(turn)})` : ''}`;
      return 'd' in mark ? (
        <path key={i} className={className} d={mark.d} transform={x || y || turn ? transform : undefined} />
      ) : (
        <text
          key={i}
          className={className}
          textAnchor={mark.anchor}
          {...(turn ? { transform } : { x: n2(x), y: n2(y) })}
        >
          {mark.text}
        </text>
      );
    })}
  </g>
);

/** What the style sheet says of a mark's classes, in the theme in force. */
export function readInk({ inked, tag, role }: InkName): Ink {
  const svg = 'http://www.w3.org/2000/svg';
  const host = document.body.appendChild(document.createElementNS(svg, 'svg'));
  host.setAttribute('class', `overlay ${inked}`);
  host.setAttribute('width', '0');
  host.setAttribute('height', '0');
  const sample = host.appendChild(document.createElementNS(svg, tag));
  sample.setAttribute('class', inkClass(role));
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
  host.remove();
  return ink;
}
