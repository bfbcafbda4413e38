import type { RayFault } from '../../../core/pick/faults';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { angleDecimals, angleUnit } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { Field } from './fields';
import { benchOf, lateRay, type BenchRow } from './rays';
import { useRay } from './Ray';

/** Each fault: its name, and what the code would have to use instead. */
export const faultWords: Readonly<Record<RayFault, { readonly name: string; readonly mend: string }>> = {
  shakeLeftOut: {
    name: 'without shake',
    mend: 'The ray is made from the controller’s rotation. Make it from the camera that drew the picture, shake and all: its inverse view projection.',
  },
  recoilLeftOut: {
    name: 'without recoil',
    mend: 'The recoil’s pitch is in the picture and not in the ray. Add it once, to the camera, and make picture and ray from that camera.',
  },
  frameBefore: {
    name: 'frame before',
    mend: 'The ray is made from last frame’s camera. Update the camera first, then pick; or keep the camera that drew what is on the screen with the picture.',
  },
  otherAspect: {
    name: 'other aspect',
    mend: 'The projection that unprojects has another aspect than the viewport that was drawn. Make both from the size of the viewport, whenever it changes.',
  },
  shiftLeftOut: {
    name: 'without shift',
    mend: 'The ray goes through the middle of symmetric extents. Take the extents that the projection has, off centre as they are, or invert the projection itself.',
  },
  halfLeftOut: {
    name: 'without the half',
    mend: 'The number of the pixel is taken for its place. Its middle lies at x + 0.5, y + 0.5.',
  },
  otherEdge: {
    name: 'other edge’s y',
    mend: 'The pointer’s y counts from the top, the viewport’s from the bottom. Use height − y before it is made NDC.',
  },
  devicePixels: {
    name: 'device pixels',
    mend: 'The pointer comes in CSS pixels and the viewport is in device pixels, or the other way round. Multiply by the device pixel ratio, once.',
  },
};

/** Rays made from another source than the camera that drew the picture, and what each is off by. */
export function Bench() {
  const { now, looked, pixel } = useRay();
  const { slice, codec: e, project, flat } = now;
  const rows = benchOf(now, looked, pixel);
  const late = lateRay(now, looked);
  const chosen = rows.find(({ fault }) => fault === slice.fault) ?? null;
  const columns: readonly ListColumn<BenchRow>[] = [
    { name: 'Made', width: '1fr', value: ({ fault }) => faultWords[fault].name },
    ...(flat
      ? []
      : [
          {
            name: angleUnit(e),
            width: '48px',
            value: ({ angle }: BenchRow) => e.toAngle(angle),
            decimals: angleDecimals(e),
          },
        ]),
    { name: 'miss', width: '52px', value: ({ miss }) => miss },
    { name: 'px', width: '52px', value: ({ error }) => error && Math.hypot(...error), decimals: 1 },
  ];
  return (
    <>
      <div className="rule">
        In the picture’s camera <em>{e.conventions.angles.unit}</em>
      </div>
      <div className="row">
        <span className="label">Shake</span>
        <Field at={['shake', 'yaw']} />
        <Field at={['shake', 'pitch']} />
        {flat && <Field at={['shake', 'roll']} />}
      </div>
      {!flat && (
        <div className="row">
          <span className="label" />
          <Field at={['shake', 'roll']} />
          <Field at="recoil" />
        </div>
      )}
      <div className="row">
        <span className="label">Offset</span>
        <Field at={['shake', 'offset', 0]} />
        <Field at={['shake', 'offset', 1]} />
      </div>
      <div className="row">
        <span className="label">Turns</span>
        <Field at="turnRate" />
        <Field at="frameRate" />
      </div>
      {flat && (
        <div className="row">
          <span className="label">Scroll</span>
          <Field at="velocity" />
        </div>
      )}
      <div className="row">
        <span className="label">Screen</span>
        <select
          className="select"
          aria-label="The other screen"
          value={Math.min(slice.screen, Math.max(0, project.screens.sizes.length - 1))}
          onChange={({ target }) =>
            change('choose the other screen', (draft) => void (draft.screen = Number(target.value)))
          }
        >
          {project.screens.sizes.map((size, i) => (
            <option key={i} value={i}>
              {size.name} ({size.width} × {size.height})
            </option>
          ))}
        </select>
      </div>
      <div className="rule">
        Rays <WorkingButton of="miss" />{' '}
        <em>{flat ? `miss in ${project.unit}` : `miss at range ${figure(looked.range, 1)}`}</em>
      </div>
      {late && (
        <p className="warning" data-testid="late-ray">
          By the order of a frame in Motion the pointer picks before the camera has moved: at this moment the ray misses
          by {figure(late.miss, 2)} {project.unit}
          {late.pixels === null ? '' : `, ${figure(late.pixels, 1)} pixels`}.
        </p>
      )}
      <DataList
        name="faults"
        rows={rows}
        keyOf={({ fault }) => fault}
        columns={columns}
        chosen={slice.fault}
        onChoose={({ fault }) => change('choose a fault', (draft) => void (draft.fault = fault))}
      />
      {chosen ? (
        <div className="result">
          <p className="verdict-line" data-testid="fault-verdict">
            {chosen.miss < 1e-9 && (chosen.error === null || Math.hypot(...chosen.error) < 1e-6)
              ? `Nothing is off by “${faultWords[chosen.fault].name}” here.`
              : `Off by ${figure(chosen.miss, 2)} ${project.unit} at the target${
                  chosen.error
                    ? `, ${figure(Math.hypot(...chosen.error), 1)} pixels in the picture`
                    : ', and out of the picture'
                }.`}
          </p>
          <p className="text-note leading-4" data-testid="fault-mend">
            {faultWords[chosen.fault].mend}
          </p>
          <button
            className="text-button"
            onClick={() => change('put the second reticle away', (draft) => void (draft.fault = null))}
          >
            Put the second reticle away
          </button>
        </div>
      ) : (
        <p className="text-note leading-4 text-ink2">
          Choose a row: it is drawn as a second reticle, joined to the first.
        </p>
      )}
    </>
  );
}
