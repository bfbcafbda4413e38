import type { Ease } from '../../../core/motion/path';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { changeTrack } from './edits';
import { dollyDistances } from './journey';
import { DeadZoneFields, EaseField, TravelField } from './fields';
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
          <TravelField at="velocity" />
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
            <TravelField at="halfLife" />
            <TravelField at="lookAhead" />
          </div>
          <p>
            <WorkingButton of="left" />
          </p>
          <div className="row wide">
            <span className="label" title="Half widths about the held place; inside it the body is not followed">
              Dead zone
            </span>
            <DeadZoneFields />
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
                    <TravelField at={['bounds', end]} />
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
            <TravelField at="centre" />
          </div>
          <div className="row">
            <TravelField at="yawRate" />
            <TravelField at="pitchRate" />
          </div>
          <div className="row">
            <span className="label">Pitch</span>
            <TravelField at="pitchLimits" />
          </div>
          <div className="row">
            <TravelField at="distanceRate" unit="e-fold/s" width="70%" />
          </div>
        </>
      );
    case 'path':
      return <Keys />;
    case 'walk':
      return <Stretches inputs={t.inputs} />;
    case 'dollyZoom':
      return (
        <>
          <div className="row">
            <span className="label" title="Where the height seen is held">
              Holds
            </span>
            <TravelField at="target" />
          </div>
          <div className="row wide">
            <span className="label">Distance</span>
            {[0, 1].map((i) => (
              <TravelField key={i} at={['distance', i]} reject={(v) => (v > 0 ? null : 'A distance is above 0.')} />
            ))}
          </div>
          <div className="row">
            <TravelField at="duration" />
            <TravelField at="widest" />
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
            <TravelField at="subject" />
          </div>
          <div className="row">
            <TravelField at="duration" />
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
