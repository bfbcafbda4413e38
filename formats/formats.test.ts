import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../core/compute/compute';
import { placeBodies } from '../core/bodies/body';
import { frameOf } from '../core/camera/frame';
import { expressionOf } from '../core/conventions/express';
import { pixelToPicture } from '../core/convert/project';
import { pictureToWorld } from '../core/convert/unproject';
import { conventions } from '../core/testing/arbitraries';
import { saltmarrow } from '../demo/saltmarrow';
import { coreCamera, coreViewport, depthChoiceOf, projectRequest } from './camera';
import { keepNumbers } from './reinterpret';
import { parseProject, readProject, type Project } from './project';

const project = saltmarrow();
type Row = Record<string, unknown>;

describe('a project as a compute request', () => {
  it('answers in any conventions with the numbers of the project itself', () => {
    const made = frameOf(coreCamera(project.camera), coreViewport(project));
    if (!made.ok) throw new Error();
    const back = pictureToWorld(
      made.value,
      ...pixelToPicture(made.value, project.back.pixel),
      depthChoiceOf(project.back),
    );
    if (!back.ok) throw new Error();
    fc.assert(
      fc.property(conventions, (c) => {
        const e = expressionOf(c);
        const answered = compute(
          projectRequest({ ...project, conventions: c as Project['conventions'] }, e, [-21, 20.4, -20]),
        );
        if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
        const { camera, results, warnings } = answered.response;
        expect(warnings).toEqual([]);
        const row = (id: string) => results.find((one) => one.id === id) as unknown as Record<string, Row[]>;
        const close = (actual: unknown, expected: readonly number[]) =>
          (actual as number[]).forEach((v, i) => expect(Math.abs(v - expected[i]!)).toBeLessThan(1e-8));
        close(camera.position, e.toWorld([-6, 14, 64]));
        close(row('back').pixels![0]!.point, e.toWorld(back.value));
        close(row('matrices').viewProjection, e.toList(e.matrix(made.value, 'viewProjection')));
        expect(row('hit').pixels![0]).toMatchObject({ hits: [{ body: 'north-quay' }] });
        expect(row('probe').points![0]).toMatchObject({ onScreen: true });
      }),
      { numRuns: 40 },
    );
  });
});

describe('keeping the numbers under other conventions', () => {
  it('leaves every number as it is written, and comes back to the same project', () => {
    fc.assert(
      fc.property(conventions, conventions, (a, b) => {
        const before = { ...project, conventions: a as Project['conventions'] };
        const after = keepNumbers(before, b);
        const [x, y] = [projectRequest(before, expressionOf(a), null), projectRequest(after, expressionOf(b), null)];
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
      { numRuns: 25 },
    );
  }, 60_000);
  it('moves the scene where a sign means something else', () => {
    const flipped = keepNumbers(project, { ...project.conventions, world: { right: '+x', up: '+y', forward: '+z' } });
    expect(flipped.camera.position).toEqual([-6, 14, -64]);
    expect(flipped.bodies[0]!.position[2]).toBe(-project.bodies[0]!.position[2]);
  });
});

describe('reading a project file', () => {
  it.each<[string, (p: Project) => unknown, string]>([
    ['a missing camera', (p) => ({ ...p, camera: undefined }), 'camera'],
    [
      'a word for a number',
      (p) => ({ ...p, camera: { ...p.camera, projection: { ...p.camera.projection, near: 'close' } } }),
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
      camera: { ...project.camera, projection: { ...project.camera.projection, near: 500 } },
    });
    expect(read.ok).toBe(true);
  });

  it('takes a request for what it is', () => {
    expect(parseProject('{"astrolabe":1}')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('compute request') }],
    });
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
      { numRuns: 400 },
    );
    expect(refused).toBeGreaterThan(100);
  });
});
