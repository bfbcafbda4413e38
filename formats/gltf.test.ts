import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import validator from 'gltf-validator';
import { defaultConventions } from '../core/conventions/conventions';
import { codecOf } from '../core/conventions/codec';
import { basisOfAngles, basisOfQuat, quatOfBasis } from '../core/camera/orientation';
import { normalizeQuat, type Quat } from '../core/math/quat';
import { frameFov } from '../core/camera/frame';
import { saltmarrow } from '../demo/saltmarrow';
import { saltmarrowChart } from '../demo/chart';
import { projectFrame } from './camera';
import { isGlb } from './glb';
import { readScene } from './gltfRead';
import { writeGlb, writeGltf } from './gltfWrite';
import { anglesAlong, type SceneBody, type SceneCamera, type SceneFile } from './scene';
import { allCameras } from './project';
import { projectFromScene, sceneOfProject, timesOver } from './sceneProject';
import { soaks } from '../core/testing/seed';

/* Scenes as glTF: what goes out comes back, every file is one by the reference validator, and files of others are read. */

const real = (low: number, high: number) => fc.double({ min: low, max: high, noNaN: true, noDefaultInfinity: true }).map((v) => v || 0); // prettier-ignore
const vec = fc.tuple(real(-50, 50), real(-50, 50), real(-50, 50));
const quat = fc
  .tuple(real(-1, 1), real(-1, 1), real(-1, 1), real(0.05, 1))
  .map((q) => normalizeQuat(q as unknown as Quat)!);
const shape = fc.oneof(
  fc.constant({ kind: 'point' as const }),
  fc.record({ kind: fc.constant('sphere' as const), radius: real(0.1, 9) }),
  fc.record({ kind: fc.constant('box' as const), size: fc.tuple(real(0.1, 9), real(0.1, 9), real(0.1, 9)) }),
  fc.record({ kind: fc.constant('quad' as const), size: fc.tuple(real(0.1, 9), real(0.1, 9)) }),
  fc.constant({ kind: 'mesh' as const, positions: [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1], indices: [0, 1, 2, 0, 2, 3] }),
);
const bodies = fc.array(fc.record({ shape, position: vec, rotation: quat, scale: fc.tuple(real(0.2, 3), real(0.2, 3), real(0.2, 3)), under: fc.nat(9) }), { maxLength: 7 }) // prettier-ignore
  .map((list) => list.map(({ under, ...one }, i): SceneBody => ({ ...one, id: `b${i}`, name: `Body ${i}`, parent: i && under < 5 ? `b${under % i}` : null }))); // prettier-ignore
const pose = fc.record({ yaw: real(-3.1, 3.1), pitch: real(-1.5, 1.5), roll: real(-1, 1) }).map(basisOfAngles);
const shift = fc.oneof(fc.constant([0, 0] as const), fc.tuple(real(-0.4, 0.4), real(-0.4, 0.4)));
const aspect = fc.oneof(fc.constant(null), real(0.5, 3));
const lens = fc.oneof(
  fc.record({ kind: fc.constant('perspective' as const), verticalFov: real(0.1, 3), near: real(0.01, 2), far: fc.oneof(fc.constant(null), real(3, 900)), aspect, shift }), // prettier-ignore
  fc.record({ kind: fc.constant('orthographic' as const), height: real(0.1, 90), near: real(-20, 2), far: real(3, 900), aspect, shift }), // prettier-ignore
);
const cameras = fc.array(fc.record({ basis: pose, position: vec, lens }), { maxLength: 3 })
  .map((list) => list.map(({ basis, ...one }, i): SceneCamera => ({ ...basis, ...one, id: `c${i}`, name: `Camera ${i}` }))); // prettier-ignore
const scenes = fc.record({ bodies, cameras }).filter((one) => one.bodies.length + one.cameras.length > 0);

/** Errors of the reference validator; none is a file that everyone reads. */
async function faultsOf(bytes: Uint8Array): Promise<string[]> {
  const { issues } = await validator.validateBytes(bytes, { maxIssues: 20 });
  return issues.messages.filter(({ severity }) => severity === 0).map(({ code, pointer }) => `${code} ${pointer ?? ''}`); // prettier-ignore
}
const close = (a: readonly number[], b: readonly number[], by: number) => a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThanOrEqual(by * Math.max(1, Math.abs(b[i]!)))); // prettier-ignore

