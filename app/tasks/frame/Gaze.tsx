import { radians, tidyDegrees } from '../../../core/math/angle';
import { cameraInSpace } from '../../../formats/camera';
import { useState, type ReactNode } from 'react';
import { anglesOfBasis, orthonormalError, repairBasis, worldUp, type Basis } from '../../../core/camera/orientation';
import { normalizeQuat, type Quat } from '../../../core/math/quat';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import { moveEye } from '../../edits/camera';
import { useSettings } from '../../state/settings';
import { currentMoment, useMoment } from '../../state/tempo';
import { editCamera, endGesture } from '../../state/document';
import { angleUnit } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { Lozenge } from '../../ui/icons';
import { NumberField } from '../../sheet/NumberField';
import { anglesIn, lengths } from '../../ui/parseNumber';
import { holdBy, setBasis, subjectOf, tidy } from './edits';
import { Line, Number6, VectorLine } from './Line';

const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/**
 * Where the camera stands and looks: a point, angles, a quaternion and a basis, one of them held
 * and the others in step.
 */
export function Gaze() {
  const moment = useMoment();
  const { project, codec: e, frame } = moment;
  const { position, orientation: o } = cameraInSpace(project);
  const target = o.kind === 'lookAt' ? o.target : addScaled(frame.eye, frame.forward, subjectOf(moment).ahead);
  const own = o.kind === 'lookAt' && o.up ? { up: triple(o.up) } : {};
  return (
    <>
      <VectorLine
        label="Eye"
        source="eye"
        value={e.toWorld(position)}
        onChange={(v, gesture) =>
          editCamera('move the camera', (c) => void (c.position = triple(e.fromWorld(v))), gesture)
        }
      />
      <MoveBy />
      <Held kind="lookAt" on={o.kind === 'lookAt'} title="Looks at a point" aside="kept as the eye moves">
        <VectorLine
          label="Point"
          name="Look at"
          value={e.toWorld(target)}
          onChange={(v, gesture) =>
            editCamera(
              'aim the camera',
              (c) => void (c.orientation = { kind: 'lookAt', target: triple(e.fromWorld(v)), ...own }),
              gesture,
            )
          }
        />
        <VectorLine
          label="Up"
          name="Look-at up"
          value={e.toWorld(o.kind === 'lookAt' ? (o.up ?? worldUp) : worldUp)}
          isLength={false}
          onChange={(v, gesture) => {
            const up = triple(e.fromWorld(v));
            editCamera(
              'change the up vector',
              (c) => {
                const isWorlds = up.every((n, i) => n === worldUp[i]);
                c.orientation = { kind: 'lookAt', target: triple(target), ...(!isWorlds && { up }) };
              },
              gesture,
            );
          }}
        />
      </Held>
      <Held kind="angles" on={o.kind === 'angles'} title="Angles" aside="yaw, then pitch, then roll">
        <Angles />
        <PitchLimit />
      </Held>
      <Held kind="basis" on={o.kind === 'basis'} title="Basis and quaternion" aside="of the world">
        <BasisLines />
        <Quaternion />
      </Held>
    </>
  );
}

/** A form of the gaze, with the lozenge that says whether it is the one held. */
function Held({
  kind,
  on,
  title,
  aside,
  children,
}: {
  kind: 'lookAt' | 'angles' | 'basis';
  on: boolean;
  title: string;
  aside: string;
  children: ReactNode;
}) {
  return (
    <div role="group" aria-label={title}>
      <div className={`route rule-route${on ? ' is-on' : ''}`}>
        <button className="pick" aria-pressed={on} onClick={() => !on && holdBy(kind)}>
          <Lozenge />
          <span>
            {title} <span className="aside">{on ? 'held' : aside}</span>
          </span>
        </button>
      </div>
      {children}
    </div>
  );
}

function Angles() {
  const { project, codec: e, frame } = useMoment();
  const o = cameraInSpace(project).orientation;
  const unit = e.conventions.angles.unit;
  const now =
    o.kind === 'angles'
      ? { yaw: radians(o.yaw), pitch: radians(o.pitch), roll: radians(o.roll) }
      : anglesOfBasis(frame);
  const shown = e.toAngles(now);
  return (['yaw', 'pitch', 'roll'] as const).map((name) => (
    <Line key={name} label={name[0]!.toUpperCase() + name.slice(1)}>
      <Number6
        name={name}
        source={name === 'yaw' ? 'gaze' : undefined}
        unit={angleUnit(e)}
        step={unit === 'degrees' ? 1 : 0.01}
        value={tidy(shown[name])}
        units={anglesIn(unit)}
        onChange={(v, gesture) =>
          editCamera(
            'turn the camera',
            (c) => {
              const read = e.fromAngles({ ...shown, [name]: v });
              const kept = c.orientation.kind === 'angles' ? c.orientation : null;
              // The two that were not typed stay as they were kept.
              const of = (one: 'yaw' | 'pitch' | 'roll') => (kept && one !== name ? kept[one] : tidyDegrees(read[one]));
              c.orientation = { kind: 'angles', yaw: of('yaw'), pitch: of('pitch'), roll: of('roll') };
            },
            gesture,
          )
        }
      />
      <span className="text-small text-ink2">+ is {e.conventions.angles[name]}</span>
    </Line>
  ));
}

