import { letterOf } from '../../../core/conventions/axes';
import type { Ease } from '../../../core/motion/path';
import { fieldsOf } from '../../sheet/Field';
import { NumberField } from '../../sheet/NumberField';
import { useTaskMoment } from '../../state/tempo';
import { angleUnit } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { anglesIn, lengths } from '../../ui/parseNumber';
import { eases, motionState, type MotionState } from './kept';
import { easeWords } from './words';

type Triple = [number, number, number];
export type Set<T> = (value: T, gesture: string) => void;

/** One number of the slice. */
export function Num({
  name,
  label,
  value,
  set,
  unit,
  refuse,
  source,
  step,
  width = '50%',
  units,
  shown,
}: {
  name: string;
  label: string;
  value: number;
  set: Set<number>;
  unit?: string;
  refuse?: (v: number) => string | null;
  source?: string;
  step?: number;
  width?: string;
  units?: Readonly<Record<string, number>>;
  shown?: (v: number) => string;
}) {
  return (
    <NumberField
      {...{ name, label, value, width }}
      {...(unit !== undefined && { unit })}
      {...(refuse && { refuse })}
      {...(source !== undefined && { source })}
      {...(step !== undefined && { step })}
      {...(units && { units })}
      {...(shown && { shown })}
      onChange={set}
    />
  );
}

/** A place or a velocity as three fields (two on a flat world), in the conventions in force. */
export function PlaceFields({
  name,
  value,
  set,
  source,
}: {
  name: string;
  value: Readonly<Triple>;
  set: Set<Triple>;
  source?: string;
}) {
  const { points: form } = useTaskMoment<MotionState>('motion');
  const shown = form.show(value);
  const width = `${100 / shown.length}%`;
  return shown.map((v, i) => (
    <NumberField
      key={i}
      name={`${name} ${form.letters[i]}`}
      label={form.letters[i]!}
      source={i === 0 ? source : undefined}
      width={width}
      value={v}
      shown={(n) => figure(n, Math.abs(n) >= 100 ? 1 : 2)}
      units={lengths}
      onChange={(n, gesture) => set([...form.read(shown.map((old, k) => (k === i ? n : old)))] as Triple, gesture)}
    />
  ));
}

/** The fields of Motion's state. */
export const Field = fieldsOf('motion', motionState);

type FieldProps = Omit<Parameters<typeof Field>[0], 'at'>;
/** A field of the camera's track. */
export function TrackField({ at, ...rest }: FieldProps & { at: readonly (string | number)[] }) {
  const { project } = useTaskMoment<MotionState>('motion');
  return <Field at={['tracks', project.camera.id, ...at]} {...rest} />;
}
/** A field of the camera's travel. */
export const TravelField = ({ at, ...rest }: FieldProps & { at: string | readonly (string | number)[] }) => (
  <TrackField at={['travel', ...(typeof at === 'string' ? [at] : at)]} {...rest} />
);

/** The half widths of the dead zone along the world's axes. */
export function DeadZoneFields() {
  const { world, codec } = useTaskMoment<MotionState>('motion');
  const { right, up, forward } = codec.conventions.world;
  const axes = [right, up, forward].slice(0, world.dimensions).map(letterOf);
  return axes.map((axis, i) => (
    <TravelField key={i} at={['deadZone', i]} name={`Dead zone ${axis}`} label={axis} width={`${100 / axes.length}%`} />
  ));
}

/** An angle or a rate of one, in the unit and sense in force. */
export function AngleNum({
  name,
  label,
  of,
  value,
  set,
  refuse,
  perSecond = false,
  source,
  width = '50%',
}: {
  name: string;
  label: string;
  /** Which angle's sense it has; none for one without. */
  of: 'yaw' | 'pitch' | 'roll' | null;
  value: number;
  set: Set<number>;
  refuse?: (radians: number) => string | null;
  perSecond?: boolean;
  source?: string;
  width?: string;
}) {
  const { codec: e } = useTaskMoment<MotionState>('motion');
  const none = { yaw: 0, pitch: 0, roll: 0 };
  const out = (v: number) => (of ? e.toAngles({ ...none, [of]: v })[of] : e.toAngle(v));
  const back = (v: number) => (of ? e.fromAngles({ ...none, [of]: v })[of] : e.fromAngle(v));
  const { unit } = e.conventions.angles;
  const sign = angleUnit(e);
  const tidy = (v: number) => Number(v.toPrecision(12)) || 0;
  return (
    <NumberField
      {...{ name, label, width }}
      unit={perSecond ? `${sign}/s` : sign}
      source={source}
      value={tidy(out(value))}
      step={unit === 'degrees' ? 1 : 0.01}
      shown={(v) => figure(v, unit === 'degrees' ? 2 : 4)}
      units={anglesIn(unit)}
      refuse={(v) => refuse?.(back(v)) ?? null}
      onChange={(v, gesture) => set(back(v), gesture)}
    />
  );
}

/** How a way is spread over its time. */
export const EaseField = ({
  name,
  label,
  value,
  set,
}: {
  name: string;
  label: string;
  value: Ease;
  set: (to: Ease) => void;
}) => (
  <div className="row">
    <span className="label">{label}</span>
    <select className="select" aria-label={name} value={value} onChange={({ target }) => set(target.value as Ease)}>
      {eases.map((one) => (
        <option key={one} value={one}>
          {easeWords[one]}
        </option>
      ))}
    </select>
  </div>
);
