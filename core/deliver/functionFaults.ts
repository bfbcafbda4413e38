import { depthCoefficients, type CameraFrame, type Viewport } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import { depth01Of, depthToAhead, projectPoint, viewRufToWorld } from '../convert/project';
import { dot, type Vec2, type Vec3 } from '../math/vec3';
import { answer3d, followAnswer, planeKinds, type VectorContext } from './vectorAnswers';
import type { FaultWay } from './faultWay';
import type { VectorKind } from './vectorKinds';

/*
 * Faults of single functions, in an engine whose matrices are right: the way back from the screen, rays, planes,
 * billboards, spawning, following, sort keys. `diagnose` knows the faults of matrices and of points on the screen.
 */

/** A fault of functions of some kinds. */
export interface FunctionFault<Context> {
  readonly name: string;
  readonly kinds: readonly VectorKind[];
  /** Cause and fix, in one or two sentences. */
  readonly fix: (amount: number) => string;
  /** The ways of committing it; one without a number if absent. */
  readonly amounts?: readonly number[];
  /** Returns the wrong answer; undefined where the fault has no meaning for this camera or row. */
  readonly commit: (context: Context, kind: VectorKind, input: readonly number[], amount: number) => readonly number[] | null | undefined; // prettier-ignore
  /** Changes an engine's answer so that every form of the fault gives the right answer. */
  readonly accepts?: (given: readonly number[]) => readonly number[];
}

/** Ratios of device pixels to pixels of the page that displays have. */
const ratios = [2, 1.5, 3, 1.25, 1.75, 2.5, 2.25, 4].flatMap((ratio) => [ratio, 1 / ratio]);
const back = ['screenToWorld', 'ray'] as const;

/** What faults of the screen depend on, of cameras of both kinds. */
interface ScreenContext {
  readonly viewport: Viewport;
  readonly codec: ConventionCodec;
  /** Returns the right answer. */
  answer(kind: VectorKind, input: readonly number[]): readonly number[] | null;
}

/** Moves a pixel of the input before the right function takes it. */
const ofPixel =
  (move: (pixel: Vec2, context: ScreenContext, amount: number) => Vec2): FunctionFault<ScreenContext>['commit'] =>
  (context, kind, [x, y, ...others], amount) =>
    context.answer(kind, [...move([x!, y!], context, amount), ...others]);

/** The edge that screen coordinates are measured from: half a pixel before 0 where pixel centres are integers. */
const edgeOf = ({ codec }: ScreenContext): number => codec.conventions.screen.pixelCentre - 0.5;

/** Faults of the way back from a pixel, of cameras of both kinds. */
export const screenFaults = [
  {
    name: 'unprojectYFlipped',
    kinds: back,
    fix: () => 'The way back from a pixel flips y: measure pixel y from the same edge as the way there.',
    commit: ofPixel(([x, y], context) => {
      const { viewport: v } = context;
      return [x, 2 * (v.y + edgeOf(context)) + v.height - y];
    }),
  },
  {
    name: 'unprojectHalfPixel',
    kinds: back,
    amounts: [0.5, -0.5],
    fix: (amount) => `The way back from a pixel is off by half a pixel: it ${amount > 0 ? 'adds' : 'subtracts'} 0.5 that the conventions do not have.`, // prettier-ignore
    commit: ofPixel(([x, y], _, amount) => [x + amount, y + amount]),
  },
  {
    name: 'unprojectDevicePixelRatio',
    kinds: back,
    amounts: ratios,
    fix: (amount) => `The way back multiplies pixels by ${shortNumber(amount)}: apply the device pixel ratio once, in the same place as on the way there.`, // prettier-ignore
    commit: ofPixel(([x, y], _, amount) => [x * amount, y * amount]),
  },
  {
    name: 'unprojectViewportOffset',
    kinds: back,
    amounts: [1, -1],
    fix: (amount) => `The way back ${amount > 0 ? 'leaves the viewport’s x and y in' : 'subtracts the viewport’s x and y twice'}: subtract them once.`, // prettier-ignore
    commit: ofPixel(([x, y], { viewport: v }, amount) => [x + amount * v.x, y + amount * v.y]),
  },
  {
    name: 'unprojectLastPixel',
    kinds: back,
    fix: () => 'The way back divides by width − 1 and height − 1: divide by the width and the height.',
    commit: ofPixel(([x, y], context) => {
      const { viewport: v } = context;
      const of = (value: number, start: number, size: number) => start + ((value - start) * size) / (size - 1);
      return [of(x, v.x + edgeOf(context), v.width), of(y, v.y + edgeOf(context), v.height)];
    }),
  },
  {
    name: 'lastPixel',
    kinds: ['worldToScreen'],
    fix: () => 'NDC is multiplied by width − 1 and height − 1: multiply by the width and the height.',
    commit: (context, kind, input) => {
      const right = context.answer(kind, input);
      if (!right) return right;
      const { viewport: v } = context;
      const of = (value: number, start: number, size: number) => start + ((value - start) * (size - 1)) / size;
      const edge = edgeOf(context);
      return [of(right[0]!, v.x + edge, v.width), of(right[1]!, v.y + edge, v.height), ...right.slice(2)];
    },
  },
  {
    name: 'devicePixelRatio',
    kinds: ['worldToScreen'],
    amounts: ratios,
    fix: (amount) => `Pixels are multiplied by ${shortNumber(amount)}: the device pixel ratio is applied once too often or once too little.`, // prettier-ignore
    commit: (context, kind, input, amount) => {
      const right = context.answer(kind, input);
      return right && [right[0]! * amount, right[1]! * amount, ...right.slice(2)];
    },
  },
] as const satisfies readonly FunctionFault<ScreenContext>[];

