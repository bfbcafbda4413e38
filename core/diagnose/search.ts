import type { GivenPoint, Given, Instance, Other } from './given';
import { usualDepths } from '../conventions/conventions';
import { multiply, transpose, type Mat4 } from '../math/mat4';
import {
  angleFaults,
  basisFaults,
  downstream,
  faultNames,
  givenNames,
  handFaults,
  ndcRowFaults,
  placesOf,
  poseFaults,
  wholeFaults,
  type FaultName,
  type GivenName,
  type MatrixName,
  type Place,
} from './faults';
import {
  ndcRowsWith,
  ownTransformWith,
  pointWith,
  projectionWith,
  viewWith,
  wholeWith,
  withAheadNegated,
  type Intended,
  type PrintedPoint,
} from './engine';
import { differingCameras } from './differingCameras';
import { invert4 } from '../math/invert';

/** The things that are given, in the order in which an engine makes them. */
export const givenThings = ({ matrices, points }: Given): readonly GivenName[] =>
  givenNames.filter((name) => (name === 'points' ? points.length > 0 : matrices[name] !== undefined));

/** Right to so many digits: 10^(1 − d) of the number, and 10^(−d) of the size round it. */
const close = (given: number, wanted: number, size: number, digits: number): boolean =>
  Math.abs(given - wanted) <= 10 ** (1 - digits) * Math.abs(given) + 10 ** -digits * size;

/** Whether a given matrix is another to its digits, by the smaller of the largest in its row and its column. */
export function closeMatrix(given: Mat4, wanted: Mat4, digits: number): boolean {
  const largest = (at: (k: number) => number) => Math.max(...[0, 1, 2, 3].map((k) => Math.abs(given[at(k)]!)));
  for (let r = 0; r < 4; r++)
    for (let c = 0; c < 4; c++) {
      const at = 4 * r + c;
      if (given[at] === wanted[at]) continue;
      const size = Math.min(largest((k) => 4 * r + k), largest((k) => 4 * k + c)); // prettier-ignore
      if (!close(given[at]!, wanted[at]!, size, digits)) return false;
    }
  return true;
}

const median = (list: readonly number[]): number => {
  const sorted = list.map(Math.abs).sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
};
/** The size that each coordinate of given points is trusted against, its median: worked out once a list. */
const sizes = new WeakMap<readonly GivenPoint[], readonly [number, number, number]>();
function sizesOf(given: readonly GivenPoint[]): readonly [number, number, number] {
  let found = sizes.get(given);
  if (!found) {
    const of = (coordinate: (point: GivenPoint) => number) => median(given.map(coordinate));
    sizes.set(given, (found = [of(({ screen }) => screen[0]), of(({ screen }) => screen[1]), of(({ depth }) => depth ?? 0)])); // prettier-ignore
  }
  return found;
}
/**
 * Whether given points are where they come out, to their digits, by the median size of each
 * coordinate. The first that is not ends it: of many sets of faults nearly all fail at once.
 */
export function closePoints(
  given: readonly GivenPoint[],
  comesTo: (point: GivenPoint) => PrintedPoint | null,
  digits: number,
): boolean {
  const [x, y, z] = sizesOf(given);
  return given.every((point) => {
    const { screen, depth } = point;
    const one = comesTo(point);
    return (
      one !== null &&
      close(screen[0], one.screen[0], x, digits) &&
      close(screen[1], one.screen[1], y, digits) &&
      (depth === null || close(depth, one.depth, z, digits))
    );
  });
}

const isOf = (list: readonly string[], name: string): boolean => list.includes(name);

