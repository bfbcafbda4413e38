import { useEffect } from 'react';
import { degrees, radians } from '../../../core/math/angle';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { lengths } from '../../ui/parseNumber';
import { change } from './edits';
import { AngleNum, Num } from './fields';
import type { MotionState } from './kept';
import { beginSteering, endSteering, useSteering } from './steer';

/** The camera steered by keys and pointer, as a walk; what is done becomes its track. */
export function Steer() {
  const { slice } = useTaskMoment<MotionState>('motion');
  const { steering } = slice;
  const { on, seconds } = useSteering();
  useEffect(() => endSteering, []);
  const set = (words: string, recipe: (d: MotionState['steering']) => void, gesture: string) =>
    change(words, (draft) => recipe(draft.steering), gesture);
  return (
    <>
      <div className="row">
        <Num
          name="Walking speed"
          label="speed"
          unit="per s"
          source="steering"
          value={steering.speed}
          units={lengths}
          refuse={(v) => (v > 0 ? null : 'A speed above 0.')}
          set={(v, g) => set('set the speed', (d) => void (d.speed = v), g)}
        />
        <Num
          name="Sensitivity of the pointer"
          label="turns"
          unit="°/px"
          step={0.05}
          value={degrees(steering.sensitivity)}
          refuse={(v) => (v > 0 ? null : 'A sensitivity above 0.')}
          set={(v, g) => set('set the sensitivity', (d) => void (d.sensitivity = radians(v)), g)}
        />
      </div>
      <div className="row">
        <AngleNum
          name="Pitch limit of the steering"
          width="70%"
          label="pitch to ±"
          of={null}
          value={steering.pitchLimit}
          refuse={(v) => (v >= 0 && v <= radians(90) ? null : 'From 0° to 90°.')}
          set={(v, g) => set('limit the pitch', (d) => void (d.pitchLimit = v), g)}
        />
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
