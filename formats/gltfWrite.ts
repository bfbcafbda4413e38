import { Document, WebIO, type Camera, type Node } from '@gltf-transform/core';
import type { Shape } from '../core/bodies/body';
import { drawnMesh } from '../core/bodies/mesh';
import { quatOfBasis } from '../core/camera/orientation';
import type { Quat } from '../core/math/quat';
import { addScaled, type Vec3 } from '../core/math/vec3';
import { base64Of } from './base64';
import { glbOf } from './glb';
import { endless, kept, type Extras } from './gltfExtras';
import type { SceneCamera, SceneFile } from './scene';

/*
 * Scenes as glTF 2.0 (registry.khronos.org/glTF/specs/2.0). Its world is the canonical one
 * (right-handed, +y up, a camera looks along −z), its lengths metres, its angles radians. What it cannot
 * hold goes out under `extras.astrolabe`, so that it comes back here, and is said.
 */

function cameraOf(
  document: Document,
  camera: SceneCamera,
  aspect: number,
): { readonly made: Camera; readonly position: Vec3; readonly said: readonly string[] } {
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
  const places: Places = new Map();
  for (const { id, name: own, shape, position, rotation, scale } of bodies) {
    const node = document.createNode(own).setTranslation([...position]).setRotation([...rotation]).setScale([...scale]); // prettier-ignore
    if (shape.kind !== 'point') node.setMesh(meshOf(shape, own));
    node.setExtras(kept({ id, ...(shape.kind !== 'mesh' && { shape }) }));
    nodes.set(id, node);
  }
  for (const { id, parent } of bodies) (parent === null ? scene : nodes.get(parent)!).addChild(nodes.get(id)!);
  if (bodies.some(({ shape }) => shape.kind === 'sphere'))
    said.push('Spheres are written with facets, as they are drawn; their radius is kept in the extras.');
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
/** A scene as .glb, one file of bytes; with what glTF cannot hold. */
export async function writeGlb(
  scene: SceneFile,
  aspect: number,
): Promise<{ readonly bytes: Uint8Array; readonly said: readonly string[] }> {
  const { json, bytes, said } = await partsOf(scene, aspect);
  return { bytes: glbOf(JSON.stringify(json), bytes), said };
}

/** A scene as .gltf, text that holds its buffers in itself; with what glTF cannot hold. */
export async function writeGltf(
  scene: SceneFile,
  aspect: number,
): Promise<{ readonly text: string; readonly said: readonly string[] }> {
  const { json, buffer, bytes, said } = await partsOf(scene, aspect);
  if (buffer && bytes) buffer.uri = `data:application/octet-stream;base64,${base64Of(bytes)}`;
  return { text: `${JSON.stringify(json, null, 1)}\n`, said };
}
