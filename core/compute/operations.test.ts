import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codecOf } from '../conventions/codec';
import { defaultConventions } from '../conventions/conventions';
import { conventions } from '../testing/arbitraries';
import { compute } from './compute';
import type { ComputeRequest } from './schema';
import { runs } from '../testing/seed';

type Row = Record<string, unknown>;
const results = (given: ComputeRequest): Row[] => {
  const answered = compute(given);
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem.errors));
  return answered.response.results as unknown as Row[];
};
const base: ComputeRequest = {
  astrolabe: 1,
  viewport: { width: 200, height: 100 },
  camera: {
    position: [0, 2, 0],
    orientation: { yaw: 0, pitch: 0 },
    projection: { kind: 'perspective', near: 1, far: 50, verticalFov: 90 },
  },
  queries: [],
};
const ask = (query: object, part: Partial<ComputeRequest> = {}): Row =>
  results({ ...base, ...part, queries: [{ id: 'q', ...query } as never] })[0]!;
const close = (actual: unknown, expected: readonly number[], digits = 12) => {
  expect(actual).toHaveLength(expected.length);
  (actual as number[]).forEach((v, i) => expect(v).toBeCloseTo(expected[i]!, digits));
};

describe('billboards', () => {
  const item = (mode: string, rest: object = {}) =>
    (ask({ op: 'billboard', items: [{ position: [3, 2, -4], size: [1, 1], mode, ...rest }] }).items as Row[])[0]!;
  it('face as their mode says', () => {
    close(item('viewPlane').normal, [0, 0, 1]);
    close(item('eyePoint').normal, [-0.6, 0, 0.8]);
    close(item('axisEye').normal, [-0.6, 0, 0.8]);
    close(item('axisView').normal, [0, 0, 1]);
    close(item('axisEye', { front: '-n' }).normal, [0.6, 0, -0.8]);
    close(item('axisEye', { axis: [0, 0, -3] }).up, [0, 0, -1]);
    close(item('eyePoint').matrix, [0.8, 0, 0.6, 0, 0, 1, 0, 0, -0.6, 0, 0.8, 0, 3, 2, -4, 1]);
  });
  it('keep the camera’s right straight above the axis, and say so', () => {
    const above = (ask({ op: 'billboard', items: [{ position: [0, -5, 0], mode: 'axisEye' }] }).items as Row[])[0]!;
    expect(above.degenerate).toBe(true);
    close(above.right, [1, 0, 0]);
    close(above.normal, [0, 0, 1]);
    expect(item('axisEye').degenerate).toBe(false);
  });
  it('tilt clockwise on the screen, and not at all where there is no image', () => {
    expect(item('viewPlane').tilt).toBeCloseTo(0, 12);
    expect(
      (ask({ op: 'billboard', items: [{ position: [0, 2, 9], mode: 'viewPlane' }] }).items as Row[])[0],
    ).toMatchObject({ tilt: null, reason: 'behindEye' });
    const rolled = { ...base.camera, orientation: { yaw: 0, pitch: 0, roll: 30 } } as ComputeRequest['camera'];
    // The camera's head leans right by 30°, so upright things lean left.
    const upright = (
      ask({ op: 'billboard', items: [{ position: [0, 2, -9], mode: 'axisView' }] }, { camera: rolled }).items as Row[]
    )[0]!;
    expect(upright.tilt).toBeCloseTo(-30, 10);
  });
});

