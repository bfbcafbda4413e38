import { meshProblems, placeBodies, type Body, type PlacedBody } from '../bodies/body';
import { frameOf, type Camera, type CameraFrame, type Viewport } from '../camera/frame';
import { projectPoint } from '../convert/project';
import type { Orientation } from '../camera/orientation';
import type { Lens, Projection } from '../camera/projection';
import { axesAreDistinct } from '../conventions/axes';
import type { Conventions } from '../conventions/conventions';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import { normalizeQuat } from '../math/quat';
import type { Vec2, Vec3 } from '../math/vec3';
import type { Checked, Problem } from '../reasons';
import { largest } from './limits';
import { trackOf, trackProblems } from './trackOf';
import type { Query, ReadRequest, RequestBody, RequestCamera, RequestCamera2d, RequestProjection } from './schema';
import { orthographicOf } from '../camera/camera2d';

/** A request in canonical space: what every operation works from. */
export interface ResolvedRequest {
  readonly codec: ConventionCodec;
  readonly frame: CameraFrame;
  /** A 2D camera on a flat world: points are pairs, bodies are flat, near and far play no part. */
  readonly flat: boolean;
  readonly camera: RequestCamera | RequestCamera2d;
  readonly bodies: readonly Body[];
  readonly placed: readonly PlacedBody[];
  readonly queries: readonly Query[];
}

type Read<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };
const refuse = (...problems: Problem[]): { ok: false; problems: Problem[] } => ({ ok: false, problems });

/** Conventions whose numbers are right each for itself, checked together (paths below `at`). */
export function readConventions(conventions: Conventions, at = 'conventions'): Read<ConventionCodec> {
  const problems: Problem[] = [];
  for (const space of ['world', 'view'] as const) {
    const { right, up, forward } = conventions[space];
    if (!axesAreDistinct(conventions[space]))
      problems.push({
        path: `${at}.${space}`,
        code: 'axesNotDistinct',
        message: `The ${space} axes ${right}, ${up}, ${forward} use a letter twice. Name x, y and z once each.`,
      });
  }
  const { near, far } = conventions.ndc;
  if (Math.abs(near - far) < 1 / largest)
    problems.push({
      path: `${at}.ndc.far`,
      message:
        near === far
          ? `NDC near and far are both ${near}, so no depth could be told from another. Make them differ.`
          : `NDC near and far, ${near} and ${far}, differ by less than 1e-30, which is too little to divide by. Move them apart.`,
    });
  return problems.length ? { ok: false, problems } : { ok: true, value: codecOf(conventions) };
}

function readOrientation(given: RequestCamera['orientation'], e: ConventionCodec): Read<Orientation> {
  if ('lookAt' in given)
    return {
      ok: true,
      value: { kind: 'lookAt', target: e.fromWorld(given.lookAt), ...(given.up && { up: e.fromWorld(given.up) }) },
    };
  if ('yaw' in given) return { ok: true, value: { kind: 'angles', ...e.fromAngles(given) } };
  if ('quaternion' in given) {
    const path = 'camera.orientation.quaternion';
    const unit = normalizeQuat(given.quaternion);
    if (!unit)
      return refuse({
        path,
        code: 'quaternionZero',
        message: 'The quaternion has no length. The identity is [0, 0, 0, 1].',
      });
    const basis = e.fromQuaternion(unit);
    if (!basis)
      return refuse({
        path,
        code: 'quaternionNeedsOneHandedness',
        message: `The world is ${e.handedness.world}-handed and the view ${e.handedness.view}-handed; no rotation leads from one to the other. Give right, up and forward instead.`,
      });
    return { ok: true, value: { kind: 'basis', ...basis } };
  }
  return {
    ok: true,
    value: {
      kind: 'basis',
      right: e.fromWorld(given.right),
      up: e.fromWorld(given.up),
      forward: e.fromWorld(given.forward),
    },
  };
}

function exactlyOne(given: object, fields: readonly string[], what: string): Read<string> {
  const present = fields.filter((field) => (given as Record<string, unknown>)[field] !== undefined);
  if (present.length === 1) return { ok: true, value: present[0]! };
  const path = `camera.projection${present[1] ? `.${present[1]}` : ''}`;
  return refuse({
    path,
    message: present.length
      ? `${present.join(' and ')} both say ${what}. Keep one of them.`
      : `Nothing says ${what}. Give one of ${fields.join(', ')}.`,
  });
}

