import type { Body } from '../bodies/body';
import { normalizeQuat } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import { reexpressAngle, reexpressAngles, type ConventionCodec } from '../conventions/codec';
import { pictureShape, type CameraFrame, type Viewport } from '../camera/frame';
import { readPair, writePair } from './readValues';
import type { ComputeRequest, RequestCamera, RequestCamera2d } from './schema';

type WrittenBody = NonNullable<ComputeRequest['bodies']>[number];
const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/**
 * A body of canonical space in the form of a request, in the conventions of `e`: the inverse of
 * `readBody`.
 */
export function writeBody(body: Body, e: ConventionCodec, flat = false): WrittenBody {
  const { id, position, rotation, scale, parent, castsShadow } = body;
  let shape = body.shape as WrittenBody['shape'];
  if (body.shape.kind === 'box') shape = { kind: 'box', size: triple(e.toSizes(body.shape.size)) };
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
    ...(turned && { rotation: [...e.toRotation(rotation)] as [number, number, number, number] }),
    ...(scaled && { scale: triple(e.toSizes(scale)) }),
    ...(parent !== null && { parent }),
    ...(!castsShadow && { castsShadow }),
  };
}

/**
 * A camera of canonical space in the form of a request, by its basis and its edges, in the
 * conventions of `e`: the inverse of `readCamera` and `frameOf` on the same viewport.
 */
export function writeCamera(frame: CameraFrame, e: ConventionCodec): RequestCamera {
  const own = (v: Vec3) => triple(e.toWorld(v));
  const { near, far, extents: x } = frame;
  const shape = pictureShape(frame);
  return {
    position: own(frame.eye),
    orientation: { right: own(frame.right), up: own(frame.up), forward: own(frame.forward) },
    projection:
      frame.kind === 'perspective'
        ? { kind: 'frustum', near, far, ...x }
        : {
            ...{ kind: 'orthographic', near, far: frame.far, height: shape.height },
            ...{ aspect: shape.aspect, shift: shape.shift },
          },
  };
}

/**
 * A request's camera re-expressed from one set of conventions in another, in the form in which it
 * was given (a quaternion where one exists, else the basis).
 */
export function reexpressCamera(camera: RequestCamera, from: ConventionCodec, to: ConventionCodec): RequestCamera {
  const move = (v: Vec3) => triple(to.toWorld(from.fromWorld(v)));
  const o = camera.orientation;
  let orientation: RequestCamera['orientation'];
  if ('lookAt' in o) orientation = { lookAt: move(o.lookAt), ...(o.up && { up: move(o.up) }) };
  else if ('yaw' in o) orientation = { ...reexpressAngles(o, from, to) };
  else if ('quaternion' in o) {
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
      if (value !== undefined) projection[field] = reexpressAngle(value, from, to);
    }
  return { position: move(camera.position), orientation, projection };
}

/** The same for a 2D camera: pixels stay where they are, numbers change. */
export function reexpressCamera2d(
  camera: RequestCamera2d,
  viewport: Viewport,
  from: ConventionCodec,
  to: ConventionCodec,
): RequestCamera2d {
  return {
    ...camera,
    focus: writePair(readPair(camera.focus, from), to),
    anchor: [...to.toScreen(viewport, ...from.fromScreen(viewport, camera.anchor))],
    rotation: reexpressAngle(camera.rotation, from, to),
  };
}
