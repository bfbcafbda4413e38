import { worldToPixel } from '../../../core/convert/project';
import { addScaled, distance } from '../../../core/math/vec3';
import { cameraAt } from '../../../core/motion/cameraMotion';
import { journeyAt } from '../../state/journey';
import type { Moment } from '../../state/moment';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { toggleShake } from './edits';
import { TrackField } from './fields';
import { journeyOf, trackOf } from './journey';
import { type MotionState } from './kept';
import { aheadOf } from './series';
import { subjectAt, subjectOf } from './subject';

/**
 * Where the middle of the picture is, held against where the camera would look without its shake: what
 * a ray made from the controller's rotation is off by. Pixels, and units at the subject.
 */
function missedBy(now: Moment<MotionState>): { readonly pixels: number; readonly units: number } | null {
  const journey = journeyOf(now);
  const subject = subjectOf(now);
  if (journey?.kind !== 'space' || !journey.motion.shake || !subject) return null;
  const [shaken, still] = [journeyAt(journey, now.time), cameraAt(journey.frame, { ...journey.motion, shake: null }, now.time)]; // prettier-ignore
  if (!shaken.ok || !still.ok) return null;
  const ahead = aheadOf(shaken.value, subjectAt(subject, now.time));
  if (!(ahead > 0)) return null;
  const [right, wrong] = [shaken.value, still.value].map((one) => addScaled(one.eye, one.forward, ahead));
  const shown = worldToPixel(shaken.value, wrong!);
  const { viewport: v } = shaken.value;
  return shown.ok
    ? { pixels: Math.hypot(shown.value[0] - v.x - v.width / 2, shown.value[1] - v.y - v.height / 2), units: distance(right!, wrong!) } // prettier-ignore
    : null;
}

const ShakeField = ({ at, unit }: { at: string | readonly (string | number)[]; unit?: string }) => (
  <TrackField at={['shake', ...(typeof at === 'string' ? [at] : at)]} {...(unit !== undefined && { unit })} />
);

/** The shake of the track. */
export function Shake() {
  const now = useTaskMoment<MotionState>('motion');
  const shake = trackOf(now)?.shake ?? null;
  const missed = missedBy(now);
  return (
    <>
      <label className="row check">
        <input type="checkbox" checked={shake !== null} onChange={toggleShake} />A shake upon it
      </label>
      {shake && (
        <>
          {missed && (
            <p className="verdict-line" data-testid="shake-miss">
              Aimed by the gaze without the shake, a shot at the middle of the picture misses by{' '}
              {figure(missed.pixels, 1)} pixels, {figure(missed.units, 2)} {now.project.unit} at that distance. Make the
              ray from the camera that drew the picture.
            </p>
          )}
          <div className="row">
            <ShakeField at="strength" />
            <ShakeField at="decay" unit="/s" />
          </div>
          <div className="row">
            <ShakeField at="frequency" unit="/s" />
            <ShakeField at="seed" />
          </div>
          <div className="row">
            <ShakeField at="yaw" />
            <ShakeField at="pitch" />
          </div>
          <div className="row">
            <ShakeField at="roll" />
          </div>
          <div className="row">
            <ShakeField at={['offset', 0]} />
            <ShakeField at={['offset', 1]} />
          </div>
        </>
      )}
    </>
  );
}
