import { frameFov, reposed, type CameraFrame, type Viewport } from '../camera/frame';
import {
  axisFrames,
  handednessOf,
  indexOf,
  signedAxes,
  signOf,
  type AxisFrame,
  type SignedAxis,
} from '../conventions/axes';
import { anglesOfBasis } from '../camera/orientation';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import { usualDepths, withOtherListing, type Conventions } from '../conventions/conventions';
import { mat4, type Mat4 } from '../math/mat4';
import { add, distance, dot, length, scale, sub, type Vec3 } from '../math/vec3';
import { readLens, readView, readViewProjection, type ReadLens, type ReadPose } from './decompose';
import type { MatrixName } from './faults';
import { invert4 } from '../math/invert';
import { pointWith } from './engine';
import { assembleCamera, isProperLens, squarePose, type SquarePose } from './properCamera';
import type { GivenPoint } from './given';
import { closeMatrix, closePoints } from './search';

/** Sixteen numbers of each matrix, as they were listed. */
export type Listed = Readonly<Partial<Record<MatrixName, readonly number[]>>>;

/** Conventions under which the numbers are a proper camera, and that camera. */
export interface Candidate {
  readonly e: ConventionCodec;
  /** Whether the numbers are listed the other way than the request's matrix says. */
  readonly transposed: boolean;
  /** What of a camera the numbers hold. */
  readonly hasPose: boolean;
  readonly hasLens: boolean;
  /** The camera; what the numbers do not hold of it is a placeholder. */
  readonly frame: CameraFrame;
  /** Lower is likelier. */
  readonly cost: number;
}

/** What the candidates differ in. */
export type OpenName = 'world' | 'view' | 'ndc' | 'matrix';
/** The number that would decide it: what a candidate has for it. */
export type DecidingNumber = 'near' | 'position' | 'viewOfPoint' | 'yaw';
export interface Open {
  readonly name: OpenName;
  readonly number: DecidingNumber;
  /** Likeliest first: what the convention may be, and the number under it; empty where nothing given bears on it. */
  readonly values: readonly { readonly candidate: Candidate; readonly number: number | Vec3 }[];
}

/** The place that decides between axes: 1 to the right, 2 up and 3 ahead of the camera. */
export const decidingPoint: Vec3 = [1, 2, 3];

/** Whether the world's axes of a request are taken as they are, or any that the numbers allow. */
export type WorldChoice = 'given' | 'any';
type Hand = 'right' | 'left';
const frameWith = (up: SignedAxis, forward: SignedAxis, hand: Hand): AxisFrame =>
  axisFrames.find((one) => one.up === up && one.forward === forward && handednessOf(one) === hand)!;

/** Assignments of world axes with an up and a handedness, one for each forward; first the forward of the request. */
function worldsWithUp(up: SignedAxis, hand: Hand, asked: AxisFrame): readonly AxisFrame[] {
  const forwards = signedAxes.filter((axis) => indexOf(axis) !== indexOf(up));
  // Where up takes the request's forward axis, the axis set free is ahead.
  const [first] = [asked.forward, asked.up].filter((axis) => forwards.includes(axis));
  return forwards
    .sort((a, b) => Number(b === first) - Number(a === first))
    .map((forward) => frameWith(up, forward, hand));
}

/**
 * The world axes under which a pose is that of a camera: of the handedness that does not mirror it, the request's own
 * if they are of that, and those whose up is perpendicular to the camera's right. Without such an up, the request's.
 * Of every up one forward stands for all four, which no matrix tells apart.
 */
function worldsOf(pose: ReadPose, e: ConventionCodec, digits: number): readonly AxisFrame[] {
  const asked = e.conventions.world;
  const askedHand = handednessOf(asked);
  const hand: Hand = pose.mirrored ? (askedHand === 'right' ? 'left' : 'right') : askedHand;
  const [right, up] = [e.toWorld(pose.right), e.toWorld(pose.up)];
  const small = 30 * 10 ** -digits;
  const ups = signedAxes.filter((axis) => {
    const k = indexOf(axis);
    return Math.abs(right[k]!) <= small && signOf(axis) * up[k]! >= -small;
  });
  const worlds = (ups.length ? ups : [asked.up]).map((one) => worldsWithUp(one, hand, asked)[0]!);
  return pose.mirrored ? worlds : [asked, ...worlds.filter((one) => one.up !== asked.up)];
}

