import { reposed, type CameraFrame } from '../camera/frame';
import { worldToViewRuf } from '../convert/project';
import { addScaled, type Vec3 } from '../math/vec3';
import { noTrack, type Tracked } from './noTrack';

/**
 * A camera on its way from perspective to orthographic with the height at a subject kept: 0 is the
 * camera itself, 1 its orthographic counterpart. The way is even in the convergence, the reciprocal
 * of the distance d ahead of the eye at which the subject stands: d′ = d/(1 − share), the field of
 * view shrinking as in a dolly zoom; at 1 the rays are parallel and the eye stands where it began.
 * What the picture shows goes over without a jump. Near and far go back with the eye, so that they
 * stay where they are in the world. Canonical space, world units.
 *
 * `distanceNotPositive` where the subject is not ahead, `outOfRange` where the eye would be farther
 * away than doubles can work with. An orthographic camera stays as it is.
 * Source: the pinhole camera's limit, `docs/derivations.md`, "Motion".
 */
export function blended(frame: CameraFrame, subject: Vec3, share: number): Tracked<CameraFrame> {
  if (frame.kind === 'orthographic' || share <= 0) return { ok: true, value: frame };
  const ahead = worldToViewRuf(frame, subject)[2];
  if (!(ahead > 0)) return noTrack('distanceNotPositive', 'The subject is not ahead of the camera. Turn it there.');
  const { near, far, extents: e } = frame;
  const atSubject = ahead / near;
  const scaled = (k: number) => ({ left: e.left * k, right: e.right * k, bottom: e.bottom * k, top: e.top * k });
  if (share >= 1) {
    // An infinite far has no parallel picture: as far behind the subject as it is ahead.
    const parallel: CameraFrame = { ...frame, kind: 'orthographic', far: far ?? near + 2 * ahead };
    const made = reposed(parallel, { extents: scaled(atSubject) });
    return made ? { ok: true, value: made } : tooFarToBlend;
  }
  const back = (ahead * share) / (1 - share);
  const moved: CameraFrame = { ...frame, near: near + back, far: far === null ? null : far + back };
  const k = (atSubject * (near + back)) / (ahead + back);
  const made = reposed(moved, { eye: addScaled(frame.eye, frame.forward, -back), extents: scaled(k) });
  return made ? { ok: true, value: made } : tooFarToBlend;
}

const tooFarToBlend = noTrack('outOfRange', 'So near to parallel the eye is farther away than doubles can work with.');