describe('footprint', () => {
  it('is the trapezium on level ground, counter-clockwise from above, and runs to infinity with an infinite far', () => {
    const { polygon, unbounded } = ask({ op: 'footprint', plane: { point: [0, 0, 0], normal: [0, 1, 0] } }) as {
      polygon: number[][];
      unbounded: boolean;
    };
    expect(unbounded).toBe(false);
    expect(polygon).toHaveLength(4);
    const area = polygon.reduce((sum, p, i) => {
      const q = polygon[(i + 1) % 4]!;
      // Seen from above, x to the right and −z up the page.
      return sum + (p[0]! * -q[2]! - q[0]! * -p[2]!) / 2;
    }, 0);
    expect(area).toBeCloseTo(50 * 50 * 2 - 2 * 2 * 2, 8);
    const infinite = {
      ...base.camera,
      projection: { kind: 'perspective', near: 1, far: null, verticalFov: 90 },
    } as ComputeRequest['camera'];
    const open = ask({ op: 'footprint', plane: { point: [0, 0, 0], normal: [0, 1, 0] } }, { camera: infinite }) as {
      polygon: number[][];
      unbounded: boolean;
    };
    expect(open.unbounded).toBe(true);
    close(open.polygon.flat(), [-4, 0, -2, 4, 0, -2], 9);
  });
  it('is an error of its own where the frustum does not reach', () => {
    expect(ask({ op: 'footprint', plane: { point: [0, 0, 9], normal: [0, 0, 1] } })).toMatchObject({
      error: { code: 'footprintEmpty' },
    });
  });
});

it('dolly zoom keeps the height at the target', () => {
  const stops = ask({ op: 'dollyZoom', target: [0, 2, -10], distances: [5, 20] }).distances as Row[];
  close(stops[0]!.position, [0, 2, -5]);
  expect(stops.map(({ heightAtTarget }) => heightAtTarget)).toEqual([expect.closeTo(20, 12), expect.closeTo(20, 12)]);
  expect(stops[0]!.verticalFov).toBeCloseTo((2 * Math.atan(2) * 180) / Math.PI, 11);
  expect(ask({ op: 'dollyZoom', target: [0, 2, -10], distances: [5, 0] })).toMatchObject({
    error: { code: 'distanceNotPositive' },
  });
  expect(ask({ op: 'dollyZoom', target: [0, 2, 10], distances: [5] })).toMatchObject({
    error: { code: 'distanceNotPositive' },
  });
});

it('the horizon crosses the middle of a level view and leaves a steep one', () => {
  const level = ask({ op: 'horizon' });
  expect(level).toMatchObject({ where: null });
  close((level.points as number[][]).flat(), [0, 50, 200, 50]);
  const points = level.vanishingPoints as Record<string, Row>;
  close(points.forward!.point, [100, 50]);
  expect(points.back).toEqual({ point: null, reason: 'behindEye' });
  expect(points.right).toEqual({ point: null, reason: 'parallelToScreen' });
  const pitched = (pitch: number) =>
    ask({ op: 'horizon' }, { camera: { ...base.camera, orientation: { yaw: 0, pitch } } as ComputeRequest['camera'] });
  expect(pitched(-60)).toMatchObject({ points: null, where: 'above' });
  expect(pitched(60)).toMatchObject({ points: null, where: 'below' });
  expect(pitched(-90)).toMatchObject({ points: null, where: 'atInfinity' });
});

it('draw order follows its key and names the pairs that it gets wrong', () => {
  const point = (id: string, position: [number, number, number]) => ({
    id,
    shape: { kind: 'point' as const },
    position,
  });
  const bodies = [point('aside', [20, 2, -6]), point('ahead', [0, 2, -10]), point('low', [0, 1, -12])];
  expect(ask({ op: 'drawOrder', key: 'ahead' }, { bodies })).toMatchObject({
    order: ['low', 'ahead', 'aside'],
    conflicts: [],
  });
  expect(ask({ op: 'drawOrder', key: 'distance' }, { bodies })).toMatchObject({
    order: ['aside', 'low', 'ahead'],
    conflicts: [
      ['aside', 'low'],
      ['aside', 'ahead'],
    ],
  });
  expect(ask({ op: 'drawOrder', key: 'worldUp' }, { bodies })).toMatchObject({ order: ['aside', 'ahead', 'low'] });
  expect(ask({ op: 'drawOrder', key: 'ahead', bodies: ['none'] }, { bodies })).toMatchObject({
    error: { code: 'bodyMissing' },
  });
});

