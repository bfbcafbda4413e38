import type { ConventionCodec } from '../conventions/codec';
import { transform, type Mat4 } from '../math/mat4';
import { cross, dot, length, scale, sub, type Vec3, type Vec4 } from '../math/vec3';
import { invert4 } from '../math/invert';
import type { Given } from './given';

/** Where a camera stands and how it is turned, as its numbers have it: canonical world. */
export interface ReadPose {
  readonly eye: Vec3;
  /** Unit, as far as they have a length. */
  readonly right: Vec3;
  readonly up: Vec3;
  readonly forward: Vec3;
  /** The lengths of the three rows, which should be 1. */
  readonly scale: Vec3;
  /** The greatest cosine between two of them, which should be 0. */
  readonly shear: number;
  /** Whether the axes are of the hand that the conventions have. */
  readonly mirrored: boolean;
}
/** What a camera sees, as its numbers have it. */
export interface ReadLens {
  readonly kind: 'perspective' | 'orthographic';
  /** Half the width and height over the distance (orthographic: in world units); below 0 is mirrored. */
  readonly half: readonly [number, number];
  /** In half widths and half heights. */
  readonly shift: readonly [number, number];
  readonly near: number;
  /** Null is infinity. */
  readonly far: number | null;
}

const row = (m: Mat4, i: number): Vec4 => [m[4 * i]!, m[4 * i + 1]!, m[4 * i + 2]!, m[4 * i + 3]!];
const three = ([x, y, z]: Vec4): Vec3 => [x, y, z];

/** A pose from the rows right, up, ahead (with their last numbers) over canonical world; null where they flatten. */
function poseOf(rows: readonly Vec4[]): ReadPose | null {
  const [r, u, f] = rows.map(three) as [Vec3, Vec3, Vec3];
  const m = invert4([...rows.flat(), 0, 0, 0, 1] as unknown as Mat4);
  const sizes: Vec3 = [length(r), length(u), length(f)];
  if (!m || sizes.some((v) => !(v > 0))) return null;
  const [right, up, forward] = [r, u, f].map((v, i) => scale(v, 1 / sizes[i]!)) as [Vec3, Vec3, Vec3];
  return {
    ...{ eye: [m[3]!, m[7]!, m[11]!], right, up, forward, scale: sizes },
    shear: Math.max(Math.abs(dot(right, up)), Math.abs(dot(up, forward)), Math.abs(dot(forward, right))),
    mirrored: dot(cross(right, up), forward) > 0,
  };
}

/** A view matrix (world to view, in the request's axes) as a pose; null where it is none. */
export function readView(view: Mat4, e: ConventionCodec): ReadPose | null {
  const m = e.fromViewMatrix(view);
  const [x, y, z, w] = row(m, 3);
  if (Math.abs(x) + Math.abs(y) + Math.abs(z) > 1e-6 * Math.abs(w)) return null;
  return poseOf([row(m, 0), row(m, 1), row(m, 2)]);
}

/** A lens from the rows of a projection over (right, up, ahead, 1), NDC y up; null where it is none. */
function lensOf([x, y, z, w]: readonly Vec4[], zn: number, zf: number): ReadLens | null {
  const size = (v: Vec4) => Math.max(...v.map(Math.abs));
  const small = (v: number, of: Vec4) => Math.abs(v) <= 1e-4 * size(of);
  if (!x || !y || !z || !w || !small(x[1], x) || !small(y[0], y) || !small(z[0], z) || !small(z[1], z)) return null;
  const perspective = small(w[3], w) && small(w[0], w) && small(w[1], w) && w[2] > 0;
  const parallel = small(w[0], w) && small(w[1], w) && small(w[2], w) && w[3] > 0;
  if (perspective) {
    if (!small(x[3], x) || !small(y[3], y) || !(Math.abs(x[0]) > 0) || !(Math.abs(y[1]) > 0)) return null;
    const k = w[2];
    // Depth clip is slope·f + constant: zn·n at near, zf·far at far.
    const [slope, constant] = [z[2] / k, z[3] / k];
    const near = constant / (zn - slope);
    const far = Math.abs(zf - slope) <= 1e-7 * Math.max(1, Math.abs(zf)) ? null : constant / (zf - slope);
    if (!(near > 0) || (far !== null && !(far > near))) return null;
    return { kind: 'perspective', half: [k / x[0], k / y[1]], shift: [-x[2] / k || 0, -y[2] / k || 0], near, far };
  }
  if (!parallel || !small(x[2], x) || !small(y[2], y) || !(Math.abs(x[0]) > 0) || !(Math.abs(y[1]) > 0)) return null;
  const k = w[3];
  const [near, far] = [(zn - z[3] / k) / (z[2] / k), (zf - z[3] / k) / (z[2] / k)];
  if (!(far > near)) return null;
  return { kind: 'orthographic', half: [k / x[0], k / y[1]], shift: [-x[3] / k || 0, -y[3] / k || 0], near, far };
}

