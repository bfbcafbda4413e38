import type { CameraFrame } from '../../../core/camera/frame';
import { reframed } from '../../../core/camera/frame';
import { angularError } from '../../../core/order/angular';
import { mapPicture, type PictureMap } from '../../pictures/compose/contourLines';
import { memo } from '../../state/memo';

/* The error of an angular mapping over the picture, and over the field of view. */

/** Levels of contours: one, two or five of a power of ten, at most so many of them below the greatest. */
const mostLevels = 6;
export function levelsTo(most: number): number[] {
  if (!(most > 0)) return [];
  const levels: number[] = [];
  for (let e = Math.floor(Math.log10(most)); levels.length < mostLevels && e > -9; e--)
    for (const k of [5, 2, 1]) {
      const level = k * 10 ** e;
      if (level < most * 0.98 && levels.length < mostLevels) levels.push(level);
    }
  return levels.reverse();
}

/** Where the angular mapping is how far off the plane projection, in pixels; null in orthographic, which has none. */
export const errorMap = memo((frame: CameraFrame): PictureMap | null =>
  frame.kind === 'orthographic'
    ? null
    : mapPicture(frame, (pixel) => Math.hypot(...(angularError(frame, pixel) ?? [0, 0])), levelsTo),
);

export interface FovError {
  /** Horizontal field of view in radians. */
  readonly fov: number;
  /** The greatest error in pixels over the picture. */
  readonly most: number;
}

/** The greatest error over a picture of this aspect and size, by its horizontal field of view; without a lens shift. */
export const errorOverFov = memo((width: number, height: number, frame: CameraFrame): FovError[] => {
  if (frame.kind === 'orthographic') return [];
  return Array.from({ length: 33 }, (_, i): FovError => {
    const fov = ((10 + 4.5 * i) * Math.PI) / 180;
    const half = Math.tan(fov / 2) * frame.near;
    const upward = (half * height) / width;
    const own = reframed(
      frame,
      { left: -half, right: half, bottom: -upward, top: upward },
      { x: 0, y: 0, width, height },
    );
    let most = 0;
    for (let j = 0; own && j <= 12; j++)
      for (let k = 0; k <= 16; k++)
        most = Math.max(most, Math.hypot(...(angularError(own, [(width * k) / 16, (height * j) / 12]) ?? [0, 0])));
    return { fov, most };
  });
});
