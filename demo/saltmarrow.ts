import { radians } from '../core/math/angle';
import { lathe, type TriangleMesh } from '../core/bodies/mesh';
import { defaultConventions } from '../core/conventions/conventions';
import { cross, dot, length, normalize, scale, sub, add, type Vec3 } from '../core/math/vec3';
import { normalizeQuat, type Quat } from '../core/math/quat';
import { projectSchema, type Project, type Tone } from '../formats/project';
import { deckOutline } from './hull';
import type * as z from 'zod';

/*
 * Saltmarrow, an invented tidal harbour. Metres, +y up, the harbour mouth towards −z. Numbers are
 * set by eye, for a good picture.
 */

type BodyInput = NonNullable<z.input<typeof projectSchema>['bodies']>[number];

const bodies: BodyInput[] = [];
const put = (id: string, name: string, tone: Tone, rest: Omit<BodyInput, 'id' | 'name' | 'tone'>) =>
  bodies.push({ id, name, tone, ...rest });

const turnY = (degrees: number): [number, number, number, number] => {
  const half = (degrees * Math.PI) / 360;
  return [0, Math.sin(half), 0, Math.cos(half)];
};
const mesh = ({ positions, indices }: TriangleMesh) => ({
  kind: 'mesh' as const,
  positions: [...positions].map(mm),
  indices: [...indices],
});
/** To the millimetre: nobody measures a harbour closer, and the file stays readable. */
const mm = (v: number) => Math.round(v * 1000) / 1000 || 0;

/** The box between two corners, as position and shape. */
const block = (a: Vec3, b: Vec3) => ({
  position: scale(add(a, b), 0.5) as [number, number, number],
  shape: { kind: 'box' as const, size: sub(b, a).map(Math.abs) as [number, number, number] },
});

/** The rotation that takes +y to a direction by the shortest way. */
function fromUp(direction: Vec3): Quat {
  const axis = cross([0, 1, 0], direction);
  return normalizeQuat([axis[0], axis[1], axis[2], 1 + dot([0, 1, 0], direction)]) ?? [1, 0, 0, 0];
}

/** A square beam from one point to another. */
const beam = (a: Vec3, b: Vec3, width: number) => ({
  position: scale(add(a, b), 0.5).map(mm) as [number, number, number],
  rotation: [...fromUp(normalize(sub(b, a))!)] as [number, number, number, number],
  shape: { kind: 'box' as const, size: [width, mm(length(sub(b, a))), width] as [number, number, number] },
});

/**
 * A solid between two outlines of equally many corners, listed clockwise seen from above: [x, z] at
 * two heights.
 */
function between(
  low: readonly (readonly [number, number])[],
  y0: number,
  high: readonly (readonly [number, number])[],
  y1: number,
): TriangleMesh {
  const n = low.length;
  const positions = [...low.flatMap(([x, z]) => [x, y0, z]), ...high.flatMap(([x, z]) => [x, y1, z])];
  const indices: number[] = [];
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    indices.push(i, n + i, j, j, n + i, n + j);
  }
  for (let i = 1; i + 1 < n; i++) indices.push(0, i, i + 1, n, n + i + 1, n + i);
  return { positions, indices };
}

/** A ridged roof over a rectangle, ridge along x. */
function ridge(x: number, z: number, rise: number): TriangleMesh {
  const positions = [-x, 0, -z, x, 0, -z, x, 0, z, -x, 0, z, -x, rise, 0, x, rise, 0];
  return { positions, indices: [3, 2, 5, 3, 5, 4, 1, 0, 4, 1, 4, 5, 0, 3, 4, 2, 1, 5, 0, 1, 2, 0, 2, 3] };
}

const quay = 3.61;

