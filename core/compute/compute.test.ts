import { presets } from '../conventions/conventions';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conventions } from '../testing/arbitraries';
import { compute } from './compute';
import { limits } from './limits';
import type { ComputeRequest } from './schema';

const request = (part: Partial<ComputeRequest> = {}): ComputeRequest => ({
  astrolabe: 1,
  viewport: { width: 200, height: 100 },
  camera: {
    position: [0, 0, 0],
    orientation: { yaw: 0, pitch: 0 },
    projection: { kind: 'perspective', near: 1, far: 3, verticalFov: 90 },
  },
  queries: [],
  ...part,
});
const answer = (given: unknown) => {
  const answered = compute(given);
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
  return answered.response;
};
const problems = (given: unknown) => {
  const answered = compute(given);
  if (answered.ok) throw new Error('it was answered');
  return answered.problem.errors;
};
type Row = Record<string, unknown>;
const rows = (given: ComputeRequest, key: string) =>
  (answer(given).results[0] as unknown as Record<string, Row[]>)[key]!;

describe('worldToScreen', () => {
  it('gives exact values for a camera that can be followed by hand', () => {
    // 90° vertical over 2:1, near 1, far 3: half height 1 and half width 2 at one unit ahead; depth
    // (3/2)·(1 − 1/f).
    const [point, beside] = rows(
      request({
        queries: [
          {
            id: 'p',
            op: 'worldToScreen',
            points: [
              [2, 1, -2],
              [-9, 0, -2],
            ],
          },
        ],
      }),
      'points',
    );
    expect(point).toMatchObject({ view: [2, 1, -2], ahead: 2, inFront: true, onScreen: true, outside: [] });
    const close = (actual: unknown, expected: number[]) =>
      (actual as number[]).forEach((v, i) => expect(v).toBeCloseTo(expected[i]!, 13));
    close(point!.clip, [1, 1, 1.5, 2]);
    close(point!.ndc, [0.5, 0.5, 0.75]);
    close(point!.screen, [150, 25]);
    expect(point!.depth).toBeCloseTo(0.75, 14);
    close(point!.pixelsPerUnit, [25, 25]);
    expect(beside).toMatchObject({ onScreen: false, outside: ['left'] });
  });

  it('gives no ghost behind the eye, and says why', () => {
    const [behind, on] = rows(
      request({
        queries: [
          {
            id: 'p',
            op: 'worldToScreen',
            points: [
              [1, 1, 4],
              [1, 1, 0],
            ],
          },
        ],
      }),
      'points',
    );
    const none = { ndc: null, screen: null, depth: null, pixelsPerUnit: null, inFront: false, onScreen: false };
    expect(behind).toMatchObject({ ...none, reason: 'behindEye', ahead: -4 });
    expect(on).toMatchObject({ ...none, reason: 'onEyePlane', ahead: 0 });
    expect(behind!.clip).toHaveLength(4);
  });

  it('takes reversed depth, infinite far, NDC y down, the bottom-left origin and whole pixel centres as they come', () => {
    const [point] = rows(
      request({
        conventions: { ndc: { up: '-y', near: 1, far: 0 }, screen: { origin: 'bottom-left', pixelCentre: 0 } },
        camera: { ...request().camera, projection: { kind: 'perspective', near: 0.5, far: null, verticalFov: 90 } },
        queries: [{ id: 'p', op: 'worldToScreen', points: [[2, 1, -2]] }],
      }),
      'points',
    );
    (point!.ndc as number[]).forEach((v, i) => expect(v).toBeCloseTo([0.5, -0.5, 0.25][i]!, 14));
    (point!.screen as number[]).forEach((v, i) => expect(v).toBeCloseTo([149.5, 74.5][i]!, 12));
    expect(point!.depth).toBeCloseTo(0.25, 14);
  });
});

