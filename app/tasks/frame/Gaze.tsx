import { cameraInSpace } from '../../../formats/camera';
import type { ReactNode } from 'react';
import { anglesOfBasis, orthonormalError, repairBasis, type Basis } from '../../../core/camera/orientation';
import { normalizeQuat, type Quat } from '../../../core/math/quat';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import { useSituation } from '../../state/derive';
import { editCamera } from '../../state/document';
import { figure } from '../../ui/figures';
import { Lozenge } from '../../ui/icons';
import { NumberField } from '../../ui/NumberField';
import { anglesIn } from '../../ui/parseNumber';
import { degrees, holdBy, radians, setBasis, subjectOf, tidy } from './edits';
import { Line, Number6, VectorLine } from './Line';

const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/** Where the camera stands and looks: a point, angles, a quaternion and a basis, one of them held and the others in step. */
export function Gaze() {
  const situation = useSituation();
  const { project, expression: e, frame } = situation;
  const { position, orientation: o } = cameraInSpace(project);
  const target = o.kind === 'lookAt' ? o.target : addScaled(frame.eye, frame.forward, subjectOf(situation).ahead);
  return (
    <section aria-label="Eye and gaze" id="gaze">
      <h2>Eye and gaze</h2>
      <VectorLine
        label="Eye"
        value={e.toWorld(position)}
        onChange={(v, gesture) =>
          editCamera('move the camera', (c) => void (c.position = triple(e.fromWorld(v))), gesture)
        }
      />
      <Held kind="lookAt" on={o.kind === 'lookAt'} title="Looks at a point" aside="kept as the eye moves">
        <VectorLine
          label="Point"
          name="Look at"
          value={e.toWorld(target)}
          onChange={(v, gesture) =>
            editCamera(
              'aim the camera',
              (c) => void (c.orientation = { kind: 'lookAt', target: triple(e.fromWorld(v)) }),
              gesture,
            )
          }
        />
      </Held>
      <Held kind="angles" on={o.kind === 'angles'} title="Angles" aside="yaw, then pitch, then roll">
        <Angles />
      </Held>
      <Held kind="basis" on={o.kind === 'basis'} title="Basis and quaternion" aside="of the world">
        <BasisLines />
        <Quaternion />
      </Held>
    </section>
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
      <div className={`route rule-route${on ? ' on' : ''}`}>
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
  const { project, expression: e, frame } = useSituation();
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
        unit={unit === 'degrees' ? '°' : 'rad'}
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
              const of = (one: 'yaw' | 'pitch' | 'roll') => (kept && one !== name ? kept[one] : degrees(read[one]));
              c.orientation = { kind: 'angles', yaw: of('yaw'), pitch: of('pitch'), roll: of('roll') };
            },
            gesture,
          )
        }
      />
      <span className="text-[11.5px] text-ink2">+ is {e.conventions.angles[name]}</span>
    </Line>
  ));
}

const axes = ['right', 'up', 'forward'] as const;

/** The basis as it is kept, how far it is from orthonormal, and its repair. */
function BasisLines() {
  const { project, expression: e, frame } = useSituation();
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
        <p className={error > 1e-6 ? 'field-note' : 'text-[11.5px] text-ink2'}>
          {error >= 2
            ? 'The basis is mirrored: right, up and ahead are of the other hand. '
            : `Off orthonormal by ${error.toExponential(2)}; up to 10⁻⁶ is taken for rounding and repaired. `}
          {repaired && (
            <button className="plain-button" onClick={() => setBasis(repaired)}>
              Repair, ahead kept
            </button>
          )}
        </p>
      )}
    </>
  );
}
const pick = ({ right, up, forward }: Basis): Basis => ({ right, up, forward });

/** The quaternion that rotates view axes into the world: typing one part brings all four back to length 1. */
function Quaternion() {
  const { expression: e, frame } = useSituation();
  const quaternion = e.toQuaternion(frame);
  if (!quaternion)
    return (
      <p className="text-[11.5px] leading-4 text-ink2">
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
