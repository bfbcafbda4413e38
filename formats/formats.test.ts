import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../core/compute/compute';
import { placeBodies } from '../core/bodies/body';
import { frameOf, type CameraFrame } from '../core/camera/frame';
import { plane } from '../core/quantities/world';
import type { Vec3 } from '../core/math/vec3';
import { codecOf } from '../core/conventions/codec';
import { pixelToPicture, projectPoint, worldToPixel } from '../core/convert/project';
import { pictureToWorld } from '../core/convert/unproject';
import { conventions } from '../core/testing/arbitraries';
import { saltmarrow } from '../demo/saltmarrow';
import {
  coreCamera,
  coreViewport,
  depthChoiceOf,
  projectFrame,
  projectRequest,
  cameraInSpace,
  flatCamera,
} from './camera';
import { projectFromRequest } from './fromRequest';
import { keepNumbers } from './reinterpret';
import { saltmarrowChart } from '../demo/chart';
import { isRequest, parseProject, readProject, writeProject, writtenIn, type Project } from './project';
import { runs } from '../core/testing/seed';

const project = saltmarrow();
const chart = saltmarrowChart();
const projectPixel = (frame: CameraFrame, p: Vec3) => {
  const pixel = worldToPixel(frame, p);
  return pixel.ok ? pixel.value : [NaN, NaN];
};
type Row = Record<string, unknown>;

describe('a project as a compute request', () => {
  it('answers in any conventions with the numbers of the project itself', () => {
    const made = frameOf(coreCamera(cameraInSpace(project)), coreViewport(project));
    if (!made.ok) throw new Error();
    const back = pictureToWorld(
      made.value,
      ...pixelToPicture(made.value, project.back.pixel),
      depthChoiceOf(project.back),
    );
    if (!back.ok) throw new Error();
    fc.assert(
      fc.property(conventions, (c) => {
        const e = codecOf(c);
        const answered = compute(
          projectRequest({ ...project, conventions: c as Project['conventions'] }, e, [-21, 20.4, -20]),
        );
        if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
        const { camera, results, warnings } = answered.response;
        expect(warnings).toEqual([]);
        const row = (id: string) => results.find((one) => one.id === id) as unknown as Record<string, Row[]>;
        const close = (actual: unknown, expected: readonly number[]) =>
          (actual as number[]).forEach((v, i) => expect(Math.abs(v - expected[i]!)).toBeLessThan(1e-8));
        close(camera!.position, e.toWorld([-6, 14, 64]));
        close(row('back').pixels![0]!.point, e.toWorld(back.value));
        close(row('matrices').viewProjection, e.toList(e.matrix(made.value, 'viewProjection')));
        expect(row('hit').pixels![0]).toMatchObject({ hits: [{ body: 'north-quay' }] });
        expect(row('probe').points![0]).toMatchObject({ onScreen: true });
      }),
      { numRuns: runs(40) },
    );
  });
});

