import { frameFov, frameOf, pictureShape } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import { withoutNegativeZero, type ConventionCodec } from '../conventions/codec';
import { readGiven, type ReadLens, type ReadPose } from '../diagnose/decompose';
import {
  diagnoseListings,
  withOtherListings,
  type Diagnosis,
  type Difference,
  type Residual,
  type Explanation,
  type SaidFault,
} from '../diagnose/diagnose';
import type { Intended } from '../diagnose/engine';
import {
  agreedOf,
  identify,
  openOf,
  type Candidate,
  type DecidingNumber,
  type Listed,
  type Open,
} from '../diagnose/identify';
import type { Given, Other } from '../diagnose/search';
import { supportedDigits, type ReadNumbers } from '../diagnose/supportedDigits';
import { mat4, type Mat4 } from '../math/mat4';
import { notIn2d, type Operations } from './answering';
import { type ResolvedRequest } from './read';
import { readCamera } from './readCamera';
import type { RequestCamera } from './schema';
import { writeCamera } from './write';

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

/** A candidate's camera in the form of a request: what the numbers hold of it. */
function candidateCamera({ e, frame, hasPose, hasLens }: Candidate) {
  const { projection, ...pose } = writeCamera(frame, e);
  const fov = frameFov(frame);
  const { near, far } = frame;
  const { aspect, ...shape } = pictureShape(frame);
  const shift = shape.shift.map(withoutNegativeZero);
  // A field of view says more than edges do.
  const lens = fov === null ? projection : { kind: 'perspective', near, far, verticalFov: e.toAngle(fov), aspect, ...(shift.some(Boolean) && { shift }) }; // prettier-ignore
  return { ...(hasPose && pose), ...(hasLens && { projection: lens }) };
}

const decides: Readonly<Record<DecidingNumber, string>> = {
  yaw: 'The yaw that the engine has for this camera: which way it is ahead at 0.',
  near: 'How far near is: the depths of the NDC follow from it.',
  position: 'Where the camera stood: a coordinate of it.',
  viewOfPoint:
    'The view coordinates of one point that is known to be 1 to the right, 2 above and 3 ahead of the camera, or the projection.',
};
/** The candidates whose figures are counted. */
const mostWithDigits = 8;

/** Figures of a candidate's numbers that the digits of the given ones support. */
function candidateDigits({ e }: Candidate, listed: Listed, digits: number) {
  const matrices = Object.fromEntries(Object.entries(listed).map(([name, list]) => [name, e.fromList(mat4(list))]));
  const { pose, lens } = decomposedDigits({ matrices, points: [], digits }, e);
  return { ...pose, ...lens };
}
/** Figures of the pose's and the lens's numbers that the digits of the given ones support. */
function decomposedDigits({ matrices, digits }: Given, e: ConventionCodec) {
  const numbers = (part: 'pose' | 'lens') =>
    supportedDigits(matrices, digits, (moved) => {
      const read = readGiven({ matrices: moved, points: [], digits }, e);
      const answer = part === 'pose' ? poseAnswer(read.pose, e) : lensAnswer(read.lens, e);
      return answer && (Object.fromEntries(Object.entries(answer).filter(([, v]) => v === null || typeof v === 'number' || Array.isArray(v))) as ReadNumbers); // prettier-ignore
    });
  return { pose: numbers('pose'), lens: numbers('lens') };
}

/** One number of each thing's residual, with a reason where one has no picture. */
function residualsAnswer(residuals: Diagnosis['residuals'], of: (one: Residual) => number | null) {
  const numbers = Object.entries(residuals).map(([name, one]) => [name, of(one)] as const);
  return {
    ...Object.fromEntries(numbers),
    ...(numbers.some(([, v]) => v === null) && { reason: 'noPicture' }),
  };
}

