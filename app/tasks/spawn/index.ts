import './spawn.css';
import { SpawnSheet } from './Sheet';
import { radians } from '../../../core/math/angle';
import type { Vec2, Vec3 } from '../../../core/math/vec3';
import type { HandleSpec } from '../../pictures/page/handles';
import { jumpTo } from '../../sheet/Sections';
import type { Moment } from '../../state/moment';
import type { Task } from '../task';
import { addDisc, change, rollSeed } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { SpawnState } from './kept';
import { surfaceOf, termsNow, type Terms } from './terms';
import { tries } from './tries';

/** The middle of the first edge of what is seen, outward of it, and where the padding has it. */
function edgeOf({ terms, seen }: Terms): { place: Vec2; foot: Vec2; out: Vec2 } {
  const [a, b] = [seen[0]!, seen[1]!];
  const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const out: Vec2 = [(b[1] - a[1]) / long, -(b[0] - a[0]) / long];
  const foot: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  return { foot, out, place: [foot[0] + out[0] * terms.clearance, foot[1] + out[1] * terms.clearance] };
}

type Of = (
  id: string,
  name: string,
  place: Vec2,
  set: (draft: SpawnState, to: [number, number]) => void,
) => HandleSpec<SpawnState>;

/** The sector by its heading, and by one of its sides. */
function sectorHandles({ heading, half }: NonNullable<SpawnState['sector']>, [x, y]: Vec2, far: number, of: Of) {
  const at = (angle: number): Vec2 => [x + far * Math.sin(angle), y + far * Math.cos(angle)];
  const angleOf = (to: Vec2) => Math.atan2(to[0] - x, to[1] - y);
  return [
    of('sector', 'the heading of the sector', at(heading), (draft, to) => void (draft.sector!.heading = angleOf(to))),
    of('sector side', 'the sector by its side', at(heading + half), (draft, to) => {
      // The shorter way round from its heading.
      const turn = angleOf(to) - draft.sector!.heading;
      const off = Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn)));
      draft.sector!.half = Math.max(radians(1), off);
    }),
  ];
}

/** Bounds, padding, discs and sector, in the drawings that see the surface. */
function spawnHandles(now: Moment<SpawnState>, picture: string): HandleSpec<SpawnState>[] {
  const { slice, flat } = now;
  // On the chart the camera's picture is one more plan.
  if (![...(flat ? ['world', 'camera'] : ['plan', 'outside'])].includes(picture)) return [];
  const surface = surfaceOf(now);
  const at = (p: Vec2): Vec3 => surface.at(p);
  const along: Vec3 = flat ? [0, 0, 1] : [0, 1, 0];
  const of: Of = (id, name, place, set) => ({
    ...{ id: `spawn ${id}`, name, picture, at: at(place), along },
    move: (to, edit) => edit(`move ${name}`, (draft) => set(draft as SpawnState, [...surface.coordinates(to)])),
  });
  const terms = termsNow(now);
  const { min, max } = slice;
  const ringed = typeof terms === 'string' ? [] : [{ ...edgeOf(terms), terms: terms.terms }];
  const padding = typeof terms === 'string' || slice.paddingUnit === 'pixels' ? [] : [edgeOf(terms)];
  return [
    ...padding.map(({ place, foot, out }) =>
      of('padding', 'the padding by its edge', place, (draft, to) => {
        const far = (to[0] - foot[0]) * out[0] + (to[1] - foot[1]) * out[1];
        draft.padding = Math.max(0, far - draft.radius);
      }),
    ),
    ...(slice.region === 'bounds'
      ? [
          of('min', 'the bounds by their first corner', min, (draft, to) => void (draft.min = to)),
          of('max', 'the bounds by their last corner', max, (draft, to) => void (draft.max = to)),
        ]
      : ringed.map(({ foot, out, terms: { clearance } }) =>
          of(
            'ring',
            'the ring by its outer edge',
            [foot[0] + out[0] * (clearance + slice.ring), foot[1] + out[1] * (clearance + slice.ring)],
            (draft, to) => {
              const far = (to[0] - foot[0]) * out[0] + (to[1] - foot[1]) * out[1];
              draft.ring = Math.max(1e-3, far - clearance);
            },
          ),
        )),
    ...slice.discs.slice(0, 12).flatMap(({ name, centre, distance }, i) => [
      of(`disc ${i}`, `the disc ${name}`, centre, (draft, to) => void (draft.discs[i]!.centre = to)),
      of(`disc ${i} edge`, `the edge of the disc ${name}`, [centre[0] + distance, centre[1]], (draft, to) => void (draft.discs[i]!.distance = Math.hypot(to[0] - draft.discs[i]!.centre[0], to[1] - draft.discs[i]!.centre[1]))), // prettier-ignore
    ]),
    ...(slice.sector && typeof terms !== 'string' ? sectorHandles(slice.sector, terms.middle, Math.abs(max[0] - min[0]) / 3, of) : []), // prettier-ignore
  ];
}

const spawn: Task<SpawnState> = {
  Sheet: SpawnSheet,
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
