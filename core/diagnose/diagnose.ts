import { pictureShape } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import { viewRufToWorld } from '../convert/project';
import { angleBetween } from '../convert/compare';
import { multiply, transpose, type Mat4 } from '../math/mat4';
import { distance, type Vec2, type Vec3 } from '../math/vec3';
import { readGiven, type ReadLens, type ReadPose } from './decompose';
import { lensOfFrame, poseOfFrame } from './differingCameras';
import { pointWith, rightMatrices, type Intended } from './engine';
import { givenNames, type FaultName, type GivenName, type MatrixName } from './faults';
import { invert4 } from '../math/invert';
import { fixText, mends, rankOf } from './mends';
import type { Given, Instance, Other } from './given';
import { Engine, explainingSets, givenThings, type FaultSet } from './search';

/** What is another in a camera that is proper, and how: numbers in the request's conventions. */
export interface Difference {
  readonly name: 'position' | 'orientation' | 'fieldOfView' | 'aspect' | 'near' | 'far' | 'shift';
  readonly intended: unknown;
  readonly given: unknown;
}
/** A fault as it is said. */
export interface SaidFault {
  readonly where: GivenName | 'matrices';
  readonly fault: FaultName | 'otherCamera' | 'differs';
  readonly which?: string;
  readonly what?: readonly Difference[];
}
/** A number of a matrix that was not given: what it is by the first set, and by the other. */
export interface Deciding {
  readonly where: MatrixName;
  /** For column vectors, in the request's axes. */
  readonly row: number;
  readonly column: number;
  readonly values: readonly [number, number];
}
export interface Explanation {
  readonly faults: readonly SaidFault[];
  /** Other sets that give the same numbers within their digits. */
  readonly equivalent: readonly (readonly SaidFault[])[];
  /** The one further number that tells each of those from the first set; null where no matrix does. */
  readonly decides: readonly (Deciding | null)[];
  /** Differences that remain with the faults undone: pixels, and units of depth. */
  readonly residual: number | null;
  readonly depthResidual: number | null;
  readonly likelihood: number;
  readonly mend: string;
  /** Of an explanation under which the matrices of unknown listing are listed the other way. */
  readonly listing?: 'other';
}
/** The greatest differences in pixels and in depth; null without a picture. */
export interface Residual {
  readonly residual: number | null;
  readonly depthResidual: number | null;
}
export interface Diagnosis extends Residual {
  readonly verdict: 'agrees' | 'explained' | 'unexplained';
  /** The residual of each given thing by itself, the others being right. */
  readonly residuals: Readonly<Partial<Record<GivenName, Residual>>>;
  readonly explanations: readonly Explanation[];
  readonly read: { readonly pose: ReadPose | null; readonly lens: ReadLens | null };
}

const matrixNames = givenNames.filter((name) => name !== 'points');
/** Of what is explained, how much stays open: numbers that come of something else by chance. */
const openAfter = { one: 0.02, two: 0.1, differs: 0.4 } as const;

/** 27 points spread through the frustum, in the request's world. */
function spread({ frame, e }: Intended): Vec3[] {
  const { near, far, extents: x, kind } = frame;
  const end = far ?? near * 64;
  const points: Vec3[] = [];
  for (const share of [0.25, 0.5, 0.75]) {
    const f = kind === 'perspective' ? near * (end / near) ** share : near + (end - near) * share;
    const k = kind === 'perspective' ? f / near : 1;
    for (const a of [0.2, 0.5, 0.8])
      for (const b of [0.2, 0.5, 0.8])
        points.push(e.toWorld(viewRufToWorld(frame, [(x.left + (x.right - x.left) * a) * k, (x.bottom + (x.top - x.bottom) * b) * k, f]))); // prettier-ignore
  }
  return points;
}

interface Shown {
  readonly screen: Vec2;
  readonly depth: number | null;
}
const none: Residual = { residual: null, depthResidual: null };
/** The greatest difference of two lists of points, in pixels and in depth; null where there is no picture. */
function apart(a: readonly (Shown | null)[], b: readonly (Shown | null)[]): Residual {
  let [pixels, depth] = [0, 0];
  for (const [i, p] of a.entries()) {
    const q = b[i];
    if (!p || !q) return none;
    pixels = Math.max(pixels, Math.hypot(p.screen[0] - q.screen[0], p.screen[1] - q.screen[1]));
    if (p.depth !== null && q.depth !== null) depth = Math.max(depth, Math.abs(p.depth - q.depth));
  }
  return Number.isFinite(pixels) && Number.isFinite(depth) ? { residual: pixels, depthResidual: depth } : none;
}

/**
 * The view projection that an engine's matrices come to, for column vectors in the request's axes:
 * what was not given is the right one. Null where no matrix with a picture was given.
 */
