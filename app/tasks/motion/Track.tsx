import { DataList, type ListColumn } from '../../sheet/DataList';
import { lookThrough } from '../../edits/cameras';
import { allCameras } from '../../../formats/project';
import { journeyAt } from '../../state/journey';
import { pause, setTime } from '../../state/clock';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { lengths } from '../../ui/parseNumber';
import { WorkingButton } from '../../working/WorkingButton';
import { addKey, changeKey, changeTrack, moveKey, playCamera, removeKey, takeKind, toggleShake } from './edits';
import { AngleNum, Num, PlaceFields, SizeFields } from './fields';
import { bodyCourse, journeyOf, trackOf } from './journey';
import { eases, flatKinds, travelKinds, travelSpan, type MotionState, type Steered, type Travel, type TravelKind } from './state'; // prettier-ignore
import { easeWords, travelWords } from './words';

const seconds = { s: 1, ms: 0.001 };

/** The cameras with what each does, and the track of the one looked through. */
export function Track() {
  const now = useTaskMoment<MotionState>('motion');
  const { project, slice, flat } = now;
  const track = trackOf(now);
  const kind = track?.travel.kind ?? 'rest';
  const journey = journeyOf(now);
  const made = journey && journeyAt(journey, now.time);
  const lost =
    track?.travel.kind === 'follow' && !bodyCourse(project.bodies, track.travel.body)
      ? 'The body that is followed is gone. Choose another.'
      : track && flat && !flatKinds.includes(kind)
        ? `A flat camera cannot do this: it ${travelWords[kind]} in space alone. Choose scrolling or following.`
        : made && !made.ok
          ? made.message
          : null;
  interface Row {
    readonly id: string;
    readonly name: string;
    readonly does: string;
  }
  const rows = allCameras(project).map(({ id, name }): Row => {
    const own = slice.tracks[id];
    const shake = own?.shake ? ', shaken' : '';
    return { id, name, does: `${travelWords[own?.travel.kind ?? 'rest']}${shake}` };
  });
  const columns: readonly ListColumn<Row>[] = [
    { name: 'Camera', width: '1fr', value: ({ name }) => name },
    { name: 'does', width: '1.2fr', value: ({ does }) => does },
  ];
  const span = track && travelSpan(track);
  return (
    <>
      {rows.length > 1 && (
        <DataList
          name="cameras"
          rows={rows}
          keyOf={({ id }) => id}
          columns={columns}
          chosen={project.camera.id}
          onChoose={({ id }) => lookThrough(id)}
          most={6}
        />
      )}
      <div className="row mt-1">
        <button className="plain-button" disabled={!journey} onClick={() => playCamera(project.camera.id)}>
          Play from the start
        </button>
        {span !== null && <span className="text-note text-ink2">{figure(span, 1)} s</span>}
      </div>
      <div className="row">
        <label htmlFor="motion-kind">Camera</label>
        <select
          id="motion-kind"
          className="select"
          data-source="track"
          value={kind}
          onChange={({ target }) => takeKind(target.value as TravelKind)}
        >
          {travelKinds.map((one) => (
            <option key={one} value={one} disabled={flat && !flatKinds.includes(one)}>
              {travelWords[one]}
            </option>
          ))}
        </select>
      </div>
      {lost && (
        <p className="none" data-testid="track-lost">
          {lost}
        </p>
      )}
      {track && <Terms travel={track.travel} />}
      {!flat && <Shake />}
    </>
  );
}

