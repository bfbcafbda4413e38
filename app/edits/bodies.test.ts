import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { worldToViewRuf } from '../../core/convert/project';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { saltmarrowQuay } from '../../demo/quay';
import { cameraInSpace, flatCamera } from '../../formats/camera';
import { readProject, type Project } from '../../formats/project';
import { currentProject, edit, openProject, undo, useDocument } from '../state/document';
import { momentOf } from '../state/moment';
import { addBody, bringIn, removeBody } from './bodies';
import { mendOf } from './mends';
import { runs } from '../../core/testing/seed';

vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);

const ids = () => currentProject().bodies.map(({ id }) => id);
const probed = () => {
  const { chain } = momentOf(currentProject());
  if (!chain.ok) throw new Error(chain.reason);
  return chain.value.world;
};

describe('bodies added and deleted', () => {
  beforeEach(() => openProject(saltmarrow()));

  it.each(['box', 'sphere', 'point'] as const)(
    'puts a %s where the probe is, large enough to be seen, and probes it',
    (kind) => {
      const before = probed();
      addBody(kind);
      const { project } = momentOf(currentProject());
      const made = project.bodies.at(-1)!;
      expect(made.position).toEqual([...before]);
      expect(project.probe.body).toBe(made.id);
      probed().forEach((v, i) => expect(v).toBeCloseTo(before[i]!, 9));
      if (made.shape.kind === 'box') {
        const { frame } = momentOf(project);
        const ahead = worldToViewRuf(frame, before)[2];
        const seen = ((frame.extents.top - frame.extents.bottom) / frame.near) * ahead;
        expect(made.shape.size[1] / seen).toBeGreaterThan(0.08);
        expect(made.shape.size[1] / seen).toBeLessThan(0.5);
      }
    },
  );

  it('gives each a name and an id of its own', () => {
    for (let i = 0; i < 4; i++) addBody('box');
    const last = currentProject().bodies.slice(-4);
    expect(last.map(({ name }) => name)).toEqual(['Box', 'Box 2', 'Box 3', 'Box 4']);
    expect(new Set(ids()).size).toBe(ids().length);
  });

  it('lies in the plane of a flat world', () => {
    openProject(saltmarrowChart());
    addBody('sphere');
    expect(currentProject().bodies.at(-1)!.position[2]).toBe(0);
  });

  it('come in from another project beside those that are there, parts with what they are parts of', () => {
    const before = currentProject();
    const other = saltmarrow();
    bringIn(other.bodies, other.name);
    const now = currentProject();
    expect(now.bodies.length).toBe(2 * before.bodies.length);
    expect(new Set(ids()).size).toBe(ids().length);
    const names = now.bodies.map(({ name }) => name);
    expect(new Set(names).size).toBeGreaterThanOrEqual(2 * new Set(before.bodies.map(({ name }) => name)).size);
    // Where each stood it stands: the whole chain of parents is of those that came.
    const { placed } = momentOf(now);
    const came = now.bodies.slice(before.bodies.length);
    other.bodies.forEach(({ id }, i) => {
      expect(placed.get(came[i]!.id)!.toWorld).toEqual(placed.get(id)!.toWorld);
      expect(came[i]!.parent === null || came.some((one) => one.id === came[i]!.parent)).toBe(true);
    });
    undo();
    expect(currentProject()).toBe(before);
  });

  it('takes what hangs on a body with it, in whatever order they are listed, and nothing else', () => {
    const all = saltmarrow();
    fc.assert(
      fc.property(fc.constantFrom(...all.bodies.map(({ id }) => id)), fc.boolean(), (id, turned) => {
        openProject(turned ? { ...all, bodies: [...all.bodies].reverse() } : all);
        const parents = new Map(all.bodies.map((body) => [body.id, body.parent]));
        const hangs = (one: string): boolean =>
          one === id || ((parents.get(one) ?? null) !== null && hangs(parents.get(one)!));
        removeBody(id);
        expect(new Set(ids())).toEqual(new Set(all.bodies.map((body) => body.id).filter((one) => !hangs(one))));
        undo();
        expect(ids().length).toBe(all.bodies.length);
      }),
      { numRuns: runs(60) },
    );
  });

  it('leaves a probe where it was when what it was on goes', () => {
    edit('probe', (draft) => void (draft.probe = { body: 'crane-a-jib', drive: { rung: 'local', value: [1, 2, 3] } }));
    const before = probed();
    removeBody('crane-a');
    expect(currentProject().probe.body).toBeNull();
    probed().forEach((v, i) => expect(v).toBeCloseTo(before[i]!, 9));
  });
});

