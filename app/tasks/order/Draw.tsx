import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import type { Moment } from '../../state/moment';
import { letterOf } from '../../../core/conventions/axes';
import { sortValue } from '../../../core/order/drawOrder';
import { Choice } from '../../ui/Choice';
import { counted, percent } from '../../ui/figures';
import { change, layRing } from './edits';
import type { Painted } from './job';
import { sortKeyOf } from './followed';
import { orderNow, paintedMark } from './painted';
import type { OrderKey, OrderState } from './kept';

interface Pair {
  readonly over: string;
  readonly hidden: string;
  readonly pixels: number;
}
interface Conflict {
  readonly far: string;
  readonly near: string;
}
interface Placed {
  readonly rank: number;
  readonly id: string;
  /** The number that it is sorted by; null where it has none. */
  readonly value: number | null;
}

/** A sort value as the conventions write it: heights by the axis of the world, screen y in pixels. */
function shownValue({ codec, frame }: Pick<Moment, 'codec' | 'frame'>, key: OrderKey, value: number): number {
  if (key === 'worldUp') return codec.toHeight(value);
  return key === 'screenHeight' ? codec.toScreen(frame.viewport, 0, value)[1] : value;
}

/** Bodies in an order, what the order gets wrong, and what comes of painting by it. */
export function Draw() {
  const now = useTaskMoment<OrderState>('order');
  const { slice, codec, flat, project, placed, frame } = now;
  const { key, paint } = slice;
  const { order, conflicts, conflictCount } = orderNow(now);
  const answered = now.answer<Painted>('painted');
  const painted = answered && paint !== 'depth' && answered.mark === paintedMark(now) ? answered : null;
  const up = letterOf(codec.conventions.world.up);
  const names = new Map(project.bodies.map(({ id, name }) => [id, name]));
  const nameOf = (id: string) => names.get(id) ?? id;
  const keys: readonly { value: OrderKey; label: string; title: string }[] = flat
    ? [
        { value: 'layer', label: 'list', title: 'The order of the list: later bodies cover earlier ones' },
        { value: 'worldUp', label: `world ${up}`, title: `The higher its foot along ${up}, the farther` },
        { value: 'screenHeight', label: 'screen y', title: 'The higher its foot on the screen, the farther' },
        { value: 'distance', label: 'distance', title: 'From the eye of the 2D camera to the foot' },
      ]
    : [
        { value: 'ahead', label: 'ahead', title: 'View depth: the distance along the view direction' },
        { value: 'distance', label: 'distance', title: 'From the eye to the foot, along the ray' },
        { value: 'screenHeight', label: 'screen y', title: 'The higher its foot on the screen, the farther' },
        { value: 'worldUp', label: `world ${up}`, title: `The higher its foot along ${up}, the farther` },
      ];
  const shown: OrderKey = key === 'layer' && !flat ? 'ahead' : key === 'ahead' && flat ? 'layer' : key;
  const pairColumns: readonly ListColumn<Pair>[] = [
    { name: 'Painted over', width: '1fr', value: ({ hidden }) => nameOf(hidden) },
    { name: 'by', width: '1fr', value: ({ over }) => nameOf(over) },
    { name: 'px', width: '52px', value: ({ pixels }) => pixels, decimals: 0 },
  ];
  const conflictColumns: readonly ListColumn<Conflict>[] = [
    { name: 'Drawn first', width: '1fr', value: ({ far }) => nameOf(far) },
    { name: 'though nearer than', width: '1fr', value: ({ near }) => nameOf(near) },
  ];
  const shownKey = keys.find(({ value }) => value === shown)!;
  const isListed = shown === 'layer';
  const orderColumns: readonly ListColumn<Placed>[] = [
    { name: 'No.', width: '34px', value: ({ rank }) => rank, decimals: 0 },
    { name: 'Body', width: '1fr', value: ({ id }) => nameOf(id) },
    { name: shownKey.label, width: '74px', value: ({ value }) => value ?? NaN },
  ];
  return (
    <>
      <div className="row wide">
        <span className="label">Far to near by</span>
      </div>
      <Choice
        name="Far to near by"
        value={shown}
        options={keys}
        onChange={(value) => change('change the key of the order', (draft) => void (draft.key = value))}
      />
      <div className="row mt-1">
        <span className="label">Paint</span>
        <Choice
          name="Paint"
          value={paint}
          options={[
            flat
              ? { value: 'depth', label: 'as set', title: 'As bodies of this project cover one another: what is right' }
              : { value: 'depth', label: 'depth buffer', title: 'With a depth buffer: what is right' },
            { value: 'bodies', label: 'bodies', title: 'Whole bodies in this order, without a depth buffer' },
            { value: 'faces', label: 'faces', title: 'Every face for itself in this order, without a depth buffer' },
          ]}
          onChange={(value) => change('change how bodies are painted', (draft) => void (draft.paint = value))}
        />
      </div>
      {paint !== 'depth' && (
        <>
          <div className="result" aria-live="polite">
            <p className="verdict-line" data-testid="painted">
              {painted
                ? painted.count
                  ? `${painted.count.toLocaleString('en')} of ${painted.covered.toLocaleString('en')} covered pixels come out wrong, ${percent(painted.count / painted.covered)}.`
                  : `Every one of the ${painted.covered.toLocaleString('en')} covered pixels comes out right.`
                : 'Painting both ways…'}
            </p>
            {painted && painted.each > 1.01 && (
              <div className="line">looked at on {`${painted.width} × ${painted.height}`} places of the viewport</div>
            )}
          </div>
          {slice.cull === 'none' && !flat && (
            <p className="text-note leading-4 text-ink2">
              Nothing is culled, so the far sides of bodies are painted too. Cull back faces under Winding, as painters
              do.
            </p>
          )}
          {painted && painted.pairs.length > 0 && (
            <DataList
              name="pairs painted wrong"
              rows={painted.pairs}
              keyOf={({ over, hidden }) => `${over} ${hidden}`}
              columns={pairColumns}
              bodiesOf={({ over, hidden }) => [over, hidden]}
            />
          )}
        </>
      )}
      <div className="row mt-1">
        <button className="plain-button" onClick={layRing}>
          Lay three spars in a ring
        </button>
      </div>
      {!flat && (
        <>
          <div className="rule">
            Pairs it orders against ahead{' '}
            <em data-testid="conflicts">
              {conflictCount > conflicts.length
                ? `first ${conflicts.length.toLocaleString('en')} of ${conflictCount.toLocaleString('en')}`
                : conflictCount.toLocaleString('en')}
            </em>
          </div>
          <DataList
            name="pairs in conflict"
            rows={conflicts.map(([far, near]): Conflict => ({ far, near }))}
            keyOf={({ far, near }) => `${far} ${near}`}
            columns={conflictColumns}
            bodiesOf={({ far, near }) => [far, near]}
            empty={key === 'ahead' ? 'None: this is the order by ahead itself.' : 'None here.'}
          />
          <p className="text-note leading-4 text-ink2">Keys that differ by rounding alone count as equal.</p>
        </>
      )}
      <div className="rule">
        The order{' '}
        <em>
          {counted(order.length, 'body', 'bodies')}
          {isListed ? '' : ', by their feet'}
        </em>
      </div>
      <DataList
        name="order"
        rows={order.map((id, i): Placed => {
          const value = isListed ? null : sortValue(frame, placed.get(id)!, sortKeyOf(shown));
          return { rank: i + 1, id, value: value === null ? null : shownValue(now, shown, value) };
        })}
        keyOf={({ id }) => id}
        columns={isListed ? orderColumns.slice(0, 2) : orderColumns}
        bodiesOf={({ id }) => [id]}
        empty="There are no bodies."
      />
    </>
  );
}
