import { describe, expect, it } from 'vitest';
import { compute } from './compute';

type Row = Record<string, unknown>;
const camera = {
  position: [0, 2, 0],
  orientation: { yaw: 0, pitch: 0 },
  projection: { kind: 'frustum', near: 1, far: 50, left: -2, right: 2, bottom: -1, top: 1 },
};
const flatCamera = { kind: '2d', focus: [0, 0], anchor: [100, 50], zoom: 10 };
const ask = (query: object, part: object = {}) => {
  const made = compute({ astrolabe: 1, viewport: { width: 200, height: 100 }, camera, queries: [{ id: 'q', ...query }], ...part }); // prettier-ignore
  if (!made.ok) return { errors: made.problem.errors };
  return made.response.results[0] as unknown as Row;
};
const body = (id: string, shape: object, position: number[]) => ({ id, shape, position });

describe('a camera along a track, asked', () => {
  it('is resolved as the response’s own, at each of the times', () => {
    const { times } = ask({ op: 'motion', track: { kind: 'scroll', velocity: [1, 0, -2] }, times: [0, 3] }) as { times: Row[] }; // prettier-ignore
    expect(times).toMatchObject([
      { time: 0, camera: { position: [0, 2, 0], yaw: 0, near: 1, extents: { top: 1 } } },
      { time: 3, camera: { position: [3, 2, -6], yaw: 0, near: 1, extents: { top: 1 } } },
    ]);
    const walked = ask({ op: 'motion', track: { kind: 'walk', inputs: [{ from: 0, to: 2, ahead: 1 }, { from: 1, to: 9, yawRate: 30 }] }, times: [1, 4] }) as { times: Row[] }; // prettier-ignore
    expect(walked.times).toMatchObject([{ camera: { position: [0, 2, -1] } }, { camera: { yaw: expect.closeTo(90, 9) } }]); // prettier-ignore
    const dolly = ask({ op: 'motion', track: { kind: 'dollyZoom', target: [0, 2, -10], distance: [10, 5], duration: 2 }, times: [1, 9] }) as { times: Row[] }; // prettier-ignore
    expect(dolly.times).toMatchObject([{ camera: { position: [0, 2, -2.5] } }, { camera: { position: [0, 2, -5], extents: { top: 2, right: 4 } } }]); // prettier-ignore
  });

  it('follows in 2D with its picture inside its bounds, and counts in the pairs of the world', () => {
    const track = { kind: 'follow', target: [[0, [0, 0]], [4, [40, 8]]], halfLife: 0, bounds: { min: [-20, -20], max: [25, 20] } }; // prettier-ignore
    const { times } = ask({ op: 'motion', track, times: [1, 4] }, { camera: flatCamera }) as { times: Row[] };
    // 20 × 10 units are seen, 10 and 5 to each side.
    expect(times).toEqual([
      { time: 1, camera: { focus: [10, 2], anchor: [100, 50], zoom: 10, rotation: 0 } },
      { time: 4, camera: { focus: [15, 8], anchor: [100, 50], zoom: 10, rotation: 0 } },
    ]);
    expect(ask({ op: 'motion', track: { kind: 'orbit', centre: [0, 0, 0], yawRate: 1 }, times: [] }, { camera: flatCamera })).toMatchObject({ error: { code: 'notIn2d' } }); // prettier-ignore
  });

  it('answers every other query as it sees things then, and says what is wrong with its times', () => {
    const track = { kind: 'scroll', velocity: [0, 0, -3] };
    expect(ask({ op: 'worldToScreen', points: [[0, 2, -10]], when: { track, time: 2 } })).toMatchObject({ points: [{ ahead: 4, screen: [100, 50] }] }); // prettier-ignore
    const converted = ask({ op: 'convert', to: {}, when: { track, time: 2 } }) as { camera: object };
    expect(ask({ op: 'worldToScreen', points: [[1, 2, -10]] }, { camera: converted.camera })).toMatchObject({ points: [{ ahead: 4, screen: [112.5, 50] }] }); // prettier-ignore
    const codes = [
      { track, times: [-1] },
      { track: { kind: 'follow', target: [], halfLife: 1 }, times: [] },
      { track: { kind: 'path', keys: [] }, times: [0] },
      { track: { kind: 'follow', target: [[1, [0, 0, 0]], [1, [1, 0, 0]]], halfLife: 1 }, times: [0] }, // prettier-ignore
      { track: { kind: 'orbit', centre: [0, 9, 0], yawRate: 1 }, times: [0] },
      { track: { kind: 'dollyZoom', target: [0, 2, 9], distance: [1, 2], duration: 1 }, times: [0] },
      { track: { kind: 'path', keys: [{ time: 0, position: [0, 0, 0], yaw: 0, pitch: 0, verticalFov: 180 }] }, times: [0] }, // prettier-ignore
      { track, times: [1e300] },
    ].map((query) => (ask({ op: 'motion', ...query }) as { error?: { code: string } }).error?.code ?? 'refused');
    expect(codes).toEqual(['timeNegative', 'noKeys', 'noKeys', 'keysOutOfOrder', 'lookAtDegenerate', 'distanceNotPositive', 'fovOutOfRange', 'refused']); // prettier-ignore
    expect(ask({ op: 'motion', track: { kind: 'scroll', velocity: [1, 2] }, times: [] })).toMatchObject({ errors: [{ path: 'queries[0].track.velocity' }] }); // prettier-ignore
    expect(ask({ op: 'planes', when: { track: { kind: 'follow', target: [[0, [1, 2, 3]]], halfLife: 1, deadZone: [1, 1] }, time: 0 } })).toMatchObject({ errors: [{ path: 'queries[0].when.track.deadZone' }] }); // prettier-ignore
  });
});

