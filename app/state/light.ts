import * as z from 'zod';
import { radians } from '../../core/math/angle';
import type { Vec3 } from '../../core/math/vec3';
import { pitch, point, yaw } from '../../core/quantities/quantity';
import { lightFrom, type Light } from '../../core/order/shadow';
import type { Project } from '../../formats/project';
import { remembered } from './memo';

/*
 * The light of a project and the plane that shadows fall on. Both are set under Order; whatever
 * else asks for shadows reads them here.
 */

export const lightSchema = z.discriminatedUnion('kind', [
  /** A place in the sky: clockwise from ahead, and above the level. */
  z.object({
    kind: z.literal('sky'),
    bearing: yaw({ label: 'Bearing of the light', short: '', decimals: 1, step: 1, source: 'light', world: '3d' }),
    altitude: pitch({ label: 'Altitude of the light', short: '', decimals: 1, step: 1, world: '3d' }),
  }),
  z.object({ kind: z.literal('lamp'), at: point({ label: 'Lamp', decimals: 1, source: 'light', world: '3d' }) }),
]);
/** Where light comes from. */
export type ProjectLight = z.infer<typeof lightSchema>;

/** A light that was stored with its angles in degrees. */
export const lightOfDegrees = (light: ProjectLight): ProjectLight =>
  light.kind === 'sky' ? { ...light, bearing: radians(light.bearing), altitude: radians(light.altitude) } : light;

/** The light that stands first. */
export const firstLight: ProjectLight = { kind: 'sky', bearing: radians(120), altitude: radians(35) };

/** A light as the core has it. */
export const lightOf = (light: ProjectLight): Light =>
  light.kind === 'lamp'
    ? { kind: 'point', at: light.at }
    : { kind: 'directional', travels: lightFrom(light.bearing, light.altitude) };

/** The level plane at a height, canonical world space, that shadows fall on. */
export const receiverOf = ({ receiver }: { readonly receiver: number }) => ({
  point: [0, receiver, 0] as Vec3,
  normal: [0, 1, 0] as Vec3,
});

/** The height of the plane before any is set. */
export const firstReceiver = (project: Project): number => project.ground?.height ?? 0;

/** What a project holds of it, among the state of Order: read here, so that no other task needs Order loaded. */
const kept = z.object({ version: z.int(), light: lightSchema, receiver: z.number() });

/** The light and the height of the plane that are in force in a project. */
export const lightIn = remembered((project: Project): { readonly light: ProjectLight; readonly receiver: number } => {
  const found = kept.safeParse(project.tasks['order']);
  if (!found.success) return { light: firstLight, receiver: firstReceiver(project) };
  const { version, light, receiver } = found.data;
  return { light: version === 1 ? lightOfDegrees(light) : light, receiver };
});
