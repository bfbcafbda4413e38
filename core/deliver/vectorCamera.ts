import type { RequestCamera2d } from '../request/cameraSchema';
import { readSetUp, type ProblemDocument } from '../compute/readRequest';
import type { ConventionCodec } from '../conventions/codec';
import type { CameraFrame } from '../camera/frame';
import type { VectorContext } from './vectorAnswers';
import type { VectorContext2d } from './vectors2d';
import { visibleGround } from './visibleGround';

/** A camera that test vectors are of. */
export type VectorCamera =
  | { readonly isFlat: false; readonly context: VectorContext; readonly given: unknown }
  | { readonly isFlat: true; readonly context: VectorContext2d; readonly given: unknown };

/** Returns the camera of a request for its test vectors, or the problems of the request. */
export function vectorCamera(given: unknown): { ok: true; camera: VectorCamera } | { ok: false; problem: ProblemDocument } {
  const read = readSetUp(given);
  if (!read.ok) return read;
  const { camera, frame, codec } = read.resolved;
  return 'kind' in camera
    ? { ok: true, camera: { isFlat: true, given, context: contextOf2d(camera, frame, codec) } }
    : { ok: true, camera: { isFlat: false, given, context: { frame, codec, ground: visibleGround(frame, codec) } } };
} // prettier-ignore

const contextOf2d = (camera: RequestCamera2d, { viewport }: CameraFrame, codec: ConventionCodec): VectorContext2d => ({ camera, viewport, codec }); // prettier-ignore
