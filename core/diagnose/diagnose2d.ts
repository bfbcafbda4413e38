import { entrySizes, matrixNumbers } from '../request/affineMatrices';
import {
  fitAffine,
  type PlacedPoint2d,
  applyAffine,
  invertAffine,
  readAffine,
  sensesOf,
  type Affine2d,
} from '../request/affine2d';
import type { ConventionCodec } from '../conventions/codec';
import type { Vec2 } from '../math/vec3';
import {
  createEngine2d,
  faultNames2d,
  instancesOf2d,
  matrixFaults2d,
  pointFaults2d,
  type FaultName2d,
  type Instance2d,
  type Intended2d,
} from './engine2d';
import { fixes2d, rankOf2d } from './fixes2d';

/*
 * Finds the faults under which a 2D camera has the numbers that an engine has (`docs/compute.md`, "Diagnose in
 * 2D"): the smallest set that explains every given number to its digits.
 */

/** What can be given of a 2D camera, in the order in which an engine makes it. */
export const givenNames2d = ['worldToPixel', 'pixelToWorld', 'points'] as const;
export type GivenName2d = (typeof givenNames2d)[number];
type MatrixName2d = Exclude<GivenName2d, 'points'>;

/** An engine's numbers of a 2D camera: matrices of 6, 9 or 16 numbers as they are listed, and points. */
export interface Given2d {
  readonly matrices: Readonly<Partial<Record<MatrixName2d, readonly number[]>>>;
  readonly points: readonly PlacedPoint2d[];
  /** How many digits of the numbers can be trusted. */
  readonly digits: number;
}

/** Another camera that the engine may have used. */
export interface Other2d {
  readonly name: string;
  readonly intended: Intended2d;
}

/** Numbers of a 2D camera that a mapping holds, in the request's conventions. */
export interface Decomposed2d {
  /** Pixels per world unit: the root of the determinant. */
  readonly zoom: number;
  /** Whether both axes have the zoom and are at right angles. */
  readonly isUniform: boolean;
  /** Of the world, counter-clockwise as seen. */
  readonly rotation: number;
  /** Whether the picture is mirrored against the conventions. */
  readonly mirrored: boolean;
  /** The world point at the anchor of the intended camera. */
  readonly focus: Vec2;
}

/** A number in which a proper camera differs from the intended one. */
export interface Difference2d {
  readonly name: 'position' | 'zoom' | 'rotation' | 'mirrored';
  readonly intended: unknown;
  readonly given: unknown;
}

export interface NamedFault2d {
  readonly where: GivenName2d;
  readonly fault: FaultName2d | 'otherCamera' | 'differs';
  readonly which?: string;
  readonly what?: readonly Difference2d[];
}

export interface Explanation2d {
  readonly faults: readonly NamedFault2d[];
  /** Other sets that give the same numbers within their digits. */
  readonly equivalent: readonly (readonly NamedFault2d[])[];
  /** The greatest difference in pixels that remains with the faults undone; null without a picture. */
  readonly residual: number | null;
  readonly likelihood: number;
  readonly mend: string;
}

export interface Diagnosis2d {
  readonly verdict: 'agrees' | 'explained' | 'unexplained';
  /** The greatest difference in pixels from the right picture; null where the numbers are no mapping. */
  readonly residual: number | null;
  readonly explanations: readonly Explanation2d[];
  readonly decomposed: Decomposed2d | null;
}

/** Where a fault is committed: in the camera, so that everything has it, or in one of the given things. */
type Place2d = GivenName2d | 'camera';

interface Placed2d {
  readonly fault: Instance2d | null;
  readonly other: Other2d | null;
  readonly place: Place2d;
}

/** The things that each place reaches: an engine computes points by its matrix. */
const reaches: Readonly<Record<Place2d, readonly GivenName2d[]>> = {
  camera: givenNames2d,
  worldToPixel: ['worldToPixel', 'points'],
  pixelToWorld: ['pixelToWorld'],
  points: ['points'],
};
const includes = (list: readonly string[], name: string) => list.includes(name);

/** How much stays open after an explanation: numbers can come from something else by chance. */
const openAfter = { one: 0.02, two: 0.1, differs: 0.4 } as const;

/** The most explanations of an answer. */
const mostExplanations = 8;

/** Whether a number is right to its digits, beside numbers of a size. */
const isRight = (given: number, expected: number, size: number, digits: number): boolean =>
  Math.abs(given - expected) <= 10 ** (1 - digits) * Math.abs(expected) + 10 ** -digits * size;

/** Whether a matrix is right to its digits, by the smaller of the largest numbers in a number's row and column. */
function matrixIsRight(
  given: readonly number[],
  expected: readonly number[],
  byColumns: boolean,
  digits: number,
): boolean {
  if (given.length !== expected.length) return false;
  const sizes = entrySizes(expected, byColumns);
  return given.every((v, i) => isRight(v, expected[i]!, sizes[i]!, digits));
}

const median = (of: readonly number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1] ?? 0;

