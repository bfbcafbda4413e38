import { depthResolution } from '../camera/depthPrecision';
import { planesOf, type CameraFrame } from '../camera/frame';
import type { MatrixName } from '../conventions/codec';
import { pictureToWorld, rayEnds, type DepthChoice } from '../convert/unproject';
import {
  viewRufToClip,
  viewRufToWorld,
  pictureToViewRuf,
  pixelsPerUnit,
  projectPoint,
  rayThrough,
} from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import { pick, pickFlat, type Hit } from '../pick/pick';
import type { ErrorCode } from '../reasons';
import { billboard, type Billboard } from '../billboard/billboard';
import { angleBetween, compareRays, turnBetween } from '../convert/compare';
import { apparentSize, distanceForSize, visibilityBy, type SeenVerdict } from '../visibility/size';
import { resolvedAlong } from './along';
import { resolvedCamera } from './resolved';
import type { PlacedBody } from '../bodies/body';
import { worldUp } from '../camera/orientation';
import { codecOf } from '../conventions/codec';
import { footprint } from '../ground/footprint';
import { manyFrom } from '../kernels/many';
import { outsideBit } from '../kernels/points';
import { projectSpaces, spacesAt, spacesStride } from '../kernels/spaces';
import { normalize } from '../math/vec3';
import { dollyZoom } from '../motion/dollyZoom';
import { drawOrder } from '../order/drawOrder';
import { angularOfPicture } from '../order/angular';
import { clipPolygon, unclippedPositions, type ClippedCorner } from '../order/clip';
import { planarShadow, shadowOf, type Light } from '../order/shadow';
import { windingOf } from '../order/winding';
import { horizonPlace, horizonPoints, vanishingPoint } from '../order/horizon';
import { aim } from '../pick/aim';
import { areaAndCentroid } from '../spawn/region';
import { mostTries, spawn } from '../spawn/spawn';
import { flatSurface, planeSurface } from '../spawn/surface';
import { grown, pictureBounds, shadowVisibility, visibility, type Verdict } from '../visibility/visibility';
import { lazily, Lazy } from './lazy';
import { readOther, readPoint, writePair, type ResolvedRequest } from './read';
import { reexpressCamera, reexpressCamera2d, writeBody } from './write';
import type { Query, QueryOf } from './schema';

/** What one query is answered with, beside its id and op; long lists of it are `Lazy`. */
export type Result = Record<string, unknown> | { error: { code: ErrorCode; message: string } };

const failure = (code: ErrorCode, message: string): Result => ({ error: { code, message } });
const notIn2d = (op: string): Result =>
  failure('notIn2d', `${op} has no meaning with a 2D camera. Ask it of a 3D one, orthographic if need be.`);
type Operation<Op extends Query['op']> = (resolved: ResolvedRequest, query: QueryOf<Op>) => Result;

const matrixNames: readonly MatrixName[] = [
  'view',
  'projection',
  'viewProjection',
  'cameraToWorld',
  'inverseViewProjection',
];

/** A pixel of the request as a picture position. */
const pictureOf = ({ codec, frame }: ResolvedRequest, pixel: Vec2) => codec.fromScreen(frame.viewport, pixel);

/** One point in every space, in the request's conventions: an entry of `worldToScreen`. */
export function answerPoint(resolved: Pick<ResolvedRequest, 'codec' | 'frame'>, world: Vec3) {
  const { codec: e, frame } = resolved;
  const { viewRuf, clip, picture, outside } = projectPoint(frame, world);
  const ahead = viewRuf[2];
  const always = { view: e.toView(viewRuf), clip: e.toClip(clip) };
  const verdict = {
    ahead,
    inFront: frame.kind !== 'perspective' || ahead > 0,
    onScreen: outside.length === 0,
    outside,
  };
  if (!picture.ok)
    return { ...always, ndc: null, screen: null, depth: null, ...verdict, pixelsPerUnit: null, reason: picture.reason };
  const { across, upward, depth01 } = picture.value;
  return {
    ...always,
    ndc: e.toNdc(picture.value),
    screen: e.toScreen(frame.viewport, across, upward),
    depth: e.toDepth(depth01),
    ...verdict,
    pixelsPerUnit: pixelsPerUnit(frame, ahead),
  };
}

