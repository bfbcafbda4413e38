import { type Camera } from '../camera/frame';
import type { Orientation } from '../camera/orientation';
import type { Lens, Projection } from '../camera/projection';
import { type ConventionCodec } from '../conventions/codec';
import { normalizeQuat } from '../math/quat';
import type { RequestCamera, RequestProjection } from './schema';
import { refuse, type Read } from './readValues';

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
 * Converts a request's camera to canonical space.
 *
 * @returns the camera, or the problems of its form; `frameOf` checks whether its numbers make a camera
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
