import { DataList } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { addKey, changeKey, moveKey, removeKey } from './edits';
import { EaseField, Num, TravelField } from './fields';
import { trackOf } from './journey';
import type { MotionState } from './kept';
import { goTo } from './goTo';
import { seconds } from '../../ui/parseNumber';

/** The keys of a path: where, which way and when. */
export function Keys() {
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
  const rows = keys.map(({ id, time, verticalFov }, i): Row => ({
    id,
    n: i + 1,
    time,
    fov: now.codec.toAngle(verticalFov),
  }));
  // The key at the moment, or the last before it.
  const at = keys.reduce((found, { time }, i) => (time <= now.time + 1e-6 ? i : found), 0);
  const key = keys[at]!;
  return (
    <>
      <DataList
        name="keys"
        rows={rows}
        keyOf={({ id }) => id}
        columns={[
          { name: 'Key', width: '36px', value: ({ n }) => n, decimals: 0 },
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
        <TravelField
          at={['keys', at, 'verticalFov']}
          reject={(written) => {
            const fov = now.codec.fromAngle(written);
            return fov > 0 && fov < Math.PI ? null : 'The field of view is between 0° and 180°.';
          }}
        />
      </div>
      <div className="row">
        <TravelField at={['keys', at, 'position']} />
      </div>
      <div className="row">
        <TravelField at={['keys', at, 'yaw']} />
        <TravelField at={['keys', at, 'pitch']} />
      </div>
      <div className="row">
        <TravelField at={['keys', at, 'roll']} />
      </div>
      <EaseField
        name="How it goes on from the key"
        label="Then"
        value={key.ease}
        set={(to) => changeKey(key.id, 'set how it goes on', (d) => void (d.ease = to))}
      />
    </>
  );
}