const planeNames = ['left', 'right', 'bottom', 'top', 'near', 'far'] as const;
const three = (of: Float64Array, at: number): [number, number, number] => [of[at]!, of[at + 1]!, of[at + 2]!];

/**
 * Many points in every space: what `answerPoint` gives one by one, to rounding, by the batch
 * kernels.
 */
export function answerPoints({ codec, frame }: Pick<ResolvedRequest, 'codec' | 'frame'>, worlds: readonly Vec3[]) {
  const count = worlds.length;
  const flat = new Float64Array(3 * count);
  worlds.forEach((world, i) => flat.set(world, 3 * i));
  const [spaces, outside] = [new Float64Array(count * spacesStride), new Uint8Array(count)];
  projectSpaces(frame, codec, flat, spaces, outside);
  const perspective = frame.kind === 'perspective';
  return worlds.map((world, i) => {
    const at = i * spacesStride;
    const ahead = spaces[at + spacesAt.ahead]!;
    const bits = outside[i]!;
    // Without a picture the reason is the plain form's to give, and so is a number that is not
    // finite.
    if (bits & outsideBit.noPicture || !Number.isFinite(spaces[at + spacesAt.screen]!))
      return answerPoint({ codec, frame }, world);
    const violated = bits ? planeNames.filter((name) => bits & outsideBit[name]) : [];
    return {
      view: three(spaces, at + spacesAt.view),
      clip: [...three(spaces, at + spacesAt.clip), spaces[at + spacesAt.clip + 3]!],
      ndc: three(spaces, at + spacesAt.ndc),
      screen: [spaces[at + spacesAt.screen]!, spaces[at + spacesAt.screen + 1]!],
      depth: spaces[at + spacesAt.depth]!,
      ahead,
      inFront: !perspective || ahead > 0,
      onScreen: violated.length === 0,
      outside: violated,
      pixelsPerUnit: pixelsPerUnit(frame, ahead),
    };
  });
}

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

