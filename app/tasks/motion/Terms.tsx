import type { Ease } from '../../../core/motion/path';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { lengths, seconds } from '../../ui/parseNumber';
import { WorkingButton } from '../../working/WorkingButton';
import { changeTrack } from './edits';
import { dollyDistances } from './journey';
import { AngleNum, EaseField, Num, PlaceFields, SizeFields } from './fields';
import type { MotionState, Travel, TravelKind } from './kept';
import { Keys } from './Keys';
import { Stretches } from './Stretches';

/** The numbers of a way of travelling. */
export function Terms({ travel: t }: { travel: Travel }) {
  const { project, flat, rest } = useTaskMoment<MotionState>('motion');
  const stops = t.kind === 'dollyZoom' ? dollyDistances(t, rest) : ([0, 0] as const);
  /** Changes the travel, if it is still of this kind. */
  const set = <K extends TravelKind>(
    kind: K,
    words: string,
    recipe: (draft: Extract<Travel, { kind: K }>) => void,
    gesture?: string,
  ) => changeTrack(words, ({ travel }) => travel.kind === kind && recipe(travel as Extract<Travel, { kind: K }>), gesture); // prettier-ignore
  const ease = (value: Ease, to: (ease: Ease) => void) => (
    <EaseField name="How it goes" label="Goes" value={value} set={to} />
  );
  switch (t.kind) {
    case 'rest':
      return null;
    case 'scroll':
      return (
        <div className="row">
          <span className="label" title="World units a second">
            per s
          </span>
          <PlaceFields
            name="Velocity"
            source="velocity"
            value={t.velocity}
            set={(v, g) => set('scroll', 'set the velocity', (d) => void (d.velocity = v), g)}
          />
        </div>
      );
    case 'follow':
      return (
        <>
          <div className="row">
            <span className="label">Follows</span>
            <select
              className="select"
              aria-label="The body that is followed"
              value={t.body}
              onChange={({ target }) => set('follow', 'follow another body', (d) => void (d.body = target.value))}
            >
              {!project.bodies.some(({ id }) => id === t.body) && <option value={t.body}>nobody</option>}
              {project.bodies.map(({ id, name, motion }) => (
                <option key={id} value={id}>
                  {name}
                  {motion ? ', moves' : ''}
                </option>
              ))}
            </select>
          </div>
          <div className="row">
            <Num
              name="Half-life"
              label="half-life"
              unit="s"
              source="halfLife"
              step={0.1}
              value={t.halfLife}
              units={seconds}
              refuse={(v) => (v >= 0 ? null : 'A half-life is 0 (at once) or more.')}
              set={(v, g) => set('follow', 'set the half-life', (d) => void (d.halfLife = v), g)}
            />
            <Num
              name="Look-ahead"
              label="ahead"
              unit="s"
              step={0.1}
              value={t.lookAhead}
              units={seconds}
              refuse={(v) => (v >= 0 ? null : 'It looks ahead by 0 seconds or more.')}
              set={(v, g) => set('follow', 'look ahead', (d) => void (d.lookAhead = v), g)}
            />
          </div>
          <p>
            <WorkingButton of="left" />
          </p>
          <div className="row">
            <span className="label" title="Half widths about the place held, in which it is not followed">
              Zone
            </span>
            <SizeFields
              name="Dead zone"
              value={t.deadZone}
              set={(v, g) => set('follow', 'set the dead zone', (d) => void (d.deadZone = v), g)}
            />
          </div>
          {flat && (
            <>
              <label className="row check">
                <input
                  type="checkbox"
                  checked={t.bounds !== null}
                  onChange={() =>
                    set('follow', 'keep the picture in bounds or not', (d) => {
                      d.bounds = d.bounds ? null : boundsOf(project);
                    })
                  }
                />
                The picture is kept in bounds
              </label>
              {t.bounds &&
                (['min', 'max'] as const).map((end) => (
                  <div className="row" key={end}>
                    <span className="label">{end === 'min' ? 'From' : 'To'}</span>
                    <PlaceFields
                      name={`Bounds ${end === 'min' ? 'from' : 'to'}`}
                      value={[...t.bounds![end], 0]}
                      set={([x, y], g) => set('follow', 'set the bounds', (d) => d.bounds && void (d.bounds[end] = [x, y]), g)} // prettier-ignore
                    />
                  </div>
                ))}
            </>
          )}
        </>
      );
    case 'orbit':
      return (
        <>
          <div className="row">
            <span className="label">Centre</span>
            <PlaceFields
              name="Centre"
              source="centre"
              value={t.centre}
              set={(v, g) => set('orbit', 'move the centre', (d) => void (d.centre = v), g)}
            />
          </div>
          <div className="row">
            <AngleNum
              name="Yaw rate"
              label="yaw"
              of="yaw"
              perSecond
              source="rates"
              value={t.yawRate}
              set={(v, g) => set('orbit', 'set the yaw rate', (d) => void (d.yawRate = v), g)}
            />
            <AngleNum
              name="Pitch rate"
              label="pitch"
              of="pitch"
              perSecond
              value={t.pitchRate}
              set={(v, g) => set('orbit', 'set the pitch rate', (d) => void (d.pitchRate = v), g)}
            />
          </div>
          <div className="row">
            {([0, 1] as const).map((i) => (
              <AngleNum
                key={i}
                name={i === 0 ? 'Lowest pitch' : 'Highest pitch'}
                label={i === 0 ? 'from' : 'up to'}
                of="pitch"
                value={t.pitchLimits[i]}
                refuse={
                  (v) =>
                  i === 0 ? (v <= t.pitchLimits[1] ? null : 'Not above the highest.') : v >= t.pitchLimits[0] ? null : 'Not below the lowest.' // prettier-ignore
                }
                set={(v, g) => set('orbit', 'limit the pitch', (d) => void (d.pitchLimits[i] = v), g)}
              />
            ))}
          </div>
          <div className="row">
            <Num
              name="Distance rate"
              label="farther"
              unit="e-fold/s"
              step={0.01}
              width="70%"
              value={t.distanceRate}
              set={(v, g) => set('orbit', 'set the distance rate', (d) => void (d.distanceRate = v), g)}
            />
          </div>
        </>
      );
    case 'path':
      return <Keys />;
    case 'walk':
      return <Stretches inputs={t.inputs} limit={t.pitchLimit} />;
    case 'dollyZoom':
      return (
        <>
          <div className="row">
            <span className="label" title="Where the height seen is held">
              Holds
            </span>
            <PlaceFields
              name="Held target"
              source="target"
              value={t.target}
              set={(v, g) => set('dollyZoom', 'move the target', (d) => void (d.target = v), g)}
            />
          </div>
          <div className="row">
            {([0, 1] as const).map((i) => (
              <Num
                key={i}
                name={i === 0 ? 'First distance' : 'Last distance'}
                label={i === 0 ? 'from' : 'to'}
                source={i === 0 ? 'distances' : undefined!}
                units={lengths}
                value={t.distance[i]}
                shown={(v) => figure(v, 2)}
                refuse={(v) => (v > 0 ? null : 'A distance is above 0.')}
                set={(v, g) => set('dollyZoom', 'set a distance', (d) => void (d.distance[i] = v), g)}
              />
            ))}
          </div>
          <div className="row">
            <Num
              name="Seconds of the dolly"
              label="in"
              unit="s"
              source="duration"
              value={t.duration}
              units={seconds}
              refuse={(v) => (v >= 0 ? null : 'It takes 0 seconds (at once) or more.')}
              set={(v, g) => set('dollyZoom', 'set the seconds', (d) => void (d.duration = v), g)}
            />
            <AngleNum
              name="Widest field of view"
              label="up to"
              of={null}
              value={t.widest}
              refuse={(v) => (v > 0 && v < Math.PI ? null : 'Between 0° and 180°.')}
              set={(v, g) => set('dollyZoom', 'limit the field of view', (d) => void (d.widest = v), g)}
            />
          </div>
          {stops[1] > t.distance[1] + 1e-9 && (
            <p className="text-note leading-4 text-ink2">
              It stops {figure(stops[1], 2)} from the target, where the field of view is the widest allowed.
            </p>
          )}
          {ease(t.ease, (to) => set('dollyZoom', 'set how it goes', (d) => void (d.ease = to)))}
        </>
      );
    case 'blend':
      return (
        <>
          <div className="row">
            <span className="label">Holds</span>
            <PlaceFields
              name="Held subject"
              source="target"
              value={t.subject}
              set={(v, g) => set('blend', 'move the subject', (d) => void (d.subject = v), g)}
            />
          </div>
          <div className="row">
            <Num
              name="Seconds of the blend"
              label="in"
              unit="s"
              value={t.duration}
              units={seconds}
              refuse={(v) => (v >= 0 ? null : 'It takes 0 seconds (at once) or more.')}
              set={(v, g) => set('blend', 'set the seconds', (d) => void (d.duration = v), g)}
            />
          </div>
          {ease(t.ease, (to) => set('blend', 'set how it goes', (d) => void (d.ease = to)))}
        </>
      );
  }
}

const boundsOf = ({
  tiles,
  bodies,
}: ReturnType<typeof useTaskMoment<MotionState>>['project']): { min: [number, number]; max: [number, number] } => {
  // prettier-ignore
  if (tiles) {
    const rows = Math.ceil(tiles.values.length / tiles.columns);
    return {
      min: [...tiles.corner] as [number, number],
      max: [tiles.corner[0] + tiles.columns * tiles.size, tiles.corner[1] + rows * tiles.size],
    };
  }
  const far = Math.max(100, ...bodies.flatMap(({ position }) => [Math.abs(position[0]), Math.abs(position[1])])) * 1.5;
  return { min: [-far, -far], max: [far, far] };
};
