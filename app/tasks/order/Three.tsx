import { viewRufToClip } from '../../../core/convert/project';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { n2 } from '../../pictures/compose/marks';
import type { Size } from '../../pictures/compose/contract';
import { useTaskMoment } from '../../state/tempo';
import { followedPolygon, threeWays } from './followed';
import type { OrderState } from './kept';

interface Corner {
  readonly name: string;
  /** Across and upward in the picture; null where w is 0. */
  readonly at: Vec2 | null;
  readonly ghost: boolean;
}

/** Far beyond any panel. */
const farthest = 4000;

/** The polygon three times beside one another: divided as given, cut at near, cut at the frustum. */
export function Three({ size }: { size: Size }) {
  const now = useTaskMoment<OrderState>('order');
  const polygon = followedPolygon(now);
  if (now.flat || !polygon)
    return (
      <div className="three-none" style={size}>
        <p>{now.flat ? 'On a flat world nothing lies behind the eye, and nothing is cut.' : 'No face is followed.'}</p>
      </div>
    );
  const { frame } = now;
  const { near, frustum, unclipped, names } = threeWays(frame, polygon);
  const place = (viewRuf: Vec3): Vec2 => {
    const { x, y, w } = viewRufToClip(frame, viewRuf);
    return [x / w, y / w];
  };
  const cut = (list: typeof near): Corner[] =>
    list.map((one) => ({ name: names.get(one)!, at: place(one.viewRuf), ghost: false }));
  const panels: readonly { title: string; corners: readonly Corner[]; fault: boolean }[] = [
    {
      ...{ title: 'Uncut', fault: unclipped.some(({ ghost }) => ghost) },
      corners: unclipped.map(({ position, ghost }, i) => ({ name: String(i + 1), at: position, ghost })),
    },
    { title: 'Near', corners: cut(near), fault: false },
    { title: 'Frustum', corners: cut(frustum), fault: false },
  ];
  const gap = 8;
  const wide = (size.width - 2 * gap) / 3;
  const { width, height } = frame.viewport;
  // The viewport takes a little more than half of a panel, so that what leaves it is seen.
  const k = Math.min((wide * 0.6) / width, ((size.height - 34) * 0.6) / height);
  return (
    <svg className="three" width={size.width} height={size.height} role="img" aria-label="The face three ways">
      {panels.map(({ title, corners, fault }, i) => (
        <g key={title} transform={`translate(${n2(i * (wide + gap))} 0)`}>
          <clipPath id={`three-${i}`}>
            <rect width={wide} height={size.height - 20} />
          </clipPath>
          <g clipPath={`url(#three-${i})`}>
            <rect className="three-field" width={wide} height={size.height - 20} />
            <Panel
              corners={corners}
              fault={fault}
              half={[(width * k) / 2, (height * k) / 2]}
              middle={[wide / 2, (size.height - 20) / 2]}
              room={[wide, size.height - 20]}
            />
          </g>
          <text className={`three-title${fault ? ' fault' : ''}`} x={wide / 2} y={size.height - 5} textAnchor="middle">
            {title}
            {fault ? ', wrong' : ''}
          </text>
        </g>
      ))}
    </svg>
  );
}

/** One of the three: the viewport, and the polygon about it. */
function Panel({
  corners,
  fault,
  half,
  middle,
  room,
}: {
  corners: readonly Corner[];
  fault: boolean;
  half: Vec2;
  middle: Vec2;
  room: Vec2;
}) {
  const held = (v: number) => Math.max(-farthest, Math.min(farthest, v));
  const at = ([x, y]: Vec2): Vec2 => [held(middle[0] + x * half[0]), held(middle[1] - y * half[1])];
  const known = corners.flatMap((one) => (one.at ? [{ ...one, place: at(one.at) }] : []));
  const d = known.length ? `M${known.map(({ place: [x, y] }) => `${n2(x)} ${n2(y)}`).join('L')}Z` : '';
  // A corner that lies off the panel is named at its edge, in its direction.
  const inside = ([x, y]: Vec2): Vec2 => {
    const [dx, dy] = [x - middle[0], y - middle[1]];
    const t = Math.min(
      1,
      (middle[0] - 9) / Math.max(1e-9, Math.abs(dx)),
      (middle[1] - 9) / Math.max(1e-9, Math.abs(dy)),
    );
    return [middle[0] + dx * t, middle[1] + dy * t];
  };
  // Names that would touch stand under one another.
  const names: { at: Vec2; names: string[]; ghost: boolean }[] = [];
  for (const { name, place, ghost } of known) {
    const near = inside(place);
    const there = names.find(
      ({ at: p, names: list }) =>
        Math.abs(p[0] - near[0]) < 6 + 3.6 * (name.length + Math.max(...list.map((one) => one.length))) &&
        Math.abs(p[1] - near[1]) < 2 + 12 * list.length,
    );
    if (there) there.names.push(name);
    else names.push({ at: near, names: [name], ghost });
  }
  return (
    <>
      <rect
        className="three-viewport"
        x={middle[0] - half[0]}
        y={middle[1] - half[1]}
        width={2 * half[0]}
        height={2 * half[1]}
      />
      {d && <path className={fault ? 'three-fault' : 'three-face'} d={d} />}
      {known.length === 0 && (
        <text className="three-title" x={room[0] / 2} y={room[1] / 2} textAnchor="middle">
          nothing left
        </text>
      )}
      {names.map(({ at: [x, y], names: list, ghost }) => {
        const off = y > middle[1] ? 12 : -5;
        const end = x > room[0] - 30 ? 'end' : x < 30 ? 'start' : 'middle';
        return (
          <g key={list.join()}>
            <circle className={ghost ? 'three-ghost' : 'three-corner'} cx={x} cy={y} r="2" />
            {list.slice(0, 4).map((name, i) => (
              <text
                key={name}
                className={`three-name${ghost ? ' ghost' : ''}`}
                x={Math.max(3, Math.min(room[0] - 3, x))}
                y={Math.max(11, Math.min(room[1] - 3, y + off + (off < 0 ? -12 * i : 12 * i)))}
                textAnchor={end}
              >
                {i === 3 && list.length > 4 ? '…' : name}
              </text>
            ))}
          </g>
        );
      })}
    </>
  );
}
