import { useState } from 'react';
import { languageOf } from '../../../core/deliver/code';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { NumberField } from '../../sheet/NumberField';
import { useTaskMoment } from '../../state/tempo';
import { saveFile } from '../../ui/files';
import { counted, figure } from '../../ui/figures';
import { copy } from '../../ui/notices';
import { Coloured, useCode } from './Code';
import { change, saveVectors } from './edits';
import type { VectorsFound } from './job';
import { mostVectors, type DeliverState } from './kept';
import { nameWords } from './words';

type Row = VectorsFound['rows'][number];
const columns: readonly ListColumn<Row>[] = [
  { name: 'row', value: ({ id }) => id, width: '1fr' },
  { name: 'kind', value: ({ kind }) => nameWords(kind), width: '120px' },
  { name: 'detects', value: ({ detects }) => detects.length, decimals: 0, width: '56px' },
];
const list = (numbers: readonly number[]) => numbers.map((v) => figure(v, 4)).join(', ');

/** The faults that a row detects, by the shorter list: those, or all but some. */
function detectedBy({ detects }: Row, { rows, undetected }: VectorsFound): string {
  if (!detects.length) return 'none';
  const all = [...new Set(rows.flatMap((row) => row.detects))];
  const others = all.filter((fault) => !detects.includes(fault));
  if (!others.length) return undetected.length ? 'every fault that shows' : 'every fault';
  const shorter = others.length < detects.length;
  return `${shorter ? 'every fault except ' : ''}${(shorter ? others : detects).map(nameWords).join(', ')}`;
}

/** Test vectors for an engine's own functions: inputs, expected outputs, and the faults that each row detects. */
export function TestVectors() {
  const now = useTaskMoment<DeliverState>('deliver');
  const { slice } = now;
  const found = now.answer<VectorsFound | null>('vectors');
  const [chosen, setChosen] = useState('point 1');
  const row = found?.rows.find(({ id }) => id === chosen) ?? found?.rows[0];
  return (
    <>
      <div className="row">
        <NumberField
          name="How many points are tested"
          label="points"
          width="50%"
          value={slice.count}
          refuse={(v) =>
            Number.isInteger(v) && v >= 1 && v <= mostVectors ? null : `A whole number from 1 to ${mostVectors}.`
          }
          onChange={(v, gesture) => change('count the points tested', (draft) => void (draft.count = v), gesture)}
        />
        <NumberField
          name="Seed of the test vectors"
          label="seed"
          width="50%"
          value={slice.seed}
          refuse={(v) => (Number.isInteger(v) && v >= 1 && v <= 100_000 ? null : 'A seed is a whole number from 1.')}
          onChange={(v, gesture) =>
            change('set the seed of the test vectors', (draft) => void (draft.seed = v), gesture)
          }
        />
      </div>
      {found && row ? (
        <>
          <p className="verdict-line" data-testid="vectors">
            {counted(found.rows.length, 'row', 'rows')} detect {counted(found.faults, 'fault', 'faults')}.
          </p>
          {found.undetected.length > 0 && (
            <p className="text-note leading-4 text-ink2">
              Not visible in the numbers of this camera: {found.undetected.map(nameWords).join(', ')}.
            </p>
          )}
          <DataList
            name="test vectors"
            rows={found.rows}
            keyOf={({ id }) => id}
            columns={columns}
            verdictOf={({ kind }) => nameWords(kind)}
            chosen={row.id}
            most={7}
            onChoose={({ id }) => setChosen(id)}
          />
          <dl className="text-note leading-4" data-testid="vector-row">
            {row.input.length > 0 && (
              <div>
                <dt className="inline text-ink2">input: </dt>
                <dd className="inline font-mono">{list(row.input)}</dd>
              </div>
            )}
            <div>
              <dt className="inline text-ink2">expected: </dt>
              <dd className="inline font-mono">{row.expected ? list(row.expected) : 'none: behind the eye'}</dd>
            </div>
            <div>
              <dt className="inline text-ink2">detects: </dt>
              <dd className="inline">{detectedBy(row, found)}</dd>
            </div>
          </dl>
          <div className="row flex-wrap">
            {(['vectors.json', 'vectors.csv'] as const).map((name) => (
              <button key={name} className="plain-button" onClick={() => void saveVectors(name)}>
                {name}
              </button>
            ))}
          </div>
        </>
      ) : (
        <p className="text-note leading-4 text-ink2">There are none while the camera cannot be.</p>
      )}
      <Harness />
    </>
  );
}

/** The program that runs functions over the table. */
function Harness() {
  const { now, made } = useCode();
  if (typeof made === 'string') return null;
  const { language } = now.slice;
  const harness = made.harness();
  const file = languageOf(language)!.harnessFile;
  return (
    <>
      <h3 className="mt-2 flex items-baseline justify-between font-semibold">
        Harness in {language} <span className="text-note font-normal text-ink2">{file}</span>
      </h3>
      <p className="text-note leading-4 text-ink2">
        Runs the code, or functions of your own in its place, over vectors.csv; what it says is for “check”.
      </p>
      <Coloured id="harness" text={harness} language={file.endsWith('.html') ? 'TypeScript' : language} />
      <div className="row">
        <button className="plain-button" onClick={() => void copy(harness, 'the harness')}>Copy</button>
        <button className="plain-button" onClick={() => saveFile(file, harness, 'text/plain')}>Save</button>
      </div>
    </>
  );
} // prettier-ignore
