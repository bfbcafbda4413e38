import { Fragment } from 'react';
import { mannersOf } from '../../../core/motion/rates';
import { Curves } from '../../sheet/Curves';
import { DataList } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { change } from './edits';
import type { Compared } from './job';
import { mannerNow, trackKey, trackOf } from './journey';
import { rates, type MotionState, type Rate } from './kept';
import { mannerWords } from './words';

/** The same motion at several frame rates, by the time and as code that is bound to the frame has it. */
export function Rates() {
  const now = useTaskMoment<MotionState>('motion');
  const { slice, project } = now;
  const kind = trackOf(now)?.travel.kind ?? null;
  const manners = mannersOf(kind).filter((one) => one !== 'right');
  const manner = mannerNow(now);
  const found = now.answer<Compared>('compared');
  const own = found?.rate === slice.rate && found.manner === manner && found.track === trackKey(now) ? found : null;
  const rows = own
    ? Array.from(own.times, (time, i) => ({ i, time, units: own.units[i]!, pixels: own.pixels[i]! })).filter(
        ({ i }) => i % Math.max(1, Math.ceil(own.times.length / 240)) === 0,
      )
    : [];
  const data = rows.map(({ time, units, pixels }) => ({
    ...{ time, units: Number.isNaN(units) ? null : units, pixels: Number.isNaN(pixels) ? null : pixels },
  }));
  return (
    <>
      <div className="row">
        <span className="label">Frames</span>
        <Choice
          name="Frames a second"
          value={slice.rate}
          options={rates.map((value) => ({ value, label: value, title: value === 'uneven' ? 'From 7 to 50 ms each' : `${value} a second` }))} // prettier-ignore
          onChange={(rate: Rate) => change('change the frame rate', (draft) => void (draft.rate = rate))}
        />
      </div>
      <div className="row">
        <span className="label">Stepped</span>
        <Choice
          name="How it is stepped"
          value={manner}
          options={manners.map((value) => ({ value, label: mannerWords[value].short, title: mannerWords[value].says }))}
          onChange={(to) => change('change how it is stepped', (draft) => void (draft.manner = to))}
        />
      </div>
      <p className="text-note leading-4 text-ink2">{mannerWords[manner].says}.</p>
      <p className="verdict-line" data-testid="rates" aria-live="polite">
        {kind === null
          ? 'The camera stands: there is nothing to step.'
          : !own
            ? 'Making frames…'
            : own.most.units <= 1e-6
              ? 'At this rate it comes out right.'
              : `Off by up to ${figure(own.most.units, 3)} ${project.unit} after ${figure(own.most.unitsAt, 2)} s${own.most.pixels === null ? '' : `, the subject by up to ${figure(own.most.pixels, 1)} pixels`}. By the time it is the same at every rate.`}
      </p>
      {own && own.most.units > 1e-6 && (
        <>
          {(['units', 'pixels'] as const).map((of) => (
            <Fragment key={of}>
              <div className="rule">
                Apart <em>{of === 'units' ? project.unit : 'pixels of the subject'}</em>
              </div>
              <Curves
                data={data}
                over="time"
                x={{ show: (v) => figure(v, 0) }}
                y={{ show: (v) => figure(v, v >= 10 ? 0 : 2) }}
                curves={[{ of, color: of === 'units' ? 'verm' : 'plum' }]}
                height={100}
              />
            </Fragment>
          ))}
          <p className="text-note leading-4 text-ink2">
            In the plan the right way is drawn thin, and the stepped one in vermilion over it.
          </p>
          <DataList
            name="frames"
            rows={rows}
            keyOf={({ i }) => String(i)}
            columns={[
              { name: 'frame', width: '52px', value: ({ i }) => i, decimals: 0 },
              { name: 's', width: '1fr', value: ({ time }) => time, decimals: 3 },
              {
                name: project.unit,
                width: '1fr',
                value: ({ units }) => (Number.isNaN(units) ? null : units),
                decimals: 4,
              },
              { name: 'px', width: '1fr', value: ({ pixels }) => (Number.isNaN(pixels) ? null : pixels), decimals: 2 },
            ]}
            most={5}
          />
        </>
      )}
    </>
  );
}
