import { Document, WebIO, type Camera, type GLTF, type Node } from '@gltf-transform/core';
import { base64Of } from './base64';
import { isGlb } from './glb';
import { shapeSchema } from '../core/compute/schema';
import type { Shape } from '../core/bodies/body';
import { drawnMesh } from '../core/bodies/mesh';
import { anglesOfBasis, repairBasis, type Basis } from '../core/camera/orientation';
import { columnsToQuat, normalizeQuat, rotateByQuat, type Quat } from '../core/math/quat';
import { mat4, transformPoint, multiply, transpose, type Mat4 } from '../core/math/mat4';
import { slerp } from '../core/motion/path';
import { addScaled, length, negate, normalize, type Vec2, type Vec3 } from '../core/math/vec3';
import type { Problem } from '../core/reasons';

/*
 * Scenes as glTF 2.0 (registry.khronos.org/glTF/specs/2.0), in and out. Its world is the canonical one
 * (right-handed, +y up, a camera looks along −z), its lengths metres, its angles radians. What it cannot
 * hold goes out under `extras.astrolabe`, so that it comes back here, and is said.
 */

export interface SceneBody {
  readonly id: string;
  readonly name: string;
  readonly shape: Shape;
  readonly position: Vec3;
  readonly rotation: Quat;
  readonly scale: Vec3;
  readonly parent: string | null;
}
export type SceneLens =
  /** Radians; far null is infinity; aspect null is the viewport's. */
  | { readonly kind: 'perspective'; readonly verticalFov: number; readonly near: number; readonly far: number | null; readonly aspect: number | null; readonly shift: Vec2 }
  | { readonly kind: 'orthographic'; readonly height: number; readonly near: number; readonly far: number; readonly aspect: number | null; readonly shift: Vec2 }; // prettier-ignore
export interface SceneCamera extends Basis {
  readonly id: string;
  readonly name: string;
  readonly position: Vec3;
  readonly lens: SceneLens;
}
/** Where a body (in its parent's space) or a camera stands at times, seconds, rising. */
export interface SceneCourse {
  readonly of: 'body' | 'camera';
  readonly id: string;
  readonly times: readonly number[];
  readonly positions: readonly Vec3[];
  readonly rotations: readonly Quat[];
}
/** A scene in canonical axes. */
export interface SceneFile {
  readonly name: string;
  readonly bodies: readonly SceneBody[];
  readonly cameras: readonly SceneCamera[];
  readonly courses: readonly SceneCourse[];
  /** The camera that is looked through, by its id; the first if it is not said. */
  readonly through?: string;
}

/** The camera's own axes as a rotation: right, up and backward are x, y and z. */
export const quatOfBasis = ({ right, up, forward }: Basis): Quat => columnsToQuat(right, up, negate(forward));
/** A rotation as a camera's axes. */
export const basisOfQuat = (q: Quat): Basis => ({ right: rotateByQuat(q, [1, 0, 0]), up: rotateByQuat(q, [0, 1, 0]), forward: rotateByQuat(q, [0, 0, -1]) }); // prettier-ignore

type Extras = Record<string, unknown>;
/** What is kept beside what glTF says, by the name of the product. */
const kept = (what: object): Extras => ({ astrolabe: what });

function cameraOf(
  document: Document,
  camera: SceneCamera,
  aspect: number,
): { readonly made: Camera; readonly position: Vec3; readonly said: readonly string[] } {
  // prettier-ignore
  const { lens, name } = camera;
  const made = document.createCamera(name);
  const said: string[] = [];
  const own = lens.aspect ?? aspect;
  let { position } = camera;
  if (lens.kind === 'perspective') {
    made.setType('perspective').setYFov(lens.verticalFov).setZNear(lens.near).setAspectRatio(own);
    // Without a far plane the projection is the infinite one.
    if (lens.far !== null) made.setZFar(lens.far);
  } else {
    // Near cannot lie behind the eye there: the eye goes back to near, and the picture stays.
    const back = Math.min(0, lens.near);
    position = addScaled(position, camera.forward, back);
    made.setType('orthographic').setXMag((lens.height / 2) * own).setYMag(lens.height / 2).setZNear(lens.near - back).setZFar(lens.far - back); // prettier-ignore
    if (back < 0) said.push(`${name} begins behind its eye, which glTF does not have: its node stands at near instead.`); // prettier-ignore
  }
  const [x, y] = lens.shift;
  if (x || y) said.push(`The lens shift of ${name} is left out: glTF has symmetric cameras alone.`);
  const bare = camera.position === position ? {} : { position: camera.position, near: lens.near, far: lens.far };
  made.setExtras({ ...(lens.far === null && { [endless]: true }), ...kept({ ...((x || y) && { shift: lens.shift }), ...(lens.aspect === null && { aspect: null }), ...bare }) }); // prettier-ignore
  return { made, position, said };
}