const shortNumber = (value: number): string => String(Number(value.toPrecision(4)));

/** Scales planes as rows of the view projection have them, before they are normalised. */
function rowLength({ frame, codec }: VectorContext, kind: VectorKind): number {
  const { extents: x, near, kind: lens } = frame;
  const k = lens === 'perspective' ? near : 1;
  const [width, height] = [(x.right - x.left) / 2 / k, (x.top - x.bottom) / 2 / k];
  const of = (half: number, shift: number, sign: number) =>
    lens === 'perspective' ? Math.hypot(1 / half, 1 + sign * shift) : 1 / half;
  const shift = { x: (x.right + x.left) / (x.right - x.left), y: (x.top + x.bottom) / (x.top - x.bottom) };
  const { near: zn, far: zf } = codec.conventions.ndc;
  const { slope } = depthCoefficients(frame, zn, zf);
  switch (kind) {
    case 'planeLeft':
      return of(width, shift.x, -1);
    case 'planeRight':
      return of(width, shift.x, 1);
    case 'planeBottom':
      return of(height, shift.y, -1);
    case 'planeTop':
      return of(height, shift.y, 1);
    default: {
      const own = kind === 'planeNear' ? zn : zf;
      return Math.abs(lens === 'perspective' ? slope - own : slope);
    }
  }
}

const planes = Object.keys(planeKinds) as VectorKind[];
const boards = ['boardInViewPlane', 'boardTowardsEye', 'boardUpright', 'boardAboutAxis'] as const;
const eyeBoards = ['boardTowardsEye', 'boardUpright'] as const;

/** Changes the right answer. */
const ofAnswer =
  (change: (right: readonly number[], context: VectorContext, kind: VectorKind, input: readonly number[]) => readonly number[] | undefined) =>
  (context: VectorContext, kind: VectorKind, input: readonly number[]): readonly number[] | null | undefined => {
    const right = answer3d(context, kind, input);
    return right && change(right, context, kind, input);
  }; // prettier-ignore
/** Gives the right function another input. */
const ofInput =
  (change: (input: readonly number[]) => readonly number[]) =>
  (context: VectorContext, kind: VectorKind, input: readonly number[]) =>
    answer3d(context, kind, change(input));

/** The distance ahead of a depth that is read by another range than it was written by. */
function aheadBy({ frame, codec }: VectorContext, ahead: number, read: (depth: number) => number): number | null {
  const { picture } = projectPoint(frame, viewRufToWorld(frame, [0, 0, ahead]));
  if (!picture.ok) return null;
  const found = depthToAhead(frame, codec.fromDepth(read(codec.toDepth(picture.value.depth01))));
  return found.ok ? found.value : null;
}
const atDepth =
  (read: (depth: number) => number): FunctionFault<VectorContext>['commit'] =>
  (context, kind, [x, y, ahead]) => {
    const wrong = aheadBy(context, ahead!, read);
    return wrong === null ? undefined : answer3d(context, kind, [x!, y!, wrong]);
  };

