import type { ReactNode } from 'react';
import { anglesOfBasis } from '../../../core/camera/orientation';
import { fieldOfView } from '../../../core/camera/projection';
import type { Vec3 } from '../../../core/math/vec3';
import { addScaled } from '../../../core/math/vec3';
import type { ProjectCamera } from '../../../formats/project';
import type { Draft } from 'immer';
import { setProjectionKind } from '../../shell/actions';
import { useSituation } from '../../state/derive';
import { edit } from '../../state/document';
import { Choice } from '../../ui/Choice';
import { editable, figure } from '../../ui/figures';
import { NumberField } from '../../ui/NumberField';
import { anglesIn, lengths } from '../../ui/parseNumber';

const degrees = (radians: number) => (radians * 180) / Math.PI;

/** The camera's numbers, in the conventions in force. What is wrong with it stands here with its mend. */
export function CameraSection() {
  const { project, expression: e, frame, seen, chain } = useSituation();
  const { camera, unit } = project;
  const { position, orientation: o, projection: p } = camera;
  const angleUnit = e.conventions.angles.unit;
  const mark = angleUnit === 'degrees' ? '°' : 'rad';
  const step = angleUnit === 'degrees' ? 1 : 0.01;
  const change = (name: string, recipe: (camera: Draft<ProjectCamera>) => void, gesture: string | null = null) =>
    edit(name, (draft) => recipe(draft.camera), gesture);
  const shownAngles = (a: { yaw: number; pitch: number; roll: number }) => {
    const k = Math.PI / 180;
    return e.toAngles({ yaw: a.yaw * k, pitch: a.pitch * k, roll: a.roll * k });
  };
  const target = o.kind === 'lookAt' ? o.target : null;

  const vector = (label: string, value: Vec3, set: (next: Vec3, gesture: string) => void) => (
    <div className="row">
      <span className="label">{label}</span>
      {e.toWorld(value).map((v, i) => (
        <NumberField
          key={i}
          label={'xyz'[i]!}
          name={`${label} ${'xyz'[i]}`}
          width="33%"
          value={v}
          shown={(n) => figure(n, 2)}
          units={lengths}
          onChange={(n, gesture) => {
            const next = [...e.toWorld(value)];
            next[i] = n;
            set(e.fromWorld(next as unknown as Vec3), gesture);
          }}
        />
      ))}
    </div>
  );
  const number = (
    label: string,
    value: number,
    set: (next: number, gesture: string) => void,
    options: { unit?: string; units?: typeof lengths; step?: number },
    trailing: ReactNode = null,
  ) => (
    <div className="row wide">
      <span className="label">{label}</span>
      <NumberField
        name={label}
        width={104}
        value={value}
        shown={(v) => editable(Number(v.toPrecision(6)))}
        onChange={set}
        {...options}
      />
      {trailing}
    </div>
  );

  const setOrientationKind = (kind: 'angles' | 'lookAt') => {
    if (kind === o.kind) return;
    const a = anglesOfBasis(frame);
    const reach = chain.ok && chain.value.parts[2] > 0 ? chain.value.parts[2] : 50;
    change(kind === 'angles' ? 'aim by angles' : 'aim at a point', (draft) => {
      draft.orientation =
        kind === 'angles'
          ? { kind: 'angles', yaw: degrees(a.yaw), pitch: degrees(a.pitch), roll: degrees(a.roll) }
          : { kind: 'lookAt', target: [...addScaled(frame.eye, frame.forward, reach)] };
    });
  };

  return (
    <section aria-label="The camera" id="camera">
      <h2>The camera</h2>
      {seen.problems.map(({ path, message }) => (
        <p key={path} className="field-note" role="alert">
          <code>{path.replace(/^camera\./, '')}</code> {message} The pictures show the last camera that could be.
        </p>
      ))}
      {vector('Eye', position, (next, gesture) =>
        change('move the camera', (draft) => void (draft.position = [...next]), gesture),
      )}
      <div className="row">
        <span className="label">Aim</span>
        <Choice
          name="Aim"
          value={o.kind}
          options={[
            { value: 'angles', label: 'by angles' },
            { value: 'lookAt', label: 'at a point' },
          ]}
          onChange={setOrientationKind}
        />
      </div>
      {o.kind === 'angles'
        ? (['yaw', 'pitch', 'roll'] as const).map((name) => (
            <div className="row wide" key={name}>
              <span className="label">{name[0]!.toUpperCase() + name.slice(1)}</span>
              <NumberField
                name={name}
                width={104}
                unit={mark}
                step={step}
                value={shownAngles(o)[name]}
                units={anglesIn(angleUnit)}
                onChange={(v, gesture) =>
                  change(
                    'turn the camera',
                    (draft) => {
                      const read = e.fromAngles({ ...shownAngles(o), [name]: v });
                      if (draft.orientation.kind === 'angles')
                        draft.orientation[name] = Number(degrees(read[name]).toPrecision(14));
                    },
                    gesture,
                  )
                }
              />
              <span className="text-[11.5px] text-ink2">+ is {e.conventions.angles[name]}</span>
            </div>
          ))
        : target &&
          vector('Look at', target, (next, gesture) =>
            change(
              'aim the camera',
              (draft) => void (draft.orientation = { kind: 'lookAt', target: [...next] }),
              gesture,
            ),
          )}
      <div className="row">
        <span className="label">Lens</span>
        <Choice
          name="Lens"
          value={p.kind}
          options={[
            { value: 'perspective', label: 'perspective' },
            { value: 'orthographic', label: 'orthographic' },
          ]}
          onChange={setProjectionKind}
        />
      </div>
      {p.kind === 'perspective'
        ? number(
            'Vertical field',
            e.toAngle((p.verticalFov * Math.PI) / 180),
            (v, gesture) =>
              change(
                'change the field of view',
                (draft) => {
                  if (draft.projection.kind === 'perspective')
                    draft.projection.verticalFov = Number(degrees(e.fromAngle(v)).toPrecision(14));
                },
                gesture,
              ),
            { unit: mark, units: anglesIn(angleUnit), step },
          )
        : number(
            'Height',
            p.height,
            (v, gesture) =>
              change(
                'change the height seen',
                (draft) => {
                  if (draft.projection.kind === 'orthographic') draft.projection.height = v;
                },
                gesture,
              ),
            { unit, units: lengths },
          )}
      {number(
        'Near',
        p.near,
        (v, gesture) => change('move near', (draft) => void (draft.projection.near = v), gesture),
        { unit, units: lengths },
      )}
      {p.far === null ? (
        <div className="row wide">
          <span className="label">Far</span>
          <span>infinite</span>
          <button
            className="plain-button ml-auto"
            onClick={() =>
              change('bring far in', (draft) => void (draft.projection.far = Math.max(1000, p.near * 100)))
            }
          >
            Make it finite
          </button>
        </div>
      ) : (
        number(
          'Far',
          p.far,
          (v, gesture) => change('move far', (draft) => void (draft.projection.far = v), gesture),
          { unit, units: lengths },
          p.kind === 'perspective' && (
            <button
              className="plain-button ml-auto"
              onClick={() =>
                change('let far be infinite', (draft) => {
                  if (draft.projection.kind === 'perspective') draft.projection.far = null;
                })
              }
            >
              Infinite
            </button>
          ),
        )
      )}
      <div className="row wide">
        <span className="label">Horizontal field</span>
        <span className="value font-mono">
          {frame.kind === 'perspective'
            ? `${figure(e.toAngle(fieldOfView(frame.extents.right - frame.extents.left, frame.near)), angleUnit === 'degrees' ? 2 : 4)} ${mark}`
            : `${figure(frame.extents.right - frame.extents.left, 2)} ${unit}`}
        </span>
      </div>
    </section>
  );
}