/** Where the nodes of cameras stand, by the ids of the cameras. */
type Places = Map<string, { readonly translation: Vec3; readonly rotation: Quat }>;

/** The triangles of a shape in its own space, as it is drawn. */
function trianglesOf(shape: Shape): { readonly positions: Float32Array; readonly indices: Uint32Array } {
  const { mesh, scale } = drawnMesh(shape, false);
  return {
    positions: Float32Array.from(mesh.positions, (v, i) => v * scale[i % 3]!),
    indices: Uint32Array.from(mesh.indices),
  };
}

/**
 * A scene as a glTF document, with what glTF cannot hold, a sentence each. `aspect` is that of the
 * viewport. Bodies become nodes in their tree, with the triangles that they are drawn with (positions
 * are floats there); cameras are nodes of the scene; courses animations, even between their times.
 */
function documentOf(
  { name, bodies, cameras, courses, through }: SceneFile,
  aspect: number,
): { readonly document: Document; readonly said: string[]; readonly places: Places } {
  // prettier-ignore
  const document = new Document();
  document.getRoot().getAsset().generator = 'Astrolabe';
  // A file without triangles and motions has no buffer.
  const buffer = bodies.some(({ shape }) => shape.kind !== 'point') || courses.length ? document.createBuffer() : null;
  const scene = document.createScene(name);
  document.getRoot().setDefaultScene(scene);
  const said: string[] = [];
  const material = document.createMaterial('Stone').setBaseColorFactor([0.73, 0.85, 0.85, 1]).setMetallicFactor(0).setRoughnessFactor(1); // prettier-ignore
  const meshes = new Map<Shape, ReturnType<Document['createMesh']>>();
  const meshOf = (shape: Shape, own: string) => {
    const known = meshes.get(shape);
    if (known) return known;
    const { positions, indices } = trianglesOf(shape);
    const primitive = document
      .createPrimitive()
      .setMaterial(material)
      .setAttribute('POSITION', document.createAccessor().setType('VEC3').setArray(positions).setBuffer(buffer))
      .setIndices(document.createAccessor().setType('SCALAR').setArray(indices).setBuffer(buffer));
    const made = document.createMesh(own).addPrimitive(primitive);
    meshes.set(shape, made);
    return made;
  };
  const nodes = new Map<string, Node>();
  const exact = new Set<string>();
  const places: Places = new Map();
  for (const { id, name: own, shape, position, rotation, scale } of bodies) {
    const node = document.createNode(own).setTranslation([...position]).setRotation([...rotation]).setScale([...scale]); // prettier-ignore
    if (shape.kind !== 'point') node.setMesh(meshOf(shape, own));
    node.setExtras(kept({ id, ...(shape.kind !== 'mesh' && { shape }) }));
    if (shape.kind === 'sphere') exact.add('Spheres');
    nodes.set(id, node);
  }
  for (const { id, parent } of bodies) (parent === null ? scene : nodes.get(parent)!).addChild(nodes.get(id)!);
  if (exact.size) said.push('Spheres are written with facets, as they are drawn; their radius is kept in the extras.');
  for (const camera of cameras) {
    const { made, position, said: own } = cameraOf(document, camera, aspect);
    said.push(...own);
    places.set(camera.id, { translation: position, rotation: quatOfBasis(camera) });
    const node = document.createNode(camera.name).setCamera(made).setTranslation([...position]).setRotation([...quatOfBasis(camera)]); // prettier-ignore
    node.setExtras(kept({ id: camera.id, ...(camera.id === through && { through: true }) }));
    scene.addChild(node);
    nodes.set(`camera ${camera.id}`, node);
  }
  if (courses.length) {
    const animation = document.createAnimation('Motion');
    for (const { of, id, times, positions, rotations } of courses) {
      const node = nodes.get(of === 'camera' ? `camera ${id}` : id);
      if (!node) continue;
      const input = document.createAccessor().setType('SCALAR').setArray(Float32Array.from(times)).setBuffer(buffer);
      for (const [path, type, values] of [
        ['translation', 'VEC3', positions],
        ['rotation', 'VEC4', rotations],
      ] as const) {
        const output = document.createAccessor().setType(type).setArray(Float32Array.from(values.flat())).setBuffer(buffer); // prettier-ignore
        const sampler = document.createAnimationSampler().setInput(input).setOutput(output).setInterpolation('LINEAR');
        animation.addSampler(sampler).addChannel(document.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler)); // prettier-ignore
      }
    }
  }
  return { document, said, places };
}