describe('how large, and whether seen', () => {
  it('is told of spheres about bodies, with the distances at which a size is reached', () => {
    const bodies = [
      body('ball', { kind: 'sphere', radius: 3 }, [0, 2, -5]),
      body('round us', { kind: 'sphere', radius: 9 }, [0, 2, -5]),
    ];
    // 50 px to the unit at 1 ahead.
    expect(ask({ op: 'apparentSize', thresholds: [75] }, { bodies })).toMatchObject({
      bodies: [
        {
          body: 'ball',
          ahead: 5,
          radius: 3,
          diameter: expect.closeTo(75, 9),
          share: expect.closeTo(0.75, 9),
          switches: [expect.closeTo(5, 9)],
        },
        { body: 'round us', diameter: null, share: null, reason: 'eyeInside', switches: [expect.closeTo(15, 9)] },
      ],
    });
    const crate = [body('crate', { kind: 'box', size: [6, 8, 99] }, [0, 0])];
    expect(ask({ op: 'apparentSize' }, { camera: flatCamera, bodies: crate })).toMatchObject({ bodies: [{ radius: 5, diameter: 100, share: 1 }] }); // prettier-ignore
  });

  it('is told as a shortcut has it, against what is so', () => {
    const bodies = [
      body('wall', { kind: 'box', size: [40, 40, 1] }, [0, 2, -5]),
      body('beside', { kind: 'box', size: [2, 2, 2] }, [11.5, 2, -5]),
      body('near by', { kind: 'box', size: [0.1, 8, 0.1] }, [12, 2, -5]),
    ];
    const verdicts = (test: unknown) => (ask({ op: 'visibilityBy', test }, { bodies }) as { bodies: Row[] }).bodies.map(({ verdict }) => verdict); // prettier-ignore
    expect(verdicts('centre')).toEqual(['right', 'missed', 'right']);
    expect(verdicts('corners')).toEqual(['missed', 'right', 'right']);
    expect(verdicts({ sphere: 1 })).toEqual(['right', 'right', 'false alarm']);
    expect(ask({ op: 'visibilityBy', test: 'centre' }, { bodies })).toMatchObject({ counts: { right: 2, missed: 1, 'false alarm': 0 } }); // prettier-ignore
  });
});

describe('another camera’s numbers in this one’s picture', () => {
  const other = { ...camera, position: [1, 2, 0] };
  it('go wrong by pixels, angles and lengths', () => {
    const found = ask({ op: 'compareCameras', camera: other, points: [[0, 2, -5], [0, 2, 5]], pixels: [[100, 50]], range: 10, items: [{ position: [0, 2, -1], mode: 'eyePoint' }] }) as Record<string, Row[]>; // prettier-ignore
    expect(found.points).toEqual([
      { now: [100, 50], then: [90, 50], error: [-10, 0] },
      { now: null, then: null, error: null, reason: 'behindEye' },
    ]);
    expect(found.pixels).toEqual([{ angle: 0, miss: 1, shown: [105, 50], error: [5, 0] }]);
    expect(found.items![0]!.angle).toBeCloseTo(45, 9);
    expect(found.items![0]!.turn).toBeCloseTo(45, 9);
    const turned = { ...camera, orientation: { yaw: 180, pitch: 0 } };
    expect(ask({ op: 'compareCameras', camera: turned, pixels: [[100, 50]], range: 10 })).toMatchObject({
      pixels: [{ angle: 180, miss: 20, shown: null, error: null, reason: 'behindEye' }],
    });
  });

  it('that are faulty are problems of the request', () => {
    const faulty = { ...camera, projection: { ...camera.projection, near: 60 } };
    expect(ask({ op: 'compareCameras', camera: faulty, pixels: [[0, 0]] })).toMatchObject({
      errors: [{ path: 'queries[0].range' }, { path: expect.stringMatching(/^queries\[0]\.camera\.projection/) }],
    });
    expect(ask({ op: 'compareCameras', camera: flatCamera })).toMatchObject({ errors: [{ path: 'queries[0].camera' }] }); // prettier-ignore
  });
});
