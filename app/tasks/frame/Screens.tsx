import type { ScreenFit } from '../../../core/camera/fit';
import { pixelsPerUnit } from '../../../core/convert/project';
import { screenFrame } from '../../pictures/screens';
import { useSituation } from '../../state/derive';
import { edit } from '../../state/document';
import { useSettings } from '../../state/settings';
import { Choice } from '../../ui/Choice';
import { figure } from '../../ui/figures';
import { NumberField } from '../../ui/NumberField';
import { singular, unitMark } from '../../wording';
import { sizeAt, subjectOf } from './edits';

const fits: readonly { value: ScreenFit; label: string; says: string }[] = [
  {
    value: 'showAll',
    label: 'show at least this',
    says: 'Every screen shows all of the picture, and more where it has room.',
  },
  { value: 'keepHeight', label: 'keep height', says: 'The height seen stays; the width follows the screen.' },
  { value: 'keepWidth', label: 'keep width', says: 'The width seen stays; the height follows the screen.' },
  {
    value: 'fillAndCrop',
    label: 'fill and crop',
    says: 'No screen shows more than the picture; what does not fit is cut off.',
  },
  {
    value: 'wholeMultiples',
    label: 'whole multiples',
    says: 'Every pixel of the picture becomes a whole number of pixels, with bars round it.',
  },
];

/** The screens that the picture is shown on: the policy, and what each shows. */
export function Screens() {
  const situation = useSituation();
  const { project, frame } = situation;
  const { fit, sizes } = project.screens;
  const subject = subjectOf(situation);
  const mark = unitMark(project.unit);
  const change = (name: string, recipe: (screens: typeof project.screens) => void, gesture: string | null = null) =>
    edit(name, (draft) => recipe(draft.screens as typeof project.screens), gesture);
  const whole = (v: number) =>
    v >= 1 && v <= 16384 && Number.isInteger(v) ? null : 'A screen’s side is a whole number from 1 to 16384.';
  const side = (i: number, name: 'width' | 'height') => (
    <NumberField
      name={`Screen ${i + 1} ${name}`}
      width={54}
      value={sizes[i]![name]}
      refuse={whole}
      onChange={(v, gesture) => change('change a screen', (s) => void (s.sizes[i]![name] = v), gesture)}
    />
  );
  return (
    <section aria-label="Screens">
      <h2>Screens</h2>
      <div className="fit-choice">
        <Choice
          name="Fit to screens"
          value={fit}
          options={fits.map(({ value, label, says }) => ({ value, label, title: says }))}
          onChange={(next) =>
            change(`fit screens: ${fits.find(({ value }) => value === next)!.label}`, (s) => void (s.fit = next))
          }
        />
      </div>
      <p className="text-[12px] leading-4 text-ink2">{fits.find(({ value }) => value === fit)!.says}</p>
      <div className="rule">
        css px <em>{`seen at ${subject.name}, px per ${singular(project.unit)}`}</em>
      </div>
      {sizes.map((size, i) => {
        const made = screenFrame(frame, fit, size);
        const seen = made && sizeAt(made, subject.ahead);
        return (
          <div className="row screen-row" key={i}>
            {side(i, 'width')}
            <span className="text-ink2">×</span>
            {side(i, 'height')}
            <span className="ml-auto font-mono" title={size.name} data-testid={`screen-${i}`}>
              {seen ? `${figure(seen[0], 1)} × ${figure(seen[1], 1)} ${mark}` : 'none'}
            </span>
            <span className="w-[38px] text-right font-mono text-ink2">
              {made ? figure(pixelsPerUnit(made, subject.ahead)[0], 1) : ''}
            </span>
            <button
              className="drop"
              aria-label={`Remove the screen ${size.name}`}
              title={`Remove ${size.name}`}
              onClick={() => change(`remove the screen ${size.name}`, (s) => void s.sizes.splice(i, 1))}
            >
              ×
            </button>
          </div>
        );
      })}
      {!sizes.length && <p className="text-[12px] text-ink2">No screens. Add one to see what it would show.</p>}
      <div className="mt-2 flex gap-1">
        <button
          className="plain-button"
          disabled={sizes.length >= 24}
          onClick={() =>
            change('add a screen', (s) => {
              const { width, height } = project.viewport;
              s.sizes.push({ name: `Own ${s.sizes.length + 1}`, width, height });
            })
          }
        >
          Add a screen
        </button>
        <button
          className="plain-button"
          onClick={() => useSettings.setState(({ corners }) => ({ corners: { ...corners, frame: 'screens' } }))}
        >
          Show them
        </button>
      </div>
    </section>
  );
}
