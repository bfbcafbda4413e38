import type { Vec2 } from '../math/vec3';

/**
 * Which edge, corner or middle of the screen a point is held to: −1 the left or the lower edge, 1
 * the right or the upper one, 0 the middle between them.
 */
export type Hold = readonly [across: -1 | 0 | 1, upward: -1 | 0 | 1];

/**
 * The pixel, from the top left of the viewport, at which a point stands that is held to the screen:
 * `inset` pixels inward from the edges that it is held to, and to the right and downward from the
 * middle. On a screen that is smaller than the inset it lies off it.
 */
export function heldPixel(
  { width, height }: { readonly width: number; readonly height: number },
  [across, upward]: Hold,
  [x, y]: Vec2,
): Vec2 {
  return [
    across < 0 ? x : across > 0 ? width - x : width / 2 + x,
    upward > 0 ? y : upward < 0 ? height - y : height / 2 + y,
  ];
}

/**
 * The inset with which a point held to an edge stands at a pixel: the inverse of `heldPixel`, so
 * that it can be held to another edge and stay where it is.
 */
export function insetAt(
  { width, height }: { readonly width: number; readonly height: number },
  [across, upward]: Hold,
  [x, y]: Vec2,
): Vec2 {
  return [
    across < 0 ? x : across > 0 ? width - x : x - width / 2,
    upward > 0 ? y : upward < 0 ? height - y : y - height / 2,
  ];
}