export function wholeGiven(intended: Intended, { matrices }: Given): Mat4 | null {
  const { view, cameraToWorld, projection, viewProjection } = matrices;
  if (viewProjection) return viewProjection;
  if (!view && !projection) return null;
  const right = rightMatrices(intended);
  return multiply(projection ?? right.projection, view ?? (cameraToWorld && invert4(cameraToWorld)) ?? right.view);
}

/** The number in which two sets of faults differ most, of the matrices that were not given. */
function decidingBetween(engine: Engine, given: Given, a: FaultSet, b: FaultSet): Deciding | null {
  let best: (Deciding & { readonly share: number }) | null = null;
  for (const where of matrixNames) {
    if (given.matrices[where]) continue;
    const [[one], [other]] = [engine.matrix(where, a.faults), engine.matrix(where, b.faults)];
    if (!one || !other) continue;
    for (let i = 0; i < 16; i++) {
      const [p, q] = [one[i]!, other[i]!];
      const share = Math.abs(p - q) / Math.max(Math.abs(p), Math.abs(q), 1e-9);
      // A small number against a large one says less than one of some size.
      if (share > 100 * 10 ** -given.digits && share > (best?.share ?? 0) * 1.001) best = { where, row: i >> 2, column: i % 4, values: [p, q], share }; // prettier-ignore
    }
    if (best) break;
  }
  if (!best) return null;
  const { where, row, column, values } = best;
  return { where, row, column, values };
}

const rank = ({ faults }: FaultSet): number => faults.reduce((sum, { fault }) => sum + (rankOf[fault] ?? 6), 0);
const keyOf = (faults: readonly SaidFault[]): string => faults.map(({ where, fault, which }) => `${where} ${fault} ${which ?? ''}`).join('+'); // prettier-ignore

const worldsOf = ({ points }: Given): readonly Vec3[] => points.map(({ world }) => world);
const shownBy = (intended: Intended, viewProjection: Mat4, worlds: readonly Vec3[]): readonly (Shown | null)[] =>
  worlds.map((world) => pointWith(intended, viewProjection, world, []));

/** The residual of each given thing by itself. A camera's transform is measured by its inverse. */
function residualsOf(intended: Intended, given: Given, worlds: readonly Vec3[], right: readonly (Shown | null)[]) {
  const residuals: Partial<Record<GivenName, Residual>> = {};
  for (const thing of givenThings(given)) {
    if (thing === 'points') {
      const rightPoints = shownBy(intended, rightMatrices(intended).viewProjection, worldsOf(given));
      residuals.points = apart(given.points, rightPoints);
      continue;
    }
    const m = given.matrices[thing]!;
    const view = thing === 'cameraToWorld' ? invert4(m) : null;
    const matrices = thing === 'cameraToWorld' ? { ...(view && { view }) } : { [thing]: m };
    const whole = wholeGiven(intended, { ...given, matrices });
    residuals[thing] = whole ? apart(shownBy(intended, whole, worlds), right) : none;
  }
  return residuals;
}

const keyOfInstance = ({ fault, place, which }: Instance): string => `${fault} ${place} ${which ?? ''}`;
/** The faults of a set that make the picture of the given matrices. */
function faultsOfPicture(given: Given, { faults, by }: FaultSet): readonly Instance[] {
  const sources = given.matrices.viewProjection
    ? (['viewProjection'] as const)
    : (['view', 'cameraToWorld', 'projection'] as const);
  const used = new Set(sources.flatMap((thing) => by.get(thing) ?? []).map(keyOfInstance));
  return faults.filter((one) => used.has(keyOfInstance(one)));
}

/** The given numbers with some matrices listed the other way. */
export const withOtherListings = (given: Given, names: readonly MatrixName[]): Given => ({
  ...given,
  matrices: Object.fromEntries(
    Object.entries(given.matrices).map(([name, m]) => [name, names.includes(name as MatrixName) ? transpose(m) : m]),
  ),
});

/** How far a diagnosis is from agreement: its faults, a camera that differs behind as many known ones; ∞ without any. */
function sizeOf({ verdict, explanations }: Diagnosis): number {
  if (verdict === 'agrees') return 0;
  const faults = explanations[0]?.faults;
  return faults ? faults.length + (faults.some(({ fault }) => fault === 'differs') ? 0.5 : 0) : Infinity;
}

/**
 * Diagnoses numbers of which some matrices may be listed either way, all of them alike: both listings are tried, and
 * the one that needs fewer faults is taken. Where both need as many, the other's explanations are returned too.
 */
