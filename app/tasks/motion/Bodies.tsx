import { radians, tidyDegrees } from '../../../core/math/angle';
import { mostPlaces, motionSchema, type BodyMotionKept } from '../../../formats/project';
import { useSelection } from '../../state/selection';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { changeBodyMotion } from './edits';
import { AngleNum, Num, PlaceFields } from './fields';
import type { MotionState } from './kept';

type Triple = [number, number, number];
type Kind = BodyMotionKept['kind'] | 'rest';
const kindWords: Readonly<Record<Kind, string>> = {
  rest: 'rests',
  drift: 'drifts evenly',
  orbit: 'goes round',
  shuttle: 'goes there and back',
  swing: 'swings',
  path: 'goes through places',
};

/** What a kind of motion begins with, for a body that rests at a place of its parent's space. */
function begun(kind: Kind, at: Triple, flat: boolean): BodyMotionKept | null {
  const axis: Triple = flat ? [0, 0, 1] : [0, 1, 0];
  const beside = (by: number): Triple => [at[0] + by, at[1], at[2]];
  if (kind === 'rest') return null;
  const given = {
    drift: { kind, velocity: [1, 0, 0], axis },
    orbit: { kind, centre: beside(10), axis, period: 20 },
    shuttle: { kind, to: beside(10), period: 10 },
    swing: { kind, pivot: [at[0], at[1] + 5, at[2]], axis: [0, 0, 1], amplitude: 10, period: 4 },
    path: { kind, keys: [{ time: 5, place: beside(10) }], axis },
  }[kind];
  return motionSchema.parse(given);
}

