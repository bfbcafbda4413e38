import { frameOf } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import type { ConventionCodec } from '../conventions/codec';
import type { ReadLens, ReadPose } from '../diagnose/decompose';
import { diagnose, type Explanation } from '../diagnose/diagnose';
import type { Intended } from '../diagnose/engine';
import type { Given, Other } from '../diagnose/search';
import { mat4, type Mat4 } from '../math/mat4';
import { notIn2d, type Operations } from './answering';
import { readCamera, type ResolvedRequest } from './read';
import type { RequestCamera } from './schema';

/** A request's camera as faults are asked of it: resolved, and how it was said. */
export function intendedOf(
  camera: RequestCamera,
  frame: ResolvedRequest['frame'],
  e: ConventionCodec,
  devicePixelRatio: number | null,
): Intended {
  const { orientation: o, projection: p } = camera;
  const angles = 'yaw' in o ? e.fromAngles(o) : null;
  const kind = p.kind === 'perspective' ? (['verticalFov', 'horizontalFov', 'diagonalFov'] as const).find((name) => p[name] !== undefined) : undefined; // prettier-ignore
  return {
    ...{ frame, e, angles, devicePixelRatio, isFrustum: p.kind === 'frustum' },
    plainUp: 'lookAt' in o ? o.up === undefined : angles !== null && angles.roll === 0,
    field: kind && p.kind === 'perspective' ? { kind, number: p[kind]! } : null,
  };
}

const poseAnswer = (pose: ReadPose | null, e: ConventionCodec) =>
  pose
    ? {
        ...{ position: e.toWorld(pose.eye), right: e.toWorld(pose.right), up: e.toWorld(pose.up) },
        ...{ forward: e.toWorld(pose.forward), ...e.toAngles(anglesOfBasis(pose)) },
        ...{ mirrored: pose.mirrored, scale: pose.scale, shear: pose.shear },
      }
    : null;
const lensAnswer = (lens: ReadLens | null, e: ConventionCodec) => {
  if (!lens) return null;
  const { kind, half, shift, near, far } = lens;
  const fov = (v: number) => e.toAngle(2 * Math.atan(v));
  return {
    ...{ kind, aspect: half[0] / half[1] },
    ...(kind === 'perspective'
      ? { horizontalFov: fov(half[0]), verticalFov: fov(half[1]) }
      : { width: 2 * half[0], height: 2 * half[1] }),
    ...{ shift, near, far },
  };
};

/** What is said of an engine's numbers, given the camera that is intended. */
export const diagnoseOperations: Pick<Operations, 'diagnose'> = {
  diagnose: ({ codec: e, frame, camera, flat }, { given, digits, others, devicePixelRatio }) => {
    if (flat || 'kind' in camera) return notIn2d('diagnose');
    const read = (list: readonly number[] | undefined): Mat4 | undefined => list && e.fromList(mat4(list));
    const { view, projection, viewProjection, cameraToWorld, points = [] } = given;
    const matrices = Object.entries({ view, projection, viewProjection, cameraToWorld }).flatMap(([name, list]) => list ? [[name, read(list)!]] : []); // prettier-ignore
    const told: Given = {
      matrices: Object.fromEntries(matrices) as Given['matrices'],
      points: points.map(({ world, screen, depth }) => ({ world, screen, depth: depth ?? null })),
      digits,
    };
    const ratio = devicePixelRatio ?? null;
    const used = others.map(({ name, camera: other }): Other => {
      const made = readCamera(other, e);
      const seen = made.ok ? frameOf(made.value, frame.viewport) : made;
      // Read before, with the whole request: what is wrong with it is a problem of that.
      if (!seen.ok) throw new Error(seen.problems[0]!.message);
      return { name, intended: intendedOf(other, seen.value, e, ratio) };
    });
    const found = diagnose(intendedOf(camera, frame, e, ratio), told, used);
    const pose = poseAnswer(found.read.pose, e);
    const lens = lensAnswer(found.read.lens, e);
    // A camera's transform alone, and what divides by nothing, have no picture.
    const why = (one: { readonly residual: number | null }) => (one.residual === null ? { reason: 'noPicture' } : {});
    return {
      ...{ verdict: found.verdict, residual: found.residual, depthResidual: found.depthResidual, ...why(found) },
      explanations: found.explanations.map((one: Explanation) => ({ ...one, ...why(one) })),
      decomposed: { pose, lens, ...((!pose || !lens) && { reason: 'notACamera' }) },
    };
  },
};
