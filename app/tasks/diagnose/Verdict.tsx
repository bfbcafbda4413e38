import { downstream, givenNames, placesOf } from '../../../core/diagnose/faults';
import { mendCode } from '../../../core/diagnose/mendCode';
import { CheckRow } from '../../sheet/CheckRow';
import { DataList, type ListColumn } from '../../sheet/DataList';
import type { Moment } from '../../state/moment';
import { counted, figure, plain } from '../../ui/figures';
import { copy } from '../../ui/notices';
import { WorkingButton } from '../../working/WorkingButton';
import type { Explained, Said } from '../../../formats/diagnosisAnswers';
import { addReadCamera } from '../../edits/addedCameras';
import { change } from './edits';
import { readFrame } from './engine';
import { useFound } from './found';
import { setsOf } from './foundNow';
import { isBeingRead, readingNow } from './reading';
import type { DiagnoseState } from './kept';
import { supported, supportedAll, supportedEach } from './words';
import { lazyPart } from '../../ui/lazyPart';

const Verdict2d = lazyPart(() => import('./Verdict2d').then((module) => module.Verdict2d));
import { faultSetText, faultText, givenText, verdictText } from '../../../formats/diagnosisText';

/** The lines of code that mend a set of faults, in the conventions in force. */
function linesOf(now: Moment<DiagnoseState>, set: readonly Said[]) {
  const reading = readingNow(now);
  const given = Object.keys(reading.given ?? {});
  return set.flatMap(({ where, fault }) => {
    if (fault === 'otherCamera' || fault === 'differs') return [];
    // Where it is committed: the thing it is said of, or what that is made of.
    const places = placesOf(fault);
    const place = where === 'matrices' ? where : (places.find((one) => one === where) ?? places.find((one) => !given.includes(one) && downstream[one].includes(where)) ?? where); // prettier-ignore
    return [mendCode(fault, now.codec, { place, perspective: now.frame.kind === 'perspective' })];
  });
}

interface Row {
  readonly key: string;
  readonly set: readonly Said[];
  readonly place: number;
}
const columns: readonly ListColumn<Row>[] = [
  { name: 'Explained alike by', width: '1fr', value: ({ set }) => faultSetText(set) },
  { name: 'as', width: '44px', value: ({ place }) => (place === 0 ? 'first' : 'equal') },
];

interface Difference {
  readonly name: string;
  readonly intended: unknown;
  readonly given: unknown;
  readonly digits?: number | undefined;
}
/** The differences of a camera, an orientation as its angles. */
const differencesOf = ({ what = [] }: Said): readonly Difference[] =>
  what.flatMap((one): Difference[] => {
    if (one.name !== 'orientation') return [one];
    const [intended, given] = [one.intended, one.given] as [Record<string, number>, Record<string, number>];
    const names = Object.keys(intended);
    // All three angles come of the same axes: they are known to the place of the largest.
    const texts = supportedEach(Object.values(given), one.digits, 5);
    return names.map((name, i) => ({ name, intended: intended[name], given: texts[i] }));
  });
/** A number or coordinates, to the figures that their source supports; a text as it is. */
function valueText(v: unknown, digits?: number): string {
  if (v === null) return 'infinite';
  if (typeof v === 'string') return v;
  return Array.isArray(v) ? supportedAll(v as number[], digits, 6) : supported(v as number, digits, 6);
}

function Differences({ said }: { said: Said }) {
  return (
    <DataList
      name="differences"
      rows={differencesOf(said)}
      keyOf={({ name }) => name}
      columns={[
        { name: 'What', width: '84px', value: ({ name }) => name },
        { name: 'meant', width: '1fr', value: ({ intended }) => valueText(intended) },
        { name: 'given', width: '1fr', value: ({ given, digits }) => valueText(given, digits) },
      ]}
    />
  );
}