/** Finds the faults of a 2D engine. */
export function diagnose2d(
  intended: Intended2d,
  given: Given2d,
  others: readonly Other2d[],
  devicePixelRatio: number | null,
): Diagnosis2d {
  const { codec } = intended;
  const things = givenNames2d.filter((name) => (name === 'points' ? given.points.length > 0 : given.matrices[name]));
  const sizes = [0, 1].map((axis) => median(given.points.map(({ screen }) => Math.abs(screen[axis]!))));

  /** Whether a given thing is what an engine with a set of faults makes. */
  const agrees = (name: GivenName2d, set: readonly Placed2d[]): boolean => {
    const own = set.filter(({ place }) => reaches[place].includes(name));
    const base = own.find(({ other }) => other)?.other?.intended ?? intended;
    const engine = createEngine2d(
      base,
      own.flatMap(({ fault }) => fault ?? []),
    );
    if (name === 'points') {
      const { points } = engine;
      return (
        points !== null &&
        given.points.every(({ world, screen }) =>
          applyAffine(points, world).every((v, axis) => isRight(screen[axis]!, v, sizes[axis]!, given.digits)),
        )
      );
    }
    const mapping = engine[name];
    const numbers = given.matrices[name]!;
    if (!mapping) return false;
    const byColumns = codec.listsColumns !== engine.isTransposed;
    return matrixIsRight(numbers, matrixNumbers(mapping, numbers.length, byColumns), byColumns, given.digits);
  };
  const explains = (set: readonly Placed2d[]) => things.every((name) => agrees(name, set));

  const decomposed = decompose2d(intended, given);
  const residual = residualOf(intended, given);
  if (explains([])) return { verdict: 'agrees', residual, explanations: [], decomposed };

  const wrong = things.filter((name) => !agrees(name, []));
  /** Names a fault by the first wrong thing that has it. */
  const named = ({ fault, other, place }: Placed2d): NamedFault2d => {
    const where = wrong.find((name) => reaches[place].includes(name)) ?? wrong[0]!;
    return other ? { where, fault: 'otherCamera', which: other.name } : { where, fault: fault!.fault };
  };

  const placed = placedFaults(intended, things, others, devicePixelRatio).filter(({ place }) =>
    wrong.some((name) => reaches[place].includes(name)),
  );
  let sets = placed.map((one) => [one]).filter(explains);
  if (!sets.length)
    sets = placed
      .flatMap((a, i) => placed.slice(i + 1).map((b) => [a, b]))
      .filter(([a, b]) => isPair(a!, b!) && explains([a!, b!]));
  if (!sets.length) return unexplained(intended, decomposed, wrong[0]!, residual);

  const rank = (set: readonly Placed2d[]) => set.reduce((sum, { fault, place }) => sum + (fault ? (rankOf2d[fault.fault] ?? 6) : 2) + (place === 'camera' ? 0 : 0.5), 0); // prettier-ignore
  const keyOf = (set: readonly NamedFault2d[]) => set.map(({ where, fault, which }) => `${where} ${fault} ${which ?? ''}`).join('+'); // prettier-ignore
  const distinct = new Map<string, readonly NamedFault2d[]>();
  for (const set of sets.sort((a, b) => rank(a) - rank(b))) {
    const names = set.map(named);
    if (!distinct.has(keyOf(names))) distinct.set(keyOf(names), names);
  }
  const [first, ...equivalent] = [...distinct.values()].slice(0, mostExplanations);
  return {
    verdict: 'explained',
    residual,
    explanations: [
      {
        faults: first!,
        equivalent,
        residual: 0,
        likelihood: 1 - (first!.length === 1 ? openAfter.one : openAfter.two),
        mend: first!.map(({ fault, which }) => (fault === 'otherCamera' ? `It is the camera “${which}”: update the camera before it is used.` : fixes2d[fault])).join(' '), // prettier-ignore
      },
    ],
    decomposed,
  };
}

/** Two faults of one set: not the same one twice, and not two cameras. */
const isPair = (a: Placed2d, b: Placed2d): boolean =>
  !(a.other && b.other) &&
  !(a.fault && b.fault && a.fault.fault === b.fault.fault && (a.place === b.place || a.place === 'camera' || b.place === 'camera')); // prettier-ignore

/** Returns every fault at every place where it can be committed. */
function placedFaults(
  intended: Intended2d,
  things: readonly GivenName2d[],
  others: readonly Other2d[],
  devicePixelRatio: number | null,
): readonly Placed2d[] {
  const possible = instancesOf2d(intended, devicePixelRatio);
  const isAlone = things.length === 1;
  const ofFaults = faultNames2d.flatMap((name) =>
    possible
      .filter(({ fault }) => fault === name)
      .flatMap((fault): Placed2d[] => {
        const places: readonly Place2d[] = includes(pointFaults2d, name)
          ? ['points']
          : includes(matrixFaults2d, name)
            ? ['camera', 'worldToPixel', 'pixelToWorld']
            : isAlone
              ? ['camera']
              : ['camera', ...givenNames2d];
        return places.filter((place) => things.some((thing) => reaches[place].includes(thing))).map((place) => ({ fault, other: null, place })); // prettier-ignore
      }),
  );
  return [...ofFaults, ...others.map((other): Placed2d => ({ fault: null, other, place: 'camera' }))];
}

