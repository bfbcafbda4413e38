import { apparentSize, distanceForSize, isBehind } from '../../../core/visibility/size';
import { boundingSphere } from '../../../core/bodies/body';
import { distance } from '../../../core/math/vec3';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useSelection } from '../../state/selection';
import { useTaskMoment } from '../../state/tempo';
import { figure, percent } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { change } from './edits';
import { Field } from './fields';
import { bodiesOf } from '../../state/bodyList';
import { levelOf } from './seen';
import { mostThresholds, type VisibilityState } from './kept';
import { SizeChart } from './SizeChart';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly pixels: number | null;
  readonly level: number | null;
}
const columns: readonly ListColumn<Row>[] = [
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'px', width: '60px', value: ({ pixels: px }) => px, decimals: 1 },
  { name: 'level', width: '40px', value: ({ level }) => level, decimals: 0 },
];

/** How large bodies appear, the distances at which they change their level, and which each has now. */
export function Size() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { slice, frame, flat, project, placed } = now;
  const ids = useSelection((state) => state.ids);
  const id = ids.at(-1) ?? project.probe.body ?? project.bodies[0]?.id ?? null;
  const own = id === null ? undefined : placed.get(id);
  const names = new Map(project.bodies.map((body) => [body.id, body.name]));
  const rows = bodiesOf(now).map((one): Row => {
    const { diameter } = apparentSize(frame, one, flat);
    const px = diameter.ok ? diameter.value : null;
    return {
      ...{ id: one.body.id, name: names.get(one.body.id) ?? one.body.id, pixels: px },
      level: px === null ? 0 : levelOf(slice.thresholds, px),
    };
  });
  const size = own && apparentSize(frame, own, flat);
  const sphere = own && boundingSphere(own, flat);
  const from = sphere ? distance(sphere.centre, frame.eye) : null;
  const shrinks = frame.kind === 'perspective';
  return (
    <>
      {size && sphere && (
        <div className="result">
          <p className="verdict-line" data-testid="size">
            {names.get(id!)}:{' '}
            {!size.diameter.ok
              ? 'the eye is inside the sphere about it, which then has no size.'
              : isBehind(frame, size)
                ? `behind the camera. Turned to it, ${figure(size.diameter.value, 1)} px across.`
                : `${figure(size.diameter.value, 1)} px across, ${percent(size.diameter.value / frame.viewport.height)} of the height.`}
          </p>
          <div className="line">
            sphere <WorkingButton of="diameter" />
            <span className="right">
              {figure(sphere.radius, 2)} at {figure(from!, 1)}
            </span>
          </div>
        </div>
      )}
      {!own && <p className="text-note text-ink2">There are no bodies to measure.</p>}
      <div className="rule">
        Thresholds <em>{shrinks ? 'px, and the distance' : 'px'}</em>
      </div>
      {slice.thresholds.map((threshold, i) => {
        const at = sphere && shrinks ? distanceForSize(frame, sphere.radius, threshold) : null;
        const farther =
          sphere && shrinks ? distanceForSize(frame, sphere.radius, threshold * (1 - slice.hysteresis)) : null;
        return (
          <div className="row" key={i}>
            <span className="label">{i + 1}</span>
            <Field at={['thresholds', i]} name={`Threshold ${i + 1}`} width={84} />
            <span
              className="ml-auto font-mono"
              data-testid={`switch-${i}`}
              title={farther === null ? undefined : `Back up at ${figure(at!, 1)}, down at ${figure(farther, 1)}`}
            >
              {at === null ? '—' : figure(at, 1)}
            </span>
            <button
              className="drop"
              aria-label={`Remove threshold ${i + 1}`}
              title={`Remove threshold ${i + 1}`}
              onClick={() => change('remove a threshold', (draft) => void draft.thresholds.splice(i, 1))}
            >
              ×
            </button>
          </div>
        );
      })}
      <div className="row">
        <button
          className="plain-button"
          disabled={slice.thresholds.length >= mostThresholds}
          onClick={() =>
            change('add a threshold', ({ thresholds }) => void thresholds.push((thresholds.at(-1) ?? 200) / 2))
          }
        >
          Add a threshold
        </button>
        <span className="ml-auto text-ink2">hysteresis</span>
        <Field at="hysteresis" width={64} />
      </div>
      {shrinks && sphere && slice.thresholds.length > 0 && (
        <p className="text-note leading-4 text-ink2" data-testid="hysteresis">
          {slice.hysteresis
            ? `It goes down a level at ${figure(distanceForSize(frame, sphere.radius, slice.thresholds[0]! * (1 - slice.hysteresis))!, 1)} and up again at ${figure(distanceForSize(frame, sphere.radius, slice.thresholds[0]!)!, 1)}: between the two it keeps what it has, and does not flicker.`
            : 'Without hysteresis a body at a threshold changes its level with every tremor of the camera.'}
        </p>
      )}
      {shrinks && sphere && (
        <>
          <div className="rule">
            Diameter <em>px, by distance</em>
          </div>
          <SizeChart radius={sphere.radius} from={from!} />
        </>
      )}
      <div className="rule">Levels now</div>
      <DataList
        name="levels"
        rows={rows}
        keyOf={(row) => row.id}
        columns={columns}
        verdictOf={({ level }) => `level ${level}`}
        bodiesOf={(row) => [row.id]}
        empty="There are no bodies."
      />
    </>
  );
}
