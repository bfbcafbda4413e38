import * as z from 'zod';
import { frameFov, pictureShape } from '../camera/frame';
import { anglesOfBasis } from '../camera/orientation';
import { withoutNegativeZero, type ConventionCodec } from '../conventions/codec';
import { readGiven, type ReadLens, type ReadPose } from './decompose';
import {
  diagnoseListings,
  withOtherListings,
  type Diagnosis,
  type Difference,
  type Residual,
  type Explanation,
  type SaidFault,
} from './diagnose';
import type { Intended } from './engine';
import { agreedOf, identify, openOf, type Candidate, type DecidingNumber, type Listed, type Open } from './identify';
import { diagnose2d, type Other2d } from './diagnose2d';
import { identify2d } from './identify2d';
import type { Conventions } from '../conventions/conventions';
import type { Viewport } from '../camera/frame';
import type { Given, Other } from './given';
import { supportedDigits, type ReadNumbers } from './supportedDigits';
import { mat4 } from '../math/mat4';
import type { Vec3 } from '../math/vec3';
import { listOf, positive } from '../quantities/numbers';
import { asWritten } from '../quantities/quantity';
import type { Problem } from '../reasons';
import { cameraSchema, type RequestCamera, type RequestCamera2d } from '../request/cameraSchema';
import { lengthOf, operation } from '../request/operation';
import { readFrame, readFrame2d } from '../request/readCamera';
import type { Setup } from '../request/setup';
import { input } from '../request/values';
import { writeCamera } from '../request/write';
import { diagnosedShape, identifiedShape } from './answerSchemas';

