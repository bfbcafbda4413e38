import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { Field } from './fields';
import { useFound } from './Points';
import type { SpawnState } from './kept';

const bars = 24;

/** Seconds until each of the points can first be seen. */
export function Seen() {
  const { slice, journey } = useTaskMoment<SpawnState>('spawn');
  const found = useFound();
  const times = found ? Array.from(found.seconds).filter((t) => !Number.isNaN(t)).sort((a, b) => a - b) : []; // prettier-ignore
  const counts = Array<number>(bars).fill(0);
  for (const t of times) counts[Math.min(bars - 1, Math.floor((t / slice.within) * bars))]!++;
  const most = Math.max(1, ...counts);
  return (
    <>
      <div className="row">
        <span className="label">Come</span>
        <Choice
          name="How bodies come"
          value={slice.coming}
          options={[
            {
              value: 'towards',
              label: 'to the middle',
              title: 'Towards the middle of what is seen, where they aim once',
            },
            { value: 'velocity', label: 'evenly', title: 'All at one velocity' },
          ]}
          onChange={(value) => change('change how bodies come', (draft) => void (draft.coming = value))}
        />
      </div>
      <div className="row">
        <Field at={slice.coming === 'towards' ? 'speed' : 'velocity'} />
      </div>
      <div className="row">
        <span className="label">Camera</span>
        {slice.asItMoves ? (
          <span className="text-ink2">{journey ? 'by its track, from now on' : 'stands'}</span>
        ) : (
          <Field at="camera" />
        )}
      </div>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.asItMoves}
          onChange={() =>
            change('have the camera go its own way or evenly', (draft) => void (draft.asItMoves = !draft.asItMoves))
          }
        />
        The camera moves as it does in Motion
      </label>
      <div className="row">
        <Field at="within" />
      </div>
      <p className="verdict-line" data-testid="seen" aria-live="polite">
        {!found
          ? 'Making points…'
          : times.length
            ? `${times.length.toLocaleString('en')} of ${counted(found.seconds.length, 'point', 'points')} are seen within ${figure(slice.within, 0)} s: the first after ${figure(times[0]!, 2)} s, half of those within ${figure(times[times.length >> 1]!, 2)} s.`
            : `None is seen within ${figure(slice.within, 0)} s.`}{' '}
        <WorkingButton of="untilSeen" />
      </p>
      {times.length > 0 && (
        <svg
          className="density"
          width={240}
          height={92}
          role="img"
          aria-label="Points by the second at which they are first seen"
        >
          {counts.map((n, i) => (
            <rect key={i} className="bar" x={i * 10 + 1} y={74 - (70 * n) / most} width={8} height={(70 * n) / most}>
              <title>{`${n} from ${figure((i * slice.within) / bars, 1)} s`}</title>
            </rect>
          ))}
          <path className="density-line" d="M0 74.5H240" />
          <text x={0} y={89}>
            0 s
          </text>
          <text x={240} y={89} textAnchor="end">
            {figure(slice.within, 0)} s
          </text>
        </svg>
      )}
      <p className="text-note leading-4 text-ink2">
        In the pictures: vermilion for those in view, brass for those seen within a quarter of the time, teal for later,
        plum for not within it.
      </p>
    </>
  );
}
