import { addScaled, cross, distance, dot, length, normalize, sub, type Vec2, type Vec3 } from '../math/vec3';
import type { PlacedBody } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { rayThrough } from '../convert/project';
import { castRay, pick, type Hit } from './pick';

export interface Aim {
  /** What the camera's ray meets within `reach`, or the point at `reach` along it. */
  readonly target: Vec3;
  readonly targetBody: string | null;
  /**
   * What the muzzle's ray towards the target meets first, at the target or beyond it too; null when
   * it meets nothing.
   */
  readonly hit: Hit | null;
  /** The body that cuts the muzzle's line short of the target. */
  readonly blockedBy: string | null;
  /** Between the two rays, in radians. */
  readonly angle: number;
}

/** Shorter of the target than this share of the way counts as short of it. */
const blockedShare = 1e-9;

/**
 * Aiming in two stages: what the camera's ray through a picture position meets (front faces,
 * between near and far, within `reach`), then what the ray from the muzzle to that target meets
 * first (front faces; it knows no near or far). A muzzle at the target has no ray: no hit, angle 0.
 */
export function aim(
  frame: CameraFrame,
  placed: readonly PlacedBody[],
  muzzle: Vec3,
  reach: number,
  [across, upward]: Vec2 = [0, 0],
): Aim {
  const ray = rayThrough(frame, across, upward);
  const met = pick(frame, across, upward, placed).find((hit) => hit.distance <= reach) ?? null;
  const target = met?.point ?? addScaled(ray.origin, ray.direction, reach);
  const targetBody = met?.body ?? null;
  const direction = normalize(sub(target, muzzle));
  if (!direction) return { target, targetBody, hit: null, blockedBy: null, angle: 0 };
  const way = distance(target, muzzle);
  const hit = castRay({ origin: muzzle, direction }, placed)[0] ?? null;
  return {
    target,
    targetBody,
    hit,
    blockedBy: hit && hit.distance < way * (1 - blockedShare) ? hit.body : null,
    // From sine and cosine together: exact for small angles, where the cosine alone says nothing.
    angle: Math.atan2(length(cross(ray.direction, direction)), dot(ray.direction, direction)),
  };
}
