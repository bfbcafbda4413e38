import { radians } from '../../../core/math/angle';
import { DataList } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { lengths, seconds } from '../../ui/parseNumber';
import { changeTrack } from './edits';
import { AngleNum, Num } from './fields';
import { mostStretches, type MotionState, type Steered } from './kept';
import { goTo } from './goTo';

/** The stretches of a walk, each with its even steering. */
export function Stretches({ inputs, limit }: { inputs: readonly Steered[]; limit: number }) {
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
  const rate = (v: number, of: 'yaw' | 'pitch') => e.toAngles({ yaw: 0, pitch: 0, roll: 0, [of]: v })[of]; // prettier-ignore
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
          disabled={inputs.length >= mostStretches}
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
          width="70%"
          label="pitch to ±"
          of={null}
          value={limit}
          refuse={(v) => (v >= 0 && v <= radians(90) ? null : 'From 0° to 90°.')}
          set={(v, g) => changeTrack('limit the pitch', ({ travel }) => travel.kind === 'walk' && void (travel.pitchLimit = v), g)} // prettier-ignore
        />
      </div>
    </>
  );
}
