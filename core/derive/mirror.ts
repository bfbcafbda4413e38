import { projectionMatrix, type CameraFrame } from '../camera/frame';
import type { Conventions } from '../conventions/conventions';
import { mat4, type Mat4 } from '../math/mat4';
import { addScaled, dot, negate, normalize, sub, type Vec3, type Vec4 } from '../math/vec3';
import type { Read } from '../reasons';
import { derivedCamera, lensOf, rejectDerived, type DerivedCamera } from './derivedCamera';

/** A plane by a point and a normal of any length and either sense, canonical world space. */
export interface MirrorPlane {
  readonly point: Vec3;
  readonly normal: Vec3;
}

/** Reflects a direction in a plane with a unit normal. */
export const reflectDirection = (v: Vec3, normal: Vec3): Vec3 => addScaled(v, normal, -2 * dot(v, normal));
/** Reflects a point in a plane with a unit normal. */
export const reflectPoint = (p: Vec3, { point, normal }: MirrorPlane): Vec3 =>
  addScaled(p, normal, -2 * dot(sub(p, point), normal));

/**
 * Replaces the near plane of a projection by another plane. Depth is near's on the plane, and far's at the far corner
 * that is farthest beyond it.
 *
 * @param plane - of (right, up, ahead): positive on the side that is kept
 * @returns null when no far corner is on that side
 * @see Lengyel, Oblique view frustum depth projection and clipping, 2005; docs/derivations.md, "Mirrored camera"
 */
export function obliqueProjection(
  frame: CameraFrame,
  plane: Vec4,
  depths: Pick<Conventions['ndc'], 'near' | 'far'>,
): Mat4 | null {
  const { kind, near, far, extents: x } = frame;
  const usual = projectionMatrix(frame, depths.near, depths.far);
  // Far corners (right, up, ahead, 1), divided by w; at infinity the directions to them.
  const slope = kind === 'perspective' ? 1 / near : 0;
  const corner = (r: number, u: number): Vec4 => {
    if (kind === 'orthographic') return [r, u, far, 1];
    return far === null ? [r * slope, u * slope, 1, 0] : [r * slope, u * slope, 1, 1 / far];
  };
  const beyond = Math.max(
    ...[x.left, x.right].flatMap((r) =>
      [x.bottom, x.top].map((u) => corner(r, u).reduce((sum, v, i) => sum + v * plane[i]!, 0)),
    ),
  );
  if (!(beyond > 0)) return null;
  const factor = (depths.far - depths.near) / beyond;
  const depth = plane.map((v, i) => factor * v + depths.near * usual[12 + i]!);
  return mat4([...usual.slice(0, 8), ...depth, ...usual.slice(12)]);
}

/**
 * Returns the camera seen in a plane: a mirrored point has the pixel and the depth that the point has in the camera
 * itself. The proper camera has its right and its edges negated.
 *
 * @param clip - whether the mirror replaces the near plane; the real eye's side is kept
 * @param depths - NDC depth of near and far
 * @returns `mirrorNotSeen` for an eye in the plane, or a mirror beyond every far corner
 */
export function mirrorCamera(
  frame: CameraFrame,
  { point, normal: given }: MirrorPlane,
  clip: boolean,
  depths: Pick<Conventions['ndc'], 'near' | 'far'>,
): Read<readonly DerivedCamera[]> {
  const unit = normalize(given);
  if (!unit) return rejectDerived('outOfRange', 'The normal of plane has no length. Give a direction.');
  const away = sub(frame.eye, point);
  const height = dot(away, unit);
  const scaleOfPlace = Math.max(Math.hypot(...frame.eye), Math.hypot(...point));
  if (Math.abs(height) <= 1e-12 * scaleOfPlace || height === 0)
    return rejectDerived('mirrorNotSeen', 'The eye is in the plane of the mirror, which it sees as a line. Move it.');
  const normal = height > 0 ? unit : negate(unit);
  const mirror = { point, normal };
  const eye = reflectPoint(frame.eye, mirror);
  const [right, up, forward] = [frame.right, frame.up, frame.forward].map((axis) => reflectDirection(axis, normal)) as [
    Vec3,
    Vec3,
    Vec3,
  ];
  // Points of the scene, in (right, up, ahead) of the mirrored view, by their distance from the mirror.
  const plane: Vec4 = [
    -dot(normal, frame.right),
    -dot(normal, frame.up),
    -dot(normal, frame.forward),
    -Math.abs(height),
  ];
  const projection = clip ? obliqueProjection(frame, plane, depths) : projectionMatrix(frame, depths.near, depths.far);
  if (!projection)
    return rejectDerived(
      'mirrorNotSeen',
      'The mirror is beyond everything that the camera sees. Move it or raise far.',
    );
  const view = mat4([
    ...[...right, -dot(right, eye)],
    ...[...up, -dot(up, eye)],
    ...[...forward, -dot(forward, eye)],
    ...[0, 0, 0, 1],
  ]);
  const { extents: x, viewport } = frame;
  const lens = lensOf({ ...frame, extents: { ...x, left: -x.left, right: -x.right } });
  const made = derivedCamera(
    'mirror',
    { basis: { right: negate(right), up, forward }, lens, eye, viewport },
    { mirrored: true, own: { view, projection } },
  );
  return made.ok ? { ok: true, value: [made.value] } : made;
}
