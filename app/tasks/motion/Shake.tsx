import { worldToPixel } from '../../../core/convert/project';
import { addScaled, distance } from '../../../core/math/vec3';
import { cameraAt } from '../../../core/motion/cameraMotion';
import { journeyAt } from '../../state/journey';
import type { Moment } from '../../state/moment';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { lengths } from '../../ui/parseNumber';
import { changeTrack, toggleShake } from './edits';
import { AngleNum, Num } from './fields';
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

/** A shake upon the track, whatever it is. */
export function Shake() {
  const now = useTaskMoment<MotionState>('motion');
  const shake = trackOf(now)?.shake ?? null;
  const missed = missedBy(now);
  const set = (words: string, recipe: (d: NonNullable<typeof shake>) => void, gesture: string) =>
    changeTrack(words, (track) => track.shake && recipe(track.shake), gesture);
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
            <Num
              name="Strength of the shake"
              label="strength"
              source="shake"
              step={0.1}
              value={shake.strength}
              refuse={(v) => (v >= 0 && v <= 1 ? null : 'A strength lies between 0 and 1.')}
              set={(v, g) => set('set the strength', (d) => void (d.strength = v), g)}
            />
            <Num
              name="Decay of the shake"
              label="falls"
              unit="/s"
              step={0.05}
              value={shake.decay}
              refuse={(v) => (v >= 0 ? null : 'It falls by 0 or more a second.')}
              set={(v, g) => set('set the decay', (d) => void (d.decay = v), g)}
            />
          </div>
          <div className="row">
            <Num
              name="Frequency of the shake"
              label="swings"
              unit="/s"
              step={0.1}
              value={shake.frequency}
              refuse={(v) => (v >= 0 ? null : 'A frequency is 0 or more.')}
              set={(v, g) => set('set the frequency', (d) => void (d.frequency = v), g)}
            />
            <Num
              name="Seed of the shake"
              label="seed"
              value={shake.seed}
              refuse={(v) => (Number.isInteger(v) ? null : 'A seed is a whole number.')}
              set={(v, g) => set('set the seed', (d) => void (d.seed = v), g)}
            />
          </div>
          {([['yaw', 'pitch'], ['roll']] as const).map((row) => (
            <div className="row" key={row[0]}>
              {row.map((of) => (
                <AngleNum
                  key={of}
                  name={`Shake ${of}`}
                  label={of}
                  of={of}
                  value={shake[of]}
                  set={(v, g) => set(`set the ${of} of the shake`, (d) => void (d[of] = v), g)}
                />
              ))}
            </div>
          ))}
          <div className="row">
            {([0, 1] as const).map((i) => (
              <Num
                key={i}
                name={i === 0 ? 'Shake right' : 'Shake up'}
                label={i === 0 ? 'right' : 'up'}
                step={0.1}
                value={shake.offset[i]}
                units={lengths}
                set={(v, g) => set('set how far it shakes', (d) => void (d.offset[i] = v), g)}
              />
            ))}
          </div>
        </>
      )}
    </>
  );
}