it('aims in two stages', () => {
  const box = (id: string, position: [number, number, number]) => ({
    id,
    shape: { kind: 'box' as const, size: [1, 1, 1] as [number, number, number] },
    position,
  });
  const bodies = [box('target', [0, 2, -20.5]), box('post', [2, 2, -10])];
  const blocked = ask({ op: 'aim', muzzle: [4, 2, 0], reach: 100 }, { bodies });
  close(blocked.target, [0, 2, -20]);
  expect(blocked).toMatchObject({ blockedBy: 'post', hit: { body: 'post', facing: 'front' } });
  expect(ask({ op: 'aim', muzzle: [-1, 2, 0], reach: 100 }, { bodies })).toMatchObject({
    blockedBy: null,
    hit: { body: 'target' },
  });
  const short = ask({ op: 'aim', muzzle: [0, 2, 0], reach: 5 }, { bodies });
  close(short.target, [0, 2, -5]);
  expect(short).toMatchObject({ hit: { body: 'target' }, blockedBy: null });
  expect(short.angle).toBeCloseTo(0, 12);
});

describe('2D', () => {
  const flat = (rest: object = {}, part: Partial<ComputeRequest> = {}): Partial<ComputeRequest> => ({
    viewport: { width: 1280, height: 720 },
    camera: { kind: '2d', focus: [120, 80], anchor: [640, 360], zoom: 2, ...rest } as ComputeRequest['camera'],
    ...part,
  });
  const screen = (points: number[][], part: Partial<ComputeRequest>) =>
    (ask({ op: 'worldToScreen', points }, part).points as Row[]).map((p) => p.screen as number[]);
  it('puts the focus on the anchor, and everything else by zoom and rotation', () => {
    const [focus, beside, above] = screen(
      [
        [120, 80],
        [130, 80],
        [120, 90],
      ],
      flat(),
    );
    close(focus, [640, 360]);
    close(beside, [660, 360]);
    close(above, [640, 340]);
    const [turned] = screen([[130, 80]], flat({ rotation: 90 }));
    close(turned, [640, 340], 10);
    const [down] = screen([[120, 90]], flat({}, { conventions: { world: { up: '-y' } } }));
    close(down, [640, 380]);
  });
  it('snaps the translation to whole pixels, halves up', () => {
    const at = (snap: string, focus: number) =>
      screen([[0, 0]], flat({ snap, focus: [focus, 0], anchor: [0, 0], zoom: 1 }))[0]![0];
    expect(at('none', 0.25)).toBeCloseTo(-0.25, 12);
    expect(at('floor', 0.25)).toBeCloseTo(-1, 12);
    expect(at('round', 0.25)).toBeCloseTo(0, 12);
    expect(at('round', 0.5)).toBeCloseTo(0, 12);
    expect(at('round', 0.75)).toBeCloseTo(-1, 12);
  });
  it('goes back, picks and judges flat bodies', () => {
    const bodies: ComputeRequest['bodies'] = [
      { id: 'disc', shape: { kind: 'sphere', radius: 30 }, position: [120, 80] },
      { id: 'card', shape: { kind: 'box', size: [40, 10] }, position: [900, 80] },
    ];
    close(
      (ask({ op: 'screenToWorld', pixels: [[660, 340]], at: { depth: 0 } }, flat()).pixels as Row[])[0]!.point,
      [130, 90],
    );
    expect(
      ask(
        {
          op: 'pick',
          pixels: [
            [640, 301],
            [640, 299],
          ],
        },
        flat({}, { bodies }),
      ).pixels,
    ).toMatchObject([{ hits: [{ body: 'disc' }] }, { hits: [] }]);
    expect(ask({ op: 'visibility', method: 'exact' }, flat({}, { bodies }))).toMatchObject({
      counts: { inside: 1, crosses: 0, outside: 1 },
    });
    const [disc] = ask({ op: 'screenBounds' }, flat({}, { bodies })).bodies as {
      bounds: { min: number[]; max: number[]; clipped: boolean };
    }[];
    close([...disc!.bounds.min, ...disc!.bounds.max], [580, 300, 700, 420]);
    expect(disc!.bounds.clipped).toBe(false);
  });
  it('refuses what has no meaning in it, and points of three', () => {
    for (const query of [{ op: 'rays', pixels: [] }, { op: 'planes' }, { op: 'horizon' }])
      expect(ask(query, flat())).toMatchObject({ error: { code: 'notIn2d' } });
    const wrong = compute({
      ...base,
      ...flat(),
      queries: [
        {
          id: 'q',
          op: 'worldToScreen',
          points: [
            [1, 2],
            [1, 2, 3],
          ],
        },
      ],
    });
    expect(wrong).toMatchObject({ ok: false, problem: { errors: [{ path: 'queries[0].points[1]' }] } });
    expect(compute({ ...base, ...flat({ zoom: 0 }) })).toMatchObject({
      ok: false,
      problem: { errors: [{ path: 'camera.zoom', code: 'zoomNotPositive' }] },
    });
  });
});

