import { Curves } from '../../sheet/Curves';
import { useTaskMoment } from '../../state/tempo';
import { angleSuffix } from '../../ui/angles';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { change } from './edits';
import { Field } from './fields';
import type { TurnedBoth } from './job';
import type { MotionState } from './kept';

const small = (v: number): string => (v === 0 ? '0' : v.toExponential(1));

/** A basis turned on by small steps over minutes: how far it drifts, with repair and without. */
export function Drift() {
  const now = useTaskMoment<MotionState>('motion');
  const { turning } = now.slice;
  const { codec: e } = now;
  const found = now.answer<TurnedBoth>('turned');
  const set = (words: string, recipe: (d: MotionState['turning']) => void, gesture?: string) =>
    change(words, (draft) => recipe(draft.turning), gesture);
  const [last, mended] = [found?.without.at(-1), found?.repaired.at(-1)];
  const unit = angleSuffix(e);
  const data = (found?.without ?? []).map(({ time, error }, i) => ({
    ...{ minutes: time / 60, error, repaired: found!.repaired[i]?.error ?? null },
  }));
  return (
    <>
      <div className="row">
        <Field at={['turning', 'rate']} />
        <Field at={['turning', 'steps']} unit="/s" />
      </div>
      <div className="row">
        <Field at={['turning', 'minutes']} unit="min" />
        <Field at={['turning', 'repair']} />
      </div>
      <div className="row">
        <span className="label">In</span>
        <Choice
          name="Precision of the basis"
          value={turning.precision}
          options={[
            { value: 'float', label: 'float' },
            { value: 'double', label: 'double' },
          ]}
          onChange={(precision) => set('change the precision', (d) => void (d.precision = precision))}
        />
      </div>
      {last && mended && (
        <>
          <div className="result" data-testid="drift">
            <div className="line">
              not orthonormal by
              <span className="right" data-testid="drift-error">
                {small(last.error)}
              </span>
            </div>
            <div className="line">
              repaired <span className="right">{small(mended.error)}</span>
            </div>
            <div className="line">
              gaze off, repaired too
              <span className="right" data-testid="drift-off">
                {small(e.toAngle(mended.off))}
                {unit}
              </span>
            </div>
          </div>
          <Curves
            data={data}
            over="minutes"
            x={{ show: (v) => figure(v, 1) }}
            y={{ show: small }}
            curves={[
              { of: 'error', color: 'verm' },
              { of: 'repaired', color: 'teal', dash: '5 3' },
            ]}
            height={120}
          />
          <p className="text-note leading-4 text-ink2">
            Minutes to the right: how far it is from orthonormal; dashed, repaired every{' '}
            {figure(turning.repair ?? 1, 2)} s. A repair squares the axes; what was turned wrong stays. Keep angles or a
            quaternion, and make the basis from them.
          </p>
        </>
      )}
    </>
  );
}
