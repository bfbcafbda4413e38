import { angleText } from '../../ui/angles';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change, muzzleToEye } from './edits';
import { Field } from './fields';
import { aimAt, fallOf } from './rays';
import { useRay } from './Ray';

/** Aiming in two stages: the camera's ray to a target, the muzzle to the target, and what is in between. */
export function AimSection() {
  const { now, at, looked } = useRay();
  const { slice, codec: e, project } = now;
  const aim = aimAt(now, at);
  const fall = fallOf(now, looked, aim);
  const nameOf = (id: string | null) => project.bodies.find((body) => body.id === id)?.name ?? 'nothing';
  const [mx, my, mz] = slice.muzzle;
  const [tx, ty, tz] = aim.target;
  const way = Math.hypot(tx - mx, ty - my, tz - mz);
  return (
    <>
      <div className="row">
        <span className="label">Muzzle</span>
        <Field at="muzzle" width="33%" />
      </div>
      <div className="result">
        <p className={aim.blockedBy ? 'none' : 'verdict-line'} data-testid="aim-verdict">
          {aim.blockedBy
            ? `The camera sees ${aim.targetBody ? nameOf(aim.targetBody) : 'a point at the end of its reach'}, but the muzzle’s line to it is blocked by ${nameOf(aim.blockedBy)}, ${figure(aim.hit!.distance, 2)} from the muzzle.`
            : aim.targetBody
              ? `The muzzle’s line to ${nameOf(aim.targetBody)} is free.`
              : aim.hit
                ? `The camera’s ray meets nothing; aimed at its end, the muzzle would hit ${nameOf(aim.hit.body)}.`
                : 'Neither ray meets anything: it is aimed at the end of the camera’s reach.'}
        </p>
        <div className="line">
          muzzle to target
          <span className="right" data-testid="aim-way">
            {figure(way, 2)} {project.unit}
          </span>
        </div>
        <div className="line">
          between the rays <WorkingButton of="aimAngle" />
          <span className="right" data-testid="aim-angle">
            {angleText(e, aim.angle, 3)}
          </span>
        </div>
      </div>
      <label className="row check">
        <input
          type="checkbox"
          checked={slice.alongGaze}
          onChange={() => change('fire along the gaze or not', (draft) => void (draft.alongGaze = !draft.alongGaze))}
        />
        Show where it lands fired along the gaze
      </label>
      <div className="row wide">
        <span className="label">Along the gaze</span>
        <span className="ml-auto font-mono" data-testid="fall-off">
          {figure(fall.off, 2)} {project.unit} off
        </span>
      </div>
      <p className="text-note leading-4 text-ink2" data-testid="fall">
        {fall.hit
          ? `Fired along the camera’s ray it would hit ${nameOf(fall.hit.body)} ${figure(fall.hit.distance, 1)} away.`
          : 'Fired along the camera’s ray it would hit nothing.'}{' '}
        The ray that decides is the one from the muzzle to the target.
      </p>
      <button className="plain-button mt-1" onClick={muzzleToEye}>
        Bring the muzzle to the eye
      </button>
    </>
  );
}
