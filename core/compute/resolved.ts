import { anglesOfBasis } from '../camera/orientation';
import { fieldOfView } from '../camera/projection';
import type { CameraFrame } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import { writePair } from './readValues';

/**
 * The camera as it came out, in the request's conventions (`docs/compute.md`, "The resolved
 * camera").
 */
export function resolvedCamera(frame: CameraFrame, e: ConventionCodec, flat = false): Record<string, unknown> {
  const { extents: x, near, far } = frame;
  const perspective = frame.kind === 'perspective';
  const fov = (size: number) => (perspective ? e.toAngle(fieldOfView(size, near)) : null);
  const quaternion = e.toQuaternion(frame);
  return {
    position: flat ? writePair(frame.eye, e) : e.toWorld(frame.eye),
    right: e.toWorld(frame.right),
    up: e.toWorld(frame.up),
    forward: e.toWorld(frame.forward),
    ...e.toAngles(anglesOfBasis(frame)),
    quaternion,
    ...(!quaternion && { reason: 'quaternionNeedsOneHandedness' }),
    near,
    far,
    aspect: (x.right - x.left) / (x.top - x.bottom),
    verticalFov: fov(x.top - x.bottom),
    horizontalFov: fov(x.right - x.left),
    extents: x,
  };
}
