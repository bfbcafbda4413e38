import type { Vec2 } from '../math/vec3';

/**
 * What lies between the pointer and the viewport. All pixels run to the right and downward from the top left.
 * - client: CSS pixels of the page, as a pointer event gives them
 * - css: CSS pixels of the canvas, from its own corner, undoing its CSS scale
 * - framebuffer: device pixels of the canvas
 */
export interface PointerPath {
  /** Where the canvas's corner lies on the page, in CSS pixels. */
  readonly canvas: Vec2;
  /** How much larger the canvas is shown than its own CSS size. */
  readonly cssScale: number;
  readonly devicePixelRatio: number;
}

/** Page to canvas, in CSS pixels. Its inverse is `cssToClient`. */
export const clientToCss = (path: PointerPath, [x, y]: Vec2): Vec2 => [
  (x - path.canvas[0]) / path.cssScale,
  (y - path.canvas[1]) / path.cssScale,
];
export const cssToClient = (path: PointerPath, [x, y]: Vec2): Vec2 => [
  x * path.cssScale + path.canvas[0],
  y * path.cssScale + path.canvas[1],
];

/** CSS pixels of the canvas to device pixels of the framebuffer. Its inverse is `framebufferToCss`. */
export const cssToFramebuffer = (path: PointerPath, [x, y]: Vec2): Vec2 => [
  x * path.devicePixelRatio,
  y * path.devicePixelRatio,
];
export const framebufferToCss = (path: PointerPath, [x, y]: Vec2): Vec2 => [
  x / path.devicePixelRatio,
  y / path.devicePixelRatio,
];
