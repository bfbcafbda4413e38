import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../compute/compute';
import { costOf } from '../compute/cost';
import type { ComputeRequest } from '../compute/schema';
import { frameOf, type CameraFrame } from '../camera/frame';
import { codecOf } from '../conventions/codec';
import { defaultConventions, type Conventions } from '../conventions/conventions';
import { projectPoint, pictureToViewRuf, viewRufToWorld } from '../convert/project';
import { distance, dot, length, normalize, type Vec2, type Vec3 } from '../math/vec3';
import { writeCamera } from '../request/write';
import { conventions, real, vectors } from '../testing/arbitraries';
import { runs } from '../testing/seed';
import { leastSphere } from './leastSphere';
import { partCorners } from './cascades';
import { reflectPoint } from './mirror';

/* Derived cameras, asked as requests: their pictures against the picture of the camera they are made of. */

interface Answered {
  readonly name: string;
  readonly camera: ComputeRequest['camera'];
  readonly view: number[];
  readonly projection: number[];
  readonly viewProjection: number[];
  readonly offset?: Vec2;
  readonly split?: Vec2;
  readonly mirrored?: true;
}

/** Ordinary cameras. Pixels are compared here, and extreme cameras leave them no digits. */
const frames: fc.Arbitrary<CameraFrame> = fc
  .record({
    position: vectors(50),
    yaw: real(-3, 3),
    pitch: real(-1.4, 1.4),
    roll: real(-1, 1),
    near: real(0.1, 2),
    depth: real(5, 200),
    isInfinite: fc.boolean(),
    isOrthographic: fc.boolean(),
    fov: real(0.3, 2),
    shift: fc.tuple(real(-0.5, 0.5), real(-0.5, 0.5)),
    width: fc.integer({ min: 200, max: 2000 }),
    height: fc.integer({ min: 200, max: 2000 }),
  })
  .map((one) => {
    const { near, depth, shift } = one;
    const made = frameOf(
      {
        position: one.position,
        orientation: { kind: 'angles', yaw: one.yaw, pitch: one.pitch, roll: one.roll },
        projection: one.isOrthographic
          ? { kind: 'orthographic', near, far: near + depth, size: { height: depth / 4 }, shift }
          : {
              kind: 'perspective',
              near,
              far: one.isInfinite ? null : near + depth,
              lens: { verticalFov: one.fov },
              shift,
            },
      },
      { x: 0, y: 0, width: one.width, height: one.height },
    );
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return made.value;
  });

const requestOf = (frame: CameraFrame, given: Conventions, queries: readonly object[]): ComputeRequest =>
  ({
    astrolabe: 1,
    conventions: given,
    viewport: frame.viewport,
    camera: writeCamera(frame, codecOf(given)),
    queries: queries.map((query, i) => ({ id: `q${i}`, ...query })),
  }) as ComputeRequest;

/** Asks one query. */
function ask(frame: CameraFrame, given: Conventions, query: object): Record<string, unknown> {
  const answered = compute(requestOf(frame, given, [query]));
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
  return answered.response.results[0] as unknown as Record<string, unknown>;
}
const derive = (frame: CameraFrame, given: Conventions, query: object): Answered[] =>
  (ask(frame, given, { op: 'derive', ...query }) as { cameras: Answered[] }).cameras;

/** Asks where a derived camera shows canonical points, in the same request but for its camera. */
function shown(derived: Answered, frame: CameraFrame, given: Conventions, points: readonly Vec3[]) {
  const codec = codecOf(given);
  const request = {
    ...requestOf(frame, given, [{ op: 'worldToScreen', points: points.map((p) => [...codec.toWorld(p)]) }]),
    camera: derived.camera,
  };
  const answered = compute(request);
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
  return (answered.response.results[0] as unknown as { points: { screen: Vec2 | null; depth: number }[] }).points;
}
const shownNow = (frame: CameraFrame, given: Conventions, points: readonly Vec3[]) =>
  (
    ask(frame, given, { op: 'worldToScreen', points: points.map((p) => [...codecOf(given).toWorld(p)]) }) as {
      points: { screen: Vec2; depth: number }[];
    }
  ).points;

