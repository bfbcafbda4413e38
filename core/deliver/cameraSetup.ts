import type { RequestCamera } from '../request/cameraSchema';
import type { Viewport } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';

/** A camera as a request says it, with all that its numbers stand in. */
export interface SetUp {
  readonly camera: RequestCamera;
  readonly viewport: Viewport;
  readonly e: ConventionCodec;
  /** The corners of what the camera sees of the ground, in the surface's two coordinates; empty for none to keep out of. */
  readonly footprint: readonly (readonly [number, number])[];
}