describe('a scene as glTF', () => {
  it('is valid, and comes back as it was', async () => {
    await fc.assert(
      fc.asyncProperty(scenes, fc.boolean(), async (some, binary) => {
        const scene: SceneFile = { ...some, name: 'Pier', courses: [] };
        const bytes = binary ? (await writeGlb(scene, 1.6)).bytes : new TextEncoder().encode((await writeGltf(scene, 1.6)).text); // prettier-ignore
        expect(isGlb(bytes)).toBe(binary);
        expect(await faultsOf(bytes)).toEqual([]);
        const read = await readScene(bytes, 'pier');
        if (!read.ok) throw new Error(JSON.stringify(read.problems));
        expect(read.left).toEqual([]);
        expect(read.scene.name).toBe('Pier');
        // In their tree, parents first.
        expect(new Set(read.scene.bodies.map(({ id, parent, name }) => `${id} ${parent} ${name}`))).toEqual(new Set(scene.bodies.map(({ id, parent, name }) => `${id} ${parent} ${name}`))); // prettier-ignore
        for (const body of read.scene.bodies) {
          const before = scene.bodies.find(({ id }) => id === body.id)!;
          close([...body.position, ...body.scale], [...before.position, ...before.scale], 1e-12);
          close(body.rotation, before.rotation, 1e-12);
          expect(body.shape).toEqual(before.shape);
        }
        for (const camera of read.scene.cameras) {
          const before = scene.cameras.find(({ id }) => id === camera.id)!;
          close([...camera.right, ...camera.up, ...camera.forward, ...camera.position], [...before.right, ...before.up, ...before.forward, ...before.position], 1e-9); // prettier-ignore
          const { aspect: a, ...rest } = camera.lens;
          const { aspect: b, ...wanted } = before.lens;
          expect({ ...rest, shift: [...rest.shift] }).toEqual({ ...wanted, shift: [...wanted.shift], ...('height' in wanted && { height: expect.closeTo(wanted.height, 9) as number }) }); // prettier-ignore
          expect(a === null ? null : a).toEqual(b === null ? null : expect.closeTo(b, 9));
        }
      }),
      { numRuns: soaks ? 400 : 60 },
    );
  }, 60_000);

  it('says what it cannot hold', async () => {
    const camera = { ...basisOfAngles({ yaw: 0, pitch: 0, roll: 0 }), id: 'c', name: 'Quay', position: [0, 0, 0] as const }; // prettier-ignore
    const of = async (own: SceneCamera['lens']) => (await writeGltf({ name: 'x', bodies: [], cameras: [{ ...camera, lens: own }], courses: [] }, 1)).said.join(' '); // prettier-ignore
    expect(await of({ kind: 'perspective', verticalFov: 1, near: 1, far: null, aspect: null, shift: [0, 0] })).toBe('');
    expect(await of({ kind: 'perspective', verticalFov: 1, near: 1, far: 9, aspect: null, shift: [0.2, 0] })).toContain('lens shift of Quay is left out'); // prettier-ignore
    expect(await of({ kind: 'orthographic', height: 4, near: -3, far: 9, aspect: 2, shift: [0, 0] })).toContain('begins behind its eye'); // prettier-ignore
  });

  it('infinite far has no zfar; magnifications are half sizes, equal or not', async () => {
    const camera = { ...basisOfAngles({ yaw: 0.3, pitch: 0, roll: 0 }), id: 'c', name: 'Quay', position: [1, 2, 3] as const }; // prettier-ignore
    const of = async (own: SceneCamera['lens']) =>
      (JSON.parse((await writeGltf({ name: 'x', bodies: [], cameras: [{ ...camera, lens: own }], courses: [] }, 1.5)).text) as { cameras: Record<string, Record<string, number>>[] }).cameras[0]!; // prettier-ignore
    const endless = await of({
      kind: 'perspective',
      verticalFov: 0.7,
      near: 0.2,
      far: null,
      aspect: null,
      shift: [0, 0],
    });
    expect(endless['perspective']).toEqual({ yfov: 0.7, znear: 0.2, aspectRatio: 1.5 });
    const square = await of({ kind: 'orthographic', height: 8, near: 0, far: 9, aspect: 1, shift: [0, 0] });
    expect(square['orthographic']).toEqual({ xmag: 4, ymag: 4, znear: 0, zfar: 9 });
    const wide = await of({ kind: 'orthographic', height: 8, near: 0, far: 9, aspect: null, shift: [0, 0] });
    expect(wide['orthographic']).toEqual({ xmag: 6, ymag: 4, znear: 0, zfar: 9 });
  });
});