/**
 * Returns the mapping to pixels that given numbers hold; null where they hold none.
 *
 * @param byColumns - whether matrices are listed by the columns of the matrix for column vectors
 */
export function mappingOf(byColumns: boolean, { matrices, points }: Given2d): Affine2d | null {
  const { worldToPixel, pixelToWorld } = matrices;
  if (worldToPixel) return readAffine(worldToPixel, byColumns);
  if (pixelToWorld) {
    const back = readAffine(pixelToWorld, byColumns);
    return back && invertAffine(back);
  }
  return fitAffine(points);
}

/** The greatest distance in pixels between the given picture and the right one. */
function residualOf(intended: Intended2d, given: Given2d): number | null {
  const right = createEngine2d(intended, []);
  const apart = (a: Vec2, b: Vec2) => Math.hypot(a[0] - b[0], a[1] - b[1]);
  if (given.points.length) return right.points && Math.max(...given.points.map(({ world, screen }) => apart(screen, applyAffine(right.points!, world)))); // prettier-ignore
  const mapping = mappingOf(intended.codec.listsColumns, given);
  const { worldToPixel: whole, pixelToWorld: back } = right;
  if (!mapping || !whole || !back) return null;
  const { x, y, width, height } = intended.viewport;
  const grid = [0, 0.5, 1].flatMap((u) => [0, 0.5, 1].map((v) => applyAffine(back, [x + u * width, y + v * height])));
  const most = Math.max(...grid.map((p) => apart(applyAffine(mapping, p), applyAffine(whole, p))));
  return Number.isFinite(most) ? most : null;
}

/** Returns the numbers of a camera that the given numbers hold; null where they hold none. */
export function decompose2d(intended: Intended2d, given: Given2d): Decomposed2d | null {
  const mapping = mappingOf(intended.codec.listsColumns, given);
  return mapping && decomposeAffine(mapping, intended.camera.anchor, intended.codec, given.digits);
}

/**
 * Returns the numbers of a 2D camera whose mapping to pixels is given.
 *
 * @param anchor - the pixel whose world point is the focus
 * @returns null for a mapping without an inverse
 */
export function decomposeAffine(
  of: Affine2d,
  anchor: Vec2,
  codec: ConventionCodec,
  digits: number,
): Decomposed2d | null {
  const back = invertAffine(of);
  if (!back) return null;
  const { right, up, rows } = sensesOf(codec);
  // The linear part is zoom · F · R · W: without F and W, a rotation where nothing is mirrored.
  const [p, q, r, s] = [of.a * right, of.b * up, rows * of.c * right, rows * of.d * up];
  const mirrored = p * s - q * r < 0;
  const zoom = Math.sqrt(Math.abs(p * s - q * r));
  const [ex, ey] = [Math.hypot(p, r), Math.hypot(q, s)];
  const margin = 20 * 10 ** -digits;
  const isUniform = Math.abs(ex - ey) < margin * zoom && Math.abs(p * q + r * s) < margin * zoom * zoom;
  return { zoom, isUniform, rotation: codec.toAngle(Math.atan2(r, p)), mirrored, focus: applyAffine(back, anchor) };
}

/** The answer where no set of faults explains the numbers: another proper camera, or none. */
function unexplained(
  { camera, codec }: Intended2d,
  decomposed: Decomposed2d | null,
  where: GivenName2d,
  residual: number | null,
): Diagnosis2d {
  const none: Diagnosis2d = { verdict: 'unexplained', residual, explanations: [], decomposed };
  if (!decomposed?.isUniform) return none;
  const { zoom, rotation, mirrored, focus } = decomposed;
  const turn = codec.fromAngle(rotation - camera.rotation);
  const turned = Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn)));
  const what: Difference2d[] = [
    ...(Math.hypot(focus[0] - camera.focus[0], focus[1] - camera.focus[1]) * camera.zoom > 1e-3 ? [{ name: 'position', intended: camera.focus, given: focus } as const] : []), // prettier-ignore
    ...(Math.abs(zoom / camera.zoom - 1) > 1e-5 ? [{ name: 'zoom', intended: camera.zoom, given: zoom } as const] : []),
    ...(turned > 1e-5 ? [{ name: 'rotation', intended: camera.rotation, given: rotation } as const] : []),
    ...(mirrored ? [{ name: 'mirrored', intended: false, given: true } as const] : []),
  ];
  if (!what.length) return none;
  const faults: NamedFault2d[] = [{ where, fault: 'differs', what }];
  const likelihood = 1 - openAfter.differs;
  return { ...none, verdict: 'explained', explanations: [{ faults, equivalent: [], residual: 0, likelihood, mend: fixes2d.differs }] }; // prettier-ignore
}
