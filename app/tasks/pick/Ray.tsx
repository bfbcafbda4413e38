import { pictureToPixel, pixelToPicture } from '../../../core/convert/project';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import type { Hit } from '../../../core/pick/pick';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { NumberField } from '../../sheet/NumberField';
import type { Moment } from '../../state/moment';
import { usePointer } from '../../state/pointer';
import { useTaskMoment } from '../../state/tempo';
import { screenUnit } from '../../state/wording';
import { Choice } from '../../ui/Choice';
import { counted, figure, plain } from '../../ui/figures';
import { copy } from '../../ui/notices';
import { pixels } from '../../ui/parseNumber';
import { WorkingButton } from '../../working/WorkingButton';
import { change, setPixel } from './edits';
import { testedNow } from './swept';
import { lookThrough, pixelNow, type Looked } from './rays';
import type { PickState } from './kept';

/** The moment, and the picture position that the ray goes through: under the pointer where that is wanted. */
export function useRay(): {
  readonly now: Moment<PickState>;
  readonly at: Vec2;
  readonly looked: Looked;
  readonly pixel: Vec2;
} {
  const now = useTaskMoment<PickState>('pick');
  // Asked of the pointer alone where it plays a part: otherwise nothing here follows it.
  const css = usePointer((state) => (now.slice.at === 'pointer' ? state.css : null));
  const at = css ? pixelToPicture(now.frame, css) : pixelNow(now);
  return { now, at, looked: lookThrough(now, at), pixel: pictureToPixel(now.frame, ...at) };
}

/** Three numbers that copy when they are clicked. */
function Triple({
  label,
  id,
  value,
  decimals = 2,
}: {
  label: string;
  id: string;
  value: readonly number[] | null;
  decimals?: number;
}) {
  return (
    <div className="row wide">
      <span className="label">{label}</span>
      {value ? (
        <button
          className="number ml-auto"
          data-testid={id}
          title={`Copy: ${label.toLowerCase()}`}
          onClick={() => void copy(`[${value.map(plain).join(', ')}]`, label.toLowerCase())}
        >
          {value.map((v) => figure(v, decimals)).join(', ')}
        </button>
      ) : (
        <span className="ml-auto text-ink2">infinitely far</span>
      )}
    </div>
  );
}

interface Row extends Hit {
  readonly no: number;
  readonly name: string;
}

