import { billboard, type Billboard } from '../billboard/billboard';
import type { CameraFrame } from '../camera/frame';
import { angleBetween, compareRays, turnBetween } from '../convert/compare';
import { projectPoint, rayThrough } from '../convert/project';
import type { Vec2, Vec3 } from '../math/vec3';
import { apparentSize, distanceForSize, visibilityBy, type SeenVerdict } from '../visibility/size';
import { resolvedAlong } from './along';
import { chosen, failure, notIn2d, once, type Operations } from './answering';
import { lazily } from './lazy';
import { readOther, type ResolvedRequest } from './read';
import { resolvedCamera } from './resolved';

/** Cameras over time and against one another, and how large and whether bodies are seen. */
export const cameraOperations: Pick<Operations, 'apparentSize' | 'visibilityBy' | 'compareCameras' | 'motion'> = {
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
};

/** The camera of an answer: resolved, or a flat one's own numbers. */
function cameraAnswer({ frame, codec, camera, flat }: ResolvedRequest): Record<string, unknown> {
  if (!flat || !('kind' in camera)) return resolvedCamera(frame, codec);
  const { focus, anchor, zoom, rotation } = camera;
  return { focus, anchor, zoom, rotation };
}
