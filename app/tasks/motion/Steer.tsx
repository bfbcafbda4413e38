import { useEffect } from 'react';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { angleUnit } from '../../ui/angles';
import { Field } from './fields';
import type { MotionState } from './kept';
import { beginSteering, endSteering, useSteering } from './steer';

/** The camera steered by keys and pointer, as a walk; what is done becomes its track. */
export function Steer() {
  const { codec } = useTaskMoment<MotionState>('motion');
  const { on, seconds } = useSteering();
  useEffect(() => endSteering, []);
  return (
    <>
      <div className="row">
        <Field at={['steering', 'speed']} unit="per s" />
        <Field at={['steering', 'sensitivity']} unit={`${angleUnit(codec)}/px`} />
      </div>
      <div className="row">
        <Field at={['steering', 'pitchLimit']} width="70%" />
      </div>
      <div className="row">
        <button className="plain-button" aria-pressed={on} onClick={on ? endSteering : beginSteering}>
          {on ? 'End steering (Esc)' : 'Steer the camera'}
        </button>
        <output className="font-mono text-note" data-testid="steered">
          {on ? `${figure(seconds, 1)} s` : ''}
        </output>
      </div>
      <p className="text-note leading-4 text-ink2" aria-live="polite">
        {on
          ? 'Arrows walk, Page Up and Page Down rise and sink, dragging in the camera’s picture turns. Escape ends it.'
          : 'From where the camera rests, at time 0. What is steered becomes its track, a walk, and is one step of undo.'}
      </p>
    </>
  );
}
