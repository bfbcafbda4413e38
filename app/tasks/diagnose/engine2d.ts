import { applyAffine, fitAffine, invertAffine, readAffine, type Affine2d } from '../../../core/request/affine2d';
import { mat4, type Mat4 } from '../../../core/math/mat4';
import type { Vec2 } from '../../../core/math/vec3';
import type { Given2dNumbers } from '../../../formats/pasted2d';
import type { Moment } from '../../state/moment';
import type { EngineSees } from './engine';
import type { DiagnoseState } from './kept';
import { reading2dNow } from './reading2d';

/** The mapping from the world's pairs to pixels that pasted numbers hold; null for none. */
function mappingOf({ worldToPixel, pixelToWorld, points = [] }: Given2dNumbers, byColumns: boolean): Affine2d | null {
  if (worldToPixel) return readAffine(worldToPixel, byColumns);
  const back = pixelToWorld && readAffine(pixelToWorld, byColumns);
  return back ? invertAffine(back) : fitAffine(points);
}

/** Returns a mapping to pixels as a matrix from canonical world to clip, y up. It is affine: three points give it. */
function clipOf(of: Affine2d, { codec, frame: { viewport } }: Moment<DiagnoseState>): Mat4 | null {
  const at = (right: number, up: number): Vec2 => codec.fromScreen(viewport, applyAffine(of, codec.toPair('up', [right, up]))); // prettier-ignore
  const [[ox, oy], [rx, ry], [ux, uy]] = [at(0, 0), at(1, 0), at(0, 1)];
  const values = [rx - ox, ux - ox, 0, ox, ry - oy, uy - oy, 0, oy, 0, 0, 0, 0, 0, 0, 0, 1];
  return values.every(Number.isFinite) ? mat4(values) : null;
}

/** Returns the picture of a 2D engine by the numbers that were pasted; null where there are none. */
export function engine2dOf(now: Moment<DiagnoseState>): EngineSees | null {
  const { given } = reading2dNow(now);
  if (!given || now.seen.problems.length) return null;
  const { codec: e } = now;
  const mapping = mappingOf(given, e.listsColumns);
  return {
    whole: mapping && clipOf(mapping, now),
    frame: null,
    points: (given.points ?? []).map(({ world, screen }) => {
      const [right, up] = e.fromPair('up', world);
      return { world: e.toWorld([right, up, 0]), screen, depth: null };
    }),
  };
}
