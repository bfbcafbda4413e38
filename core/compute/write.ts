import type { Body } from '../bodies/body';
import { quatToColumns, columnsToQuat, type Quat } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import { normalizeQuat } from '../math/quat';
import type { Expression } from '../conventions/express';
import type { Viewport } from '../camera/frame';
import { readPair, writePair } from './read';
import type { ComputeRequest, RequestCamera, RequestCamera2d } from './schema';

type WrittenBody = NonNullable<ComputeRequest['bodies']>[number];
const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/** A rotation of the inside's axes in the letters of a convention's world. */
export function writeRotation(q: Quat, e: Expression): [number, number, number, number] {
  const columns = quatToColumns(q);
  const turned = (axis: Vec3): Vec3 => {
    const [x, y, z] = e.fromWorld(axis);
    const part = (i: 0 | 1 | 2) => columns[0][i] * x + columns[1][i] * y + columns[2][i] * z;
    return e.toWorld([part(0), part(1), part(2)]);
  };
  return [...columnsToQuat(turned([1, 0, 0]), turned([0, 1, 0]), turned([0, 0, 1]))];
}

/** A body of the inside in the form of a request, in the conventions of `e`: the inverse of `readBody`. */
export function writeBody(body: Body, e: Expression, flat = false): WrittenBody {
  const { id, position, rotation, scale, parent, castsShadow } = body;
  const along = (v: Vec3): [number, number, number] => {
    // Sizes and scales go with the letters and keep their own signs.
    const [signs, moved] = [e.toWorld([1, 1, 1]), e.toWorld(v)];
    return [moved[0] * signs[0], moved[1] * signs[1], moved[2] * signs[2]];
  };
  let shape = body.shape as WrittenBody['shape'];
  if (body.shape.kind === 'box') shape = { kind: 'box', size: along(body.shape.size) };
  if (body.shape.kind === 'mesh') {
    const { positions: given, indices } = body.shape;
    const positions: number[] = [];
    for (let i = 0; i < given.length; i += 3) positions.push(...e.toWorld([given[i]!, given[i + 1]!, given[i + 2]!]));
    shape = { kind: 'mesh', positions, indices: [...indices] };
  }
  const turned = rotation[0] !== 0 || rotation[1] !== 0 || rotation[2] !== 0;
  const scaled = scale.some((v) => v !== 1);
  return {
    id,
    shape,
    position: flat ? writePair(position, e) : triple(e.toWorld(position)),
    ...(turned && { rotation: writeRotation(rotation, e) }),
    ...(scaled && { scale: along(scale) }),
    ...(parent !== null && { parent }),
    ...(!castsShadow && { castsShadow }),
  };
}

/** A request's camera re-expressed from one set of conventions in another, in the form in which it was given (a quaternion where one exists, else the basis). */
export function reexpressCamera(camera: RequestCamera, from: Expression, to: Expression): RequestCamera {
  const move = (v: Vec3) => triple(to.toWorld(from.fromWorld(v)));
  const angle = (a: number) =>
    from.conventions.angles.unit === to.conventions.angles.unit ? a : to.toAngle(from.fromAngle(a));
  const o = camera.orientation;
  let orientation: RequestCamera['orientation'];
  if ('lookAt' in o) orientation = { lookAt: move(o.lookAt), ...(o.up && { up: move(o.up) }) };
  else if ('yaw' in o) {
    const senses = { a: from.conventions.angles, b: to.conventions.angles };
    const turn = (name: 'yaw' | 'pitch' | 'roll') => angle(o[name]) * (senses.a[name] === senses.b[name] ? 1 : -1);
    orientation = { yaw: turn('yaw'), pitch: turn('pitch'), roll: turn('roll') };
  } else if ('quaternion' in o) {
    const basis = from.fromQuaternion(normalizeQuat(o.quaternion)!)!;
    const quaternion = to.toQuaternion(basis);
    orientation = quaternion
      ? { quaternion: [...quaternion] }
      : {
          right: triple(to.toWorld(basis.right)),
          up: triple(to.toWorld(basis.up)),
          forward: triple(to.toWorld(basis.forward)),
        };
  } else orientation = { right: move(o.right), up: move(o.up), forward: move(o.forward) };

  const projection = { ...camera.projection };
  if (projection.kind === 'perspective')
    for (const field of ['verticalFov', 'horizontalFov', 'diagonalFov'] as const) {
      const value = projection[field];
      if (value !== undefined) projection[field] = angle(value);
    }
  return { position: move(camera.position), orientation, projection };
}

/** The same for a 2D camera: pixels stay where they are, numbers change. */
export function reexpressCamera2d(
  camera: RequestCamera2d,
  viewport: Viewport,
  from: Expression,
  to: Expression,
): RequestCamera2d {
  return {
    ...camera,
    focus: writePair(readPair(camera.focus, from), to),
    anchor: [...to.toScreen(viewport, ...from.fromScreen(viewport, camera.anchor))],
    rotation: to.toAngle(from.fromAngle(camera.rotation)),
  };
}