/**
 * Pose and lens of what was given, taken from the plainest place that holds each: a view before a
 * view projection, a projection before one. Null where one that should be there is none.
 */
function read(
  given: Readonly<Partial<Record<MatrixName, Mat4>>>,
  e: ConventionCodec,
  digits: number,
): { readonly pose: SquarePose | null; readonly lens: ReadLens | null } | null {
  const { view, cameraToWorld, projection, viewProjection } = given;
  const whole = viewProjection ? readViewProjection(viewProjection, e) : null;
  if (viewProjection && !whole) return null;
  const own = view ?? (cameraToWorld ? invert4(cameraToWorld) : undefined);
  if (own === null) return null;
  const posed = own ? readView(own, e) : (whole?.pose ?? null);
  if (own && !posed) return null;
  // A view projection of a parallel camera says no lengths of its axes, and one of perspective w’s alone.
  const pose = posed && squarePose(posed, digits);
  if (posed && !pose) return null;
  const lens = projection ? readLens(projection, e) : (whole?.lens ?? null);
  if ((projection ?? viewProjection) && (!lens || !isProperLens(lens))) return null;
  if (!pose || !lens || !whole || lens.kind === 'perspective') return { pose, lens };
  // The eye of a parallel camera may stand anywhere: where the other matrix has it.
  const { right, up, forward } = pose.basis;
  const [w, h] = lens.half;
  if (projection) {
    const back = add(add(scale(forward, -lens.near), scale(right, lens.shift[0] * -w)), scale(up, lens.shift[1] * -h));
    return { pose: { ...pose, eye: own ? pose.eye : add(pose.eye, back) }, lens };
  }
  if (!own) return { pose, lens };
  const off = sub(whole.pose.eye, pose.eye);
  const along = dot(off, forward);
  return { pose, lens: { ...lens, shift: [dot(off, right) / w, dot(off, up) / h], near: lens.near + along, far: lens.far! + along } }; // prettier-ignore
}

/** How many significant figures a number has within what can be trusted of it: few are typed, many come about. */
function figures(v: number, relative: number): number {
  if (v === 0) return 0;
  for (let n = 1; n < 9; n++) if (Math.abs(Number(v.toPrecision(n)) - v) <= relative * Math.abs(v)) return n;
  return 9;
}
const beyond = (v: number, relative: number) => 0.7 * Math.max(0, figures(v, relative) - 2);

const same = (a: AxisFrame, b: AxisFrame) => a.right === b.right && a.up === b.up && a.forward === b.forward;
const usualAxes = ({ right, up, forward }: AxisFrame) => right === '+x' && indexOf(up) === 1 && indexOf(forward) === 2;

/** How unlikely a candidate is: habits of the trade, level cameras, and near and far that someone typed. */
function costOf(candidate: Omit<Candidate, 'cost'>, asked: Conventions, digits: number): number {
  const { e, transposed, frame, hasPose, hasLens } = candidate;
  const { view, ndc, world } = e.conventions;
  let cost = transposed ? 3 : 0;
  if (!same(world, asked.world)) cost += handednessOf(world) === handednessOf(asked.world) ? 1 : 2;
  cost += same(view, asked.view) ? 0 : usualAxes(view) ? (signOf(view.up) > 0 ? 1 : 1.5) : 4;
  if (hasPose) {
    // Level cameras come before all others.
    if (Math.abs(frame.right[1]) > 1e-4) cost += 20;
    if (frame.up[1] < 0) cost += 2;
  }
  if (hasLens) {
    const range = usualDepths.findIndex(([n, f]) => n === ndc.near && f === ndc.far);
    if (ndc.near !== asked.ndc.near || ndc.far !== asked.ndc.far) cost += [0.5, 0.5, 1, 2][range]!;
    const loose = 10 ** (1 - digits);
    cost += beyond(frame.near, 10 * loose);
    // Far comes of a small difference in perspective, and is trusted the less.
    if (frame.far !== null) cost += beyond(frame.far, frame.kind === 'perspective' ? loose * Math.max(10, frame.far / frame.near) : 10 * loose); // prettier-ignore
    if (frame.kind === 'orthographic' && frame.near < 0) cost += 1;
  }
  return cost;
}

