import { affineList, affineOf, invertAffine } from '../../../core/request/affine2d';
import { Select } from '../../sheet/Select';
import { DataList } from '../../sheet/DataList';
import { CheckRow } from '../../sheet/CheckRow';
import type { Diagnosed2d } from '../../../formats/diagnosisAnswers';
import { fault2dText, givenText2d, verdict2dText } from '../../../formats/diagnosisText';
import { roles2d } from '../../../formats/pasted2d';
import { camera2dNow } from '../../state/cameraNow';
import { useTaskMoment } from '../../state/tempo';
import { figure, plain } from '../../ui/figures';
import { angleSuffix } from '../../ui/angles';
import { copy } from '../../ui/notices';
import { change, correct } from './edits';
import { useFound } from './found';
import type { DiagnoseState } from './kept';
import { reading2dNow } from './reading2d';
import { ReadingSettings } from './ReadingSettings';
import { roleWords, significant } from './words';

/* What the sheet shows of the numbers of a 2D camera. */

type Explained2d = Diagnosed2d['explanations'][number];

function Explanation2d({ one }: { one: Explained2d }) {
  return (
    <>
      <ul className="faults" aria-label="What is wrong">
        {one.faults.map((fault) => (
          <li key={`${fault.where} ${fault.fault}`}>
            <b>{givenText2d(fault.where)}</b> {fault2dText(fault)}
          </li>
        ))}
      </ul>
      <p className="text-note leading-4" data-testid="mend">
        {one.mend}
      </p>
      {one.faults[0]?.what && (
        <DataList
          name="differences"
          rows={one.faults[0].what}
          keyOf={({ name }) => name}
          columns={[
            { name: 'Number', width: '84px', value: ({ name }) => name },
            { name: 'intended', width: '1fr', value: ({ intended }) => numberText(intended) },
            { name: 'given', width: '1fr', value: ({ given }) => numberText(given) },
          ]}
        />
      )}
      {one.equivalent.length > 0 && (
        <p className="text-note leading-4 text-ink2">
          The same numbers also come from:{' '}
          {one.equivalent.map((set) => set.map((fault) => `${givenText2d(fault.where)}: ${fault2dText(fault)}`).join(', ')).join('; ')}.
        </p>
      )}
    </>
  );
} // prettier-ignore

const numberText = (v: unknown): string =>
  typeof v === 'boolean' ? (v ? 'yes' : 'no') : Array.isArray(v) ? (v as number[]).map((one) => significant(one)).join(', ') : significant(v as number); // prettier-ignore

/** The verdict on the numbers of a 2D camera, and the fix. */
export function Verdict2d() {
  const { now, found } = useFound();
  const { given } = reading2dNow(now);
  if (now.seen.problems.length) return <p className="warning">The camera is invalid, so there is nothing to compare with: {now.seen.problems[0]!.message}</p>; // prettier-ignore
  if (!given) return <p className="text-note leading-4 text-ink2">Paste a matrix of 2 × 3, 3 × 3 or 4 × 4 numbers, or world points with their pixels.</p>; // prettier-ignore
  if (!found) return <p className="verdict-line">Searching…</p>;
  const { diagnosed2d } = found;
  if (!diagnosed2d) return <p className="warning">{found.problems.map(({ message }) => message).join(' ')}</p>;
  const right = () => {
    const { codec } = now;
    const worldToPixel = affineOf(camera2dNow(now), codec);
    const matrices = { worldToPixel, pixelToWorld: invertAffine(worldToPixel) };
    return Object.entries(matrices)
      .flatMap(([name, of]) => (of ? [`${name} ${affineList(of, codec.listsColumns).map(plain).join(' ')}`] : []))
      .join('\n');
  };
  return (
    <>
      <div className="result" data-verdict={diagnosed2d.verdict}>
        <p className="verdict-line" data-testid="diagnosis">
          {verdict2dText(diagnosed2d, figure)}
        </p>
      </div>
      {diagnosed2d.explanations[0] && <Explanation2d one={diagnosed2d.explanations[0]} />}
      <CheckRow
        label="The engine’s picture over the right one"
        checked={now.slice.over}
        onChange={(on) => change('draw the engine’s picture', (draft) => void (draft.over = on))}
      />
      <div className="row flex-wrap">
        <button className="plain-button" onClick={() => void copy(right(), 'the right numbers')}>
          Copy the right numbers
        </button>
      </div>
    </>
  );
}

/** What each part of the text was read as, to be corrected. */
export function ReadingList2d() {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  const { items, digits } = reading2dNow(now);
  return (
    <>
      {items.length > 0 && (
        <ul className="readings" aria-label="What was read">
          {items.slice(0, 60).map((one) => (
            <li key={one.from}>
              <span className="text-ink2">line {one.line}</span>
              <span className="col-span-2">
                <Select
                  name={`Line ${one.line} is`}
                  value={one.role}
                  title={`${one.numbers.length} numbers${one.label ? `: ${one.label}` : ''}`}
                  options={roles2d
                    .filter((role) => role === 'unused' || (role === 'point') === (one.kind === 'point'))
                    .map((value) => ({ value, label: roleWords[value] }))}
                  onChange={(role) => correct(one.from, { role })}
                />
              </span>
              {one.why && <span className="warning">{one.why}</span>}
            </li>
          ))}
        </ul>
      )}
      <ReadingSettings digits={digits} slice={now.slice} />
    </>
  );
}

/** The numbers of a 2D camera that the pasted ones hold. */
export function ReadOff2d() {
  const { now, found } = useFound();
  const decomposed = found?.diagnosed2d?.decomposed;
  if (!decomposed)
    return (
      <p className="text-note leading-4 text-ink2">
        Paste a matrix, or three points with their pixels, and the numbers of its camera are read off it.
      </p>
    );
  if (!('focus' in decomposed)) return <p className="text-note leading-4 text-ink2">These numbers are no mapping.</p>;
  const { zoom, isUniform, rotation, mirrored, focus } = decomposed;
  const rows = [
    { name: 'zoom', value: `${significant(zoom, 6)} px per unit${isUniform ? '' : ', not the same along both axes'}` },
    { name: 'rotation', value: `${significant(rotation, 6)}${angleSuffix(now.codec)}` },
    { name: 'mirrored', value: mirrored ? 'yes: one axis is flipped' : 'no' },
    { name: 'focus', value: `${significant(focus[0], 6)}, ${significant(focus[1], 6)}` },
  ];
  return (
    <>
      <DataList
        name="camera that was read"
        rows={rows}
        keyOf={({ name }) => name}
        columns={[
          { name: 'Read', width: '92px', value: ({ name }) => name },
          { name: 'value', width: '1fr', value: ({ value }) => value },
        ]}
        most={8}
      />
      <p className="text-note leading-4 text-ink2">
        The focus is the world point at this camera’s anchor. The numbers do not tell which of focus and anchor an engine has changed.
      </p>
    </>
  );
} // prettier-ignore