const functionFaults3d = [
  {
    name: 'ghosts',
    kinds: ['worldToScreen'],
    fix: () => 'Points behind the eye get a picture, mirrored: return none where w is 0 or below.',
    commit: ({ frame, codec }, _, input) => {
      if (frame.kind !== 'perspective') return undefined;
      const { viewRuf, picture } = projectPoint(frame, codec.fromWorld(input as unknown as Vec3));
      if (picture.ok || viewRuf[2] === 0) return undefined;
      const { extents: x, near } = frame;
      const [across, upward] = [(viewRuf[0] / viewRuf[2]) * near, (viewRuf[1] / viewRuf[2]) * near];
      const { slope, constant } = depthCoefficients(frame, 0, 1);
      return [
        ...codec.toScreen(
          frame.viewport,
          (2 * across - x.left - x.right) / (x.right - x.left),
          (2 * upward - x.bottom - x.top) / (x.top - x.bottom),
        ),
        codec.toDepth(depth01Of((slope * viewRuf[2] + constant) / viewRuf[2])),
        viewRuf[2],
      ];
    },
  },
  {
    name: 'unprojectDepthRange',
    kinds: ['screenToWorld'],
    amounts: [0, 1],
    fix: () => 'The way back takes depth from the other range, −1 to 1 or 0 to 1: use the range of the projection.',
    commit: (context, kind, input, amount) =>
      atDepth((depth) => (amount ? 2 * depth - 1 : (depth + 1) / 2))(context, kind, input, amount),
  },
  {
    name: 'unprojectDepthReversed',
    kinds: ['screenToWorld'],
    fix: () => 'The way back takes near and far in exchange: use the depths of the projection.',
    commit: atDepth((depth) => 1 - depth),
  },
  {
    name: 'unprojectDistance',
    kinds: ['screenToWorld'],
    fix: () => 'The way back measures along the ray: the input is the distance along the view direction.',
    commit: ({ frame, codec }, _, [x, y, ahead]) => {
      const ray = answer3d({ frame, codec, ground: [] }, 'ray', [x!, y!]);
      if (!ray) return undefined;
      return ray.slice(0, 3).map((v, i) => v + ray[i + 3]! * ahead!);
    },
  },
  {
    name: 'rayNotNormalised',
    kinds: ['ray'],
    fix: () => 'The direction of the ray does not have length 1: normalise it.',
    // Any length is this fault (`accepts`); here the direction reaches 1 unit ahead.
    commit: ofAnswer((right, { frame, codec }) => {
      if (frame.kind !== 'perspective') return undefined;
      const ahead = dot(codec.fromWorld(right.slice(3) as unknown as Vec3), frame.forward);
      return [...right.slice(0, 3), ...right.slice(3).map((v) => v / ahead)];
    }),
    accepts: (given) => {
      const size = Math.hypot(...given.slice(3));
      return given.map((v, i) => (i < 3 ? v : v / size));
    },
  },
  {
    name: 'rayReversed',
    kinds: ['ray'],
    fix: () => 'The ray points towards the eye: subtract the eye from the point, not the point from the eye.',
    commit: ofAnswer((right) => right.map((v, i) => (i < 3 ? v : -v))),
  },
  {
    name: 'rayFromNear',
    kinds: ['ray'],
    fix: () => 'The ray begins on the near plane: begin it at the eye (orthographic: in the plane of the eye).',
    commit: ofAnswer((right, { frame, codec }) => {
      const t = frame.near / dot(codec.fromWorld(right.slice(3) as unknown as Vec3), frame.forward);
      return [...right.slice(0, 3).map((v, i) => v + right[i + 3]! * t), ...right.slice(3)];
    }),
  },
  {
    name: 'planesOutward',
    kinds: planes,
    fix: () => 'The planes point outward: negate normal and offset, so that points inside are positive.',
    commit: ofAnswer((right) => right.map((v) => -v)),
  },
  {
    name: 'planesNotNormalised',
    kinds: planes,
    fix: () => 'The planes are not normalised: divide normal and offset by the length of the normal.',
    commit: ofAnswer((right, context, kind) => right.map((v) => v * rowLength(context, kind))),
  },
  {
    name: 'planeOffsetNegated',
    kinds: planes,
    fix: () => 'The offset of the planes is negated: it is −normal · point, for normal · point + offset.',
    commit: ofAnswer((right) => right.map((v, i) => (i === 3 ? -v : v))),
  },
  {
    name: 'nearPlaneOtherDepthRange',
    kinds: ['planeNear'],
    fix: () =>
      'The near plane is that of the other depth range: take row 3 for depths from 0, row 3 plus row 4 for −1.',
    commit: ofAnswer((right, { frame, codec }) => {
      const { near: zn, far: zf } = codec.conventions.ndc;
      const { slope, constant } = depthCoefficients(frame, zn, zf);
      // Reversed depth has near at 1 in either range.
      if (zn > zf) return undefined;
      const own = zn === 0 ? -1 : 0;
      const [at, k] = frame.kind === 'perspective' ? [-constant, slope - own] : [own - constant, slope];
      const wrong = at / k;
      return Number.isFinite(wrong) ? [...right.slice(0, 3), right[3]! + frame.near - wrong] : undefined;
    }),
  },
  {
    name: 'sphereRadiusIgnored',
    kinds: ['sphereOutside'],
    fix: () => 'Spheres are tested by their centre: compare with minus the radius.',
    commit: ofInput(([x, y, z]) => [x!, y!, z!, 0]),
  },
  {
    name: 'sphereSignFlipped',
    kinds: ['sphereOutside'],
    fix: () => 'Spheres that cross a plane count as outside: compare with minus the radius, not with plus.',
    commit: ofInput(([x, y, z, radius]) => [x!, y!, z!, -radius!]),
  },
  {
    name: 'boxCentreOnly',
    kinds: ['boxOutside'],
    fix: () => 'Boxes are tested by their centre: add the extent of the box along each plane’s normal.',
    commit: ofInput(([x, y, z]) => [x!, y!, z!, 0, 0, 0]),
  },
  {
    name: 'boardMirrored',
    kinds: boards,
    fix: () =>
      'The right axis of billboards is negated: their texture is mirrored. Exchange the factors of the cross product.',
    commit: ofAnswer((right) => right.map((v, i) => (i < 3 ? -v : v))),
  },
  {
    name: 'boardFacesAway',
    kinds: boards,
    fix: () => 'Billboards show their back: negate right and normal.',
    commit: ofAnswer((right) => right.map((v, i) => (i < 3 || i > 5 ? -v : v))),
  },
  {
    name: 'boardTransposed',
    kinds: boards,
    fix: () => 'The axes of billboards are rows where columns are meant: transpose the rotation.',
    commit: ofAnswer((right) => [0, 3, 6, 1, 4, 7, 2, 5, 8].map((i) => right[i]!)),
  },
  {
    name: 'boardByViewPlane',
    kinds: eyeBoards,
    fix: () => 'Billboards are turned by the view direction: turn them by the direction to the eye.',
    commit: (context, kind) => {
      const { frame, codec } = context;
      const before = codec.toWorld(frame.eye.map((v, i) => v + frame.forward[i]!) as unknown as Vec3);
      return answer3d(context, kind, before);
    },
  },
  {
    name: 'spawnRadiusIgnored',
    kinds: ['mayAppear'],
    fix: () => 'Bodies keep clear by their centre: add their radius to the padding.',
    commit: ofInput(([x, y, , padding]) => [x!, y!, 0, padding!]),
  },
  {
    name: 'spawnPaddingIgnored',
    kinds: ['mayAppear'],
    fix: () => 'The padding is left out: bodies keep clear by radius plus padding.',
    commit: ofInput(([x, y, radius]) => [x!, y!, radius!, 0]),
  },
  {
    name: 'spawnInverted',
    kinds: ['mayAppear'],
    fix: () => 'Bodies appear in view: negate the test.',
    commit: ofAnswer(([right]) => [1 - right!]),
  },
  {
    name: 'fovNotHalved',
    kinds: ['fovForHeight'],
    fix: () => 'The field of view is half of what it is: it is 2 · atan(height / 2 / distance).',
    commit: ofAnswer(([right]) => [right! / 2]),
  },
  {
    name: 'fovHeightNotHalved',
    kinds: ['fovForHeight'],
    fix: () => 'The whole height is taken for half of it: divide the height by 2 before the arc tangent.',
    commit: ofInput(([height, distance]) => [2 * height!, distance!]),
  },
  {
    name: 'fovResultInOtherUnit',
    kinds: ['fovForHeight'],
    fix: () => 'The field of view is in the other unit: convert it after the arc tangent.',
    commit: ofAnswer(([right], { codec }) => [codec.conventions.angles.unit === 'degrees' ? (right! * Math.PI) / 180 : (right! * 180) / Math.PI]), // prettier-ignore
  },
  {
    name: 'heightHalved',
    kinds: ['heightAt'],
    fix: () => 'The visible height is half of what it is: it is 2 · tan(fov / 2) · distance.',
    commit: ofAnswer(([right]) => [right! / 2]),
  },
  {
    name: 'keyNegated',
    kinds: ['keyAhead', 'keyScreenHeight'],
    fix: () => 'The sort key is negated: larger is farther.',
    commit: ofAnswer(([right]) => [-right!]),
  },
  {
    name: 'keyDistanceSquared',
    kinds: ['keyDistance'],
    fix: () =>
      'The sort key is the square of the distance: it sorts alike, and cannot be compared with other distances.',
    commit: ofAnswer(([right]) => [right! ** 2]),
  },
  {
    name: 'keyHeightNotDivided',
    kinds: ['keyScreenHeight'],
    fix: () => 'The height on the screen is not divided by the distance ahead: divide it.',
    commit: (context, kind, input) =>
      context.frame.kind === 'perspective'
        ? answer3d({ ...context, frame: { ...context.frame, kind: 'orthographic' } as CameraFrame }, kind, input)
        : undefined,
  },
] as const satisfies readonly FunctionFault<VectorContext>[];

