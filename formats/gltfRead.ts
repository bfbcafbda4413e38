import { shapeSchema } from '../core/request/shapes';
import { WebIO, type Camera, type Document, type GLTF, type Node } from '@gltf-transform/core';
import { localTransform, type Shape } from '../core/bodies/body';
import { quatOfBasis, repairBasis, type Basis } from '../core/camera/orientation';
import { normalizeQuat, type Quat } from '../core/math/quat';
import { multiply, transformPoint, transpose, type Mat4 } from '../core/math/mat4';
import { negate, normalize, type Vec2, type Vec3 } from '../core/math/vec3';
import { slerp } from '../core/motion/path';
import type { Problem } from '../core/reasons';
import { isGlb } from './glb';
import { gltfProblems } from './gltfCheck';
import { endless, ownOf, type Extras } from './gltfExtras';
import type { SceneBody, SceneCamera, SceneCourse, SceneFile, SceneLens } from './scene';

/* Scenes from glTF 2.0 (registry.khronos.org/glTF/specs/2.0), whoever wrote it. */

export type ReadScene =
  | {
      readonly ok: true;
      readonly scene: SceneFile;
      /** What the file has besides, and was left. */
      readonly left: readonly string[];
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

const refuse = (message: string, path = ''): ReadScene => ({ ok: false, problems: [{ path, message }] });

/** The document of a file, or what is wrong with it. */
async function documentIn(bytes: Uint8Array): Promise<Document | readonly Problem[]> {
  const io = new WebIO();
  const refused = (message: string): readonly Problem[] => [{ path: '', message }];
  try {
    const own = isGlb(bytes) ? await io.binaryToJSON(bytes as Uint8Array<ArrayBuffer>) : { json: JSON.parse(new TextDecoder().decode(bytes)) as GLTF.IGLTF, resources: {} }; // prettier-ignore
    const { json } = own;
    const version = (json as Partial<GLTF.IGLTF> | null)?.asset?.version;
    if (typeof version !== 'string' || !version.startsWith('2.')) return refused(`Its glTF is of version ${typeof version === 'string' ? version : 'none'}, and 2.0 can be read.`); // prettier-ignore
    const buffers = Array.isArray(json.buffers) ? json.buffers : [];
    const loose = buffers.map((one) => one?.uri).find((uri) => typeof uri === 'string' && !uri.startsWith('data:'));
    if (loose) return refused(`It keeps its numbers in another file, ${loose}. Save it as .glb, or with its buffers embedded.`); // prettier-ignore
    const resources: Record<string, Uint8Array<ArrayBuffer>> = { ...own.resources };
    const lengths = buffers.map((buffer, i) => {
      // The buffer without an address is the binary chunk.
      if (typeof buffer?.uri !== 'string') return Object.values(own.resources)[0]?.byteLength ?? 0;
      const text = atob(buffer.uri.replace(/^[^,]*,/, ''));
      buffer.uri = `buffer-${i}.bin`;
      resources[buffer.uri] = Uint8Array.from(text, (letter) => letter.charCodeAt(0));
      return text.length;
    });
    const problems = gltfProblems(json, lengths);
    if (problems.length) return problems;
    for (const camera of json.cameras ?? []) if (camera.perspective && camera.perspective.zfar === undefined) camera.extras = { ...(camera.extras as Extras), [endless]: true }; // prettier-ignore
    // Pictures play no part here; whatever they refer to is not fetched.
    delete json.images;
    delete json.textures;
    for (const material of json.materials ?? []) for (const name of Object.keys(material)) if (/texture|pbr/i.test(name)) delete material[name as 'normalTexture']; // prettier-ignore
    return await io.readJSON({ json, resources });
  } catch (error) {
    const { message } = error as Error;
    const [, extension] = /required extension,? "?([\w]+)/i.exec(message) ?? [];
    return refused(
      extension
        ? `It needs the extension ${extension}, which is not read here. Save it without.`
        : `It could not be read as glTF: ${message}`,
    );
  }
}

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
    const own = localTransform({
      position: moving?.translation ?? (one.getTranslation() as unknown as Vec3),
      rotation: moving?.rotation ?? (one.getRotation() as unknown as Quat),
      scale: one.getScale() as unknown as Vec3,
    });
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
  if (!('getRoot' in document)) return { ok: false, problems: document };
  try {
    return sceneIn(document, name);
  } catch (error) {
    return refuse(`It could not be read as glTF: ${(error as Error).message}`);
  }
}

function sceneIn(document: Document, name: string): ReadScene {
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

/** Ids and names that are each given once; equal ones are numbered from where the last was. */
function unique(): (wanted: unknown, name: string) => { readonly id: string; readonly name: string } {
  const ids = numbering((slug, i) => `${slug}-${i}`);
  const names = numbering((given, i) => `${given}, ${i}`);
  return (wanted, given) => {
    const slug = typeof wanted === 'string' && wanted ? wanted : given.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'node'; // prettier-ignore
    return { id: ids(slug), name: names(given) };
  };
}

/** Returns a text that was not returned before: the wanted one, or a numbered one. */
function numbering(numbered: (text: string, i: number) => string): (wanted: string) => string {
  const taken = new Set<string>();
  const next = new Map<string, number>();
  return (wanted) => {
    let text = wanted;
    let i = next.get(wanted) ?? 2;
    while (taken.has(text)) text = numbered(wanted, i++);
    next.set(wanted, i);
    taken.add(text);
    return text;
  };
}
