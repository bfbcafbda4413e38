import { pointTableText, savePointTable } from '../../edits/pointTable';
import { useState, type DragEvent } from 'react';
import type { Problem } from '../../../core/reasons';
import { placeWords } from '../../../formats/places';
import { useMoment } from '../../state/tempo';
import { showPane } from '../../edits/panes';
import { textOfFile } from '../../edits/importing';
import { useKeeping } from '../../state/autosave';
import { useSettings } from '../../state/settings';
import {
  deleteSet,
  loadPoints,
  renameSet,
  setFilter,
  showSet,
  takenFor,
  useTable,
  type Filter,
} from '../../state/table';
import { bringInPoints } from '../../edits/bodies';
import { NameField } from '../../ui/NameField';
import { Radio, Radios } from '../../ui/Radios';
import { Lozenge } from '../../ui/icons';
import { Choice } from '../../ui/Choice';
import { counted } from '../../ui/figures';
import { askFile } from '../../ui/files';
import { copy, say } from '../../ui/notices';
import { Columns } from './Columns';

/** How many there are, beside the heading. */
export function PointCount() {
  const { project } = useMoment();
  const { length } = project.pointSets;
  const count = project.pointSets.reduce((sum, one) => sum + one.count, 0);
  return length > 1 ? `${length} sets` : length ? counted(count, 'point', 'points') : 'a table of them';
}

/** Many points at once: from text or a file, in every space, out again. */
export const Points = () => <Body />;

const showTable = () => {
  showPane('points');
  useSettings.setState(({ folds }) => ({ folds: { ...folds, points: true } }));
};

/** Characters from which a pasted text is not shown first. */
const longText = 20_000;

function Body() {
  const { points: form } = useMoment();
  const { table, converted, filter, counts, text: columns } = useTable();
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState<readonly Problem[]>([]);
  const [reading, setReading] = useState(false);
  const take = async (given: string, source: string) => {
    setReading(true);
    const found = await loadPoints(given, source);
    setReading(false);
    setWrong(found);
    if (found.length) return;
    setText('');
    showTable();
    say(`Took the points of ${source}: ${takenFor()}.`);
  };
  // Columns that are taken otherwise may be wrong in other ways.
  const problems = columns?.problems ?? wrong;
  const read = async (chosen: File) => {
    const given = await textOfFile(chosen);
    if (given !== null) await take(given, chosen.name);
  };
  const drop = (event: DragEvent) => {
    const chosen = event.dataTransfer.files[0];
    if (!chosen) return;
    event.preventDefault();
    event.stopPropagation();
    void read(chosen);
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
          // A text of thousands of lines is taken as it is: laid out in the field it would hold up
          // the page.
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
        <button
          className="plain-button"
          disabled={reading}
          onClick={() => askFile('.csv,.tsv,.txt,text/csv', (chosen) => void read(chosen))}
        >
          Load a CSV file…
        </button>
      </div>
      {problems.length > 0 && (
        <div className="field-note" role="alert">
          Nothing was taken.
          {problems.slice(0, 4).map(({ path, message }, i) => (
            <div key={i}>
              <b>{placeWords(path)}</b> {message}
            </div>
          ))}
          {problems.length > 4 && <div>and {problems.length - 4} more</div>}
        </div>
      )}
      <Columns />
      <Sets />
      {table && (
        <>
          <div className="rule">
            {table.set.name}{' '}
            <em>{converted ? `converted in ${converted.milliseconds.toFixed(0)} ms` : 'converting…'}</em>
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
            <button
              className="plain-button"
              disabled={!converted}
              onClick={() => void copy(pointTableText(), 'the table')}
            >
              Copy as CSV
            </button>
            <button className="plain-button" disabled={!converted} onClick={savePointTable}>
              Save as CSV
            </button>
            <button
              className="plain-button"
              title="Every point becomes a body of this project"
              onClick={() => bringInPoints(table, table.set.name)}
            >
              Make them bodies
            </button>
          </div>
        </>
      )}
    </div>
  );
}

/** The sets of the project: one of them stands in the table. */
function Sets() {
  const { project } = useMoment();
  const shown = useTable(({ table }) => table?.set.id);
  const { pointSets } = project;
  const isSaved = useKeeping(({ state }) => state !== 'failed');
  if (!pointSets.length) return null;
  return (
    <>
      <div className="rule">
        Sets of points <em>{isSaved ? 'saved with the project' : 'not saved by this browser'}</em>
      </div>
      <Radios name="The set that is shown" value={shown ?? ''} onChange={showSet}>
        {pointSets.map((set) => (
          <div key={set.id} className={`set-row${set.id === shown ? ' is-on' : ''}`}>
            <Radio className="pick" value={set.id}>
              <Lozenge />
              <span className="sr-only">{`Show ${set.name}`}</span>
            </Radio>
            <NameField name={`Name of ${set.name}`} value={set.name} onChange={(name) => renameSet(set.id, name)} />
            <span className="font-mono text-ink2">{counted(set.count, 'point', 'points')}</span>
            <button
              className="drop"
              aria-label={`Delete the points of ${set.name}`}
              title={`Delete the points of ${set.name}`}
              onClick={() => {
                deleteSet(set);
                say(`Deleted the points of ${set.name}. Undo brings them back.`);
              }}
            >
              ×
            </button>
          </div>
        ))}
      </Radios>
      {shown === undefined && (
        <p className="text-note text-plum">
          Its points are not in this browser. Open the project’s file, which has them.
        </p>
      )}
    </>
  );
}