put('mole', 'Lamp mole', 'stone', {
  ...block([-27.5, 0, -26.5], [-14.5, 2.8, -13.5]),
  fixed: true,
  handle: [6.5, 1.4, 6.5],
});
put('breakwater', 'Breakwater', 'stone', {
  ...block([-74, 0, -23.5], [-27.5, 2.8, -18.5]),
  fixed: true,
  handle: [6, 1.4, 2.5],
});
put('north-quay', 'North quay', 'stone', { ...block([3, 0, -26], [33, quay, -10]), fixed: true, handle: [7, -0.4, 8] });
put('east-quay', 'East quay', 'stone', { ...block([33, 0, -26], [48, quay, 30]), fixed: true, handle: [-7.5, 1.8, 6] });
const shore: [number, number][] = [
  [-10, -101],
  [40, -107],
  [50, -92],
  [26, -83.4],
  [-2, -83],
];
put('headland', 'Headland', 'stone', {
  shape: mesh(
    between(
      shore,
      0,
      shore.map(([x, z]) => [20.8 + (x - 20.8) * 0.5, -93.3 + (z + 93.3) * 0.5] as const),
      17,
    ),
  ),
  position: [0, 0, 0],
  fixed: true,
  handle: [20, 15, -90],
});

// The lighthouse: a turned tower, with what it carries as its children.
put('lighthouse', 'Lighthouse', 'white', {
  shape: mesh(
    lathe(
      [
        [0, 0],
        [3.9, 0],
        [3.75, 0.9],
        [3, 0.9],
        [2.62, 6.1],
        [2.27, 10.8],
        [1.94, 15.3],
        [0, 15.3],
      ],
      28,
    ),
  ),
  position: [-21, 2.8, -20],
  rotation: turnY(20),
  handle: [0, 17.6, 0],
});
const onTower = (id: string, name: string, tone: Tone, profile: [number, number][], sides = 28) =>
  put(id, name, tone, {
    shape: mesh(lathe(profile, sides)),
    position: [0, 0, 0],
    parent: 'lighthouse',
    handle: [0, profile[1]![1], 0],
  });
onTower('tower-band', 'Tower band', 'dark', [
  [2.64, 6.1],
  [2.64, 6.1],
  [2.29, 10.8],
  [2.29, 10.8],
]);
onTower('gallery', 'Gallery', 'dark', [
  [0, 15.3],
  [1.94, 15.3],
  [2.7, 16],
  [0, 16],
]);
onTower('gallery-rail', 'Gallery rail', 'white', [
  [0, 16],
  [2.9, 16],
  [2.9, 16.35],
  [0, 16.35],
]);
onTower(
  'lantern',
  'Lantern',
  'glass',
  [
    [0, 16.35],
    [1.5, 16.35],
    [1.5, 18.8],
    [0, 18.8],
  ],
  10,
);
onTower(
  'lantern-eaves',
  'Lantern eaves',
  'dark',
  [
    [0, 18.8],
    [1.9, 18.8],
    [1.9, 19.15],
    [0, 19.15],
  ],
  20,
);
onTower(
  'lantern-roof',
  'Lantern roof',
  'dark',
  [
    [0, 19.15],
    [1.75, 19.15],
    [0, 20.8],
  ],
  20,
);
put('lightning-rod', 'Lightning rod', 'dark', { ...beam([0, 20.8, 0], [0, 22.3, 0], 0.12), parent: 'lighthouse' });
put('lamp', 'Lighthouse lamp', 'glass', { shape: { kind: 'point' }, position: [0, 17.6, 0], parent: 'lighthouse' });

put('shed', 'Net shed', 'white', { ...block([6, quay, -24.5], [14.5, quay + 4.2, -18]), handle: [0, 2.1, 3.2] });
put('shed-roof', 'Net shed roof', 'roof', { shape: mesh(ridge(4.5, 3.5, 2.4)), position: [0, 2.1, 0], parent: 'shed' });
put('custom-house', 'Custom house', 'white', {
  ...block([-31, 0, 34], [-11.8, 3.2, 43]),
  fixed: true,
  handle: [8, 1.6, -4.5],
});
put('custom-house-roof', 'Custom house roof', 'roof', {
  shape: mesh(ridge(9.8, 4.8, 3)),
  position: [0, 1.6, 0],
  parent: 'custom-house',
});
put('chimney', 'Custom house chimney', 'stone', { ...block([6.2, 2.6, -1.9], [7.2, 5.6, -1]), parent: 'custom-house' });