/** A point of the picture at a distance ahead, in canonical world space. */
const pointAt = (frame: CameraFrame, across: number, upward: number, ahead: number): Vec3 =>
  viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, ahead));

const near = (a: readonly number[], b: readonly number[], tolerance: number) => {
  expect(a).toHaveLength(b.length);
  a.forEach((v, i) => expect(Math.abs(v - b[i]!), `${a} and ${b}`).toBeLessThan(tolerance * (1 + Math.abs(b[i]!))));
};

const queries = fc.oneof(
  fc.record({
    kind: fc.constant('jitter'),
    count: fc.integer({ min: 1, max: 17 }),
    sequence: fc.constantFrom('halton', 'grid'),
  }),
  fc.record({
    kind: fc.constant('tiles'),
    columns: fc.integer({ min: 1, max: 5 }),
    rows: fc.integer({ min: 1, max: 5 }),
  }),
  fc.record({ kind: fc.constant('stereo'), separation: real(-2, 2), convergence: real(0.5, 50) }),
  fc.record({ kind: fc.constant('cube') }),
  fc.record({
    kind: fc.constant('cascades'),
    count: fc.integer({ min: 1, max: 5 }),
    blend: real(0, 1),
    to: real(5, 50),
    light: vectors(1).filter((v) => length(v) > 0.1),
    mapSize: fc.integer({ min: 2, max: 4096 }),
    fit: fc.constantFrom('box', 'sphere'),
  }),
);

