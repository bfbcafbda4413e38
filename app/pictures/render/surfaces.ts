import type { Size } from '../compose/contract';
import type { Palette } from '../compose/palette';
import type { Picture } from '../compose/picture';
import type { Scene } from '../compose/scene';

/** The grid of the ground: what is small in a scene is measured by it. */
export interface Ground {
  readonly gridStep: number;
}

/** Draws the surfaces of pictures on a canvas: by WebGL, or in software. */
export interface Surfaces {
  /** Whether it can draw now. */
  readonly ready: boolean;
  /**
   * Draws the pictures.
   *
   * @param size - the canvas in pixels of the page
   * @param pixel - device pixels to a pixel of the page
   * @returns whether all of them are drawn; call again while they are not
   */
  draw(
    scene: Scene,
    ground: Ground,
    pictures: readonly Picture[],
    palette: Palette,
    size: Size,
    pixel: number,
  ): boolean;
}

/** Returns the passes of a picture: all families, or all of them dimmed and then the emphasised one over them. */
export const passesOf = (emphasis: number | null): readonly { readonly family: number; readonly dim: number }[] =>
  emphasis === null
    ? [{ family: -1, dim: 1 }]
    : [
        { family: -1, dim: 0.4 },
        { family: emphasis, dim: 1 },
      ];