describe('a flat project as a compute request', () => {
  const snaps = fc.constantFrom('none' as const, 'floor' as const, 'round' as const);
  it('answers in any conventions, snapped in them too, with the numbers of the project itself', () => {
    fc.assert(
      fc.property(conventions, snaps, (c, snap) => {
        const flat = { ...chart, conventions: c as Project['conventions'], camera: { ...flatCamera(chart), snap } };
        const e = codecOf(c);
        const made = projectFrame(flat, e);
        if (!made.ok) throw new Error();
        const answered = compute(projectRequest(flat, e, [-13, -73, 0]));
        if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
        expect(answered.response.warnings).toEqual([]);
        const [, probe, back] = answered.response.results as unknown as Record<string, Row[]>[];
        const close = (actual: unknown, expected: readonly number[]) =>
          expected.forEach((v, i) => expect(Math.abs((actual as number[])[i]! - v)).toBeLessThan(1e-9));
        const { picture } = projectPoint(made.value, [-13, -73, 0]);
        if (!picture.ok) throw new Error();
        close(probe!.points![0]!.screen, e.toScreen(made.value.viewport, picture.value.across, picture.value.upward));
        const under = plane.readPoint(back!.pixels![0]!.point as [number, number], e);
        close(projectPixel(made.value, under), flat.back.pixel);
        // Unsnapped the launch is on the anchor; snapped it is less than a pixel off.
        const [dx, dy] = projectPixel(made.value, [-13, -73, 0]).map((v, i) => v - flatCamera(chart).anchor[i]!);
        expect(Math.hypot(dx!, dy!)).toBeLessThan(snap === 'none' ? 1e-9 : Math.SQRT2 + 1e-9);
      }),
      { numRuns: runs(60) },
    );
  });

  it('is refused where a body leaves the plane or a row of tiles is torn', () => {
    const lifted = { ...chart, bodies: chart.bodies.map((b, i) => (i ? b : { ...b, position: [0, 0, 2] })) };
    expect(readProject(lifted)).toMatchObject({ problems: [{ path: 'bodies[0].position[2]' }] });
    const torn = { ...chart, tiles: { ...chart.tiles!, values: chart.tiles!.values.slice(1) } };
    expect(readProject(torn)).toMatchObject({ problems: [{ path: 'tiles.values' }] });
  });

  it('keeps its numbers by turning its map over with everything else', () => {
    const down = { ...chart.conventions, world: { ...chart.conventions.world, up: '-y' as const } };
    const kept = keepNumbers(chart, down);
    expect(flatCamera(kept).focus).toEqual([-13, 73]);
    const { corner, size, columns, values } = chart.tiles!;
    const rows = values.length / columns;
    expect(kept.tiles!.corner).toEqual([corner[0], -(corner[1] + rows * size)]);
    expect(kept.tiles!.values.slice(0, columns)).toEqual(values.slice(-columns));
    expect(keepNumbers(kept, chart.conventions).tiles).toEqual(chart.tiles);
  });
});

describe.each([project, chart])('keeping the numbers of $name under other conventions', (project) => {
  it('leaves every number as it is written, and comes back to the same project', () => {
    fc.assert(
      fc.property(conventions, conventions, (a, b) => {
        const before = { ...project, conventions: a as Project['conventions'] };
        const after = keepNumbers(before, b);
        const [x, y] = [projectRequest(before, codecOf(a), null), projectRequest(after, codecOf(b), null)];
        const close = (p: unknown, q: unknown): void => {
          if (typeof p === 'number') expect(Math.abs(p - (q as number))).toBeLessThan(1e-9 * (1 + Math.abs(p)));
          else if (typeof p === 'object' && p) for (const [key, v] of Object.entries(p)) close(v, (q as Row)[key]);
          else expect(q).toBe(p);
        };
        close(x.camera, y.camera);
        // A rotation's quaternion has either sign; its place and size have one.
        x.bodies!.forEach((body, i) =>
          close({ ...body, rotation: undefined }, { ...y.bodies![i]!, rotation: undefined }),
        );
        close(x.queries, y.queries);
        const again = keepNumbers(after, a as Project['conventions']);
        close({ ...before.camera, bodies: 0 }, { ...again.camera, bodies: 0 });
        close(before.probe, again.probe);
        close(before.back, again.back);
        close(before.ground, again.ground);
        before.bodies.forEach(({ position, handle, scale }, i) => {
          const { position: p, handle: h, scale: s } = again.bodies[i]!;
          close({ position, handle, scale }, { position: p, handle: h, scale: s });
        });
      }),
      { numRuns: runs(25) },
    );
  }, 60_000);
});

describe('keeping the numbers', () => {
  it('moves the scene where a sign means something else', () => {
    const flipped = keepNumbers(project, { ...project.conventions, world: { right: '+x', up: '+y', forward: '+z' } });
    expect(cameraInSpace(flipped).position).toEqual([-6, 14, -64]);
    expect(flipped.bodies[0]!.position[2]).toBe(-project.bodies[0]!.position[2]);
  });
});