/** A projection matrix (view to clip, in the request's axes) as a lens; null where it is none. */
export function readLens(projection: Mat4, e: ConventionCodec): ReadLens | null {
  const m = e.fromProjection(projection);
  const { near, far } = e.conventions.ndc;
  return lensOf([row(m, 0), row(m, 1), row(m, 2), row(m, 3)], near, far);
}

/**
 * A view projection (world to clip, in the request's axes) as a pose and a lens: w is the distance
 * ahead, x and y are right and up over it, each with what the shift adds. Null where it is no camera.
 */
export function readViewProjection(
  m: Mat4,
  e: ConventionCodec,
): { readonly pose: ReadPose; readonly lens: ReadLens } | null {
  const { ndc } = e.conventions;
  const own = e.fromViewProjection(m);
  const [x, y, z, w] = [row(own, 0), row(own, 1), row(own, 2), row(own, 3)];
  const ahead = length(three(w));
  const parallel = ahead <= 1e-7 * Math.abs(w[3]);
  if (parallel && !(w[3] > 0)) return null;
  // In orthographic depth runs along the gaze.
  const way = parallel ? three(z) : three(w);
  const size = length(way);
  if (!(size > 0)) return null;
  const forward = scale(way, (parallel && ndc.far < ndc.near ? -1 : 1) / size);
  const off = (v: Vec4): readonly [Vec3, number] => {
    const along = dot(three(v), forward);
    return [sub(three(v), scale(forward, along)), along];
  };
  const [[r, sx], [u, sy]] = [off(x), off(y)];
  const [lr, lu] = [length(r), length(u)];
  if (!(lr > 0) || !(lu > 0)) return null;
  if (parallel) {
    const k = w[3];
    const slope = dot(three(z), forward) / k;
    // The eye of a parallel camera may stand anywhere along its gaze: where depth is what near has.
    const near = 0;
    const at = invert4([...scale(r, 1 / lr), 0, ...scale(u, 1 / lu), 0, ...forward, 0, 0, 0, 0, 1] as unknown as Mat4);
    if (!at || !(Math.abs(slope) > 0)) return null;
    const f0 = (ndc.near - z[3] / k) / slope;
    const eye = three(transform(at, [-x[3] / lr, -y[3] / lu, f0, 1]));
    const far = (ndc.far - ndc.near) / slope;
    return far > 0
      ? { pose: { eye, right: scale(r, 1 / lr), up: scale(u, 1 / lu), forward, scale: [1, 1, 1], shear: Math.abs(dot(r, u)) / (lr * lu), mirrored: dot(cross(r, u), forward) > 0 }, lens: { kind: 'orthographic', half: [k / lr, k / lu], shift: [0, 0], near, far } } // prettier-ignore
      : null;
  }
  const eyeOf = invert4([...x, ...y, ...w, 0, 0, 0, 1] as unknown as Mat4);
  if (!eyeOf) return null;
  const eye: Vec3 = [eyeOf[3]!, eyeOf[7]!, eyeOf[11]!];
  const depth = off(z)[1] / ahead;
  const constant = (dot(three(z), eye) + z[3]) / ahead;
  const near = constant / (ndc.near - depth);
  const far = Math.abs(ndc.far - depth) <= 1e-7 * Math.max(1, Math.abs(ndc.far)) ? null : constant / (ndc.far - depth);
  if (!(near > 0) || (far !== null && !(far > near))) return null;
  const pose: ReadPose = {
    ...{ eye, right: scale(r, 1 / lr), up: scale(u, 1 / lu), forward, scale: [1, 1, ahead] },
    shear: Math.abs(dot(r, u)) / (lr * lu),
    mirrored: dot(cross(r, u), forward) > 0,
  };
  return { pose, lens: { kind: 'perspective', half: [ahead / lr, ahead / lu], shift: [-sx / ahead || 0, -sy / ahead || 0], near, far } }; // prettier-ignore
}

/** What was read, if all of its numbers are of a size that can be worked with. */
const sound = <T extends object>(read: T | null): T | null => {
  const fine = (value: unknown): boolean =>
    typeof value === 'number' ? Math.abs(value) < 1e100 && !(Math.abs(value) > 0 && Math.abs(value) < 1e-100) : typeof value !== 'object' || value === null || Object.values(value).every(fine); // prettier-ignore
  return read && fine(read) ? read : null;
};

/** The pose and the lens that given matrices hold, as far as they do. */
export function readGiven(
  { matrices }: Given,
  e: ConventionCodec,
): { readonly pose: ReadPose | null; readonly lens: ReadLens | null } {
  // prettier-ignore
  const { view, cameraToWorld, projection, viewProjection } = matrices;
  const whole = viewProjection ? readViewProjection(viewProjection, e) : null;
  const inverse = cameraToWorld && !view ? invert4(cameraToWorld) : null;
  const pose = view ? readView(view, e) : inverse ? readView(inverse, e) : (whole?.pose ?? null);
  return { pose: sound(pose), lens: sound(projection ? readLens(projection, e) : (whole?.lens ?? null)) };
}
