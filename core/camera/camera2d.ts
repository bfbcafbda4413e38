import type { Vec2, Vec3 } from '../math/vec3';
import type { Camera, Viewport } from './frame';

/**
 * A camera on a flat world: `focus` (world right and up) lies at the picture position `anchor`;
 * `zoom` is pixels per world unit; `rotation` (radians) turns the world about the focus as seen on
 * the screen, counter-clockwise.
 */
export interface Camera2d {
  readonly focus: Vec2;
  /** Across and upward, −1…1 over the viewport. */
  readonly anchor: Vec2;
  readonly zoom: number;
  readonly rotation: number;
}

/**
 * The world directions of the picture's right and up: turning the world counter-clockwise turns
 * them clockwise in it.
 */
function axesOf(rotation: number): { right: Vec2; up: Vec2 } {
  const [s, c] = [Math.sin(rotation), Math.cos(rotation)];
  return { right: [c, -s], up: [s, c] };
}

/** The way in the world from the anchor to a picture position. */
function fromAnchor({ anchor, zoom, rotation }: Omit<Camera2d, 'focus'>, viewport: Viewport, at: Vec2): Vec2 {
  const { right, up } = axesOf(rotation);
  const across = ((at[0] - anchor[0]) * viewport.width) / 2 / zoom;
  const upward = ((at[1] - anchor[1]) * viewport.height) / 2 / zoom;
  return [across * right[0] + upward * up[0], across * right[1] + upward * up[1]];
}

/**
 * The world point (right and up) that a 2D camera shows at a picture position. The zoom must be
 * above 0.
 */
export function worldAt(camera: Camera2d, viewport: Viewport, at: Vec2): Vec2 {
  const [right, up] = fromAnchor(camera, viewport, at);
  return [camera.focus[0] + right, camera.focus[1] + up];
}

/**
 * The focus with which a world point lies at a picture position, anchor, zoom and rotation being
 * what they are: `worldAt` solved for the focus.
 */
export function focusFor(camera: Omit<Camera2d, 'focus'>, viewport: Viewport, world: Vec2, at: Vec2): Vec2 {
  const [right, up] = fromAnchor(camera, viewport, at);
  return [world[0] - right, world[1] - up];
}

/**
 * The orthographic camera that a 2D camera equals: it stands in the world's plane over the middle
 * of the viewport, with near −1 and far 1, so that the plane lies at ahead 0. Turning the world
 * counter-clockwise is rolling the camera to its right. The zoom must be above 0.
 */
export function orthographicOf(camera: Camera2d, viewport: Viewport): Camera {
  const { right, up } = axesOf(camera.rotation);
  return {
    position: [...worldAt(camera, viewport, [0, 0]), 0],
    orientation: { kind: 'basis', right: flat(right), up: flat(up), forward: [0, 0, -1] },
    projection: { kind: 'orthographic', near: -1, far: 1, size: { height: viewport.height / camera.zoom } },
  };
}
const flat = ([right, up]: Vec2): Vec3 => [right, up, 0];

/**
 * A zoom that makes every world unit a whole number of pixels, and what the viewport then shows.
 */
export interface WholeZoom {
  readonly zoom: number;
  /** Width and height of the view in world units. */
  readonly size: Vec2;
  /** Whether both are whole numbers, so that no unit is cut by the picture's edge. */
  readonly whole: boolean;
}

/**
 * The whole-number zooms from 1 to `most` with the view that each gives on a viewport of that many
 * pixels.
 */
export const wholeZooms = ({ width, height }: Pick<Viewport, 'width' | 'height'>, most: number): WholeZoom[] =>
  Array.from({ length: Math.max(0, Math.floor(most)) }, (_, i) => {
    const zoom = i + 1;
    const size: Vec2 = [width / zoom, height / zoom];
    return { zoom, size, whole: size.every(Number.isInteger) };
  });

/**
 * The largest whole-number zoom at which a viewport shows at least a rectangle of `size` world
 * units; null when even 1 shows less.
 */
export function wholeZoomFor({ width, height }: Pick<Viewport, 'width' | 'height'>, size: Vec2): number | null {
  const zoom = Math.floor(Math.min(width / size[0], height / size[1]));
  return zoom >= 1 ? zoom : null;
}
