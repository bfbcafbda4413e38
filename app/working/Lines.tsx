import 'katex/dist/katex.min.css';
import katex from 'katex';
import { use, useLayoutEffect, useRef, type KeyboardEvent, type MouseEvent } from 'react';
import { useNavigate } from 'react-router';
import { useMoment } from '../state/tempo';
import { linesOf, shortDigits } from './lines';
import { workingBuilder } from './registry';
import type { Subject, WorkingBuilder } from './builder';
import { goToSource, sourceName } from './sources';
import { typesetter, type Line } from './tex';

/** A formula, its numbers links to where they come from. */
function Formula({ line, rows }: { line: Line; rows: boolean }) {
  const element = useRef<HTMLDivElement>(null);
  const { name, formula, result } = line;
  const t = typesetter(shortDigits, rows);
  const cells = result.map((v) => t.number(v));
  const right = cells.length === 1 ? cells[0]! : cells.length === 9 ? t.grid(cells) : t.vector(cells);
  const tex = `${name}=${formula}=\\mathbf{${right}}`;
  useLayoutEffect(() => {
    katex.render(tex, element.current!, { trust: true, strict: false, throwOnError: false, displayMode: true });
    for (const link of element.current!.querySelectorAll<HTMLElement>('[data-from]')) {
      link.tabIndex = 0;
      link.setAttribute('role', 'link');
      link.title = `Go to ${sourceName(link.dataset.from!)}`;
      link.setAttribute('aria-label', `${link.textContent}, from ${sourceName(link.dataset.from!)}`);
    }
  }, [tex]);
  return <div className="formula" ref={element} />;
}

const ofMatrices: ReadonlySet<string> = new Set(['screen', 'edge', 'normal', 'between']);

/** Fetched once each. */
const builders = new Map<string, Promise<WorkingBuilder>>();
function builderOf(of: string): Promise<WorkingBuilder> {
  const known = builders.get(of) ?? workingBuilder(of);
  builders.set(of, known);
  return known;
}

/** A working, line by line, following the document while it is open. */
export default function Lines({
  of,
  subject,
  close,
}: {
  of: string;
  subject?: Subject | undefined;
  close: () => void;
}) {
  const moment = useMoment();
  const navigate = useNavigate();
  const build = use(builderOf(of));
  const lines = linesOf(build, moment, shortDigits, subject);
  const { matrix } = moment.codec.conventions;
  const follow = (target: EventTarget, list: HTMLElement) => {
    const from = (target as HTMLElement).closest<HTMLElement>('[data-from]')?.dataset.from;
    if (!from) return;
    if (!from.startsWith('line-')) {
      close();
      goToSource(from, navigate);
      return;
    }
    const line = list.querySelector<HTMLElement>(`[data-line^="${from}"]`);
    line?.scrollIntoView({ block: 'nearest' });
    line?.focus();
  };
  return (
    <div
      className="working-lines"
      onClick={(event: MouseEvent<HTMLDivElement>) => follow(event.target, event.currentTarget)}
      onKeyDown={(event: KeyboardEvent<HTMLDivElement>) => {
        if (event.key === 'Enter') follow(event.target, event.currentTarget);
      }}
    >
      <p>
        {ofMatrices.has(of) &&
          (matrix.vectors === 'row' ? 'Rows multiply from the left. ' : 'Columns multiply from the right. ')}
        Every number is a link to where it is set.
      </p>
      {lines.map((line) => (
        <div key={line.id} data-line={line.id} tabIndex={-1}>
          {line.says && <h4>{line.says}</h4>}
          <Formula line={line} rows={matrix.vectors === 'row'} />
        </div>
      ))}
      {!lines.length && <p>There is nothing to work out here: the question has no answer.</p>}
    </div>
  );
}