/** A scene as the text of a document and the bytes beside it. */
async function partsOf(scene: SceneFile, aspect: number) {
  const { document, said, places } = documentOf(scene, aspect);
  const { json, resources } = await new WebIO().writeJSON(document, { basename: 'scene' });
  // The library knows no far plane at infinity: that is one that is not said.
  for (const { extras, perspective } of json.cameras ?? []) if (perspective && (extras as Extras | undefined)?.[endless]) delete perspective.zfar; // prettier-ignore
  for (const camera of json.cameras ?? []) if (camera.extras) delete (camera.extras as Extras)[endless]; // prettier-ignore
  // Nor does it write what is nearly where nothing stands: every place is said in full.
  const idOf = (node: { extras?: unknown }) => (node.extras as { astrolabe: { id: string } }).astrolabe.id;
  const bodies = new Map(scene.bodies.map((body) => [body.id, body]));
  for (const node of json.nodes ?? []) {
    const body = node.camera === undefined ? bodies.get(idOf(node)) : undefined;
    if (body) Object.assign(node, { translation: body.position, rotation: body.rotation, scale: body.scale });
    const stands = node.camera === undefined ? undefined : places.get(idOf(node));
    if (stands) Object.assign(node, stands);
  }
  const [buffer] = json.buffers ?? [];
  const bytes = buffer?.uri ? resources[buffer.uri]! : null;
  if (buffer) delete buffer.uri;
  return { json, buffer, bytes, said };
}
/** Marks a camera whose far plane is at infinity, for as long as the library has it. */
const endless = 'astrolabeEndless';

/** A scene as .glb, one file of bytes (the specification's section 4.4); with what glTF cannot hold. */
export async function writeGlb(
  scene: SceneFile,
  aspect: number,
): Promise<{ readonly bytes: Uint8Array; readonly said: readonly string[] }> {
  // prettier-ignore
  const { json, bytes, said } = await partsOf(scene, aspect);
  const text = new TextEncoder().encode(JSON.stringify(json));
  const padded = (length: number) => 4 * Math.ceil(length / 4);
  const chunks = [
    { kind: 0x4e4f534a, bytes: text, filler: 0x20 },
    ...(bytes ? [{ kind: 0x004e4942, bytes, filler: 0 }] : []),
  ];
  const total = chunks.reduce((sum, chunk) => sum + 8 + padded(chunk.bytes.length), 12);
  const out = new Uint8Array(total);
  const view = new DataView(out.buffer);
  [0x46546c67, 2, total].forEach((v, i) => view.setUint32(4 * i, v, true));
  let at = 12;
  for (const { kind, bytes: own, filler } of chunks) {
    view.setUint32(at, padded(own.length), true);
    view.setUint32(at + 4, kind, true);
    out.fill(filler, at + 8, at + 8 + padded(own.length));
    out.set(own, at + 8);
    at += 8 + padded(own.length);
  }
  return { bytes: out, said };
}

/** A scene as .gltf, text that holds its buffers in itself; with what glTF cannot hold. */
export async function writeGltf(
  scene: SceneFile,
  aspect: number,
): Promise<{ readonly text: string; readonly said: readonly string[] }> {
  // prettier-ignore
  const { json, buffer, bytes, said } = await partsOf(scene, aspect);
  if (buffer && bytes) buffer.uri = `data:application/octet-stream;base64,${base64Of(bytes)}`;
  return { text: `${JSON.stringify(json, null, 1)}\n`, said };
}

