import { pictureShape } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import { viewRufToWorld } from '../convert/project';
import { angleBetween } from '../convert/compare';
import { multiply, type Mat4 } from '../math/mat4';
import { distance, type Vec2, type Vec3 } from '../math/vec3';
import { readGiven, type ReadLens, type ReadPose } from './decompose';
import { pointWith, rightMatrices, type Intended } from './engine';
import { givenNames, type FaultName, type GivenName, type MatrixName } from './faults';
import { invert4 } from './invert';
import { mends, rankOf } from './mends';
import { Engine, explainingSets, givenThings, type FaultSet, type Given, type Instance, type Other } from './search';

/** What is another in a camera that is proper, and how: numbers in the request's conventions. */
export interface Difference {
  readonly name: 'position' | 'orientation' | 'fieldOfView' | 'near' | 'far' | 'shift';
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
  /** What is left after the mend: pixels, and units of depth. */
  readonly residual: number | null;
  readonly depthResidual: number | null;
  readonly likelihood: number;
  readonly mend: string;
}
export interface Diagnosis {
  readonly verdict: 'agrees' | 'explained' | 'unexplained';
  readonly residual: number | null;
  readonly depthResidual: number | null;
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
const none = { residual: null, depthResidual: null };
/** The greatest difference of two lists of points, in pixels and in depth; null where there is no picture. */
function apart(a: readonly (Shown | null)[], b: readonly (Shown | null)[]) {
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

/** The points by what was given: by its view projection, or as they were given; null where it has no picture. */
function shownBy(intended: Intended, given: Given, worlds: readonly Vec3[]): readonly (Shown | null)[] | null {
  const whole = wholeGiven(intended, given);
  if (whole) return worlds.map((world) => pointWith(intended, whole, world, []));
  return given.points.length ? given.points : null;
}

const saidOf = ({ where, fault, which }: Instance & { readonly where: GivenName | 'matrices' }): SaidFault => ({
  ...{ where, fault },
  ...(which !== undefined && { which }),
});
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

/**
 * What explains an engine's numbers, given the camera that is intended: the smallest sets of known
 * faults, else what a proper camera differs in, else nothing. Residuals are over 27 points spread
 * through the frustum, or over the given points where no matrix has a picture; null where there is none.
 */
export function diagnose(intended: Intended, given: Given, others: readonly Other[]): Diagnosis {
  const engine = new Engine(intended, others);
  const things = givenThings(given);
  const onlyPoints = things.every((thing) => thing === 'points' || thing === 'cameraToWorld');
  const worlds = onlyPoints ? given.points.map(({ world }) => world) : spread(intended);
  const right = rightMatrices(intended).viewProjection;
  const shown = shownBy(intended, given, worlds);
  const before = shown ? apart(shown, worlds.map((world) => pointWith(intended, right, world, []))) : none; // prettier-ignore
  const { agrees, wrong, sets } = explainingSets(engine, given);
  const read = readGiven(given, intended.e);
  if (agrees) return { verdict: 'agrees', ...before, explanations: [], read };
  if (sets.length) {
    const ranked = [...sets].sort((a, b) => rank(a) - rank(b));
    const said = new Map<string, FaultSet>();
    for (const set of ranked) if (!said.has(keyOf(set.faults.map(saidOf)))) said.set(keyOf(set.faults.map(saidOf)), set); // prettier-ignore
    const [, ...alike] = [...said.values()];
    const [first, ...rest] = [...said.values()].map((set) => set.faults.map(saidOf));
    const faults = ranked[0]!.faults;
    const predicted = onlyPoints
      ? engine.points(worlds.map((world) => ({ world, screen: [0, 0], depth: null })), faults)
      : (engine.matrix('viewProjection', faults.filter(({ place }) => place !== 'points')).map((whole) => worlds.map((world) => pointWith(intended, whole, world, [])))[0] ?? worlds.map(() => null)); // prettier-ignore
    const after = shown ? apart(shown, predicted) : none;
    const explanation: Explanation = {
      ...{ faults: first!, equivalent: rest, ...after },
      decides: alike.map((set) => decidingBetween(engine, given, ranked[0]!, set)),
      likelihood: 1 - (first!.length === 1 ? openAfter.one : openAfter.two),
      mend: ranked[0]!.faults.map(mendOf).join(' '),
    };
    return { verdict: 'explained', ...before, explanations: [explanation], read };
  }
  const what = differences(intended, read, given.digits);
  if (!what?.length) return { verdict: 'unexplained', ...before, explanations: [], read };
  const faults = [{ where: wrong[0]!, fault: 'differs' as const, what }];
  const explanation: Explanation = {
    ...{ faults, equivalent: [], decides: [], residual: before.residual === null ? null : 0 },
    ...{ depthResidual: before.depthResidual === null ? null : 0, likelihood: 1 - openAfter.differs },
    mend: `${nameOf(wrong[0]!)}: ${mends.differs} ${what.map(({ name }) => name).join(', ')}.`,
  };
  return { verdict: 'explained', ...before, explanations: [explanation], read };
}

/** What is to be done about a fault, at the place where it is committed. */
const mendOf = ({ where, place, fault, which }: FaultSet['faults'][number]): string => {
  const made = place === where || fault === 'otherCamera' ? '' : `, by ${nameOf(place).toLowerCase()}`;
  return `${nameOf(where)}${made}: ${mends[fault]}${which === undefined ? '' : ` It is that of ${which}.`}`;
};
const nameOf = (where: GivenName | 'matrices'): string =>
  ({ view: 'View', cameraToWorld: 'Camera to world', projection: 'Projection', viewProjection: 'View projection', points: 'Points', matrices: 'All matrices' })[where]; // prettier-ignore

/**
 * In what a proper camera is another than the intended one; null where what was read is none: axes
 * that are not square, of one length and of the right hand, or a lens that is turned over.
 */
function differences(
  { frame, e }: Intended,
  { pose, lens }: { readonly pose: ReadPose | null; readonly lens: ReadLens | null },
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
  if (lens) {
    const { near, far, kind } = frame;
    const k = kind === 'perspective' ? near : 1;
    const { width, height, shift } = pictureShape(frame);
    const half: Vec2 = [width / 2 / k, height / 2 / k];
    const sees = ([w, h]: readonly [number, number]) =>
      kind === 'perspective' ? [2 * Math.atan(w), 2 * Math.atan(h)].map((v) => e.toAngle(v)) : [2 * w, 2 * h];
    if (off(half[0], lens.half[0]) || off(half[1], lens.half[1]))
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
