import { frameOf, frameFov, type CameraFrame, type Viewport } from '../camera/frame';
import type { Basis } from '../camera/orientation';
import { axisFrames, indexOf, signOf, type AxisFrame } from '../conventions/axes';
import { codecOf, type ConventionCodec } from '../conventions/codec';
import { usualDepths, withOtherListing, type Conventions } from '../conventions/conventions';
import { mat4, type Mat4 } from '../math/mat4';
import { add, distance, dot, length, scale, sub, type Vec3 } from '../math/vec3';
import { readLens, readView, readViewProjection, type ReadLens, type ReadPose } from './decompose';
import type { MatrixName } from './faults';
import { invert4 } from './invert';
import { pointWith } from './engine';
import { closeMatrix, closePoints, type GivenPoint } from './search';

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
export type OpenName = 'view' | 'ndc' | 'matrix';
/** The number that would decide it: what a candidate has for it. */
export type DecidingNumber = 'near' | 'position' | 'viewOfPoint';
export interface Open {
  readonly name: OpenName;
  readonly number: DecidingNumber;
  /** Likeliest first: what the convention may be, and the number under it; empty where nothing given bears on it. */
  readonly values: readonly { readonly candidate: Candidate; readonly number: number | Vec3 }[];
}

/** The place that decides between axes: 1 to the right, 2 up and 3 ahead of the camera. */
export const decidingPoint: Vec3 = [1, 2, 3];

interface Placed {
  readonly basis: Basis;
  readonly eye: Vec3;
}
/** A pose whose axes are exactly square; null where they are not, or mirrored, to within the digits. */
function squared(pose: ReadPose, digits: number): Placed | null {
  const loose = 30 * 10 ** -digits;
  if (pose.mirrored || pose.shear > loose || pose.scale.some((v) => Math.abs(v - 1) > loose)) return null;
  // The nearest square axes, by Newton’s steps (Higham 1986): none of the three is kept at the cost of the others.
  let { right, up, forward } = pose;
  for (let step = 0; step < 3; step++) {
    const [ru, uf, fr] = [dot(right, up), dot(up, forward), dot(forward, right)];
    const toward = (a: Vec3, b: Vec3, ab: number, c: Vec3, ca: number): Vec3 =>
      sub(scale(a, (3 - dot(a, a)) / 2), add(scale(b, ab / 2), scale(c, ca / 2)));
    [right, up, forward] = [toward(right, up, ru, forward, fr), toward(up, forward, uf, right, ru), toward(forward, right, fr, up, uf)];
  } // prettier-ignore
  return { basis: { right, up, forward }, eye: pose.eye };
}

/** A lens as an orthographic or perspective camera sees it: nothing turned over. */
const proper = ({ half }: ReadLens): boolean => half[0] > 0 && half[1] > 0;

/**
 * Pose and lens of what was given, taken from the plainest place that holds each: a view before a
 * view projection, a projection before one. Null where one that should be there is none.
 */
