import type { PlacedBody } from '../../../core/bodies/body';
import type { CameraFrame } from '../../../core/camera/frame';
import { paint, paintFaults, paintOrder, worldTriangles, type PaintedUnit } from '../../../core/order/paint';
import type { SortKey } from '../../../core/order/drawOrder';
import type { JobModule, JobSpec } from '../../state/jobs';
import { leftOutOf, sortKeyOf } from './followed';
import { paintedMark } from './painted';
import type { OrderState } from './kept';

interface Asked {
  /** What picture it is of, on any thread. */
  readonly mark: number;
  readonly frame: CameraFrame;
  readonly placed: ReadonlyMap<string, PlacedBody>;
  readonly flat: boolean;
  /** For each body of a 2D world its place among those that cover one another; null for that of the list. */
  readonly ranks: Int32Array | null;
  readonly key: SortKey;
  readonly unit: PaintedUnit;
  readonly leftOut: Uint8Array | null;
}

/** What painting in an order gets wrong, pixel by pixel. */
export interface Painted {
  readonly mark: number;
  readonly width: number;
  readonly height: number;
  /** How many pixels of the viewport each of these stands for. */
  readonly each: number;
  /** 1 where it is wrong, not a number elsewhere. */
  readonly wrong: Float32Array;
  /** In pixels of the viewport. */
  readonly count: number;
  readonly covered: number;
  readonly pairs: readonly { readonly over: string; readonly hidden: string; readonly pixels: number }[];
}

/** The most pixels that are looked at: a larger viewport is looked at more coarsely, and that is said. */
const mostPixels = 2 ** 21;
const mostPairs = 500;

const painted: JobSpec<OrderState, Asked, Painted> = {
  says: 'Painting without a depth buffer',
  input: (now) => {
    const { slice, frame, placed, flat, poses } = now;
    if (slice.paint === 'depth') return null;
    return {
      ...{ mark: paintedMark(now), frame, placed, flat, key: sortKeyOf(slice.key), unit: slice.paint },
      ranks: poses.ranks ?? null,
      leftOut: leftOutOf(now),
    };
  },
  run: async ({ mark, frame, placed: map, flat, ranks, key, unit, leftOut }, control) => {
    const placed = [...map.values()];
    const triangles = worldTriangles(placed, flat);
    const { width: wide, height: high } = frame.viewport;
    const k = Math.min(1, Math.sqrt(mostPixels / (wide * high)));
    const [width, height] = [Math.max(1, Math.round(wide * k)), Math.max(1, Math.round(high * k))];
    await control.breathe();
    const order = paintOrder(frame, placed, triangles, key, unit);
    await control.breathe();
    const size = { width, height, leftOut };
    // In a 2D world the order of the project is right.
    const listed = Int32Array.from(triangles.body.keys());
    const rankOf = (triangle: number): number => ranks![triangles.body[triangle]!]!;
    const byLayers = !flat ? null : ranks ? listed.sort((a, b) => rankOf(a) - rankOf(b)) : listed;
    const right = paint(frame, triangles, { ...size, order: byLayers, onProgress: (share) => control.progress(share / 2) }); // prettier-ignore
    await control.breathe();
    const shown = paint(frame, triangles, { ...size, order, onProgress: (share) => control.progress(0.5 + share / 2) });
    await control.breathe();
    const { wrong, count, pairs } = paintFaults(shown, right, triangles, flat);
    const each = (wide * high) / (width * height);
    const id = (body: number) => placed[body]!.body.id;
    return {
      ...{ mark, width, height, each },
      wrong: Float32Array.from(wrong, (v) => (v ? 1 : NaN)),
      count: Math.round(count * each),
      covered: Math.round(right.triangle.reduce((sum, v) => sum + (v < 0 ? 0 : 1), 0) * each),
      pairs: pairs.slice(0, mostPairs).map(({ over, hidden, pixels }) => ({
        ...{ over: id(over), hidden: id(hidden), pixels: Math.round(pixels * each) },
      })),
    };
  },
};

export const jobs: JobModule['jobs'] = { painted };
