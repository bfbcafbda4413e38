import './DataList.css';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { useSelection } from '../state/selection';
import { useMoment } from '../state/tempo';
import { figure, plain } from '../ui/figures';
import { saveFile } from '../ui/files';
import { copy } from '../ui/notices';
import { tableText } from './tableText';

/** A column of a list. */
export interface ListColumn<Row> {
  readonly name: string;
  /** What it is sorted and saved by. */
  readonly value: (row: Row) => string | number | null;
  /** How it is shown, if not as that: numbers with so many decimals. */
  readonly decimals?: number;
  readonly show?: (row: Row) => ReactNode;
  /** Of the grid: `1fr`, `60px`. */
  readonly width: string;
}

interface Props<Row> {
  /** What the list is of, as in “Copy the …”. */
  readonly name: string;
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  readonly columns: readonly ListColumn<Row>[];
  /** By which the rows can be filtered, each with its own word. */
  readonly verdictOf?: (row: Row) => string;
  /** The bodies that a row is about, by their ids: selected with it, and lighting it. */
  readonly bodiesOf?: (row: Row) => readonly string[];
  /** What choosing a row does beside. */
  readonly onChoose?: (row: Row) => void;
  readonly chosen?: string | null;
  /** Said where there are no rows. */
  readonly empty?: string;
  /** The most rows that are shown before the list scrolls. */
  readonly most?: number;
}

const rowHeight = 20;

/**
 * A list of a worksheet: sorted by its heads, filtered by verdict, walked with the arrow keys,
 * copied and saved; a row that is about bodies selects them, and is lit when they are selected
 * elsewhere.
 */