describe('the mend of a camera that cannot be', () => {
  const broken: readonly (readonly [string, (draft: Project) => void])[] = [
    ['looks at itself', (p) => void (cameraInSpace(p).orientation = { kind: 'lookAt', target: [...cameraInSpace(p).position] })], // prettier-ignore
    ['looks straight up at a point', (p) => {
      const [x, y, z] = cameraInSpace(p).position;
      cameraInSpace(p).orientation = { kind: 'lookAt', target: [x, y + 9, z] };
    }],
    ['looks straight down at a point', (p) => {
      const [x, y, z] = cameraInSpace(p).position;
      cameraInSpace(p).orientation = { kind: 'lookAt', target: [x, y - 9, z] };
    }],
    ['has a basis that has drifted', (p) => void (cameraInSpace(p).orientation = { kind: 'basis', right: [1, 0.2, 0], up: [0, 1, 0.1], forward: [0, 0, -1] })], // prettier-ignore
    ['has near at the eye', (p) => void (cameraInSpace(p).projection.near = 0)],
    ['has near behind the eye', (p) => void (cameraInSpace(p).projection.near = -3)],
    ['has near beyond far', (p) => void (cameraInSpace(p).projection.near = 5000)],
    ['has near at far', (p) => void (cameraInSpace(p).projection.far = cameraInSpace(p).projection.near)],
    ['has a field of 180°', (p) => void Object.assign(cameraInSpace(p).projection, { verticalFov: 180 })],
    ['has no field', (p) => void Object.assign(cameraInSpace(p).projection, { verticalFov: 0 })],
    ['has no height', (p) => void (cameraInSpace(p).projection = { kind: 'orthographic', height: 0, near: 0, far: 9, aspect: null, shift: [0, 0] })], // prettier-ignore
    ['has an aspect below 0', (p) => void (cameraInSpace(p).projection.aspect = -1)],
  ]; // prettier-ignore

  it.each(broken)('of one that %s is one step of undo, and the camera can be again', (_, spoil) => {
    const project = structuredClone(saltmarrow());
    spoil(project);
    openProject(project);
    const { problems } = momentOf(currentProject()).seen;
    expect(problems.length).toBeGreaterThan(0);
    const mends = problems.flatMap((problem) => mendOf(problem, currentProject()) ?? []);
    expect(mends.length).toBeGreaterThan(0);
    mends[0]!.run();
    // What is left, if anything, has its own mend.
    for (let i = 0; i < 3 && momentOf(currentProject()).seen.problems.length; i++)
      mendOf(momentOf(currentProject()).seen.problems[0]!, currentProject())!.run();
    expect(momentOf(currentProject()).seen.problems).toEqual([]);
    while (useDocument.getState().past.length) undo();
    expect(currentProject()).toEqual(project);
  });

  it.each([
    [0, 1],
    [-3, 3],
    [1e9, 1e3],
    [1e-9, 1e-3],
  ])('of a zoom of %s is %s', (zoom, mended) => {
    const project = structuredClone(saltmarrowChart());
    flatCamera(project).zoom = zoom;
    openProject(project);
    const { problems } = momentOf(currentProject()).seen;
    mendOf(problems[0] ?? { path: 'camera.zoom', message: 'asked for all the same' }, currentProject())!.run();
    expect(flatCamera(currentProject()).zoom).toBe(mended);
    expect(momentOf(currentProject()).seen.problems).toEqual([]);
  });
});

describe('bodies with images', () => {
  it('bring their images along, each once and under a free id, and leave a project that can be opened', () => {
    const quay = saltmarrowQuay('from');
    const own = { ...saltmarrowQuay('into').images[0]!, id: 'fisher' };
    openProject({ ...saltmarrowChart('into'), images: [own] });
    bringIn(quay.bodies, quay.name, quay.images);
    bringIn(quay.bodies, quay.name, quay.images);
    const { images, bodies } = currentProject();
    const used = new Set(quay.bodies.map(({ image }) => image));
    // The images of bodies, and the one that was there; images of tiles alone stay behind.
    expect(images).toHaveLength(used.size + 1);
    const pngOf = (id: string | undefined) => images.find((one) => one.id === id)?.png;
    const fisher = quay.images.find(({ id }) => id === 'fisher')!;
    for (const body of bodies.filter(({ name }) => name.startsWith('Fisher')))
      expect(pngOf(body.image)).toBe(fisher.png);
    expect(readProject(currentProject())).toMatchObject({ ok: true });
  });
});
