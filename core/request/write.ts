import type { Body } from '../bodies/body';
import { pictureShape, type CameraFrame, type Viewport } from '../camera/frame';
import { reexpressAngle, reexpressAngles, type ConventionCodec } from '../conventions/codec';
import { normalizeQuat } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import { reexpressValue, writeValue } from '../quantities/convert';
import type { QuantityContext } from '../quantities/kinds';
import { plane, space } from '../quantities/world';
import { bodySchema, type RequestBody } from './bodySchema';
import { camera2dSchema, camera3dSchema, type RequestCamera, type RequestCamera2d } from './cameraSchema';

const triple = (v: Vec3): [number, number, number] => [v[0], v[1], v[2]];

/** Writes a canonical body as a request has it: the inverse of `readBody`. */
export function writeBody(body: Body, context: QuantityContext): RequestBody {
  const { id, shape, position, rotation, scale, parent, castsShadow, foot } = body;
  const isTurned = rotation[0] !== 0 || rotation[1] !== 0 || rotation[2] !== 0;
  return writeValue(
    bodySchema,
    {
      id,
      shape: shape as RequestBody['shape'],
      position,
      ...(isTurned && { rotation }),
      ...(scale.some((v) => v !== 1) && { scale: triple(scale) }),
      ...(parent !== null && { parent }),
      ...(!castsShadow && { castsShadow }),
      ...(foot && { foot }),
    },
    context,
  );
}

/**
 * Writes a canonical camera as a request has it, by its basis and its extents: the inverse of `readCamera` and
 * `frameOf` on the same viewport.
 */
export function writeCamera(frame: CameraFrame, codec: ConventionCodec): RequestCamera {
  const { near, far, extents, eye, right, up, forward } = frame;
  const { height, aspect, shift } = pictureShape(frame);
  return writeValue(
    camera3dSchema,
    {
      position: eye,
      orientation: { right, up, forward },
      projection:
        frame.kind === 'perspective'
          ? { kind: 'frustum', near, far, ...extents }
          : { kind: 'orthographic', near, far: frame.far, height, aspect, shift: [...shift] },
    },
    { codec, world: space },
  ) as RequestCamera;
}

/**
 * Writes a request's camera of one set of conventions in another, in the form in which it is given: a quaternion
 * where one exists, else the basis; angles of the same unit to the digit.
 */
export function reexpressCamera(camera: RequestCamera, from: ConventionCodec, to: ConventionCodec): RequestCamera {
  const contexts = [
    { codec: from, world: space },
    { codec: to, world: space },
  ] as const;
  const { position, orientation } = reexpressValue(camera3dSchema, camera, ...contexts) as RequestCamera;
  const projection = { ...camera.projection };
  if (projection.kind === 'perspective')
    for (const field of ['verticalFov', 'horizontalFov', 'diagonalFov'] as const) {
      const value = projection[field];
      if (value !== undefined) projection[field] = reexpressAngle(value, from, to);
    }
  const given = camera.orientation;
  if ('yaw' in given) return { position, orientation: { ...reexpressAngles(given, from, to) }, projection };
  if (!('quaternion' in given)) return { position, orientation, projection };
  const basis = from.fromQuaternion(normalizeQuat(given.quaternion)!)!;
  const quaternion = to.toQuaternion(basis);
  if (quaternion) return { position, orientation: { quaternion: [...quaternion] }, projection };
  const [right, up, forward] = [basis.right, basis.up, basis.forward].map((v) => triple(to.toWorld(v)));
  return { position, orientation: { right: right!, up: up!, forward: forward! }, projection };
}

/** Writes a 2D camera of one set of conventions in another: pixels stay where they are on the screen. */
export function reexpressCamera2d(
  camera: RequestCamera2d,
  viewport: Viewport,
  from: ConventionCodec,
  to: ConventionCodec,
): RequestCamera2d {
  const world = plane;
  const moved = reexpressValue(
    camera2dSchema,
    camera,
    { codec: from, world, viewport },
    { codec: to, world, viewport },
  );
  return { ...(moved as RequestCamera2d), rotation: reexpressAngle(camera.rotation, from, to) };
}
