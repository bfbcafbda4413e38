import { useRef, useState } from 'react';
import { endGesture } from '../../state/document';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { change, correct, setText } from './edits';
import { digitsNow, readingNow, rolesFor, type Reading, type Used } from './reading';
import type { DiagnoseState } from './state';
import { roleWords } from './words';

const byWords: Readonly<Record<Used['item']['by'], string>> = {
  label: 'by the words before it',
  numbers: 'by its numbers',
  place: 'by what it stands beside',
  none: 'nothing says what it is',
};

/** The text with what was read of it lit, beneath the field that it is edited in. */
function LitText({ text, reading, lit }: { text: string; reading: Reading; lit: number | null }) {
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

/** What was pasted, and what each part of it was taken for. */
export function Paste() {
  const now = useTaskMoment<DiagnoseState>('diagnose');
  const { slice } = now;
  const reading = readingNow(now);
  const [lit, setLit] = useState<number | null>(null);
  const field = useRef<HTMLTextAreaElement>(null);
  const back = useRef<HTMLDivElement>(null);
  const follow = () => {
    if (!field.current || !back.current) return;
    back.current.style.transform = `translate(${-field.current.scrollLeft}px, ${-field.current.scrollTop}px)`;
  };
  const light = (one: Used) => {
    setLit(one.item.from);
    if (field.current) field.current.scrollTop = Math.max(0, (one.line - 3) * 16);
  };
  const digits = digitsNow(now, reading);
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
          rows={Math.min(14, Math.max(6, slice.text.split('\n').length))}
          placeholder="Paste matrices and points as they come out of a log, a debugger or source."
          value={slice.text}
          onScroll={follow}
          onChange={({ target }) => setText(target.value, 'diagnose text')}
          onBlur={endGesture}
        />
      </div>
      {reading.used.length > 0 && (
        <ul className="readings" aria-label="What was read">
          {reading.used.map((one) => (
            <li key={one.item.from} onFocus={() => light(one)} onPointerEnter={() => setLit(one.item.from)} onPointerLeave={() => setLit(null)}>
              <button className="text-button" title={one.item.label || 'Shows it in the text'} onClick={() => light(one)}>
                line {one.line}
              </button>
              <select
                className="select"
                aria-label={`Line ${one.line} is`}
                value={one.role}
                title={one.corrected ? 'as you said' : byWords[one.item.by]}
                onChange={({ target }) => correct(one.item.from, { role: target.value as Used['role'] })}
              >
                {rolesFor(one.item).map((role) => (
                  <option key={role} value={role}>
                    {roleWords[role]}
                  </option>
                ))}
              </select>
              {one.item.kind === 'matrix' ? (
                <select
                  className="select"
                  aria-label={`Line ${one.line} was printed`}
                  value={one.turned ? 'turned' : 'listed'}
                  onChange={({ target }) => correct(one.item.from, { turned: target.value === 'turned' })}
                >
                  <option value="listed">as listed</option>
                  <option value="turned">the other way</option>
                </select>
              ) : (
                <span className="text-ink2">{counted(one.item.numbers.length, 'number', 'numbers')}</span>
              )}
              {one.why && <span className="warning">{one.why}</span>}
            </li>
          ))}
        </ul>
      )}
      <p className="text-note leading-4 text-ink2" data-testid="read-left">
        {slice.text.trim() === ''
          ? 'Nothing is pasted yet. Any brackets, rows on lines, initialisers, JSON and log lines are read.'
          : reading.used.length === 0
            ? 'No matrix and no point is in this text: sixteen or twelve numbers of a matrix, or a place in the world and one on the screen.'
            : reading.left.length
              ? `${counted(reading.left.length, 'run of numbers is', 'runs of numbers are')} left over, underlined in the text.`
              : 'Nothing is left over.'}
      </p>
      <div className="row">
        <span className="label">Trusted</span>
        <select
          className="select"
          aria-label="Digits that are trusted"
          value={slice.digits ?? 'printed'}
          onChange={({ target }) =>
            change('set the digits', (draft) => {
              draft.digits = target.value === 'printed' ? null : Number(target.value);
            })
          }
        >
          <option value="printed">{reading.digits} digits, as printed</option>
          {[2, 3, 4, 5, 6, 7, 9, 12, 15].map((n) => (
            <option key={n} value={n}>
              {n} digits
            </option>
          ))}
        </select>
        <span className="sr-only" data-testid="digits">{digits}</span>
      </div>
      <div className="row check">
        <label className="check">
          <input
            type="checkbox"
            checked={slice.others}
            onChange={({ target }) => change('ask other cameras', (draft) => void (draft.others = target.checked))}
          />
          It may have used another camera of the project
        </label>
      </div>
    </>
  );
} // prettier-ignore
