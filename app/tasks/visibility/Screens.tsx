import type { CameraFrame } from '../../../core/camera/frame';
import type { PlacedBody } from '../../../core/bodies/body';
import { visibility, type Verdict } from '../../../core/visibility/visibility';
import { screenFrame } from '../../pictures/compose/screens';
import { showPane } from '../../edits/panes';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { useTaskMoment } from '../../state/tempo';
import { Glyph } from '../../ui/Glyph';
import { bodiesOf } from '../../state/bodyList';
import type { VisibilityState } from './kept';

interface OnScreen {
  readonly name: string;
  readonly size: string;
  readonly verdicts: readonly Verdict[];
}
const verdictsOn = memo(
  (
    frame: CameraFrame,
    bodies: readonly PlacedBody[],
    screens: Moment['project']['screens'],
    flat: boolean,
  ): readonly OnScreen[] =>
    screens.sizes.flatMap((size): OnScreen[] => {
      const own = screenFrame(frame, screens.fit, size, flat);
      if (!own) return [];
      return [
        {
          ...{ name: size.name, size: `${size.width} × ${size.height}` },
          verdicts: visibility(own, bodies, { method: 'exact', flat }).map(({ verdict }) => verdict),
        },
      ];
    }),
);

interface Differing {
  readonly id: string;
  readonly name: string;
  readonly inside: readonly OnScreen[];
  readonly outside: readonly OnScreen[];
}
/** The screens by name. */
const list = (of: readonly OnScreen[]) => of.map(({ name }) => name).join(', ');
const columns: readonly ListColumn<Differing>[] = [
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'seen on', width: '1fr', value: ({ inside }) => list(inside) },
  { name: 'not on', width: '1fr', value: ({ outside }) => list(outside) },
];

/** Every screen of the tray with its verdicts, and the bodies on which the screens do not agree. */
export function Screens() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { frame, project, flat } = now;
  const bodies = bodiesOf(now);
  const screens = verdictsOn(frame, bodies, project.screens, flat);
  const names = new Map(project.bodies.map(({ id, name }) => [id, name]));
  const differing = bodies.flatMap(({ body }, i): Differing[] => {
    const out = screens.filter(({ verdicts }) => verdicts[i] === 'outside');
    if (!out.length || out.length === screens.length) return [];
    return [
      {
        ...{ id: body.id, name: names.get(body.id) ?? body.id },
        ...{ inside: screens.filter((one) => !out.includes(one)), outside: out },
      },
    ];
  });
  return (
    <>
      <div className="screens-row head">
        <span>Screen</span>
        {(['inside', 'crosses', 'outside'] as const).map((verdict) => (
          <span key={verdict}>
            <Glyph kind={verdict} size={9} />
            <span className="sr-only">{verdict}</span>
          </span>
        ))}
      </div>
      {screens.map(({ name, size, verdicts }) => (
        <div className="screens-row" key={name} title={name} data-testid={`screen ${size}`}>
          <span>{size}</span>
          {(['inside', 'crosses', 'outside'] as const).map((verdict) => (
            <span key={verdict} className="font-mono">
              {verdicts.filter((one) => one === verdict).length}
            </span>
          ))}
        </div>
      ))}
      {!screens.length && <p className="text-note text-ink2">The project has no screens. Frame has them.</p>}
      <button className="plain-button mt-1" onClick={() => showPane('screens')}>
        Show the screens
      </button>
      <div className="rule">
        Seen on some, not on others <em>{differing.length}</em>
      </div>
      <DataList
        name="bodies the screens differ on"
        rows={differing}
        keyOf={({ id }) => id}
        columns={columns}
        bodiesOf={({ id }) => [id]}
        empty="All screens agree."
      />
    </>
  );
}
