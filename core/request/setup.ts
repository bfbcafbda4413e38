import type { Body, PlacedBody } from '../bodies/body';
import type { CameraFrame, Viewport } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import type { Track } from '../motion/trackSchema';
import type { QuantityContext } from '../quantities/kinds';
import type { World } from '../quantities/world';
import type { RequestCamera, RequestCamera2d } from './cameraSchema';

/** The conventions, world and viewport that a request's values are written in. */
export interface RequestContext extends QuantityContext {
  readonly viewport: Viewport;
}

/** A request's conventions, camera and bodies in canonical space: what every operation works from. */
export interface Setup {
  readonly codec: ConventionCodec;
  readonly world: World;
  /** The conventions, the world and the viewport, which values are converted by. */
  readonly context: RequestContext;
  readonly frame: CameraFrame;
  /** As written, with its defaults. */
  readonly camera: RequestCamera | RequestCamera2d;
  readonly bodies: readonly Body[];
  readonly placed: readonly PlacedBody[];
  /** At a time of a query's track: the track and the setup where it begins. */
  readonly along?: { readonly track: Track; readonly rest: Setup };
}