/** The faults that have a meaning for a camera and for what is given, each at the places where it can be. */
export function instancesFor(intended: Intended, given: Given, others: readonly Other[]): readonly Instance[] {
  const things = givenThings(given);
  const { frame, e, angles, field, plainUp, isFrustum, devicePixelRatio } = intended;
  const perspective = frame.kind === 'perspective';
  const meant = (fault: FaultName): boolean => {
    if (isOf(angleFaults, fault)) return angles !== null;
    if (isOf(basisFaults, fault)) return plainUp;
    switch (fault) {
      case 'fovInOtherUnit':
      case 'halfAngleTwice':
      case 'halfAngleMissing':
        return field !== null;
      case 'fovAxis':
        return field?.kind === 'verticalFov';
      case 'aspectInverted':
      case 'aspectMissing':
        return !isFrustum;
      case 'depthRangeOther':
        return usualDepths.some(([near, far]) => near === e.conventions.ndc.near && far === e.conventions.ndc.far);
      case 'farLeftOut':
        return perspective && frame.far !== null;
      case 'wNegated':
        return perspective;
      case 'devicePixelRatio':
        return devicePixelRatio !== null && devicePixelRatio !== 1;
      default:
        return true;
    }
  };
  const reaches = (place: Place): boolean =>
    things.includes(place) || downstream[place].some((thing) => things.includes(thing));
  const instances = faultNames.filter(meant).flatMap((fault): Instance[] => {
    const ways = fault === 'halfPixel' || fault === 'devicePixelRatio' ? [true, false] : [undefined];
    return placesOf(fault)
      .filter((place) => (place === 'cameraToWorld' ? things.includes(place) : reaches(place)))
      .flatMap((place) => ways.map((up) => ({ fault, place, ...(up !== undefined && { up }) })));
  });
  const matrices = things.filter((thing) => thing !== 'points').length;
  return [
    ...instances,
    ...(matrices > 1 ? [{ fault: 'transposed', place: 'matrices' } as const] : []),
    ...others.map(({ name, intended: camera }): Instance => ({
      fault: 'otherCamera',
      place: 'view',
      which: name,
      camera,
    })),
  ];
}

/** The things that a fault can show in. */
export function affects({ fault, place }: Instance): readonly GivenName[] {
  if (place === 'matrices') return ['view', 'cameraToWorld', 'projection', 'viewProjection'];
  if (fault === 'otherCamera') return givenNames;
  return [place, ...downstream[place]];
}

/** What an engine with some faults comes to, each thing in the ways that it can be made. */
export class Engine {
  readonly #matrices = new Map<string, readonly Mat4[]>();

  constructor(
    readonly intended: Intended,
    readonly others: readonly Other[],
  ) {}

