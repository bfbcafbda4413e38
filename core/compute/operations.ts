import { planesOf } from '../camera/frame';
import type { MatrixName } from '../conventions/express';
import { pictureToWorld, rayEnds, type DepthChoice } from '../convert/unproject';
import { partsToWorld, pictureToParts, pixelsPerUnit, projectPoint, rayThrough } from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import { pick, pickFlat, type Hit } from '../pick/pick';
import type { ErrorCode } from '../reasons';
import { billboard } from '../billboard/billboard';
import type { PlacedBody } from '../bodies/body';
import { worldUp } from '../camera/orientation';
import { expressionOf } from '../conventions/express';
import { footprint } from '../ground/footprint';
import { normalize } from '../math/vec3';
import { dollyZoom } from '../motion/dollyZoom';
import { drawOrder } from '../order/drawOrder';
import { horizonPlace, horizonPoints, vanishingPoint } from '../order/horizon';
import { aim } from '../pick/aim';
import { areaAndCentroid } from '../spawn/region';
import { spawn } from '../spawn/spawn';
import { flatSurface, planeSurface } from '../spawn/surface';
import { grown, pictureBounds, shadowVisibility, visibility, type Verdict } from '../visibility/visibility';
import { readPoint, writePair, type Situation } from './read';
import { reexpressCamera, reexpressCamera2d, writeBody } from './write';
import type { Query, QueryOf } from './schema';

/** What one query is answered with, beside its id and op. */
export type Result = Record<string, unknown> | { error: { code: ErrorCode; message: string } };

const failure = (code: ErrorCode, message: string): Result => ({ error: { code, message } });
const notIn2d = (op: string): Result =>
  failure('notIn2d', `${op} has no meaning with a 2D camera. Ask it of a 3D one, orthographic if need be.`);
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

const expressHit = ({ expression: e, flat }: Situation, hit: Hit) => ({
  ...hit,
  point: flat ? writePair(hit.point, e) : e.toWorld(hit.point),
  normal: e.toWorld(hit.normal),
});

