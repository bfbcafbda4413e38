import type { CameraFrame } from '../camera/frame';
import type { Vec2, Vec3 } from '../math/vec3';
import { viewRufToClip, worldToViewRuf } from './project';

/** Where the picture's edge is to point at something that is not in it. */
export interface EdgeMarker {
  /** In canonical pixels, on the viewport's border drawn in by the inset. */
  readonly pixel: Vec2;
  /** The way to it from the middle of the picture, on the screen: unit, right and upward. */
  readonly direction: Vec2;
  /** The edge that the marker stands on. */
  readonly side: 'left' | 'right' | 'bottom' | 'top';
}

/**
 * The marker for a world point, `inset` pixels inside the viewport's border; null when the point's
 * own pixel lies within that border (then no marker is wanted) or it lies straight behind, where
 * every way is as short. Behind the eye the division would mirror it: the way is taken from clip x
 * and y before the division, which passes through the eye's plane without a jump
 * (`docs/derivations.md`, "Edge marker").
 */
export function edgeMarker(frame: CameraFrame, world: Vec3, inset: number): EdgeMarker | null {
  const { x, y, w } = viewRufToClip(frame, worldToViewRuf(frame, world));
  const { viewport: v } = frame;
  const half: Vec2 = [Math.max(0, v.width / 2 - inset), Math.max(0, v.height / 2 - inset)];
  // In pixels from the middle, times w.
  const [dx, dy] = [(x * v.width) / 2, (y * v.height) / 2];
  if (w > 0 && Math.abs(dx) <= half[0] * w && Math.abs(dy) <= half[1] * w) return null;
  const long = Math.hypot(dx, dy);
  if (!(long > 0) || !Number.isFinite(long)) return null;
  const direction: Vec2 = [dx / long, dy / long];
  const [across, upward] = [Math.abs(direction[0]), Math.abs(direction[1])];
  // Which border the way meets first.
  const sideways = across * half[1] > upward * half[0] || upward === 0;
  const k = sideways ? half[0] / across : half[1] / upward;
  return {
    pixel: [v.x + v.width / 2 + direction[0] * k, v.y + v.height / 2 - direction[1] * k],
    direction,
    side: sideways ? (direction[0] < 0 ? 'left' : 'right') : direction[1] < 0 ? 'bottom' : 'top',
  };
}