/** The number that is read off for each difference. */
const readNames: Readonly<Record<Difference['name'], readonly ['pose' | 'lens', string]>> = {
  position: ['pose', 'position'],
  orientation: ['pose', 'yaw'],
  fieldOfView: ['lens', 'verticalFov'],
  near: ['lens', 'near'],
  far: ['lens', 'far'],
  shift: ['lens', 'shift'],
};
/** A fault with the supported figures of every number that was read off for it. */
const withDigits = (said: SaidFault, digits: ReturnType<typeof decomposedDigits>): object =>
  said.what
    ? {
        ...said,
        what: said.what.map((one) => {
          const [part, name] = readNames[one.name];
          const figures = digits[part][name];
          return figures === undefined ? one : { ...one, digits: figures };
        }),
      }
    : said;

/** What the candidates differ in, as it is answered. */
const openAnswer = ({ name, number, values }: Open) => ({
  ...{ name, number, decides: decides[number] },
  values: values.map(({ candidate, number: value }) => ({ [name]: candidate.e.conventions[name], number: value })),
});

/** What is said of an engine's numbers: against the camera that is intended, and by themselves. */
export const diagnoseOperations: Pick<Operations, 'diagnose' | 'identify'> = {
  identify: ({ codec: e, frame }, { given: { points = [], ...listed }, digits, world }) => {
    const told = points.map(({ world, screen, depth }) => ({ world, screen, depth: depth ?? null }));
    const matrices = Object.fromEntries(Object.entries(listed).filter(([, list]) => list !== undefined)) as Listed;
    const found = identify(matrices, told, e.conventions, frame.viewport, digits, world);
    const open = openOf(found, matrices, world);
    const differ = new Set(open.map(({ name }) => name));
    const first = found[0]?.e.conventions;
    return {
      candidates: found.map((one, i) => ({
        ...{ conventions: one.e.conventions, camera: candidateCamera(one) },
        ...(i < mostWithDigits && { digits: candidateDigits(one, matrices, digits) }),
      })),
      decided: {
        ...(first && !differ.has('view') && { view: first.view }),
        ...(first && !differ.has('ndc') && { ndc: first.ndc }),
        ...(first && !differ.has('matrix') && { matrix: first.matrix }),
        ...agreedOf(found, digits),
      },
      open: open.map(openAnswer),
      ...(!found.length && { reason: 'notACamera' }),
    };
  },

  diagnose: ({ codec: e, frame, camera, flat }, { given, digits, others, devicePixelRatio, listingUnknown }) => {
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
    const {
      found,
      listing,
      others: tied,
    } = diagnoseListings(intendedOf(camera, frame, e, ratio), told, used, listingUnknown);
    const poseNumbers = poseAnswer(found.read.pose, e);
    const lensNumbers = lensAnswer(found.read.lens, e);
    const readDigits = decomposedDigits(listing === 'given' ? told : withOtherListings(told, listingUnknown), e);
    const pose = poseNumbers && { ...poseNumbers, digits: readDigits.pose };
    const lens = lensNumbers && { ...lensNumbers, digits: readDigits.lens };
    // A camera's transform alone, and what divides by nothing, have no picture.
    const why = (one: { readonly residual: number | null }) => (one.residual === null ? { reason: 'noPicture' } : {});
    return {
      ...{ verdict: found.verdict, residual: found.residual, depthResidual: found.depthResidual, ...why(found) },
      residuals: residualsAnswer(found.residuals, ({ residual }) => residual),
      depthResiduals: residualsAnswer(found.residuals, ({ depthResidual }) => depthResidual),
      ...(listingUnknown.length > 0 && { listing }),
      explanations: [...found.explanations, ...tied].map((one: Explanation) => ({
        ...one,
        faults: one.faults.map((fault) => withDigits(fault, readDigits)),
        equivalent: one.equivalent.map((set) => set.map((fault) => withDigits(fault, readDigits))),
        decides: one.decides.map((number) => number ?? { where: null, reason: 'nothingDecides' }),
        ...why(one),
      })),
      decomposed: { pose, lens, ...((!pose || !lens) && { reason: 'notACamera' }) },
    };
  },
};