describe('derived cameras', () => {
  it('have the matrices beside them when they are put into the same request', () => {
    fc.assert(
      fc.property(frames, conventions, queries, (frame, given, query) => {
        for (const one of derive(frame, given, query)) {
          const answered = compute({
            ...requestOf(frame, given, [{ op: 'matrices' }]),
            camera: one.camera,
          });
          if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
          const found = answered.response.results[0] as unknown as Answered;
          near(found.view, one.view, 1e-9);
          near(found.projection, one.projection, 1e-9);
          near(found.viewProjection, one.viewProjection, 1e-9);
        }
      }),
      { numRuns: runs(150) },
    );
  });

  it('jitter the picture by their offsets, less than half a pixel', () => {
    fc.assert(
      fc.property(frames, conventions, real(-0.9, 0.9), real(-0.9, 0.9), (frame, given, across, upward) => {
        const point = pointAt(frame, across, upward, frame.near + 3);
        const [at] = shownNow(frame, given, [point]);
        for (const sequence of ['halton', 'grid']) {
          const cycle = derive(frame, given, { kind: 'jitter', count: 7, sequence });
          expect(new Set(cycle.map(({ name }) => name)).size).toBe(7);
          for (const one of cycle) {
            const [dx, dy] = one.offset!;
            expect(Math.max(Math.abs(dx), Math.abs(dy))).toBeLessThan(0.5);
            near(shown(one, frame, given, [point])[0]!.screen!, [at!.screen[0] + dx, at!.screen[1] + dy], 1e-8);
          }
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('begin a grid at the top left of the viewer, and Halton at index 1', () => {
    const frame = fc.sample(frames, 1)[0]!;
    const of = (origin: 'top-left' | 'bottom-left', sequence: string) =>
      derive(
        frame,
        { ...defaultConventions, screen: { origin, pixelCentre: 0.5 } },
        { kind: 'jitter', count: 4, sequence },
      ).map(({ offset }) => offset);
    expect(of('top-left', 'grid')).toEqual([
      [-0.25, -0.25],
      [0.25, -0.25],
      [-0.25, 0.25],
      [0.25, 0.25],
    ]);
    expect(of('bottom-left', 'grid')).toEqual([
      [-0.25, 0.25],
      [0.25, 0.25],
      [-0.25, -0.25],
      [0.25, -0.25],
    ]);
    const halton = of('top-left', 'halton');
    near(
      halton.flatMap((v) => [...v!]),
      [0, 1 / 3 - 0.5, -0.25, 2 / 3 - 0.5, 0.25, 1 / 9 - 0.5, -0.375, 4 / 9 - 0.5],
      1e-14,
    );
  });

  it('join tiles to the picture', () => {
    fc.assert(
      fc.property(
        fc.tuple(frames, conventions, fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 4 })),
        fc.tuple(real(-1, 1), real(-1, 1)),
        ([frame, given, columns, rows], [across, upward]) => {
          const top = { ...given, screen: { origin: 'top-left' as const, pixelCentre: 0.5 as const } };
          const tiles = derive(frame, top, { kind: 'tiles', columns, rows });
          const { width, height } = frame.viewport;
          const point = pointAt(frame, across, upward, frame.near + 2);
          const [at] = shownNow(frame, top, [point]);
          const column = Math.min(columns - 1, Math.floor((at!.screen[0] / width) * columns));
          const row = Math.min(rows - 1, Math.floor((at!.screen[1] / height) * rows));
          const part = shown(tiles[Math.max(0, row) * columns + Math.max(0, column)]!, frame, top, [point])[0]!;
          const joined = [
            (part.screen![0] + Math.max(0, column) * width) / columns,
            (part.screen![1] + Math.max(0, row) * height) / rows,
          ];
          near(joined, at!.screen, 1e-8);
          expect(part.screen![0]).toBeGreaterThan(-1e-6 * width);
          expect(part.screen![0]).toBeLessThan(width * (1 + 1e-6));
        },
      ),
      { numRuns: runs(100) },
    );
  });

  it('agree at the convergence, and are apart by the separation', () => {
    fc.assert(
      fc.property(frames, conventions, real(0.1, 2), real(1, 30), (frame, given, separation, convergence) => {
        const [left, right] = derive(frame, given, { kind: 'stereo', separation, convergence });
        const points = [pointAt(frame, 0.3, -0.4, convergence), pointAt(frame, 0.3, -0.4, convergence * 2)];
        const [a, b] = [shown(left!, frame, given, points), shown(right!, frame, given, points)];
        near(a[0]!.screen!, b[0]!.screen!, 1e-7);
        expect([left!.name, right!.name]).toEqual(['left', 'right']);
        // Beyond the convergence the left eye sees things farther to the left than the right eye.
        if (frame.kind === 'perspective') expect(a[1]!.screen![0]).toBeLessThan(b[1]!.screen![0]);
        const eyes = [left!, right!].map(
          ({ camera }) => (camera as { position: number[] }).position as unknown as Vec3,
        );
        expect(distance(eyes[0]!, eyes[1]!)).toBeCloseTo(separation, 9);
      }),
      { numRuns: runs(100) },
    );
  });

  it('show the half-angles of an eye at the edges', () => {
    fc.assert(
      fc.property(frames, real(-1.2, 0.3), real(0.4, 1.2), vectors(1), (frame, low, high, offset) => {
        const given: Conventions = { ...defaultConventions, angles: { ...defaultConventions.angles, unit: 'radians' } };
        const eyes = [{ name: 'one', offset: [...offset], angles: { left: low, right: high, down: -0.5, up: 0.7 } }];
        const [one] = derive(frame, given, { kind: 'eyes', eyes });
        const [r, u, f] = [Math.tan(low), Math.tan(0.7), 1];
        const corner = viewRufToWorld(frame, [offset[0] + 9 * r, offset[1] + 9 * u, offset[2] + 9 * f]);
        near(shown(one!, frame, given, [corner])[0]!.screen!, [0, 0], 1e-6);
      }),
      { numRuns: runs(60) },
    );
  });

  it('cover all directions by the faces of a cube, which share their edges', () => {
    fc.assert(
      fc.property(
        frames,
        conventions,
        vectors(1).filter((v) => length(v) > 0.2),
        (frame, given, direction) => {
          const faces = derive(frame, given, { kind: 'cube' });
          const codec = codecOf(given);
          const own = codec.toWorld(direction);
          const axis = own.findIndex((v) => Math.abs(v) === Math.max(...own.map(Math.abs)));
          const name = `${own[axis]! < 0 ? '-' : '+'}${'xyz'[axis]}`;
          const point: Vec3 = [
            frame.eye[0] + direction[0] * 50,
            frame.eye[1] + direction[1] * 50,
            frame.eye[2] + direction[2] * 50,
          ];
          const { width, height } = frame.viewport;
          const inside = ([x, y]: Vec2) =>
            x > -1e-6 * width - 1 && x < width * (1 + 1e-6) + 1 && y > -1 && y < height + 1;
          const found = faces.find((face) => face.name === name)!;
          expect(inside(shown(found, frame, given, [point])[0]!.screen!)).toBe(true);
          expect(faces.map((face) => face.name)).toEqual(['+x', '-x', '+y', '-y', '+z', '-z']);
        },
      ),
      { numRuns: runs(100) },
    );
  });

  it('have the faces and texels of the table of cube maps', () => {
    const frame = fc.sample(frames, 1)[0]!;
    const given: Conventions = { ...defaultConventions, screen: { origin: 'bottom-left', pixelCentre: 0.5 } };
    const faces = derive(frame, given, { kind: 'cube' });
    // The table: major axis, sc, tc; texture coordinates are (sc/|ma| + 1)/2 and (tc/|ma| + 1)/2.
    const table: Readonly<Record<string, (d: Vec3) => Vec2>> = {
      '+x': ([x, y, z]) => [-z / x, -y / x],
      '-x': ([x, y, z]) => [z / -x, -y / -x],
      '+y': ([x, y, z]) => [x / y, z / y],
      '-y': ([x, y, z]) => [x / -y, -z / -y],
      '+z': ([x, y, z]) => [x / z, -y / z],
      '-z': ([x, y, z]) => [-x / -z, -y / -z],
    };
    for (const face of faces) {
      const axis = 'xyz'.indexOf(face.name[1]!);
      const direction = [0.3, -0.6, 0.45] as [number, number, number];
      direction[axis] = face.name[0] === '+' ? 1 : -1;
      const world = direction.map((v, i) => frame.eye[i]! + 20 * v) as unknown as Vec3;
      // The default conventions have the world's own axes, canonical ones.
      const { screen } = shown(face, frame, given, [world])[0]!;
      const [s, t] = table[face.name]!(direction);
      const { width, height } = frame.viewport;
      near(screen!, [((s + 1) / 2) * width, ((t + 1) / 2) * height], 1e-8);
    }
  });

  it('hold every corner of a part in its cascade, between the splits', () => {
    fc.assert(
      fc.property(
        fc.tuple(frames, conventions),
        fc.record({
          count: fc.integer({ min: 1, max: 5 }),
          blend: real(0, 1),
          to: real(5, 60),
          light: vectors(1).filter((v) => length(v) > 0.1),
          mapSize: fc.integer({ min: 2, max: 2048 }),
          fit: fc.constantFrom('box' as const, 'sphere' as const),
        }),
        ([frame, given], terms) => {
          const light = [...codecOf(given).toWorld(terms.light)];
          const cascades = derive(frame, given, { kind: 'cascades', ...terms, light });
          expect(cascades[0]!.split![0]).toBe(frame.near);
          expect(cascades.at(-1)!.split![1]).toBe(terms.to);
          cascades.forEach((one, i) => {
            if (i > 0) expect(one.split![0]).toBe(cascades[i - 1]!.split![1]);
            const { width, height } = frame.viewport;
            const [low, high] = [given.screen.pixelCentre - 0.5, 1e-6];
            for (const { screen, depth } of shown(one, frame, given, partCorners(frame, one.split!))) {
              expect(screen![0]).toBeGreaterThan(low - high * width);
              expect(screen![0]).toBeLessThan(low + width * (1 + high));
              expect(screen![1]).toBeGreaterThan(low - high * height);
              expect(screen![1]).toBeLessThan(low + height * (1 + high));
              expect(depth).toBeGreaterThan(-1e-6);
              expect(depth).toBeLessThan(1 + 1e-6);
            }
          });
        },
      ),
      { numRuns: runs(120) },
    );
  });

  it('move a cascade about a sphere by whole texels, its size unchanged, as the camera moves', () => {
    fc.assert(
      fc.property(
        frames,
        vectors(1),
        vectors(1).filter((v) => length(v) > 0.1),
        (frame, step, light) => {
          const query = {
            kind: 'cascades',
            count: 1,
            blend: 0.5,
            to: 40,
            light: [...light],
            mapSize: 256,
            fit: 'sphere',
          };
          const moved = frameOf(
            {
              position: [frame.eye[0] + step[0], frame.eye[1] + step[1], frame.eye[2] + step[2]],
              orientation: { kind: 'basis', right: frame.right, up: frame.up, forward: frame.forward },
              projection:
                frame.kind === 'perspective'
                  ? { kind: 'frustum', near: frame.near, far: frame.far, ...frame.extents }
                  : {
                      kind: 'orthographic',
                      near: frame.near,
                      far: frame.far,
                      size: { height: frame.extents.top - frame.extents.bottom },
                      shift: [0, 0],
                    },
            },
            frame.viewport,
          );
          if (!moved.ok || frame.kind !== 'perspective') return;
          type Box = { position: Vec3; orientation: { right: Vec3; up: Vec3 }; projection: { height: number } };
          const [a, b] = [frame, moved.value].map(
            (one) => derive(one, defaultConventions, query)[0]!.camera as unknown as Box,
          ) as [Box, Box];
          expect(Math.abs(a.projection.height / b.projection.height - 1)).toBeLessThan(1e-9);
          for (const axis of ['right', 'up'] as const) {
            const along = dot(b.position, a.orientation[axis]) - dot(a.position, a.orientation[axis]);
            const texels = along / (a.projection.height / 256);
            expect(Math.abs(texels - Math.round(texels))).toBeLessThan(1e-5);
          }
        },
      ),
      { numRuns: runs(80) },
    );
  });

  it('show a mirrored point where the camera shows the point', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          frames,
          conventions,
          vectors(20),
          vectors(1).filter((v) => length(v) > 0.2),
        ),
        fc.tuple(real(-1, 1), real(-1, 1), real(0.5, 30)),
        ([frame, given, point, normal], [across, upward, further]) => {
          const unit = normalize(normal)!;
          if (Math.abs(dot(unit, [frame.eye[0] - point[0], frame.eye[1] - point[1], frame.eye[2] - point[2]])) < 0.1)
            return;
          const codec = codecOf(given);
          const plane = { point: [...codec.toWorld(point)], normal: [...codec.toWorld(normal)] };
          const [mirror] = derive(frame, given, { kind: 'mirror', plane, clip: false });
          const at = pointAt(frame, across, upward, frame.near + further);
          const [own] = shownNow(frame, given, [at]);
          const image = reflectPoint(at, { point, normal: unit });
          const [found] = shown(mirror!, frame, given, [image]);
          near(found!.screen!, own!.screen, 1e-6);
          expect(found!.depth).toBeCloseTo(own!.depth, 8);
          expect(mirror!.mirrored).toBe(true);
          // The view of the answer is reflected. Its product with the projection is the proper camera's.
          const request = { ...requestOf(frame, given, [{ op: 'matrices' }]), camera: mirror!.camera };
          const answered = compute(request);
          if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
          const proper = answered.response.results[0] as unknown as Answered;
          near(proper.viewProjection, mirror!.viewProjection, 1e-8);
        },
      ),
      { numRuns: runs(120) },
    );
  });

  it('put the depth of near on a clipping mirror, and no more than far’s beyond it', () => {
    fc.assert(
      fc.property(
        fc.tuple(
          frames.filter(({ kind }) => kind === 'perspective'),
          conventions,
          vectors(1).filter((v) => length(v) > 0.2),
        ),
        fc.tuple(real(-0.8, 0.8), real(-0.8, 0.8), real(2, 20)),
        ([frame, given, normal], [across, upward, ahead]) => {
          const unit = normalize(normal)!;
          const point = pointAt(frame, across, upward, ahead);
          const height = dot(unit, [frame.eye[0] - point[0], frame.eye[1] - point[1], frame.eye[2] - point[2]]);
          if (Math.abs(height) < 0.2) return;
          const codec = codecOf(given);
          const plane = { point: [...codec.toWorld(point)], normal: [...codec.toWorld(normal)] };
          const answered = ask(frame, given, { op: 'derive', kind: 'mirror', plane, clip: true });
          if ('error' in answered) return;
          const [mirror] = answered['cameras'] as Answered[];
          const viewProjection = codec.fromList(mirror!.viewProjection);
          const clipOf = (p: Vec3) => {
            const [x, y, z] = codec.toWorld(p);
            const row = (i: number) =>
              viewProjection[i]! * x + viewProjection[i + 1]! * y + viewProjection[i + 2]! * z + viewProjection[i + 3]!;
            return { z: row(8), w: row(12) };
          };
          const { z, w } = clipOf(point);
          expect(Math.abs(z / w - given.ndc.near)).toBeLessThan(1e-6);
          // On the real eye's side and inside the picture, depth is within the range.
          const side = Math.sign(height);
          const inside: Vec3 = [
            point[0] + side * unit[0] * 0.5,
            point[1] + side * unit[1] * 0.5,
            point[2] + side * unit[2] * 0.5,
          ];
          const image = reflectPoint(inside, { point, normal: unit });
          const seen = projectPoint(frame, image);
          if (!seen.picture.ok || seen.outside.length) return;
          const clip = clipOf(inside);
          const share = (clip.z / clip.w - given.ndc.near) / (given.ndc.far - given.ndc.near);
          expect(share).toBeGreaterThan(-1e-9);
          expect(share).toBeLessThan(1 + 1e-9);
        },
      ),
      { numRuns: runs(120) },
    );
  });

  it('cost a number of looks, whatever stands for their counts', () => {
    for (const count of ['many', null, [3], {}, -5, 1e300])
      expect(costOf({ queries: [{ op: 'derive', kind: 'jitter', count, columns: count, rows: 2 }] })).toBeLessThan(1e6);
  });

  it('say what is wrong with their terms', () => {
    const frame = fc.sample(
      frames.filter(({ kind, far }) => kind === 'perspective' && far === null),
      1,
    )[0]!;
    const code = (query: object) =>
      (ask(frame, defaultConventions, { op: 'derive', ...query }) as { error?: { code: string } }).error?.code;
    const eye = (angles: object) => ({ kind: 'eyes', eyes: [{ name: 'a', offset: [0, 0, 0], angles }] });
    expect(code(eye({ left: 10, right: -10, down: -10, up: 10 }))).toBe('anglesCrossed');
    expect(code(eye({ left: -90, right: 10, down: -10, up: 10 }))).toBe('fovOutOfRange');
    expect(code({ kind: 'stereo', separation: 1, convergence: 0 })).toBe('distanceNotPositive');
    expect(code({ kind: 'cascades', count: 2, blend: 0.5, light: [0, -1, 0], mapSize: 64, fit: 'box' })).toBe(
      'toMissing',
    );
    const plane = { point: [...frame.eye], normal: [0, 1, 0] };
    expect(code({ kind: 'mirror', plane, clip: false })).toBe('mirrorNotSeen');
    const bad = compute(requestOf(frame, defaultConventions, [{ op: 'derive', kind: 'tiles', columns: 2 }]));
    expect(bad.ok ? null : bad.problem.errors[0]).toMatchObject({ path: 'queries[0].rows' });
  });
});

describe('the least sphere', () => {
  it('holds every point, and no smaller one about another centre does', () => {
    fc.assert(
      fc.property(fc.array(vectors(10), { minLength: 1, maxLength: 8 }), vectors(1), (points, step) => {
        const sphere = leastSphere(points)!;
        const reach = (centre: Vec3) => Math.max(...points.map((p) => distance(p, centre)));
        expect(reach(sphere.centre)).toBeLessThanOrEqual(sphere.radius * (1 + 1e-9) + 1e-12);
        const other: Vec3 = [sphere.centre[0] + step[0], sphere.centre[1] + step[1], sphere.centre[2] + step[2]];
        expect(reach(other)).toBeGreaterThan(sphere.radius * (1 - 1e-9) - 1e-9);
      }),
      { numRuns: runs(300) },
    );
  });
});
