import { planesOf } from '../camera/frame';
import type { MatrixName } from '../conventions/codec';
import { pictureToWorld, rayEnds, type DepthChoice } from '../convert/unproject';
import { viewRufToWorld, pictureToViewRuf, rayThrough } from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import { pick, pickFlat, type Hit } from '../pick/pick';
import { lookedAt } from '../pick/sceneTree';
import { billboard } from '../billboard/billboard';
import { codecOf } from '../conventions/codec';
import { footprint } from '../ground/footprint';
import { manyFrom } from '../kernels/many';
import { dollyZoom } from '../motion/dollyZoom';
import { aim } from '../pick/aim';
import { areaAndCentroid } from '../spawn/region';
import { mostTries, spawn } from '../spawn/spawn';
import { firstTouch, velocityAt, type BodyMotion } from '../spawn/firstSeen';
import { flatSurface, planeSurface, type Surface } from '../spawn/surface';
import { grown, pictureBounds, shadowVisibility, visibility, type Verdict } from '../visibility/visibility';
import { chosen, failure, notIn2d, once, pictureOf, type Operations, type Result } from './answering';
import { cameraOperations } from './cameraOperations';
import { diagnoseOperations } from './diagnoseOperation';
import { lazily, Lazy } from './lazy';
import { orderOperations } from './orderOperations';
import { answerPoint, answerPoints } from './pointAnswers';
import { type ResolvedRequest } from './read';
import { readPoint, writePair } from './readValues';
import { reexpressCamera, reexpressCamera2d, writeBody } from './write';
import type { QueryOf } from './schema';

const matrixNames: readonly MatrixName[] = [
  'view',
  'projection',
  'viewProjection',
  'cameraToWorld',
  'inverseViewProjection',
];

/** A depth choice of a request in canonical space. */
export function readDepthChoice(at: QueryOf<'screenToWorld'>['at'], e: ResolvedRequest['codec']): DepthChoice {
  if ('depth' in at) return { kind: 'depth', shares: e.fromDepth(at.depth) };
  if ('ahead' in at) return { kind: 'ahead', ahead: at.ahead };
  if ('range' in at) return { kind: 'range', range: at.range };
  return { kind: 'plane', point: e.fromWorld(at.plane.point), normal: e.fromWorld(at.plane.normal) };
}

const expressHit = ({ codec: e, flat }: ResolvedRequest, hit: Hit) => ({
  ...hit,
  point: flat ? writePair(hit.point, e) : e.toWorld(hit.point),
  normal: e.toWorld(hit.normal),
});

/** What is wrong where a surface does not fit the camera; null where it does. */
const misfit = (surface: QueryOf<'spawn'>['surface'], flat: boolean): Result | null =>
  (surface === '2d') === flat
    ? null
    : failure(
        'notIn2d',
        flat ? 'With a 2D camera the surface is "2d".' : 'The surface "2d" needs a 2D camera; give a plane.',
      );

/** The surface of a query; null where its normal has no length. */
const surfaceOf = (surface: QueryOf<'spawn'>['surface'], e: ResolvedRequest['codec']): Surface | null =>
  surface === '2d' ? flatSurface : planeSurface(e.fromWorld(surface.plane.point), e.fromWorld(surface.plane.normal));

/** Why a camera’s footprint on a surface is nothing to work with. */
const notVisible = (why: string | readonly unknown[]) =>
  why === 'footprintUnbounded'
    ? failure('footprintUnbounded', 'The camera sees this surface to infinity. Bring far in or look farther down.')
    : failure(
        'footprintEmpty',
        'The camera sees nothing of this surface, so there is nothing to keep out of. Turn it towards the surface.',
      );