export type ReadScene =
  | {
      readonly ok: true;
      readonly scene: SceneFile;
      /** What the file has besides, and was left. */
      readonly left: readonly string[];
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

const refuse = (message: string, path = ''): ReadScene => ({ ok: false, problems: [{ path, message }] });

/** The document of a file, or a sentence. */
async function documentIn(bytes: Uint8Array): Promise<Document | string> {
  const io = new WebIO();
  try {
    const own = isGlb(bytes) ? await io.binaryToJSON(bytes as Uint8Array<ArrayBuffer>) : { json: JSON.parse(new TextDecoder().decode(bytes)) as GLTF.IGLTF, resources: {} }; // prettier-ignore
    const { json } = own;
    if (!json.asset?.version?.startsWith('2.')) return `Its glTF is of version ${json.asset?.version ?? 'none'}, and 2.0 can be read.`; // prettier-ignore
    const loose = [...(json.buffers ?? [])].map(({ uri }) => uri).find((uri) => uri && !uri.startsWith('data:'));
    if (loose) return `It keeps its numbers in another file, ${loose}. Save it as .glb, or with its buffers embedded.`;
    const resources: Record<string, Uint8Array<ArrayBuffer>> = { ...own.resources };
    for (const camera of json.cameras ?? []) if (camera.perspective && camera.perspective.zfar === undefined) camera.extras = { ...(camera.extras as Extras), [endless]: true }; // prettier-ignore
    // Pictures play no part here; whatever they refer to is not fetched.
    delete json.images;
    delete json.textures;
    for (const material of json.materials ?? []) for (const name of Object.keys(material)) if (/texture|pbr/i.test(name)) delete material[name as 'normalTexture']; // prettier-ignore
    (json.buffers ?? []).forEach((buffer, i) => {
      if (!buffer.uri) return;
      const text = atob(buffer.uri.replace(/^[^,]*,/, ''));
      buffer.uri = `buffer-${i}.bin`;
      resources[buffer.uri] = Uint8Array.from(text, (letter) => letter.charCodeAt(0));
    });
    return await io.readJSON({ json, resources });
  } catch (error) {
    const { message } = error as Error;
    const [, extension] = /required extension,? "?([\w]+)/i.exec(message) ?? [];
    return extension
      ? `It needs the extension ${extension}, which is not read here. Save it without.`
      : `It could not be read as glTF: ${message}`;
  }
}

/** An own value beside what glTF says, where the file has been here before. */
const ownOf = (of: { getExtras(): Record<string, unknown> }): Record<string, unknown> => {
  const { astrolabe } = of.getExtras() as { astrolabe?: unknown };
  return typeof astrolabe === 'object' && astrolabe !== null ? (astrolabe as Record<string, unknown>) : {};
};

/** Triangles of the primitives of a node's mesh, one after another; null for none. */
function shapeOf(node: Node, left: Set<string>): Shape | null {
  const own = shapeSchema.safeParse(ownOf(node)['shape']);
  if (own.success) return own.data as Shape;
  const mesh = node.getMesh();
  if (!mesh) return null;
  const positions: number[] = [];
  const indices: number[] = [];
  for (const primitive of mesh.listPrimitives()) {
    const at = primitive.getAttribute('POSITION');
    if (!at) continue;
    const first = positions.length / 3;
    const mode = primitive.getMode();
    if (mode < 4) {
      left.add('lines and points');
      continue;
    }
    const element = [0, 0, 0];
    for (let i = 0; i < at.getCount(); i++) positions.push(...at.getElement(i, element));
    const given = primitive.getIndices();
    const order = given ? [...given.getArray()!] : Array.from({ length: at.getCount() }, (_, i) => i);
    // Triangles, a strip (every other turned over) or a fan.
    if (mode === 4) for (const i of order.slice(0, order.length - (order.length % 3))) indices.push(first + i);
    else
      for (let i = 2; i < order.length; i++)
        indices.push(...(mode === 6 ? [order[0]!, order[i - 1]!, order[i]!] : i % 2 ? [order[i - 1]!, order[i - 2]!, order[i]!] : [order[i - 2]!, order[i - 1]!, order[i]!]).map((k) => first + k)); // prettier-ignore
    for (const name of primitive.listSemantics()) if (name !== 'POSITION') left.add(name.startsWith('NORMAL') ? 'normals' : 'textures and colours'); // prettier-ignore
    if (primitive.listTargets().length) left.add('morph targets');
  }
  if (node.getSkin()) left.add('skins');
  return indices.length ? { kind: 'mesh', positions, indices } : null;
}

/** How a node is animated: its own values at any time, and the times of its keys. */
interface Animated {
  readonly times: readonly number[];
  at(time: number): { readonly translation: Vec3; readonly rotation: Quat };
}

const lerp = (a: readonly number[], b: readonly number[], t: number): number[] => a.map((v, i) => v + (b[i]! - v) * t);

/** The animations of a document by their nodes. */
function animatedNodes(document: Document, left: Set<string>): ReadonlyMap<Node, Animated> {
  interface Channel {
    readonly times: readonly number[];
    at(time: number): number[];
  }
  const channels = new Map<Node, { translation?: Channel; rotation?: Channel }>();
  for (const animation of document.getRoot().listAnimations())
    for (const channel of animation.listChannels()) {
      const [node, path, sampler] = [channel.getTargetNode(), channel.getTargetPath(), channel.getSampler()];
      const [input, output] = [sampler?.getInput(), sampler?.getOutput()];
      if (!node || !sampler || !input || !output) continue;
      if (path !== 'translation' && path !== 'rotation') {
        left.add(path === 'scale' ? 'motion in size' : 'moving weights');
        continue;
      }
      const times = Array.from({ length: input.getCount() }, (_, i) => input.getScalar(i));
      const kind = sampler.getInterpolation();
      const size = output.getElementSize();
      const value = (i: number): number[] => output.getElement(i, new Array<number>(size).fill(0));
      const key = (i: number) => value(kind === 'CUBICSPLINE' ? 3 * i + 1 : i);
      const at = (time: number): number[] => {
        const after = times.findIndex((t) => t > time);
        if (after === 0) return key(0);
        if (after < 0) return key(times.length - 1);
        const [i, j] = [after - 1, after];
        const span = times[j]! - times[i]!;
        const t = (time - times[i]!) / span;
        if (kind === 'STEP') return key(i);
        if (kind === 'LINEAR') return path === 'rotation' ? [...slerp(key(i) as unknown as Quat, key(j) as unknown as Quat, t)] : lerp(key(i), key(j), t); // prettier-ignore
        // Cubic Hermite by the tangents beside the values (appendix C of the specification).
        const [p, m, q, n] = [key(i), value(3 * i + 2), key(j), value(3 * j)];
        const [t2, t3] = [t * t, t * t * t];
        const out = p.map((v, k) => (2 * t3 - 3 * t2 + 1) * v + (t3 - 2 * t2 + t) * span * m[k]! + (3 * t2 - 2 * t3) * q[k]! + (t3 - t2) * span * n[k]!); // prettier-ignore
        return path === 'rotation' ? [...(normalizeQuat(out as unknown as Quat) ?? (p as unknown as Quat))] : out;
      };
      // Between the keys of a curve its way is followed by straight pieces, sixteen to each.
      const told = kind === 'CUBICSPLINE' ? times.flatMap((t, i) => (i ? Array.from({ length: 16 }, (_, k) => times[i - 1]! + ((t - times[i - 1]!) * (k + 1)) / 16) : [t])) : times; // prettier-ignore
      channels.set(node, { ...channels.get(node), [path]: { times: told, at } });
    }
  return new Map(
    [...channels].map(([node, { translation, rotation }]) => [
      node,
      {
        times: [...new Set([...(translation?.times ?? []), ...(rotation?.times ?? [])])].sort((a, b) => a - b),
        at: (time: number) => ({
          translation: (translation?.at(time) ?? node.getTranslation()) as unknown as Vec3,
          rotation: (rotation?.at(time) ?? node.getRotation()) as unknown as Quat,
        }),
      },
    ]),
  );
}

/** The transform from a node's own space to its parent's, from its parts. */
function local(translation: Vec3, rotation: Quat, scale: Vec3): Mat4 {
  const axes = ([[1, 0, 0], [0, 1, 0], [0, 0, 1]] as const).map((v, i) => rotateByQuat(rotation, v).map((c) => c * scale[i]!)); // prettier-ignore
  return mat4([0, 1, 2].flatMap((r) => [axes[0]![r]!, axes[1]![r]!, axes[2]![r]!, translation[r]!]).concat([0, 0, 0, 1])); // prettier-ignore
}

/** The chain from a node up to the scene, the node first. */
function chainOf(node: Node): Node[] {
  const chain = [node];
  for (let at = node.getParentNode(); at; at = at.getParentNode()) chain.push(at);
  return chain;
}

/** A node's transform to the world at a time, or at rest. */
function worldOf(node: Node, animated: ReadonlyMap<Node, Animated>, time: number | null): Mat4 {
  let m: Mat4 | null = null;
  for (const one of chainOf(node)) {
    const moving = time === null ? undefined : animated.get(one)?.at(time);
    const own = local(
      moving?.translation ?? (one.getTranslation() as unknown as Vec3),
      moving?.rotation ?? (one.getRotation() as unknown as Quat),
      one.getScale() as unknown as Vec3,
    );
    m = m ? multiply(own, m) : own;
  }
  return m!;
}

/** A camera's place and axes by its node's transform: what scale and shear leave of it. */
function standing(m: Mat4): { readonly position: Vec3; readonly basis: Basis } | null {
  const t = transpose(m);
  const column = (i: number): Vec3 => [t[4 * i]!, t[4 * i + 1]!, t[4 * i + 2]!];
  const [right, up, back] = [0, 1, 2].map((i) => normalize(column(i)));
  const basis = right && up && back ? repairBasis({ right, up, forward: negate(back) }) : null;
  return basis && { position: transformPoint(m, [0, 0, 0]), basis };
}

/** A lens as glTF has it, with what was kept beside it. */
function lensOf(camera: Camera): SceneLens | string {
  const { shift, aspect, near: ownNear, far: ownFar } = ownOf(camera) as { shift?: Vec2; aspect?: null; near?: number; far?: number }; // prettier-ignore
  const shape = { shift: Array.isArray(shift) && shift.length === 2 ? shift : ([0, 0] as const) };
  const [near, far] = [camera.getZNear(), camera.getZFar()];
  if (camera.getType() === 'perspective') {
    const ratio = camera.getAspectRatio();
    const fov = camera.getYFov();
    if (!(near > 0) || !(fov > 0 && fov < Math.PI)) return `The camera ${camera.getName()} has near ${near} and a field of view of ${fov} radians; near has to be above 0, the field of view between 0 and π.`; // prettier-ignore
    const end = camera.getExtras()[endless] ? null : far;
    if (end !== null && !(end > near)) return `The camera ${camera.getName()} has far at ${end} and near at ${near}; far has to be beyond near.`; // prettier-ignore
    return { kind: 'perspective', verticalFov: fov, near, far: end, aspect: aspect === null ? null : ratio, ...shape };
  }
  const [x, y] = [Math.abs(camera.getXMag()), Math.abs(camera.getYMag())];
  if (!(x > 0 && y > 0) || !(far > near)) return `The orthographic camera ${camera.getName()} has no extent: its magnifications are ${x} and ${y}, near ${near} and far ${far}.`; // prettier-ignore
  return { kind: 'orthographic', height: 2 * y, near: ownNear ?? near, far: ownFar ?? far, aspect: aspect === null ? null : x / y, ...shape }; // prettier-ignore
}

/** The most places that are kept of a way. */
const mostPlaces = 400;
/** So many of a list of times, the first and the last among them. */
const thinned = (times: readonly number[]): readonly number[] => times.length <= mostPlaces ? times : Array.from({ length: mostPlaces }, (_, i) => times[Math.round((i * (times.length - 1)) / (mostPlaces - 1))]!); // prettier-ignore

/**
 * The scene of a .glb or .gltf: its default scene, or the first. Nodes become bodies in their tree (those
 * without triangles points), cameras stand in the world by their nodes; animated places become courses.
 * What is not read is named; a file that cannot be read, or refers to others, is refused in a sentence.
 */
export async function readScene(bytes: Uint8Array, name: string): Promise<ReadScene> {
  const document = await documentIn(bytes);
  if (typeof document === 'string') return refuse(document);
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  if (!scene) return refuse('It has no scene.');
  const left = new Set<string>();
  if (root.listScenes().length > 1) left.add('other scenes');
  const animated = animatedNodes(document, left);
  const bodies: SceneBody[] = [];
  const cameras: SceneCamera[] = [];
  const courses: SceneCourse[] = [];
  const problems: Problem[] = [];
  let through: string | undefined;
  const names = unique();
  const cameraNames = unique();
  const visit = (node: Node, parent: string | null): void => {
    const camera = node.getCamera();
    const shape = shapeOf(node, left);
    const children = node.listChildren();
    let own = parent;
    if (!camera || shape || children.length) {
      const { id, name: called } = names(ownOf(node)['id'], node.getName() || node.getMesh()?.getName() || 'Node');
      own = id;
      bodies.push({
        ...{ id, name: called, parent, shape: shape ?? { kind: 'point' } },
        position: node.getTranslation() as unknown as Vec3,
        rotation: normalizeQuat(node.getRotation() as unknown as Quat) ?? [0, 0, 0, 1],
        scale: node.getScale() as unknown as Vec3,
      });
      const moving = animated.get(node);
      if (moving && moving.times.length > 1) {
        const times = thinned(moving.times);
        const all = times.map((t) => moving.at(t));
        courses.push({ of: 'body', id, times, positions: all.map((one) => one.translation), rotations: all.map((one) => one.rotation) }); // prettier-ignore
      }
    }
    if (camera) {
      const { id, name: called } = cameraNames(ownOf(node)['id'], node.getName() || camera.getName() || 'Camera');
      if (ownOf(node)['through'] === true) through ??= id;
      const lens = lensOf(camera);
      const place = standing(worldOf(node, animated, null));
      if (typeof lens === 'string') problems.push({ path: `nodes ${node.getName()}`, message: lens });
      else if (!place)
        problems.push({ path: `nodes ${node.getName()}`, message: 'The camera’s node is scaled to nothing. Give it a scale that is not 0.' }); // prettier-ignore
      else {
        const { position } = ownOf(camera) as { position?: Vec3 };
        cameras.push({ id, name: called, position: position ?? place.position, ...place.basis, lens });
        const times = thinned([...new Set(chainOf(node).flatMap((one) => animated.get(one)?.times ?? []))].sort((a, b) => a - b)); // prettier-ignore
        const places = times.map((t) => standing(worldOf(node, animated, t)) ?? place);
        if (times.length > 1) courses.push({ of: 'camera', id, times, positions: places.map((one) => one.position), rotations: places.map((one) => quatOfBasis(one.basis)) }); // prettier-ignore
      }
    }
    for (const child of children) visit(child, own);
  };
  for (const node of scene.listChildren()) visit(node, null);
  if (problems.length) return { ok: false, problems };
  if (!bodies.length && !cameras.length)
    return refuse('Its scene is empty: there are neither nodes nor cameras in it.');
  if (root.listMaterials().some((one) => one.getName() !== 'Stone')) left.add('materials');
  return {
    ok: true,
    scene: { name: scene.getName() || name, bodies, cameras, courses, ...(through !== undefined && { through }) },
    left: [...left].sort(),
  };
}

/** Ids and names that are each given once. */
function unique(): (wanted: unknown, name: string) => { readonly id: string; readonly name: string } {
  const [ids, taken] = [new Set<string>(), new Set<string>()];
  return (wanted, given) => {
    const slug = typeof wanted === 'string' && wanted ? wanted : given.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'node'; // prettier-ignore
    let [id, name] = [slug, given];
    for (let i = 2; ids.has(id); i++) id = `${slug}-${i}`;
    for (let i = 2; taken.has(name); i++) name = `${given}, ${i}`;
    ids.add(id);
    taken.add(name);
    return { id, name };
  };
}

/** A camera's angles along a course, radians: yaw goes on where it passes half a turn. */
export function anglesAlong(
  rotations: readonly Quat[],
): readonly { readonly yaw: number; readonly pitch: number; readonly roll: number }[] {
  // prettier-ignore
  let before = 0;
  return rotations.map((q, i) => {
    const { yaw, pitch, roll } = anglesOfBasis(basisOfQuat(q));
    const on = i ? yaw + 2 * Math.PI * Math.round((before - yaw) / (2 * Math.PI)) : yaw;
    before = on;
    return { yaw: on, pitch, roll };
  });
}

/** How far a course goes: of one that stays where it is, 0. */
export const wayOf = ({ positions }: SceneCourse): number => positions.reduce((sum, p, i) => (i ? sum + length(addScaled(p, positions[i - 1]!, -1)) : 0), 0); // prettier-ignore