/** How far the hand may turn the camera up and down in a picture; what is typed is taken as it is. */
function PitchLimit() {
  const { codec: e } = useMoment();
  const limit = useSettings((state) => state.pitchLimit);
  const { unit } = e.conventions.angles;
  return (
    <Line label="Pitch limit">
      <Number6
        name="Pitch limit"
        unit={angleUnit(e)}
        step={unit === 'degrees' ? 1 : 0.01}
        value={tidy(e.toAngle(radians(limit)))}
        units={anglesIn(unit)}
        refuse={(v) => (e.fromAngle(v) > 0 && e.fromAngle(v) <= Math.PI / 2 ? null : 'It lies above 0° and up to 90°.')}
        onChange={(v) => useSettings.setState({ pitchLimit: tidyDegrees(e.fromAngle(v)) })}
      />
      <span className="text-small text-ink2">for the hand</span>
    </Line>
  );
}

/** Moves the camera, what it looks at along with it, by an amount along its own axes. */
function MoveBy() {
  const [by, setBy] = useState<Vec3>([0, 0, 0]);
  const names = ['right', 'up', 'ahead'] as const;
  const move = () => {
    const { frame } = currentMoment();
    const { right, up, forward } = frame;
    const to = addScaled(addScaled(addScaled(frame.eye, right, by[0]), up, by[1]), forward, by[2]);
    moveEye(to, 'move by', true);
    endGesture();
  };
  return (
    <div className="row">
      <span className="label">Move</span>
      {names.map((name, i) => (
        <NumberField
          key={name}
          label={name[0]!}
          name={`Move ${name}`}
          width="25%"
          value={by[i]!}
          units={lengths}
          onChange={(v) => setBy((now) => now.map((old, k) => (k === i ? v : old)) as unknown as Vec3)}
        />
      ))}
      <button className="plain-button" disabled={by.every((v) => v === 0)} onClick={move} title="Right, up and ahead">
        Move
      </button>
    </div>
  );
}

const axes = ['right', 'up', 'forward'] as const;

/** The basis as it is kept, how far it is from orthonormal, and its repair. */
function BasisLines() {
  const { project, codec: e, frame } = useMoment();
  const o = cameraInSpace(project).orientation;
  const kept: Basis = o.kind === 'basis' ? o : frame;
  const error = orthonormalError(kept);
  const repaired = repairBasis(kept);
  return (
    <>
      {axes.map((axis) => (
        <VectorLine
          key={axis}
          label={axis === 'forward' ? 'Ahead' : axis === 'right' ? 'Right' : 'Up'}
          name={`Basis ${axis === 'forward' ? 'ahead' : axis}`}
          value={e.toWorld(kept[axis])}
          decimals={3}
          isLength={false}
          onChange={(v, gesture) => setBasis({ ...pick(kept), [axis]: e.fromWorld(v) }, gesture)}
        />
      ))}
      {error > 1e-12 && (
        <p className={error > 1e-6 ? 'field-note' : 'text-small text-ink2'}>
          {error >= 2
            ? 'The basis is mirrored: right, up and ahead are of the other hand. '
            : `Off orthonormal by ${error.toExponential(2)}; up to 10⁻⁶ is taken for rounding and repaired. `}
          {repaired && (
            <button className="plain-button" onClick={() => setBasis(repaired)}>
              Orthonormalise, ahead kept
            </button>
          )}
        </p>
      )}
    </>
  );
}
const pick = ({ right, up, forward }: Basis): Basis => ({ right, up, forward });

/**
 * The quaternion that rotates view axes into the world: typing one part brings all four back to
 * length 1.
 */
function Quaternion() {
  const { codec: e, frame } = useMoment();
  const quaternion = e.toQuaternion(frame);
  if (!quaternion)
    return (
      <p className="text-small leading-4 text-ink2">
        No quaternion: the world is {e.handedness.world}-handed and the view {e.handedness.view}-handed, and no rotation
        leads from one to the other.
      </p>
    );
  return (
    <div className="row" style={{ gap: 2 }} role="group" aria-label="Quaternion">
      {quaternion.map((v, i) => (
        <NumberField
          key={i}
          label={'xyzw'[i]!}
          name={`Quaternion ${'xyzw'[i]}`}
          width="25%"
          value={v}
          step={0.01}
          shown={(n) => figure(n, 3)}
          refuse={(n) =>
            normalizeQuat(quaternion.map((old, k) => (k === i ? n : old)) as unknown as Quat)
              ? null
              : 'A quaternion of length 0 turns nothing.'
          }
          onChange={(n, gesture) => {
            const unit = normalizeQuat(quaternion.map((old, k) => (k === i ? n : old)) as unknown as Quat);
            const basis = unit && e.fromQuaternion(unit);
            if (basis) setBasis(basis, gesture);
          }}
        />
      ))}
    </div>
  );
}