export function diagnoseListings(
  intended: Intended,
  given: Given,
  others: readonly Other[],
  unknown: readonly MatrixName[],
): { readonly found: Diagnosis; readonly listing: 'given' | 'other'; readonly others: readonly Explanation[] } {
  const found = diagnose(intended, given, others);
  if (!unknown.length || found.verdict === 'agrees') return { found, listing: 'given', others: [] };
  const other = diagnose(intended, withOtherListings(given, unknown), others);
  const [own, turned] = [sizeOf(found), sizeOf(other)];
  if (turned < own) return { found: other, listing: 'other', others: [] };
  const tied = turned === own ? other.explanations.map((one) => ({ ...one, listing: 'other' as const })) : [];
  return { found, listing: 'given', others: tied };
}

/** The lens with the faults of the projection undone; the pose stays what the numbers hold. */
function readWith(read: Diagnosis['read'], { faults }: FaultSet, intended: Intended): Diagnosis['read'] {
  if (!faults.some(({ place, fault }) => place === 'projection' && fault !== 'differs')) return read;
  const { frame } = faults.find(({ camera }) => camera)?.camera ?? intended;
  return { ...read, lens: lensOfFrame(frame) };
}

/**
 * Explains an engine's numbers, given the camera that is intended: by the smallest sets of faults, else by what a
 * proper camera differs in, else not at all.
 *
 * Residuals are measured on the given points; without points on 27 points spread through the frustum, or null where
 * no matrix has a picture.
 */
export function diagnose(intended: Intended, given: Given, others: readonly Other[]): Diagnosis {
  const engine = new Engine(intended, others);
  const hasPoints = given.points.length > 0;
  const spreadWorlds = spread(intended);
  const rightWhole = rightMatrices(intended).viewProjection;
  const rightSpread = shownBy(intended, rightWhole, spreadWorlds);
  const whole = wholeGiven(intended, given);
  const shown = hasPoints ? given.points : whole && shownBy(intended, whole, spreadWorlds);
  const right = hasPoints ? shownBy(intended, rightWhole, worldsOf(given)) : rightSpread;
  const before = {
    ...(shown ? apart(shown, right) : none),
    residuals: residualsOf(intended, given, spreadWorlds, rightSpread),
  };
  const { agrees, wrong, sets } = explainingSets(engine, given);
  const read = readGiven(given, intended.e);
  if (agrees) return { verdict: 'agrees', ...before, explanations: [], read };
  if (sets.length) {
    const saidOf = ({ where, fault, which, place, camera }: FaultSet['faults'][number]): SaidFault => ({
      ...{ where, fault },
      ...(fault === 'otherCamera' && which !== undefined && { which }),
      ...(fault === 'differs' && { what: differencesOf(intended, camera!, place, given.digits) }),
    });
    const ranked = [...sets].sort((a, b) => rank(a) - rank(b));
    const best = ranked[0]!;
    const said = new Map<string, { readonly set: FaultSet; readonly faults: readonly SaidFault[] }>();
    for (const set of ranked) {
      const faults = set.faults.map(saidOf);
      if (!said.has(keyOf(faults))) said.set(keyOf(faults), { set, faults });
    }
    const [first, ...alike] = [...said.values()];
    const picture = hasPoints ? null : engine.matrix('viewProjection', faultsOfPicture(given, best))[0];
    const predicted = hasPoints
      ? engine.points(given.points, best.by.get('points')!)
      : picture
        ? shownBy(intended, picture, spreadWorlds)
        : spreadWorlds.map(() => null);
    const differs = best.faults.some(({ fault }) => fault === 'differs');
    const explanation: Explanation = {
      ...{ faults: first!.faults, equivalent: alike.map(({ faults }) => faults) },
      ...(shown ? apart(shown, predicted) : none),
      decides: alike.map(({ set }) => decidingBetween(engine, given, best, set)),
      likelihood: 1 - (differs ? openAfter.differs : best.faults.length === 1 ? openAfter.one : openAfter.two),
      mend: best.faults.map((one, i) => mendOf(one, intended, first!.faults[i]?.what)).join(' '),
    };
    return { verdict: 'explained', ...before, explanations: [explanation], read: readWith(read, best, intended) };
  }
  const what = differences(intended, read, given.digits);
  if (!what?.length) return { verdict: 'unexplained', ...before, explanations: [], read };
  const faults = [{ where: wrong[0]!, fault: 'differs' as const, what }];
  const explanation: Explanation = {
    ...{ faults, equivalent: [], decides: [], residual: before.residual === null ? null : 0 },
    ...{ depthResidual: before.depthResidual === null ? null : 0, likelihood: 1 - openAfter.differs },
    mend: `${nameOf(wrong[0]!)}: ${mends.differs} ${differencesText(what)}`,
  };
  return { verdict: 'explained', ...before, explanations: [explanation], read };
}

