import type { Vec2 } from '../math/vec3';

/**
 * Where right and upward of the picture point as a quarter turn after another takes each to the
 * next.
 */
const quarterWays: readonly Vec2[] = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
];

/**
 * Which axis of the screen the canonical right (axis 0) or up (axis 1) of a flat world turned
 * counter-clockwise by `quarters` of a turn runs along, and whether pixels grow (1) or fall (−1)
 * with it. `toScreen` takes a picture position (across, upward) to the screen of the conventions.
 */
export function onScreenAxis(
  toScreen: (across: number, upward: number) => Vec2,
  quarters: number,
  axis: 0 | 1,
): { screen: 0 | 1; sense: 1 | -1 } {
  const [o, p] = [toScreen(0, 0), toScreen(...quarterWays[(((quarters + axis) % 4) + 4) % 4]!)];
  const [x, y] = [p[0] - o[0], p[1] - o[1]];
  const screen = Math.abs(x) > Math.abs(y) ? 0 : 1;
  return { screen, sense: (screen ? y : x) > 0 ? 1 : -1 };
}

/** One axis of a map of tiles on a screen: pixel = sense·zoom·p + translation. */
export interface ScrolledAxis {
  /** Where the map begins, in world units. */
  readonly from: number;
  /** The side of a tile in world units. */
  readonly size: number;
  /** How many tiles there are; Infinity for a grid without end. */
  readonly tiles: number;
  readonly zoom: number;
  /** Where the world's origin lands, in pixels, and where after snapping. */
  readonly translation: number;
  readonly snapped: number;
  /** Pixels of the screen along the axis. */
  readonly length: number;
  /** 1 where pixels grow with the world's numbers, −1 where they fall. */
  readonly sense: 1 | -1;
}

/** An edge between two tiles on the screen. */
export interface TileEdge {
  /** In world units. */
  readonly at: number;
  readonly pixel: number;
  readonly snappedPixel: number;
  /** Whether it lands between pixels, which is where seams and shimmer come from. */
  readonly between: boolean;
  readonly snappedBetween: boolean;
}

const whole = (v: number) => Math.abs(v - Math.round(v)) < 1e-6;

/**
 * The first `count` edges of a map that lie on the screen, in the order of their pixels. The zoom
 * and the size must be above 0.
 */
export function tileEdges(axis: ScrolledAxis, count: number): TileEdge[] {
  const { from, size, tiles, zoom, translation, snapped, length, sense } = axis;
  const step = sense * zoom * size;
  // Edge k lands on sense·zoom·(from + k·size) + translation.
  const zero = sense * zoom * from + translation;
  const first = Math.max(0, Math.ceil(((sense > 0 ? 0 : length) - zero) / step - 1e-9));
  const last = Math.min(tiles, Math.floor(((sense > 0 ? length : 0) - zero) / step + 1e-9));
  const edges: TileEdge[] = [];
  for (let i = 0; i < count; i++) {
    const k = sense > 0 ? first + i : last - i;
    if (k < first || k > last) break;
    const at = from + k * size;
    const pixel = sense * zoom * at + translation;
    const snappedPixel = sense * zoom * at + snapped;
    edges.push({ at, pixel, snappedPixel, between: !whole(pixel), snappedBetween: !whole(snappedPixel) });
  }
  return edges;
}
