import { absences, noticedAt } from '../../../core/visibility/overTime';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useSelection } from '../../state/selection';
import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { change } from './edits';
import { Field } from './fields';
import type { Stays } from './job';
import type { OverTime, VisibilityState } from './kept';

interface Event {
  readonly key: string;
  readonly id: string;
  readonly name: string;
  readonly time: number;
  readonly what: 'enters' | 'leaves';
  /** Milliseconds by which a test once a frame notices it late. */
  readonly late: number;
}
const columns: readonly ListColumn<Event>[] = [
  { name: 's', width: '48px', value: ({ time }) => time, decimals: 3 },
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'what', width: '46px', value: ({ what }) => what },
  { name: 'late, ms', width: '54px', value: ({ late }) => late, decimals: 1 },
];

/** Enter and leave as time goes on: bars, a body a line, and every event with what a test once a frame makes of it. */
export function Time() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { slice, project, flat, time, journey } = now;
  const { over } = slice;
  const found = now.answer<Stays>('stays');
  const selected = useSelection((state) => state.ids);
  const names = project.bodies.map(({ name }) => name);
  const set = (words: string, recipe: (draft: OverTime) => void, gesture?: string) =>
    change(words, (draft) => recipe(draft.over), gesture);
  // What is in view all the while has nothing to tell.
  const changing = found
    ? [...new Set(found.stays.filter(({ from, to }) => from > 0 || to < found.span).map(({ body }) => body))]
    : [];
  const events = (found?.stays ?? [])
    .flatMap(({ body, from, to }, i): Event[] => {
      const one = (at: number, what: Event['what']): Event => ({
        ...{ key: `${i} ${what}`, id: project.bodies[body]?.id ?? '', name: names[body] ?? '', time: at, what },
        late: (noticedAt(at, over.rate) - at) * 1000,
      });
      return [...(from > 0 ? [one(from, 'enters')] : []), ...(to < found!.span ? [one(to, 'leaves')] : [])];
    })
    .sort((a, b) => a.time - b.time);
  const worst = events.reduce((most, { late }) => Math.max(most, late), 0);
  const [width, row] = [236, 13];
  const x = (t: number) => (t / (found?.span || 1)) * width;
  return (
    <>
      <Choice
        name="What moves"
        value={over.kind}
        options={[
          { value: 'bodies', label: 'the bodies', title: 'As the project has them move; the camera rests' },
          {
            value: 'turn',
            label: 'a turn',
            title: 'The camera turns evenly, bodies moving as they do',
            disabled: flat,
          },
          {
            value: 'walk',
            label: flat ? 'a scroll' : 'a walk',
            title: 'The camera goes evenly on the level, along its heading',
          },
          { value: 'journey', label: 'the camera', title: 'As its track in Motion has it', disabled: !journey },
        ]}
        onChange={(kind) => set('change what moves', (draft) => void (draft.kind = kind))}
      />
      <div className="row mt-1">
        {over.kind === 'turn' && <Field at={['over', 'turnRate']} />}
        {over.kind === 'walk' && <Field at={['over', 'speed']} />}
        <Field at={['over', 'seconds']} />
      </div>
      <div className="row">
        <span className="text-ink2">Tested once a frame, a second</span>
        <Field at={['over', 'rate']} width={70} />
      </div>
      <p className="verdict-line" data-testid="over-time" aria-live="polite">
        {time !== 0
          ? 'Bring the clock back to 0 to have it looked at from the beginning.'
          : !found
            ? 'Looking…'
            : events.length
              ? `${counted(events.length, 'time', 'times')} in ${figure(found.span, 1)} s a body enters or leaves; a test ${figure(over.rate, 0)} times a second notices it up to ${figure(worst, 1)} ms late.`
              : `Nothing enters or leaves in ${figure(found.span, 1)} s.`}
      </p>
      {found && changing.length > 0 && (
        <svg
          className="stays"
          width={width}
          height={Math.min(24, changing.length) * row + 4}
          role="img"
          aria-label="In view over time, a body a line"
        >
          {changing.slice(0, 24).map((body, line) => (
            <g key={body} className={selected.includes(project.bodies[body]?.id ?? '') ? 'chosen' : undefined}>
              <title>{names[body]}</title>
              <path className="stay-line" d={`M0 ${line * row + 8}H${width}`} />
              {found.stays
                .filter((one) => one.body === body)
                .map(({ from, to }) => (
                  <rect
                    key={from}
                    className="stay"
                    x={x(from)}
                    y={line * row + 3}
                    width={Math.max(1, x(to) - x(from))}
                    height={9}
                  />
                ))}
            </g>
          ))}
        </svg>
      )}
      {changing.length > 24 && <p className="text-note text-ink2">The first 24 of {changing.length} are drawn.</p>}
      <DataList
        name="events"
        rows={events}
        keyOf={({ key }) => key}
        columns={columns}
        verdictOf={({ what }) => what}
        bodiesOf={({ id }) => [id]}
        empty="None."
      />
      <PutAway />
    </>
  );
}