/** Faults of following: the same in 2D and 3D. */
const followFaults = [
  {
    name: 'followZoneIgnored',
    kinds: ['follow'],
    fix: () => 'The dead zone is left out: follow its edge, and stay while the target is inside.',
    commit: (_, __, [held, target, , halfLife, step]) => followAnswer([held!, target!, 0, halfLife!, step!]),
  },
  {
    name: 'followTimeConstant',
    kinds: ['follow'],
    fix: () => 'The half-life is taken for a time constant: use exp2(−dt / halfLife), or divide it by ln 2.',
    commit: (_, __, [held, target, zone, halfLife, step]) =>
      followAnswer([held!, target!, zone!, halfLife! * Math.LN2, step!]),
  },
  {
    name: 'followStepIgnored',
    kinds: ['follow'],
    amounts: [60, 30, 120, 50, 100, 144],
    fix: (amount) => `Every step counts as 1/${amount} s: use the time step of the frame.`,
    commit: (_, __, [held, target, zone, halfLife], amount) =>
      followAnswer([held!, target!, zone!, halfLife!, 1 / amount]),
  },
  {
    name: 'followLinear',
    kinds: ['follow'],
    fix: () => 'The share of a step is linear in time (ln 2 · dt / halfLife): it is 1 − exp2(−dt / halfLife).',
    commit: (_, __, [held, target, zone, halfLife, step]) => {
      const [goal] = followAnswer([held!, target!, zone!, 0, step!]);
      return halfLife! > 0 ? [held! + (goal! - held!) * ((Math.LN2 * step!) / halfLife!)] : undefined;
    },
  },
] as const satisfies readonly FunctionFault<unknown>[];

