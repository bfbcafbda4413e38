import { intendedOf } from '../../../core/diagnose/operations';
import type { RequestCamera } from '../../../core/request/cameraSchema';
import type { CameraFrame } from '../../../core/camera/frame';
import type { ConventionCodec } from '../../../core/conventions/codec';
import { pictureToPixel } from '../../../core/convert/project';
import { readGiven, type ReadLens, type ReadPose } from '../../../core/diagnose/decompose';
import { lensOfFrame, poseOfFrame } from '../../../core/diagnose/differingCameras';
import type { Decomposed } from '../../../formats/diagnosisAnswers';
import { wholeGiven } from '../../../core/diagnose/diagnose';
import { frameOfReading } from '../../../core/diagnose/readFrame';
import type { Intended } from '../../../core/diagnose/engine';
import { downstream, placesOf, type GivenName } from '../../../core/diagnose/faults';
import type { GivenPoint, Instance } from '../../../core/diagnose/given';
import { Engine } from '../../../core/diagnose/search';
import { transform, type Mat4 } from '../../../core/math/mat4';
import type { Vec2, Vec3, Vec4 } from '../../../core/math/vec3';
import type { PlacedBody } from '../../../core/bodies/body';
import { localEdgeStride, localMesh } from '../../pictures/compose/localMesh';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { askedNow, digitsNow, readingNow, toldOf } from './reading';
import { foundNow, setsOf, takenGiven } from './foundNow';
import type { DiagnoseState } from './kept';

/** What the engine's numbers come to. */
export interface EngineSees {
  /** From canonical world to clip with y up, as the engine has it; null where it has no picture. */
  readonly whole: Mat4 | null;
  /** Its camera, where the numbers are one; mirrored pictures have mirrored extents. */
  readonly frame: CameraFrame | null;
  readonly points: readonly GivenPoint[];
}

/** The engine's picture by the numbers that were pasted; null where there is nothing to go by. */
export function engineOf(now: Moment<DiagnoseState>): EngineSees | null {
  const reading = readingNow(now);
  const request = askedNow(now)?.request;
  const given = takenGiven(now);
  if (!given || !request?.camera) return null;
  const { codec: e, frame } = now;
  const told = toldOf(given, e, digitsNow(now, reading));
  const intended = intendedOf(request.camera as RequestCamera, frame, e, null);
  const whole = wholeGiven(intended, told);
  if (whole) {
    const read = readGiven(told, e);
    // What was not given of the two is the right one; what was given and is no camera's has no picture.
    const right = readGiven({ ...told, matrices: { view: e.matrix(frame, 'view'), projection: e.matrix(frame, 'projection') } }, e); // prettier-ignore
    const { view, cameraToWorld, projection, viewProjection } = told.matrices as Partial<Record<string, Mat4>>;
    const pose = (view ?? cameraToWorld ?? viewProjection) ? read.pose : right.pose;
    const lens = (projection ?? viewProjection) ? read.lens : right.lens;
    return {
      whole: e.fromViewProjection(whole),
      frame: pose && lens ? frameOfReading(pose, lens, frame.viewport) : null,
      points: told.points,
    };
  }
  // From points alone the picture is that of what explains them.
  const made = explainedWhole(now, intended);
  const seen = made && readGiven({ ...told, matrices: { viewProjection: made } }, e);
  return {
    whole: made && e.fromViewProjection(made),
    frame: seen?.pose && seen.lens ? frameOfReading(seen.pose, seen.lens, frame.viewport) : null,
    points: told.points,
  };
}

/**
 * The camera that is read off the numbers, with the faults of its projection undone; the intended one's pose or lens
 * where the numbers hold none. Null where they are no camera that a project can have.
 */