describe('a compute request as a project', () => {
  const close = (p: unknown, q: unknown): void => {
    if (typeof p === 'number') expect(Math.abs(p - (q as number))).toBeLessThan(1e-9 * (1 + Math.abs(p)));
    else if (typeof p === 'object' && p) for (const [key, v] of Object.entries(p)) close(v, (q as Row)[key]);
    else expect(q).toBe(p);
  };
  it.each([project, chart])(
    'gives back the request that $name was',
    (before) => {
      fc.assert(
        fc.property(conventions, (c) => {
          const e = codecOf(c);
          const asked = projectRequest({ ...before, conventions: c as Project['conventions'] }, e, [3, 4, 0]);
          const read = projectFromRequest(JSON.parse(JSON.stringify(asked)), 'again', 'Again');
          if (!read.ok) throw new Error(JSON.stringify(read.problems));
          const again = projectRequest(read.project, e, [3, 4, 0]);
          close(asked.camera, again.camera);
          // A rotation's quaternion has either sign.
          asked.bodies!.forEach((body, i) => close({ ...body, rotation: 0 }, { ...again.bodies![i], rotation: 0 }));
          close(asked.queries[0], again.queries[0]);
          close(read.project.back.pixel, before.back.pixel);
          close(read.project.probe.drive.value, [3, 4, 0]);
        }),
        { numRuns: 8 },
      );
    },
    60_000,
  );
  it('sees what the request sees, however its lens is said', () => {
    const lenses = [
      { focalLength: 35, sensorHeight: 24 },
      { horizontalFov: 80, shift: [0.3, -0.1] },
      { diagonalFov: 90, aspect: 2 },
    ];
    for (const lens of lenses) {
      const request = { astrolabe: 1, viewport: { width: 800, height: 500 }, camera: { position: [1, 2, 3], orientation: { lookAt: [0, 0, 0], up: [1, 1, 0] }, projection: { kind: 'perspective', near: 0.5, far: null, ...lens } }, queries: [{ id: 'm', op: 'matrices' }] }; // prettier-ignore
      const read = projectFromRequest(request, 'a', 'A');
      if (!read.ok) throw new Error(JSON.stringify(read.problems));
      const [a, b] = [compute(request), compute({ ...projectRequest(read.project, codecOf(read.project.conventions), null), queries: request.queries })]; // prettier-ignore
      if (!a.ok || !b.ok) throw new Error();
      close(a.response.results[0], b.response.results[0]);
    }
  });
  it.each([
    ['what the command line refuses', { viewport: { width: 0, height: 5 } }, 'viewport.width'],
    ['a viewport elsewhere', { viewport: { x: 3, y: 0, width: 5, height: 5 } }, 'viewport'],
    ['parts of pixels', { viewport: { width: 5.5, height: 5 } }, 'viewport.width'],
    ['a missing camera', { camera: undefined }, 'camera'],
    ['a key that is not known', { bodis: [] }, 'bodis'],
  ])('refuses %s', (_, part, path) => {
    const request = { ...projectRequest(project, codecOf(project.conventions), null), ...part };
    expect(projectFromRequest(request, 'a', 'A')).toMatchObject({ ok: false, problems: [{ path }] });
  });
});

