import { fitPoints } from '../core/camera/fit';
import { handednessOf } from '../core/conventions/axes';
import type { Conventions } from '../core/conventions/conventions';
import { codecOf } from '../core/conventions/codec';
import { addScaled, distance, type Vec3 } from '../core/math/vec3';
import { projectFrame } from './camera';
import type { ObjPart } from './obj';
import type { PointData } from './pointSets';
import { bodySchema, readProject, type ProjectBody, type ReadProject } from './project';
import { fitMargin, fittedCamera } from './fittedCamera';

/* Projects gathered from what has no camera of its own: a model, or a list of points. */

interface Common {
  readonly id: string;
  readonly name: string;
  /** Those in which the numbers stand. */
  readonly conventions: Conventions;
}

/** What a gathered project begins with; its camera is fitted once it is known what is there. */
const common = ({ id, name, conventions }: Common) => ({
  ...{ astrolabeProject: 1, id, name, unit: 'units', conventions },
  viewport: { width: 1280, height: 720, devicePixelRatio: 1 },
});

/** Seen from the front, a little from the right and from above, everything in the picture. */
export function seenWhole(read: ReadProject, points: readonly Vec3[]): ReadProject {
  if (!read.ok || read.project.camera.kind !== '3d') return read;
  const { project } = read;
  const camera = read.project.camera;
  const [low, high] = boxOf(points);
  const extent = distance(low, high);
  const magnitude = Math.max(...low.map(Math.abs), ...high.map(Math.abs));
  // What has no size to speak of where it lies is looked at as if it had some.
  const bare = !(extent > 1e-6 * Math.max(magnitude, 1e-3));
  const some = Math.max(1, magnitude / 100);
  const size = bare ? 2 * some : extent;
  const seen = bare ? [-some, some].map((d) => addScaled(low, [1, 1, 1], d)) : points;
  const made = projectFrame(project, codecOf(project.conventions));
  const fit = made.ok ? fitPoints(made.value, seen, fitMargin) : null;
  if (!made.ok || !fit) return read;
  const near = Number((size * 0.01).toPrecision(1));
  const far = Number((Math.max(fit.ahead[1], size) * 4).toPrecision(1));
  const fitted = fittedCamera({ ...camera, projection: { ...camera.projection, near, far } }, made.value, fit);
  const ahead = (fit.ahead[0] + fit.ahead[1]) / 2;
  const target = addScaled(fitted.position, made.value.forward, ahead);
  return readProject({
    ...project,
    camera: { ...fitted, orientation: { kind: 'lookAt', target } },
    back: { ...project.back, value: ahead },
  });
}

/** The least and the greatest of each coordinate. */
function boxOf(points: readonly Vec3[]): readonly [Vec3, Vec3] {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ] as [[number, number, number], [number, number, number]];
  for (const p of points)
    for (const i of [0, 1, 2] as const) {
      low[i] = Math.min(low[i], p[i]);
      high[i] = Math.max(high[i], p[i]);
    }
  return [low, high];
}

/** Where a gathered project's camera looks from, before it is fitted. */
const outlook = {
  name: 'Camera',
  position: [0, 0, 0],
  orientation: { kind: 'lookAt', target: [-0.45, -0.35, -1] },
  projection: { kind: 'perspective', verticalFov: 40, near: 0.1, far: 1000 },
};

/**
 * A project from the parts of a model, a body a part, its numbers read by the conventions given. In
 * left-handed axes the same numbers are the mirrored thing, so triangles are turned over: what was
 * outside stays outside. `fallback` names a part that has no name.
 */
export function projectFromModel(parts: readonly ObjPart[], fallback: string, given: Common): ReadProject {
  const e = codecOf(given.conventions);
  const mirrored = handednessOf(given.conventions.world) === 'left';
  const all: Vec3[] = [];
  const nameOf = unique();
  const bodies = parts.map(({ name, positions, indices }) => {
    const points = Array.from({ length: positions.length / 3 }, (_, i) =>
      e.fromWorld([positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!]),
    );
    for (const p of points) all.push(p);
    const [low, high] = boxOf(points);
    const centre = low.map((v, i) => v / 2 + high[i]! / 2);
    return {
      ...nameOf(name || fallback),
      shape: {
        kind: 'mesh',
        positions: points.flatMap((p) => p.map((v, i) => v - centre[i]!)),
        indices: mirrored ? indices.map((_, i) => indices[i % 3 === 0 ? i : i % 3 === 1 ? i + 1 : i - 1]!) : indices,
      },
      position: centre,
    };
  });
  const project = readProject({
    ...common(given),
    camera: outlook,
    bodies,
    probe: { body: bodies[0]!.id, drive: { rung: 'local', value: [0, 0, 0] } },
    back: { pixel: [640, 360], route: 'ahead', value: 1 },
  });
  return seenWhole(project, all);
}

/** So many points are bodies of their own, to be seen, named and fitted; more are a table alone. */
export const mostPointBodies = 2000;

/** Points as bodies, one each by its name or number; none where they are too many. */
export function bodiesOfPoints({ points, names }: PointData): ProjectBody[] {
  const count = points.length / 3;
  if (count > mostPointBodies) return [];
  const nameOf = unique();
  return Array.from({ length: count }, (_, i) =>
    bodySchema.parse({
      ...nameOf(names?.[i]?.trim() || `Point ${i + 1}`),
      ...{
        shape: { kind: 'point' },
        position: [points[3 * i], points[3 * i + 1], points[3 * i + 2]],
        castsShadow: false,
      },
    }),
  );
}

/**
 * A project from points of canonical world space, x, y, z after one another: a body a point, where
 * they are not too many.
 */
export function projectFromPoints(
  points: Float64Array,
  names: readonly string[] | null,
  flat: boolean,
  given: Common,
): ReadProject {
  const all = Array.from({ length: points.length / 3 }, (_, i): Vec3 => [points[3 * i]!, points[3 * i + 1]!, points[3 * i + 2]!]); // prettier-ignore
  const bodies = bodiesOfPoints({ points, names });
  const rest = {
    ...common(given),
    bodies,
    probe: bodies[0]
      ? { body: bodies[0].id, drive: { rung: 'local', value: [0, 0, 0] } }
      : { body: null, drive: { rung: 'world', value: all[0] } },
    back: { pixel: [640, 360], route: 'ahead', value: flat ? 0 : 1 },
  };
  if (!flat) return seenWhole(readProject({ ...rest, camera: outlook }), all);
  const [low, high] = boxOf(all);
  const most = Math.min(1280 / (high[0] - low[0]), 720 / (high[1] - low[1])) * (1 - fitMargin);
  const zoom = most < 1e6 ? Number(most.toPrecision(4)) : 1;
  return readProject({
    ...rest,
    camera: {
      ...{ kind: '2d', name: 'Camera', focus: [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2], anchor: [640, 360] },
      zoom,
    },
  });
}

/** Names and ids, each once: a name that comes again is numbered. */
function unique(): (name: string) => { id: string; name: string } {
  const names = new Map<string, number>();
  const ids = new Set<string>();
  return (given) => {
    const count = (names.get(given) ?? 0) + 1;
    names.set(given, count);
    const name = count === 1 ? given : `${given}, ${count}`;
    const slug = name.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'body'; // prettier-ignore
    let id = slug;
    for (let i = 2; ids.has(id); i++) id = `${slug}-${i}`;
    ids.add(id);
    return { id, name };
  };
}
