import { useState, type DragEvent } from 'react';
import { spacesStride } from '../../../core/kernels/spaces';
import type { Problem } from '../../../core/reasons';
import { writeTable } from '../../../formats/csv';
import { outsideWords } from '../../wording';
import { currentSituation, useSituation } from '../../state/derive';
import { useSettings } from '../../state/settings';
import { dropTable, loadPoints, setFilter, useTable, type Filter } from '../../state/table';
import { Choice } from '../../ui/Choice';
import { copy, saveFile, say } from '../../ui/clipboard';
import { plain } from '../../ui/figures';
import { Fold } from '../../ui/Fold';

/** Many points at once: from text or a file, in every space, out again. */
export function Points() {
  const count = useTable((state) => state.table?.points.length ?? 0) / 3;
  return (
    <Fold id="points" title="Points" aside={count ? `${count.toLocaleString('en')} points` : 'a table of them'}>
      <Body />
    </Fold>
  );
}

const showTable = () =>
  useSettings.setState(({ corners, folds }) => ({
    corners: { ...corners, convert: 'points' },
    folds: { ...folds, points: true },
  }));

/** The rows that the filter lets through as text, every number with all its digits. */
function tableText(): string {
  const { points: form } = currentSituation();
  const { table, converted, rows } = useTable.getState();
  if (!table || !converted) return '';
  const vector = (name: string, letters: readonly string[]) => letters.map((letter) => `${name} ${letter}`);
  const heads = [
    ...(table.names ? ['name'] : []),
    ...vector('world', form.letters),
    ...vector('view', ['x', 'y', 'z']),
    ...vector('clip', ['x', 'y', 'z', 'w']),
    ...vector('ndc', ['x', 'y', 'z']),
    ...['screen x', 'screen y', 'depth', 'ahead', 'verdict'],
  ];
  const text = (v: number) => (Number.isNaN(v) ? '' : plain(v));
  const out: string[][] = [];
  for (const i of rows) {
    const p = table.points;
    out.push([
      ...(table.names ? [table.names[i]!] : []),
      ...form.show([p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]).map(text),
      ...Array.from(converted.spaces.subarray(i * spacesStride, (i + 1) * spacesStride), text),
      outsideWords(converted.outside[i]!),
    ]);
  }
  return writeTable(heads, out);
}

/** Characters from which a pasted text is not shown first. */
const longText = 20_000;

function Body() {
  const { points: form } = useSituation();
  const { table, converted, filter, counts } = useTable();
  const [text, setText] = useState('');
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [reading, setReading] = useState(false);
  const take = async (given: string, source: string) => {
    setReading(true);
    const found = await loadPoints(given, source);
    setReading(false);
    setProblems(found);
    if (found.length) return;
    setText('');
    showTable();
    say(`Took the points of ${source}.`);
  };
  const file = () => {
    const input = Object.assign(document.createElement('input'), { type: 'file', accept: '.csv,.tsv,.txt,text/csv' });
    input.addEventListener('change', () => {
      const chosen = input.files?.[0];
      if (chosen) void chosen.text().then((given) => take(given, chosen.name));
    });
    input.click();
  };
  const drop = (event: DragEvent) => {
    const chosen = event.dataTransfer.files[0];
    if (!chosen) return;
    event.preventDefault();
    event.stopPropagation();
    void chosen.text().then((given) => take(given, chosen.name));
  };
  return (
    <div onDrop={drop} onDragOver={(event) => event.preventDefault()}>
      <textarea
        className="paste"
        aria-label="Points to take"
        rows={3}
        spellCheck={false}
        placeholder={`${form.letters.join(', ')}, a point a line, in the conventions in force`}
        value={text}
        onChange={({ target }) => setText(target.value)}
        onPaste={(event) => {
          // A text of thousands of lines is taken as it is: laid out in the field it would hold up the page.
          const pasted = event.clipboardData.getData('text/plain');
          if (pasted.length < longText) return;
          event.preventDefault();
          void take(pasted, 'What was pasted');
        }}
      />
      <div className="mt-1 flex flex-wrap gap-1">
        <button className="plain-button" disabled={!text.trim() || reading} onClick={() => void take(text, 'the text')}>
          {reading ? 'Reading…' : 'Take these'}
        </button>
        <button className="plain-button" disabled={reading} onClick={file}>
          Load a CSV file…
        </button>
        {table && (
          <button
            className="plain-button"
            onClick={() => say('Took the points away.', { label: 'Bring them back', run: dropTable() })}
          >
            Take them away
          </button>
        )}
      </div>
      {problems.length > 0 && (
        <div className="field-note" role="alert">
          Nothing was taken.
          {problems.slice(0, 4).map(({ path, message }, i) => (
            <div key={i}>
              <code>{path}</code> {message}
            </div>
          ))}
          {problems.length > 4 && <div>and {problems.length - 4} more</div>}
        </div>
      )}
      {table && (
        <>
          <div className="rule">
            {table.source} <em>{converted ? `converted in ${converted.milliseconds.toFixed(0)} ms` : 'converting…'}</em>
          </div>
          <Choice<Filter>
            name="Which points"
            value={filter}
            options={[
              { value: 'all', label: `all ${counts.all}` },
              { value: 'on', label: `on ${counts.on}` },
              { value: 'off', label: `off ${counts.off}` },
              { value: 'behind', label: `behind ${counts.behind}` },
            ]}
            onChange={setFilter}
          />
          <div className="mt-1 flex flex-wrap gap-1">
            <button className="plain-button" onClick={showTable}>
              Show the table
            </button>
            <button className="plain-button" disabled={!converted} onClick={() => void copy(tableText(), 'the table')}>
              Copy as CSV
            </button>
            <button
              className="plain-button"
              disabled={!converted}
              onClick={() => saveFile('points.csv', tableText(), 'text/csv')}
            >
              Save as CSV
            </button>
          </div>
        </>
      )}
    </div>
  );
}