function crane(
  id: string,
  name: string,
  at: [number, number, number],
  heading: number,
  slope: number,
  reach: number,
  drop: number,
  swing: { amplitude: number; period: number } | null = null,
) {
  const part = (suffix: string, what: string, tone: Tone, rest: Omit<BodyInput, 'id' | 'name' | 'tone'>) =>
    put(`${id}-${suffix}`, `${name} ${what}`, tone, { ...rest, parent: id });
  // The platform carries everything: the crane's own space has its origin on the quay below it.
  put(id, name, 'white', {
    shape: { kind: 'box', size: [5, 0.8, 5] },
    position: [at[0], at[1] + 8, at[2]],
    rotation: turnY(heading),
    handle: [0, 0.4, 2.5],
  });
  const on = (p: Vec3): Vec3 => [p[0], p[1] - 8, p[2]];
  [
    [-2.6, -2.6],
    [2.6, -2.6],
    [2.6, 2.6],
    [-2.6, 2.6],
  ].forEach(([x, z], i) =>
    part(`leg-${i + 1}`, `leg ${i + 1}`, 'dark', beam(on([x!, 0, z!]), on([x! * 0.72, 7.6, z! * 0.72]), 0.55)),
  );
  part('cabin', 'cabin', 'white', block(on([-1.7, 8.4, -1.6]), on([3.1, 11.2, 1.6])));
  part('cap', 'cabin roof', 'dark', block(on([-1.8, 11.2, -1.7]), on([3.2, 11.7, 1.7])));
  const angle = radians(slope);
  const pivot: Vec3 = [-1.2, 11.2, 0];
  const tip: Vec3 = [pivot[0] - Math.cos(angle) * reach, pivot[1] + Math.sin(angle) * reach, 0];
  const post: Vec3 = [0.4, 17.2, 0];
  const hook: Vec3 = [tip[0], Math.max(5.5, tip[1] - drop), 0];
  part('post', 'king post', 'dark', beam(on([1.2, 11.7, 0]), on(post), 0.5));
  part('jib', 'jib', 'white', { ...beam(on(pivot), on(tip), 0.7), handle: [0, mm(reach / 2), 0] });
  part('stay', 'stay', 'dark', beam(on(post), on(tip), 0.1));
  part('backstay', 'backstay', 'dark', beam(on(post), on([3, 11.7, 0]), 0.1));
  // Fall and hook swing together about the end of the jib.
  const swings: Pick<BodyInput, 'motion'> = swing
    ? { motion: { kind: 'swing', pivot: on(tip).map(mm) as [number, number, number], axis: [0.4, 0, 1], ...swing } }
    : {};
  part('fall', 'fall', 'dark', { ...beam(on(tip), on(hook), 0.08), ...swings });
  part('hook', 'hook', 'dark', {
    ...block(on([hook[0] - 0.5, hook[1] - 1.1, -0.4]), on([hook[0] + 0.5, hook[1], 0.4])),
    ...swings,
  });
}
crane('crane-a', 'Crane A', [24, quay, -17], 22, 38, 15, 5, { amplitude: 9, period: 4.5 });
crane('crane-b', 'Crane B', [36.5, quay, -2], -14, 60, 23, 17);

