import './PointTable.css';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { spacesAt, spacesStride } from '../../../core/kernels/spaces';
import type { Vec3 } from '../../../core/math/vec3';
import { useMoment } from '../../state/tempo';
import { edit } from '../../state/document';
import { useTable } from '../../state/table';
import { figure } from '../../ui/figures';
import { Glyph } from '../../ui/Glyph';
import { outsideWords } from '../../state/wording';
import { axisNames } from '../../chain/rungs';
import type { Size } from '../compose/contract';

const rowHeight = 18;

/**
 * The table of points: every space of each, as many rows as there are, of which those in sight are
 * on the page.
 */
export function PointTable({ size }: { size: Size }) {
  const { points: form } = useMoment();
  const { table, converted, rows } = useTable();
  const scroller = useRef<HTMLDivElement>(null);
  // The list is asked for its rows on every scroll: React’s compiler has to leave it alone.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 8,
  });
  if (!table)
    return (
      <div className="point-table empty" style={size}>
        <p>No points yet. Paste or load them in the worksheet, under Points.</p>
      </div>
    );
  const cells = (i: number): readonly (readonly [string, number])[] => {
    const world = form.show([table.points[3 * i]!, table.points[3 * i + 1]!, table.points[3 * i + 2]!]);
    const at = i * spacesStride;
    const space = (from: number, count: number, decimals: number) =>
      Array.from(
        { length: count },
        (_, k) => [converted ? cell(converted.spaces[at + from + k]!, decimals) : '', k] as const,
      );
    return [
      ...world.map((v, k) => [cell(v, 2), k] as const),
      ...space(spacesAt.view, 3, 2),
      ...space(spacesAt.ndc, 3, 4),
      ...space(spacesAt.screen, 2, 1),
      ...space(spacesAt.depth, 1, 4),
    ];
  };
  const heads = [
    ...form.letters.map((letter) => `World ${letter}`),
    ...axisNames('view', form).map((axis) => `View ${axis}`),
    ...axisNames('ndc', form).map((axis) => `NDC ${axis}`),
    ...['Screen x', 'Screen y', 'Depth'],
  ];
  const probe = (i: number) =>
    edit('probe a point of the table', (draft) => {
      const world = [...table.points.subarray(3 * i, 3 * i + 3)] as unknown as Vec3;
      draft.probe = { body: null, drive: { rung: 'world', value: [...world] } };
    });
  return (
    <div
      className="point-table"
      ref={scroller}
      style={size}
      role="table"
      aria-label="Points"
      aria-rowcount={rows.length}
    >
      <div className="point-head" role="row">
        <span role="columnheader">{table.names ? 'Name' : 'No.'}</span>
        <span role="columnheader" className="verdict-cell">
          Verdict
        </span>
        {heads.map((head) => (
          <span role="columnheader" key={head}>
            {head}
          </span>
        ))}
      </div>
      <div style={{ height: list.getTotalSize(), position: 'relative' }}>
        {list.getVirtualItems().map(({ index, start }) => {
          const i = rows[index]!;
          const outside = converted?.outside[i] ?? 0;
          return (
            <button
              key={index}
              className="point-row"
              role="row"
              aria-rowindex={index + 1}
              title="Probe this point"
              style={{ transform: `translateY(${start}px)`, height: rowHeight }}
              onClick={() => probe(i)}
            >
              <span role="cell">{table.names?.[i] || i + 1}</span>
              <span role="cell" className="verdict-cell">
                <Glyph kind={outside ? 'outside' : 'inside'} size={9} /> {outsideWords(outside)}
              </span>
              {cells(i).map(([text], k) => (
                <span role="cell" key={k}>
                  {text}
                </span>
              ))}
            </button>
          );
        })}
      </div>
    </div>
  );
}

const cell = (value: number, decimals: number): string => (Number.isNaN(value) ? '—' : figure(value, decimals));
