import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import { endGesture } from '../../state/document';
import type { Moment } from '../../state/moment';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { setText } from './edits';
import type { LogReading } from '../../../formats/logReading';
import { isBeingRead, readingNow } from './reading';
import { tooDeepText } from '../../../formats/pasted';
import type { DiagnoseState } from './kept';
import { reading2dNow } from './reading2d';
import { roleWords } from './words';

/** A part of the text, and what came of it. */
interface Span {
  readonly from: number;
  readonly to: number;
  readonly as: 'used' | 'unused' | 'left';
}
const asOf = (role: string, why: string | null): Span['as'] => (role === 'unused' || why ? 'unused' : 'used');
const spansOf = ({ used, left }: LogReading): readonly Span[] =>
  [
    ...used.map(({ item: { from, to }, role, why }): Span => ({ from, to, as: asOf(role, why) })),
    ...left.map(({ from, to }): Span => ({ from, to, as: 'left' })),
  ].sort((a, b) => a.from - b.from);

/** The text with what was read of it lit, beneath the field that it is edited in. */
function LitText({ text, spans, lit }: { text: string; spans: readonly Span[]; lit: number | null }) {
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

/** Summarises the reading: “world to pixel and 4 points”. */
function summary2d(now: Moment<DiagnoseState>): string {
  const { given } = reading2dNow(now);
  const all = [
    ...(given?.worldToPixel ? [roleWords.worldToPixel] : []),
    ...(given?.pixelToWorld ? [roleWords.pixelToWorld] : []),
    ...(given?.points ? [counted(given.points.length, 'point', 'points')] : []),
  ];
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
  const reading2d = now.flat ? reading2dNow(now) : null;
  const is2d = Boolean(reading2d?.given);
  const spans = is2d
    ? reading2d!.items.map(({ from, to, role, why }): Span => ({ from, to, as: asOf(role, why) }))
    : spansOf(reading);
  const summary = is2d ? summary2d(now) : summaryOf(reading);
  const left = is2d ? 0 : reading.left.length;
  return (
    <>
      <div className="read-field">
        <div ref={back} className="read-back">
          <LitText text={slice.text} spans={spans} lit={lit} />
        </div>
        <textarea
          ref={field}
          aria-label="The engine’s numbers"
          spellCheck={false}
          wrap="off"
          rows={Math.min(24, Math.max(14, slice.text.split('\n').length))}
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
              ? now.flat
                ? 'No matrix and no point was read: a matrix of 2 × 3, 3 × 3 or 4 × 4 numbers, or world x, y with pixel x, y.'
                : 'No matrix and no point is in use: sixteen or twelve numbers of a matrix, or a place in the world and one on the screen.'
              : `Read: ${summary}.${left ? ` ${counted(left, 'run of numbers is', 'runs of numbers are')} left over, underlined in the text.` : is2d ? '' : ' Nothing is left over.'}`}
      </p>
      {reading.tooDeepLine !== null && <p className="warning">{tooDeepText(reading.tooDeepLine)}</p>}
    </>
  );
}
