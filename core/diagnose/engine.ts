import type { CameraFrame } from '../camera/frame';
import { indexOf } from '../conventions/axes';
import { pictureShape, projectionMatrix } from '../camera/frame';
import { worldUp, type Angles, type Basis } from '../camera/orientation';
import type { DepthRange } from '../camera/projection';
import type { ConventionCodec } from '../conventions/codec';
import { identity, mat4, multiply, transform, transpose, type Mat4 } from '../math/mat4';
import { cross, dot, negate, scale, type Vec2, type Vec3, type Vec4 } from '../math/vec3';
import { invert4 } from '../math/invert';
import { translationFaults, type FaultName, type MatrixName } from './faults';

/*
 * An engine that makes a camera's numbers step by step, and commits faults on the way. Matrices are
 * those of column vectors in the request's view, world and NDC axes: how they are listed is another
 * matter.
 */

/** The field of view as it was typed: which, and its number in the request's unit. */
export interface TypedField {
  readonly kind: 'verticalFov' | 'horizontalFov' | 'diagonalFov';
  readonly number: number;
}

/** The intended camera, with what faults need to know of how it was said. */
export interface Intended {
  readonly frame: CameraFrame;
  readonly e: ConventionCodec;
  /** Canonical, radians; null where the orientation is not by angles. */
  readonly angles: Angles | null;
  /** Whether the orientation has no roll and no up of its own: right is made of forward and the world's up. */
  readonly plainUp: boolean;
  /** Null where it is no field of view. */
  readonly field: TypedField | null;
  /** Whether the extents are typed: no aspect plays a part then. */
  readonly isFrustum: boolean;
  readonly devicePixelRatio: number | null;
}

/** A fault that an engine commits; `up` is how it rounds the half pixel, or which way a ratio is applied. */
export interface Committed {
  readonly fault: FaultName;
  readonly up?: boolean;
}
type Faults = readonly FaultName[];

/** Radians of the canonical sense, taken for the other unit by the engine. */
const otherUnit = (radiansOf: number, e: ConventionCodec): number =>
  // The number that was typed, read by the other unit.
  e.conventions.angles.unit === 'degrees' ? (radiansOf * 180) / Math.PI : (radiansOf * Math.PI) / 180;

const turn = (axis: 'yaw' | 'pitch' | 'roll', a: number, v: Vec3): Vec3 => {
  const [s, c] = [Math.sin(a), Math.cos(a)];
  const [x, y, z] = v;
  // Yaw to the right about up (+y), pitch upward about right (+x), roll to the right about ahead (−z).
  if (axis === 'yaw') return [x * c - z * s, y, x * s + z * c];
  if (axis === 'pitch') return [x, y * c - z * s, y * s + z * c];
  return [x * c + y * s, y * c - x * s, z];
};
const turned = ({ yaw, pitch, roll }: Angles, pitchFirst: boolean): Basis => {
  const of = (v: Vec3): Vec3 => {
    const rolled = turn('roll', roll, v);
    return pitchFirst ? turn('pitch', pitch, turn('yaw', yaw, rolled)) : turn('yaw', yaw, turn('pitch', pitch, rolled));
  };
  return { right: of([1, 0, 0]), up: of([0, 1, 0]), forward: of([0, 0, -1]) };
};

/** The basis that the engine comes to, square or not. */
function basisWith({ frame, e, angles }: Intended, faults: Faults): Basis {
  const has = (fault: FaultName) => faults.includes(fault);
  let { right, up, forward }: Basis = frame;
  if (angles) {
    const sign = (fault: FaultName) => (has(fault) ? -1 : 1);
    const unit = (a: number) => (has('anglesInOtherUnit') ? otherUnit(a, e) : a);
    const taken = {
      yaw: sign('yawNegated') * unit(angles.yaw),
      pitch: sign('pitchNegated') * unit(angles.pitch),
      roll: sign('rollNegated') * unit(angles.roll),
    };
    ({ right, up, forward } = turned(taken, has('rotationOrder')));
  }
  if (has('notNormalised')) {
    right = cross(forward, worldUp);
    up = cross(right, forward);
  }
  if (has('upNotSquare')) up = worldUp;
  return { right, up, forward };
}

