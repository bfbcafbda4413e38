import { planesOf } from '../camera/frame';
import type { MatrixName } from '../conventions/express';
import { pictureToWorld, rayEnds, type DepthChoice } from '../convert/unproject';
import { pixelsPerUnit, projectPoint, rayThrough } from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import { pick, type Hit } from '../pick/pick';
import type { ErrorCode } from '../reasons';
import type { Situation } from './read';
import type { Query, QueryOf } from './schema';

/** What one query is answered with, beside its id and op. */
export type Result = Record<string, unknown> | { error: { code: ErrorCode; message: string } };
type Operation<Op extends Query['op']> = (situation: Situation, query: QueryOf<Op>) => Result;

const matrixNames: readonly MatrixName[] = [
  'view',
  'projection',
  'viewProjection',
  'cameraToWorld',
  'inverseViewProjection',
];

/** A pixel of the request as a picture position. */
const pictureOf = ({ expression, frame }: Situation, pixel: Vec2) => expression.fromScreen(frame.viewport, pixel);

/** One point in every space, in the request's conventions: an entry of `worldToScreen`. */
export function answerPoint(situation: Pick<Situation, 'expression' | 'frame'>, world: Vec3) {
  const { expression: e, frame } = situation;
  const { parts, clip, picture, outside } = projectPoint(frame, world);
  const ahead = parts[2];
  const always = { view: e.toView(parts), clip: e.toClip(clip) };
  const verdict = {
    ahead,
    inFront: frame.kind !== 'perspective' || ahead > 0,
    onScreen: outside.length === 0,
    outside,
  };
  if (!picture.ok)
    return { ...always, ndc: null, screen: null, depth: null, ...verdict, pixelsPerUnit: null, reason: picture.reason };
  const { across, upward, shares } = picture.value;
  return {
    ...always,
    ndc: e.toNdc(picture.value),
    screen: e.toScreen(frame.viewport, across, upward),
    depth: e.toDepth(shares),
    ...verdict,
    pixelsPerUnit: pixelsPerUnit(frame, ahead),
  };
}

/** A depth choice of a request on the inside. */
export function readDepthChoice(at: QueryOf<'screenToWorld'>['at'], e: Situation['expression']): DepthChoice {
  if ('depth' in at) return { kind: 'depth', shares: e.fromDepth(at.depth) };
  if ('ahead' in at) return { kind: 'ahead', ahead: at.ahead };
  if ('range' in at) return { kind: 'range', range: at.range };
  return { kind: 'plane', point: e.fromWorld(at.plane.point), normal: e.fromWorld(at.plane.normal) };
}

const expressHit = ({ expression: e }: Situation, hit: Hit) => ({
  ...hit,
  point: e.toWorld(hit.point),
  normal: e.toWorld(hit.normal),
});

/** The operations by name; a new one is a schema in `schema.ts` and an entry here. */
export const operations: { readonly [Op in Query['op']]: Operation<Op> } = {
  matrices: ({ expression: e, frame }) => ({
    ...Object.fromEntries(matrixNames.map((name) => [name, e.toList(e.matrix(frame, name))])),
    handedness: e.handedness,
  }),

  worldToScreen: (situation, { points }) => ({
    points: points.map((p) => answerPoint(situation, situation.expression.fromWorld(p))),
  }),

  screenToWorld: (situation, { pixels, at }) => {
    const { expression: e, frame } = situation;
    const choice = readDepthChoice(at, e);
    return {
      pixels: pixels.map((pixel) => {
        const point = pictureToWorld(frame, ...pictureOf(situation, pixel), choice);
        return point.ok ? { point: e.toWorld(point.value) } : { point: null, reason: point.reason };
      }),
    };
  },

  rays: (situation, { pixels }) => {
    const { expression: e, frame } = situation;
    return {
      pixels: pixels.map((pixel) => {
        const ray = rayThrough(frame, ...pictureOf(situation, pixel));
        const { near, far } = rayEnds(frame, ray);
        return {
          origin: e.toWorld(ray.origin),
          direction: e.toWorld(ray.direction),
          nearPoint: e.toWorld(near),
          ...(far.ok ? { farPoint: e.toWorld(far.value) } : { farPoint: null, reason: far.reason }),
        };
      }),
    };
  },

  pick: (situation, { pixels, backFaces, all }) => ({
    pixels: pixels.map((pixel) => ({
      hits: pick(situation.frame, ...pictureOf(situation, pixel), situation.placed, { backFaces, all }).map((hit) =>
        expressHit(situation, hit),
      ),
    })),
  }),

  planes: ({ expression: e, frame }) => ({
    planes: planesOf(frame).map(({ name, plane: [x, y, z, d] }) => ({ name, plane: [...e.toWorld([x, y, z]), d] })),
  }),
};