/** How a body moves by itself, and the numbers of it. */
export function Bodies() {
  const { project, flat } = useTaskMoment<MotionState>('motion');
  const selected = useSelection((state) => state.ids);
  const body =
    project.bodies.find(({ id }) => id === selected.at(-1)) ?? project.bodies.find(({ motion }) => motion !== null) ?? project.bodies[0]; // prettier-ignore
  if (!body) return <p className="text-note text-ink2">The project has no bodies.</p>;
  const { motion: m } = body;
  const set = (words: string, next: BodyMotionKept | null, gesture?: string) => changeBodyMotion(body.id, words, next, gesture); // prettier-ignore
  const period = (kept: Extract<BodyMotionKept, { period: number }>) => (
    <Num
      name="Period"
      label="round in"
      unit="s"
      value={kept.period}
      refuse={(v) => (v !== 0 ? null : 'A period is not 0; below 0 it goes the other way.')}
      set={(v, g) => set('set the period', { ...kept, period: v }, g)}
    />
  );
  return (
    <>
      <div className="row">
        <label htmlFor="motion-body">Body</label>
        <select
          id="motion-body"
          className="select"
          value={body.id}
          onChange={({ target }) => useSelection.setState({ ids: [target.value] })}
        >
          {project.bodies.map(({ id, name, motion }) => (
            <option key={id} value={id}>
              {name}
              {motion ? ', moves' : ''}
            </option>
          ))}
        </select>
      </div>
      <div className="row">
        <span className="label">It</span>
        <select
          className="select"
          aria-label="How the body moves"
          data-source="bodyMotion"
          value={m?.kind ?? 'rest'}
          onChange={({ target }) =>
            set('change how a body moves', begun(target.value as Kind, [...body.position] as Triple, flat))
          }
        >
          {(Object.keys(kindWords) as Kind[]).map((kind) => (
            <option key={kind} value={kind}>
              {kindWords[kind]}
            </option>
          ))}
        </select>
      </div>
      {m?.kind === 'drift' && (
        <>
          <div className="row">
            <span className="label">per s</span>
            <PlaceFields
              name="Drift"
              value={m.velocity}
              set={(v, g) => set('set the drift', { ...m, velocity: v }, g)}
            />
          </div>
          <div className="row">
            <AngleNum
              name="Turn of the body"
              label="turns"
              of={null}
              perSecond
              value={radians(m.turnRate)}
              set={(v, g) => set('set the turn', { ...m, turnRate: tidyDegrees(v) }, g)}
            />
          </div>
        </>
      )}
      {m?.kind === 'orbit' && (
        <>
          <div className="row">
            <span className="label">About</span>
            <PlaceFields
              name="Centre of the body"
              value={m.centre}
              set={(v, g) => set('move the centre', { ...m, centre: v }, g)}
            />
          </div>
          <div className="row">
            {period(m)}
            <label className="check">
              <input
                type="checkbox"
                checked={m.turns}
                onChange={() => set('turn a body with its way or not', { ...m, turns: !m.turns })}
              />
              turns with it
            </label>
          </div>
        </>
      )}
      {m?.kind === 'shuttle' && (
        <>
          <div className="row">
            <span className="label">To</span>
            <PlaceFields name="There" value={m.to} set={(v, g) => set('move where it goes', { ...m, to: v }, g)} />
          </div>
          <div className="row">{period(m)}</div>
        </>
      )}
      {m?.kind === 'swing' && (
        <>
          <div className="row">
            <span className="label">From</span>
            <PlaceFields name="Pivot" value={m.pivot} set={(v, g) => set('move the pivot', { ...m, pivot: v }, g)} />
          </div>
          <div className="row">
            {period(m)}
            <AngleNum
              name="Amplitude"
              label="to ±"
              of={null}
              value={radians(m.amplitude)}
              set={(v, g) => set('set the amplitude', { ...m, amplitude: tidyDegrees(v) }, g)}
            />
          </div>
        </>
      )}
      {m?.kind === 'path' && (
        <>
          {m.keys.slice(0, 12).map(({ time, place }, i) => {
            const changed = (next: Partial<(typeof m.keys)[number]>) => ({ ...m, keys: m.keys.map((key, k) => (k === i ? { ...key, ...next } : key)) }); // prettier-ignore
            const [low, high] = [m.keys[i - 1]?.time ?? 0, m.keys[i + 1]?.time ?? Infinity];
            return (
              <div className="row" key={i}>
                <Num
                  name={`Time of place ${i + 1}`}
                  label="at"
                  unit="s"
                  width="30%"
                  value={time}
                  refuse={(v) => (v > low && v < high ? null : `Between ${figure(low, 2)} and ${high === Infinity ? 'any later time' : figure(high, 2)}: times rise.`)} // prettier-ignore
                  set={(v, g) => set('move a place in time', changed({ time: v }), g)}
                />
                <PlaceFields
                  name={`Place ${i + 1}`}
                  value={place}
                  set={(v, g) => set('move a place', changed({ place: v }), g)}
                />
              </div>
            );
          })}
          {m.keys.length > 12 && <p className="text-note text-ink2">The first 12 of {m.keys.length} are shown.</p>}
          <div className="row">
            <button
              className="plain-button"
              disabled={m.keys.length >= mostPlaces}
              onClick={() => {
                const last = m.keys.at(-1)!;
                const [x, y, z] = last.place;
                set('add a place', { ...m, keys: [...m.keys, { time: last.time + 5, place: [x + 5, y, z] }] });
              }}
            >
              Add a place
            </button>
            <button
              className="plain-button"
              disabled={m.keys.length < 2}
              onClick={() => set('take out the last place', { ...m, keys: m.keys.slice(0, -1) })}
            >
              Take out the last
            </button>
          </div>
          <label className="row check">
            <input
              type="checkbox"
              checked={m.turns}
              onChange={() => set('turn a body with its way or not', { ...m, turns: !m.turns })}
            />
            It turns with its way
          </label>
        </>
      )}
      {body.parent !== null && m && (
        <p className="text-note leading-4 text-ink2">
          In the space of {project.bodies.find(({ id }) => id === body.parent)?.name}, which it hangs on.
        </p>
      )}
    </>
  );
}
