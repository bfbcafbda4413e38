import { orthographicOf } from '../camera/camera2d';
import { frameOf, type Camera, type CameraFrame, type Viewport } from '../camera/frame';
import type { Orientation } from '../camera/orientation';
import type { Lens, Projection } from '../camera/projection';
import type { ConventionCodec } from '../conventions/codec';
import { projectPoint } from '../convert/project';
import { normalizeQuat } from '../math/quat';
import { readValue } from '../quantities/convert';
import { plane, space } from '../quantities/world';
import { reject, type Read } from '../reasons';
import {
  camera2dSchema,
  camera3dSchema,
  type RequestCamera,
  type RequestCamera2d,
  type RequestProjection,
} from './cameraSchema';

/** Converts an orientation in canonical numbers, its quaternion excepted. */
function readOrientation(given: RequestCamera['orientation'], codec: ConventionCodec): Read<Orientation> {
  if ('lookAt' in given)
    return { ok: true, value: { kind: 'lookAt', target: given.lookAt, ...(given.up && { up: given.up }) } };
  if ('yaw' in given) return { ok: true, value: { kind: 'angles', ...given } };
  if ('right' in given) return { ok: true, value: { kind: 'basis', ...given } };
  const path = 'camera.orientation.quaternion';
  const unit = normalizeQuat(given.quaternion);
  if (!unit)
    return reject({
      path,
      code: 'quaternionZero',
      message: 'The quaternion has no length. The identity is [0, 0, 0, 1].',
    });
  const basis = codec.fromQuaternion(unit);
  if (!basis)
    return reject({
      path,
      code: 'quaternionNeedsOneHandedness',
      message: `The world is ${codec.handedness.world}-handed and the view ${codec.handedness.view}-handed; no rotation leads from one to the other. Give right, up and forward instead.`,
    });
  return { ok: true, value: { kind: 'basis', ...basis } };
}

function exactlyOne(given: object, fields: readonly string[], what: string): Read<string> {
  const present = fields.filter((field) => (given as Record<string, unknown>)[field] !== undefined);
  if (present.length === 1) return { ok: true, value: present[0]! };
  const path = `camera.projection${present[1] ? `.${present[1]}` : ''}`;
  return reject({
    path,
    message: present.length
      ? `${present.join(' and ')} both say ${what}. Keep one of them.`
      : `Nothing says ${what}. Give one of ${fields.join(', ')}.`,
  });
}

/** Converts a projection in canonical numbers. */
function readProjection(given: RequestProjection): Read<Projection> {
  if (given.kind === 'frustum') return { ok: true, value: given };
  const shaped = {
    ...(given.aspect !== undefined && { aspect: given.aspect }),
    ...(given.shift && { shift: given.shift }),
  };
  const { near } = given;
  if (given.kind === 'orthographic') {
    const one = exactlyOne(given, ['height', 'width'], 'how large the picture is');
    if (!one.ok) return one;
    const size = one.value === 'height' ? { height: given.height! } : { width: given.width! };
    return { ok: true, value: { kind: 'orthographic', near, far: given.far, size, ...shaped } };
  }
  const one = exactlyOne(
    given,
    ['verticalFov', 'horizontalFov', 'diagonalFov', 'focalLength'],
    'how wide the camera sees',
  );
  if (!one.ok) return one;
  if (one.value === 'focalLength' && given.sensorHeight === undefined)
    return reject({
      path: 'camera.projection.sensorHeight',
      message: 'sensorHeight is missing; a focal length says an angle only together with it.',
    });
  const name = one.value as 'verticalFov';
  const lens: Lens =
    one.value === 'focalLength'
      ? { focalLength: given.focalLength!, sensorHeight: given.sensorHeight! }
      : ({ [name]: given[name]! } as { verticalFov: number });
  return { ok: true, value: { kind: 'perspective', near, far: given.far, lens, ...shaped } };
}

/**
 * Converts a request's camera to canonical space.
 *
 * @returns the camera, or the problems of its form; `frameOf` checks whether its numbers make a camera
 */
export function readCamera(given: RequestCamera, codec: ConventionCodec): Read<Camera> {
  const read = readValue(camera3dSchema, given, { codec, world: space });
  const orientation = readOrientation(read.orientation as RequestCamera['orientation'], codec);
  const projection = readProjection(read.projection as RequestProjection);
  if (orientation.ok && projection.ok)
    return {
      ok: true,
      value: { position: read.position, orientation: orientation.value, projection: projection.value },
    };
  return reject(...(orientation.ok ? [] : orientation.problems), ...(projection.ok ? [] : projection.problems));
}

/** Returns the frame of a request's camera, or the problems of its form and its numbers. */
export function readFrame(given: RequestCamera, codec: ConventionCodec, viewport: Viewport): Read<CameraFrame> {
  const camera = readCamera(given, codec);
  if (!camera.ok) return camera;
  const frame = frameOf(camera.value, viewport);
  return frame.ok ? { ok: true, value: frame.value } : { ok: false, problems: [...frame.problems] };
}

/**
 * Converts a 2D camera to the orthographic camera that it equals. With `snap` its translation is rounded to pixels of
 * the viewport.
 */
export function readCamera2d(given: RequestCamera2d, viewport: Viewport, codec: ConventionCodec): Read<Camera> {
  if (!(given.zoom > 0))
    return reject({
      path: 'camera.zoom',
      code: 'zoomNotPositive',
      message: `zoom is ${given.zoom}; it is pixels per world unit and must be above 0.${
        given.zoom < 0 ? ' A world whose y grows downward says so with its up axis.' : ''
      }`,
    });
  const anchored = (shift: readonly [number, number]): Camera => {
    const anchor: [number, number] = [given.anchor[0] + shift[0], given.anchor[1] + shift[1]];
    return orthographicOf(readValue(camera2dSchema, { ...given, anchor }, { codec, world: plane, viewport }), viewport);
  };
  const camera = anchored([0, 0]);
  const frame = given.snap === 'none' ? null : frameOf(camera, viewport);
  if (!frame?.ok) return { ok: true, value: camera };
  // The translation is where the world's origin is on the screen.
  const origin = projectPoint(frame.value, [0, 0, 0]).picture;
  if (!origin.ok) return { ok: true, value: camera };
  const t = codec.toScreen(viewport, origin.value.across, origin.value.upward);
  const snapped = (v: number) => Math.floor(given.snap === 'round' ? v + 0.5 : v);
  return { ok: true, value: anchored([snapped(t[0]) - t[0], snapped(t[1]) - t[1]]) };
}

/** Returns the frame of a request's 2D camera, or its problems. */
export function readFrame2d(given: RequestCamera2d, codec: ConventionCodec, viewport: Viewport): Read<CameraFrame> {
  const camera = readCamera2d(given, viewport, codec);
  if (!camera.ok) return camera;
  const frame = frameOf(camera.value, viewport);
  return frame.ok ? { ok: true, value: frame.value } : { ok: false, problems: [...frame.problems] };
}
