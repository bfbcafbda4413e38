import type { RequestCamera } from '../../../core/request/cameraSchema';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { figure, counted } from '../../ui/figures';
import type { CandidateSaid, Identified } from '../../../formats/diagnosisAnswers';
import { Alone2d } from './Alone2d';
import { change, takeCamera, takeConventions } from './edits';
import { useFound } from './found';
import { supported, supportedAll } from './words';

const axes = ({ right, up, forward }: { right: string; up: string; forward: string }) => `${right} ${up} ${forward}`.replaceAll('-', '−'); // prettier-ignore
const depths = ({ near, far }: { near: number; far: number }) => `${figure(near, 0)}…${figure(far, 0)}`;
/** Which way the numbers are listed. */
const listing = ({ vectors, storage }: { vectors: string; storage: string }) => `${vectors} vectors, ${storage}`;

interface Row {
  readonly key: string;
  readonly place: number;
  readonly one: CandidateSaid;
}
const nearOf = ({ camera }: CandidateSaid): number | null => camera.projection?.near ?? null;
const farOf = ({ camera }: CandidateSaid): number | null =>
  camera.projection ? (camera.projection.far ?? Infinity) : null;
const supportedOrNone = (v: number | null, digits: number | undefined): string =>
  v === null ? '' : v === Infinity ? 'infinite' : supported(v, digits, 4);
const columns: readonly ListColumn<Row>[] = [
  { name: 'view axes', width: '1fr', value: ({ one }) => axes(one.conventions.view) },
  { name: 'NDC', width: '48px', value: ({ one }) => depths(one.conventions.ndc) },
  { name: 'near', width: '56px', value: ({ one }) => supportedOrNone(nearOf(one), one.digits?.['near']) },
  { name: 'far', width: '60px', value: ({ one }) => supportedOrNone(farOf(one), one.digits?.['far']) },
];

const openWords = {
  world: 'the world’s axes',
  view: 'the view’s axes',
  ndc: 'the depths of the NDC',
  matrix: 'the listing',
} as const;

/** What is open, each with the number that would decide it. */
function Open({ open }: Pick<Identified, 'open'>) {
  const valueText = (name: Identified['open'][number]['name'], value: Identified['open'][number]['values'][number]) => name === 'view' || name === 'world' ? axes(value[name] as never) : name === 'ndc' ? depths(value['ndc'] as never) : listing(value['matrix'] as never); // prettier-ignore
  const numberText = (v: number | readonly number[]) => (typeof v === 'number' ? figure(v, 4) : v.map((one) => figure(one, 2)).join(', ')); // prettier-ignore
  return (
    <>
      {open.map(({ name, decides, values }) => (
        <p key={name} className="text-note leading-4" data-open={name}>
          <b>Open: {openWords[name]}.</b> {decides}{' '}
          {values.length === 0
            ? 'Nothing given bears on it.'
            : values.slice(0, 4).map((one) => `${valueText(name, one)}: ${numberText(one.number)}`).join('; ') + (values.length > 4 ? `; and ${values.length - 4} more.` : '.')}
        </p>
      ))}
    </>
  );
} // prettier-ignore

/** The conventions under which the numbers are a proper camera, without one that is meant. */
export function Alone() {
  const { now, found } = useFound();
  if (now.flat) return <Alone2d />;
  const identified = found?.identified;
  if (!identified)
    return (
      <p className="text-note leading-4 text-ink2">
        {found ? 'Points alone say no conventions: paste a matrix.' : 'Paste a matrix, and its conventions are looked for.'}
      </p>
    ); // prettier-ignore
  const { candidates, decided, open } = identified;
  const digits = candidates[0]?.digits ?? {};
  if (!candidates.length)
    return (
      <>
        <p className="verdict-line" data-testid="alone">
          Under no conventions are these numbers a proper camera’s.
        </p>
        <p className="text-note leading-4 text-ink2">
          World axes, view axes, NDC depths and the listing were tried, with the NDC’s y as it is set above.
        </p>
      </>
    );
  const rows = candidates.map((one, place) => ({ key: `${axes(one.conventions.view)} ${depths(one.conventions.ndc)} ${listing(one.conventions.matrix)}`, place, one })); // prettier-ignore
  const chosen = rows[Math.min(now.slice.candidate, rows.length - 1)]!;
  const { conventions, camera } = chosen.one;
  const whole = camera.position && camera.orientation && camera.projection ? (camera as RequestCamera) : null;
  const said = [
    'view' in decided && `view axes ${axes(decided['view'] as never)}`,
    'worldUp' in decided &&
      `world up ${String(decided['worldUp']).replace('-', '−')}, ${String(decided['worldHandedness'])}-handed`,
    'ndc' in decided &&
      `NDC depths ${depths(decided['ndc'] as never)}${(decided['ndc'] as { near: number; far: number }).near > (decided['ndc'] as { far: number }).far ? ', reversed' : ''}`,
    'matrix' in decided && listing(decided['matrix'] as never),
    'position' in decided && `an eye at ${supportedAll(decided['position'] as number[], digits['position'], 6)}`,
    'verticalFov' in decided &&
      `a vertical field of view of ${supported(decided['verticalFov'] as number, digits['verticalFov'])}`,
    'near' in decided && `near at ${supported(decided['near'] as number, digits['near'])}`,
    'far' in decided &&
      `far at ${decided['far'] === null ? 'infinity' : supported(decided['far'] as number, digits['far'])}`,
  ].filter(Boolean);
  return (
    <>
      <p className="verdict-line" data-testid="alone">
        {counted(candidates.length, 'set of conventions makes', 'sets of conventions make')} these numbers a proper
        camera’s.
      </p>
      {said.length > 0 && <p className="text-note leading-4">Decided: {said.join('; ')}.</p>}
      <Open open={open} />
      <DataList
        name="conventions"
        rows={rows}
        keyOf={({ key }) => key}
        columns={columns}
        chosen={chosen.key}
        most={6}
        onChoose={({ place }) => change('choose conventions', (draft) => void (draft.candidate = place))}
      />
      <p className="text-note leading-4 text-ink2">{listing(conventions.matrix)}.</p>
      <div className="row flex-wrap">
        <button className="plain-button" onClick={() => takeConventions(conventions)}>
          Take the conventions
        </button>
        <button
          className="plain-button"
          disabled={!whole}
          title={whole ? '' : 'These numbers hold only a part of a camera'}
          onClick={() => takeCamera(whole!, conventions, 'From the log')}
        >
          Take the camera
        </button>
      </div>
    </>
  );
}