interface Away {
  readonly key: string;
  readonly id: string;
  readonly name: string;
  readonly time: number;
  readonly what: 'put away' | 'taken back' | 'pops in' | 'missing';
  /** For how long something of it is missing from the picture. */
  readonly lasts: number | null;
}
const awayColumns: readonly ListColumn<Away>[] = [
  { name: 's', width: '48px', value: ({ time }) => time, decimals: 3 },
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'what', width: '66px', value: ({ what }) => what },
  { name: 'for, s', width: '44px', value: ({ lasts }) => lasts, decimals: 3 },
];

/** What comes of putting away what has left the view by a margin. */
function PutAway() {
  const { slice, project, answer } = useTaskMoment<VisibilityState>('visibility');
  const { over } = slice;
  const found = answer<Stays>('stays');
  const set = (words: string, recipe: (draft: OverTime) => void, gesture?: string) =>
    change(words, (draft) => recipe(draft.over), gesture);
  const list = found?.kept
    ? absences(found.stays, found.kept, {
        ...{ bodies: project.bodies.length, rate: over.rate, span: found.span, comesBack: over.away === 'deactivate' },
      })
    : [];
  const rows = list
    .flatMap(({ body, from, to, missed }, i): Away[] => {
      const { id = '', name = '' } = project.bodies[body] ?? {};
      const one = (time: number, what: Away['what'], lasts: number | null = null, n = 0): Away => ({
        ...{ key: `${i} ${what} ${n}`, id, name, time, what, lasts },
      });
      return [
        // What is away from the first test on was never put away before the eyes of anybody.
        ...(from > 0 || over.away === 'remove' ? [one(from, 'put away')] : []),
        ...missed.map((gap, n) => one(gap.from, gap.to === to ? 'pops in' : 'missing', gap.to - gap.from, n)),
        ...(to === null ? [] : [one(to, 'taken back')]),
      ];
    })
    .sort((a, b) => a.time - b.time);
  const gaps = rows.filter(({ lasts }) => lasts !== null);
  const longest = gaps.reduce((most, { lasts }) => Math.max(most, lasts!), 0);
  return (
    <>
      <div className="rule">What has left the view</div>
      <div className="row">
        <Choice
          name="What is done with what has left the view"
          value={over.away}
          options={[
            { value: 'nothing', label: 'stays' },
            { value: 'deactivate', label: 'deactivated', title: 'Put away, and taken back when a test finds it near' },
            { value: 'remove', label: 'removed', title: 'Put away for good' },
          ]}
          onChange={(value) => set('change what is put away', (draft) => void (draft.away = value))}
        />
      </div>
      {over.away !== 'nothing' && (
        <>
          <div className="row">
            <span className="text-ink2">when it is out by</span>
            <Field at={['over', 'awayMargin']} width={90} />
          </div>
          <p className="verdict-line" data-testid="put-away" aria-live="polite">
            {!found?.kept
              ? 'Looking…'
              : gaps.length
                ? over.away === 'remove'
                  ? `${counted(gaps.length, 'visit', 'visits')} to the view would be missing: what was removed comes back.`
                  : `${counted(gaps.length, 'body pops', 'times a body pops')} in after it should be seen, up to ${figure(1000 * longest, 1)} ms late. A larger margin or more tests a second hide it; what comes in over far, more tests alone.`
                : over.away === 'remove'
                  ? 'Nothing that is removed would be in view again.'
                  : 'Everything is back before it is in view.'}
          </p>
          <DataList
            name="bodies put away"
            rows={rows}
            keyOf={({ key }) => key}
            columns={awayColumns}
            verdictOf={({ what }) => what}
            bodiesOf={({ id }) => [id]}
            empty="Nothing is put away."
          />
        </>
      )}
    </>
  );
}