/** The operations by name; a new one is a schema in `schema.ts` and an entry here or in one of its parts. */
export const operations: Operations = {
  ...orderOperations,
  ...cameraOperations,
  ...diagnoseOperations,

  matrices: ({ codec: e, frame }) => ({
    ...Object.fromEntries(matrixNames.map((name) => [name, e.toList(e.matrix(frame, name))])),
    handedness: e.handedness,
  }),

  worldToScreen: (resolved, { points }) => {
    const worldOf = (p: (typeof points)[number]): Vec3 => {
      const world = readPoint(p, '', resolved.codec, resolved.flat);
      if (!world.ok) throw new Error('points are checked when the request is read');
      return world.value;
    };
    return {
      points: new Lazy(points.length, (from, to) => {
        const worlds = points.slice(from, to).map(worldOf);
        return points.length < manyFrom
          ? worlds.map((world) => answerPoint(resolved, world))
          : answerPoints(resolved, worlds);
      }),
    };
  },

  screenToWorld: (resolved, { pixels, at }) => {
    const { codec: e, frame } = resolved;
    // A flat world has one point under a pixel, whatever is said of its depth.
    const choice: DepthChoice = resolved.flat ? { kind: 'ahead', ahead: 0 } : readDepthChoice(at, e);
    return {
      pixels: lazily(pixels, (pixel) => {
        const point = pictureToWorld(frame, ...pictureOf(resolved, pixel), choice);
        if (!point.ok) return { point: null, reason: point.reason };
        return { point: resolved.flat ? writePair(point.value, e) : e.toWorld(point.value) };
      }),
    };
  },

  rays: (resolved, { pixels }) => {
    const { codec: e, frame, flat } = resolved;
    if (flat) return notIn2d('rays');
    return {
      pixels: lazily(pixels, (pixel) => {
        const ray = rayThrough(frame, ...pictureOf(resolved, pixel));
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

  pick: (resolved, { pixels, backFaces, all, statistics }) => ({
    pixels: lazily(pixels, (pixel) => {
      const { frame, placed, flat } = resolved;
      const at = pictureOf(resolved, pixel);
      const hits = flat
        ? pickFlat(viewRufToWorld(frame, pictureToViewRuf(frame, ...at, 0)), placed, all)
        : pick(frame, ...at, placed, { backFaces, all });
      const answered = { hits: hits.map((hit) => expressHit(resolved, hit)) };
      return statistics
        ? {
            ...answered,
            tested: flat ? { boxes: 0, triangles: placed.length } : lookedAt(placed, frame, at, backFaces, all),
          }
        : answered;
    }),
  }),

  aim: (resolved, { muzzle, pixel, reach }) => {
    const { codec: e, frame, flat, placed } = resolved;
    if (flat) return notIn2d('aim');
    const found = aim(frame, placed, e.fromWorld(muzzle), reach, pixel ? pictureOf(resolved, pixel) : [0, 0]);
    return {
      target: e.toWorld(found.target),
      targetBody: found.targetBody,
      hit: found.hit && expressHit(resolved, found.hit),
      blockedBy: found.blockedBy,
      angle: e.toAngle(found.angle),
    };
  },

  planes: ({ codec: e, frame, flat }) =>
    flat
      ? notIn2d('planes')
      : {
          planes: planesOf(frame).map(({ name, plane: [x, y, z, d] }) => ({
            name,
            plane: [...e.toWorld([x, y, z]), d],
          })),
        },

  visibility: (resolved, { bodies, margin, method }) => {
    const { width, height } = resolved.frame.viewport;
    if (!(Math.min(width, height) + 2 * margin > 0))
      return failure(
        'viewportEmpty',
        `A margin of ${margin} leaves nothing of a viewport of ${width} × ${height}. Raise it.`,
      );
    return chosen(resolved, bodies, (placed) => {
      const found = once(placed, (each) => visibility(resolved.frame, each, { method, margin, flat: resolved.flat }));
      const count = (verdict: Verdict) => found.filter((one) => one.verdict === verdict).length;
      return {
        bodies: found,
        counts: { inside: count('inside'), crosses: count('crosses'), outside: count('outside') },
      };
    });
  },

  shadowVisibility: (resolved, { light, receiver, bodies }) => {
    const { codec: e, frame, flat } = resolved;
    if (flat) return notIn2d('shadowVisibility');
    return chosen(resolved, bodies, (placed) => {
      const plane = { point: e.fromWorld(receiver.point), normal: e.fromWorld(receiver.normal) };
      const found = shadowVisibility(frame, [...new Set(placed)], e.fromWorld(light), plane);
      return found.ok ? { bodies: once(placed, () => found.value) } : { bodies: null, reason: found.reason };
    });
  },

  screenBounds: (resolved, { bodies }) =>
    chosen(resolved, bodies, (placed) => ({
      bodies: once(placed, (each) =>
        each.map((one) => {
          const { codec: e, frame, flat } = resolved;
          const found = pictureBounds(frame, one, flat);
          if (!found.ok) return { body: one.body.id, bounds: null, reason: found.reason };
          const { min, max, clipped } = found.value;
          const [a, b] = [e.toScreen(frame.viewport, ...min), e.toScreen(frame.viewport, ...max)];
          const corner = (pick: (...values: number[]) => number) => [pick(a[0], b[0]), pick(a[1], b[1])];
          return { body: one.body.id, bounds: { min: corner(Math.min), max: corner(Math.max), clipped } };
        }),
      ),
    })),

  billboard: ({ codec: e, frame, flat }, { items }) => {
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

  spawn: (resolved, query) => {
    const { codec: e, frame, flat } = resolved;
    const wrong = misfit(query.surface, flat);
    if (wrong) return wrong;
    const surface = surfaceOf(query.surface, e);
    const inPixels = query.paddingUnit === 'pixels';
    const visible = surface?.visible(inPixels ? grown(frame, query.padding) : frame) ?? 'footprintEmpty';
    const plain = surface?.visible(frame) ?? 'footprintEmpty';
    if (typeof visible === 'string' || typeof plain === 'string' || !surface)
      return notVisible(visible === 'footprintUnbounded' ? visible : plain);
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
    if ('why' in found)
      return found.why === 'noAreaLeft'
        ? failure('noAreaLeft', 'The terms leave no area to appear in. Widen the bounds or ask for less padding.')
        : failure(
            'tooManyTries',
            `Rolling again would take about ${found.expected.toExponential(1)} tries, and up to ${mostTries.toLocaleString('en')} are made. Draw directly, or ask for fewer points.`,
          );
    const { points, areaAllowed, areaBounds, tries } = found;
    const statistics = { areaAllowed, areaBounds, tries };
    return {
      points: lazily(points, (p) => (flat ? writePair([p[0], p[1], 0], e) : e.toWorld(surface.at(p)))),
      statistics,
    };
  },

  firstSeen: (resolved, { points, radius, surface: asked, bodyVelocity, cameraVelocity, within }) => {
    const { codec: e, frame, flat } = resolved;
    const wrong = misfit(asked, flat);
    if (wrong) return wrong;
    const surface = surfaceOf(asked, e);
    const visible = surface?.visible(frame) ?? 'footprintEmpty';
    if (typeof visible === 'string' || !surface) return notVisible(visible);
    const inward = (pair: Vec2): Vec2 => e.fromPair(flat ? 'up' : 'forward', pair);
    const motion: BodyMotion = Array.isArray(bodyVelocity)
      ? { velocity: inward(bodyVelocity) }
      : { towards: inward(bodyVelocity.towards), speed: bodyVelocity.speed };
    const camera = inward(cameraVelocity);
    return {
      points: lazily(points, (p) => {
        const world = readPoint(p, '', e, flat);
        if (!world.ok) throw new Error('points are checked when the request is read');
        const place = surface.coordinates(world.value);
        const found = firstTouch(visible, place, radius, velocityAt(place, motion), camera, within);
        return found.ok ? { seconds: found.value } : { seconds: null, reason: found.reason };
      }),
    };
  },

  footprint: ({ codec: e, frame, flat }, { plane }) => {
    if (flat) return notIn2d('footprint');
    const found = footprint(frame, e.fromWorld(plane.point), e.fromWorld(plane.normal));
    if (!found) return failure('footprintEmpty', 'The frustum does not meet this plane. Move the plane or the camera.');
    return { polygon: found.polygon.map(e.toWorld), unbounded: found.unbounded };
  },

  dollyZoom: ({ codec: e, frame, flat }, { target, distances }) => {
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

  convert: ({ codec: from, frame, flat, camera, bodies }, { to }) => {
    const e = codecOf(to);
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
