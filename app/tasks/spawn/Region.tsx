import { radians } from '../../../core/math/angle';
import type { SpawnTermName } from '../../../core/spawn/measures';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { addDisc, change } from './edits';
import { Field } from './fields';
import type { Disc, SpawnState } from './kept';
import { noTermsWords, termsUsed } from './terms';

const termWords: Readonly<Record<SpawnTermName, { readonly name: string; readonly mend: string }>> = {
  bounds: { name: 'bounds', mend: 'The bounds have no area: set them apart.' },
  view: {
    name: 'view and padding',
    mend: 'The view with its padding covers the bounds: widen them, or ask for less padding.',
  },
  discs: { name: 'keep-away discs', mend: 'The discs cover what is left: make them smaller, or take one out.' },
  sector: { name: 'sector', mend: 'Nothing is left in the sector: turn it, or open it.' },
};
interface Row {
  readonly term: SpawnTermName;
  readonly took: number;
  readonly left: number;
}
const columns: readonly ListColumn<Row>[] = [
  { name: 'Term', width: '1fr', value: ({ term }) => termWords[term].name },
  { name: 'took', width: '64px', value: ({ took }) => took, decimals: 0 },
  { name: 'left', width: '64px', value: ({ left }) => left, decimals: 0 },
];

/** Where a body may appear. */
export function Region() {
  const now = useTaskMoment<SpawnState>('spawn');
  const { slice, project } = now;
  const terms = termsUsed(now);
  const lost = typeof terms === 'string' ? null : terms.taken.find(({ left }) => !(left > 0));
  const left = typeof terms === 'string' ? 0 : terms.taken.at(-1)!.left;
  const whole = typeof terms === 'string' ? 0 : terms.taken[0]!.left;
  return (
    <>
      <div className="row">
        <Choice
          name="Within"
          value={slice.region}
          options={[
            { value: 'bounds', label: 'bounds', title: 'A rectangle of the world' },
            { value: 'ring', label: 'a ring', title: 'As far beyond the padding as is said' },
          ]}
          onChange={(value) => change('change the bounds', (draft) => void (draft.region = value))}
        />
        {slice.region === 'ring' && <Field at="ring" />}
      </div>
      {slice.region === 'bounds' && (
        <>
          <div className="row">
            <span className="label">From</span>
            <Field at="min" />
          </div>
          <div className="row">
            <span className="label">To</span>
            <Field at="max" />
          </div>
        </>
      )}
      <div className="row">
        <Field at="padding" />
        <Choice
          name="Padding in"
          value={slice.paddingUnit}
          options={[
            { value: 'world', label: project.unit.slice(0, 6), title: 'World units beyond what is seen' },
            { value: 'pixels', label: 'px', title: 'Pixels beyond the viewport' },
          ]}
          onChange={(value) => change('change the unit of the padding', (draft) => void (draft.paddingUnit = value))}
        />
      </div>
      <div className="row">
        <Field at="radius" />
        <Field at="height" />
      </div>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.sector !== null}
          onChange={() =>
            change(
              'set a sector or none',
              (draft) => void (draft.sector = draft.sector ? null : { heading: 0, half: radians(60) }),
            )
          }
        />
        Only ahead of the motion
      </label>
      {slice.sector && (
        <div className="row">
          <Field at={['sector', 'heading']} />
          <Field at={['sector', 'half']} />
        </div>
      )}
      <Discs />
      {typeof terms === 'string' ? (
        <p className="none" data-testid="region">
          {noTermsWords[terms]}
        </p>
      ) : lost ? (
        <p className="none" data-testid="region">
          No area is left. {termWords[lost.term].mend}
        </p>
      ) : (
        <p className="verdict-line" data-testid="region">
          {Math.round(left).toLocaleString('en')} square {project.unit} are left, {figure((100 * left) / whole, 1)} % of
          the bounds.
        </p>
      )}
      {typeof terms !== 'string' && (
        <DataList name="terms" rows={terms.taken} keyOf={({ term }) => term} columns={columns} />
      )}
    </>
  );
}

const discColumns: readonly ListColumn<Disc>[] = [
  { name: 'Keep away from', width: '1fr', value: ({ name }) => name },
  { name: 'by', width: '56px', value: ({ distance }) => distance, decimals: 1 },
];

/** The discs that nothing may appear in. */
function Discs() {
  const { slice } = useTaskMoment<SpawnState>('spawn');
  return (
    <>
      <div className="rule">
        Keep-away discs{' '}
        <button className="text-button ml-auto" onClick={addDisc}>
          Add one
        </button>
      </div>
      {slice.discs.length > 6 && (
        <DataList name="discs" rows={slice.discs} keyOf={({ id }) => id} columns={discColumns} most={4} />
      )}
      {slice.discs.slice(0, 6).map(({ id, name }, i) => (
        <div key={id}>
          <div className="row">
            <span className="text-ink2">{name}</span>
            <button
              className="text-button ml-auto"
              aria-label={`Delete the disc ${name}`}
              onClick={() => change('delete a disc', (draft) => void draft.discs.splice(i, 1))}
            >
              Delete
            </button>
          </div>
          <div className="row">
            <Field at={['discs', i, 'centre']} name={`Disc ${i + 1} at`} />
          </div>
          <div className="row">
            <Field at={['discs', i, 'distance']} name={`Distance of disc ${i + 1}`} />
          </div>
        </div>
      ))}
    </>
  );
}