describe('the harbour as glTF', () => {
  const e = codecOf(defaultConventions);
  it('is valid with its cameras, tree and motions, and is the same project again', async () => {
    const project = saltmarrow();
    const times = timesOver(4);
    const rest = projectFrame(project, e);
    if (!rest.ok) throw new Error('a proper camera');
    const frames = times.map((t) => ({ ...rest.value, eye: [t * 3, 14 + t, 64] as const }));
    const { scene, said } = sceneOfProject(project, e, [{ id: project.camera.id, times, frames }]);
    expect(said).toEqual([]);
    // What has no place there is said of a project that has it.
    const kept = sceneOfProject({ ...project, tasks: { pick: {} } }, e, []);
    expect(kept.said.join(' ')).toContain('of the project alone');
    const { bytes, said: more } = await writeGlb(scene, 16 / 9);
    expect(await faultsOf(bytes)).toEqual([]);
    expect(more.join(' ')).toContain('Spheres');
    const read = await readScene(bytes, 'harbour');
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const again = projectFromScene(read.scene, { id: 'new', name: 'Again', conventions: defaultConventions });
    if (!again.ok) throw new Error(JSON.stringify(again.problems));
    expect(again.project.bodies).toHaveLength(project.bodies.length);
    for (const body of again.project.bodies) {
      const before = project.bodies.find(({ id }) => id === body.id)!;
      expect(body.parent).toBe(before.parent);
      expect(Boolean(body.motion && before.motion) || body.motion === null).toBe(true);
      if (!body.motion) close(body.position, before.position, 1e-9);
    }
    for (const camera of allCameras(again.project)) {
      const before = allCameras(project).find(({ id }) => id === camera.id)!;
      const [a, b] = [projectFrame({ camera, viewport: again.project.viewport }, e), projectFrame({ camera: before, viewport: project.viewport }, e)]; // prettier-ignore
      if (!a.ok || !b.ok) throw new Error('proper cameras');
      close([...a.value.eye, ...a.value.forward, ...a.value.up], [...b.value.eye, ...b.value.forward, ...b.value.up], 1e-9); // prettier-ignore
      expect(frameFov(a.value)).toBeCloseTo(frameFov(b.value)!, 9);
    }
    // The way of the camera, float by float.
    const [way] = again.ways;
    expect(way!.id).toBe(project.camera.id);
    expect(way!.keys).toHaveLength(times.length);
    close(way!.keys[60]!.position, frames[60]!.eye, 1e-6);
    expect(way!.keys[60]!.yaw).toBeCloseTo((6 * Math.PI) / 180, 6);
  });

  it('the chart is written in its plane', async () => {
    const { scene, said } = sceneOfProject(saltmarrowChart(), e, []);
    expect(said.join(' ')).toContain('flat world');
    expect(await faultsOf((await writeGlb(scene, 1)).bytes)).toEqual([]);
    expect(scene.cameras.every(({ lens: own }) => own.kind === 'orthographic')).toBe(true);
  });
});