describe('spawn', () => {
  const down = {
    ...base.camera,
    position: [0, 20, 0],
    orientation: { yaw: 30, pitch: -60 },
  } as ComputeRequest['camera'];
  const ground = { plane: { point: [0, 0, 0], normal: [0, 1, 0] } };
  const common = {
    op: 'spawn',
    surface: ground,
    bounds: { min: [-90, -90], max: [90, 90] },
    padding: 2,
    radius: 1,
    count: 400,
    seed: 9,
  };
  it('puts bodies on the ground, out of sight by padding and radius, and knows the area', () => {
    const { points, statistics } = ask(common, { camera: down }) as {
      points: [number, number, number][];
      statistics: Record<string, number>;
    };
    expect(points).toHaveLength(400);
    expect(statistics).toMatchObject({ tries: 400, areaBounds: 180 * 180 });
    expect(statistics.areaAllowed).toBeLessThan(180 * 180);
    expect(points.every(([x, y, z]) => y === 0 && Math.abs(x) <= 90 && Math.abs(z) <= 90)).toBe(true);
    const bodies = points.map((position, i) => ({
      id: `b${i}`,
      shape: { kind: 'sphere' as const, radius: 1 },
      position,
    }));
    const seen = ask({ op: 'visibility', method: 'exact' }, { camera: down, bodies }) as {
      counts: Record<string, number>;
    };
    expect(seen.counts).toEqual({ inside: 0, crosses: 0, outside: 400 });
  });
  it('says the same places in any conventions', () => {
    const plain = (ask(common, { camera: down }).points as number[][])[7]!;
    const conventions = { world: { right: '-x' as const, up: '+z' as const, forward: '+y' as const } };
    const moved = ask(
      { ...common, surface: { plane: { point: [0, 0, 0], normal: [0, 0, 1] } } },
      { conventions, camera: { ...down, position: [0, 0, 20] } as ComputeRequest['camera'] },
    );
    close((moved.points as number[][])[7], [-plain[0]!, -plain[2]!, plain[1]!], 9);
  });
  it('grows the viewport for a padding in pixels, keeps to a ring and a sector, and says when nothing is left', () => {
    const part: Partial<ComputeRequest> = {
      viewport: { width: 100, height: 100 },
      camera: { kind: '2d', focus: [0, 0], anchor: [50, 50], zoom: 10 },
    };
    const flat = { op: 'spawn', surface: '2d', padding: 10, paddingUnit: 'pixels', radius: 0.5, count: 300, seed: 4 };
    const ring = ask({ ...flat, bounds: { ringOuter: 2 }, ahead: { direction: [1, 0], halfAngle: 45 } }, part) as {
      points: number[][];
      statistics: Record<string, number>;
    };
    // The viewport grown by one unit is 12 × 12; a ring between 0.5 and 2.5 round it, a quarter of
    // it ahead.
    expect(ring.statistics.areaAllowed).toBeCloseTo((48 * 2 + Math.PI * (6.25 - 0.25)) / 4, 9);
    expect(ring.points.every(([x, y]) => x! >= 6.5 - 1e-9 && x! <= 8.5 + 1e-9 && Math.abs(y!) <= x! + 1e-9)).toBe(true);
    expect(ask({ ...flat, bounds: { min: [-3, -3], max: [3, 3] } }, part)).toMatchObject({
      error: { code: 'noAreaLeft' },
    });
    expect(ask({ ...common })).toMatchObject({ points: expect.anything() });
    const level = {
      ...base.camera,
      projection: { kind: 'perspective', near: 1, far: null, verticalFov: 90 },
    } as ComputeRequest['camera'];
    expect(ask(common, { camera: level })).toMatchObject({ points: expect.anything() });
    expect(ask({ ...common, bounds: { ringOuter: 2 } }, { camera: level })).toMatchObject({
      error: { code: 'footprintUnbounded' },
    });
    const up = { ...base.camera, orientation: { yaw: 0, pitch: 80 } } as ComputeRequest['camera'];
    expect(ask(common, { camera: up })).toMatchObject({ error: { code: 'footprintEmpty' } });
  });
});

