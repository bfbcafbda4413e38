import './spawn.css';
import { lazy } from 'react';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import type { HandleSpec } from '../../pictures/handles';
import { jumpTo } from '../../sheet/Sections';
import type { Moment } from '../../state/moment';
import type { Task } from '../task';
import { addDisc, change, rollSeed } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { SpawnState } from './state';
import { surfaceOf, termsNow } from './terms';
import { tries } from './tries';

/** Bounds, discs and sector, in the drawings that see the surface. */
function spawnHandles(now: Moment<SpawnState>, picture: string): HandleSpec<SpawnState>[] {
  const { slice, flat } = now;
  if (!['plan', 'world', 'outside'].includes(picture)) return [];
  const surface = surfaceOf(now);
  const at = (p: Vec2): Vec3 => surface.at(p);
  const along: Vec3 = flat ? [0, 0, 1] : [0, 1, 0];
  const of = (
    id: string,
    name: string,
    place: Vec2,
    set: (draft: SpawnState, to: [number, number]) => void,
  ): HandleSpec<SpawnState> => ({
    ...{ id: `spawn ${id}`, name, picture, at: at(place), along },
    move: (to, edit) => edit(`move ${name}`, (draft) => set(draft as SpawnState, [...surface.coordinates(to)])),
  });
  const terms = termsNow(now);
  const { min, max } = slice;
  return [
    ...(slice.region === 'bounds'
      ? [
          of('min', 'the bounds by their first corner', min, (draft, to) => void (draft.min = to)),
          of('max', 'the bounds by their last corner', max, (draft, to) => void (draft.max = to)),
        ]
      : []),
    ...slice.discs.slice(0, 12).flatMap(({ name, centre, distance }, i) => [
      of(`disc ${i}`, `the disc ${name}`, centre, (draft, to) => void (draft.discs[i]!.centre = to)),
      of(`disc ${i} edge`, `the edge of the disc ${name}`, [centre[0] + distance, centre[1]], (draft, to) => void (draft.discs[i]!.distance = Math.hypot(to[0] - draft.discs[i]!.centre[0], to[1] - draft.discs[i]!.centre[1]))), // prettier-ignore
    ]),
    ...(slice.sector && typeof terms !== 'string'
      ? [
          of(
            'sector',
            'the heading of the sector',
            [
              terms.middle[0] + (Math.abs(max[0] - min[0]) / 3) * Math.sin((slice.sector.heading * Math.PI) / 180),
              terms.middle[1] + (Math.abs(max[0] - min[0]) / 3) * Math.cos((slice.sector.heading * Math.PI) / 180),
            ],
            (draft, to) =>
              void (draft.sector!.heading =
                (Math.atan2(to[0] - terms.middle[0], to[1] - terms.middle[1]) * 180) / Math.PI),
          ),
        ]
      : []),
  ];
}

const spawn: Task<SpawnState> = {
  name: 'Spawn',
  key: '7',
  Sheet: lazy(() => import('./Sheet').then(({ SpawnSheet }) => ({ default: SpawnSheet }))),
  corner: 'screens',
  commands: [
    { name: 'Take another seed', run: rollSeed },
    { name: 'Add a keep-away disc', run: addDisc },
    { name: 'Spawn within bounds', run: () => change('change the bounds', (draft) => void (draft.region = 'bounds')) },
    { name: 'Spawn in a ring', run: () => change('change the bounds', (draft) => void (draft.region = 'ring')) },
  ],
  keys: [
    { key: 'r', says: 'takes another seed', run: rollSeed },
    { key: 'f', says: 'goes to the first frame', run: () => jumpTo('spawn-first') },
  ],
  finds,
  help,
  tries,
  workings: {
    titles: { untilSeen: 'When the probe is first seen' },
    load: () => import('./workings'),
    sources: { speed: 'the speeds', padding: 'the padding and the radius' },
  },
  handles: spawnHandles,
};
export default spawn;
