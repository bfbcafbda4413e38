import { viewRufToClip, worldToViewRuf } from '../../../core/convert/project';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { useTaskMoment } from '../../state/tempo';
import { counted, figure } from '../../ui/figures';
import { WorkingButton } from '../../working/WorkingButton';
import { Field } from './fields';
import { change, followFirst, freeCorners, toggleGhosts } from './edits';
import { followedName, followedPolygon, threeWays } from './followed';
import { mostCorners, type OrderState } from './kept';

interface Row {
  readonly key: string;
  readonly way: 'as given' | 'cut at near' | 'cut at the frustum';
  readonly name: string;
  readonly ahead: number;
  readonly w: number;
  readonly screen: Vec2 | null;
  readonly ghost: boolean;
}

/** Two decimals where there is room for them. */
const short = (v: number): string => figure(v, Math.abs(v) < 100 ? 2 : Math.abs(v) < 10_000 ? 1 : 0);
const columns: readonly ListColumn<Row>[] = [
  { name: 'Corner', width: '44px', value: ({ name }) => name },
  { name: 'ahead', width: '1fr', value: ({ ahead }) => ahead, show: ({ ahead }) => short(ahead) },
  { name: 'w', width: '1fr', value: ({ w }) => w, show: ({ w }) => short(w) },
  {
    ...{ name: 'x', width: '1.1fr', value: ({ screen }) => screen?.[0] ?? null, decimals: 1 },
    show: ({ screen, ghost }) => <Pixel value={screen?.[0]} ghost={ghost} />,
  },
  {
    ...{ name: 'y', width: '1.1fr', value: ({ screen }) => screen?.[1] ?? null, decimals: 1 },
    show: ({ screen, ghost }) => <Pixel value={screen?.[1]} ghost={ghost} />,
  },
];
const Pixel = ({ value, ghost }: { value: number | undefined; ghost: boolean }) => (
  <span className={ghost ? 'text-verm' : undefined} title={ghost ? 'A ghost: mirrored, since w is below 0' : undefined}>
    {value === undefined ? 'no w' : figure(value, Math.abs(value) < 10_000 ? 1 : 0)}
  </span>
);