/** Right, up and ahead, each with the last number of its row in the view; canonical world. */
function rowsWith(intended: Intended, faults: Faults) {
  const has = (fault: FaultName) => faults.includes(fault);
  let { right, up, forward } = basisWith(intended, faults);
  if (has('forwardNegated')) [right, forward] = [negate(right), negate(forward)];
  if (has('aheadNegated')) forward = negate(forward);
  if (has('rightNegated')) right = negate(right);
  if (has('upNegated')) up = negate(up);
  return { right, up, forward };
}

/** The view that the engine comes to, from world to view. */
export function viewWith(intended: Intended, faults: Faults): Mat4 {
  const { frame, e } = intended;
  const sign = faults.includes('translationNotNegated') ? 1 : faults.includes('translationMissing') ? 0 : -1;
  const { right, up, forward } = rowsWith(intended, faults);
  const row = (v: Vec3) => [...v, sign * dot(v, frame.eye)];
  const view = e.toViewMatrix(mat4([...row(right), ...row(up), ...row(forward), 0, 0, 0, 1]));
  if (!faults.includes('translationNotRotated')) return view;
  // The three numbers of −eye as they stand in the world's axes.
  return withTranslation(view, negate(e.toWorld(frame.eye)));
}

const withTranslation = (m: Mat4, [x, y, z]: Vec3): Mat4 => mat4(m.map((v, i) => (i === 3 ? x : i === 7 ? y : i === 11 ? z : v))); // prettier-ignore

/**
 * The camera's own transform that the engine comes to, not by way of the view: its axes as columns
 * and its eye. What faults do to a translation they do to the eye here.
 */
export function ownTransformWith(intended: Intended, faults: Faults): Mat4 {
  const axes = viewWith(intended, faults.filter((fault) => !translations.includes(fault))); // prettier-ignore
  const { frame, e } = intended;
  const k = faults.includes('translationMissing') ? 0 : faults.includes('translationNotNegated') ? -1 : 1;
  const turned = transpose(withTranslation(axes, [0, 0, 0]));
  return withTranslation(turned, scale(e.toWorld(frame.eye), k));
}
const translations: readonly FaultName[] = translationFaults;

/** Half the width and height of the picture at near (orthographic: anywhere), as the engine has them. */
function halvesWith({ frame, e, field, isFrustum }: Intended, faults: Faults): Vec2 {
  const has = (fault: FaultName) => faults.includes(fault);
  const { near } = frame;
  const { width, height, aspect } = pictureShape(frame);
  let [w, h]: Vec2 = [width / 2, height / 2];
  if (field && (has('fovInOtherUnit') || has('halfAngleTwice') || has('halfAngleMissing') || has('fovAxis'))) {
    const radiansOf = e.fromAngle(field.number);
    const angle = has('fovInOtherUnit') ? otherUnit(radiansOf, e) : radiansOf;
    const t = near * Math.tan(has('halfAngleMissing') ? angle : has('halfAngleTwice') ? angle / 4 : angle / 2);
    if (field.kind === 'diagonalFov') h = t / Math.hypot(1, aspect);
    else if (field.kind === 'horizontalFov' || has('fovAxis')) h = t / aspect;
    else h = t;
    w = h * aspect;
  }
  if (!isFrustum && has('aspectInverted')) w = h / aspect;
  if (!isFrustum && has('aspectMissing')) w = h;
  return [w, h];
}

const otherRange = (zn: number, zf: number): readonly [number, number] => {
  const full = Math.min(zn, zf) === -1;
  const [low, high] = full ? [0, 1] : [-1, 1];
  return zn < zf ? [low, high] : [high, low];
};
/** The projection that the engine comes to, from view to clip. */
export function projectionWith(intended: Intended, faults: Faults): Mat4 {
  const { frame, e } = intended;
  const has = (fault: FaultName) => faults.includes(fault);
  const [w, h] = halvesWith(intended, faults);
  const kept = has('shiftLeftOut') ? 0 : 1;
  const [sx, sy] = pictureShape(frame).shift.map((v) => kept * v) as unknown as Vec2;
  const extents = { left: (sx - 1) * w, right: (sx + 1) * w, bottom: (sy - 1) * h, top: (sy + 1) * h };
  const range: DepthRange =
    frame.kind === 'perspective'
      ? { kind: 'perspective', near: frame.near, far: has('farLeftOut') ? null : frame.far }
      : { kind: 'orthographic', near: frame.near, far: frame.far };
  const { ndc } = e.conventions;
  let [zn, zf] = has('depthRangeOther') ? otherRange(ndc.near, ndc.far) : [ndc.near, ndc.far];
  if (has('depthReversed')) [zn, zf] = [zf, zn];
  const m = [...projectionMatrix({ ...range, extents }, zn, zf)];
  const negateRow = (row: number) => {
    for (let i = 4 * row; i < 4 * row + 4; i++) m[i] = -m[i]!;
  };
  if (has('wNegated')) negateRow(3);
  if (has('projectionOtherHanded')) for (let i = 2; i < 16; i += 4) m[i] = -m[i]!;
  if (has('yFlipped')) negateRow(1);
  if (has('xFlipped')) negateRow(0);
  return e.toProjection(mat4(m));
}

