import type { RequestCamera, RequestCamera2d } from '../request/cameraSchema';
import type { GroundEdge } from '../ground/distance';
import type { Viewport } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';

/** A 3D camera as a request writes it, with its viewport and conventions. */
export interface SetUp3d {
  readonly camera: RequestCamera;
  readonly viewport: Viewport;
  readonly e: ConventionCodec;
  /** The edges of the ground that the camera sees, in the surface's two coordinates; empty when it sees none. */
  readonly footprint: readonly GroundEdge[];
}

/** A 2D camera as a request writes it, with its viewport and conventions. */
export interface SetUp2d {
  readonly camera: RequestCamera2d;
  readonly viewport: Viewport;
  readonly e: ConventionCodec;
}

export type SetUp = SetUp3d | SetUp2d;

export const is2d = (setUp: SetUp): setUp is SetUp2d => 'kind' in setUp.camera;
