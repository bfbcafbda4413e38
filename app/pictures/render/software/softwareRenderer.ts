import type { CameraFrame } from '../../../../core/camera/frame';
import { Raster, type RasterArea } from '../../../../core/raster/raster';
import type { GpuLayer, Size } from '../../compose/contract';
import type { Palette } from '../../compose/palette';
import type { Picture } from '../../compose/picture';
import type { Scene } from '../../compose/scene';
import { planeSize } from '../layers/angles';
import { gpuMatrix, type Drawing } from '../layers/gl';
import { rankDepths } from '../rankDepths';
import { passesOf } from '../surfaces';
import { drawChart, drawGround } from './ground';
import { chooseEdges, drawBeyond, drawEdges, drawSegments, drawWater } from './lines';
import { drawFaces, drawField, drawInstances, drawPoints, drawSpecks, drawTriangles } from './surfaces';

/*
 * Draws the pictures without a GPU: in Node for files and reports, and in browsers without WebGL2. It follows
 * `renderer.ts` step by step.
 */

/** Places to a pixel that corners snap to: the fewest that GPUs have, and those of software GPUs. */
const subPixels = 16;

/** A drawn picture: red, green, blue and opacity of each pixel, row by row from the top. */
export interface Bitmap extends Size {
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/**
 * Draws pictures of a scene.
 *
 * @param size - the whole in pixels of the page
 * @param pixel - device pixels to a pixel of the page
 */
export function drawSoftware(
  scene: Scene,
  ground: { readonly gridStep: number },
  pictures: readonly Picture[],
  palette: Palette,
  size: Size,
  pixel: number,
): Bitmap {
  const raster = new Raster(
    Math.max(1, Math.round(size.width * pixel)),
    Math.max(1, Math.round(size.height * pixel)),
    subPixels,
  );
  raster.forEachPixel((at) => raster.put(at, ...palette.page));
  for (const picture of pictures) {
    const { rect } = picture;
    const [width, height] = [Math.round(rect.width * pixel), Math.round(rect.height * pixel)];
    if (width <= 0 || height <= 0) continue;
    const x = Math.round(rect.x * pixel);
    // Rounded from below, as a GPU counts its rows.
    const y = raster.height - Math.round((size.height - rect.y - rect.height) * pixel) - height;
    const area: RasterArea = { x, y, width, height };
    if (picture.span) {
      const plane = new Raster(...planeSize([width, height]), subPixels);
      drawPicture(plane, scene, ground.gridStep, picture, palette, (pixel * plane.width) / width);
      raster.setArea(area);
      bendToAngles(raster, plane, picture.frame, picture.span);
    } else {
      raster.setArea(area);
      drawPicture(raster, scene, ground.gridStep, picture, palette, pixel, [width, height]);
    }
  }
  return { width: raster.width, height: raster.height, data: raster.colours as Uint8ClampedArray<ArrayBuffer> };
}

function drawPicture(
  raster: Raster,
  scene: Scene,
  gridStep: number,
  picture: Picture,
  palette: Palette,
  pixel: number,
  size: readonly [number, number] = [raster.width, raster.height],
): void {
  scene.pose(picture.poses);
  const { origin } = scene;
  const { frame, emphasis, style } = picture;
  const order = picture.painting?.order ?? null;
  const d: Drawing = {
    ...{ picture, palette, origin, size, pixel, matrix: gpuMatrix(frame, origin), hair: gridStep / 500 },
    ground: picture.ground === null ? -1e30 : picture.ground - origin[1],
    ranks: order && rankDepths(order, scene),
  };
  raster.clearDepth();
  if (picture.flat) drawChart(raster, d, scene.images);
  else drawGround(raster, d, scene);
  if (style === 'main') drawWater(raster, d);
  const edges = chooseEdges(scene, d);
  for (const { family, dim } of passesOf(emphasis)) {
    if (family >= 0) raster.clearDepth();
    drawFaces(raster, d, scene, family, dim);
    drawEdges(raster, d, edges, family, dim);
  }
  for (const layer of picture.layers) if (layer.kind !== 'field') drawLayer(raster, d, layer);
  drawPoints(raster, d, scene);
  if (style === 'main' && frame.far !== null && !picture.flat) drawBeyond(raster, d, edges);
  for (const layer of picture.layers) if (layer.kind === 'field') drawLayer(raster, d, layer);
}

function drawLayer(raster: Raster, d: Drawing, layer: GpuLayer): void {
  switch (layer.kind) {
    case 'instances':
      return drawInstances(raster, d, layer);
    case 'specks':
      return drawSpecks(raster, d, layer);
    case 'triangles':
      return drawTriangles(raster, d, layer);
    case 'lines':
      return drawSegments(raster, d, layer);
    case 'field':
      return drawField(raster, d, layer);
  }
}

/** Draws a plane picture as one of equal angles, with bilinear samples. */
function bendToAngles(
  raster: Raster,
  plane: Raster,
  { extents: e, near }: CameraFrame,
  span: NonNullable<Picture['span']>,
): void {
  // prettier-ignore
  const [left, right, bottom, top] = [e.left, e.right, e.bottom, e.top].map((v) => v / near) as [number, number, number, number]; // prettier-ignore
  const { colours, width, height } = plane;
  const sample = (column: number, row: number, channel: number): number => {
    const x = Math.min(width - 1, Math.max(0, column));
    const y = Math.min(height - 1, Math.max(0, row));
    return colours[4 * (y * width + x) + channel]! / 255;
  };
  raster.forEachPixel((at, across, upward) => {
    const bearing = span.left + (span.right - span.left) * (across * 0.5 + 0.5);
    const elevation = span.bottom + (span.top - span.bottom) * (upward * 0.5 + 0.5);
    const u = ((Math.tan(bearing) - left) / (right - left)) * width - 0.5;
    const v = (1 - (Math.tan(elevation) / Math.cos(bearing) - bottom) / (top - bottom)) * height - 0.5;
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const [fx, fy] = [u - column, v - row];
    const channel = (k: number): number =>
      (sample(column, row, k) * (1 - fx) + sample(column + 1, row, k) * fx) * (1 - fy) +
      (sample(column, row + 1, k) * (1 - fx) + sample(column + 1, row + 1, k) * fx) * fy;
    raster.put(at, channel(0), channel(1), channel(2));
  });
}