/** Swaps, flips, transposes, inverts or never sets a matrix that has been made; null where there is no inverse. */
export function wholeWith(m: Mat4 | null, faults: Faults): Mat4 | null {
  if (!m) return null;
  let made: Mat4 | null = m;
  if (faults.includes('identity')) made = identity;
  if (faults.includes('inverted')) made = invert4(made);
  if (made && faults.includes('transposed')) made = transpose(made);
  return made;
}

/** A view with its ahead coordinate negated, as a projection for view axes of the other handedness expects it. */
export function withAheadNegated({ e }: Intended, view: Mat4): Mat4 {
  const row = indexOf(e.conventions.view.forward);
  return mat4(view.map((v, i) => (i >> 2 === row ? -v : v)));
}

/** NDC rows of a view projection that are negated after it has been made. */
export function ndcRowsWith(m: Mat4, faults: Faults): Mat4 {
  const rows = [...m];
  if (faults.includes('yFlipped')) for (let i = 4; i < 8; i++) rows[i] = -rows[i]!;
  if (faults.includes('xFlipped')) for (let i = 0; i < 4; i++) rows[i] = -rows[i]!;
  return mat4(rows);
}

/** A point as an engine prints it: where on the screen, and how deep. */
export interface PrintedPoint {
  readonly screen: Vec2;
  readonly depth: number;
}

/**
 * The point of the screen that an engine comes to with a view projection, by the request's viewport;
 * null where it divides by nothing.
 */
export function pointWith(
  { frame, e, devicePixelRatio }: Intended,
  viewProjection: Mat4,
  world: Vec3,
  faults: readonly Committed[],
): PrintedPoint | null {
  const has = (fault: FaultName) => faults.some((one) => one.fault === fault);
  const [x, y, z, w] = transform(viewProjection, [world[0], world[1], world[2], 1] as Vec4);
  const k = has('notDivided') ? 1 : w;
  if (!(Math.abs(k) > 0)) return null;
  const ndc: Vec3 = [x / k, y / k, z / k];
  const { across, upward, depth01 } = e.fromNdc(ndc);
  const v = frame.viewport;
  const ways: Vec2 = [has('xFlipped') ? -across : across, has('yFlipped') ? -upward : upward];
  let screen: Vec2 = has('viewportMissing') ? [ndc[0], ndc[1]] : e.toScreen(v, ...ways);
  if (has('viewportOffset')) screen = [screen[0] - v.x, screen[1] - v.y];
  for (const { fault, up } of faults) {
    const ratio = devicePixelRatio ?? 1;
    if (fault === 'devicePixelRatio') screen = up ? [screen[0] * ratio, screen[1] * ratio] : [screen[0] / ratio, screen[1] / ratio]; // prettier-ignore
    if (fault === 'halfPixel') screen = [screen[0] + (up ? 0.5 : -0.5), screen[1] + (up ? 0.5 : -0.5)];
  }
  return screen.every(Number.isFinite) ? { screen, depth: e.toDepth(depth01) } : null;
}

/** The matrices that the engine comes to with nothing wrong. */
export function rightMatrices(intended: Intended): Readonly<Record<MatrixName, Mat4>> {
  const [view, projection] = [viewWith(intended, []), projectionWith(intended, [])];
  return {
    ...{ view, projection, viewProjection: multiply(projection, view) },
    cameraToWorld: ownTransformWith(intended, []),
  };
}
