import { useState } from 'react';
import { type PlacedBody } from '../../../core/bodies/body';
import { eulerOf, eulerOrders, quatOfEuler, type EulerOrder } from '../../../core/math/euler';
import { normalizeQuat, quatAbout, type Quat } from '../../../core/math/quat';
import type { Vec3 } from '../../../core/math/vec3';
import type { Project } from '../../../formats/project';
import { useMoment } from '../../state/tempo';
import { edit } from '../../state/document';
import { angleUnit } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { NumberField, type NumberInputProps } from '../../sheet/NumberField';
import { anglesIn, lengths } from '../../ui/parseNumber';

/** Where the node lies in its parent's space, and how large it is. */
export function Place({ own }: { own: PlacedBody }) {
  const { project, points, flat } = useMoment();
  const { id, position, shape } = own.body;
  const { name } = project.bodies.find((one) => one.id === id)!;
  const change: Change = (what, recipe, gesture) =>
    edit(`${what} ${name}`, (draft) => recipe(draft.bodies.find((one) => one.id === id) as Project['bodies'][number]), gesture); // prettier-ignore
  const there = points.show(position);
  const positive = (v: number) => (v > 0 ? null : 'A size must be above 0.');
  return (
    <>
      <div className="row mt-1">
        <span className="label">Position</span>
        {there.map((value, i) => (
          <NumberField
            key={i}
            label={points.letters[i]}
            name={`Position ${points.letters[i]}`}
            width={flat ? '50%' : '33%'}
            value={value}
            shown={(v) => figure(v, 2)}
            units={lengths}
            onChange={(v, gesture) => {
              const next = points.read(there.map((old, k) => (k === i ? v : old)));
              change('move', (body) => void (body.position = [next[0], next[1], flat ? 0 : next[2]]), gesture);
            }}
          />
        ))}
      </div>
      <Rotation own={own} change={change} />
      {shape.kind !== 'sphere' && shape.kind !== 'point' && (
        <Sizes
          name="Scale"
          value={own.body.scale}
          step={0.1}
          refuse={(v) => (v === 0 ? 'A scale of 0 flattens it. Give another.' : null)}
          onChange={(next, gesture) => change('scale', (body) => void (body.scale = [...next]), gesture)}
        />
      )}
      {shape.kind === 'box' && (
        <Sizes
          name="Dimensions"
          value={shape.size}
          units={lengths}
          shown={(v) => figure(v, 2)}
          refuse={positive}
          onChange={(next, gesture) =>
            change('size', (body) => void (body.shape = { kind: 'box', size: [...next] }), gesture)
          }
        />
      )}
      {shape.kind === 'sphere' && (
        <div className="row">
          <span className="label">Radius</span>
          <NumberField
            name="Radius"
            width={110}
            value={shape.radius}
            units={lengths}
            refuse={positive}
            onChange={(radius, gesture) =>
              change('size', (body) => void (body.shape = { kind: 'sphere', radius }), gesture)
            }
          />
        </div>
      )}
    </>
  );
}

/** Numbers that go along the axes, whichever way those point. */
function Sizes({
  name,
  value,
  onChange,
  ...field
}: Pick<NumberInputProps, 'step' | 'units' | 'shown' | 'refuse'> & {
  name: string;
  value: Vec3;
  onChange: (value: Vec3, gesture: string) => void;
}) {
  const { codec: e, points, flat } = useMoment();
  const shown = e.toSizes(value);
  return (
    <div className={`row${name.length > 8 ? ' flex-wrap' : ''}`}>
      {/* A long word stands on a line of its own. */}
      <span className={name.length > 8 ? 'label long' : 'label'}>{name}</span>
      {points.letters.map((letter) => {
        const i = 'xyz'.indexOf(letter);
        return (
          <NumberField
            key={letter}
            label={letter}
            name={`${name} ${letter}`}
            width={flat ? '50%' : '33%'}
            value={shown[i]!}
            {...field}
            onChange={(v, gesture) =>
              onChange(e.fromSizes(shown.map((old, k) => (k === i ? v : old)) as unknown as Vec3), gesture)
            }
          />
        );
      })}
    </div>
  );
}

type Change = (what: string, recipe: (body: Project['bodies'][number]) => void, gesture: string | null) => void;

/** How a node is turned in its parent's space: by angles in an order, or by a quaternion. */
function Rotation({ own, change }: { own: PlacedBody; change: Change }) {
  const { codec: e, flat } = useMoment();
  const [form, setForm] = useState<EulerOrder | 'quaternion'>('yxz');
  const unit = e.conventions.angles.unit;
  const shown = e.toRotation(own.body.rotation);
  const turn = (q: Quat, gesture: string) =>
    change('turn', (body) => void (body.rotation = [...e.fromRotation(q)]), gesture);
  const angle = (v: number) => Number(e.toAngle(v).toPrecision(12));
  const mark = angleUnit(e);
  if (flat) {
    const [q] = [own.body.rotation];
    return (
      <>
        <div className="row">
          <span className="label">Rotation</span>
          <NumberField
            name="Rotation"
            width={110}
            unit={mark}
            units={anglesIn(unit)}
            value={angle(2 * Math.atan2(q[2], q[3]))}
            onChange={(v, gesture) =>
              change('turn', (body) => void (body.rotation = [...quatAbout([0, 0, 1], e.fromAngle(v))]), gesture)
            }
          />
        </div>
        <p className="text-small text-ink2">+ is counter-clockwise as you see it</p>
      </>
    );
  }
  const order = form === 'quaternion' ? 'yxz' : form;
  const angles = eulerOf(shown, order);
  return (
    <>
      <div className="row">
        <span className="label">Rotation</span>
        <select
          className="select"
          aria-label="How the rotation is said"
          value={form}
          onChange={({ target }) => setForm(target.value as typeof form)}
        >
          {eulerOrders.map((one) => (
            <option key={one} value={one}>
              angles, {[...one].join(' then ')}
            </option>
          ))}
          <option value="quaternion">quaternion</option>
        </select>
      </div>
      <div className="row">
        {form === 'quaternion'
          ? shown.map((v, i) => (
              <NumberField
                key={i}
                label={'xyzw'[i]!}
                name={`Rotation ${'xyzw'[i]}`}
                width="25%"
                step={0.01}
                value={v}
                shown={(n) => figure(n, 3)}
                refuse={(n) =>
                  normalizeQuat(shown.map((old, k) => (k === i ? n : old)) as unknown as Quat)
                    ? null
                    : 'A quaternion of length 0 turns nothing.'
                }
                onChange={(n, gesture) => {
                  const q = normalizeQuat(shown.map((old, k) => (k === i ? n : old)) as unknown as Quat);
                  if (q) turn(q, gesture);
                }}
              />
            ))
          : [...order].map((letter, i) => (
              <NumberField
                key={letter}
                label={letter}
                name={`Rotation about ${letter}`}
                width="33%"
                unit={mark}
                units={anglesIn(unit)}
                value={angle(angles[i]!)}
                shown={(n) => figure(n, unit === 'degrees' ? 2 : 4)}
                onChange={(v, gesture) => {
                  const next = angles.map((old, k) => (k === i ? e.fromAngle(v) : old)) as unknown as Vec3;
                  turn(quatOfEuler(next, order), gesture);
                }}
              />
            ))}
      </div>
    </>
  );
}