  #intendedOf(faults: readonly Instance[]): Intended {
    return faults.find(({ camera }) => camera)?.camera ?? this.intended;
  }

  /** A matrix in the ways in which it can be made: one, or two for the camera's transform; none where it cannot be. */
  matrix(name: MatrixName, faults: readonly Instance[]): readonly Mat4[] {
    const own = faults.filter((one) => affects(one).includes(name));
    const key = `${name} ${own.map(({ fault, place, which }) => `${fault}@${place}${which ?? ''}`).join()}`;
    let made = this.#matrices.get(key);
    if (!made) this.#matrices.set(key, (made = this.#make(name, own)));
    return made;
  }

  #make(name: MatrixName, faults: readonly Instance[]): readonly Mat4[] {
    const intended = this.#intendedOf(faults);
    const at = (place: Place, list: readonly string[]): FaultName[] =>
      faults.flatMap((one) => (one.place === place && isOf(list, one.fault) ? [one.fault as FaultName] : []));
    const everywhere = (of: readonly Mat4[]) => (faults.some(({ place }) => place === 'matrices') ? of.map(transpose) : of); // prettier-ignore
    const one = (m: Mat4 | null): readonly Mat4[] => (m ? [m] : []);
    switch (name) {
      case 'view':
        return everywhere(one(wholeWith(viewWith(intended, at('view', poseFaults)), at('view', wholeFaults))));
      case 'cameraToWorld': {
        const pose = [...at('view', poseFaults), ...at('cameraToWorld', poseFaults)];
        const whole = at('cameraToWorld', wholeFaults);
        const view = wholeWith(viewWith(intended, pose), at('view', wholeFaults));
        const ways = [view && wholeWith(invert4(view), whole), wholeWith(ownTransformWith(intended, pose), whole)];
        return everywhere(ways.flatMap(one));
      }
      case 'projection': {
        const names = at('projection', faultNames).filter((fault) => !isOf(wholeFaults, fault));
        return everywhere(one(wholeWith(projectionWith(intended, names), at('projection', wholeFaults))));
      }
      case 'viewProjection': {
        const plain = faults.filter(({ place }) => place !== 'matrices');
        const [view] = this.matrix('view', plain);
        const [projection] = this.matrix('projection', plain);
        if (!view || !projection) return [];
        const swapped = at('viewProjection', ['factorsSwapped']).length > 0;
        const otherHand = at('viewProjection', handFaults).length > 0;
        const taken = otherHand ? withAheadNegated(this.#intendedOf(faults), view) : view;
        const product = swapped ? multiply(taken, projection) : multiply(projection, taken);
        return everywhere(one(wholeWith(ndcRowsWith(product, at('viewProjection', ndcRowFaults)), at('viewProjection', wholeFaults)))); // prettier-ignore
      }
    }
  }

  /** Returns the function that takes a point to the screen with some faults; null for a point without a picture. */
  comesTo(faults: readonly Instance[]): (point: GivenPoint) => PrintedPoint | null {
    const [viewProjection] = this.matrix('viewProjection', faults.filter(({ place }) => place !== 'matrices')); // prettier-ignore
    if (!viewProjection) return () => null;
    const own = faults.flatMap(({ fault, place, up }) =>
      place === 'points' && fault !== 'otherCamera' && fault !== 'differs'
        ? [{ fault, ...(up !== undefined && { up }) }]
        : [],
    );
    const intended = this.#intendedOf(faults);
    return ({ world }) => pointWith(intended, viewProjection, world, own);
  }
  /** The points as they come out; a null for one that has no picture. */
  points(given: readonly GivenPoint[], faults: readonly Instance[]): readonly (PrintedPoint | null)[] {
    return given.map(this.comesTo(faults));
  }

  /** Whether a given thing is what comes of some faults. */
  matches(given: Given, thing: GivenName, faults: readonly Instance[]): boolean {
    if (thing === 'points') return closePoints(given.points, this.comesTo(faults), given.digits);
    return this.matrix(thing, faults).some((made) => closeMatrix(given.matrices[thing]!, made, given.digits));
  }
}

/** A set of faults that explains what was given, with the thing that each is said of. */
export interface FaultSet {
  readonly faults: readonly (Instance & { readonly where: GivenName | 'matrices' })[];
  /** The faults of the set that make each given thing. */
  readonly by: ReadonlyMap<GivenName, readonly Instance[]>;
}

/** The thing that a fault is said of: its place if that is given, else the first given thing after it that is wrong. */
function whereOf(one: Instance, things: readonly GivenName[], wrong: readonly GivenName[]): GivenName | 'matrices' {
  if (one.place === 'matrices') return 'matrices';
  if (one.fault === 'otherCamera') return wrong[0]!;
  if (things.includes(one.place)) return one.place;
  return affects(one).find((thing) => wrong.includes(thing)) ?? one.place;
}

const isAnotherCamera = ({ fault }: Instance): boolean => fault === 'otherCamera' || fault === 'differs';
/** Whether a fault is of the same matrix as the pose or the lens in which a camera differs. */
const isOfTheSame = (differs: Instance, { place }: Instance): boolean =>
  place === 'matrices' ||
  (differs.place === 'projection' ? place === 'projection' : place === 'view' || place === 'cameraToWorld');

/** The subsets of up to three faults, the largest first. */
function subsets(list: readonly Instance[]): readonly (readonly Instance[])[] {
  return list
    .reduce<Instance[][]>((made, one) => [...made, ...made.map((some) => [...some, one])], [[]])
    .sort((a, b) => b.length - a.length);
}

/**
 * Finds the smallest sets of faults that explain the given numbers: one or two known faults; another camera of the list
 * with two; a proper camera with another pose or another lens, with none, one or two. Every given thing must result from
 * some faults of the set, and from all faults that name it.
 *
 * @returns no sets where nothing is wrong (`agrees`) and where none of these explains it; `wrong` are the given things
 *   that differ from the intended camera's
 */
