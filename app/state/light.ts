import * as z from 'zod';
import { radians } from '../../core/math/angle';
import type { Vec3 } from '../../core/math/vec3';
import { vec3Schema } from '../../core/compute/valueSchemas';
import { lightFrom, type Light } from '../../core/order/shadow';
import type { Project } from '../../formats/project';
import { remembered } from './memo';

/*
 * The light of a project and the plane that shadows fall on. Both are set under Order; whatever
 * else asks for shadows reads them here.
 */

/** Where light comes from: a place in the sky, degrees clockwise from ahead and above the level, or a lamp. */
export type ProjectLight =
  { kind: 'sky'; bearing: number; altitude: number } | { kind: 'lamp'; at: [number, number, number] };

export const lightSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('sky'), bearing: z.number(), altitude: z.number() }),
  z.object({ kind: z.literal('lamp'), at: vec3Schema }),
]);

/** The light that stands first. */
export const firstLight: ProjectLight = { kind: 'sky', bearing: 120, altitude: 35 };

/** A light as the core has it. */
export const lightOf = (light: ProjectLight): Light =>
  light.kind === 'lamp'
    ? { kind: 'point', at: light.at }
    : { kind: 'directional', travels: lightFrom(radians(light.bearing), radians(light.altitude)) };

/** The level plane at a height, canonical world space, that shadows fall on. */
export const receiverOf = ({ receiver }: { readonly receiver: number }) => ({
  point: [0, receiver, 0] as Vec3,
  normal: [0, 1, 0] as Vec3,
});

/** The height of the plane before any is set. */
export const firstReceiver = (project: Project): number => project.ground?.height ?? 0;

/** What a project holds of it, among the state of Order: read here, so that no other task needs Order loaded. */
const kept = z.object({ light: lightSchema, receiver: z.number() });

/** The light and the height of the plane that are in force in a project. */
export const lightIn = remembered((project: Project): { readonly light: ProjectLight; readonly receiver: number } => {
  const found = kept.safeParse(project.tasks['order']);
  return found.success
    ? (found.data as { light: ProjectLight; receiver: number })
    : { light: firstLight, receiver: firstReceiver(project) };
});
