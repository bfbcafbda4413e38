import type { CameraFrame } from '../camera/frame';
import { pixelsPerUnit, worldToViewRuf } from '../convert/project';
import type { Vec3 } from '../math/vec3';
import { answer, noAnswer, type Answer } from '../reasons';

/** How an item keeps its size on the screen. */
export interface ScreenSize {
  /** Its height on the screen, in pixels of the viewport. */
  readonly pixels: number;
  /** Distances ahead between which it keeps it; nearer and farther it has the world size of the limit. */
  readonly nearest: number;
  readonly farthest: number;
  /** It fades evenly from the first of these distances ahead to the second, where it is gone. */
  readonly fade: readonly [from: number, to: number];
}

/** An item of such a size at a distance ahead. */
export interface SizeAt {
  readonly ahead: number;
  /** World units. */
  readonly height: number;
  /** Pixels of the viewport that it then has. */
  readonly pixels: number;
  /** 0…1. */
  readonly opacity: number;
}

/**
 * The world height that an item must have at a distance ahead to be so many pixels high:
 * pixels ÷ (pixels of a unit there). Where it lies behind the eye or in its plane (perspective) there
 * is none.
 */
export function screenSizeAt(frame: CameraFrame, ahead: number, size: ScreenSize): Answer<SizeAt> {
  const perspective = frame.kind === 'perspective';
  if (perspective && !(ahead > 0)) return noAnswer(ahead === 0 ? 'onEyePlane' : 'behindEye');
  const unit = (at: number) => Math.abs(pixelsPerUnit(frame, at)[1]);
  const kept = Math.max(size.nearest, Math.min(size.farthest, ahead));
  const height = size.pixels / unit(kept);
  const [from, to] = size.fade;
  const opacity = to > from ? Math.max(0, Math.min(1, (to - ahead) / (to - from))) : ahead < to ? 1 : 0;
  return answer({ ahead, height, pixels: height * unit(ahead), opacity });
}

/** The same for an item at a place (canonical world space). */
export const screenSize = (frame: CameraFrame, position: Vec3, size: ScreenSize): Answer<SizeAt> =>
  screenSizeAt(frame, worldToViewRuf(frame, position)[2], size);
