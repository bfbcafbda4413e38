import { DataList } from '../../sheet/DataList';
import { Curves } from '../../sheet/Curves';
import { spanOf } from '../../state/span';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { goTo } from './goTo';
import type { Events } from './job';
import { journeyOf, trackOf } from './journey';
import { sampleAt, seriesOf } from './series';
import type { MotionState } from './kept';
import { subjectOf } from './subject';

const short = (v: number): string => figure(v, Math.abs(v) >= 100 ? 0 : Math.abs(v) >= 1 ? 1 : 2);

/** What the camera does over time, and what becomes of the subject in its picture. */
export function Charts() {
  const now = useTaskMoment<MotionState>('motion');
  const { project, slice, time, flat, codec: e, frame } = now;
  const journey = journeyOf(now);
  const subject = subjectOf(now);
  const span = spanOf(project);
  const series = journey && subject ? seriesOf(journey, subject, span, 120) : [];
  const at = journey && subject ? sampleAt(journey, subject, time) : null;
  const screen = (x: number | null, y: number | null) => {
    if (x === null || y === null) return null;
    const v = frame.viewport;
    return e.toScreen(v, ((x - v.x) / v.width) * 2 - 1, 1 - ((y - v.y) / v.height) * 2);
  };
  const events = now.answer<Events>('events')?.list ?? [];
  const data = series.map((one) => {
    const place = screen(one.x, one.y);
    return { ...one, fov: one.fov === null ? null : e.toAngle((one.fov * Math.PI) / 180), x: place?.[0] ?? null, y: place?.[1] ?? null }; // prettier-ignore
  });
  const place = at && screen(at.x, at.y);
  const moment = { x: time, color: 'brass', dash: '0' };
  const x = { show: (v: number) => figure(v, span < 20 && !Number.isInteger(v) ? 1 : 0), domain: [0, span] } as const;
  const chart = (of: readonly { readonly of: string; readonly color: string; readonly dash?: string }[]) => (
    <Curves
      {...{ data, over: 'time', x, y: { show: short }, curves: of, lines: [moment], height: 110 }}
      onPick={goTo}
    />
  );
  const angle = e.conventions.angles.unit === 'degrees' ? '°' : ' rad';
  return (
    <>
      <div className="row">
        <label htmlFor="motion-subject">Of</label>
        <select
          id="motion-subject"
          className="select"
          value={slice.subject ?? ''}
          onChange={({ target }) =>
            change('look at another body', (draft) => void (draft.subject = target.value || null))
          }
        >
          <option value="">the probe</option>
          {project.bodies.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </div>
      {!journey ? (
        <p className="text-note text-ink2">The camera stands. Give it a track above.</p>
      ) : !at ? (
        <p className="warning">There is no camera or no subject at this moment.</p>
      ) : (
        <>
          <div className="result" data-testid="motion-now">
            {!flat && (
              <>
                <div className="line">
                  field of view {trackOf(now)?.travel.kind === 'dollyZoom' && <WorkingButton of="dolly" />}
                  <span className="right" data-testid="motion-fov">
                    {at.fov === null ? 'parallel' : `${figure(e.toAngle((at.fov * Math.PI) / 180), 3)}${angle}`}
                  </span>
                </div>
                <div className="line">
                  distance to it{' '}
                  <span className="right" data-testid="motion-distance">
                    {figure(at.distance, 3)}
                  </span>
                </div>
              </>
            )}
            <div className="line">
              speed{' '}
              <span className="right" data-testid="motion-speed">
                {figure(at.speed, 3)} per s
              </span>
            </div>
            <div className="line">
              on the screen
              <span className="right" data-testid="motion-place">
                {place ? `${figure(place[0], 1)}, ${figure(place[1], 1)}` : 'behind the eye'}
              </span>
            </div>
            <div className="line">
              its diameter
              <span className="right" data-testid="motion-size">
                {at.size === null ? 'the eye is in it' : `${figure(at.size, 1)} px`}
              </span>
            </div>
          </div>
          {!flat && (
            <>
              <div className="rule">
                Field of view <em>{angle.trim()}</em>
              </div>
              {chart([{ of: 'fov', color: 'teal' }])}
              <div className="rule">
                Distance to it <em>{project.unit}</em>
              </div>
              {chart([{ of: 'distance', color: 'teal' }])}
            </>
          )}
          <div className="rule">
            Speed <em>per s</em>
          </div>
          {chart([{ of: 'speed', color: 'teal' }])}
          <div className="rule">
            On the screen <em>x, y dashed</em>
          </div>
          {chart([
            { of: 'x', color: 'teal' },
            { of: 'y', color: 'plum', dash: '5 3' },
          ])}
          <div className="rule">
            Its diameter <em>px</em>
          </div>
          {chart([{ of: 'size', color: 'teal' }])}
          {slice.subject !== null && (
            <DataList
              name="events of the subject"
              rows={events}
              keyOf={({ time }) => String(time)}
              columns={[
                { name: 's', width: '70px', value: ({ time }) => time, decimals: 3 },
                { name: 'It', width: '1fr', value: ({ what }) => what },
              ]}
              onChoose={({ time }) => goTo(time)}
              most={4}
              empty="It does not enter or leave the view."
            />
          )}
          <p className="text-note leading-4 text-ink2">Seconds run to the right. Drag on a chart to move the moment.</p>
        </>
      )}
    </>
  );
}