type Given = Readonly<Partial<Record<MatrixName, Mat4>>>;
/** Whether a camera's matrices, and its picture of points where it is whole, are those that were given. */
function givesBack(given: Given, points: readonly GivenPoint[], one: Omit<Candidate, 'cost'>, digits: number): boolean {
  const { e, frame } = one;
  for (const [name, m] of Object.entries(given) as [MatrixName, Mat4][])
    if (!closeMatrix(m, e.matrix(frame, name), digits)) return false;
  if (!points.length || !one.hasPose || !one.hasLens) return true;
  const intended = { frame, e, angles: null, plainUp: false, field: null, isFrustum: true, devicePixelRatio: null };
  const whole = e.matrix(frame, 'viewProjection');
  return closePoints(points, ({ world }) => pointWith(intended, whole, world, []), digits);
}

/** The pose that given matrices hold, mirrored or not; null where they hold none. */
function poseIn({ view, cameraToWorld, viewProjection }: Given, e: ConventionCodec): ReadPose | null {
  const own = view ?? (cameraToWorld ? invert4(cameraToWorld) : undefined);
  if (own === null) return null;
  return own ? readView(own, e) : viewProjection ? (readViewProjection(viewProjection, e)?.pose ?? null) : null;
}

/**
 * The conventions under which matrices are those of one proper camera, likeliest first: every assignment of world and
 * view axes, NDC depths (−1…1, 0…1, 1…0, 1…−1) and listing (as asked, or its transpose) whose camera gives the numbers
 * back to their digits. Worlds that differ only in which way is forward are one candidate. The NDC's up, screen and
 * angles are those asked. Without a view or a projection the view axes stay those asked, without a projection or a
 * view projection the NDC depths do. Points are only asked of whole cameras. Empty where the numbers are no camera's.
 *
 * @param worldChoice - `given` keeps the world axes of the request
 */
export function identify(
  listed: Listed,
  points: readonly GivenPoint[],
  asked: Conventions,
  viewport: Viewport,
  digits: number,
  worldChoice: WorldChoice = 'any',
): readonly Candidate[] {
  const { view, cameraToWorld, projection, viewProjection } = listed;
  const hasPose = !!(view ?? cameraToWorld ?? viewProjection);
  const hasLens = !!(projection ?? viewProjection);
  const axesBear = !!(view ?? cameraToWorld ?? projection);
  const candidates: Candidate[] = [];
  if (!hasPose && !hasLens) return candidates;
  for (const transposed of [false, true]) {
    const listing = transposed ? withOtherListing(asked) : asked;
    const from = codecOf(listing);
    const given: Partial<Record<MatrixName, Mat4>> = {};
    for (const [name, list] of Object.entries(listed)) if (list) given[name as MatrixName] = from.fromList(mat4(list)); // prettier-ignore
    for (const axes of axesBear ? axisFrames : [asked.view])
      for (const [near, far] of hasLens ? usualDepths : [[asked.ndc.near, asked.ndc.far] as const]) {
        const conventions = { ...listing, view: axes, ndc: { ...listing.ndc, near, far } };
        const pose = hasPose && worldChoice === 'any' ? poseIn(given, codecOf(conventions)) : null;
        for (const world of pose ? worldsOf(pose, codecOf(conventions), digits) : [asked.world]) {
          const e = codecOf({ ...conventions, world });
          const found = read(given, e, digits);
          const frame = found && assembleCamera(found.pose, found.lens, viewport);
          if (!frame) continue;
          const made = { e, transposed, hasPose, hasLens, frame };
          if (givesBack(given, points, made, digits)) candidates.push({ ...made, cost: costOf(made, asked, digits) });
        }
      }
  }
  return candidates.sort((a, b) => a.cost - b.cost);
}

const valueOf = (name: OpenName, { e, transposed }: Candidate): string =>
  name === 'world' ? Object.values(e.conventions.world).join() :   name === 'view' ? Object.values(e.conventions.view).join() : name === 'ndc' ? `${e.conventions.ndc.near} ${e.conventions.ndc.far}` : String(transposed); // prettier-ignore
const numberOf = (number: DecidingNumber, { e, frame }: Candidate): number | Vec3 =>
  number === 'yaw'
    ? e.toAngles(anglesOfBasis(frame)).yaw
    : number === 'near'
      ? frame.near
      : number === 'position'
        ? e.toWorld(frame.eye)
        : e.toView(decidingPoint);

