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
import { faultWords } from './words';

type Row = VectorsFound['rows'][number];
const asks: Readonly<Record<Row['kind'], string>> = {
  ...{ view: 'matrix', projection: 'matrix', viewProjection: 'matrix', cameraToWorld: 'matrix' },
  ...{ worldToScreen: 'to the screen', screenToWorld: 'to the world', ray: 'ray' },
  ...{ worldToPixel: 'matrix', pixelToWorld: 'matrix', visible: 'visible', integerZoom: 'zoom', layer: 'layer' },
};
const columns: readonly ListColumn<Row>[] = [
  { name: 'row', value: ({ id }) => id, width: '1fr' },
  { name: 'asks', value: ({ kind }) => asks[kind], width: '96px' },
  { name: 'finds', value: ({ finds }) => finds.length, decimals: 0, width: '48px' },
];
const list = (numbers: readonly number[]) => numbers.map((v) => figure(v, 4)).join(', ');

/** The faults that a row fails for, by the shorter list: those, or all but some. */
function foundBy({ finds, expected }: Row, { rows, unseen }: VectorsFound): string {
  if (!expected) return 'a picture of what is behind the eye';
  const all = [...new Set(rows.flatMap((row) => row.finds))];
  const others = all.filter((fault) => !finds.includes(fault));
  if (!others.length) return unseen.length ? 'every fault that shows' : 'every fault';
  const shorter = others.length < finds.length;
  return `${shorter ? 'every fault but ' : ''}${(shorter ? others : finds).map(faultWords).join(', ')}`;
}

/** Test vectors for an engine's own functions: what goes in, what is to come out, what each row finds. */
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
            {counted(found.rows.length, 'row', 'rows')}; of {found.faults} faults that this camera can have{' '}
            {found.unseen.length ? `${found.faults - found.unseen.length} fail a row.` : 'each fails a row.'}
          </p>
          {found.unseen.length > 0 && (
            <p className="text-note leading-4 text-ink2">
              No number of this camera shows {found.unseen.map(faultWords).join(', ')}.
            </p>
          )}
          <DataList
            name="test vectors"
            rows={found.rows}
            keyOf={({ id }) => id}
            columns={columns}
            verdictOf={({ kind }) => asks[kind]}
            chosen={row.id}
            most={7}
            onChoose={({ id }) => setChosen(id)}
          />
          <dl className="text-note leading-4" data-testid="vector-row">
            {row.input.length > 0 && (
              <div>
                <dt className="inline text-ink2">goes in: </dt>
                <dd className="inline font-mono">{list(row.input)}</dd>
              </div>
            )}
            <div>
              <dt className="inline text-ink2">comes out: </dt>
              <dd className="inline font-mono">{row.expected ? list(row.expected) : 'no picture'}</dd>
            </div>
            <div>
              <dt className="inline text-ink2">finds: </dt>
              <dd className="inline">{foundBy(row, found)}</dd>
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
