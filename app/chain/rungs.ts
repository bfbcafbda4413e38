import type { Chain, Rung } from '../../core/convert/chain';
import {
  clipToViewRuf,
  depthToAhead,
  viewRufToClip,
  pictureToPixel,
  pixelToPicture,
  depth01Of,
} from '../../core/convert/project';
import type { Vec3 } from '../../core/math/vec3';
import type { Moment } from '../state/moment';
import type { PointForm } from '../state/points';

/**
 * What numbers are written by: the conventions, the frame, and whether points are triples or pairs.
 */
type Written = Pick<Moment, 'codec' | 'frame' | 'points'>;

/**
 * How the held value of a rung is written in the conventions in force, and read back. The two undo
 * each other.
 */
export function heldNumbers(
  rung: Rung,
  { codec: e, frame, points }: Written,
): { show(held: Vec3): readonly number[]; read(shown: readonly number[]): Vec3 } {
  switch (rung) {
    case 'local':
    case 'world':
      return { show: points.show, read: points.read };
    case 'view':
      return { show: e.toView, read: ([x, y, z]) => e.fromView([x!, y!, z!]) };
    case 'clip':
      return {
        show: (held) => e.toClip(viewRufToClip(frame, clipToViewRuf(frame, held))),
        read: ([x, y, z, w]) => {
          const { across, upward, depth01 } = e.fromNdc([x!, y!, z!]);
          // In perspective w is the distance ahead; in orthographic it is 1 and z says how far.
          const far = frame.kind === 'perspective' ? null : depthToAhead(frame, depth01);
          return [across, upward, far?.ok ? far.value : w!];
        },
      };
    case 'ndc':
      return {
        show: ([across, upward, depth]) => e.toNdc({ across, upward, depth01: depth01Of(depth) }),
        read: ([x, y, z]) => {
          const { across, upward, depth01 } = e.fromNdc([x!, y!, z!]);
          return [across, upward, depth01.far];
        },
      };
    case 'screen':
      return {
        show: ([x, y, depth]) => [
          ...e.toScreen(frame.viewport, ...pixelToPicture(frame, [x, y])),
          e.toDepth(depth01Of(depth)),
        ],
        read: ([x, y, depth]) => [
          ...pictureToPixel(frame, ...e.fromScreen(frame.viewport, [x!, y!])),
          e.fromDepth(depth!).far,
        ],
      };
  }
}

/** A rung's numbers in the conventions in force; null where the division has no answer. */
export function rungNumbers(rung: Rung, chain: Chain, { codec: e, frame, points }: Written): readonly number[] | null {
  switch (rung) {
    case 'local':
      return points.show(chain.local);
    case 'world':
      return points.show(chain.world);
    case 'view':
      return e.toView(chain.viewRuf);
    case 'clip':
      return e.toClip(chain.clip);
    case 'ndc':
      return chain.picture.ok ? e.toNdc(chain.picture.value) : null;
    case 'screen': {
      if (!chain.picture.ok) return null;
      const { across, upward, depth01 } = chain.picture.value;
      return [...e.toScreen(frame.viewport, across, upward), e.toDepth(depth01)];
    }
  }
}

/** What the numbers of a rung are called. */
export const axisNames = (rung: Rung, points: PointForm): readonly string[] =>
  rung === 'local' || rung === 'world' ? points.letters : spaceNames[rung];

const spaceNames: Readonly<Record<Exclude<Rung, 'local' | 'world'>, readonly string[]>> = {
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

/**
 * Which of a rung's numbers can be given: all of them, but for clip's z in perspective and its w in
 * orthographic, which follow, and the depth of a flat world, which has one.
 */
export const givenNumbers = (rung: Rung, { frame, flat }: Pick<Moment, 'frame' | 'flat'>): readonly boolean[] =>
  rung === 'clip'
    ? [true, true, frame.kind === 'orthographic' && !flat, frame.kind === 'perspective']
    : [true, true, !flat];