export type FunctionFaultName =
  | (typeof screenFaults)[number]['name']
  | (typeof functionFaults3d)[number]['name']
  | (typeof followFaults)[number]['name'];

function waysOf<Context>(faults: readonly FunctionFault<Context>[], context: Context): FaultWay<FunctionFaultName>[] {
  return faults.flatMap(({ name, kinds, amounts, fix, commit, accepts }) =>
    (amounts ?? [0]).map((amount) => ({
      name: name as FunctionFaultName,
      kinds,
      fix: fix(amount),
      accepts,
      isOfCamera: false,
      answer: (kind: VectorKind, input: readonly number[]) => commit(context, kind, input, amount),
    })),
  );
}

/** Returns every way of committing each fault of a function of a 3D camera. */
export const functionFaultWays = (context: VectorContext): readonly FaultWay<FunctionFaultName>[] => [
  ...waysOf<ScreenContext>(screenFaults, {
    ...{ viewport: context.frame.viewport, codec: context.codec },
    answer: (kind, input) => answer3d(context, kind, input),
  }),
  ...waysOf<VectorContext>(functionFaults3d, context),
  ...waysOf<unknown>(followFaults, null),
];

/** Returns every way of committing each fault of a function of a 2D camera. */
export const functionFaultWays2d = (context: ScreenContext): readonly FaultWay<FunctionFaultName>[] => [
  // `diagnose` finds the device pixel ratio of 2D points.
  ...waysOf<ScreenContext>(screenFaults.filter(({ name }) => name !== 'devicePixelRatio'), context),
  ...waysOf<unknown>(followFaults, null),
]; // prettier-ignore
