import { Fragment, useEffect, useRef, useState } from 'react';
import { group } from 'd3-array';
import { create } from 'zustand';
import { CheckRow } from '../../sheet/CheckRow';
import { Select } from '../../sheet/Select';
import { endGesture } from '../../state/document';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { change, correct, setText } from './edits';
import { rolesFor, type LogReading, type UsedItem } from '../../../formats/logReading';
import { isBeingRead, readingNow } from './reading';
import { tooDeepText } from '../../../formats/pasted';
import type { DiagnoseState } from './kept';
import { roleWords } from './words';

const byWords: Readonly<Record<UsedItem['item']['by'], string>> = {
  label: 'by the words before it',
  numbers: 'by its numbers',
  place: 'by what it stands beside',
  none: 'nothing says what it is',
};

/** The text with what was read of it lit, beneath the field that it is edited in. */
function LitText({ text, reading, lit }: { text: string; reading: LogReading; lit: number | null }) {
  const spans = [
    ...reading.used.map(({ item, role, why }) => ({ from: item.from, to: item.to, as: role === 'unused' || why ? 'unused' : 'used' })),
    ...reading.left.map(({ from, to }) => ({ from, to, as: 'left' })),
  ].sort((a, b) => a.from - b.from); // prettier-ignore
  const parts = spans.flatMap(({ from, to, as }, i) => {
    const before = text.slice(spans[i - 1]?.to ?? 0, from);
    return [
      before,
      <mark key={from} className={`read-${as}`} data-lit={from === lit || undefined}>
        {text.slice(from, to)}
      </mark>,
    ];
  });
  return (
    <pre className="read-text" aria-hidden>
      {parts}
      {text.slice(spans.at(-1)?.to ?? 0)}
      {'\n'}
    </pre>
  );
}

/** What was read, in a line: “view, projection and 4 points”. */
function summaryOf({ used, given }: LogReading): string {
  const names = used.flatMap(({ item, role, why }) =>
    item.kind === 'matrix' && role !== 'unused' && !why ? [roleWords[role]] : [],
  );
  const points = given?.points?.length ?? 0;
  const all = [...names, ...(points ? [counted(points, 'point', 'points')] : [])];
  return all.length > 1 ? `${all.slice(0, -1).join(', ')} and ${all.at(-1)}` : (all[0] ?? '');
}

/** What of the text is lit from elsewhere: where it begins. */
export const useLit = create<{ lit: number | null }>(() => ({ lit: null }));

/** What was pasted, with what was read of it lit. */
export function Paste() {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  const { slice } = now;
  const reading = readingNow(now);
  const lit = useLit((state) => state.lit);
  const field = useRef<HTMLTextAreaElement>(null);
  const back = useRef<HTMLDivElement>(null);
  const follow = () => {
    if (!field.current || !back.current) return;
    back.current.style.transform = `translate(${-field.current.scrollLeft}px, ${-field.current.scrollTop}px)`;
  };
  useEffect(() => {
    if (lit === null || !field.current) return;
    const line = slice.text.slice(0, lit).split('\n').length;
    field.current.scrollTop = Math.max(0, (line - 3) * 16);
  }, [lit, slice.text]);
  const summary = summaryOf(reading);
  return (
    <>
      <div className="read-field">
        <div ref={back} className="read-back">
          <LitText text={slice.text} reading={reading} lit={lit} />
        </div>
        <textarea
          ref={field}
          aria-label="The engine’s numbers"
          spellCheck={false}
          wrap="off"
          rows={Math.min(9, Math.max(6, slice.text.split('\n').length))}
          placeholder="Paste matrices and points"
          value={slice.text}
          onScroll={follow}
          onChange={({ target }) => setText(target.value, 'diagnose text')}
          onBlur={endGesture}
        />
      </div>
      <p className="text-note leading-4 text-ink2" data-testid="read-left">
        {slice.text.trim() === ''
          ? 'Nothing is pasted yet. Logs, debuggers and source are read: any brackets, rows on lines, initialisers, JSON.'
          : isBeingRead(now)
            ? 'Reading the text…'
            : !summary
              ? 'No matrix and no point is in use: sixteen or twelve numbers of a matrix, or a place in the world and one on the screen.'
              : `Read: ${summary}.${reading.left.length ? ` ${counted(reading.left.length, 'run of numbers is', 'runs of numbers are')} left over, underlined in the text.` : ' Nothing is left over.'}`}
      </p>
      {reading.tooDeepLine !== null && <p className="warning">{tooDeepText(reading.tooDeepLine)}</p>}
    </>
  );
}

/** What one part that was read is, to be corrected. */
function Role({ one }: { one: UsedItem }) {
  const said = one.corrected ? 'as you said' : byWords[one.item.by];
  return (
    <Select
      name={`Line ${one.line} is`}
      value={one.role}
      title={`${one.item.numbers.length} numbers, ${said}${one.item.label ? `: ${one.item.label}` : ''}`}
      options={rolesFor(one.item).map((value) => ({ value, label: roleWords[value] }))}
      onChange={(role) => correct(one.item.from, { role })}
    />
  );
}

/** Lines listed at first, and by each press of the button under them. */
const linesAtATime = 60;

/** What each part of the text was taken for, line by line. */
export function ReadingList() {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  const { slice } = now;
  const reading = readingNow(now);
  const lines = [...group(reading.used, ({ line }) => line)];
  const [shown, setShown] = useState(linesAtATime);
  const light = (from: number | null) => useLit.setState({ lit: from });
  return (
    <>
      {lines.length > 0 && (
        <ul className="readings" aria-label="What was read">
          {lines.slice(0, shown).map(([line, parts]) => (
            <li key={line} onPointerLeave={() => light(null)}>
              <button className="text-button" title="Shows it in the text" onClick={() => light(parts[0]!.item.from)}>
                line {line}
              </button>
              {parts.map((one) => (
                <Fragment key={one.item.from}>
                  <Role one={one} />
                  {one.item.kind === 'matrix' && (
                    <Select
                      name={`Line ${line} was printed`}
                      value={one.turned ? 'turned' : 'listed'}
                      options={[{ value: 'listed', label: 'as listed' }, { value: 'turned', label: 'turned' }]}
                      onChange={(value) => correct(one.item.from, { turned: value === 'turned' })}
                    />
                  )}
                  {one.why && <span className="warning">{one.why}</span>}
                </Fragment>
              ))}
            </li>
          ))}
        </ul>
      )}
      {lines.length > shown && (
        <button className="text-button" onClick={() => setShown(shown + linesAtATime)}>
          Show more: {shown} of {counted(lines.length, 'line', 'lines')} are listed
        </button>
      )}
      <div className="row">
        <span className="label">Trusted</span>
        <Select
          name="Digits that are trusted"
          value={String(slice.digits ?? 'printed')}
          options={[
            { value: 'printed', label: `${reading.digits} digits, as printed` },
            ...[2, 3, 4, 5, 6, 7, 9, 12, 15].map((n) => ({ value: String(n), label: `${n} digits` })),
          ]}
          onChange={(value) =>
            change('set the digits', (draft) => void (draft.digits = value === 'printed' ? null : Number(value)))
          }
        />
      </div>
      <CheckRow
        label="Ask the project’s other cameras too"
        checked={slice.others}
        onChange={(on) => change('ask other cameras', (draft) => void (draft.others = on))}
      />
    </>
  );
} // prettier-ignore
