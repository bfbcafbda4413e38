import { boundingSphere, type PlacedBody } from '../bodies/body';
import { reposed, type CameraFrame } from '../camera/frame';
import { rayThrough } from '../convert/project';
import { addScaled, distance, dot, scale, type Vec3 } from '../math/vec3';
import { castRay } from '../pick/pick';
import { bisect, roundOutward, type ShowingChange } from './showing';
import { pictureBounds } from './visibility';
import { whyUnseen } from './whyNot';

/** What hides a body, by rays over its picture. */
export interface Occlusion {
  /** Rays that meet the body within the frustum. */
  readonly rays: number;
  /** Rays that meet it first. */
  readonly visible: number;
  /** Bodies that the other rays meet first, the one with most of them first. */
  readonly behind: readonly { readonly body: string; readonly rays: number }[];
}

/** Rays across and upward over the picture of a body. */
const raysAcross = 24;

/**
 * Casts rays over the picture of a body and counts which body each meets first, fronts alone.
 *
 * @param others - all bodies that may hide it
 * @param own - ids of bodies that do not, its own parts
 * @returns the counts; null where no ray meets the body within the picture, near and far
 */
export function occlusionOf(
  frame: CameraFrame,
  placed: PlacedBody,
  others: readonly PlacedBody[],
  own: ReadonlySet<string> = new Set(),
): Occlusion | null {
  const bounds = pictureBounds(frame, placed);
  if (!bounds.ok) return null;
  const inside = (v: number) => Math.max(-1, Math.min(1, v));
  const [left, low] = bounds.value.min.map(inside) as [number, number];
  const [right, high] = bounds.value.max.map(inside) as [number, number];
  const strangers = others.filter(({ body }) => body.id !== placed.body.id && !own.has(body.id));
  const counts = new Map<string, number>();
  let [rays, visible] = [0, 0];
  for (let row = 0; row < raysAcross; row++)
    for (let column = 0; column < raysAcross; column++) {
      const share = (i: number) => (i + 0.5) / raysAcross;
      const ray = rayThrough(frame, left + (right - left) * share(column), low + (high - low) * share(row));
      const ahead = dot(frame.forward, ray.direction);
      const [from, to] = [frame.near / ahead, (frame.far ?? Infinity) / ahead];
      const [met] = castRay(ray, [placed], { from, to });
      if (!met) continue;
      rays++;
      const [first] = castRay(ray, strangers, { from, to: met.distance * (1 - 1e-6) });
      if (first) counts.set(first.body, (counts.get(first.body) ?? 0) + 1);
      else visible++;
    }
  if (!rays) return null;
  const behind = [...counts].map(([body, count]) => ({ body, rays: count })).sort((a, b) => b.rays - a.rays);
  return { rays, visible, behind };
}

const up: Vec3 = [0, 1, 0];

/**
 * Returns the shortest step of a camera to its right or left, or straight up or down, after which something of a hidden
 * body is visible. Steps are tried from a sixteenth of the body's radius to twice its distance, a third longer each,
 * and the first that shows it is shortened by bisection: a gap narrower than that may be passed over.
 *
 * @returns the step, rounded outward; null where no such step shows the body
 */
export function uncoveringStep(
  frame: CameraFrame,
  placed: PlacedBody,
  others: readonly PlacedBody[],
  own: ReadonlySet<string> = new Set(),
): (ShowingChange & { readonly kind: 'step' }) | null {
  const { centre, radius } = boundingSphere(placed);
  const most = 2 * distance(frame.eye, centre);
  const ways = { right: frame.right, left: scale(frame.right, -1), up, down: scale(up, -1) } as const;
  const shows = (way: Vec3, by: number): boolean => {
    const moved = reposed(frame, { eye: addScaled(frame.eye, way, by) });
    return moved !== null && whyUnseen(moved, placed, others, { own }) === null;
  };
  let best: (ShowingChange & { readonly kind: 'step' }) | null = null;
  for (const direction of ['right', 'left', 'up', 'down'] as const) {
    const way = ways[direction];
    let before = 0;
    for (let by = Math.max(radius / 16, most / 4096); by <= most && (!best || before < best.by); by *= 4 / 3) {
      if (shows(way, by)) {
        const least = roundOutward(bisect(before, by, (v) => shows(way, v), 12));
        const step = shows(way, least) ? least : roundOutward(by);
        if (!best || step < best.by) best = { kind: 'step', direction, by: step, eye: addScaled(frame.eye, way, step) };
        break;
      }
      before = by;
    }
  }
  return best;
}