function vessel(
  id: string,
  name: string,
  at: [number, number, number],
  heading: number,
  long: number,
  wide: number,
  launch = false,
  motion: BodyInput['motion'] = null,
) {
  const [h, b] = [long / 2, wide / 2];
  const part = (suffix: string, what: string, tone: Tone, rest: Omit<BodyInput, 'id' | 'name' | 'tone'>) =>
    put(`${id}-${suffix}`, `${name} ${what}`, tone, { ...rest, parent: id });
  const deck = deckOutline(long, wide);
  const freeboard = launch ? 1.3 : 2.1;
  put(id, name, 'dark', {
    shape: mesh(
      between(
        deck.map(([x, z]) => [x * 0.94, z * 0.86] as const),
        0,
        deck,
        freeboard,
      ),
    ),
    position: at,
    rotation: turnY(heading),
    handle: [h * 0.5, freeboard * 0.6, b * 0.9],
    motion,
  });
  if (launch) {
    part('cabin', 'cabin', 'white', block([-h * 0.35, 1.3, -b * 0.55], [h * 0.3, 2.9, b * 0.55]));
    part('mast', 'mast', 'dark', beam([0, 2.9, 0], [0, 4.8, 0], 0.12));
  } else {
    part('saloon', 'saloon', 'white', block([-h * 0.78, 2.1, -b * 0.66], [h * 0.42, 4.2, b * 0.66]));
    part('boat-deck', 'boat deck', 'white', block([-h * 0.7, 4.2, -b * 0.74], [h * 0.3, 4.5, b * 0.74]));
    part('bridge', 'bridge', 'white', block([-h * 0.02, 4.5, -b * 0.5], [h * 0.26, 6.3, b * 0.5]));
    part('funnel', 'funnel', 'dark', {
      shape: mesh(
        lathe(
          [
            [0, 0],
            [0.85, 0],
            [0.75, 2.5],
            [0, 2.5],
          ],
          16,
        ),
      ),
      position: [mm(-h * 0.38), 4.5, 0],
    });
    part('mast', 'mast', 'dark', beam([h * 0.1, 6.3, 0], [h * 0.1, 9.2, 0], 0.14));
  }
}
// Astern across the harbour and back, on her own line.
vessel('marsh-hen', 'Ferry Marsh Hen', [2.5, 0, 9], 28, 19, 6, false, {
  kind: 'shuttle',
  to: [-24, 0, 23.1],
  period: 48,
});
vessel('tern', 'Ferry Tern', [-34.5, 0, 4], 172, 15, 5);
vessel('launch', 'Pilot launch', [-13, 0, 73], 152, 9, 3.2, true, {
  kind: 'orbit',
  centre: [-5.5, 0, 58.9],
  period: -24,
});

const buoys: [number, number, number][] = [
  [-7.4, 0, 24],
  [14, 0, 27.5],
  [-32, 0, 20],
];
buoys.forEach(([x, y, z], i) => {
  const id = `buoy-${i + 1}`;
  put(id, `Buoy ${i + 1}`, 'dark', {
    shape: { kind: 'sphere', radius: 1 },
    position: [x, y + 0.35, z],
    handle: [0, 1, 0],
  });
  put(`${id}-tower`, `Buoy ${i + 1} tower`, 'white', {
    shape: mesh(
      lathe(
        [
          [0, 0.8],
          [0.55, 0.8],
          [0.18, 2.65],
          [0, 2.65],
        ],
        12,
      ),
    ),
    position: [0, 0, 0],
    parent: id,
  });
  put(`${id}-light`, `Buoy ${i + 1} light`, 'dark', {
    shape: { kind: 'sphere', radius: 0.36 },
    position: [0, 3, 0],
    parent: id,
  });
});

/** A bird in flight: a slip of a body and two raised wings. */
const bird: TriangleMesh = {
  positions: [0, 0, -0.75, 0, 0.1, 0, 0, 0, 0.8, -1.5, 0.5, 0.25, 1.5, 0.5, 0.25, 0, -0.15, 0],
  indices: [0, 3, 1, 1, 3, 2, 0, 1, 4, 1, 2, 4, 0, 5, 3, 5, 2, 3, 0, 4, 5, 5, 4, 2],
};
/** Where a gull is, its heading, and how wide and how long its rounds are. */
const gulls: [x: number, y: number, z: number, heading: number, radius: number, period: number][] = [
  [-6.4, 17, 22, 60, 7, 9],
  [0.6, 19.4, 12, 110, 9, 11],
  [-17, 23, 34, 80, 6, 8],
];
gulls.forEach(([x, y, z, heading, radius, period], i) => {
  // It flies along its beak (−z of its own), the middle of its round to its left.
  const a = radians(heading);
  const centre: [number, number, number] = [mm(x - radius * Math.cos(a)), y, mm(z + radius * Math.sin(a))];
  put(`gull-${i + 1}`, `Gull ${i + 1}`, 'white', {
    ...{ shape: mesh(bird), position: [x, y, z], rotation: turnY(heading) },
    motion: { kind: 'orbit', centre, period },
  });
});