describe('the way back', () => {
  const back = (at: object, pixels: [number, number][] = [[150, 25]], far: number | null = 3) =>
    rows(
      request({
        camera: { ...request().camera, projection: { kind: 'perspective', near: 1, far, verticalFov: 90 } },
        queries: [{ id: 'b', op: 'screenToWorld', pixels, at } as never],
      }),
      'pixels',
    )[0]!;
  it('gives one point by depth, distance ahead, range and plane', () => {
    for (const at of [{ depth: 0.75 }, { ahead: 2 }, { range: 3 }, { plane: { point: [0, 0, -2], normal: [0, 0, 5] } }])
      (back(at).point as number[]).forEach((v, i) => expect(v).toBeCloseTo([2, 1, -2][i]!, 13));
  });
  it.each([
    [{ ahead: -1 }, 'behindEye'],
    [{ ahead: 0 }, 'onEyePlane'],
    [{ plane: { point: [0, -1, 0], normal: [0, 1, 0] } }, 'planeBehindEye'],
    [{ plane: { point: [0, 0, 9], normal: [1, 0, 1] } }, 'rayParallel'],
  ])('%o: %s', (at, reason) => {
    expect(back(at)).toEqual({ point: null, reason });
  });
  it('a depth of 1 is infinitely far when far is', () => {
    expect(back({ depth: 1 }, [[100, 50]], null)).toEqual({ point: null, reason: 'depthAtInfinity' });
  });
  it('rays start at the eye, and have no far point without a far plane', () => {
    const infinite = request({ queries: [{ id: 'r', op: 'rays', pixels: [[100, 50]] }] });
    infinite.camera = { ...infinite.camera, projection: { kind: 'perspective', near: 1, far: null, verticalFov: 90 } };
    expect(rows(infinite, 'pixels')[0]).toEqual({
      origin: [0, 0, 0],
      direction: [0, 0, -1],
      nearPoint: [0, 0, -1],
      farPoint: null,
      reason: 'depthAtInfinity',
    });
  });
});

describe('matrices', () => {
  const list = (vectors: 'column' | 'row', storage: 'column-major' | 'row-major') =>
    (
      answer(request({ conventions: { matrix: { vectors, storage } }, queries: [{ id: 'm', op: 'matrices' }] }))
        .results[0] as Row
    ).projection as number[];
  it('are listed four ways, two of them alike', () => {
    const byColumns = list('column', 'column-major');
    [0.5, 0, 0, 0, 0, 1, 0, 0, 0, 0, -1.5, -1, 0, 0, -1.5, 0].forEach((v, i) =>
      expect(byColumns[i]).toBeCloseTo(v, 14),
    );
    expect(list('row', 'row-major')).toEqual(byColumns);
    expect(list('column', 'row-major')).toEqual(list('row', 'column-major'));
    expect(list('column', 'row-major')[11]).toBeCloseTo(-1.5, 14);
  });
});

describe('pick', () => {
  const bodies: ComputeRequest['bodies'] = [
    { id: 'ball', shape: { kind: 'sphere', radius: 0.5 }, position: [0, 0, -2] },
    { id: 'wall', shape: { kind: 'box', size: [2, 2, 1] }, position: [0, 0, -2.6], scale: [1, 1, 0.2] },
    { id: 'card', shape: { kind: 'quad', size: [4, 4] }, position: [0, 0, -2.9] },
    {
      id: 'tri',
      shape: { kind: 'mesh', positions: [-1, -1, 0, 1, -1, 0, 0, 2, 0], indices: [0, 1, 2] },
      position: [0, 0, 0.2],
      parent: 'card',
    },
  ];
  const hits = (options: object, given: Partial<ComputeRequest> = {}) =>
    rows(
      request({ bodies, queries: [{ id: 'p', op: 'pick', pixels: [[100, 50]], ...options } as never], ...given }),
      'pixels',
    )[0]!.hits as Row[];
  it('orders what the ray passes, with true distances and the surfaces’ own normals', () => {
    const all = hits({ all: true, backFaces: true });
    const found = all.map(({ body, distance, facing }) => [body, Number((distance as number).toFixed(9)), facing]);
    expect(found.slice(0, 3)).toEqual([
      ['ball', 1.5, 'front'],
      ['ball', 2.5, 'back'],
      ['wall', 2.5, 'front'],
    ]);
    expect(found.slice(3).map(([body, distance]) => [body, distance])).toEqual(
      expect.arrayContaining([
        ['wall', 2.7],
        ['tri', 2.7],
        ['card', 2.9],
      ]),
    );
    expect(all[0]!.normal).toEqual([0, 0, 1]);
    expect(all.find(({ body }) => body === 'tri')!.triangle).toBe(0);
  });
  it('gives the nearest front alone unless asked, and nothing nearer than near', () => {
    expect(hits({}).map(({ body }) => body)).toEqual(['ball']);
    const nearer = request().camera;
    expect(
      hits({}, { camera: { ...nearer, projection: { kind: 'perspective', near: 1.6, far: 3, verticalFov: 90 } } }).map(
        ({ body }) => body,
      ),
    ).toEqual(['wall']);
  });
});

