import { placeBodies, type Body, type PlacedBody } from '../bodies/body';
import { frameOf, type Camera, type CameraFrame } from '../camera/frame';
import type { Orientation } from '../camera/orientation';
import type { Lens, Projection } from '../camera/projection';
import { axesAreDistinct, fromParts, toParts, canonicalAxes } from '../conventions/axes';
import type { Conventions } from '../conventions/conventions';
import { expressionOf, type Expression } from '../conventions/express';
import { columnsToQuat, normalizeQuat, quatToColumns, type Quat } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import type { Checked, Problem } from '../reasons';
import type { Query, ReadRequest, RequestBody, RequestCamera, RequestProjection } from './schema';

/** A request on the inside: what every operation works from. */
export interface Situation {
  readonly expression: Expression;
  readonly frame: CameraFrame;
  readonly placed: readonly PlacedBody[];
  readonly queries: readonly Query[];
}

type Read<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };
const refuse = (...problems: Problem[]): { ok: false; problems: Problem[] } => ({ ok: false, problems });

/** Conventions whose numbers are right each for itself, checked together (paths below `at`). */
export function readConventions(conventions: Conventions, at = 'conventions'): Read<Expression> {
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
  if (conventions.ndc.near === conventions.ndc.far)
    problems.push({
      path: `${at}.ndc.far`,
      message: `NDC near and far are both ${conventions.ndc.near}, so no depth could be told from another. Make them differ.`,
    });
  return problems.length ? { ok: false, problems } : { ok: true, value: expressionOf(conventions) };
}

function readOrientation(given: RequestCamera['orientation'], e: Expression): Read<Orientation> {
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

function readProjection(given: RequestProjection, e: Expression): Read<Projection> {
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

/** A request's camera on the inside, or what is wrong with its form; whether its numbers go together `frameOf` says. */
export function readCamera(given: RequestCamera, e: Expression): Read<Camera> {
  const orientation = readOrientation(given.orientation, e);
  const projection = readProjection(given.projection, e);
  if (orientation.ok && projection.ok)
    return {
      ok: true,
      value: { position: e.fromWorld(given.position), orientation: orientation.value, projection: projection.value },
    };
  return refuse(...(orientation.ok ? [] : orientation.problems), ...(projection.ok ? [] : projection.problems));
}

/** A rotation between body axes that carry the world's letters, re-expressed: the axis vectors go through the frames, the turn stays. */
function readRotation(q: Quat, e: Expression): Quat {
  const columns = quatToColumns(q);
  const world = e.conventions.world;
  // Column of an inside axis: that axis in the request's letters, turned, and brought back.
  const column = (axis: Vec3) => {
    const [x, y, z] = e.toWorld(axis);
    const [a, b, c] = columns;
    return toCanonical([
      a[0] * x + b[0] * y + c[0] * z,
      a[1] * x + b[1] * y + c[1] * z,
      a[2] * x + b[2] * y + c[2] * z,
    ]);
  };
  const toCanonical = (v: Vec3) => fromParts(canonicalAxes, toParts(world, v));
  return columnsToQuat(column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1]));
}

/** A request's body on the inside, or what is wrong with it (paths below `bodies[index]`). */
export function readBody(given: RequestBody, index: number, e: Expression): Read<Body> {
  const at = `bodies[${index}]`;
  const size = (v: Vec3): Vec3 => e.fromWorld(v).map(Math.abs) as unknown as Vec3;
  const rotation = normalizeQuat(given.rotation ?? [0, 0, 0, 1]);
  if (!rotation)
    return refuse({
      path: `${at}.rotation`,
      code: 'quaternionZero',
      message: `The rotation of “${given.id}” has no length. The identity is [0, 0, 0, 1].`,
    });
  const scale: Vec3 =
    typeof given.scale === 'number' ? [given.scale, given.scale, given.scale] : (given.scale ?? [1, 1, 1]);
  let { shape } = given as { shape: Body['shape'] };
  if (shape.kind === 'box') shape = { kind: 'box', size: size(shape.size) };
  if (shape.kind === 'mesh') {
    const { positions, indices } = shape;
    const count = positions.length / 3;
    if (!Number.isInteger(count))
      return refuse({
        path: `${at}.shape.positions`,
        message: `positions has ${positions.length} numbers; they come in threes, x, y, z.`,
      });
    if (indices.length % 3)
      return refuse({
        path: `${at}.shape.indices`,
        message: `indices has ${indices.length} entries; they come in threes, one triangle each.`,
      });
    const beyond = indices.findIndex((i) => i >= count);
    if (beyond >= 0)
      return refuse({
        path: `${at}.shape.indices[${beyond}]`,
        message: `The index ${indices[beyond]} is beyond the last vertex, ${count - 1}.`,
      });
    const moved: number[] = [];
    for (let i = 0; i < positions.length; i += 3)
      moved.push(...e.fromWorld([positions[i]!, positions[i + 1]!, positions[i + 2]!]));
    shape = { kind: 'mesh', positions: moved, indices };
  }
  // A scale goes along letters, not directions: its signs are mirrorings and stay.
  const letters = e.fromWorld([1, 1, 1]);
  const permuted = e.fromWorld(scale);
  return {
    ok: true,
    value: {
      id: given.id,
      shape,
      position: e.fromWorld(given.position),
      rotation: readRotation(rotation, e),
      scale: [permuted[0] * letters[0], permuted[1] * letters[1], permuted[2] * letters[2]],
      parent: given.parent ?? null,
      castsShadow: given.castsShadow ?? true,
    },
  };
}

/** Everything that the operations need, or everything that is wrong with the request. */
export function readSituation(request: ReadRequest): Checked<Situation> {
  const expression = readConventions(request.conventions);
  if (!expression.ok) return expression;
  const e = expression.value;
  const camera = readCamera(request.camera, e);
  const bodies = request.bodies.map((body, i) => readBody(body, i, e));
  const problems = bodies.flatMap((body) => (body.ok ? [] : body.problems));
  const placed = problems.length ? null : placeBodies(bodies.flatMap((body) => (body.ok ? [body.value] : [])));
  if (placed && !placed.ok) problems.push(...placed.problems);
  if (!camera.ok) return { ok: false, problems: [...camera.problems, ...problems] };
  const frame = frameOf(camera.value, request.viewport);
  if (!frame.ok) return { ok: false, problems: [...frame.problems, ...problems] };
  if (!placed?.ok) return { ok: false, problems };
  return {
    ok: true,
    warnings: frame.warnings,
    value: { expression: e, frame: frame.value, placed: placed.placed, queries: request.queries },
  };
}
