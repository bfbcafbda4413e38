import type { Chain, DrivableRung, Rung } from '../../core/convert/chain';
import type { CameraFrame } from '../../core/camera/frame';
import type { Expression } from '../../core/conventions/express';
import { pictureToPixel, pixelToPicture, sharesOfDepth } from '../../core/convert/project';
import type { Vec3 } from '../../core/math/vec3';

/** How the held value of a rung is written in the conventions in force, and read back. The two undo each other. */
export function heldNumbers(
  rung: DrivableRung,
  e: Expression,
  frame: CameraFrame,
): { show(held: Vec3): Vec3; read(shown: Vec3): Vec3 } {
  switch (rung) {
    case 'local':
    case 'world':
      return { show: e.toWorld, read: e.fromWorld };
    case 'view':
      return { show: e.toView, read: e.fromView };
    case 'ndc':
      return {
        show: ([across, upward, depth]) => e.toNdc({ across, upward, shares: sharesOfDepth(depth) }),
        read: (shown) => {
          const { across, upward, shares } = e.fromNdc(shown);
          return [across, upward, shares.far];
        },
      };
    case 'screen':
      return {
        show: ([x, y, depth]) => [
          ...e.toScreen(frame.viewport, ...pixelToPicture(frame, [x, y])),
          e.toDepth(sharesOfDepth(depth)),
        ],
        read: ([x, y, depth]) => [
          ...pictureToPixel(frame, ...e.fromScreen(frame.viewport, [x, y])),
          e.fromDepth(depth).far,
        ],
      };
  }
}

/** A rung's numbers in the conventions in force; null where the division has no answer. */
export function rungNumbers(rung: Rung, chain: Chain, e: Expression, frame: CameraFrame): readonly number[] | null {
  switch (rung) {
    case 'local':
      return e.toWorld(chain.local);
    case 'world':
      return e.toWorld(chain.world);
    case 'view':
      return e.toView(chain.parts);
    case 'clip':
      return e.toClip(chain.clip);
    case 'ndc':
      return chain.picture.ok ? e.toNdc(chain.picture.value) : null;
    case 'screen': {
      if (!chain.picture.ok) return null;
      const { across, upward, shares } = chain.picture.value;
      return [...e.toScreen(frame.viewport, across, upward), e.toDepth(shares)];
    }
  }
}

export const axisNames: Readonly<Record<Rung, readonly string[]>> = {
  local: ['x', 'y', 'z'],
  world: ['x', 'y', 'z'],
  view: ['x', 'y', 'z'],
  clip: ['x', 'y', 'z', 'w'],
  ndc: ['x', 'y', 'z'],
  screen: ['x', 'y', 'depth'],
};

/** Which of a rung's numbers lie outside the picture, by the planes that the point violates. */
export function outOfRange(rung: Rung, chain: Chain): readonly boolean[] {
  const { outside } = chain;
  const across = outside.includes('left') || outside.includes('right');
  const upward = outside.includes('top') || outside.includes('bottom');
  const depth = outside.includes('near') || outside.includes('far');
  return rung === 'ndc' || rung === 'screen' ? [across, upward, depth] : [];
}
