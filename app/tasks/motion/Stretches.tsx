import { DataList } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { changeTrack } from './edits';
import { TravelField } from './fields';
import { mostStretches, type MotionState, type Steered } from './kept';
import { goTo } from './goTo';

/** The stretches of a walk, each with its even steering. */
export function Stretches({ inputs }: { inputs: readonly Steered[] }) {
  const { time, codec: e } = useTaskMoment<MotionState>('motion');
  const at = Math.max(0, inputs.findIndex(({ from, to }) => from <= time && to > time)); // prettier-ignore
  const one = inputs[at];
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
            <TravelField at={['inputs', at, 'from']} />
            <TravelField at={['inputs', at, 'to']} />
          </div>
          <div className="row">
            <TravelField at={['inputs', at, 'right']} width="33%" />
            <TravelField at={['inputs', at, 'up']} width="33%" />
            <TravelField at={['inputs', at, 'ahead']} width="33%" />
          </div>
          <div className="row">
            <TravelField at={['inputs', at, 'yawRate']} />
            <TravelField at={['inputs', at, 'pitchRate']} />
          </div>
        </>
      )}
      <div className="row">
        <TravelField
          at="pitchLimit"
          width="70%"
          reject={(written) => (e.fromAngle(written) <= Math.PI / 2 ? null : 'The pitch limit is from 0° to 90°.')}
        />
      </div>
    </>
  );
}