/** A request's camera as faults are asked of it: resolved, and how it was said. */
export function intendedOf(
  camera: RequestCamera,
  frame: Setup['frame'],
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
  aspect: ['lens', 'aspect'],
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

/** Writes a difference between the candidates for the answer. */
const openAnswer = ({ name, number, values }: Open) => ({
  ...{ name, number, decides: decides[number] },
  values: values.map(({ candidate, number: value }) => ({ [name]: candidate.e.conventions[name], number: value })),
});

const sixteen = () => z.array(input.number()).length(16).describe('Listed as the conventions have it');
const affineNumbers = (description: string) =>
  z
    .array(input.number())
    .refine(({ length }) => length === 6 || length === 9 || length === 16, '6, 9 or 16 numbers')
    .describe(`${description}: 6, 9 or 16 numbers, listed as the conventions have it`);
/** The schema of an engine's numbers, believed to be in the request's conventions. */
const givenSchema = z
  .object({
    view: sixteen().optional(),
    projection: sixteen().optional(),
    viewProjection: sixteen().optional(),
    cameraToWorld: sixteen().optional(),
    worldToPixel: affineNumbers('World to pixels of a 2D camera, before snapping').optional(),
    pixelToWorld: affineNumbers('Pixels to world of a 2D camera, before snapping').optional(),
    points: listOf(
      z.object({
        world: z.union([input.triple(), input.pair()]).describe('Two numbers with a 2D camera'),
        screen: input.pair(),
        depth: input.number().optional(),
      }),
    ).optional(),
  })
  .refine((given) => Object.values(given).some((one) => one !== undefined && one.length > 0), 'a matrix or a point');
type GivenNumbers = z.output<typeof givenSchema>;
const digitsSchema = () =>
  z.int().min(2).max(15).default(6).describe('Digits of the given numbers that can be trusted');

/** Work of a search, in looks: pairs of faults, or assignments of axes, depths and listings. */
const searchCost = 20_000;
const listedOf = ({ view, projection, viewProjection, cameraToWorld }: GivenNumbers): Listed =>
  Object.fromEntries(
    Object.entries({ view, projection, viewProjection, cameraToWorld }).filter(([, list]) => list !== undefined),
  );
const pointsOf = ({ points = [] }: GivenNumbers) =>
  points.map(({ world, screen, depth }) => ({ world: world as Vec3, screen, depth: depth ?? null }));

/** Problems of numbers that a camera of the world's kind does not have. */
function kindProblems(given: GivenNumbers, hasDepth: boolean): Problem[] {
  const matrices = Object.keys(given).filter((name) => name !== 'points' && given[name as keyof GivenNumbers]);
  const own = hasDepth ? ['view', 'projection', 'viewProjection', 'cameraToWorld'] : ['worldToPixel', 'pixelToWorld'];
  const wrong = matrices.filter((name) => !own.includes(name));
  const size = hasDepth ? 3 : 2;
  const point = (given.points ?? []).findIndex(({ world }) => world.length !== size);
  return [
    ...wrong.map((name) => ({
      path: `given.${name}`,
      message: `A ${hasDepth ? '3D' : '2D'} camera has no ${name}. Give ${own.join(', ')} or points.`,
    })),
    ...(point < 0
      ? []
      : [
          {
            path: `given.points[${point}].world`,
            message: `With a ${size}D camera a world point has ${size} numbers.`,
          },
        ]),
  ];
}

/** Answers `diagnose` of a 2D camera. */
function diagnosed2d(
  { given, digits, others, devicePixelRatio }: Diagnosing,
  { codec, frame: { viewport } }: Setup,
  camera: RequestCamera2d,
): object {
  const intended = { camera, viewport, codec };
  const used = others.map(({ name, camera: other }): Other2d => ({ name, intended: { ...intended, camera: other as RequestCamera2d } })); // prettier-ignore
  const { worldToPixel, pixelToWorld, points = [] } = given;
  const matrices = { ...(worldToPixel && { worldToPixel }), ...(pixelToWorld && { pixelToWorld }) };
  const pairs = points.map(({ world, screen }) => ({ world: [world[0], world[1]] as const, screen }));
  const found = diagnose2d(intended, { matrices, points: pairs, digits }, used, devicePixelRatio ?? null);
  const why = (one: { readonly residual: number | null }) => (one.residual === null ? { reason: 'noPicture' } : {});
  return {
    ...found,
    ...why(found),
    explanations: found.explanations.map((one) => ({ ...one, ...why(one) })),
    decomposed: found.decomposed ?? { reason: 'notACamera' },
  };
}

interface NamedCamera {
  readonly name: string;
  readonly camera: RequestCamera | RequestCamera2d;
}

/** A query of `diagnose` as parsed. */
interface Diagnosing {
  readonly given: GivenNumbers;
  readonly digits: number;
  readonly others: readonly NamedCamera[];
  readonly devicePixelRatio?: number | undefined;
}

/** Answers `identify` of the numbers of a 2D camera. */
function identified2d(given: GivenNumbers, digits: number, conventions: Conventions, viewport: Viewport): object {
  const { worldToPixel, pixelToWorld, points = [] } = given;
  const matrices = { ...(worldToPixel && { worldToPixel }), ...(pixelToWorld && { pixelToWorld }) };
  const pairs = points.map(({ world, screen }) => ({ world: [world[0], world[1]] as const, screen }));
  const { candidates, decided } = identify2d({ matrices, points: pairs, digits }, conventions, viewport);
  const ups = new Set(candidates.map((one) => one.conventions.world.up));
  return {
    candidates,
    decided,
    open: [
      ...(ups.size > 1
        ? [
            {
              ...{ name: 'world', number: 'position' },
              decides: 'The pixel of a point that is known to be above another: which way the world’s y grows.',
              values: candidates.map((one) => ({ world: one.conventions.world, number: one.camera.focus[1] })),
            },
          ]
        : []),
      ...(candidates.length
        ? [
            {
              ...{ name: 'anchor', number: 'anchor' },
              decides: 'The pixel that the camera keeps its focus at: the numbers hold focus and anchor as one translation.', // prettier-ignore
              values: [],
            },
          ]
        : []),
    ],
    ...(!candidates.length && { reason: 'notACamera' }),
  };
}

/** Operations on an engine's numbers: against the intended camera, and by themselves. */
export const diagnoseOperations = [
  operation('diagnose', {
    summary: 'Finds the faults under which the request’s camera has the numbers that an engine has.',
    worlds: ['3d', '2d'],
    input: {
      given: givenSchema,
      digits: digitsSchema(),
      others: z
        .array(z.object({ name: z.string().min(1), camera: asWritten(cameraSchema) }))
        .max(64)
        .default([])
        .describe('Cameras that the numbers may belong to instead'),
      devicePixelRatio: positive.optional(),
      listingUnknown: z
        .array(z.enum(['view', 'projection', 'viewProjection', 'cameraToWorld']))
        .max(4)
        .default([])
        .describe('Matrices that may be listed the other way than the conventions have it'),
    },
    output: diagnosedShape,
    cost: ({ given }) => searchCost + 200 * lengthOf((given as { points?: unknown } | null | undefined)?.points),
    problems: ({ given, others }: Diagnosing, { codec, world, viewport }): Problem[] => [
      ...kindProblems(given, world.hasDepth),
      ...others.flatMap(({ camera }, i): Problem[] => {
        const path = `others[${i}].camera`;
        const is2d = 'kind' in camera;
        if (is2d === world.hasDepth)
          return [
            { path, message: `This is a ${is2d ? '2D' : '3D'} camera, and the intended one is not. Leave it out.` },
          ];
        const read = is2d ? readFrame2d(camera, codec, viewport) : readFrame(camera, codec, viewport);
        return read.ok ? [] : read.problems.map((one) => ({ ...one, path: `others[${i}].${one.path}` }));
      }),
    ],
    run: (query, setup) => {
      const { given, digits, others, devicePixelRatio, listingUnknown } = query;
      const { codec: e, frame, camera } = setup;
      type Answer = z.output<z.ZodObject<typeof diagnosedShape>>;
      if ('kind' in camera) return diagnosed2d(query as unknown as Diagnosing, setup, camera) as unknown as Answer;
      const intended = camera;
      const matrices = Object.entries(listedOf(given)).map(([name, list]) => [name, e.fromList(mat4(list))] as const);
      const numbers: Given = {
        matrices: Object.fromEntries(matrices) as Given['matrices'],
        points: pointsOf(given),
        digits,
      };
      const ratio = devicePixelRatio ?? null;
      const used = (others as readonly NamedCamera[]).map(({ name, camera: other }): Other => {
        const read = readFrame(other as RequestCamera, e, frame.viewport);
        // Checked with the whole request (`problems`).
        if (!read.ok) throw new Error(read.problems[0]!.message);
        return { name, intended: intendedOf(other as RequestCamera, read.value, e, ratio) };
      });
      const {
        found,
        listing,
        others: tied,
      } = diagnoseListings(intendedOf(intended, frame, e, ratio), numbers, used, listingUnknown);
      const poseNumbers = poseAnswer(found.read.pose, e);
      const lensNumbers = lensAnswer(found.read.lens, e);
      const readDigits = decomposedDigits(
        listing === 'given' ? numbers : withOtherListings(numbers, listingUnknown),
        e,
      );
      const pose = poseNumbers && { ...poseNumbers, digits: readDigits.pose };
      const lens = lensNumbers && { ...lensNumbers, digits: readDigits.lens };
      // A camera's transform alone has no picture, nor has a division by nothing.
      const why = (one: { readonly residual: number | null }) => (one.residual === null ? { reason: 'noPicture' } : {});
      return {
        verdict: found.verdict,
        residual: found.residual,
        depthResidual: found.depthResidual,
        ...why(found),
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
      } as unknown as z.output<z.ZodObject<typeof diagnosedShape>>;
    },
  }),

  operation('identify', {
    summary:
      'Finds the conventions under which an engine’s numbers are a proper camera, and that camera. A request of this operation alone needs no camera.',
    input: {
      given: givenSchema,
      digits: digitsSchema(),
      world: z
        .enum(['given', 'any'])
        .default('any')
        .describe('Whether the world axes of the conventions are kept, or found'),
    },
    output: identifiedShape,
    cost: () => searchCost,
    run: ({ given, digits, world }, { codec: e, frame, camera }) => {
      type Answer = z.output<z.ZodObject<typeof identifiedShape>>;
      if (given.worldToPixel ?? given.pixelToWorld ?? 'kind' in camera)
        return identified2d(given, digits, e.conventions, frame.viewport) as unknown as Answer;
      const matrices = listedOf(given);
      const found = identify(matrices, pointsOf(given), e.conventions, frame.viewport, digits, world);
      const open = openOf(found, matrices, world);
      const openNames = new Set(open.map(({ name }) => name));
      const first = found[0]?.e.conventions;
      return {
        candidates: found.map((one, i) => ({
          conventions: one.e.conventions,
          camera: candidateCamera(one),
          ...(i < mostWithDigits && { digits: candidateDigits(one, matrices, digits) }),
        })),
        decided: {
          ...(first && !openNames.has('view') && { view: first.view }),
          ...(first && !openNames.has('ndc') && { ndc: first.ndc }),
          ...(first && !openNames.has('matrix') && { matrix: first.matrix }),
          ...agreedOf(found, digits),
        },
        open: open.map(openAnswer),
        ...(!found.length && { reason: 'notACamera' }),
      } as unknown as z.output<z.ZodObject<typeof identifiedShape>>;
    },
  }),
] as const;
