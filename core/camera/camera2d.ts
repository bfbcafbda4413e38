import type { Vec2, Vec3 } from '../math/vec3';
import type { Camera, Viewport } from './frame';

/**
 * A camera on a flat world: `focus` (world right and up) lies at the picture position `anchor`; `zoom` is pixels per world unit; `rotation` (radians)
 * turns the world about the focus as seen on the screen, counter-clockwise.
 */
export interface Camera2d {
  readonly focus: Vec2;
  /** Across and upward, −1…1 over the viewport. */
  readonly anchor: Vec2;
  readonly zoom: number;
  readonly rotation: number;
}

/**
 * The orthographic camera that a 2D camera equals: it stands in the world's plane over the middle of the viewport, with near −1 and far 1, so that the plane lies
 * at ahead 0. Turning the world counter-clockwise is rolling the camera to its right. The zoom must be above 0.
 */
export function orthographicOf({ focus, anchor, zoom, rotation }: Camera2d, viewport: Viewport): Camera {
  const [s, c] = [Math.sin(rotation), Math.cos(rotation)];
  const right: Vec3 = [c, -s, 0];
  const up: Vec3 = [s, c, 0];
  const across = (anchor[0] * viewport.width) / 2 / zoom;
  const upward = (anchor[1] * viewport.height) / 2 / zoom;
  return {
    position: [focus[0] - across * right[0] - upward * up[0], focus[1] - across * right[1] - upward * up[1], 0],
    orientation: { kind: 'basis', right, up, forward: [0, 0, -1] },
    projection: { kind: 'orthographic', near: -1, far: 1, size: { height: viewport.height / zoom } },
  };
}
