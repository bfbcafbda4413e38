import { columnName, type Reading } from '../../../formats/pointColumns';
import { NumberField } from '../../sheet/NumberField';
import { readColumnsAs, useTable } from '../../state/table';
import { useMoment } from '../../state/tempo';

const unused = '—';

/**
 * What the columns of the text that was read last are taken for: each can be taken for another, or
 * with its sign turned over, and all of it in another unit. The points follow at once.
 */
export function Columns() {
  const { project, points: form } = useMoment();
  const text = useTable((state) => state.text);
  if (!text) return null;
  const { columns, reading } = text;
  const { coordinates, naming, unit } = reading;
  const change = (part: Partial<Reading>) => void readColumnsAs({ ...reading, ...part });
  const roleOf = (column: number) => {
    const k = coordinates.findIndex((one) => one.column === column);
    return k >= 0 ? form.letters[k]! : naming === column ? 'name' : unused;
  };
  const take = (column: number, role: string) => {
    const k = form.letters.indexOf(role);
    const before = coordinates.findIndex((one) => one.column === column);
    // What had been this column's becomes that of the one which had what it is taken for now.
    const other = k >= 0 ? coordinates[k]!.column : null;
    change({
      coordinates: coordinates.map((one, i) =>
        i === k ? { ...one, column } : i === before ? { ...one, column: other } : one,
      ),
      naming: role === 'name' ? column : naming === column ? null : naming,
    });
  };
  return (
    <section aria-label="Columns">
      <div className="rule">
        Its columns <em>taken for</em>
      </div>
      <div className="columns">
        {columns.map(({ sample }, column) => {
          const name = columnName(columns, column);
          const k = coordinates.findIndex((one) => one.column === column);
          return [
            <span key={`${column} name`} title={name}>
              {name}
            </span>,
            <span
              key={`${column} sample`}
              className="text-right font-mono text-ink2"
              title={`In its first line: ${sample}`}
            >
              {sample}
            </span>,
            <select
              key={`${column} role`}
              className="select"
              aria-label={`${name} is taken for`}
              value={roleOf(column)}
              onChange={({ target }) => take(column, target.value)}
            >
              {[...form.letters, 'name', unused].map((role) => (
                <option key={role} value={role}>
                  {role === unused ? 'not used' : role}
                </option>
              ))}
            </select>,
            <button
              key={`${column} sign`}
              className="plain-button"
              disabled={k < 0}
              aria-label={`${name} with its sign turned over`}
              aria-pressed={k >= 0 && coordinates[k]!.negated}
              title="Turn its sign over"
              onClick={() =>
                change({
                  coordinates: coordinates.map((one, i) => (i === k ? { ...one, negated: !one.negated } : one)),
                })
              }
            >
              {k >= 0 && coordinates[k]!.negated ? '\u2212' : '+'}
            </button>,
          ];
        })}
      </div>
      <div className="row mt-1">
        <span className="label" title="What one unit of the file is in the world’s">
          Unit
        </span>
        <NumberField
          name="Unit of the columns"
          width={96}
          value={unit}
          refuse={(v) => (v > 0 ? null : 'A unit is above 0.')}
          onChange={(v) => change({ unit: v })}
        />
        <span className="text-ink2">{project.unit}</span>
      </div>
    </section>
  );
}
