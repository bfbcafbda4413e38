import * as z from 'zod';
import { problemsOf } from '../core/compute/issues';
import type { Problem } from '../core/reasons';
import { mostTriangles, tooManyTriangles } from './size';

/*
 * The JSON of a glTF before anything is read by it: its shape, every index, and every count against the
 * bytes that hold it, so that a short file cannot ask for gigabytes.
 */

const index = z.int().nonnegative();
const count = z.int().positive();
const offset = z.int().nonnegative().default(0);
const numbers = (length: number) => z.array(z.number()).length(length);
const list = <T extends z.ZodType>(entry: T) => z.array(entry).optional();

const named = { name: z.string().optional() };

const componentBytes: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const components: Readonly<Record<string, number>> = {
  SCALAR: 1,
  VEC2: 2,
  VEC3: 3,
  VEC4: 4,
  MAT2: 4,
  MAT3: 9,
  MAT4: 16,
};

const componentType = z.int().refine((type) => type in componentBytes, 'one of 5120 to 5126 but 5124');
const accessor = z.looseObject({
  ...named,
  componentType,
  type: z.enum(Object.keys(components) as [string, ...string[]]),
  count,
  bufferView: index.optional(),
  byteOffset: offset,
  sparse: z
    .looseObject({
      count,
      indices: z.looseObject({ bufferView: index, byteOffset: offset, componentType }),
      values: z.looseObject({ bufferView: index, byteOffset: offset }),
    })
    .optional(),
});
const primitive = z.looseObject({
  attributes: z.record(z.string(), index),
  indices: index.optional(),
  mode: z.int().min(0).max(6).default(4),
});

const document = z.looseObject({
  asset: z.looseObject({ version: z.string() }),
  scene: index.optional(),
  scenes: list(z.looseObject({ ...named, nodes: list(index) })),
  nodes: list(
    z.looseObject({
      ...named,
      children: list(index),
      mesh: index.optional(),
      camera: index.optional(),
      skin: index.optional(),
      matrix: numbers(16).optional(),
      translation: numbers(3).optional(),
      rotation: numbers(4).optional(),
      scale: numbers(3).optional(),
    }),
  ),
  meshes: list(z.looseObject({ ...named, primitives: z.array(primitive) })),
  accessors: list(accessor),
  bufferViews: list(
    z.looseObject({
      buffer: index,
      byteOffset: offset,
      byteLength: count,
      byteStride: z.int().min(4).max(252).optional(),
    }),
  ),
  buffers: list(z.looseObject({ byteLength: count, uri: z.string().optional() })),
  cameras: list(
    z.looseObject({
      ...named,
      type: z.enum(['perspective', 'orthographic']),
      perspective: z.looseObject({ yfov: z.number(), znear: z.number(), zfar: z.number().optional() }).optional(),
      orthographic: z
        .looseObject({ xmag: z.number(), ymag: z.number(), znear: z.number(), zfar: z.number() })
        .optional(),
    }),
  ),
  animations: list(
    z.looseObject({
      ...named,
      channels: z.array(
        z.looseObject({ sampler: index, target: z.looseObject({ node: index.optional(), path: z.string() }) }),
      ),
      samplers: z.array(z.looseObject({ input: index, output: index, interpolation: z.string().optional() })),
    }),
  ),
  skins: list(
    z.looseObject({ joints: z.array(index), skeleton: index.optional(), inverseBindMatrices: index.optional() }),
  ),
  materials: list(z.looseObject(named)),
  extensionsUsed: list(z.string()),
  extensionsRequired: list(z.string()),
});
type Gltf = z.infer<typeof document>;

/** Elements that an accessor may have without bytes that hold them (they are all zero then). */
const mostZeros = 1_000_000;
/** The deepest tree of nodes. */
const deepest = 256;

/**
 * Checks the JSON of a glTF.
 *
 * @param given - any JSON value
 * @param byteLengths - bytes that are there for each buffer; undefined for a buffer in another file
 * @returns what is wrong, each with its place in the file; empty where the file can be read safely
 */