it('convert gives a request that shows the same pixels in any other conventions', () => {
  const bodies: ComputeRequest['bodies'] = [
    {
      id: 'a',
      shape: { kind: 'box', size: [1, 2, 3] },
      position: [2, 1, -9],
      rotation: [0.1, 0.7, 0.1, 0.7],
      scale: [1, -2, 1],
    },
    { id: 'b', shape: { kind: 'quad', size: [2, 1] }, position: [0, 1, 0], parent: 'a' },
    {
      id: 'c',
      shape: { kind: 'mesh', positions: [0, 0, 0, 1, 0, 0, 0, 3, 1], indices: [0, 1, 2] },
      position: [-2, 1, -12],
    },
  ];
  const orientations = [
    { yaw: 20, pitch: -5, roll: 3 },
    { lookAt: [1, 1, -9] },
    { quaternion: [0.02, -0.1, 0.01, 0.99] },
    { right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, -1] },
  ];
  fc.assert(
    fc.property(conventions, fc.constantFrom(...orientations), (to, orientation) => {
      const camera = { ...base.camera, orientation } as ComputeRequest['camera'];
      const queries = (pixel: [number, number]) => [
        { id: 'b', op: 'screenBounds' as const },
        { id: 'p', op: 'pick' as const, pixels: [pixel], all: true, backFaces: true },
      ];
      const first = results({
        ...base,
        camera,
        bodies,
        queries: [...queries([110, 55]), { id: 'c', op: 'convert', to: to as never }],
      });
      const moved = first[2] as {
        camera: ComputeRequest['camera'];
        bodies: ComputeRequest['bodies'];
        matrices: { view: number[] };
      };
      const y = to.screen.origin === 'top-left' ? 55 : 45;
      const half = 0.5 - to.screen.pixelCentre;
      const again = results({
        ...base,
        conventions: to as never,
        camera: moved.camera,
        bodies: moved.bodies,
        queries: [...queries([110 - half, y - half]), { id: 'm', op: 'matrices' }],
      });
      const rects = (row: Row) =>
        (row.bodies as { bounds: { min: number[]; max: number[] } | null }[]).flatMap(({ bounds }) =>
          bounds ? [bounds.max[0]! - bounds.min[0]!, bounds.max[1]! - bounds.min[1]!, bounds.min[0]!] : [0, 0, 0],
        );
      const [a, b] = [rects(first[0]!), rects(again[0]!)];
      a.forEach((v, i) =>
        expect(Math.abs(v - (i % 3 === 2 ? b[i]! + half : b[i]!))).toBeLessThan(1e-7 * (1 + Math.abs(v))),
      );
      const hits = (row: Row) => (row.pixels as { hits: Row[] }[])[0]!.hits.map(({ body, facing }) => [body, facing]);
      expect(hits(again[1]!)).toEqual(hits(first[1]!));
      (again[2] as { view: number[] }).view.forEach((v, i) => expect(v).toBeCloseTo(moved.matrices.view[i]!, 10));
    }),
    { numRuns: runs(150) },
  );
});

