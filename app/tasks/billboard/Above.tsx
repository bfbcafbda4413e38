import { useMemo } from 'react';
import { passed, turnRateAt, type Passing } from '../../../core/billboard/passing';
import { degrees } from '../../../core/math/angle';
import { Curves } from '../../sheet/Curves';
import { useTaskMoment } from '../../state/tempo';
import { angleText } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { Field } from './fields';
import type { BillboardState } from './kept';

/** Rates are drawn up to so many degrees a second. */
const highest = 2000;

/** An eye that passes over a board about an axis: how fast that has to turn, the snap, and what keeping the last right does. */
export function Above() {
  const { slice, codec: e } = useTaskMoment<BillboardState>('billboard');
  const { pass } = slice;
  const found = passed(pass);
  const angle = (v: number) => angleText(e, v, 1);
  const { offset, speed, height, hold } = pass;
  const span = Math.max(1, 2.2 * found.heldFor, (6 * offset) / speed);
  const data = useMemo(() => {
    const own: Passing = { offset, speed, height, hold };
    const shown = (time: number, held: boolean) => Math.min(highest, degrees(turnRateAt(own, time, held)));
    return Array.from({ length: 121 }, (_, i) => {
      const time = ((i - 60) / 60) * span;
      return {
        time,
        rate: shown(time, false),
        held: own.hold > 0 ? shown(time, true) : null,
      };
    });
  }, [offset, speed, height, hold, span]);
  const at = slice.boards.some(({ mode }) => mode.startsWith('axis'));
  return (
    <>
      <p className="text-note leading-4 text-ink2">
        The eye goes on a straight level line over a board that turns about an upright axis.
      </p>
      <div className="row">
        <Field at={['pass', 'offset']} />
        <Field at={['pass', 'speed']} />
      </div>
      <div className="row">
        <Field at={['pass', 'height']} />
        <Field at={['pass', 'hold']} />
      </div>
      <div className="result">
        <p className="verdict-line" data-testid="above">
          {found.snap
            ? 'Straight over the axis it snaps half round in one instant: no rate is fast enough.'
            : `It has to turn ${angle(found.peak!)} a second as the eye passes, half a turn in all.`}
        </p>
        {found.heldFor > 0 && (
          <p className="verdict-line" data-testid="held">
            Kept within the cone, it stands still for {figure(2 * found.heldFor, 2)} s and then turns{' '}
            {angle(found.jump)} at once: the turn is put off to where it is seen, not taken away
            {found.heldPeak ? `; outside the cone it turns ${angle(found.heldPeak)} a second at most.` : '.'}
          </p>
        )}
        <div className="line">
          rate = v·d ÷ (d² + v²t²) <WorkingButton of="passRate" />
        </div>
      </div>
      <Curves
        data={data}
        over="time"
        x={{ domain: [-span, span], ticks: [-span, -span / 2, 0, span / 2, span], show: (v) => figure(v, 1) }}
        y={{
          domain: [0, Math.max(10, Math.min(highest, 1.1 * degrees(found.peak ?? Infinity)))],
          show: (v) => `${figure(v, 0)}`,
        }}
        curves={[
          { of: 'rate', color: 'plum' },
          { of: 'held', color: 'teal', dash: '5 3' },
        ]}
        lines={[{ x: 0, color: 'brass' }]}
      />
      <p className="text-note leading-4 text-ink2">
        Degrees a second over seconds; dashed: with the last right kept.{' '}
        {at ? '' : 'No board here turns about an axis. '}Boards that face the view plane do none of this.
      </p>
    </>
  );
}