function readProjection(given: RequestProjection, e: ConventionCodec): Read<Projection> {
  if (given.kind === 'frustum') return { ok: true, value: given };
  const shaped = {
    ...(given.aspect !== undefined && { aspect: given.aspect }),
    ...(given.shift && { shift: given.shift }),
  };
  if (given.kind === 'orthographic') {
    const one = exactlyOne(given, ['height', 'width'], 'how large the picture is');
    if (!one.ok) return one;
    const size = one.value === 'height' ? { height: given.height! } : { width: given.width! };
    return { ok: true, value: { kind: 'orthographic', near: given.near, far: given.far, size, ...shaped } };
  }
  const one = exactlyOne(
    given,
    ['verticalFov', 'horizontalFov', 'diagonalFov', 'focalLength'],
    'how wide the camera sees',
  );
  if (!one.ok) return one;
  if (one.value === 'focalLength' && given.sensorHeight === undefined)
    return refuse({
      path: 'camera.projection.sensorHeight',
      message: 'sensorHeight is missing; a focal length says an angle only together with it.',
    });
  const lens = (
    one.value === 'focalLength'
      ? { focalLength: given.focalLength!, sensorHeight: given.sensorHeight! }
      : { [one.value]: e.fromAngle((given as unknown as Record<string, number>)[one.value]!) }
  ) as Lens;
  return { ok: true, value: { kind: 'perspective', near: given.near, far: given.far, lens, ...shaped } };
}

/**
 * A request's camera in canonical space, or what is wrong with its form; whether its numbers go
 * together `frameOf` says.
 */
export function readCamera(given: RequestCamera, e: ConventionCodec): Read<Camera> {
  const orientation = readOrientation(given.orientation, e);
  const projection = readProjection(given.projection, e);
  if (orientation.ok && projection.ok)
    return {
      ok: true,
      value: { position: e.fromWorld(given.position), orientation: orientation.value, projection: projection.value },
    };
  return refuse(...(orientation.ok ? [] : orientation.problems), ...(projection.ok ? [] : projection.problems));
}

/** A pair of a 2D world as a point of the canonical plane, and back. */
export const readPair = (pair: Vec2, e: ConventionCodec): Vec3 => [...e.fromPair('up', pair), 0];
/** A point of a flat world (canonical right and up) as the pair that the conventions write. */
export const writePair = (p: Vec3, e: ConventionCodec): [number, number] => [...e.toPair('up', [p[0], p[1]])];

/**
 * A 2D camera as the orthographic one that it equals, its translation snapped to whole pixels of
 * the request's screen if it asks for that.
 */
export function readCamera2d(given: RequestCamera2d, viewport: Viewport, e: ConventionCodec): Read<Camera> {
  if (!(given.zoom > 0))
    return refuse({
      path: 'camera.zoom',
      code: 'zoomNotPositive',
      message: `zoom is ${given.zoom}; it is pixels per world unit and must be above 0.${
        given.zoom < 0 ? ' A world whose y grows downward says so with its up axis.' : ''
      }`,
    });
  const [a, b] = readPair(given.focus, e);
  const anchored = (shift: readonly [number, number]) => {
    const at: [number, number] = [given.anchor[0] + shift[0], given.anchor[1] + shift[1]];
    return orthographicOf(
      { focus: [a, b], anchor: e.fromScreen(viewport, at), zoom: given.zoom, rotation: e.fromAngle(given.rotation) },
      viewport,
    );
  };
  const camera = anchored([0, 0]);
  const frame = given.snap === 'none' ? null : frameOf(camera, viewport);
  if (!frame?.ok) return { ok: true, value: camera };
  // The translation is where the world's origin lands.
  const origin = projectPoint(frame.value, [0, 0, 0]).picture;
  if (!origin.ok) return { ok: true, value: camera };
  const t = e.toScreen(viewport, origin.value.across, origin.value.upward);
  const whole = (v: number) => Math.floor(given.snap === 'round' ? v + 0.5 : v);
  return { ok: true, value: anchored([whole(t[0]) - t[0], whole(t[1]) - t[1]]) };
}

/** A point of the request in canonical space: a pair in a 2D world, three numbers otherwise. */
export function readPoint(given: readonly number[], path: string, e: ConventionCodec, flat: boolean): Read<Vec3> {
  if (flat === (given.length === 2))
    return {
      ok: true,
      value: flat ? readPair([given[0]!, given[1]!], e) : e.fromWorld([given[0]!, given[1]!, given[2]!]),
    };
  return refuse({
    path,
    message: flat
      ? 'With a 2D camera a point is a pair: the world’s coordinates to the right and up.'
      : 'A point has three coordinates, x, y and z.',
  });
}

