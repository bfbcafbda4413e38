import { radians } from '../../../core/math/angle';
import type { Vec3 } from '../../../core/math/vec3';
import { lightFrom, type Light } from '../../../core/order/shadow';
import { castersSeen } from '../../../core/visibility/casters';
import { DataList, type ListColumn } from '../../sheet/DataList';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { useTaskMoment } from '../../state/tempo';
import { counted } from '../../ui/figures';
import { bodiesOf } from '../../state/bodyList';
import type { VisibilityState } from './state';

/** What of another task's part of the project is the light. */
interface Lit {
  readonly light?: { readonly kind: string; readonly bearing?: number; readonly altitude?: number; readonly at?: Vec3 };
  readonly receiver?: number;
}

/** The light that is set under Order, and the level that its shadows fall on; that of the beginning if none is. */
const litBy = memo((project: Moment['project']): { light: Light; height: number } => {
  const { light, receiver } = (project.tasks.order ?? {}) as Lit;
  const height = receiver ?? project.ground?.height ?? 0;
  if (light?.kind === 'lamp' && light.at) return { light: { kind: 'point', at: light.at }, height };
  const { bearing = 120, altitude = 35 } = light ?? {};
  return { light: { kind: 'directional', travels: lightFrom(radians(bearing), radians(altitude)) }, height };
});

const casters = memo((frame: Moment['frame'], bodies: ReturnType<typeof bodiesOf>, light: Light, height: number) =>
  castersSeen(frame, bodies, light, { point: [0, height, 0], normal: [0, 1, 0] }),
);

interface Caster {
  readonly id: string;
  readonly name: string;
  readonly seen: string;
}
const columns: readonly ListColumn<Caster>[] = [
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'In the picture', width: '104px', value: ({ seen }) => seen },
];

/** Bodies out of view whose shadow is in it. */
export function Shadows() {
  const now = useTaskMoment<VisibilityState>('visibility');
  const { project, frame } = now;
  const { light, height } = litBy(project);
  const names = new Map(project.bodies.map(({ id, name }) => [id, name]));
  const rows = casters(frame, bodiesOf(now), light, height).map(({ body, seen }): Caster => ({ id: body, name: names.get(body) ?? body, seen })); // prettier-ignore
  const alone = rows.filter(({ seen }) => seen === 'shadow alone').length;
  return (
    <>
      <p className="verdict-line" data-testid="shadows">
        {alone
          ? `${counted(alone, 'body is', 'bodies are')} out of the picture, and ${alone === 1 ? 'its shadow is' : 'their shadows are'} in it.`
          : 'No shadow is in the picture without its body.'}
      </p>
      <p className="text-note leading-4 text-ink2">
        A shadow pass that draws what the camera sees would lose these; a camera that draws what a shadow pass has drawn
        would draw them for nothing. Each view decides for itself. The light is that of Order.
      </p>
      <DataList
        name="casters in view"
        rows={rows}
        keyOf={({ id }) => id}
        columns={columns}
        verdictOf={({ seen }) => seen}
        bodiesOf={({ id }) => [id]}
        empty="No body casts a shadow."
      />
    </>
  );
}