/** What is to be done about a fault, at the place where it is committed. */
const mendOf = (
  { where, place, fault, which }: FaultSet['faults'][number],
  { e }: Intended,
  what: readonly Difference[] = [],
): string => {
  const made =
    place === where || fault === 'otherCamera' || fault === 'differs' ? '' : `, by ${nameOf(place).toLowerCase()}`;
  const more = fault === 'otherCamera' ? ` It is that of ${which}.` : what.length ? ` ${differencesText(what)}` : '';
  return `${nameOf(where)}${made}: ${fixText(fault, e)}${more}`;
};

const differenceNames: Readonly<Record<Difference['name'], string>> = { position: 'position', orientation: 'orientation', fieldOfView: 'field of view', aspect: 'aspect', near: 'near', far: 'far', shift: 'lens shift' }; // prettier-ignore
/** What differs, with both numbers where they are single ones. */
const differencesText = (what: readonly Difference[]): string =>
  `${what
    .map(({ name, intended, given }) => {
      const numbers = typeof intended === 'number' && typeof given === 'number' ? ` (${Number(given.toPrecision(5))} instead of ${Number(intended.toPrecision(5))})` : ''; // prettier-ignore
      return `The ${differenceNames[name]} differs${numbers}.`;
    })
    .join(' ')}`;
const nameOf = (where: GivenName | 'matrices'): string =>
  ({ view: 'View', cameraToWorld: 'Camera to world', projection: 'Projection', viewProjection: 'View projection', points: 'Points', matrices: 'All matrices' })[where]; // prettier-ignore

/**
 * In what a proper camera is another than the intended one; null where what was read is none: axes
 * that are not square, of one length and of the right hand, or a lens that is turned over.
 */
function differences(
  { frame, e, field }: Intended,
  { pose, lens }: Diagnosis['read'],
  digits: number,
): readonly Difference[] | null {
  if (!pose && !lens) return null;
  const loose = 30 * 10 ** (1 - digits);
  if (pose && (pose.mirrored || pose.shear > loose || pose.scale.some((v) => Math.abs(v - 1) > loose))) return null;
  if (lens && (lens.kind !== frame.kind || lens.half.some((v) => !(v > 0)))) return null;
  const off = (a: number, b: number) => Math.abs(a - b) > loose * Math.max(Math.abs(a), Math.abs(b));
  const found: Difference[] = [];
  if (pose) {
    const far = Math.max(1e-9, Math.hypot(...frame.eye));
    if (distance(pose.eye, frame.eye) > loose * far)
      found.push({ name: 'position', intended: e.toWorld(frame.eye), given: e.toWorld(pose.eye) });
    if (angleBetween(pose.forward, frame.forward) > loose || angleBetween(pose.up, frame.up) > loose)
      found.push({ name: 'orientation', intended: e.toAngles(anglesOfBasis(frame)), given: e.toAngles(anglesOfBasis(pose)) }); // prettier-ignore
  }
  const typedField = field?.kind;
  if (lens) {
    const { near, far, kind } = frame;
    const k = kind === 'perspective' ? near : 1;
    const { width, height, shift } = pictureShape(frame);
    const half: Vec2 = [width / 2 / k, height / 2 / k];
    const sees = ([w, h]: readonly [number, number]) =>
      kind === 'perspective' ? [2 * Math.atan(w), 2 * Math.atan(h)].map((v) => e.toAngle(v)) : [2 * w, 2 * h];
    // A picture that is as high (or as wide, for a horizontal field of view) and another shape has another aspect.
    const kept = typedField === 'horizontalFov' ? 0 : 1;
    if (off(half[1 - kept]!, lens.half[1 - kept]!) && !off(half[kept]!, lens.half[kept]!))
      found.push({ name: 'aspect', intended: half[0] / half[1], given: lens.half[0] / lens.half[1] });
    else if (off(half[0], lens.half[0]) || off(half[1], lens.half[1]))
      found.push({ name: 'fieldOfView', intended: sees(half), given: sees(lens.half) });
    if (off(near, lens.near)) found.push({ name: 'near', intended: near, given: lens.near });
    const farOff = far === null || lens.far === null ? far !== lens.far : off(far, lens.far);
    if (farOff) found.push({ name: 'far', intended: far, given: lens.far });
    // The shift that was read is in units of the distance.
    const read: Vec2 = [lens.shift[0], lens.shift[1]];
    if (read.some((v, i) => Math.abs(v - shift[i]!) > loose * Math.max(1, Math.abs(shift[i]!))))
      found.push({ name: 'shift', intended: shift, given: read });
  }
  return found;
}

/** In what a camera with another pose, or with another lens, differs from the intended one. */
function differencesOf(intended: Intended, { frame }: Intended, place: Instance['place'], digits: number) {
  const ofLens = place === 'projection';
  const read = { pose: ofLens ? null : poseOfFrame(frame), lens: ofLens ? lensOfFrame(frame) : null };
  return differences(intended, read, digits) ?? [];
}
