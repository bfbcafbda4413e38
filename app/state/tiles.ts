import { rowsOf } from './tileRows';
import { onScreenAxis, tileEdges, type TileEdge } from '../../core/convert/scroll';
import type { Vec2 } from '../../core/math/vec3';
import { translationOf, flatCamera } from '../../formats/camera';
import { tileSide, type Tiles } from '../../formats/project';
import type { Moment } from './moment';

/** What a map says at a world point (right, up): null ashore, undefined beyond its edge. */
export function tileAt(tiles: Tiles, [right, up]: Vec2): number | null | undefined {
  const { corner, size, columns, values } = tiles;
  const [column, row] = [Math.floor((right - corner[0]) / size), Math.floor((up - corner[1]) / size)];
  return column >= 0 && column < columns && row >= 0 ? values[row * columns + column] : undefined;
}

/**
 * The edges of a 2D world's tiles (of a grid of the tile side where it has no map) along its right (0) or
 * up (1), and where the world's origin lands on that axis of the screen.
 */
export interface EdgesAlong {
  readonly edges: readonly TileEdge[];
  /**
   * The axis of the screen that they run along, and whether pixels grow with the canonical right or
   * up.
   */
  readonly screen: 0 | 1;
  readonly sense: 1 | -1;
  /** Where the origin lands free, and snapped: downward where nothing is snapped. */
  readonly free: number;
  readonly snapped: number;
  readonly rounding: 'floor' | 'round';
}

/**
 * The first `count` of them on the screen; null where the camera cannot be, or is turned by other
 * than quarters.
 */
export function edgesAlong(
  { project, codec: e, frame }: Pick<Moment, 'project' | 'codec' | 'frame'>,
  axis: 0 | 1,
  count: number,
): EdgesAlong | null {
  const camera = flatCamera(project);
  if (!(camera.zoom > 0) || camera.rotation % 90) return null;
  const { tiles, viewport } = project;
  const rounding = camera.snap === 'none' ? 'floor' : camera.snap;
  const of = (snap: typeof camera.snap) => translationOf({ ...project, camera: { ...camera, snap } }, e);
  const [free, snapped] = [of('none'), of(rounding)];
  if (!free || !snapped) return null;
  const turns = Math.round(camera.rotation / 90);
  const { screen, sense } = onScreenAxis((a, u) => e.toScreen(frame.viewport, a, u), turns, axis);
  const edges = tileEdges(
    {
      ...{ from: tiles?.corner[axis] ?? 0, size: tileSide(project), sense, zoom: camera.zoom },
      tiles: tiles ? (axis ? rowsOf(tiles) : tiles.columns) : Infinity,
      translation: free[screen],
      snapped: snapped[screen],
      length: screen ? viewport.height : viewport.width,
    },
    count,
  );
  return { edges, screen, sense, free: free[screen], snapped: snapped[screen], rounding };
}
