import { nearestKey } from './issues';
import { requestShape, type SchemaNode } from './requestShape';

/* Keys that a wrong key of a request was probably meant to be: those of its place, and the trade's words for them. */

/** Words of the trade for keys, in lower case without signs. */
const synonyms: Readonly<Record<string, readonly string[]>> = {
  verticalFov: ['fov', 'fovy', 'vfov', 'yfov', 'fieldofview', 'fovdegrees', 'fovradians', 'verticalfieldofview'],
  horizontalFov: ['fovx', 'hfov', 'xfov', 'horizontalfieldofview'],
  diagonalFov: ['dfov', 'fovdiagonal'],
  lookAt: ['lookat', 'target', 'center', 'centre', 'at', 'interest', 'lookatpoint'],
  position: ['eye', 'pos', 'from', 'location', 'origin', 'translation', 'camerapos'],
  near: ['znear', 'nearplane', 'nearclip', 'clipnear', 'nearz', 'n'],
  far: ['zfar', 'farplane', 'farclip', 'clipfar', 'farz', 'f'],
  aspect: ['aspectratio', 'ratio'],
  height: ['orthosize', 'orthoheight', 'size', 'orthographicsize', 'h'],
  width: ['orthowidth', 'w'],
  yaw: ['heading', 'azimuth', 'pan'],
  pitch: ['elevation', 'tilt'],
  roll: ['bank'],
  quaternion: ['quat', 'rotation', 'orientation'],
  forward: ['front', 'dir', 'direction', 'back'],
  projection: ['proj', 'lens'],
  orientation: ['rotation', 'rot'],
  shape: ['geometry', 'collider', 'type'],
  focalLength: ['focal', 'focallengthmm'],
  sensorHeight: ['sensor', 'filmheight'],
  queries: ['questions', 'ops', 'operations', 'requests'],
  bodies: ['objects', 'entities', 'nodes'],
  op: ['operation', 'type', 'name', 'query'],
  zoom: ['pixelsperunit', 'ppu'],
  focus: ['target', 'lookat', 'position', 'centre', 'center'],
};

let root: SchemaNode | null = null;
const resolve = (node: SchemaNode): SchemaNode =>
  node.$ref ? resolve((root!.$defs ?? {})[node.$ref.replace(/^.*\//, '')] ?? {}) : node;

/** The branches of a node that a value may be of: those whose constants it has, or all. */
function branches(node: SchemaNode, value: unknown): readonly SchemaNode[] {
  const own = resolve(node);
  const options = own.anyOf ?? own.oneOf;
  if (!options) return [own];
  const all = options.flatMap((option) => branches(option, value)).filter(({ properties }) => properties);
  const fields = (typeof value === 'object' && value !== null ? value : {}) as Readonly<Record<string, unknown>>;
  const matching = all.filter(({ properties }) =>
    Object.entries(properties!).every(([key, one]) => {
      const { const: constant } = resolve(one);
      return constant === undefined || fields[key] === constant;
    }),
  );
  return matching.length ? matching : all;
}

/** Returns the keys that a request may have at the place of one of its keys. */
export function keysAt(given: unknown, path: string): readonly string[] {
  root ??= requestShape();
  const steps = path.match(/[^.[\]]+/g) ?? [];
  let nodes = branches(root, given);
  let value = given;
  for (const step of steps.slice(0, -1)) {
    value = (value as Readonly<Record<string, unknown>> | null | undefined)?.[step];
    nodes = nodes.flatMap((node) => {
      const inner = /^\d+$/.test(step) ? node.items : node.properties?.[step];
      return inner ? branches(inner, value) : [];
    });
  }
  return [...new Set(nodes.flatMap((node) => Object.keys(node.properties ?? {})))];
}

/**
 * Suggests what a key that is not known at its place was meant to be.
 *
 * @param path - where the key is, as problems write it
 * @returns a key of that place, or null
 */
export function suggestedKey(given: unknown, path: string): string | null {
  const wrong = path.slice(path.lastIndexOf('.') + 1);
  const keys = keysAt(given, path);
  const bare = wrong.toLowerCase().replace(/[^a-z]/g, '');
  const meant = keys.find((key) => synonyms[key]?.includes(bare));
  return meant ?? nearestKey(wrong, keys);
}