describe('reading a project file', () => {
  it.each<[string, (p: Project) => unknown, string]>([
    ['a missing camera', (p) => ({ ...p, camera: undefined }), 'camera'],
    [
      'a word for a number',
      (p) => ({ ...p, camera: { ...p.camera, projection: { ...cameraInSpace(p).projection, near: 'close' } } }),
      'camera.projection.near',
    ],
    [
      'an unknown kind of lens',
      (p) => ({ ...p, camera: { ...p.camera, projection: { kind: 'fisheye' } } }),
      'camera.projection.kind',
    ],
    ['a probe of no body', (p) => ({ ...p, probe: { ...p.probe, body: 'nobody' } }), 'probe.body'],
    [
      'axes twice',
      (p) => ({ ...p, conventions: { ...p.conventions, view: { right: '+x', up: '+x', forward: '-z' } } }),
      'conventions.view',
    ],
    [
      'a parent that is not there',
      (p) => ({ ...p, bodies: [{ ...p.bodies[0], parent: 'gone' }], probe: { ...p.probe, body: null } }),
      'bodies[0].parent',
    ],
    [
      'a torn mesh',
      (p) => ({
        ...p,
        bodies: p.bodies.map((b) =>
          b.id === 'lighthouse' ? { ...b, shape: { kind: 'mesh', positions: [0, 0], indices: [] } } : b,
        ),
      }),
      'bodies[5].shape.positions',
    ],
    ['a viewport of nothing', (p) => ({ ...p, viewport: { ...p.viewport, width: 0 } }), 'viewport.width'],
  ])('%s is named by its place', (_name, spoil, path) => {
    const read = readProject(spoil(project));
    expect(read.ok).toBe(false);
    if (!read.ok)
      expect(read.problems).toContainEqual(
        expect.objectContaining({ path, message: expect.stringMatching(/.{10,}\.$/) }),
      );
  });

  it('keeps a camera that cannot be: it is explained where it is edited', () => {
    const read = readProject({
      ...project,
      camera: { ...project.camera, projection: { ...cameraInSpace(project).projection, near: 500 } },
    });
    expect(read.ok).toBe(true);
  });

  it('says what its numbers are written in, whatever they are shown in, and refuses what says otherwise', () => {
    const mirrored = { ...project, conventions: { ...project.conventions, handedness: 'left', forward: '+z' } };
    type Written = Record<string, unknown> & { writtenIn: typeof writtenIn };
    const file = JSON.parse(writeProject(mirrored as unknown as Project)) as Written;
    expect(Object.keys(file).slice(0, 2)).toEqual(['astrolabeProject', 'writtenIn']);
    expect(file.writtenIn.axes).toEqual({ handedness: 'right', right: '+x', up: '+y', forward: '-z' });
    expect(file.writtenIn.note).toContain('whatever “conventions” says');
    expect(file.bodies).toEqual(JSON.parse(JSON.stringify(project.bodies)));
    // It is no part of the project, and comes with every file anew.
    const back = readProject(JSON.parse(writeProject(project)));
    expect(back.ok && 'writtenIn' in back.project).toBe(false);
    const otherwise = { ...file, writtenIn: { axes: { ...writtenIn.axes, forward: '+z' } } };
    expect(readProject(otherwise)).toMatchObject({ ok: false, problems: [{ path: 'writtenIn.axes.forward' }] });
    // A file of before, which said nothing, opens as ever.
    expect(readProject(JSON.parse(JSON.stringify(project))).ok).toBe(true);
  });

  it('takes a request for what it is', () => {
    expect([{ astrolabe: 1 }, { astrolabeProject: 1 }, { astrolabe: 1, astrolabeProject: 1 }, null, []].map(isRequest)).toEqual([true, false, false, false, false]); // prettier-ignore
  });

  it('takes or refuses with a sentence, whatever is done to a file', () => {
    const text = JSON.stringify(project);
    const spoiled = fc
      .array(fc.tuple(fc.nat(text.length - 1), fc.constantFrom('', '0', '"', '-', 'null', '[', '}', 'e9')), {
        minLength: 1,
        maxLength: 4,
      })
      .map((edits) => edits.reduce((now, [at, put]) => now.slice(0, at) + put + now.slice(at + 1), text));
    let refused = 0;
    fc.assert(
      fc.property(spoiled, (file) => {
        const read = parseProject(file);
        if (read.ok) expect(placeBodies(read.project.bodies).ok).toBe(true);
        else {
          refused++;
          for (const { message } of read.problems) expect(message).toMatch(/\.$/);
        }
      }),
      { numRuns: runs(400) },
    );
    expect(refused).toBeGreaterThan(100);
  });
});