export function explainingSets(
  engine: Engine,
  given: Given,
): { readonly agrees: boolean; readonly wrong: readonly GivenName[]; readonly sets: readonly FaultSet[] } {
  const things = givenThings(given);
  const wrong = things.filter((thing) => !engine.matches(given, thing, []));
  if (!wrong.length) return { agrees: true, wrong, sets: [] };
  const instances = instancesFor(engine.intended, given, engine.others);
  const known = new Map<string, boolean>();
  const keys = new Map<Instance, string>();
  const keyOf = (one: Instance): string => {
    let key = keys.get(one);
    if (!key) keys.set(one, (key = `${one.fault} ${one.place} ${one.up ?? ''} ${one.which ?? ''}`));
    return key;
  };
  const matches = (thing: GivenName, faults: readonly Instance[]): boolean => {
    const key = `${thing}|${faults.map(keyOf).join('|')}`;
    let found = known.get(key);
    if (found === undefined) known.set(key, (found = engine.matches(given, thing, faults)));
    return found;
  };
  /** How a set explains every given thing, none of the set to spare; null where it does not. */
  const explanationOf = (set: readonly Instance[]): FaultSet | null => {
    if (!wrong.every((thing) => set.some((one) => affects(one).includes(thing)))) return null;
    const where = set.map((one) => whereOf(one, things, wrong));
    const used = new Set<Instance>();
    const by = new Map<GivenName, readonly Instance[]>();
    for (const thing of things) {
      const own = set.filter((one) => affects(one).includes(thing));
      const named = set.filter((_, i) => where[i] === thing || (where[i] === 'matrices' && thing !== 'points'));
      // All of the set where it can be, before less of it.
      const way = subsets(own).find((some) => named.every((one) => some.includes(one)) && matches(thing, some));
      if (!way) return null;
      by.set(thing, way);
      // A fault shows only where the thing is wrong.
      if (wrong.includes(thing)) for (const one of way) used.add(one);
    }
    return used.size === set.length ? { faults: set.map((one, i) => ({ ...one, where: where[i]! })), by } : null;
  };
  const explaining = (sets: Iterable<readonly Instance[]>): FaultSet[] =>
    [...sets].flatMap((set) => {
      const found = explanationOf(set);
      return found ? [found] : [];
    });
  function* singlesWith(first: readonly Instance[], list: readonly Instance[]) {
    for (const one of list) yield [...first, one];
  }
  function* pairsWith(first: readonly Instance[], list: readonly Instance[]) {
    for (const [i, a] of list.entries())
      for (const b of list.slice(i + 1)) if (a.fault !== b.fault || a.place !== b.place) yield [...first, a, b];
  }
  const plain = instances.filter((one) => !isAnotherCamera(one));
  const steps: (() => FaultSet[])[] = [
    () => explaining(singlesWith([], instances)),
    () => explaining(pairsWith([], instances)),
    // Another camera of the list with two faults, where a given thing is that camera's.
    () =>
      instances
        .filter((one) => one.fault === 'otherCamera' && wrong.some((thing) => matches(thing, [one])))
        .flatMap((one) => explaining(pairsWith([one], plain))),
  ];
  let differing: readonly Instance[] | undefined;
  const withDiffering = (more: (one: Instance, rest: readonly Instance[]) => Iterable<readonly Instance[]>) => () => {
    differing ??= differingCameras(engine, given, (place) => plain.filter((one) => one.place === place));
    return differing.flatMap((one) =>
      explaining(
        more(
          one,
          plain.filter((fault) => !isOfTheSame(one, fault)),
        ),
      ),
    );
  };
  steps.push(
    withDiffering((one) => [[one]]),
    withDiffering((one, rest) => singlesWith([one], rest)),
    withDiffering((one, rest) => pairsWith([one], rest)),
  );
  for (const step of steps) {
    const sets = step();
    if (sets.length) return { agrees: false, wrong, sets };
  }
  return { agrees: false, wrong, sets: [] };
}