describe('files of others', () => {
  const float = (...values: number[]) => Buffer.from(Float32Array.from(values).buffer);
  const read = (json: object) => readScene(new TextEncoder().encode(JSON.stringify({ asset: { version: '2.0' }, ...json })), 'file'); // prettier-ignore
  const data = (bytes: Buffer) => ({ byteLength: bytes.length, uri: `data:application/octet-stream;base64,${bytes.toString('base64')}` }); // prettier-ignore

  it('strips and fans are triangles, a matrix is its parts, a scaled camera keeps its axes', async () => {
    const bytes = float(0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0);
    const found = await read({
      buffers: [data(bytes)],
      bufferViews: [{ buffer: 0, byteLength: 48 }],
      accessors: [{ bufferView: 0, componentType: 5126, count: 4, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] }],
      meshes: [5, 6, 0].map((mode) => ({ primitives: [{ attributes: { POSITION: 0 }, mode }] })),
      cameras: [{ type: 'perspective', perspective: { yfov: 0.8, znear: 0.1 } }],
      nodes: [
        { name: 'Strip', mesh: 0, matrix: [0, 0, -2, 0, 0, 2, 0, 0, 2, 0, 0, 0, 5, 6, 7, 1] },
        { name: 'Fan', mesh: 1, children: [3] },
        { name: 'Dots', mesh: 2 },
        { name: 'Eye', camera: 0, translation: [0, 1, 2], rotation: [0, Math.SQRT1_2, 0, Math.SQRT1_2], scale: [3, 3, 3] },
      ],
      scenes: [{ nodes: [0, 1, 2] }],
    });
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    const [strip, fan, dots] = found.scene.bodies;
    expect(strip!.shape).toMatchObject({ kind: 'mesh', indices: [0, 1, 2, 2, 1, 3] });
    expect(fan!.shape).toMatchObject({ indices: [0, 1, 2, 0, 2, 3] });
    expect(dots!.shape).toEqual({ kind: 'point' });
    expect(found.left).toContain('lines and points');
    close(strip!.position, [5, 6, 7], 1e-12);
    close(strip!.scale, [2, 2, 2], 1e-12);
    close(strip!.rotation, [0, Math.SQRT1_2, 0, Math.SQRT1_2], 1e-9);
    const [eye] = found.scene.cameras;
    close([...eye!.position, ...eye!.forward, ...eye!.right], [0, 1, 2, -1, 0, 0, 0, 0, -1], 1e-9);
    expect(eye!.lens).toMatchObject({ far: null, aspect: null });
  }); // prettier-ignore

  it('a camera goes with what it hangs on: even, in steps and along a curve', async () => {
    // A parent turned half round in 2 seconds about the height, and moved along a cubic curve.
    const s = Math.SQRT1_2;
    const bytes = float(0, 1, 2, ...[0, 0, 0, 1], ...[0, s, 0, s], ...[0, 1, 0, 0], ...[0, 0, 0], ...[0, 0, 0], ...[0, 0, 0], ...[0, 0, 0], ...[4, 0, 0], ...[0, 0, 0]);
    const found = await read({
      buffers: [data(bytes)],
      bufferViews: [{ buffer: 0, byteLength: 12 }, { buffer: 0, byteOffset: 12, byteLength: 48 }, { buffer: 0, byteOffset: 60, byteLength: 72 }, { buffer: 0, byteOffset: 0, byteLength: 8 }],
      accessors: [
        { bufferView: 0, componentType: 5126, count: 3, type: 'SCALAR', min: [0], max: [2] },
        { bufferView: 1, componentType: 5126, count: 3, type: 'VEC4' },
        { bufferView: 2, componentType: 5126, count: 6, type: 'VEC3' },
        { bufferView: 3, componentType: 5126, count: 2, type: 'SCALAR', min: [0], max: [1] },
      ],
      cameras: [{ type: 'orthographic', orthographic: { xmag: 4, ymag: 2, znear: 0, zfar: 9 } }],
      nodes: [{ name: 'Boom', children: [1] }, { name: 'Eye', camera: 0, translation: [0, 0, 5] }],
      scenes: [{ nodes: [0] }],
      animations: [{ samplers: [{ input: 0, output: 1 }, { input: 3, output: 2, interpolation: 'CUBICSPLINE' }], channels: [{ sampler: 0, target: { node: 0, path: 'rotation' } }, { sampler: 1, target: { node: 0, path: 'translation' } }] }],
    });
    if (!found.ok) throw new Error(JSON.stringify(found.problems));
    const [eye] = found.scene.cameras;
    expect(eye!.lens).toMatchObject({ kind: 'orthographic', height: 4, aspect: 2 });
    const course = found.scene.courses.find(({ of }) => of === 'camera')!;
    const at = (t: number) => course.positions[course.times.indexOf(t)]!;
    close(at(0), [0, 0, 5], 1e-6);
    // Half way along the curve from 0 to 4 with no slope at its ends, an eighth of a turn to the left.
    const [half] = [course.times.find((t) => t === 0.5)!];
    close(at(half), [2 + 5 * Math.sin(Math.PI / 4), 0, 5 * Math.cos(Math.PI / 4)], 1e-5);
    close(at(2), [4, 0, -5], 1e-5);
    const angles = anglesAlong(course.rotations);
    expect(angles.at(-1)!.yaw).toBeCloseTo(-Math.PI, 4);
    close(basisOfQuat(quatOfBasis(eye!)).forward, eye!.forward, 1e-12);
  }); // prettier-ignore

  it('what cannot be read is said in a sentence', async () => {
    const refused = async (json: object | string) => {
      const found = typeof json === 'string' ? await readScene(new TextEncoder().encode(json), 'x') : await read(json);
      return found.ok ? '' : found.problems.map(({ message }) => message).join(' ');
    };
    expect(await refused('{')).toContain('could not be read as glTF');
    expect(await refused({ asset: { version: '1.0' } })).toContain('of version 1.0');
    expect(await refused({ buffers: [{ uri: 'scene.bin', byteLength: 4 }] })).toContain('in another file, scene.bin');
    expect(await refused({})).toBe('It has no scene.');
    expect(await refused({ scenes: [{}] })).toContain('is empty');
    expect(await refused({ scenes: [{ nodes: [0] }], nodes: [{ camera: 0, scale: [0, 0, 0] }], cameras: [{ type: 'perspective', perspective: { yfov: 1, znear: 1 } }] })).toContain('scaled to nothing'); // prettier-ignore
    expect(await refused({ scenes: [{ nodes: [0] }], nodes: [{ camera: 0 }], cameras: [{ type: 'perspective', perspective: { yfov: 4, znear: 0 } }] })).toContain('near has to be above 0'); // prettier-ignore
    expect(await refused({ scenes: [{ nodes: [] }], extensionsRequired: ['KHR_draco_mesh_compression'], extensionsUsed: ['KHR_draco_mesh_compression'] })).toContain('KHR_draco_mesh_compression'); // prettier-ignore
  });
});
