import { addScaled, dot, normalize, sub, type Vec3 } from '../math/vec3';
import type { CameraFrame } from '../camera/frame';
import { noAnswer, type Answer } from '../reasons';
import { depthToAhead, viewRufToWorld, pictureToViewRuf, rayThrough, type Depth01, type Ray } from './project';

/** How far away the point under a pixel is, said in one of four ways. Distances in world units. */
export type DepthChoice =
  | { readonly kind: 'depth'; readonly shares: Depth01 }
  | { readonly kind: 'ahead'; readonly ahead: number }
  | { readonly kind: 'range'; readonly range: number }
  | { readonly kind: 'plane'; readonly point: Vec3; readonly normal: Vec3 };

/** A ray and a plane whose cosine is below this are parallel as far as doubles can tell. */
const parallelCosine = 1e-12;

/**
 * The distance along a ray to a plane through `point`. `rayParallel` when they never meet,
 * `planeBehindEye` when they met before the ray's origin.
 */
export function rangeToPlane(ray: Ray, point: Vec3, normal: Vec3): Answer<number> {
  const n = normalize(normal);
  const slant = n ? dot(n, ray.direction) : 0;
  if (!n || Math.abs(slant) < parallelCosine) return noAnswer('rayParallel');
  const range = dot(n, sub(point, ray.origin)) / slant;
  return range < 0 ? noAnswer('planeBehindEye') : { ok: true, value: range };
}

/**
 * A distance ahead as a pixel's answer: `behindEye` below 0, and `onEyePlane` at 0 in perspective,
 * where every pixel shows the eye.
 */
function aheadAnswer(frame: CameraFrame, ahead: number): Answer<number> {
  if (ahead < 0) return noAnswer('behindEye');
  if (ahead === 0 && frame.kind === 'perspective') return noAnswer('onEyePlane');
  return { ok: true, value: ahead };
}

/**
 * The distance ahead of the eye at which a depth choice lies, along the ray of a picture position.
 * A pixel's ray starts at the eye plane, in orthographic too: what lies before its origin is
 * `behindEye` (`docs/compute.md`, "Points and pixels").
 */
export function aheadOf(frame: CameraFrame, across: number, upward: number, choice: DepthChoice): Answer<number> {
  if (choice.kind === 'depth') {
    const ahead = depthToAhead(frame, choice.shares);
    return ahead.ok ? aheadAnswer(frame, ahead.value) : ahead;
  }
  if (choice.kind === 'ahead') return aheadAnswer(frame, choice.ahead);
  const ray = rayThrough(frame, across, upward);
  if (choice.kind === 'range') return aheadAnswer(frame, choice.range / ray.rangePerAhead);
  const range = rangeToPlane(ray, choice.point, choice.normal);
  return range.ok ? aheadAnswer(frame, range.value / ray.rangePerAhead) : range;
}

/**
 * The world point at a picture position (−1…1 across and upward), at the chosen depth: what
 * projecting undoes.
 */
export function pictureToWorld(frame: CameraFrame, across: number, upward: number, choice: DepthChoice): Answer<Vec3> {
  const ahead = aheadOf(frame, across, upward, choice);
  if (!ahead.ok) return ahead;
  const value = viewRufToWorld(frame, pictureToViewRuf(frame, across, upward, ahead.value));
  // Farther than doubles reach is infinitely far as far as they can tell.
  return value.every(Number.isFinite) ? { ok: true, value } : noAnswer('depthAtInfinity');
}

/**
 * The points where a picture position's ray passes the near and the far plane; far is
 * `depthAtInfinity` when it is infinite.
 */
export function rayEnds(frame: CameraFrame, ray: Ray): { near: Vec3; far: Answer<Vec3> } {
  const at = (ahead: number) => addScaled(ray.origin, ray.direction, ahead * ray.rangePerAhead);
  return {
    near: at(frame.near),
    far: frame.far === null ? noAnswer('depthAtInfinity') : { ok: true, value: at(frame.far) },
  };
}