/** One polygon as given, cut at near and cut at the frustum, corner by corner. */
export function Through() {
  const now = useTaskMoment<OrderState>('order');
  const { slice, frame, codec: e, project } = now;
  const { followed } = slice;
  const polygon = followedPolygon(now);
  const name = followedName(now);
  if (!polygon)
    return (
      <>
        <p className="warning">The face that was followed is no longer there. Click another in the picture.</p>
        <button className="plain-button mt-1" onClick={followFirst}>
          Follow a polygon of its own
        </button>
      </>
    );
  const { near, frustum, unclipped, names } = threeWays(frame, polygon);
  const w = (viewRuf: Vec3) => e.toClip(viewRufToClip(frame, viewRuf))[3];
  const screen = (viewRuf: Vec3): Vec2 => {
    const clip = viewRufToClip(frame, viewRuf);
    return e.toScreen(frame.viewport, clip.x / clip.w, clip.y / clip.w);
  };
  const given = polygon.map((p, i): Row => {
    const viewRuf = worldToViewRuf(frame, p);
    const { position, ghost } = unclipped[i]!;
    return {
      ...{ key: `given ${i}`, way: 'as given', name: String(i + 1), ahead: viewRuf[2], w: w(viewRuf), ghost },
      screen: position && e.toScreen(frame.viewport, ...position),
    };
  });
  const rows = [
    ...given,
    ...(
      [
        ['cut at near', near],
        ['cut at the frustum', frustum],
      ] as const
    ).flatMap(([way, cut]) =>
      cut.map((one, i): Row => ({
        ...{ key: `${way} ${i}`, way, name: names.get(one)!, ahead: one.viewRuf[2], w: w(one.viewRuf) },
        ...{ screen: screen(one.viewRuf), ghost: false },
      })),
    ),
  ];
  const behind = given.filter(({ ahead }) => ahead < 0).length;
  const before = given.filter(({ ahead }) => ahead >= 0 && ahead < frame.near).length;
  return (
    <>
      <div className="row">
        <b className="overflow-hidden text-ellipsis" data-testid="followed">
          {name}
        </b>
        <span className="text-ink2">{counted(polygon.length, 'corner', 'corners')}</span>
        {followed.kind === 'face' && (
          <button className="text-button ml-auto" onClick={() => freeCorners(polygon, name)}>
            Free its corners
          </button>
        )}
      </div>
      <p className="text-note leading-4 text-ink2">
        Click a face in the picture to follow it
        {followed.kind === 'face' && (
          <>
            , or{' '}
            <button className="text-button" onClick={followFirst}>
              go back to the {project.guide === 'harbour' ? 'gangway' : 'sheet'}
            </button>
          </>
        )}
        .
      </p>
      <div className="result">
        <p className="verdict-line" data-testid="behind">
          {frame.kind === 'orthographic'
            ? `Orthographic: w is 1 everywhere, nothing is divided, and ${counted(behind + before, 'corner lies', 'corners lie')} before near.`
            : behind
              ? `${counted(behind, 'corner lies', 'corners lie')} behind the eye, where w is below 0: divided uncut, ${behind === 1 ? 'it comes' : 'they come'} out mirrored.`
              : before
                ? `No corner lies behind the eye; ${counted(before, 'lies', 'lie')} before near.`
                : 'Every corner lies past near: cutting there changes nothing.'}
        </p>
        <div className="line">
          as given
          <span className="right">{counted(polygon.length, 'corner', 'corners')}</span>
        </div>
        <div className="line">
          cut at near
          <span className="right" data-testid="near-corners">
            {near.length ? counted(near.length, 'corner', 'corners') : 'nothing left'}
          </span>
        </div>
        <div className="line">
          at the frustum <WorkingButton of="cut" />
          <span className="right" data-testid="frustum-corners">
            {frustum.length ? counted(frustum.length, 'corner', 'corners') : 'nothing left'}
          </span>
        </div>
      </div>
      <label className="row check">
        <input type="checkbox" checked={slice.ghosts} onChange={toggleGhosts} />
        Show what dividing uncut would paint: ghosts and streaks
      </label>
      <div className="rule">
        Corners <em>x, y in pixels</em>
      </div>
      <DataList
        name="corners"
        rows={rows}
        keyOf={({ key }) => key}
        columns={columns}
        verdictOf={({ way }) => way}
        most={10}
      />
      {followed.kind === 'polygon' && <Corners corners={followed.corners} />}
    </>
  );
}

/** The corners of a polygon of one's own, as numbers. */
function Corners({
  corners,
}: {
  corners: OrderState['followed'] extends infer F ? (F extends { corners: infer C } ? C : never) : never;
}) {
  const edit = (name: string, recipe: (corners: [number, number, number][]) => void, gesture?: string) =>
    change(
      name,
      ({ followed }) => {
        if (followed.kind === 'polygon') recipe(followed.corners);
      },
      gesture,
    );
  return (
    <>
      <div className="rule">
        Its corners <em>world</em>
      </div>
      {corners.map((_, i) => (
        <div className="row corner-row" key={i}>
          <span className="font-mono text-brasst">{i + 1}</span>
          <Field at={['followed', 'corners', i]} name={`Corner ${i + 1}`} width="31%" />
          <button
            className="drop"
            disabled={corners.length <= 3}
            aria-label={`Remove corner ${i + 1}`}
            title={corners.length <= 3 ? 'A polygon has three corners at least' : `Remove corner ${i + 1}`}
            onClick={() => edit('remove a corner', (all) => void all.splice(i, 1))}
          >
            ×
          </button>
        </div>
      ))}
      <button
        className="plain-button mt-1"
        disabled={corners.length >= mostCorners}
        title={corners.length >= mostCorners ? `A polygon has ${mostCorners} corners at most` : undefined}
        onClick={() =>
          edit('add a corner', (all) => {
            const [a, b] = [all.at(-1)!, all[0]!];
            all.push([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2]);
          })
        }
      >
        Add a corner
      </button>
    </>
  );
}
