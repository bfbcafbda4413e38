import type { Draft } from 'immer';
import { writeTable } from '../../../formats/csv';
import { fieldCentres } from '../../../core/visibility/field';
import { tints as tintNames } from '../../pictures/compose/contract';
import { useTaskMoment } from '../../state/tempo';
import { Choice } from '../../ui/Choice';
import { figure, plain } from '../../ui/figures';
import { saveFile } from '../../ui/files';
import { Glyph } from '../../ui/Glyph';
import { change, toggleField } from './edits';
import { Field } from './fields';
import { foundNow, mostWhole, type FieldFound } from './field';
import type { TestField, VisibilityState } from './kept';

const many = (v: number) => v.toLocaleString('en');

/** A field of like test bodies: where they are, and what they are to the frustum. */
export function TestBodies() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { slice, sceneBounds, flat } = now;
  const { field } = slice;
  const set = (words: string, recipe: (draft: Draft<TestField>) => void, gesture?: string) =>
    change(words, (draft) => recipe(draft.field!), gesture);
  const found = foundNow(now);
  const ends = ['min', 'max'] as const;
  return (
    <>
      <label className="row check">
        <input type="checkbox" checked={field?.shown ?? false} onChange={() => toggleField(sceneBounds, flat)} />
        Fill a box with test bodies
      </label>
      {field?.shown && (
        <>
          <div className="row">
            <Choice
              name="Arrangement of the test bodies"
              value={field.arrangement}
              options={[
                { value: 'grid', label: 'grid' },
                { value: 'scatter', label: 'scatter' },
              ]}
              onChange={(value) => set('arrange the test bodies', (draft) => void (draft.arrangement = value))}
            />
            <Choice
              name="Shape of the test bodies"
              value={field.shape}
              options={[
                { value: 'sphere', label: flat ? 'discs' : 'spheres' },
                { value: 'box', label: flat ? 'squares' : 'boxes' },
              ]}
              onChange={(value) => set('shape the test bodies', (draft) => void (draft.shape = value))}
            />
          </div>
          <div className="row">
            <Field at={['field', 'count']} width="56%" />
            <Field at={['field', 'size']} width="44%" />
          </div>
          {ends.map((end) => (
            <div className="row" key={end}>
              <span className="label">{end === 'min' ? 'From' : 'To'}</span>
              <Field at={['field', end]} width={flat ? '50%' : '33%'} />
            </div>
          ))}
          {field.arrangement === 'scatter' && (
            <div className="row">
              <Field at={['field', 'seed']} width={104} />
            </div>
          )}
          <div className="verdict-counts many" role="group" aria-label="Verdicts of the test bodies">
            {(['inside', 'crosses', 'outside'] as const).map((verdict) => (
              <span key={verdict}>
                <b>
                  <output data-testid={`field-${verdict}`}>{found ? many(found.seen[verdict]) : '…'}</output>
                </b>
                <Glyph kind={verdict} size={9} /> {verdict}
              </span>
            ))}
          </div>
          <p className="verdict-line" data-testid="field-tested">
            {found
              ? `By the tree: ${many(found.seen.tested.boxes)} boxes and ${many(found.seen.tested.bodies)} bodies tested, ${figure(found.milliseconds, 1)} ms.`
              : 'Making the tree…'}
          </p>
          {found && (
            <p className="text-note leading-4 text-ink2" data-testid="field-alarms">
              {found.seen.falseAlarms
                ? `${many(found.seen.falseAlarms)} of those outside the planes would keep: false alarms${slice.method === 'planes' ? ', marked as faults' : ''}.`
                : 'The planes give no false alarm among them.'}{' '}
              {!flat && field.count <= mostWhole ? '' : 'Each is drawn as a speck, a pixel at the least.'}
            </p>
          )}
          <button
            className="text-button"
            disabled={!found}
            onClick={() => saveFile('test-bodies.csv', table(field, found!, now), 'text/csv')}
          >
            Save as CSV
          </button>
          <p className="text-note leading-4 text-ink2">
            Their middles lie in the box, which is taken hold of by its corners
            {flat ? ' in the plan' : ' in plan and section'}.
          </p>
        </>
      )}
    </>
  );
}

/** The middles and their verdicts as a table, in the conventions in force. */
function table(field: TestField, { tints }: FieldFound, { points: form }: ReturnType<typeof useTaskMoment>): string {
  const centres = fieldCentres(field);
  return writeTable(
    [...form.letters, 'verdict'],
    Array.from({ length: field.count }, (_, i) => {
      const tint = tintNames[tints[i]!]!;
      return [
        ...form.show([centres[3 * i]!, centres[3 * i + 1]!, centres[3 * i + 2]!]).map(plain),
        tint === 'fault' ? 'false alarm' : tint,
      ];
    }),
  );
}