const bollards: [number, number][] = [
  [5, -11],
  [13, -11],
  [21, -11],
  [29, -11],
  [34.2, 4],
  [34.2, 13],
  [34.2, 22],
];
bollards.forEach(([x, z], i) =>
  put(`bollard-${i + 1}`, `Bollard ${i + 1}`, 'dark', {
    shape: mesh(
      lathe(
        [
          [0, 0],
          [0.3, 0],
          [0.3, 0.6],
          [0.45, 0.65],
          [0.45, 0.9],
          [0, 0.9],
        ],
        12,
      ),
    ),
    position: [x, quay, z],
    handle: [0, 0.9, 0],
  }),
);
const drift: [number, number, number, number][] = [
  [-19, 12, 35, 4],
  [6, 38, 100, 2.6],
  [-2, -6, 150, 3.2],
];
drift.forEach(([x, z, heading, long], i) =>
  put(`driftwood-${i + 1}`, `Driftwood ${i + 1}`, 'stone', {
    shape: { kind: 'box', size: [long, 0.4, 0.45] },
    position: [x, 0.1, z],
    rotation: turnY(heading),
  }),
);

/**
 * The demo project, new on every call: Saltmarrow from the bridge wing of a ferry coming in, with
 * the lighthouse lamp as the probe.
 */
export function saltmarrow(id = 'saltmarrow'): Project {
  return projectSchema.parse({
    astrolabeProject: 1,
    id,
    name: 'Saltmarrow harbour',
    guide: 'harbour',
    unit: 'metres',
    conventions: defaultConventions,
    viewport: { width: 1280, height: 720, devicePixelRatio: 2 },
    camera: {
      id: 'bridge-wing',
      name: 'Bridge wing',
      position: [-6, 14, 64],
      orientation: { kind: 'angles', yaw: 6, pitch: -8, roll: 0 },
      projection: { kind: 'perspective', verticalFov: 36, near: 5, far: 140 },
    },
    cameras: [
      {
        ...{ id: 'lamp-room', name: 'Lamp room', position: [-19.6, 20.6, -17.2] },
        orientation: { kind: 'angles', yaw: 154, pitch: -20, roll: 0 },
        projection: { kind: 'perspective', verticalFov: 52, near: 0.5, far: 160 },
      },
      {
        ...{ id: 'breakwater', name: 'Breakwater', position: [-64, 5.2, -20.4] },
        orientation: { kind: 'lookAt', target: [-21, 13, -20] },
        projection: { kind: 'perspective', verticalFov: 34, near: 1, far: 200 },
      },
      {
        ...{ id: 'quay', name: 'Quay', position: [9, 5.4, -11.5] },
        orientation: { kind: 'lookAt', target: [0, 3, 12] },
        projection: { kind: 'perspective', verticalFov: 55, near: 0.5, far: 160 },
      },
      {
        ...{ id: 'round-the-light', name: 'Round the light', position: [11, 17, -44] },
        orientation: { kind: 'lookAt', target: [-21, 11, -20] },
        projection: { kind: 'perspective', verticalFov: 42, near: 1, far: 200 },
      },
    ],
    cameraPlace: 1,
    ground: { name: 'water', height: 0 },
    bodies,
    probe: { body: 'lighthouse', drive: { rung: 'world', value: [-21, 20.4, -20] } },
    pointer: { canvas: [24, 96] },
    back: { pixel: [812, 344], route: 'ahead', value: 83.2047 },
  } satisfies z.input<typeof projectSchema>);
}