/** The numbers of a way of travelling. */
function Terms({ travel: t }: { travel: Travel }) {
  const { project, flat } = useTaskMoment<MotionState>('motion');
  /** Changes the travel, if it is still of this kind. */
  const set = <K extends TravelKind>(
    kind: K,
    words: string,
    recipe: (draft: Extract<Travel, { kind: K }>) => void,
    gesture?: string,
  ) => changeTrack(words, ({ travel }) => travel.kind === kind && recipe(travel as Extract<Travel, { kind: K }>), gesture); // prettier-ignore
  const ease = (value: (typeof eases)[number], onChange: (to: (typeof eases)[number]) => void) => (
    <div className="row">
      <span className="label">Goes</span>
      <select
        className="select"
        aria-label="How it goes"
        value={value}
        onChange={({ target }) => onChange(target.value as (typeof eases)[number])}
      >
        {eases.map((one) => (
          <option key={one} value={one}>
            {easeWords[one]}
          </option>
        ))}
      </select>
    </div>
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
            <WorkingButton of="left" />
          </div>
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
          </div>
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

/** The keys of a path: where, which way and when. */
function Keys() {
  const now = useTaskMoment<MotionState>('motion');
  const travel = trackOf(now)?.travel;
  if (travel?.kind !== 'path') return null;
  const { keys } = travel;
  interface Row {
    readonly id: string;
    readonly n: number;
    readonly time: number;
    readonly fov: number;
  }
  const rows = keys.map(({ id, time, verticalFov }, i): Row => ({ id, n: i + 1, time, fov: verticalFov }));
  // The key at the moment, or the last before it.
  const at = keys.reduce((found, { time }, i) => (time <= now.time + 1e-6 ? i : found), 0);
  const key = keys[at]!;
  const turn = (of: 'yaw' | 'pitch' | 'roll') => (
    <AngleNum
      name={`Key ${of}`}
      label={of}
      of={of}
      width="33%"
      value={key[of]}
      set={(v, g) => changeKey(key.id, `set the ${of} of a key`, (d) => void (d[of] = v), g)}
    />
  );
  return (
    <>
      <DataList
        name="keys"
        rows={rows}
        keyOf={({ id }) => id}
        columns={[
          { name: 'Key', width: '36px', value: ({ n }) => n },
          { name: 's', width: '1fr', value: ({ time }) => time, decimals: 3 },
          { name: 'fov', width: '1fr', value: ({ fov }) => fov, decimals: 2 },
        ]}
        chosen={key.id}
        onChoose={({ time }) => goTo(time)}
        most={6}
      />
      <div className="row mt-1">
        <button className="plain-button" onClick={addKey}>
          Key at the moment
        </button>
        <button className="plain-button" disabled={keys.length < 2} onClick={() => removeKey(key.id)}>
          Take out key {at + 1}
        </button>
      </div>
      <div className="row">
        <Num
          name="Key time"
          label={`key ${at + 1} at`}
          unit="s"
          source="key"
          value={key.time}
          units={seconds}
          refuse={(v) => (v >= 0 ? null : 'Time begins at 0.')}
          set={(v, g) => moveKey(key.id, v, g)}
        />
        <AngleNum
          name="Key field of view"
          label="fov"
          of={null}
          value={key.verticalFov}
          refuse={(v) => (v > 0 && v < 180 ? null : 'Between 0° and 180°.')}
          set={(v, g) => changeKey(key.id, 'set the field of view of a key', (d) => void (d.verticalFov = v), g)}
        />
      </div>
      <div className="row">
        <PlaceFields
          name="Key"
          value={key.position}
          set={(v, g) => changeKey(key.id, 'move a key', (d) => void (d.position = v), g)}
        />
      </div>
      <div className="row">
        {turn('yaw')}
        {turn('pitch')}
        {turn('roll')}
      </div>
      <div className="row">
        <span className="label">Then</span>
        <select
          className="select"
          aria-label="How it goes on from the key"
          value={key.ease}
          onChange={({ target }) =>
            changeKey(key.id, 'set how it goes on', (d) => void (d.ease = target.value as typeof key.ease))
          }
        >
          {eases.map((one) => (
            <option key={one} value={one}>
              {easeWords[one]}
            </option>
          ))}
        </select>
      </div>
    </>
  );
}

/** The stretches of a walk, each with its even steering. */
function Stretches({ inputs, limit }: { inputs: readonly Steered[]; limit: number }) {
  const { time, codec: e } = useTaskMoment<MotionState>('motion');
  const at = Math.max(0, inputs.findIndex(({ from, to }) => from <= time && to > time)); // prettier-ignore
  const one = inputs[at];
  const set = (words: string, recipe: (d: Steered) => void, gesture: string) =>
    changeTrack(words, ({ travel }) => travel.kind === 'walk' && travel.inputs[at] && recipe(travel.inputs[at]), gesture); // prettier-ignore
  const speed = (name: 'right' | 'up' | 'ahead') => (
    <Num
      name={`Stretch ${name}`}
      label={name}
      width="33%"
      value={one![name]}
      units={lengths}
      shown={(v) => figure(v, 2)}
      set={(v, g) => set(`set the speed ${name}`, (d) => void (d[name] = v), g)}
    />
  );
  const rate = (v: number, of: 'yaw' | 'pitch') => e.toAngles({ yaw: 0, pitch: 0, roll: 0, [of]: (v * Math.PI) / 180 })[of]; // prettier-ignore
  return (
    <>
      <DataList
        name="stretches"
        rows={inputs.map((input, i) => ({ ...input, n: i }))}
        keyOf={({ n }) => String(n)}
        columns={[
          { name: 'from', width: '1fr', value: ({ from }) => from, decimals: 2 },
          { name: 'to', width: '1fr', value: ({ to }) => to, decimals: 2 },
          { name: 'ahead', width: '1fr', value: ({ ahead }) => ahead, decimals: 1 },
          { name: 'yaw/s', width: '1fr', value: ({ yawRate }) => rate(yawRate, 'yaw'), decimals: 1 },
        ]}
        chosen={one ? String(at) : null}
        onChoose={({ from }) => goTo(from)}
        most={5}
        empty="It is not steered. Add a stretch, or steer it yourself below."
      />
      <div className="row mt-1">
        <button
          className="plain-button"
          disabled={inputs.length >= 4000}
          onClick={() =>
            changeTrack('add a stretch', ({ travel }) => {
              if (travel.kind !== 'walk') return;
              const from = travel.inputs.reduce((most, { to }) => Math.max(most, to), 0);
              travel.inputs.push({ from, to: from + 2, right: 0, up: 0, ahead: 1, yawRate: 0, pitchRate: 0 });
            })
          }
        >
          Add a stretch
        </button>
        <button
          className="plain-button"
          disabled={!one}
          onClick={
            () =>
            changeTrack('take out a stretch', ({ travel }) => travel.kind === 'walk' && void travel.inputs.splice(at, 1)) // prettier-ignore
          }
        >
          Take out
        </button>
      </div>
      {one && (
        <>
          <div className="row">
            {(['from', 'to'] as const).map((end) => (
              <Num
                key={end}
                name={`Stretch ${end}`}
                label={end}
                unit="s"
                source={end === 'from' ? 'stretch' : undefined!}
                value={one[end]}
                units={seconds}
                refuse={(v) => (v >= 0 ? null : 'Time begins at 0.')}
                set={(v, g) => set('set the times of a stretch', (d) => void (d[end] = v), g)}
              />
            ))}
          </div>
          <div className="row">
            {speed('right')}
            {speed('up')}
            {speed('ahead')}
          </div>
          <div className="row">
            {(['yaw', 'pitch'] as const).map((of) => (
              <AngleNum
                key={of}
                name={`Stretch ${of} rate`}
                label={of}
                of={of}
                perSecond
                value={one[`${of}Rate`]}
                set={(v, g) => set(`set the ${of} rate`, (d) => void (d[`${of}Rate`] = v), g)}
              />
            ))}
          </div>
        </>
      )}
      <div className="row">
        <AngleNum
          name="Pitch limit"
          label="pitch to ±"
          of={null}
          value={limit}
          refuse={(v) => (v >= 0 && v <= 90 ? null : 'From 0° to 90°.')}
          set={(v, g) => changeTrack('limit the pitch', ({ travel }) => travel.kind === 'walk' && void (travel.pitchLimit = v), g)} // prettier-ignore
        />
      </div>
    </>
  );
}

/** A shake upon the track, whatever it is. */
function Shake() {
  const shake = trackOf(useTaskMoment<MotionState>('motion'))?.shake ?? null;
  const set = (words: string, recipe: (d: NonNullable<typeof shake>) => void, gesture: string) =>
    changeTrack(words, (track) => track.shake && recipe(track.shake), gesture);
  return (
    <>
      <label className="row check">
        <input type="checkbox" checked={shake !== null} onChange={toggleShake} />A shake upon it
      </label>
      {shake && (
        <>
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
          <div className="row">
            {(['yaw', 'pitch', 'roll'] as const).map((of) => (
              <AngleNum
                key={of}
                name={`Shake ${of}`}
                label={of}
                of={of}
                width="33%"
                value={shake[of]}
                set={(v, g) => set(`set the ${of} of the shake`, (d) => void (d[of] = v), g)}
              />
            ))}
          </div>
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

/** Takes the moment to a time, and stands there. */
function goTo(time: number): void {
  pause();
  setTime(time);
}