/** A request's body in canonical space, or what is wrong with it (paths below `bodies[index]`). */
export function readBody(given: RequestBody, index: number, e: ConventionCodec, flat = false): Read<Body> {
  const at = `bodies[${index}]`;
  const position = readPoint(given.position, `${at}.position`, e, flat);
  if (!position.ok) return position;
  const rotation = normalizeQuat(given.rotation ?? [0, 0, 0, 1]);
  if (!rotation)
    return refuse({
      path: `${at}.rotation`,
      code: 'quaternionZero',
      message: `The rotation of “${given.id}” has no length. The identity is [0, 0, 0, 1].`,
    });
  const scale: Vec3 =
    typeof given.scale === 'number' ? [given.scale, given.scale, given.scale] : (given.scale ?? [1, 1, 1]);
  if (given.shape.kind === 'box' && given.shape.size.length === 2 && !flat)
    return refuse({ path: `${at}.shape.size`, message: 'A box has three sizes, along x, y and z.' });
  let shape = given.shape as Body['shape'];
  if (given.shape.kind === 'box') {
    const [x, y, z] = given.shape.size;
    // Two sizes are those to the right and up; the third plays no part in a flat world.
    shape = { kind: 'box', size: z === undefined ? [x, y, 1] : e.fromSizes([x, y, z]) };
  }
  if (shape.kind === 'mesh') {
    const { positions, indices } = shape;
    const problems = meshProblems(shape, `${at}.shape`);
    if (problems.length) return refuse(...problems);
    const moved: number[] = [];
    for (let i = 0; i < positions.length; i += 3)
      moved.push(...e.fromWorld([positions[i]!, positions[i + 1]!, positions[i + 2]!]));
    shape = { kind: 'mesh', positions: moved, indices };
  }
  return {
    ok: true,
    value: {
      id: given.id,
      shape,
      position: position.value,
      rotation: e.fromRotation(rotation),
      scale: e.fromSizes(scale),
      parent: given.parent ?? null,
      castsShadow: given.castsShadow ?? true,
    },
  };
}

/** The other camera of a comparison, on its own viewport or the request's. */
export function readOther(
  { camera, viewport }: Extract<Query, { op: 'compareCameras' }>,
  own: { readonly codec: ConventionCodec; readonly viewport: Viewport },
): Read<CameraFrame> {
  if ('kind' in camera)
    return refuse({ path: 'camera', message: 'The other camera is one of space too, with position, orientation and projection.' }); // prettier-ignore
  const read = readCamera(camera, own.codec);
  if (!read.ok) return read;
  const frame = frameOf(read.value, viewport ?? own.viewport);
  return frame.ok ? { ok: true, value: frame.value } : { ok: false, problems: [...frame.problems] };
}

/** What is wrong with queries that only the whole request can tell. */
function queryProblems(queries: readonly Query[], e: ConventionCodec, flat: boolean, viewport: Viewport): Problem[] {
  return queries.flatMap((query, i) => {
    const going = trackOf(query);
    const point = (given: readonly number[], path: string) => {
      const read = readPoint(given, path, e, flat);
      return read.ok ? [] : read.problems;
    };
    const along = going ? trackProblems(going.track, `queries[${i}].${going.at}`, flat, point) : [];
    if (along.length) return along;
    if (query.op === 'worldToScreen' || query.op === 'firstSeen')
      return query.points.flatMap((p, j) => {
        if (flat === (p.length === 2)) return [];
        const read = readPoint(p, `queries[${i}].points[${j}]`, e, flat);
        return read.ok ? [] : read.problems;
      });
    if (query.op === 'compareCameras') {
      const problems: Problem[] = [];
      if (query.pixels && query.range === undefined)
        problems.push({ path: `queries[${i}].range`, message: 'range is missing: how far along the rays of the pixels to compare.' }); // prettier-ignore
      if (flat) return problems;
      const other = readOther(query, { codec: e, viewport });
      return [...problems, ...(other.ok ? [] : other.problems.map((one) => ({ ...one, path: `queries[${i}].${one.path}` })))]; // prettier-ignore
    }
    if (query.op === 'diagnose' && !flat)
      return query.others.flatMap(({ camera }, j) => {
        const read = readCamera(camera, e);
        const made = read.ok ? frameOf(read.value, viewport) : read;
        return made.ok ? [] : made.problems.map((one) => ({ ...one, path: `queries[${i}].others[${j}].${one.path}` }));
      });
    if (query.op === 'convert') {
      const to = readConventions(query.to, `queries[${i}].to`);
      return to.ok ? [] : to.problems;
    }
    return [];
  });
}

/** Everything that the operations need, or everything that is wrong with the request. */
export function resolveRequest(request: ReadRequest): Checked<ResolvedRequest> {
  const expression = readConventions(request.conventions);
  if (!expression.ok) return expression;
  const e = expression.value;
  const given = request.camera;
  const flat = 'kind' in given;
  const camera = flat ? readCamera2d(given, request.viewport, e) : readCamera(given, e);
  const bodies = request.bodies.map((body, i) => readBody(body, i, e, flat));
  let problems = bodies.flatMap((body) => (body.ok ? [] : body.problems));
  const read = bodies.flatMap((body) => (body.ok ? [body.value] : []));
  const placed = problems.length ? null : placeBodies(read);
  problems = [
    ...problems,
    ...(placed && !placed.ok ? placed.problems : []),
    ...queryProblems(request.queries, e, flat, request.viewport),
  ];
  if (!camera.ok) return { ok: false, problems: [...camera.problems, ...problems] };
  const frame = frameOf(camera.value, request.viewport);
  if (!frame.ok) return { ok: false, problems: [...frame.problems, ...problems] };
  if (!placed?.ok || problems.length) return { ok: false, problems };
  return {
    ok: true,
    warnings: frame.warnings,
    value: {
      codec: e,
      frame: frame.value,
      flat,
      camera: given,
      bodies: read,
      placed: placed.placed,
      queries: request.queries,
    },
  };
}