function read(
  given: Readonly<Partial<Record<MatrixName, Mat4>>>,
  e: ConventionCodec,
  digits: number,
): { readonly pose: Placed | null; readonly lens: ReadLens | null } | null {
  const { view, cameraToWorld, projection, viewProjection } = given;
  const whole = viewProjection ? readViewProjection(viewProjection, e) : null;
  if (viewProjection && !whole) return null;
  const own = view ?? (cameraToWorld ? invert4(cameraToWorld) : undefined);
  if (own === null) return null;
  const posed = own ? readView(own, e) : (whole?.pose ?? null);
  if (own && !posed) return null;
  // A view projection of a parallel camera says no lengths of its axes, and one of perspective w’s alone.
  const pose = posed && squared(posed, digits);
  if (posed && !pose) return null;
  const lens = projection ? readLens(projection, e) : (whole?.lens ?? null);
  if ((projection ?? viewProjection) && (!lens || !proper(lens))) return null;
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

const placeholder = { right: [1, 0, 0], up: [0, 1, 0], forward: [0, 0, -1] } as const;
/** A camera of a pose and a lens; null where its numbers are none to work with. */
function assemble(pose: Placed | null, lens: ReadLens | null, viewport: Viewport): CameraFrame | null {
  const [w, h] = lens?.half ?? [1, 1];
  const [sx, sy] = lens?.shift ?? [0, 0];
  const k = lens?.kind === 'perspective' ? lens.near : 1;
  const extents = { left: (sx - 1) * w * k, right: (sx + 1) * w * k, bottom: (sy - 1) * h * k, top: (sy + 1) * h * k };
  const range = { near: lens?.near ?? 1, far: lens ? lens.far : 2 };
  const made = frameOf(
    {
      position: pose?.eye ?? [0, 0, 0],
      orientation: { kind: 'basis', ...(pose?.basis ?? placeholder) },
      projection:
        lens?.kind === 'orthographic'
          ? { kind: 'orthographic', near: lens.near, far: lens.far!, size: { height: 2 * h }, aspect: w / h, shift: [sx, sy] }
          : { kind: 'frustum', ...range, ...extents },
    },
    viewport,
  ); // prettier-ignore
  return made.ok ? made.value : null;
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
  const { view, ndc } = e.conventions;
  let cost = transposed ? 3 : 0;
  cost += same(view, asked.view) ? 0 : usualAxes(view) ? (signOf(view.up) > 0 ? 1 : 1.5) : 4;
  if (hasPose) {
    if (Math.abs(frame.right[1]) > 1e-4) cost += 1.5;
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

/**
 * The conventions under which matrices are those of one proper camera, likeliest first: every
 * assignment of view axes, NDC depths (−1…1, 0…1, 1…0, 1…−1) and listing (as asked, or its
 * transpose) whose camera gives the numbers back to their digits. World axes, the NDC's up, screen
 * and angles are those asked. Without a view or a projection the view axes stay those asked, without a
 * projection or a view projection the NDC depths do. Points are only asked of whole cameras. Empty
 * where the numbers are no camera's.
 */
export function identify(
  listed: Listed,
  points: readonly GivenPoint[],
  asked: Conventions,
  viewport: Viewport,
  digits: number,
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
        const e = codecOf({ ...listing, view: axes, ndc: { ...listing.ndc, near, far } });
        const found = read(given, e, digits);
        const frame = found && assemble(found.pose, found.lens, viewport);
        if (!frame) continue;
        const made = { e, transposed, hasPose, hasLens, frame };
        if (givesBack(given, points, made, digits)) candidates.push({ ...made, cost: costOf(made, asked, digits) });
      }
  }
  return candidates.sort((a, b) => a.cost - b.cost);
}

const valueOf = (name: OpenName, { e, transposed }: Candidate): string =>
  name === 'view' ? Object.values(e.conventions.view).join() : name === 'ndc' ? `${e.conventions.ndc.near} ${e.conventions.ndc.far}` : String(transposed); // prettier-ignore
const numberOf = (number: DecidingNumber, { e, frame }: Candidate): number | Vec3 =>
  number === 'near' ? frame.near : number === 'position' ? e.toWorld(frame.eye) : e.toView(decidingPoint);

/**
 * What candidates differ in, each with the further number that would decide it; of what nothing
 * given bears on (view axes of a view projection, depths of a view) without values.
 */
export function openOf(candidates: readonly Candidate[], listed: Listed): readonly Open[] {
  const first = candidates[0];
  if (!first) return [];
  const axesBear = !!(listed.view ?? listed.cameraToWorld ?? listed.projection);
  return (['matrix', 'view', 'ndc'] as const).flatMap((name): Open[] => {
    const number = name === 'view' ? 'viewOfPoint' : name === 'ndc' || !first.hasPose ? 'near' : 'position';
    const best = new Map<string, Candidate>();
    for (const one of candidates) if (!best.has(valueOf(name, one))) best.set(valueOf(name, one), one);
    if (best.size > 1) return [{ name, number, values: [...best.values()].map((candidate) => ({ candidate, number: numberOf(number, candidate) })) }]; // prettier-ignore
    const unborne = (name === 'view' && !axesBear) || (name === 'ndc' && !first.hasLens);
    return unborne ? [{ name, number, values: [] }] : [];
  });
}

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
  return {
    ...(first.hasPose && candidates.every((one) => distance(one.frame.eye, frame.eye) <= loose * (1 + length(frame.eye))) && { position: e.toWorld(frame.eye) }), // prettier-ignore
    ...(first.hasPose && candidates.every((one) => distance(one.frame.forward, frame.forward) <= loose) && { forward: e.toWorld(frame.forward) }), // prettier-ignore
    ...(first.hasLens && frame.kind === 'perspective' && every(frameFov) && { verticalFov: e.toAngle(frameFov(frame)!) }), // prettier-ignore
    ...(first.hasLens && every((f) => f.near) && { near: frame.near }),
    ...(first.hasLens && every((f) => f.far) && { far: frame.far }),
  };
}
