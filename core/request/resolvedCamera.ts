import * as z from 'zod';
import type { CameraFrame } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import { fieldOfView } from '../camera/projection';
import type { ConventionCodec } from '../conventions/codec';
import { output } from './values';

/** The camera of an answer (`docs/compute.md`, "The resolved camera"). */
export const resolvedCameraSchema = z.object({
  position: output.point(),
  right: output.axis(),
  up: output.axis(),
  forward: output.axis(),
  yaw: output.yaw(),
  pitch: output.pitch(),
  roll: output.roll(),
  quaternion: z
    .tuple([z.number(), z.number(), z.number(), z.number()])
    .nullable()
    .describe('From view axes to the world'),
  reason: z.literal('quaternionNeedsOneHandedness').optional(),
  near: z.number(),
  far: z.number().nullable().describe('null is infinity'),
  aspect: z.number(),
  verticalFov: output.angle().nullable(),
  horizontalFov: output.angle().nullable(),
  extents: z.object({ left: z.number(), right: z.number(), bottom: z.number(), top: z.number() }),
});

/** Describes the camera of a frame for an answer, in canonical space. */
export function resolvedCamera(frame: CameraFrame, codec: ConventionCodec): z.output<typeof resolvedCameraSchema> {
  const { kind, eye, right, up, forward, near, far, extents } = frame;
  const basis = { right, up, forward };
  const [width, height] = [extents.right - extents.left, extents.top - extents.bottom];
  const fov = (size: number) => (kind === 'perspective' ? fieldOfView(size, near) : null);
  const quaternion = codec.toQuaternion(basis);
  return {
    position: eye,
    ...basis,
    ...anglesOfBasis(basis),
    quaternion: quaternion && [...quaternion],
    ...(!quaternion && { reason: 'quaternionNeedsOneHandedness' }),
    near,
    far,
    aspect: width / height,
    verticalFov: fov(height),
    horizontalFov: fov(width),
    extents,
  };
}
