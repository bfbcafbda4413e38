import { planesOf } from '../../core/camera/frame';
import { randomFrom } from '../../core/math/random';
import type { Vec3 } from '../../core/math/vec3';
import { tintByte, type GpuLayer, type Marks } from '../../app/pictures/compose/contract';
import { planFrame } from '../../app/pictures/compose/drawings';
import { memo } from '../../app/state/memo';
import type { SampleState } from './state';

export const boxCount = 20_000;

interface Boxes {
  readonly revision: number;
  /** Centres, x, y, z after one another, about the scatter's own. */
  readonly places: Float32Array;
  readonly transforms: Float32Array;
}

let revision = 0;
/** Small boxes scattered in a slab: made anew when they are others, whatever the camera does. */
const scatter = memo((spread: number, seed: number): Boxes => {
  const random = randomFrom(seed);
  const places = new Float32Array(3 * boxCount);
  const transforms = new Float32Array(12 * boxCount);
  for (let i = 0; i < boxCount; i++) {
    const at = [(random() - 0.5) * 2 * spread, random() * 12, (random() - 0.5) * 2 * spread] as const;
    places.set(at, 3 * i);
    transforms.set([0.8, 0, 0, at[0], 0, 0.8, 0, at[1], 0, 0, 0.8, at[2]], 12 * i);
  }
  return { revision: ++revision, places, transforms };
});

interface Derived {
  readonly boxes: Boxes;
  readonly tints: Uint8Array;
  readonly inside: number;
}

/** Which boxes the camera sees, by their centres: another for every frame. */
function tintsOf({ places }: Boxes, centre: Vec3, planes: readonly (readonly number[])[]): Uint8Array {
  const out = new Uint8Array(boxCount);
  const [inside, outside] = [tintByte('inside'), tintByte('outside')];
  const [cx, cy, cz] = centre;
  for (let i = 0; i < boxCount; i++) {
    const [x, y, z] = [places[3 * i]! + cx, places[3 * i + 1]! + cy, places[3 * i + 2]! + cz];
    let seen = true;
    for (const p of planes)
      if (p[0]! * x + p[1]! * y + p[2]! * z + p[3]! < 0) {
        seen = false;
        break;
      }
    out[i] = seen ? inside : outside;
  }
  return out;
}

export const marks: Marks<SampleState, Derived> = {
  derive: ({ slice, frame }) => {
    const boxes = scatter(slice.spread, slice.seed);
    const tints = tintsOf(
      boxes,
      slice.centre,
      planesOf(frame).map(({ plane }) => plane),
    );
    return { boxes, tints, inside: tints.reduce((sum, t) => sum + Number(t === tintByte('inside')), 0) };
  },

  standing(view, { slice, frame, answer }, { boxes, tints }) {
    const at = view.point(slice.centre);
    const s = slice.spread;
    const [cx, , cz] = slice.centre;
    const corners = ([[-s, -s], [s, -s], [s, s], [-s, s]] as const).map(([x, z]): Vec3 => [cx + x, 0, cz + z]); // prettier-ignore
    const counted = answer<{ count: number }>('counted');
    const layers: GpuLayer[] = [
      {
        ...{ key: 'boxes', kind: 'instances', shape: 'box', origin: slice.centre, tints },
        ...{ transforms: boxes.transforms, revision: boxes.revision, tintRevision: frame.serial },
      },
      {
        ...{ key: 'edge', kind: 'lines', origin: [cx, 0, cz], tint: 'chosen', width: 2, dash: true, revision: s },
        segments: Float32Array.from([-s, 0, -s, s, 0, -s, s, 0, -s, s, 0, s, s, 0, s, -s, 0, s, -s, 0, s, -s, 0, -s]),
      },
      {
        ...{ key: 'floor', kind: 'triangles', origin: [cx, 0.05, cz], tint: 'region', hatch: true, revision: s },
        positions: Float32Array.from([-s, 0, -s, s, 0, -s, s, 0, s, -s, 0, -s, s, 0, s, -s, 0, s]),
      },
    ];
    if (view.name === 'camera')
      layers.push({
        ...{ key: 'corner', kind: 'field', size: { width: 8, height: 4 }, revision: 1, steps: [0.9], opacity: 0.4 },
        ...{ scale: ['none', 'crosses'], values: Float32Array.from({ length: 32 }, (_, i) => Number(i === 7)) },
      });
    return {
      layers,
      marks: [
        { ink: 'region-edge', d: view.line(corners, true) },
        // Where verdicts are read by their colours nothing lies over them.
        ...(view.name === 'sample/above' ? [] : [{ ink: 'region' as const, d: view.area(corners) }]),
      ],
      words: at
        ? [
            {
              text: counted ? `Sample of ${counted.count}` : 'Sample',
              at,
              ink: 'name-strong',
              priority: 12,
              leader: true,
            },
          ]
        : [],
    };
  },

  underPointer: ({ name, scale }, [x, y]) =>
    name === 'camera'
      ? [{ ink: 'ray', x: x * scale, y: y * scale, d: 'M-12 0a12 12 0 1 0 24 0a12 12 0 1 0 -24 0' }]
      : [],

  // Bodies that stand on the bottom are marked.
  tints: ({ project }) => Uint8Array.from(project.bodies, ({ fixed }) => (fixed ? tintByte('crosses') : 0)),

  pictures: [
    {
      name: 'above',
      title: 'Sample from above',
      frame: ({ slice, sceneBounds }, _, size) =>
        planFrame({ middle: [slice.centre[0], slice.centre[2]], unitsPerPixel: 0.6 }, size, sceneBounds),
    },
  ],
};
