import { localBounds, type PlacedBody } from '../bodies/body';
import { worldShape, type WorldShape } from '../bodies/geometry';
import type { CameraFrame } from '../camera/frame';
import { transformPoint } from '../math/mat4';
import { addScaled, dot, length, normalize, sub, type Vec3 } from '../math/vec3';
import { castRay } from '../pick/pick';
import { apparentSize } from './size';
import { pictureBounds, visibility } from './visibility';

/* Why a body is not seen, in numbers. */

/** A reason for which nothing of a body is seen. */
export type Unseen =
  /** All of it lies behind the eye, by so much at least. */
  | { readonly kind: 'behindEye'; readonly behind: number }
  /** All of it lies before near: its farthest point is so far ahead. */
  | { readonly kind: 'beforeNear'; readonly ahead: number }
  /** All of it lies past far: its nearest point is so far ahead. */
  | { readonly kind: 'pastFar'; readonly ahead: number }
  /** It lies off the picture by so many pixels across and upward, positive to the right and up. */
  | { readonly kind: 'offPicture'; readonly across: number; readonly upward: number }
  /** It has no surface. */
  | { readonly kind: 'noExtent' }
  /** It is so small that it may cover no pixel's middle: its diameter. */
  | { readonly kind: 'tooSmall'; readonly pixels: number }
  /** Every surface of it faces away. */
  | { readonly kind: 'facingAway' }
  /** All that was looked at of it is hidden, most often by this body. */
  | { readonly kind: 'hidden'; readonly by: string };

/** How far ahead of the eye the nearest and the farthest point of a shape lie. */
export function aheadOf({ eye, forward }: CameraFrame, shape: WorldShape): readonly [number, number] {
  if (shape.kind === 'sphere') {
    const at = dot(forward, sub(shape.centre, eye));
    return [at - shape.radius, at + shape.radius];
  }
  const all = shape.points.map((p) => dot(forward, sub(p, eye)));
  return [all.reduce((a, b) => Math.min(a, b), Infinity), all.reduce((a, b) => Math.max(a, b), -Infinity)];
}

/** Points of a body's surface to look at: of its box the corners, and the middles of edges and faces. */
function samplesOf(placed: PlacedBody): Vec3[] {
  const { centre: c, half: h } = localBounds(placed.body.shape);
  const { shape } = placed.body;
  const places: Vec3[] = [];
  const steps = [-0.98, 0, 0.98];
  for (const x of steps)
    for (const y of steps)
      for (const z of shape.kind === 'quad' ? [0] : steps) {
        if (!x && !y && !z && shape.kind !== 'quad') continue;
        // A ball's box is not it: its own surface in the same directions.
        const k = shape.kind === 'sphere' ? 0.98 / Math.hypot(x, y, z) : 1;
        places.push([c[0] + x * k * h[0], c[1] + y * k * h[1], c[2] + z * k * h[2]]);
      }
  if (shape.kind === 'mesh') {
    // A mesh is asked at its own corners, a few of many.
    places.length = 0;
    const count = shape.positions.length / 3;
    const stride = Math.max(1, Math.floor(count / 40));
    for (let i = 0; i < count; i += stride)
      places.push([shape.positions[3 * i]!, shape.positions[3 * i + 1]!, shape.positions[3 * i + 2]!]);
  }
  return places.map((p) => transformPoint(placed.toWorld, p));
}

/**
 * Why nothing of a placed body is seen by a camera among others, or null where something is. Whether
 * it is hidden is asked at points of its surface, so a body that shows through a gap alone may be
 * called hidden; `own` names what does not hide it, its own parts. On a flat world only what lies
 * off the picture, and what has no extent, is not seen.
 */
export function whyUnseen(
  frame: CameraFrame,
  placed: PlacedBody,
  others: readonly PlacedBody[],
  { flat = false, own = new Set<string>() }: { readonly flat?: boolean; readonly own?: ReadonlySet<string> } = {},
): Unseen | null {
  const { verdict } = visibility(frame, [placed], { method: 'exact', flat })[0]!;
  const shape = worldShape(placed, flat);
  if (verdict === 'outside') {
    const [nearest, farthest] = aheadOf(frame, shape);
    if (!flat) {
      if (frame.kind === 'perspective' && farthest <= 0) return { kind: 'behindEye', behind: -farthest };
      if (farthest < frame.near) return { kind: 'beforeNear', ahead: farthest };
      if (frame.far !== null && nearest > frame.far) return { kind: 'pastFar', ahead: nearest };
    }
    const bounds = pictureBounds(frame, placed, flat);
    const { width, height } = frame.viewport;
    const off = (low: number, high: number, size: number) =>
      low > 1 ? ((low - 1) * size) / 2 : high < -1 ? ((high + 1) * size) / 2 : 0;
    if (!bounds.ok) return { kind: 'beforeNear', ahead: farthest };
    const { min, max } = bounds.value;
    return { kind: 'offPicture', across: off(min[0], max[0], width), upward: off(min[1], max[1], height) };
  }
  if (placed.body.shape.kind === 'point') return { kind: 'noExtent' };
  const size = apparentSize(frame, placed, flat).diameter;
  if (size.ok && size.value < 1) return { kind: 'tooSmall', pixels: size.value };
  if (flat) return null;
  const blockers = new Map<string, number>();
  let [looked, facing] = [0, 0];
  for (const p of samplesOf(placed)) {
    const way = sub(p, frame.kind === 'perspective' ? frame.eye : addScaled(p, frame.forward, -1));
    const range = frame.kind === 'perspective' ? length(way) : dot(frame.forward, sub(p, frame.eye));
    const direction = normalize(way);
    if (!direction || !(range > 0)) continue;
    const origin = frame.kind === 'perspective' ? frame.eye : addScaled(p, frame.forward, -range);
    const from = frame.kind === 'perspective' ? (frame.near * range) / Math.max(1e-300, dot(frame.forward, way)) : frame.near; // prettier-ignore
    // What of it is in the frustum: the sample on its own front.
    const [met] = castRay({ origin, direction }, [placed], { from, to: range * 1.000001 });
    const ahead = dot(frame.forward, sub(p, frame.eye));
    if (ahead < frame.near || (frame.far !== null && ahead > frame.far)) continue;
    looked++;
    if (!met) continue;
    facing++;
    const [hit] = castRay({ origin, direction }, others.filter(({ body }) => body.id !== placed.body.id && !own.has(body.id)), { from, to: met.distance * (1 - 1e-6) }); // prettier-ignore
    if (!hit) return null;
    blockers.set(hit.body, (blockers.get(hit.body) ?? 0) + 1);
  }
  if (looked && !facing && (placed.body.shape.kind === 'quad' || placed.body.shape.kind === 'mesh'))
    return { kind: 'facingAway' };
  const by = [...blockers].sort((a, b) => b[1] - a[1])[0];
  return by ? { kind: 'hidden', by: by[0] } : null;
}
