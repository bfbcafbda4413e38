import { wholeZoomOf } from '../../pictures/compose/screens';
import { Fragment, memo } from 'react';
import { onScreen, type ScreenFit } from '../../../core/camera/fit';
import type { ResolvedProjection } from '../../../core/camera/projection';
import { pixelsPerUnit, sizeAt } from '../../../core/convert/project';
import type { Project } from '../../../formats/project';
import { usePart } from '../../state/tempo';
import { showPane } from '../../edits/panes';
import { edit } from '../../state/document';
import { Choice } from '../../ui/Choice';
import { figure, plain } from '../../ui/figures';
import { NumberField } from '../../sheet/NumberField';
import { singular, unitMark } from '../../state/wording';
import { subjectOf } from './edits';

const fits: readonly { value: ScreenFit; label: string; says: string }[] = [
  {
    value: 'showAll',
    label: 'at least both',
    says: 'Width and height are all seen, and more on the side where the screen has room.',
  },
  { value: 'keepHeight', label: 'fixed height', says: 'The height seen stays; the width follows the screen.' },
  { value: 'keepWidth', label: 'fixed width', says: 'The width seen stays; the height follows the screen.' },
  {
    value: 'fillAndCrop',
    label: 'at most both',
    says: 'The screen is filled; the width or the height is cut where it does not fit.',
  },
  {
    value: 'letterbox',
    label: 'both, with bars',
    says: 'Exactly this width and height, as large as they fit, with bars on two sides.',
  },
  {
    value: 'wholeMultiples',
    label: 'both, integer scale',
    says: 'Exactly this width and height at an integer scale, so that every pixel (in 2D every world unit) is a square of pixels. Bars fill the rest.',
  },
  {
    value: 'stretch',
    label: 'both, stretched',
    says: 'Exactly this width and height, stretched to the edges: circles become ellipses.',
  },
];

const change = (name: string, recipe: (screens: Project['screens']) => void, gesture: string | null = null) =>
  edit(name, (draft) => recipe(draft.screens as Project['screens']), gesture);

const whole = (v: number) =>
  v >= 1 && v <= 16384 && Number.isInteger(v) ? null : 'A screen’s side is a whole number from 1 to 16384.';

/** A screen's width and height. */
const Sides = memo(function Sides({ index, size }: { index: number; size: Project['screens']['sizes'][number] }) {
  const side = (name: 'width' | 'height') => (
    <NumberField
      name={`Screen ${index + 1} ${name}`}
      width={54}
      value={size[name]}
      refuse={whole}
      onChange={(v, gesture) => change('change a screen', (s) => void (s.sizes[index]![name] = v), gesture)}
    />
  );
  return (
    <>
      {side('width')}
      <span className="text-ink2">×</span>
      {side('height')}
    </>
  );
});

const Drop = memo(function Drop({ index, name }: { index: number; name: string }) {
  return (
    <button
      className="drop"
      aria-label={`Remove the screen ${name}`}
      title={`Remove ${name}`}
      onClick={() => change(`remove the screen ${name}`, (s) => void s.sizes.splice(index, 1))}
    >
      ×
    </button>
  );
});

/**
 * What the list follows from: the lens, how far the subject is and the screens themselves, wherever
 * the camera stands.
 */
function useScreens() {
  const { left, right, bottom, top, near, far, kind, width, height, ...rest } = usePart((moment) => {
    const { project, frame } = moment;
    const { near, far, kind, extents, viewport } = frame;
    const { name, ahead } = subjectOf(moment);
    return {
      ...{
        screens: project.screens,
        viewport: project.viewport,
        unit: project.unit,
        subject: name,
        ahead,
        flat: moment.flat,
      },
      ...{ near, far, kind, ...extents, width: viewport.width, height: viewport.height },
    };
  });
  const extents = { left, right, bottom, top };
  const lens = (
    kind === 'perspective' ? { kind, near, far, extents } : { kind, near, far: far!, extents }
  ) as ResolvedProjection;
  return { ...rest, frame: { ...lens, viewport: { x: 0, y: 0, width, height } } };
}

/** The screens that the picture is shown on: the policy, and what each shows. */
export function Screens() {
  const { screens, viewport, unit, subject, ahead, frame, flat } = useScreens();
  const { fit, sizes } = screens;
  const mark = unitMark(unit);
  return (
    <>
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
      <p className="text-note leading-4 text-ink2">{fits.find(({ value }) => value === fit)!.says}</p>
      <div className="rule">
        css px <em>{`seen${flat ? '' : ` at ${subject}`}, px per ${singular(unit)}`}</em>
      </div>
      {sizes.map((size, i) => {
        const made = { ...frame, ...onScreen(fit, frame.extents, frame.viewport, size, wholeZoomOf(frame, flat)) };
        const seen = sizeAt(made, ahead);
        const [across, upward] = pixelsPerUnit(made, ahead);
        const v = made.viewport;
        return (
          <Fragment key={i}>
            <div className="row screen-row">
              <Sides index={i} size={size} />
              <span className="ml-auto font-mono" title={size.name} data-testid={`screen-${i}`}>
                {`${figure(seen[0], 1)} × ${figure(seen[1], 1)} ${mark}`}
              </span>
              <span
                className="w-[38px] text-right font-mono text-ink2"
                title={`${plain(across)} px per ${singular(unit)}`}
              >
                {figure(across, across < 10 ? 3 : across < 100 ? 2 : 1)}
              </span>
              <Drop index={i} name={size.name} />
            </div>
            {(v.width !== size.width || v.height !== size.height) && (
              <p className="letterbox" title="Rounded to whole pixels" data-testid={`letterbox-${i}`}>
                picture at {v.x}, {v.y}: {v.width} × {v.height} px
              </p>
            )}
            {fit === 'stretch' && Math.abs(across / upward - 1) > 1e-9 && (
              <p className="letterbox">{figure(across / upward, 3)} times as wide as high</p>
            )}
          </Fragment>
        );
      })}
      {!sizes.length && <p className="text-note text-ink2">No screens. Add one to see what it would show.</p>}
      <div className="mt-2 flex gap-1">
        <button
          className="plain-button"
          disabled={sizes.length >= 24}
          onClick={() =>
            change('add a screen', (s) => {
              const { width, height } = viewport;
              s.sizes.push({ name: `Own ${s.sizes.length + 1}`, width, height });
            })
          }
        >
          Add a screen
        </button>
        {!flat && (
          <button className="plain-button" onClick={() => showPane('screens')}>
            Show them
          </button>
        )}
      </div>
    </>
  );
}