function Explanation({ now, one }: { now: Moment<DiagnoseState>; one: Explained }) {
  const sets = setsOf(one);
  const chosen = Math.min(now.slice.chosen, sets.length - 1);
  const set = sets[chosen]!;
  const rows = sets.map((own, place) => ({ set: own, place, key: faultSetText(own) }));
  const code = linesOf(now, set);
  const decides = chosen > 0 ? one.decides[chosen - 1] : one.decides.find(Boolean);
  const other = chosen > 0 ? sets[0]! : sets[1];
  return (
    <>
      <ul className="faults" aria-label="What is wrong">
        {set.map((said) => (
          <li key={faultSetText([said])}>
            <b>{givenText[said.where]}</b> {faultText(said)}
          </li>
        ))}
      </ul>
      {sets.length > 1 && (
        <DataList
          name="explanations"
          rows={rows}
          keyOf={({ key }) => key}
          columns={columns}
          chosen={rows[chosen]!.key}
          most={5}
          onChoose={({ place }) => change('choose an explanation', (draft) => void (draft.chosen = place))}
        />
      )}
      <p className="text-note leading-4" data-testid="mend">
        {one.mend}
      </p>
      {set[0]!.fault === 'differs' && <Differences said={set[0]!} />}
      {code.length > 0 && (
        <>
          <div className="rule">
            As code{' '}
            <button className="text-button ml-auto" onClick={() => void copy(code.flatMap(({ right }) => right).join('\n'), 'the mended lines')}>
              Copy
            </button>
          </div>
          <pre className="code-lines" data-testid="mend-code" tabIndex={0}>
            {code.map(({ wrong, right }, i) => (
              <span key={i}>
                {wrong.map((line) => <del key={line}>{`− ${line}\n`}</del>)}
                {right.map((line) => <ins key={line}>{`+ ${line}\n`}</ins>)}
              </span>
            ))}
          </pre>
        </>
      )}
      {sets.length > 1 && other && (
        <p className="text-note leading-4 text-ink2" data-testid="decides">
          {decides && decides.where !== null
            ? `What would decide: the ${givenText[decides.where]}, row ${decides.row + 1}, column ${decides.column + 1}. It is ${figure(decides.values[0], 4)} by “${faultSetText(sets[0]!)}” and ${figure(decides.values[1], 4)} by “${faultSetText(chosen > 0 ? set : other)}”.`
            : 'No other matrix of this camera tells these apart: they are the same numbers throughout.'}
        </p>
      )}
      <p className="text-note leading-4 text-ink2">
        {figure(100 * (1 - one.likelihood), 0)} % is left to what is not known here.
      </p>
    </>
  );
} // prettier-ignore

/** The verdict, what explains the numbers, and the mend. */
export function Verdict() {
  const { now, found } = useFound();
  const reading = readingNow(now);
  if (now.flat) return <Verdict2d />;
  if (now.seen.problems.length) return <p className="warning">The camera cannot be, so nothing can be held against it: {now.seen.problems[0]!.message}</p>; // prettier-ignore
  if (isBeingRead(now)) return <p className="verdict-line">Reading the text…</p>;
  if (!reading.given) return <p className="text-note leading-4 text-ink2">Paste something first: a matrix, or points with where they came to.</p>; // prettier-ignore
  if (!found) return <p className="verdict-line">Searching…</p>;
  if (!found.diagnosed)
    return <p className="warning">{found.problems.map(({ message }) => message).join(' ')}</p>;
  const { diagnosed } = found;
  const [first, turned] = diagnosed.explanations;
  const right = () => {
    const { codec: e, frame } = now;
    const names = givenNames.filter((name) => name !== 'points' && reading.given?.[name]) as ('view' | 'projection')[];
    return names.map((name) => `${name} ${e.toList(e.matrix(frame, name)).map(plain).join(' ')}`).join('\n');
  };
  // Numbers of another camera need no mend: they are that one’s.
  const other = first?.faults.some(({ fault }) => fault === 'otherCamera' || fault === 'differs') ?? false;
  const mended = diagnosed.verdict === 'unexplained' ? null : other ? readFrame(now) : now.frame;
  return (
    <>
      <div className="result" data-verdict={diagnosed.verdict}>
        <p className="verdict-line" data-testid="diagnosis">
          {verdictText(diagnosed, figure)} <WorkingButton of="off" />
        </p>
      </div>
      {now.journey && (
        <p className="text-note leading-4 text-ink2" data-testid="compared-at">
          Compared with the camera at {figure(now.time, 2)} s.
        </p>
      )}
      {first && <Explanation now={now} one={first} />}
      {turned && (
        <p className="text-note leading-4" data-testid="other-listing">
          The print does not tell rows from columns. With the matrices listed the other way, as many faults explain the
          numbers: {faultSetText(turned.faults)}.
        </p>
      )}
      <CheckRow
        label="The engine’s picture over the right one"
        checked={now.slice.over}
        onChange={(on) => change('draw the engine’s picture', (draft) => void (draft.over = on))}
      />
      <div className="row flex-wrap">
        <button className="plain-button" onClick={() => void copy(right(), 'the right numbers')}>
          Copy the right numbers
        </button>
        <button
          className="plain-button"
          disabled={!mended}
          title={mended ? '' : 'These numbers are not those of a camera that a project could have'}
          onClick={() => addReadCamera(mended!, other ? 'As the engine has it' : 'Mended')}
        >
          {other ? 'Take the engine’s camera' : 'Take the mended camera'}
        </button>
      </div>
      <p className="text-note leading-4 text-ink2" data-testid="search-time">
        Searched in {figure(found.milliseconds, 0)} ms, of {counted(reading.used.filter(({ role, why }) => role !== 'unused' && !why).length, 'thing', 'things')} that were read.
      </p>
    </>
  );
} // prettier-ignore