export function DataList<Row>({
  name,
  rows,
  keyOf,
  columns,
  verdictOf,
  bodiesOf,
  onChoose,
  chosen = null,
  empty = 'None.',
  most = 8,
}: Props<Row>) {
  const { roots } = useMoment();
  const ids = useSelection((state) => state.ids);
  const [sort, setSort] = useState<{ column: number; down: boolean } | null>(null);
  const [only, setOnly] = useState<string | null>(null);
  const [at, setAt] = useState(0);
  const scroller = useRef<HTMLDivElement>(null);
  const verdicts = useMemo(
    () => (verdictOf ? [...new Set(rows.map((row) => verdictOf(row)))].sort() : []),
    [rows, verdictOf],
  );
  // A verdict that no row has any more filters nothing.
  const filter = only !== null && verdicts.includes(only) ? only : null;
  const shown = useMemo(() => {
    const kept = filter !== null && verdictOf ? rows.filter((row) => verdictOf(row) === filter) : rows;
    const by = sort && columns[sort.column];
    if (!by) return kept;
    const sign = sort.down ? -1 : 1;
    return kept
      .map((row) => ({ row, value: by.value(row) }))
      .sort(({ value: a }, { value: b }) => {
        if (a === b) return 0;
        // What has no value stands last either way.
        if (a === null || b === null) return a === null ? 1 : -1;
        return sign * (typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b)));
      })
      .map(({ row }) => row);
  }, [rows, columns, filter, sort, verdictOf]);
  // The list is asked for its rows on every scroll: React’s compiler has to leave it alone.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  });
  const text = () =>
    tableText(
      columns.map((one) => one.name),
      shown.map((row) =>
        columns.map(({ value }) => {
          const v = value(row);
          return typeof v === 'number' ? plain(v) : (v ?? '');
        }),
      ),
    );
  const choose = (index: number) => {
    const row = shown[index];
    if (row === undefined) return;
    setAt(index);
    const bodies = bodiesOf?.(row);
    if (bodies?.length) useSelection.setState({ ids: [...new Set(bodies.map((id) => roots.get(id) ?? id))] });
    onChoose?.(row);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if ((event.key === 'Enter' || event.key === ' ') && shown.length) {
      event.preventDefault();
      return choose(at);
    }
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: most, PageUp: -most, Home: -Infinity, End: Infinity }[
      event.key
    ];
    if (step === undefined || !shown.length) return;
    event.preventDefault();
    const next = Math.max(0, Math.min(shown.length - 1, at + step));
    list.scrollToIndex(next);
    choose(next);
    requestAnimationFrame(() =>
      scroller.current?.querySelector<HTMLElement>(`[data-index="${next}"]`)?.focus({ preventScroll: true }),
    );
  };
  const grid = columns.map(({ width }) => width).join(' ');
  const lit = new Set(ids);
  const cell = (row: Row, { value, decimals = 2, show }: ListColumn<Row>) => {
    if (show) return show(row);
    const v = value(row);
    return v === null ? '—' : typeof v === 'number' ? figure(v, decimals) : v;
  };
  return (
    <div className="data-list">
      <div className="data-tools">
        {verdicts.length > 1 && (
          <select
            className="select"
            aria-label={`Show of the ${name}`}
            value={filter ?? ''}
            onChange={({ target }) => setOnly(target.value || null)}
          >
            <option value="">all {rows.length.toLocaleString('en')}</option>
            {verdicts.map((verdict) => (
              <option key={verdict} value={verdict}>
                {verdict}
              </option>
            ))}
          </select>
        )}
        <button
          className="text-button"
          disabled={!shown.length}
          onClick={() => void text().then((csv) => copy(csv, `the ${name}`))}
        >
          Copy
        </button>
        <button
          className="text-button"
          disabled={!shown.length}
          onClick={() => void text().then((csv) => saveFile(`${name.replace(/ /g, '-')}.csv`, csv, 'text/csv'))}
        >
          Save as CSV
        </button>
      </div>
      {rows.length === 0 ? (
        <p className="data-empty">{empty}</p>
      ) : (
        <div role="table" aria-label={name} aria-rowcount={shown.length}>
          <div className="data-row head" role="row" style={{ gridTemplateColumns: grid }}>
            {columns.map((column, i) => (
              <span
                key={column.name}
                role="columnheader"
                className={shown.length && typeof column.value(shown[0]!) === 'number' ? 'number' : undefined}
                aria-sort={sort?.column === i ? (sort.down ? 'descending' : 'ascending') : 'none'}
              >
                <button
                  title={`Sort by ${column.name}`}
                  onClick={() =>
                    setSort((now) =>
                      now?.column !== i ? { column: i, down: false } : now.down ? null : { column: i, down: true },
                    )
                  }
                >
                  {column.name}
                  {sort?.column === i ? (sort.down ? ' ↓' : ' ↑') : ''}
                </button>
              </span>
            ))}
          </div>
          <div
            className="data-body"
            role="rowgroup"
            ref={scroller}
            style={{ height: Math.min(most, shown.length) * rowHeight }}
            onKeyDown={onKeyDown}
          >
            <div style={{ height: list.getTotalSize(), position: 'relative' }}>
              {list.getVirtualItems().map(({ index, start }) => {
                const row = shown[index]!;
                const bodies = bodiesOf?.(row) ?? [];
                const isLit =
                  (chosen !== null && keyOf(row) === chosen) ||
                  (bodies.length > 0 && bodies.every((id) => lit.has(roots.get(id) ?? id)));
                return (
                  <div
                    key={keyOf(row)}
                    role="row"
                    aria-rowindex={index + 1}
                    aria-selected={isLit}
                    data-index={index}
                    tabIndex={index === Math.min(at, shown.length - 1) ? 0 : -1}
                    className={`data-row${isLit ? ' lit' : ''}`}
                    style={{ gridTemplateColumns: grid, transform: `translateY(${start}px)`, height: rowHeight }}
                    onClick={() => choose(index)}
                  >
                    {columns.map((column) => (
                      <span
                        key={column.name}
                        role="cell"
                        className={typeof column.value(row) === 'number' ? 'number' : undefined}
                        title={typeof column.value(row) === 'string' ? String(column.value(row)) : undefined}
                      >
                        {cell(row, column)}
                      </span>
                    ))}
                  </div>
                );
              })}
            </div>
          </div>
        </div>
      )}
    </div>
  );
}
