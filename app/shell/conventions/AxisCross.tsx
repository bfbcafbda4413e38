import { useState } from 'react';
import { handednessOf, opposite, signedAxes, withAxis, type AxisFrame } from '../../../core/conventions/axes';
import { Choice } from '../../ui/Choice';
import { sign } from './sign';

const directions = ['right', 'up', 'forward'] as const;
type Direction = (typeof directions)[number];
const wordOf = (direction: Direction) => (direction === 'forward' ? 'ahead' : direction);
/** Where each direction runs on the drawn cross, from its middle: ahead goes into the picture. */
const tips: Record<Direction, readonly [number, number]> = { right: [56, 0], up: [0, -48], forward: [34, -25] };

/**
 * A frame of axes on a drawn cross: a direction is taken hold of by its tip, and given the axis
 * that points there.
 */
export function AxisCross({
  space,
  frame,
  onChange,
}: {
  space: 'World' | 'View';
  frame: AxisFrame;
  onChange: (frame: AxisFrame) => void;
}) {
  const [held, setHeld] = useState<Direction>('up');
  return (
    <div className="axis-cross">
      <h3>
        {space} <span className="text-ink2 font-sans text-note">{handednessOf(frame)}-handed</span>
      </h3>
      <svg width="204" height="132" viewBox="-102 -72 204 132" role="group" aria-label={`${space} axes`}>
        {directions.map((direction) => {
          const [x, y] = tips[direction];
          const on = direction === held;
          return (
            <g key={direction} className={on ? 'is-on' : ''}>
              <path className="cross-line" d={`M0 0L${x} ${y}`} />
              <path className="cross-back" d={`M0 0L${-x * 0.6} ${-y * 0.6}`} />
              <text className="ink-figure-bare-muted" x={-x * 0.78} y={-y * 0.78 + 4} textAnchor="middle">
                {sign(opposite(frame[direction]))}
              </text>
              <g
                className="cross-tip"
                role="button"
                tabIndex={0}
                aria-pressed={on}
                aria-label={`${space} ${wordOf(direction)}: ${sign(frame[direction])}`}
                onClick={() => setHeld(direction)}
                onKeyDown={(event) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  setHeld(direction);
                }}
                onFocus={() => setHeld(direction)}
              >
                <rect x={x - 13} y={y - 9} width="26" height="18" />
                <text className="ink-figure-bare" x={x} y={y + 4} textAnchor="middle">
                  {sign(frame[direction])}
                </text>
              </g>
              <text
                className="ink-name-muted"
                x={direction === 'right' ? x + 17 : direction === 'forward' ? x + 17 : x}
                y={direction === 'up' ? y - 13 : y + 4}
                textAnchor={direction === 'up' ? 'middle' : 'start'}
              >
                {wordOf(direction)}
              </text>
            </g>
          );
        })}
        <circle className="cross-middle" r="2" />
      </svg>
      <Choice
        name={`${space} ${wordOf(held)}`}
        value={frame[held]}
        options={signedAxes.map((axis) => ({
          value: axis,
          label: sign(axis),
          title: `${sign(axis)} points ${wordOf(held)}`,
        }))}
        onChange={(axis) => onChange(withAxis(frame, held, axis))}
      />
    </div>
  );
}