describe('what is wrong is named with its place', () => {
  const camera = request().camera;
  it.each<[string, unknown, object]>([
    ['a missing field', { ...request(), viewport: { width: 4 } }, { path: 'viewport.height' }],
    ['a wrong type', { ...request(), camera: { ...camera, position: ['x', 0, 0] } }, { path: 'camera.position[0]' }],
    [
      'axes',
      request({ conventions: { world: { right: '+y' } } }),
      { path: 'conventions.world', code: 'axesNotDistinct' },
    ],
    [
      'two fields of view',
      request({
        camera: { ...camera, projection: { kind: 'perspective', near: 1, far: 3, verticalFov: 50, horizontalFov: 60 } },
      }),
      { path: 'camera.projection.horizontalFov' },
    ],
    [
      'no field of view',
      request({ camera: { ...camera, projection: { kind: 'perspective', near: 1, far: 3 } } }),
      { path: 'camera.projection' },
    ],
    [
      'an infinite orthographic far',
      { ...request(), camera: { ...camera, projection: { kind: 'orthographic', near: 0, far: null, height: 2 } } },
      { path: 'camera.projection.far' },
    ],
    [
      'a quaternion of no length',
      request({ camera: { ...camera, orientation: { quaternion: [0, 0, 0, 0] } } }),
      { path: 'camera.orientation.quaternion', code: 'quaternionZero' },
    ],
    [
      'mixed handedness',
      request({
        conventions: { view: { forward: '+z' } },
        camera: { ...camera, orientation: { quaternion: [0, 0, 0, 1] } },
      }),
      { path: 'camera.orientation.quaternion', code: 'quaternionNeedsOneHandedness' },
    ],
    [
      'a mesh index',
      request({
        bodies: [{ id: 'm', shape: { kind: 'mesh', positions: [0, 0, 0], indices: [0, 0, 1] }, position: [0, 0, 0] }],
      }),
      { path: 'bodies[0].shape.indices[2]' },
    ],
    [
      'a missing parent',
      request({ bodies: [{ id: 'm', shape: { kind: 'point' }, position: [0, 0, 0], parent: 'x' }] }),
      { path: 'bodies[0].parent', code: 'parentMissing' },
    ],
    [
      'a squashed sphere',
      request({ bodies: [{ id: 'm', shape: { kind: 'sphere', radius: 1 }, scale: [1, 2, 1], position: [0, 0, 0] }] }),
      { path: 'bodies[0].scale', code: 'unequalScaleOnSphere' },
    ],
    [
      'a flat transform',
      request({ bodies: [{ id: 'm', shape: { kind: 'point' }, scale: 0, position: [0, 0, 0] }] }),
      { path: 'bodies[0].scale', code: 'singularTransform' },
    ],
  ])('%s', (_name, given, expected) => {
    const found = problems(given);
    expect(found[0]).toMatchObject({ ...expected, message: expect.stringMatching(/.{12,}\.$/) });
  });
  it('a circle of parents is one problem, not an endless search', () => {
    const at = { shape: { kind: 'point' as const }, position: [0, 0, 0] as [number, number, number] };
    expect(
      problems(
        request({
          bodies: [
            { id: 'a', parent: 'b', ...at },
            { id: 'b', parent: 'a', ...at },
          ],
        }),
      ),
    ).toEqual([expect.objectContaining({ code: 'parentCycle' })]);
  });
  it('an unknown key is a problem that names the nearest known one, wherever it is', () => {
    const say = (given: object) =>
      problems({ ...request(), ...given }).map(({ path, message }) => `${path}: ${message}`);
    expect(say({ querys: [] })).toEqual([expect.stringContaining('querys: querys is not known here. Did you mean “queries”?')]); // prettier-ignore
    const query = { id: 'v', op: 'visibility', method: 'exact', margn: 3 };
    expect(say({ queries: [query] })).toEqual([expect.stringContaining('queries[0].margn is not known here. Did you mean “margin”?')]); // prettier-ignore
    expect(say({ conventions: { angles: { units: 'radians' } } })).toEqual([expect.stringContaining('Did you mean “unit”?')]); // prettier-ignore
    expect(say({ zzzzqqqq: 1 })).toEqual(['zzzzqqqq: zzzzqqqq is not known here. Remove it.']);
    // Past the thousandth too.
    const bodies = Array.from({ length: 1200 }, (_, i) => ({ id: `b${i}`, shape: { kind: 'point' }, position: [0, 0, -i], ...(i === 1150 && { colour: 1 }) })); // prettier-ignore
    expect(say({ bodies })).toEqual([expect.stringContaining('bodies[1150].colour is not known here.')]);
  });
  it.each([
    [{ fov: 60 }, 'verticalFov'],
    [{ fovy: 60 }, 'verticalFov'],
    [{ vfov: 60 }, 'verticalFov'],
    [{ zNear: 1 }, 'near'],
    [{ farPlane: 9 }, 'far'],
    [{ aspectRatio: 1 }, 'aspect'],
  ])('%j in a projection is taken for %s', (more, key) => {
    const camera = request().camera as { projection: object };
    const [first] = problems({ ...request(), camera: { ...camera, projection: { ...camera.projection, ...more } } });
    expect(first!.message).toMatch(new RegExp(`Did you mean “${key}”\\?`));
  });
  it.each([
    [{ lookat: [0, 0, -1] }, 'lookAt'],
    [{ target: [0, 0, -1] }, 'lookAt'],
  ])('%j in an orientation is taken for %s', (more, key) => {
    const camera = request().camera as object;
    const found = problems({ ...request(), camera: { ...camera, orientation: { yaw: 0, pitch: 0, ...more } } });
    expect(found[0]!.message).toMatch(new RegExp(`Did you mean “${key}”\\?`));
  });
  it('never suggests the key that is rejected, nor one of another place', () => {
    for (const key of ['near', 'verticalFov', 'lookAt', 'radius']) {
      const [first] = problems({ ...request(), [key]: 1 });
      expect(first!.message).not.toContain(`“${key}”`);
    }
  });
  it.each([['infinite'], [undefined]])('far %j is answered with null for infinity', (far) => {
    const camera = request().camera as { projection: object };
    const given = JSON.parse(JSON.stringify({ ...request(), camera: { ...camera, projection: { ...camera.projection, far } } })) as unknown; // prettier-ignore
    expect(problems(given)[0]!.message).toMatch(/^camera\.projection\.far .*null for infinity/);
  });
  it('takes a preset for conventions, alone and with overrides', () => {
    const asked = { ...request(), queries: [{ id: 'm', op: 'matrices' }] };
    const of = (conventions: unknown) => compute({ ...asked, conventions });
    expect(of('Vulkan')).toEqual(of(presets.Vulkan));
    const reversed = { ...presets.WebGPU, ndc: { ...presets.WebGPU.ndc, near: 1, far: 0 } };
    expect(of({ preset: 'WebGPU', ndc: { near: 1, far: 0 } })).toEqual(of(reversed));
    expect(problems({ ...asked, conventions: 'Vulcan' })[0]!.message).toContain('it must be "WebGL", "Vulkan", "WebGPU" or "glTF"'); // prettier-ignore
  });
  it('lists at most twenty problems and counts the others', () => {
    const bodies = Array.from({ length: 300 }, () => ({}));
    const answered = compute({ ...request(), bodies });
    if (answered.ok) throw new Error('it was taken');
    expect(answered.problem.errors).toHaveLength(20);
    expect(answered.problem.count).toBeGreaterThanOrEqual(300);
    expect(answered.problem.title).toBe(`The request has ${answered.problem.count} problems`);
  });
  it('refuses too much before it looks at any of it', () => {
    const say = (given: object) => problems({ ...request(), ...given }).map(({ message }) => message);
    expect(say({ bodies: new Array(limits.bodies + 1).fill({}) })).toEqual([expect.stringMatching(/^The request has 100,001 bodies, and one may have 100,000/)]); // prettier-ignore
    const points = new Array(600_000).fill(0);
    expect(say({ queries: [{ op: 'worldToScreen', points }, { op: 'rays', pixels: points }] })).toEqual([expect.stringContaining('1,200,000 points, pixels, items, distances, times, corners and other entries')]); // prettier-ignore
    expect(say({ queries: [1, 2].map(() => ({ op: 'spawn', count: 600_000 })) })).toEqual([expect.stringContaining('1,200,000 points to spawn')]); // prettier-ignore
  });
  it('two queries of one id and a convert without its aim are problems', () => {
    const query = { id: 'm', op: 'matrices' };
    expect(problems({ ...request(), queries: [query, query] })).toEqual([expect.objectContaining({ path: 'queries[1].id' })]); // prettier-ignore
    expect(problems({ ...request(), queries: [{ id: 'c', op: 'convert' }] })).toEqual([expect.objectContaining({ path: 'queries[0].to' })]); // prettier-ignore
  });
  it('any JSON value gets an answer or a problem', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const answered = compute(value);
        expect(answered.ok || answered.problem.errors.length > 0).toBe(true);
      }),
    );
  });
});

