import { problemDocument, readSetUp, type ProblemDocument } from '../compute/readRequest';
import { setUpOf } from './code';
import type { SetUp } from './cameraSetup';
import { visibleGround } from './visibleGround';

/** The set-up of a compute request, any JSON value, or what is wrong with it as `compute` says it. */
export function setUpOfRequest(given: unknown): { ok: true; setUp: SetUp } | { ok: false; problem: ProblemDocument } {
  const read = readSetUp(given);
  if (!read.ok) return read;
  const { camera, codec: e, frame } = read.resolved;
  const refuse = (message: string) => ({ ok: false as const, problem: problemDocument([{ path: 'camera', message }]) });
  const { extents: x } = frame;
  if (!(x.right > x.left && x.top > x.bottom))
    return refuse('The extents are mirrored. Exchange left and right, or bottom and top, and mirror the picture where it is shown.'); // prettier-ignore
  if ('kind' in camera) return { ok: true, setUp: { camera, viewport: frame.viewport, e } };
  const made = setUpOf(camera, frame.viewport, e, visibleGround(frame, e));
  if (!made.ok) throw new Error('a camera that was read before');
  return { ok: true, setUp: made.value.setUp };
}
