import { reposed, type CameraFrame } from '../../../core/camera/frame';
import { addScaled, length2, sub, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { takenByTerm, type TermTaken } from '../../../core/spawn/measures';
import { areaAndCentroid } from '../../../core/spawn/region';
import { spawnRegion, type SpawnRegion, type SpawnTerms } from '../../../core/spawn/spawn';
import { expandBox, flatSurface, planeSurface, type Surface, type SurfaceBox } from '../../../core/spawn/surface';
import { grown } from '../../../core/visibility/visibility';
import { checksum } from '../../state/checksum';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { SpawnState } from './kept';

/* What Spawn's sheet, pictures, jobs and queries have in common: each worked out once, here. */

type Now = Moment<SpawnState>;

const ground = memo((height: number): Surface => planeSurface([0, height, 0], [0, 1, 0])!);
/** The surface that bodies appear on: the flat world, or level ground at a height. */
export const surfaceOf = ({ flat, slice }: Pick<Now, 'flat' | 'slice'>): Surface =>
  flat ? flatSurface : ground(slice.height);

/** The camera as it was before it moved in the first frame; null where that leaves the doubles. */
const earlier = memo((frame: CameraFrame, way: Vec3, share: number): CameraFrame | null =>
  reposed(frame, { eye: addScaled(frame.eye, way, -share) }),
);
export function cameraBefore(now: Now): CameraFrame | null {
  const surface = surfaceOf(now);
  const [from, to] = [surface.at([0, 0]), surface.at(now.slice.first.moved)];
  return earlier(now.frame, way(...sub(to, from)), 1);
}
const way = memo((x: number, y: number, z: number): Vec3 => [x, y, z]);

/** Whether the first frame's events have bodies appear before the camera has moved. */
export const spawnsFirst = ({ first }: SpawnState): boolean => first.order.indexOf('spawn') < first.order.indexOf('camera'); // prettier-ignore

/** A region to appear in, by a camera. */
export interface Terms {
  readonly terms: SpawnTerms;
  /** The visible region without padding. Of one that reaches infinity, the part that any body can reach. */
  readonly seen: readonly Vec2[];
  /** The same for drawing: of a region that reaches infinity, the part within the bounds. */
  readonly drawn: readonly Vec2[];
  readonly middle: Vec2;
  readonly found: SpawnRegion | null;
  readonly taken: readonly TermTaken[];
}
export type NoTerms = 'footprintEmpty' | 'footprintUnbounded';

/** Returns the bounds as a box; null for a ring. */
function boundsOf({ region, min, max }: SpawnState): SurfaceBox | null {
  if (region === 'ring') return null;
  const side = (pick: (...values: number[]) => number): Vec2 => [pick(min[0], max[0]), pick(min[1], max[1])];
  return { min: side(Math.min), max: side(Math.max) };
}
const middleOf = ({ min, max }: SurfaceBox): Vec2 => [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];

/** Returns a box outside which nothing visible touches a body that appears within the bounds; null for a ring. */
export function reachableBox(kept: SpawnState): SurfaceBox | null {
  const bounds = boundsOf(kept);
  if (!bounds) return null;
  const size = Math.max(bounds.max[0] - bounds.min[0], bounds.max[1] - bounds.min[1]);
  const path = (kept.speed + length2(...kept.velocity) + length2(...kept.camera)) * kept.within;
  return expandBox(bounds, size + 2 * (path + kept.padding + kept.radius));
}

/** The terms as a camera has them, or why there is nothing to keep out of. */
export const termsBy = memo((frame: CameraFrame, surface: Surface, kept: SpawnState): Terms | NoTerms => {
  const bounds = boundsOf(kept);
  const within = reachableBox(kept);
  const seen = surface.visible(frame, within);
  if (typeof seen === 'string') return seen;
  const inPixels = kept.paddingUnit === 'pixels';
  const visible = inPixels ? surface.visible(grown(frame, kept.padding), within) : seen;
  if (typeof visible === 'string') return visible;
  const drawn = surface.visible(frame, bounds);
  if (typeof drawn === 'string' || (!drawn.length && kept.sector)) return 'footprintUnbounded';
  const middle = drawn.length ? areaAndCentroid(drawn).centroid : middleOf(bounds!);
  const heading = kept.sector?.heading ?? 0;
  const terms: SpawnTerms = {
    visible,
    clearance: inPixels ? kept.radius : kept.padding + kept.radius,
    bounds: bounds ?? { ringOuter: kept.ring },
    keepAway: kept.discs,
    ahead: kept.sector && {
      apex: middle,
      direction: [Math.sin(heading), Math.cos(heading)],
      halfAngle: kept.sector.half,
    },
  };
  const found = spawnRegion(terms);
  return { terms, seen, drawn, middle, found, taken: takenByTerm(terms, found) };
});

/** The region of the camera that is shown. */
export const termsNow = (now: Now): Terms | NoTerms => termsBy(now.frame, surfaceOf(now), now.slice);
/** The region that bodies appear in: by the camera of before, where they appear before it has moved. */
export const termsUsed = (now: Now): Terms | NoTerms => {
  const before = spawnsFirst(now.slice) ? cameraBefore(now) : (now.stale.spawns ?? null);
  return before ? termsBy(before, surfaceOf(now), now.slice) : termsNow(now);
};

/** The words of why there is no region. */
export const noTermsWords: Readonly<Record<NoTerms, string>> = {
  footprintEmpty:
    'The camera sees nothing of the ground, so there is nothing to keep out of. Turn it down, or move the ground.',
  footprintUnbounded:
    'The camera sees the ground to infinity: a ring around it has no end, and a sector begins at a part of it within bounds. Choose bounds that reach into view, bring far in, or look farther down.',
};

/** What the terms and the screens are, as numbers: the same while the camera alone moves. */
const termsCodes = memo((slice: SpawnState, flat: boolean, screens: Now['project']['screens']): Uint16Array =>
  Uint16Array.from(JSON.stringify([slice, flat, screens]), (c) => c.charCodeAt(0)),
);
/** Which lot of points an answer is of: the same number on any thread. */
export function spawnMark({ slice, frame, flat, project, stale, time }: Now): number {
  const { width, height } = frame.viewport;
  // Where the camera goes its own way what is found is of this moment.
  const then = slice.asItMoves ? time : 0;
  const codes = termsCodes(slice, flat, project.screens);
  return checksum(frame.view, stale.spawns?.view ?? [], frame.projection, [width, height, then], codes);
}
