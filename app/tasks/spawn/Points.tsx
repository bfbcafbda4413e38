import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { change, rollSeed } from './edits';
import { Field } from './fields';
import type { Compared, Found, Lot } from './job';
import type { SpawnState } from './kept';
import { spawnMark } from './terms';

const methodWords: Readonly<Record<Lot['method'], string>> = {
  direct: 'drawn',
  rejection: 'rolled again',
  circle: 'circle',
};
const columns: readonly ListColumn<Lot>[] = [
  { name: 'Points', width: '1fr', value: ({ method }) => methodWords[method] },
  {
    name: 'tries',
    width: '46px',
    value: ({ tries, fates }) =>
      fates.seen + fates.right + fates.wasted ? tries / (fates.seen + fates.right + fates.wasted) : null,
    decimals: 2,
  },
  { name: 'worst', width: '40px', value: ({ worst }) => worst, decimals: 0 },
  { name: 'seen', width: '40px', value: ({ fates }) => fates.seen, decimals: 0 },
  { name: 'waste', width: '40px', value: ({ fates }) => fates.wasted, decimals: 0 },
];

/** What was found of the points as they are now; null while it is being found. */
export function useFound(): Found | null {
  const now = useTaskMoment<SpawnState>('spawn');
  const found = now.answer<Found>('spawned');
  return found?.mark === spawnMark(now) ? found : null;
}

/** The three methods beside one another; null while they are being compared. */
function useCompared(): Compared | null {
  const now = useTaskMoment<SpawnState>('spawn');
  const compared = now.answer<Compared>('compared');
  return compared?.mark === spawnMark(now) ? compared : null;
}

/** The points, by three methods beside one another. */
export function Points() {
  const { slice } = useTaskMoment<SpawnState>('spawn');
  const found = useFound();
  const own = found?.lot ?? null;
  const compared = useCompared();
  const sentence = (): string => {
    if (!found) return 'Making points…';
    if (found.tooMany !== null && slice.method === 'rejection')
      return `Rolling again would take about ${found.tooMany.toExponential(1)} tries: it is not begun. Draw directly, or ask for fewer.`;
    if (!own) return 'There is no area to appear in.';
    if (slice.method === 'circle')
      return `Of ${counted(slice.count, 'point', 'points')} round the player ${own.fates.seen.toLocaleString('en')} pop into view and ${own.fates.wasted.toLocaleString('en')} lie where nothing may appear.`;
    return slice.method === 'direct'
      ? own.fates.seen
        ? `One try a point; ${counted(own.fates.seen, 'is', 'are')} in view, since they appeared before the camera moved.`
        : 'One try a point, and none is seen.'
      : `${figure(own.tries / Math.max(1, slice.count), 2)} tries a point, ${own.worst} for the worst: how long the next takes is nowhere bounded.`;
  };
  return (
    <>
      <div className="row">
        <Field at="count" />
        <Field at="seed" />
      </div>
      <div className="row">
        <Choice
          name="Method"
          value={slice.method}
          options={[
            { value: 'direct', label: 'drawn', title: 'Straight from the region, one try a point' },
            { value: 'rejection', label: 'rolled again', title: 'Over the bounding box, until a point fits' },
            { value: 'circle', label: 'circle', title: 'In a ring about the middle of what is seen' },
          ]}
          onChange={(value) => change('change the method', (draft) => void (draft.method = value))}
        />
        <button className="text-button ml-auto" onClick={rollSeed}>
          Next seed
        </button>
      </div>
      {slice.method === 'circle' && (
        <div className="row">
          <Field at={['circle', 'inner']} />
          <Field at={['circle', 'outer']} />
        </div>
      )}
      <p
        className={slice.method === 'circle' && own?.fates.seen ? 'none' : 'verdict-line'}
        data-testid="points"
        aria-live="polite"
      >
        {sentence()}
      </p>
      <DataList
        name="methods"
        rows={compared?.lots ?? []}
        keyOf={({ method }) => method}
        columns={columns}
        chosen={slice.method}
        onChoose={({ method }) => change('change the method', (draft) => void (draft.method = method))}
        empty="None yet."
      />
      {own?.chi ? (
        <>
          <p className="verdict-line" data-testid="chi">
            χ² = {figure(own.chi.statistic, 1)} for {own.chi.freedom} degrees of freedom:{' '}
            {figure(100 * own.chi.p, own.chi.p < 0.01 ? 4 : 1)} % of even lots lie no more evenly
            {own.chi.p < 0.001 ? ', so these are not even by area.' : '.'}
          </p>
          <Density lot={own} />
        </>
      ) : (
        found && <p className="text-note text-ink2">Fewer than five points to a bin: evenness says nothing.</p>
      )}
    </>
  );
}

/** How many points fell into each of the bins of equal area. */
function Density({ lot }: { lot: Lot }) {
  const { counts } = lot.chi!;
  const bins = Math.round(Math.sqrt(counts.length));
  const expected = counts.reduce((sum, n) => sum + n, 0) / counts.length;
  const side = Math.floor(200 / bins);
  return (
    <svg
      className="density"
      width={side * bins}
      height={side * bins}
      role="img"
      aria-label={`Points in ${counts.length} bins of equal area, ${figure(expected, 1)} to be expected in each`}
    >
      {counts.map((n, i) => {
        const off = (n - expected) / Math.sqrt(expected);
        return (
          <rect
            key={i}
            className={off > 0 ? 'more' : 'fewer'}
            x={side * (i % bins)}
            y={side * Math.floor(i / bins)}
            width={side}
            height={side}
            opacity={Math.min(1, Math.abs(off) / 5)}
          >
            <title>{`${n} where ${figure(expected, 1)} are to be expected`}</title>
          </rect>
        );
      })}
    </svg>
  );
}
