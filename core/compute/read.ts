import { meshProblems, placeBodies, type Body, type PlacedBody } from '../bodies/body';
import { frameOf, type CameraFrame, type Viewport } from '../camera/frame';
import { type ConventionCodec } from '../conventions/codec';
import { normalizeQuat } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import type { Checked, Problem } from '../reasons';
import { readCamera } from './readCamera';
import { readCamera2d, readConventions, readPoint, refuse, type Read } from './readValues';
import { trackOf, trackProblems } from './trackOf';
import type { Query, ReadRequest, RequestBody, RequestCamera, RequestCamera2d } from './schema';

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