export function readFrame(now: Moment<DiagnoseState>): CameraFrame | null {
  const { codec: e, frame } = now;
  const read = foundNow(now)?.diagnosed?.decomposed;
  if (!read) return null;
  const pose = read.pose ? poseOfAnswer(read.pose, e) : poseOfFrame(frame);
  const lens = read.lens ? lensOfAnswer(read.lens, e) : lensOfFrame(frame);
  const made = frameOfReading(pose, lens, frame.viewport);
  const upright = made && made.extents.right > made.extents.left && made.extents.top > made.extents.bottom;
  return upright ? made : null;
}
const poseOfAnswer = (pose: NonNullable<Decomposed['pose']>, e: ConventionCodec): ReadPose => ({
  eye: e.fromWorld(pose.position),
  right: e.fromWorld(pose.right),
  up: e.fromWorld(pose.up),
  forward: e.fromWorld(pose.forward),
  scale: pose.scale,
  shear: pose.shear,
  mirrored: pose.mirrored,
});
function lensOfAnswer(lens: NonNullable<Decomposed['lens']>, e: ConventionCodec): ReadLens {
  const { kind, shift, near, far } = lens;
  const halfOf = (angle: number) => Math.tan(e.fromAngle(angle) / 2);
  const half =
    kind === 'perspective'
      ? ([halfOf(lens.horizontalFov!), halfOf(lens.verticalFov!)] as const)
      : ([lens.width! / 2, lens.height! / 2] as const);
  return { kind, half, shift, near, far };
}

/** The view projection of an engine that commits the chosen faults, said of points; null where none explain them. */
function explainedWhole(now: Moment<DiagnoseState>, intended: Intended): Mat4 | null {
  const first = foundNow(now)?.diagnosed?.explanations[0];
  if (!first) return null;
  const sets = setsOf(first);
  const set = sets[Math.min(now.slice.chosen, sets.length - 1)]!;
  const faults = set.flatMap(({ where, fault }): Instance[] => {
    if (fault === 'otherCamera' || fault === 'differs') return [];
    const place = placesOf(fault).find((one) => one !== 'cameraToWorld' && (one === where || downstream[one].includes(where as GivenName))); // prettier-ignore
    return place && place !== 'points' ? [{ fault, place }] : [];
  });
  return faults.length ? (new Engine(intended, []).matrix('viewProjection', faults)[0] ?? null) : null;
}

/** Where a point of canonical world comes to in the engine's picture, in pixels of the viewport; null behind it. */
export function enginePixel(whole: Mat4, frame: CameraFrame, p: Vec3): Vec2 | null {
  const [x, y, , w] = transform(whole, [p[0], p[1], p[2], 1]);
  return w > 1e-9 ? pictureToPixel(frame, x / w, y / w) : null;
}

/** The most segments that are drawn of the engine's picture. */
const mostSegments = 6_000;

/**
 * The creases of bodies as the engine has them on the screen, in pixels of the viewport: four numbers
 * a segment. What runs through its eye's plane is cut there.
 */
export const engineEdges = memo((whole: Mat4, frame: CameraFrame, placed: ReadonlyMap<string, PlacedBody>): Float64Array => {
  const out: number[] = [];
  const clip = ({ toWorld }: PlacedBody, p: Vec3): Vec4 => {
    const at = (r: number) => toWorld[4 * r]! * p[0] + toWorld[4 * r + 1]! * p[1] + toWorld[4 * r + 2]! * p[2] + toWorld[4 * r + 3]!;
    return transform(whole, [at(0), at(1), at(2), 1]);
  };
  for (const one of placed.values()) {
    if (out.length >= 4 * mostSegments) break;
    const { edges, centre, scale } = localMesh(one.body.shape, false);
    const corner = (i: number): Vec3 => [0, 1, 2].map((k) => (edges[i + k]! + centre[k]!) * scale[k]!) as unknown as Vec3;
    for (let i = 0; i < edges.length && out.length < 4 * mostSegments; i += localEdgeStride) {
      if (!edges[i + 12]) continue;
      let [a, b] = [clip(one, corner(i)), clip(one, corner(i + 3))];
      const least = 1e-6 * Math.max(Math.abs(a[3]), Math.abs(b[3]));
      if (a[3] < least && b[3] < least) continue;
      if (a[3] < least || b[3] < least) {
        const t = (least - a[3]) / (b[3] - a[3]);
        const cut = a.map((v, k) => v + (b[k]! - v) * t) as unknown as Vec4;
        if (a[3] < least) a = cut;
        else b = cut;
      }
      const [p, q] = [pictureToPixel(frame, a[0] / a[3], a[1] / a[3]), pictureToPixel(frame, b[0] / b[3], b[1] / b[3])];
      out.push(...p, ...q);
    }
  }
  return Float64Array.from(out);
}); // prettier-ignore