export function gltfProblems(given: unknown, byteLengths: readonly (number | undefined)[]): readonly Problem[] {
  const parsed = document.safeParse(given, { reportInput: true });
  if (!parsed.success) return problemsOf(parsed.error, 20);
  const gltf = parsed.data;
  const problems: Problem[] = [];
  const report = (path: string, message: string) => {
    if (problems.length < 20) problems.push({ path, message });
  };
  const within = (path: string, what: string, at: number | undefined, all: readonly unknown[] | undefined) => {
    const length = all?.length ?? 0;
    if (at === undefined || at < length) return true;
    report(path, `${path} is ${at}, and the file has ${length} ${what}. Give one of them, counted from 0.`);
    return false;
  };

  gltf.buffers?.forEach(({ byteLength }, i) => {
    const there = byteLengths[i];
    if (there !== undefined && byteLength > there)
      report(`buffers[${i}].byteLength`, `The buffer is said to have ${byteLength} bytes, and ${there} are there. The file may be cut off.`); // prettier-ignore
  });
  gltf.bufferViews?.forEach(({ buffer, byteOffset, byteLength }, i) => {
    const path = `bufferViews[${i}]`;
    if (!within(`${path}.buffer`, 'buffers', buffer, gltf.buffers)) return;
    const most = gltf.buffers![buffer]!.byteLength;
    if (byteOffset + byteLength > most)
      report(`${path}.byteLength`, `The view ends at byte ${byteOffset + byteLength} of a buffer of ${most}.`);
  });
  const fits = (path: string, view: number, from: number, elements: number, size: number) => {
    if (!within(`${path}.bufferView`, 'buffer views', view, gltf.bufferViews)) return;
    const { byteLength, byteStride } = gltf.bufferViews![view]!;
    const end = from + (byteStride ?? size) * (elements - 1) + size;
    if (end > byteLength)
      report(`${path}.count`, `${elements.toLocaleString('en')} elements end at byte ${end.toLocaleString('en')} of a view of ${byteLength.toLocaleString('en')}.`); // prettier-ignore
  };
  gltf.accessors?.forEach(({ count: elements, bufferView, byteOffset, sparse, componentType: type, type: form }, i) => {
    const path = `accessors[${i}]`;
    const size = componentBytes[type]! * components[form]!;
    if (bufferView !== undefined) fits(path, bufferView, byteOffset, elements, size);
    else if (elements > mostZeros)
      report(`${path}.count`, `${elements.toLocaleString('en')} elements have no buffer view that holds them, and ${mostZeros.toLocaleString('en')} can be read so.`); // prettier-ignore
    if (!sparse) return;
    if (sparse.count > elements)
      report(`${path}.sparse.count`, `${sparse.count} of ${elements} elements are replaced.`);
    fits(`${path}.sparse.indices`, sparse.indices.bufferView, sparse.indices.byteOffset, sparse.count, componentBytes[sparse.indices.componentType]!); // prettier-ignore
    fits(`${path}.sparse.values`, sparse.values.bufferView, sparse.values.byteOffset, sparse.count, size);
  });
  const triangles = (gltf.meshes ?? []).map(({ primitives }, m) =>
    primitives.reduce((sum, { attributes, indices, mode }, p) => {
      const path = `meshes[${m}].primitives[${p}]`;
      for (const [name, at] of Object.entries(attributes)) within(`${path}.attributes.${name}`, 'accessors', at, gltf.accessors); // prettier-ignore
      if (!within(`${path}.indices`, 'accessors', indices, gltf.accessors)) return sum;
      const elements = gltf.accessors?.[indices ?? attributes['POSITION'] ?? -1]?.count ?? 0;
      return sum + (mode < 4 ? 0 : mode === 4 ? Math.floor(elements / 3) : Math.max(0, elements - 2));
    }, 0),
  );
  checkNodes(gltf, within, report);
  const all = (gltf.nodes ?? []).reduce((sum, { mesh }) => sum + (mesh === undefined ? 0 : (triangles[mesh] ?? 0)), 0);
  if (all > mostTriangles) report('meshes', tooManyTriangles(all));
  gltf.animations?.forEach(({ channels, samplers }, a) => {
    const path = `animations[${a}]`;
    channels.forEach(({ sampler, target }, c) => {
      within(`${path}.channels[${c}].sampler`, 'samplers', sampler, samplers);
      within(`${path}.channels[${c}].target.node`, 'nodes', target.node, gltf.nodes);
    });
    samplers.forEach(({ input, output, interpolation }, s) => {
      if (!within(`${path}.samplers[${s}].input`, 'accessors', input, gltf.accessors)) return;
      if (!within(`${path}.samplers[${s}].output`, 'accessors', output, gltf.accessors)) return;
      const wanted = gltf.accessors![input]!.count * (interpolation === 'CUBICSPLINE' ? 3 : 1);
      const there = gltf.accessors![output]!.count;
      if (there < wanted)
        report(`${path}.samplers[${s}].output`, `Its ${gltf.accessors![input]!.count} times want ${wanted} values, and ${there} are there.`); // prettier-ignore
    });
  });
  return problems;
}

/** Checks that nodes are trees, and that what they and the scenes name is there. */
function checkNodes(
  { scene, scenes, nodes = [], meshes, cameras, skins }: Gltf,
  within: (path: string, what: string, at: number | undefined, all: readonly unknown[] | undefined) => boolean,
  report: (path: string, message: string) => void,
): void {
  within('scene', 'scenes', scene, scenes);
  scenes?.forEach((one, s) => one.nodes?.forEach((at, i) => within(`scenes[${s}].nodes[${i}]`, 'nodes', at, nodes)));
  const parents = new Map<number, number>();
  nodes.forEach(({ children = [], mesh, camera, skin }, n) => {
    const path = `nodes[${n}]`;
    within(`${path}.mesh`, 'meshes', mesh, meshes);
    within(`${path}.camera`, 'cameras', camera, cameras);
    within(`${path}.skin`, 'skins', skin, skins);
    children.forEach((child, i) => {
      if (!within(`${path}.children[${i}]`, 'nodes', child, nodes)) return;
      if (parents.has(child)) report(`${path}.children[${i}]`, `Node ${child} has two parents, ${parents.get(child)} and ${n}.`); // prettier-ignore
      parents.set(child, n);
    });
  });
  // From each node up: a way that is longer than any tree goes round in a circle, or is too deep.
  const depths = new Map<number, number>();
  for (let n = 0; n < nodes.length; n++) {
    const way: number[] = [];
    let at: number | undefined = n;
    while (at !== undefined && !depths.has(at) && way.length <= deepest) {
      way.push(at);
      at = parents.get(at);
    }
    if (way.length > deepest)
      return report(`nodes[${n}]`, `Nodes hang on one another more than ${deepest} deep, or in a circle.`);
    let depth = at === undefined ? 0 : depths.get(at)!;
    while (way.length) depths.set(way.pop()!, ++depth);
    if (depth > deepest) return report(`nodes[${n}]`, `Nodes hang on one another more than ${deepest} deep.`);
  }
}