/** The operations by name; a new one is a schema in `schema.ts` and an entry here. */
export const operations: { readonly [Op in Query['op']]: Operation<Op> } = {
  matrices: ({ expression: e, frame }) => ({
    ...Object.fromEntries(matrixNames.map((name) => [name, e.toList(e.matrix(frame, name))])),
    handedness: e.handedness,
  }),

  worldToScreen: (situation, { points }) => ({
    points: points.map((p) => {
      const world = readPoint(p, '', situation.expression, situation.flat);
      if (!world.ok) throw new Error('points are checked when the request is read');
      return answerPoint(situation, world.value);
    }),
  }),

  screenToWorld: (situation, { pixels, at }) => {
    const { expression: e, frame } = situation;
    // A flat world has one point under a pixel, whatever is said of its depth.
    const choice: DepthChoice = situation.flat ? { kind: 'ahead', ahead: 0 } : readDepthChoice(at, e);
    return {
      pixels: pixels.map((pixel) => {
        const point = pictureToWorld(frame, ...pictureOf(situation, pixel), choice);
        if (!point.ok) return { point: null, reason: point.reason };
        return { point: situation.flat ? writePair(point.value, e) : e.toWorld(point.value) };
      }),
    };
  },

  rays: (situation, { pixels }) => {
    const { expression: e, frame, flat } = situation;
    if (flat) return notIn2d('rays');
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
    pixels: pixels.map((pixel) => {
      const { frame, placed, flat } = situation;
      const at = pictureOf(situation, pixel);
      const hits = flat
        ? pickFlat(partsToWorld(frame, pictureToParts(frame, ...at, 0)), placed, all)
        : pick(frame, ...at, placed, { backFaces, all });
      return { hits: hits.map((hit) => expressHit(situation, hit)) };
    }),
  }),

  aim: (situation, { muzzle, pixel, reach }) => {
    const { expression: e, frame, flat, placed } = situation;
    if (flat) return notIn2d('aim');
    const found = aim(frame, placed, e.fromWorld(muzzle), reach, pixel ? pictureOf(situation, pixel) : [0, 0]);
    return {
      target: e.toWorld(found.target),
      targetBody: found.targetBody,
      hit: found.hit && expressHit(situation, found.hit),
      blockedBy: found.blockedBy,
      angle: e.toAngle(found.angle),
    };
  },

  planes: ({ expression: e, frame, flat }) =>
    flat
      ? notIn2d('planes')
      : {
          planes: planesOf(frame).map(({ name, plane: [x, y, z, d] }) => ({
            name,
            plane: [...e.toWorld([x, y, z]), d],
          })),
        },

  visibility: (situation, { bodies, margin, method }) => {
    const { width, height } = situation.frame.viewport;
    if (!(Math.min(width, height) + 2 * margin > 0))
      return failure(
        'viewportEmpty',
        `A margin of ${margin} leaves nothing of a viewport of ${width} × ${height}. Raise it.`,
      );
    return chosen(situation, bodies, (placed) => {
      const found = visibility(situation.frame, placed, { method, margin, flat: situation.flat });
      const count = (verdict: Verdict) => found.filter((one) => one.verdict === verdict).length;
      return {
        bodies: found,
        counts: { inside: count('inside'), crosses: count('crosses'), outside: count('outside') },
      };
    });
  },

  shadowVisibility: (situation, { light, receiver, bodies }) => {
    const { expression: e, frame, flat } = situation;
    if (flat) return notIn2d('shadowVisibility');
    return chosen(situation, bodies, (placed) => {
      const plane = { point: e.fromWorld(receiver.point), normal: e.fromWorld(receiver.normal) };
      const found = shadowVisibility(frame, placed, e.fromWorld(light), plane);
      return found.ok ? { bodies: found.value } : { bodies: null, reason: found.reason };
    });
  },

  screenBounds: (situation, { bodies }) =>
    chosen(situation, bodies, (placed) => ({
      bodies: placed.map((one) => {
        const { expression: e, frame, flat } = situation;
        const found = pictureBounds(frame, one, flat);
        if (!found.ok) return { body: one.body.id, bounds: null, reason: found.reason };
        const { min, max, clipped } = found.value;
        const [a, b] = [e.toScreen(frame.viewport, ...min), e.toScreen(frame.viewport, ...max)];
        const corner = (pick: (...values: number[]) => number) => [pick(a[0], b[0]), pick(a[1], b[1])];
        return { body: one.body.id, bounds: { min: corner(Math.min), max: corner(Math.max), clipped } };
      }),
    })),

  billboard: ({ expression: e, frame, flat }, { items }) => {
    if (flat) return notIn2d('billboard');
    return {
      items: items.map(({ position, mode, axis, front }) => {
        const b = billboard(frame, e.fromWorld(position), mode, axis && e.fromWorld(axis), front === '-n');
        return {
          right: e.toWorld(b.right),
          up: e.toWorld(b.up),
          normal: e.toWorld(b.normal),
          matrix: e.toList(e.toModel(b.matrix)),
          quaternion: e.toRotation(b.quaternion),
          ...(b.tilt.ok ? { tilt: e.toAngle(b.tilt.value) } : { tilt: null, reason: b.tilt.reason }),
          degenerate: b.degenerate,
        };
      }),
    };
  },

  spawn: (situation, query) => {
    const { expression: e, frame, flat } = situation;
    if ((query.surface === '2d') !== flat)
      return failure(
        'notIn2d',
        flat ? 'With a 2D camera the surface is "2d".' : 'The surface "2d" needs a 2D camera; give a plane.',
      );
    const surface =
      query.surface === '2d'
        ? flatSurface
        : planeSurface(e.fromWorld(query.surface.plane.point), e.fromWorld(query.surface.plane.normal));
    const inPixels = query.paddingUnit === 'pixels';
    const visible = surface?.visible(inPixels ? grown(frame, query.padding) : frame) ?? 'footprintEmpty';
    const plain = surface?.visible(frame) ?? 'footprintEmpty';
    if (typeof visible === 'string' || typeof plain === 'string' || !surface) {
      const code =
        visible === 'footprintUnbounded' || plain === 'footprintUnbounded' ? 'footprintUnbounded' : 'footprintEmpty';
      return failure(
        code,
        code === 'footprintEmpty'
          ? 'The camera sees nothing of this surface, so there is nothing to keep out of. Turn it towards the surface.'
          : 'The camera sees this surface to infinity. Bring far in or look farther down.',
      );
    }
    const inward = (pair: Vec2): Vec2 => e.fromPair(flat ? 'up' : 'forward', pair);
    const { bounds } = query;
    const found = spawn(
      {
        visible,
        clearance: inPixels ? query.radius : query.padding + query.radius,
        bounds: 'ringOuter' in bounds ? bounds : boxBetween(inward(bounds.min), inward(bounds.max)),
        keepAway: query.keepAway.map(({ centre, distance }) => ({ centre: inward(centre), distance })),
        ahead: query.ahead
          ? {
              apex: areaAndCentroid(plain).centroid,
              direction: inward(query.ahead.direction),
              halfAngle: e.fromAngle(query.ahead.halfAngle),
            }
          : null,
      },
      query.count,
      query.seed,
      query.method,
    );
    if (!found)
      return failure('noAreaLeft', 'The terms leave no area to appear in. Widen the bounds or ask for less padding.');
    const { points, ...statistics } = found;
    return {
      points: points.map((p) => (flat ? writePair([p[0], p[1], 0], e) : e.toWorld(surface.at(p)))),
      statistics,
    };
  },

  footprint: ({ expression: e, frame, flat }, { plane }) => {
    if (flat) return notIn2d('footprint');
    const found = footprint(frame, e.fromWorld(plane.point), e.fromWorld(plane.normal));
    if (!found) return failure('footprintEmpty', 'The frustum does not meet this plane. Move the plane or the camera.');
    return { polygon: found.polygon.map(e.toWorld), unbounded: found.unbounded };
  },

  dollyZoom: ({ expression: e, frame, flat }, { target, distances }) => {
    if (flat) return notIn2d('dollyZoom');
    const stops = dollyZoom(frame, e.fromWorld(target), distances);
    if (!stops)
      return failure('distanceNotPositive', 'Every distance must be above 0 and the target ahead of the camera.');
    return {
      distances: stops.map((stop) => ({
        ...stop,
        position: e.toWorld(stop.position),
        verticalFov: stop.verticalFov === null ? null : e.toAngle(stop.verticalFov),
      })),
    };
  },

  horizon: ({ expression: e, frame, flat }, { normal }) => {
    if (flat) return notIn2d('horizon');
    const up = normalize(normal ? e.fromWorld(normal) : worldUp) ?? worldUp;
    const points = horizonPoints(frame, up);
    const vanishing = (direction: Vec3) => {
      const found = vanishingPoint(frame, direction);
      return found.ok ? { point: e.toScreen(frame.viewport, ...found.value) } : { point: null, reason: found.reason };
    };
    return {
      points: points && points.map((p) => e.toScreen(frame.viewport, ...p)),
      where: points ? null : horizonPlace(frame, up),
      vanishingPoints: {
        right: vanishing([1, 0, 0]),
        left: vanishing([-1, 0, 0]),
        up: vanishing([0, 1, 0]),
        down: vanishing([0, -1, 0]),
        forward: vanishing([0, 0, -1]),
        back: vanishing([0, 0, 1]),
      },
    };
  },

  drawOrder: (situation, { bodies, key }) =>
    chosen(situation, bodies, (placed) => ({ ...drawOrder(situation.frame, placed, key) })),

  convert: ({ expression: from, frame, flat, camera, bodies }, { to }) => {
    const e = expressionOf(to);
    const names: readonly MatrixName[] = ['view', 'projection', 'viewProjection', 'cameraToWorld'];
    return {
      camera: 'kind' in camera ? reexpressCamera2d(camera, frame.viewport, from, e) : reexpressCamera(camera, from, e),
      bodies: bodies.map((body) => writeBody(body, e, flat)),
      matrices: Object.fromEntries(names.map((name) => [name, e.toList(e.matrix(frame, name))])),
    };
  },
};

/** The box between two opposite corners, whichever they are. */
const boxBetween = (a: Vec2, b: Vec2): { min: Vec2; max: Vec2 } => ({
  min: [Math.min(a[0], b[0]), Math.min(a[1], b[1])],
  max: [Math.max(a[0], b[0]), Math.max(a[1], b[1])],
});

/** The bodies that a query names, or all; `bodyMissing` for an id that there is not. */
function chosen(
  { placed }: Situation,
  ids: readonly string[] | undefined,
  run: (placed: readonly PlacedBody[]) => Result,
): Result {
  if (!ids) return run(placed);
  const byId = new Map(placed.map((one) => [one.body.id, one]));
  const missing = ids.find((id) => !byId.has(id));
  if (missing !== undefined)
    return failure('bodyMissing', `There is no body “${missing}”. Name one of the request’s bodies.`);
  return run(ids.map((id) => byId.get(id)!));
}