/** The ray, and what it meets in order. */
export function Ray() {
  const { now, at, looked, pixel } = useRay();
  const { slice, codec: e, frame, flat, project, points: form } = now;
  const screen = e.toScreen(frame.viewport, ...at);
  const names = new Map(project.bodies.map(({ id, name }) => [id, name]));
  const rows = looked.hits.map((hit, i): Row => ({ ...hit, no: i + 1, name: names.get(hit.body) ?? hit.body }));
  const first = looked.hits[0];
  const show = (p: Vec3) => form.show(p);
  const tested = flat ? null : testedNow(now, at);
  const columns: readonly ListColumn<Row>[] = flat
    ? [
        { name: 'No.', width: '34px', value: ({ no }) => no, decimals: 0 },
        { name: 'Body, on top first', width: '1fr', value: ({ name }) => name },
      ]
    : [
        { name: 'No.', width: '30px', value: ({ no }) => no, decimals: 0 },
        { name: 'Body', width: '1fr', value: ({ name }) => name },
        { name: 'range', width: '58px', value: ({ distance }) => distance },
        { name: 'seen', width: '42px', value: ({ facing }) => facing },
        { name: 'tri.', width: '34px', value: ({ triangle }) => triangle ?? null, decimals: 0 },
      ];
  const setScreen = (k: 0 | 1, v: number, gesture: string) => {
    const wanted: Vec2 = k === 0 ? [v, screen[1]] : [screen[0], v];
    setPixel(pictureToPixel(frame, ...e.fromScreen(frame.viewport, wanted)), gesture);
  };
  return (
    <>
      <Choice
        name="Ray through"
        value={slice.at}
        options={[
          { value: 'pixel', label: 'a pixel', title: 'The pixel that was clicked or typed' },
          { value: 'centre', label: 'the centre', title: 'The middle of the view' },
          { value: 'pointer', label: 'the pointer', title: 'Wherever the pointer is in the picture' },
        ]}
        onChange={(value) => change('change where the ray goes through', (draft) => void (draft.at = value))}
      />
      <div className="row mt-1">
        <span className="label">Pixel</span>
        {slice.at === 'pixel' ? (
          ([0, 1] as const).map((k) => (
            <NumberField
              key={k}
              label={'xy'[k]!}
              name={`Ray pixel ${'xy'[k]}`}
              source={k === 0 ? 'rayPixel' : undefined}
              width={82}
              value={screen[k]}
              units={pixels}
              shown={(v) => figure(v, 2)}
              onChange={(v, gesture) => setScreen(k, v, gesture)}
            />
          ))
        ) : (
          <span className="font-mono" data-testid="ray-pixel">
            {screen.map((v) => figure(v, 2)).join(', ')}
          </span>
        )}
        <span className="text-ink2">{screenUnit(e)}</span>
      </div>
      <div className="result">
        <p className="verdict-line" data-testid="ray-verdict">
          {first
            ? flat
              ? `${rows[0]!.name} lies on top under it.`
              : `It meets ${rows[0]!.name} ${figure(first.distance, 2)} along the ray, seen from the ${first.facing}.`
            : flat
              ? 'No body lies under it.'
              : 'It meets no body between near and far.'}
        </p>
        {first && !flat && (
          <div className="line">
            ahead
            <span className="right" data-testid="ray-ahead">
              {figure(first.distance / looked.ray.rangePerAhead, 4)}
            </span>
          </div>
        )}
        {tested && (
          <div className="line">
            tested for it
            <span className="right" data-testid="ray-tested">
              {counted(tested.boxes, 'box', 'boxes')}, {counted(tested.triangles, 'surface', 'surfaces')}
            </span>
          </div>
        )}
      </div>
      {flat ? (
        <Triple label="World point" id="ray-point" value={show(looked.end)} decimals={3} />
      ) : (
        <>
          <div className="rule">
            The ray <WorkingButton of="ray" /> <em>world</em>
          </div>
          <Triple label="Origin" id="ray-origin" value={show(looked.ray.origin)} />
          <Triple label="Direction" id="ray-direction" value={show(looked.ray.direction)} decimals={4} />
          <Triple label="Near point" id="ray-near" value={show(looked.near)} />
          <Triple label="Far point" id="ray-far" value={looked.far && show(looked.far)} />
          {first && <Triple label="Hit" id="ray-hit" value={show(first.point)} />}
          {first && <Triple label="Normal there" id="ray-normal" value={show(first.normal)} decimals={4} />}
        </>
      )}
      <div className="rule">
        Hits <em>{slice.all ? 'all, nearest first' : 'the first'}</em>
      </div>
      <div className="row">
        <label className="check">
          <input
            type="checkbox"
            checked={slice.all}
            onChange={() => change('list all hits or the first', (draft) => void (draft.all = !draft.all))}
          />
          All
        </label>
        {!flat && (
          <label className="check">
            <input
              type="checkbox"
              checked={slice.backFaces}
              onChange={() => change('count back faces or not', (draft) => void (draft.backFaces = !draft.backFaces))}
            />
            Back faces too
          </label>
        )}
      </div>
      <DataList
        name="hits"
        rows={rows}
        keyOf={({ no }) => String(no)}
        columns={columns}
        bodiesOf={({ body }) => [body]}
        empty={`Nothing is met at ${pixel.map((v) => figure(v, 0)).join(', ')}.`}
      />
    </>
  );
}
