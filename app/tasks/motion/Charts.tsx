import { DataList } from '../../sheet/DataList';
import { AtMoment, Curves } from '../../sheet/Curves';
import type { Viewport } from '../../../core/camera/frame';
import type { ConventionCodec } from '../../../core/conventions/codec';
import { memo } from '../../state/memo';
import { spanOf } from '../../state/span';
import { useTaskMoment } from '../../state/tempo';
import { angleText, angleUnit } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { goTo } from './goTo';
import type { Events } from './job';
import { journeyOf, trackOf } from './journey';
import { sampleAt, seriesOf, type Sample } from './series';
import type { MotionState } from './kept';
import { subjectOf } from './subject';

const none: readonly Sample[] = [];
const short = (v: number): string => figure(v, Math.abs(v) >= 100 ? 0 : Math.abs(v) >= 1 ? 1 : 2);

/** A place of the picture as the screen’s own numbers. */
const onScreen = (e: ConventionCodec, v: Viewport, x: number | null, y: number | null) =>
  x === null || y === null ? null : e.toScreen(v, ((x - v.x) / v.width) * 2 - 1, 1 - ((y - v.y) / v.height) * 2);

/** The charts of a series: made once, whatever the moment. */
const chartsOf = memo((series: readonly Sample[], span: number, e: ConventionCodec, v: Viewport) => {
  const data = series.map(({ x, y, fov, ...one }) => {
    const place = onScreen(e, v, x, y);
    return { ...one, fov: fov === null ? null : e.toAngle(fov), x: place?.[0] ?? null, y: place?.[1] ?? null };
  });
  const x = { show: (t: number) => figure(t, span < 20 && !Number.isInteger(t) ? 1 : 0), domain: [0, span] } as const;
  /** From least to greatest, and no nearer than a hundredth: rounding is no curve. */
  const domainOf = (names: readonly string[]): readonly [number, number] => {
    const values = data.flatMap((one) => names.flatMap((name) => (one as Record<string, number | null>)[name] ?? []));
    const [low, high] = [Math.min(...values), Math.max(...values)];
    if (!values.length) return [0, 1];
    const least = Math.max(Math.abs(low), Math.abs(high), 1e-6) / 100;
    return high - low < least ? [(low + high - least) / 2, (low + high + least) / 2] : [low, high];
  };
  const chart = (...of: readonly { readonly of: string; readonly color: string; readonly dash?: string }[]) => (
    <Curves
      {...{
        data,
        over: 'time',
        x,
        y: { show: short, domain: domainOf(of.map((one) => one.of)) },
        curves: of,
        height: 110,
      }}
      onPick={goTo}
    />
  );
  const one = (of: string) => chart({ of, color: 'teal' });
  return {
    ...{ fov: one('fov'), distance: one('distance'), speed: one('speed'), size: one('size') },
    place: chart({ of: 'x', color: 'teal' }, { of: 'y', color: 'plum', dash: '5 3' }),
  };
});

/** What the camera does over time, and what becomes of the subject in its picture. */
export function Charts() {
  const now = useTaskMoment<MotionState>('motion');
  const { project, slice, time, flat, codec: e } = now;
  const { viewport } = now.rest;
  const journey = journeyOf(now);
  const subject = subjectOf(now);
  const span = spanOf(project);
  const series = journey && subject ? seriesOf(journey, subject, span, 120) : none;
  const at = journey && subject ? sampleAt(journey, subject, time) : null;
  const charts = chartsOf(series, span, e, viewport);
  const screen = (x: number | null, y: number | null) => onScreen(e, viewport, x, y);
  const events = now.answer<Events>('events')?.list ?? [];
  const place = at && screen(at.x, at.y);
  const chart = (name: keyof typeof charts) => <AtMoment chart={charts[name]} at={time} domain={[0, span]} />;
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
                    {at.fov === null ? 'parallel' : angleText(e, at.fov, 3)}
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
                Field of view <em>{angleUnit(e)}</em>
              </div>
              {chart('fov')}
              <div className="rule">
                Distance to it <em>{project.unit}</em>
              </div>
              {chart('distance')}
            </>
          )}
          <div className="rule">
            Speed <em>per s</em>
          </div>
          {chart('speed')}
          <div className="rule">
            On the screen <em>x, y dashed</em>
          </div>
          {chart('place')}
          <div className="rule">
            Its diameter <em>px</em>
          </div>
          {chart('size')}
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
