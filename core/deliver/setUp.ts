import type { CameraFrame } from '../camera/frame';
import { problemDocument, readSetUp, type ProblemDocument } from '../compute/compute';
import { writeCamera } from '../compute/write';
import type { ConventionCodec } from '../conventions/codec';
import { footprint } from '../ground/footprint';
import type { Vec2 } from '../math/vec3';
import { planeSurface } from '../spawn/surface';
import { setUpOf } from './code';
import type { SetUp } from './library';

/**
 * The corners of what a camera sees of the ground, the level at height 0, one after another
 * counter-clockwise in the surface's two coordinates (the world's own numbers to the right and ahead);
 * empty where it sees none of it, or sees it to infinity.
 */
export function groundSeen(frame: CameraFrame, e: ConventionCodec): Vec2[] {
  const seen = footprint(frame, [0, 0, 0], [0, 1, 0]);
  const surface = planeSurface([0, 0, 0], [0, 1, 0]);
  if (!seen || seen.unbounded || !surface || seen.polygon.length < 3) return [];
  const corners = seen.polygon.map((p) => e.toPair('forward', surface.coordinates(p)));
  const twice = corners.reduce((sum, [x, y], i) => {
    const [a, b] = corners[(i + 1) % corners.length]!;
    return sum + x * b - a * y;
  }, 0);
  return twice < 0 ? corners.reverse() : corners;
}

/** The set-up of a compute request, any JSON value, or what is wrong with it as `compute` says it. */
export function setUpOfRequest(given: unknown): { ok: true; setUp: SetUp } | { ok: false; problem: ProblemDocument } {
  const read = readSetUp(given);
  if (!read.ok) return read;
  const { camera, codec: e, frame, flat } = read.resolved;
  const refuse = (message: string) => ({ ok: false as const, problem: problemDocument([{ path: 'camera', message }]) });
  const { extents: x } = frame;
  if (!(x.right > x.left && x.top > x.bottom))
    return refuse('The extents are mirrored. Exchange left and right, or bottom and top, and mirror the picture where it is shown.'); // prettier-ignore
  // A flat camera is the orthographic one that it equals; its world has no ground.
  const made = setUpOf(flat || 'kind' in camera ? writeCamera(frame, e) : camera, frame.viewport, e, flat ? [] : groundSeen(frame, e)); // prettier-ignore
  if (!made.ok) throw new Error('a camera that was read before');
  return { ok: true, setUp: made.value.setUp };
}
