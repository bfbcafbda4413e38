import { depthResolution } from '../camera/depthPrecision';
import { worldUp } from '../camera/orientation';
import { viewRufToClip, viewRufToWorld } from '../convert/project';
import { normalize, type Vec3 } from '../math/vec3';
import { angularOfPicture } from '../order/angular';
import { clipPolygon, unclippedPositions, type ClippedCorner } from '../order/clip';
import { drawOrder } from '../order/drawOrder';
import { horizonPlace, horizonPoints, vanishingPoint } from '../order/horizon';
import { planarShadow, shadowOf, type Light } from '../order/shadow';
import { windingOf } from '../order/winding';
import { chosen, notIn2d, pictureOf, type Operations } from './answering';
import { lazily } from './lazy';
import type { ResolvedRequest } from './read';
import type { QueryOf } from './schema';

/** What is drawn, and how: faces, clipping, draw order, horizon, shadows, equal angles, depth. */
export const orderOperations: Pick<
  Operations,
  'horizon' | 'clip' | 'winding' | 'planarShadow' | 'angularMapping' | 'depthPrecision' | 'drawOrder'
> = {
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
};

/** A light of a request in canonical space. */
const readLight = (light: QueryOf<'planarShadow'>['light'], e: ResolvedRequest['codec']): Light =>
  'position' in light
    ? { kind: 'point', at: e.fromWorld(light.position) }
    : { kind: 'directional', travels: e.fromWorld(light.direction) };
