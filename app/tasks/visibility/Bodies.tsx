import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { counted, figure } from '../../ui/figures';
import { Glyph } from '../../ui/Glyph';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { Field } from './fields';
import { marginFits, seenNow, shortcutNow, shownVerdict, type Seen } from './seen';
import type { VisibilityState } from './kept';

interface Row extends Seen {
  readonly name: string;
  readonly shown: Seen['verdict'];
}

/** Every body against the frustum: its verdict, the plane that says most, how far it is clear. */
export function Bodies() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { slice, project, flat } = now;
  const names = new Map(project.bodies.map(({ id, name }) => [id, name]));
  const rows = seenNow(now).map((one): Row => ({
    ...one,
    name: names.get(one.id) ?? one.id,
    shown: shownVerdict(slice, one),
  }));
  const count = (verdict: Seen['verdict']) => rows.filter(({ shown }) => shown === verdict).length;
  const alarms = rows.filter(({ falseAlarm }) => falseAlarm).length;
  const columns: readonly ListColumn<Row>[] = [
    {
      ...{ name: 'Body', width: '1fr', value: ({ name }: Row) => name },
      show: ({ name, shown, falseAlarm }) => (
        <span className={`verdict-name${slice.method === 'planes' && falseAlarm ? ' alarm' : ''}`}>
          <Glyph kind={shown} size={9} /> {name}
        </span>
      ),
    },
    { name: 'plane', width: '50px', value: ({ clearance }) => clearance?.plane ?? null },
    { name: 'clear by', width: '62px', value: ({ clearance }) => clearance?.by ?? null },
  ];
  return (
    <>
      <div className="row">
        <span className="label">Test</span>
        <Choice
          name="Test"
          value={slice.method}
          options={[
            { value: 'exact', label: 'exact', title: 'Outside only where no point is in common' },
            {
              value: 'planes',
              label: 'planes',
              title: 'The customary test: outside where all of it is beyond one plane',
            },
          ]}
          onChange={(method) => change('change the test', (draft) => void (draft.method = method))}
        />
      </div>
      <div className="row">
        <span className="label">Margin</span>
        <Field at="margin" width={104} />
        <span className="text-ink2">outward, every side</span>
      </div>
      {!marginFits(now) && (
        <p className="warning">So much inward leaves nothing of the viewport; it is left out. Raise it.</p>
      )}
      <div className="verdict-counts" role="group" aria-label="Verdicts">
        {(['inside', 'crosses', 'outside'] as const).map((verdict) => (
          <span key={verdict}>
            <b>
              <Glyph kind={verdict} size={13} /> <output data-testid={`count-${verdict}`}>{count(verdict)}</output>
            </b>
            {verdict}
          </span>
        ))}
      </div>
      <p className="text-note leading-4 text-ink2" data-testid="alarms">
        {alarms
          ? `${counted(alarms, 'body is a false alarm', 'bodies are false alarms')} of the planes: kept, though nothing of ${alarms === 1 ? 'it' : 'them'} is in the frustum.`
          : 'The planes give no false alarm here.'}
      </p>
      <DataList
        name="bodies"
        rows={rows}
        keyOf={({ id }) => id}
        columns={columns}
        verdictOf={({ shown }) => shown}
        bodiesOf={({ id }) => [id]}
        most={12}
        empty="There are no bodies."
      />
      <Shortcut />
      {flat && <p className="text-note leading-4 text-ink2">On a flat world near and far play no part.</p>}
    </>
  );
}

interface Wrong {
  readonly id: string;
  readonly name: string;
  readonly verdict: string;
}
const wrongColumns: readonly ListColumn<Wrong>[] = [
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'the shortcut', width: '90px', value: ({ verdict }) => verdict },
];

/** A customary shortcut held against what is so. */
function Shortcut() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { slice, project } = now;
  const found = shortcutNow(now);
  const names = new Map(project.bodies.map(({ id, name }) => [id, name]));
  const wrong = found
    .filter(({ verdict }) => verdict !== 'right')
    .map(({ body, verdict }): Wrong => ({ id: body, name: names.get(body) ?? body, verdict }));
  const missed = wrong.filter(({ verdict }) => verdict === 'missed').length;
  return (
    <>
      <div className="rule">A shortcut instead</div>
      <div className="row">
        <Choice
          name="Shortcut"
          value={slice.shortcut}
          options={[
            { value: 'centre', label: 'centre', title: 'Seen where its middle is on the screen' },
            { value: 'sphere', label: 'sphere', title: 'Seen where a sphere about it is not beyond a plane' },
            { value: 'corners', label: 'corners', title: 'Seen where a corner of its box is on the screen' },
          ]}
          onChange={(value) => change('change the shortcut', (draft) => void (draft.shortcut = value))}
        />
        {slice.shortcut === 'sphere' && <Field at="factor" width={64} />}
      </div>
      <p className="verdict-line" data-testid="shortcut">
        {wrong.length
          ? `Right for ${(found.length - wrong.length).toLocaleString('en')}; ${counted(missed, 'missed', 'missed')}, ${counted(wrong.length - missed, 'false alarm', 'false alarms')}.`
          : `Right for all ${found.length.toLocaleString('en')} here.`}
      </p>
      {wrong.length > 0 && (
        <DataList
          name="wrong by the shortcut"
          rows={wrong}
          keyOf={({ id }) => id}
          columns={wrongColumns}
          verdictOf={({ verdict }) => verdict}
          bodiesOf={({ id }) => [id]}
          most={6}
        />
      )}
      <div className="row">
        <WorkingButton of="clearance" label="Working" />
        <span className="text-ink2">of the probed body’s clearance</span>
      </div>
    </>
  );
}

/** A length with its unit for a sentence. */
export const measured = (v: number, unit: string): string => `${figure(v, 2)} ${unit}`;