describe('any conventions', () => {
  it('give numbers that the same conventions take back: resolved cameras resolve to themselves', () => {
    fc.assert(
      fc.property(
        conventions,
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        (c, yaw, pitch) => {
          const unit = c.angles.unit === 'degrees' ? 180 / Math.PI : 1;
          const first = answer(
            request({
              conventions: c as ComputeRequest['conventions'],
              camera: {
                position: [1, -2, 3],
                orientation: { yaw: yaw * unit, pitch: pitch * unit, roll: 0.2 * unit },
                projection: { kind: 'perspective', near: 0.1, far: 50, horizontalFov: unit },
              },
            }),
          ).camera as Record<string, number[]>;
          const basis = { right: first.right, up: first.up, forward: first.forward };
          for (const orientation of [basis, ...(first.quaternion ? [{ quaternion: first.quaternion }] : [])]) {
            const again = answer({
              ...request(),
              conventions: c,
              camera: {
                position: [1, -2, 3],
                orientation,
                projection: { kind: 'perspective', near: 0.1, far: 50, horizontalFov: unit },
              },
            }).camera as Record<string, number[]>;
            for (const name of ['right', 'up', 'forward'])
              again[name]!.forEach((v, i) => expect(v).toBeCloseTo(first[name]![i]!, 12));
            for (const name of ['pitch', 'horizontalFov', 'verticalFov'])
              expect(again[name]).toBeCloseTo(first[name] as unknown as number, 9);
          }
        },
      ),
    );
  });
});