/** The operations by name; a new one is a schema in `schema.ts` and an entry here. */
export const operations: { readonly [Op in Query['op']]: Operation<Op> } = {
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

  pick: (resolved, { pixels, backFaces, all }) => ({
    pixels: lazily(pixels, (pixel) => {
      const { frame, placed, flat } = resolved;
      const at = pictureOf(resolved, pixel);
      const hits = flat
        ? pickFlat(viewRufToWorld(frame, pictureToViewRuf(frame, ...at, 0)), placed, all)
        : pick(frame, ...at, placed, { backFaces, all });
      return { hits: hits.map((hit) => expressHit(resolved, hit)) };
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
    if ('why' in found)
      return found.why === 'noAreaLeft'
        ? failure('noAreaLeft', 'The terms leave no area to appear in. Widen the bounds or ask for less padding.')
        : failure(
            'tooManyTries',
            `Rolling again would take about ${found.expected.toExponential(1)} tries, and up to ${mostTries.toLocaleString('en')} are made. Draw directly, or ask for fewer points.`,
          );
    const { points, ...statistics } = found;
    return {
      points: lazily(points, (p) => (flat ? writePair([p[0], p[1], 0], e) : e.toWorld(surface.at(p)))),
      statistics,
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

  horizon: ({ codec: e, frame, flat }, { normal }) => {
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

  clip: ({ codec: e, frame, flat }, { polygons }) => {
    if (flat) return notIn2d('clip');
    const corner = ({ viewRuf }: ClippedCorner) => {
      const point = viewRufToWorld(frame, viewRuf);
      const { x, y, w } = viewRufToClip(frame, viewRuf);
      return { point: e.toWorld(point), screen: e.toScreen(frame.viewport, x / w, y / w) };
    };
    return {
      polygons: lazily(polygons, (given) => {
        const polygon = given.map((p) => e.fromWorld(p));
        return {
          near: clipPolygon(frame, polygon, ['near']).map(corner),
          frustum: clipPolygon(frame, polygon).map(corner),
          unclipped: unclippedPositions(frame, polygon).map(({ position, ghost }) =>
            position
              ? { screen: e.toScreen(frame.viewport, ...position), ghost }
              : { screen: null, ghost, reason: 'onEyePlane' },
          ),
        };
      }),
    };
  },

  winding: ({ codec: e, frame, flat }, { triangles }) => {
    if (flat) return notIn2d('winding');
    return {
      triangles: lazily(triangles, ([a, b, c]) => {
        const { facing, area } = windingOf(frame, [e.fromWorld(a), e.fromWorld(b), e.fromWorld(c)]);
        if (!area.ok) return { facing, onScreen: null, area: null, reason: area.reason };
        const runs = area.value > 0 ? 'counterClockwise' : 'clockwise';
        return { facing, onScreen: facing === 'edgeOn' || area.value === 0 ? 'edgeOn' : runs, area: area.value };
      }),
    };
  },

  planarShadow: ({ codec: e, flat }, query) => {
    if (flat) return notIn2d('planarShadow');
    const light = readLight(query.light, e);
    const receiver = { point: e.fromWorld(query.receiver.point), normal: e.fromWorld(query.receiver.normal) };
    const matrix = planarShadow(light, receiver);
    return {
      ...(matrix.ok ? { matrix: e.toList(e.toModel(matrix.value)) } : { matrix: null, reason: matrix.reason }),
      ...(query.points && {
        points: lazily(query.points, (p) => {
          const shadow = shadowOf(light, receiver, e.fromWorld(p));
          return shadow.ok ? { point: e.toWorld(shadow.value) } : { point: null, reason: shadow.reason };
        }),
      }),
    };
  },

  angularMapping: (resolved, { pixels }) => {
    const { codec: e, frame, flat } = resolved;
    if (flat) return notIn2d('angularMapping');
    return {
      pixels: lazily(pixels, (asked) => {
        const found = angularOfPicture(frame, pictureOf(resolved, asked));
        if (!found) return { bearing: null, elevation: null, pixel: null, error: null, reason: 'parallelToScreen' };
        const [bearing, elevation] = found.direction;
        const pixel = e.toScreen(frame.viewport, ...found.picture);
        return {
          ...{ bearing: e.toAngle(bearing), elevation: e.toAngle(elevation) },
          ...{ pixel, error: [pixel[0] - asked[0], pixel[1] - asked[1]] },
        };
      }),
    };
  },

  depthPrecision: ({ codec: e, frame, flat }, { distances, format }) => {
    if (flat) return notIn2d('depthPrecision');
    const { near, far } = e.conventions.ndc;
    return {
      distances: lazily(distances, (ahead) => {
        const resolution = depthResolution(frame, ahead, format, near > far);
        return resolution === null ? { resolution, reason: 'outsideDepth' } : { resolution };
      }),
    };
  },

  drawOrder: (resolved, { bodies, key }) =>
    chosen(resolved, bodies, (placed) => ({ ...drawOrder(resolved.frame, placed, key) })),

  apparentSize: (resolved, { bodies, thresholds }) =>
    chosen(resolved, bodies, (placed) => ({
      bodies: once(placed, (each) =>
        each.map((one) => {
          const { frame, flat } = resolved;
          const { ahead, radius, diameter } = apparentSize(frame, one, flat);
          const size = diameter.ok
            ? { diameter: diameter.value, share: diameter.value / frame.viewport.height }
            : { diameter: null, share: null };
          return {
            ...{ body: one.body.id, ahead, radius, ...size },
            ...(thresholds && {
              switches:
                frame.kind === 'orthographic'
                  ? null
                  : thresholds.map((pixels) => distanceForSize(frame, radius, pixels)),
            }),
            ...(!diameter.ok && { reason: diameter.reason }),
          };
        }),
      ),
    })),

  visibilityBy: (resolved, { bodies, test }) =>
    chosen(resolved, bodies, (placed) => {
      const found = once(placed, (each) => visibilityBy(resolved.frame, each, test, resolved.flat));
      const count = (verdict: SeenVerdict['verdict']) => found.filter((one) => one.verdict === verdict).length;
      return {
        bodies: found,
        counts: { right: count('right'), missed: count('missed'), 'false alarm': count('false alarm') },
      };
    }),

  compareCameras: (resolved, query) => {
    const { codec: e, frame, flat } = resolved;
    if (flat) return notIn2d('compareCameras');
    const read = readOther(query, { codec: e, viewport: frame.viewport });
    // Read before, with the whole request: what is wrong with it is a problem of that.
    if (!read.ok) throw new Error(read.problems[0]!.message);
    const other = read.value;
    const screen = (seenBy: CameraFrame, world: Vec3) => {
      const { picture } = projectPoint(seenBy, world);
      return picture.ok
        ? { at: e.toScreen(seenBy.viewport, picture.value.across, picture.value.upward), reason: null }
        : { at: null, reason: picture.reason };
    };
    const less = (a: Vec2, b: Vec2): Vec2 => [a[0] - b[0], a[1] - b[1]];
    const { points, pixels, range, items } = query;
    const ray = (seenBy: CameraFrame, pixel: Vec2) => rayThrough(seenBy, ...e.fromScreen(seenBy.viewport, pixel));
    return {
      ...(points && {
        points: lazily(points, (p) => {
          const [now, then] = [screen(frame, e.fromWorld(p)), screen(other, e.fromWorld(p))];
          const reason = now.reason ?? then.reason;
          return {
            ...{ now: now.at, then: then.at, error: now.at && then.at && less(then.at, now.at) },
            ...(reason && { reason }),
          };
        }),
      }),
      ...(pixels && {
        pixels: lazily(pixels, (pixel) => {
          const { angle, miss, point } = compareRays(ray(frame, pixel), ray(other, pixel), range!);
          const shown = screen(frame, point);
          return {
            ...{ angle: e.toAngle(angle), miss, shown: shown.at, error: shown.at && less(shown.at, pixel) },
            ...(shown.reason && { reason: shown.reason }),
          };
        }),
      }),
      ...(items && {
        items: lazily(items, ({ position, mode, axis, front }) => {
          const [own, theirs] = [frame, other].map((seenBy) =>
            billboard(seenBy, e.fromWorld(position), mode, axis && e.fromWorld(axis), front === '-n'),
          ) as [Billboard, Billboard];
          return {
            angle: e.toAngle(angleBetween(own.normal, theirs.normal)),
            turn: e.toAngle(turnBetween(own.quaternion, theirs.quaternion)),
          };
        }),
      }),
    };
  },

  motion: (resolved, { track, times }) => {
    const found: Record<string, unknown>[] = [];
    for (const time of times) {
      const there = resolvedAlong(resolved, track, time);
      if (!there.ok) return failure(there.code, there.message);
      found.push({ time, camera: cameraAnswer(there.value) });
    }
    // A track that is wrong is so without being asked for a time.
    const begins = resolvedAlong(resolved, track, 0);
    return begins.ok ? { times: found } : failure(begins.code, begins.message);
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

/** The camera of an answer: resolved, or a flat one's own numbers. */
function cameraAnswer({ frame, codec, camera, flat }: ResolvedRequest): Record<string, unknown> {
  if (!flat || !('kind' in camera)) return resolvedCamera(frame, codec);
  const { focus, anchor, zoom, rotation } = camera;
  return { focus, anchor, zoom, rotation };
}

/** A light of a request in canonical space. */
const readLight = (light: QueryOf<'planarShadow'>['light'], e: ResolvedRequest['codec']): Light =>
  'position' in light
    ? { kind: 'point', at: e.fromWorld(light.position) }
    : { kind: 'directional', travels: e.fromWorld(light.direction) };

/** The box between two opposite corners, whichever they are. */
const boxBetween = (a: Vec2, b: Vec2): { min: Vec2; max: Vec2 } => ({
  min: [Math.min(a[0], b[0]), Math.min(a[1], b[1])],
  max: [Math.max(a[0], b[0]), Math.max(a[1], b[1])],
});

/** What is asked of bodies, once of each however often it is named: a mesh may have many vertices. */
function once<T extends { readonly body: string }>(
  placed: readonly PlacedBody[],
  ask: (each: readonly PlacedBody[]) => readonly T[],
): readonly T[] {
  const each = [...new Set(placed)];
  const found = ask(each);
  if (each.length === placed.length) return found;
  const byId = new Map(found.map((one) => [one.body, one]));
  return placed.flatMap(({ body }) => byId.get(body.id) ?? []);
}

/** The bodies that a query names, or all; `bodyMissing` for an id that there is not. */
function chosen(
  { placed }: ResolvedRequest,
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
