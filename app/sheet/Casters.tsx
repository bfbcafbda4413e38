import { castersSeen, type CasterSeen } from '../../core/visibility/casters';
import { bodiesOf } from '../state/bodyList';
import { lightIn, lightOf, receiverOf, type ProjectLight } from '../state/light';
import { memo } from '../state/memo';
import type { Moment } from '../state/moment';
import { DataList, type ListColumn } from './DataList';

interface Caster {
  readonly id: string;
  readonly name: string;
  readonly seen: CasterSeen['seen'];
}

const casters = memo(
  (
    frame: Moment['frame'],
    placed: ReturnType<typeof bodiesOf>,
    bodies: Moment['project']['bodies'],
    light: ProjectLight,
    receiver: number,
  ): readonly Caster[] => {
    const names = new Map(bodies.map(({ id, name }) => [id, name]));
    return castersSeen(frame, placed, lightOf(light), receiverOf({ receiver })).map(({ body, seen }) => ({
      ...{ id: body, name: names.get(body) ?? body, seen },
    }));
  },
);

/** Which bodies and which of their shadows are in the picture, by the light of the project. */
export function castersNow(now: Moment<unknown>): readonly Caster[] {
  const { light, receiver } = lightIn(now.project);
  return casters(now.frame, bodiesOf(now), now.project.bodies, light, receiver);
}

const columns: readonly ListColumn<Caster>[] = [
  { name: 'Body', width: '1fr', value: ({ name }) => name },
  { name: 'In the picture', width: '104px', value: ({ seen }) => seen },
];

/** The same as a list. */
export const Casters = ({ name, rows }: { name: string; rows: readonly Caster[] }) => (
  <DataList
    name={name}
    rows={rows}
    keyOf={({ id }) => id}
    columns={columns}
    verdictOf={({ seen }) => seen}
    bodiesOf={({ id }) => [id]}
    empty="No body casts a shadow."
  />
);