/** The same camera under the other world axes with its up and handedness: forward is another axis. */
function forwardsOf(candidate: Candidate): readonly Candidate[] {
  const { e, frame } = candidate;
  const { world } = e.conventions;
  const toNumbers = (v: Vec3) => e.toWorld(v);
  return worldsWithUp(world.up, handednessOf(world), world).flatMap((one) => {
    const other = codecOf({ ...e.conventions, world: one });
    const turned = (v: Vec3) => other.fromWorld(toNumbers(v));
    const basis = { right: turned(frame.right), up: turned(frame.up), forward: turned(frame.forward) };
    const made = reposed(frame, { eye: turned(frame.eye), basis });
    return made ? [{ ...candidate, e: other, frame: made }] : [];
  });
}

/**
 * What candidates differ in, each with the further number that would decide it; of what nothing given bears on (view
 * axes of a view projection, depths of a view) without values.
 */
export function openOf(
  candidates: readonly Candidate[],
  listed: Listed,
  worldChoice: WorldChoice = 'any',
): readonly Open[] {
  const first = candidates[0];
  if (!first) return [];
  const axesBear = !!(listed.view ?? listed.cameraToWorld ?? listed.projection);
  return (['matrix', 'view', 'ndc', 'world'] as const).flatMap((name): Open[] => {
    const number =
      name === 'world'
        ? 'yaw'
        : name === 'view'
          ? 'viewOfPoint'
          : name === 'ndc' || !first.hasPose
            ? 'near'
            : 'position';
    const listedValues = (list: Iterable<Candidate>): Open => ({
      name,
      number,
      values: [...list].map((candidate) => ({ candidate, number: numberOf(number, candidate) })),
    });
    const best = new Map<string, Candidate>();
    for (const one of candidates) if (!best.has(valueOf(name, one))) best.set(valueOf(name, one), one);
    if (name === 'world') {
      if (worldChoice === 'given' || !first.hasPose) return [];
      const others = [...best.values()].slice(1).filter(({ e }) => !sharesUp(e, first.e));
      return [listedValues([...forwardsOf(first), ...others])];
    }
    if (best.size > 1) return [listedValues(best.values())];
    const unborne = (name === 'view' && !axesBear) || (name === 'ndc' && !first.hasLens);
    return unborne ? [{ name, number, values: [] }] : [];
  });
}
const sharesUp = (a: ConventionCodec, b: ConventionCodec): boolean =>
  a.conventions.world.up === b.conventions.world.up && a.handedness.world === b.handedness.world;

/** What of the camera all candidates agree on, to the digits; only what the numbers hold. */
export function agreedOf(candidates: readonly Candidate[], digits: number) {
  const [first] = candidates;
  if (!first) return {};
  const loose = 10 ** (2 - digits);
  const every = (of: (f: CameraFrame) => number | null) => candidates.every(({ frame }) => {
    const [a, b] = [of(frame), of(first.frame)];
    return a === b || (a !== null && b !== null && Math.abs(a - b) <= loose * Math.max(Math.abs(a), Math.abs(b)));
  }); // prettier-ignore
  const { frame, e } = first;
  // Positions and directions are numbers over the world's axis names, whichever those axes are.
  const sameWorld = (of: (one: Candidate) => Vec3, loose: number) =>
    candidates.every((one) => distance(one.e.toWorld(of(one)), e.toWorld(of(first))) <= loose);
  return {
    ...(first.hasPose && candidates.every((one) => sharesUp(one.e, e)) && { worldUp: e.conventions.world.up, worldHandedness: e.handedness.world }), // prettier-ignore
    ...(first.hasPose && sameWorld((one) => one.frame.eye, loose * (1 + length(frame.eye))) && { position: e.toWorld(frame.eye) }), // prettier-ignore
    ...(first.hasPose && sameWorld((one) => one.frame.forward, loose) && { forward: e.toWorld(frame.forward) }), // prettier-ignore
    ...(first.hasLens && frame.kind === 'perspective' && every(frameFov) && { verticalFov: e.toAngle(frameFov(frame)!) }), // prettier-ignore
    ...(first.hasLens && every((f) => f.near) && { near: frame.near }),
    ...(first.hasLens && every((f) => f.far) && { far: frame.far }),
  };
}