describe('what is drawn, and how', () => {
  const triangle = [[0, 2, -2], [1, 2, -2], [0, 3, -2]]; // prettier-ignore
  it('clips at near and at all planes, and says what would come out without', () => {
    // A strip on the ground from 4 ahead to 4 behind, one wide, 2 below the eye.
    const strip = [[0, 0, -4], [0, 0, 4], [1, 0, 4], [1, 0, -4]]; // prettier-ignore
    const touching = [[0, 2, -1], [1, 2, 1], [-1, 2, 1]]; // prettier-ignore
    const beside = [[90, 2, -1], [91, 2, -1], [90, 3, -1]]; // prettier-ignore
    const { polygons } = ask({ op: 'clip', polygons: [strip, touching, beside] }) as { polygons: Record<string, Row[]>[] }; // prettier-ignore
    const [cut, touch, gone] = polygons as [Record<string, Row[]>, Record<string, Row[]>, Record<string, Row[]>];
    expect(cut.near!.map(({ point }) => point)).toEqual([[0, 0, -4], [0, 0, -1], [1, 0, -1], [1, 0, -4]]); // prettier-ignore
    close(cut.near![1]!.screen, [100, 150]);
    // The lower edge of the picture is met where the ground is 2 ahead.
    expect(cut.frustum!.map(({ point }) => point)).toEqual([[0, 0, -4], [0, 0, -2], [1, 0, -2], [1, 0, -4]]); // prettier-ignore
    close(cut.frustum![2]!.screen, [125, 100]);
    expect(cut.unclipped).toMatchObject([{ ghost: false }, { ghost: true }, { ghost: true }, { ghost: false }]);
    close(cut.unclipped![1]!.screen, [100, 25]);
    expect(touch).toMatchObject({ near: [{ point: [0, 2, -1] }], frustum: [{ point: [0, 2, -1] }] });
    expect(gone.frustum).toEqual([]);
    expect(gone.near).toHaveLength(3);
    const onPlane = ask({ op: 'clip', polygons: [[[1, 0, 0], [1, 0, -4], [2, 0, -4]]] }) as typeof cut; // prettier-ignore
    expect((onPlane.polygons![0]!.unclipped as Row[])[0]).toEqual({ screen: null, ghost: false, reason: 'onEyePlane' });
    const short = compute({ ...base, queries: [{ id: 'q', op: 'clip', polygons: [[[0, 0, 0], [1, 0, 0]]] }] }); // prettier-ignore
    expect(short).toMatchObject({ ok: false, problem: { errors: [{ path: 'queries[0].polygons[0]', message: 'queries[0].polygons[0] must have 3 entries.' }] } }); // prettier-ignore
  });

  it('says which way a triangle faces and runs, and how large it is', () => {
    const [a, b, c] = triangle;
    const behind = triangle.map(([x, y]) => [x!, y!, 3]);
    const { triangles } = ask({ op: 'winding', triangles: [[a, b, c], [a, c, b], behind, [a, [0, 2, -9], [5, 2, -4]]] }) as { triangles: Row[] }; // prettier-ignore
    // 50 px to the unit at 1 ahead, 25 at 2.
    expect(triangles[0]).toEqual({ facing: 'front', onScreen: 'counterClockwise', area: expect.closeTo(312.5, 9) });
    expect(triangles[1]).toEqual({ facing: 'back', onScreen: 'clockwise', area: expect.closeTo(-312.5, 9) });
    expect(triangles[2]).toEqual({ facing: 'back', onScreen: null, area: null, reason: 'behindEye' });
    expect(triangles[3]).toMatchObject({ facing: 'edgeOn', onScreen: 'edgeOn' });
    const mirrored = { ...base.camera, projection: { kind: 'frustum', near: 1, far: 50, left: 2, right: -2, bottom: -1, top: 1 } } as ComputeRequest['camera']; // prettier-ignore
    expect(ask({ op: 'winding', triangles: [triangle] }, { camera: mirrored })).toMatchObject({ triangles: [{ facing: 'front', onScreen: 'clockwise', area: expect.closeTo(-312.5, 9) }] }); // prettier-ignore
  });

  it('throws shadows by the matrix that it gives', () => {
    const receiver = { point: [0, 1, 0], normal: [0, 1, 0] };
    const lit = ask({ op: 'planarShadow', light: { direction: [1, -2, 0] }, receiver, points: [[0, 5, 7], [3, 1, 0], [0, 0, 0]] }) as { matrix: number[]; points: Row[] }; // prettier-ignore
    expect(lit.points).toEqual([
      { point: [2, 1, 7] },
      { point: [3, 1, 0] },
      { point: null, reason: 'awayFromReceiver' },
    ]);
    // Column vectors, column after column: (0, 5, 7, 1) through it.
    const times = (m: number[], p: number[]) => [0, 1, 2, 3].map((i) => p.reduce((sum, v, j) => sum + m[4 * j + i]! * v, 0)); // prettier-ignore
    close(times(lit.matrix, [0, 5, 7, 1]), [2, 1, 7, 1]);
    const lamp = ask({ op: 'planarShadow', light: { position: [0, 3, 0] }, receiver }) as { matrix: number[] };
    expect(lamp).not.toHaveProperty('points');
    const [x, y, z, w] = times(lamp.matrix, [1, 2, 4, 1]);
    close([x! / w!, y! / w!, z! / w!], [2, 1, 8]);
    close(times(lamp.matrix, [9, 1, -4, 1]), [9, 1, -4, 1]);
    expect(ask({ op: 'planarShadow', light: { direction: [1, 0, 0] }, receiver, points: [[0, 5, 7]] })).toMatchObject({
      ...{ matrix: null, reason: 'rayParallel' },
      points: [{ point: null, reason: 'rayParallel' }],
    });
  });

  it('maps equal angles, with what is off against the plane', () => {
    const { pixels } = ask({ op: 'angularMapping', pixels: [[100, 50], [200, 50], [150, 50], [100, 0]] }) as { pixels: Row[] }; // prettier-ignore
    close(pixels[0]!.error, [0, 0]);
    close(pixels[1]!.error, [0, 0]);
    // 2 wide at 1 ahead: half way to the edge is 45° of 63.43°.
    expect(pixels[2]!.bearing).toBeCloseTo(45, 12);
    close(pixels[2]!.pixel, [100 + (100 * 45) / ((180 / Math.PI) * Math.atan(2)), 50]);
    expect(pixels[3]).toMatchObject({ bearing: 0 });
    expect(pixels[3]!.elevation).toBeCloseTo(45, 12);
    const flatView = { ...base.camera, projection: { kind: 'orthographic', near: 0, far: 9, height: 2 } } as ComputeRequest['camera']; // prettier-ignore
    expect(ask({ op: 'angularMapping', pixels: [[100, 50]] }, { camera: flatView }).pixels).toEqual([
      { bearing: null, elevation: null, pixel: null, error: null, reason: 'parallelToScreen' },
    ]);
  });

  it('tells what a depth buffer tells apart, plain and reversed', () => {
    const at = (format: string, distances: number[], near = 0, far = 1) =>
      (ask({ op: 'depthPrecision', distances, format }, { conventions: { ndc: { near, far } } }).distances as Row[]).map(({ resolution, reason }) => resolution ?? reason); // prettier-ignore
    // near 1, far 50: |d′| = 50 / 49 / f².
    close(at('unorm16', [1, 10, 50]), [49 / 50 / 65535, 98 / 65535, 2450 / 65535]);
    expect(at('unorm24', [0.99, 50.01, -3])).toEqual(['outsideDepth', 'outsideDepth', 'outsideDepth']);
    close(at('float32', [50]), [2450 * 2 ** -24]);
    expect((at('float32', [50], 1, 0)[0]! as number) / (2450 * 2 ** -149)).toBeCloseTo(1, 9);
  });

  it('is the same in any conventions, written in them', () => {
    fc.assert(
      fc.property(conventions, (c) => {
        const e = codecOf(c);
        const p = (v: readonly number[]) => [...e.toWorld(v as [number, number, number])];
        const viewport = { x: 10, y: 20, width: 200, height: 100 };
        const camera = (map: (v: readonly number[]) => number[]) =>
          ({
            ...{ position: map([1, 2, 3]), orientation: { lookAt: map([2, 1, -8]) } },
            projection: { kind: 'perspective', near: 0.5, far: 60, verticalFov: e.toAngle(1.1), shift: [0.2, -0.1] },
          }) as unknown as ComputeRequest['camera'];
        const plainAngle = { angles: { unit: c.angles.unit } };
        const polygon = [[0, 0, -9], [0, 0, 9], [3, 0, 9], [3, 0, -9]]; // prettier-ignore
        const queries = (map: (v: readonly number[]) => number[], pixel: readonly number[]) => [
          { id: 'clip', op: 'clip', polygons: [polygon.map(map)] },
          { id: 'winding', op: 'winding', triangles: [triangle.map(map)] },
          { id: 'shadow', op: 'planarShadow', light: { position: map([0, 9, 1]) }, receiver: { point: map([0, 1, 0]), normal: map([0.1, 1, 0]) }, points: [map([1, 4, 2])] }, // prettier-ignore
          { id: 'angles', op: 'angularMapping', pixels: [pixel] },
        ];
        const plain = codecOf({ ...defaultConventions, angles: c.angles });
        const same = (v: readonly number[]) => [...v];
        const pixelIn = (codec: typeof e) => [...codec.toScreen(viewport, 0.3, -0.6)];
        const found = results({ ...base, viewport, conventions: c, camera: camera(p), queries: queries(p, pixelIn(e)) as never }); // prettier-ignore
        const wanted = results({ ...base, viewport, conventions: plainAngle, camera: camera(same), queries: queries(same, pixelIn(plain)) as never }); // prettier-ignore
        const onScreen = (xy: unknown) => [...e.toScreen(viewport, ...plain.fromScreen(viewport, xy as [number, number]))]; // prettier-ignore
        const corners = (row: Row | undefined, cut: 'near' | 'frustum') => (row!.polygons as Record<string, Row[]>[])[0]![cut]!; // prettier-ignore
        for (const cut of ['near', 'frustum'] as const) {
          const [own, other] = [corners(found[0], cut), corners(wanted[0], cut)];
          expect(own).toHaveLength(other.length);
          own.forEach((corner, i) => {
            close(corner.point, p(other[i]!.point as number[]), 9);
            close(corner.screen, onScreen(other[i]!.screen), 7);
          });
        }
        const [turn, turnPlain] = [found[1]!, wanted[1]!].map(({ triangles }) => (triangles as Row[])[0]!);
        expect(turn).toMatchObject({ facing: turnPlain!.facing, onScreen: turnPlain!.onScreen });
        expect((turn!.area as number) / (turnPlain!.area as number)).toBeCloseTo(1, 9);
        const [shade, shadePlain] = [found[2]!, wanted[2]!].map(({ points }) => (points as Row[])[0]!);
        close(shade!.point, p(shadePlain!.point as number[]), 9);
        const [angle, anglePlain] = [found[3]!, wanted[3]!].map(({ pixels }) => (pixels as Row[])[0]!);
        expect(angle!.bearing).toBeCloseTo(anglePlain!.bearing as number, 9);
        expect(angle!.elevation).toBeCloseTo(anglePlain!.elevation as number, 9);
        close(angle!.pixel, onScreen(anglePlain!.pixel), 7);
      }),
    );
  });

  it('has no meaning in 2D', () => {
    const camera = { kind: '2d' as const, focus: [0, 0] as [number, number], anchor: [0, 0] as [number, number], zoom: 1 }; // prettier-ignore
    const queries = [
      { op: 'clip', polygons: [] },
      { op: 'winding', triangles: [] },
      { op: 'planarShadow', light: { direction: [0, -1, 0] }, receiver: { point: [0, 0, 0], normal: [0, 1, 0] } },
      { op: 'angularMapping', pixels: [] },
      { op: 'depthPrecision', distances: [], format: 'unorm24' },
    ].map((query, i) => ({ id: String(i), ...query }));
    for (const result of results({ ...base, camera, queries: queries as never }))
      expect(result).toMatchObject({ error: { code: 'notIn2d', message: expect.stringContaining(String(result.op)) } });
  });
});
