import type { CameraFrame } from '../../../../core/camera/frame';
import { niceBelow } from '../../../../core/math/nice';
import { sub } from '../../../../core/math/vec3';
import { horizonLine } from '../../../../core/order/horizon';
import type { Raster } from '../../../../core/raster/raster';
import type { Color } from '../../compose/palette';
import { texelAt, type ImageAtlas } from '../../compose/imageAtlas';
import type { Scene } from '../../compose/scene';
import { firstImageTone, landTone, outsideTone, tileTones } from '../../compose/tileTones';
import type { Drawing } from '../layers/gl';
import { clamp, fract } from './scalars';

/* Sky, water and maps in software: the counterpart of `layers/ground.ts` and its shaders. */

/** A colour that is mixed in place. */
class Mixed {
  red = 0;
  green = 0;
  blue = 0;
  set([r, g, b]: Color): void {
    [this.red, this.green, this.blue] = [r, g, b];
  }
  mix([r, g, b]: Color, share: number): void {
    this.red += (r - this.red) * share;
    this.green += (g - this.green) * share;
    this.blue += (b - this.blue) * share;
  }
}

/** Draws the map of a 2D world, or its bare grid. */
export function drawChart(raster: Raster, { picture, palette, size, pixel }: Drawing, atlas: ImageAtlas | null): void {
  const { frame, style, flat } = picture;
  const tiles = flat?.tiles ?? null;
  const { extents: e, eye, right, up } = frame;
  const [width, height] = [e.right - e.left, e.top - e.bottom];
  const [cornerX, cornerY] = tiles?.corner ?? [0, 0];
  const [middleX, middleY] = [eye[0] - cornerX, eye[1] - cornerY];
  const [rightX, rightY] = [(right[0] * width) / 2, (right[1] * width) / 2];
  const [upX, upY] = [(up[0] * height) / 2, (up[1] * height) / 2];
  const perPixel = height / size[1];
  const step = niceBelow(perPixel * pixel * (style === 'main' ? 40 : 30));
  const c = new Mixed();
  const [outside, land] = [outsideTone, landTone];
  const isImage = (tone: number): boolean => tone >= firstImageTone && tone < outside;
  const bands = tiles?.bands ?? [];
  const tones = tiles && tileTones(tiles, atlas);
  const columns = tiles?.columns ?? 0;
  const rows = tones ? tones.length / columns : 0;
  const toneAt = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= columns || y >= rows ? outside : tones![y * columns + x]!;
  const pixelsPerTile = (tiles?.size ?? 1) / perPixel;
  const fine = clamp(pixelsPerTile / pixel / 10 - 0.6, 0, 1) * 0.16;
  raster.forEachPixel((at, across, upward) => {
    const x = middleX + rightX * across + upX * upward;
    const y = middleY + rightY * across + upY * upward;
    if (!tones) {
      const line = (grid: number): number => {
        const [qx, qy] = [x, y].map((v) => (Math.abs(fract(v / grid - 0.5) - 0.5) * grid) / perPixel) as [
          number,
          number,
        ];
        return clamp(0.5 + 0.3 * pixel - Math.min(qx, qy), 0, 1);
      };
      c.set(palette.sky);
      c.mix(palette.rule, Math.max(line(step) * 0.45, line(5 * step)));
      return raster.put(at, c.red, c.green, c.blue);
    }
    const [qx, qy] = [x / tiles!.size, y / tiles!.size];
    const [cellX, cellY] = [Math.floor(qx), Math.floor(qy)];
    const here = toneAt(cellX, cellY);
    if (here === outside) c.set(palette.sky);
    else if (here === land) c.set(palette.tones[1]!);
    else {
      c.set(palette.water);
      c.mix(palette.grid, 0.085 * (bands.length - here));
    }
    const [fx, fy] = [qx - cellX, qy - cellY];
    for (let i = 0; i < 4; i++) {
      const there = toneAt(cellX + (i === 0 ? -1 : i === 1 ? 1 : 0), cellY + (i === 2 ? -1 : i === 3 ? 1 : 0));
      if (isImage(here) || isImage(there)) continue;
      const d = (i === 0 ? fx : i === 1 ? 1 - fx : i === 2 ? fy : 1 - fy) * pixelsPerTile;
      const isShore = (here === land) !== (there === land);
      const line = clamp(0.5 + (isShore ? 0.95 : 0.6) * pixel * 0.5 - d, 0, 1);
      const share = isShore ? 1 : here !== there ? 0.6 : here === outside ? 0 : fine;
      c.mix(isShore ? palette.ink : palette.grid, line * share);
    }
    if (isImage(here)) {
      const from = texelAt(atlas!, here - firstImageTone, fx, fy);
      const [red, green, blue, opacity] = atlas!.data.subarray(from, from + 4) as unknown as [number, number, number, number]; // prettier-ignore
      c.set(opacity < 128 ? palette.sky : [red / 255, green / 255, blue / 255]);
    }
    raster.put(at, c.red, c.green, c.blue);
  });
}

/** Returns how strongly a line of a grid shows at a point; `fw` is how far a pixel reaches on the ground. */
function gridLine(p: readonly number[], fw: readonly number[], step: number, width: number, pixel: number): number {
  let most = 0;
  for (const i of [0, 1] as const) {
    const q = (Math.abs(fract(p[i]! / step - 0.5) - 0.5) * step) / Math.max(fw[i]!, 1e-6);
    most = Math.max(most, clamp(0.5 + width * pixel * 0.5 - q, 0, 1) * Math.min(1, width * pixel));
  }
  return most * clamp(step / Math.max(fw[0]!, fw[1]!, 1e-6) / 6 - 0.5, 0, 1);
}

/** Draws sky, water to the horizon with its grid, and depth lines round bodies that stand in it. */
export function drawGround(raster: Raster, d: Drawing, scene: Scene): void {
  const { picture, palette, size, pixel, origin, hair } = d;
  const { frame, style } = picture;
  const hasGround = picture.ground !== null;
  const height = (picture.ground ?? 0) - origin[1];
  const far = style === 'main' && frame.far !== null ? frame.far : 1e30;
  const step = 500 * hair;
  const perPixel = (frame.extents.top - frame.extents.bottom) / size[1];
  const rayAt = rayOf(frame, origin, height);
  const line = horizonLine(frame, [0, 1, 0]);
  const slope = line ? Math.hypot((line.across * 2) / size[0], (line.upward * 2) / size[1]) || 1 : 1;
  const horizon = line ? [line.constant / slope, line.across / slope, line.upward / slope] : [1e6, 0, 0];
  const blocks = scene.footprints.slice(0, 16);
  const [dx, dy] = [2 / size[0], 2 / size[1]];
  const c = new Mixed();
  const point = [0, 0];
  const fw = [0, 0];
  const [here, besideX, besideY] = [new Float64Array(3), new Float64Array(3), new Float64Array(3)];
  raster.forEachPixel((at, across, upward, px, py) => {
    c.set(palette.sky);
    if (style === 'section') {
      const below = hasGround ? (height - rayAt(across, upward, here).originY) / perPixel : -1;
      if (below > 0) {
        c.set(palette.water);
        for (let i = 0, y = 3, stride = 2.4; i < 24; i++) {
          c.mix(palette.grid, 0.18 * clamp(pixel * 0.5 + 0.5 - Math.abs(below - y * pixel), 0, 1));
          stride += 0.85;
          y += stride;
        }
      }
      return raster.put(at, c.red, c.green, c.blue);
    }
    rayAt(across, upward, here);
    const t = hasGround ? here[2]! : -1;
    if (t > 0 && t < 1e7) {
      point[0] = here[0]! + origin[0];
      point[1] = here[1]! + origin[2];
      // Derivatives of a pair of pixels, as a GPU takes them.
      rayAt(across + (Math.floor(px) % 2 ? -dx : dx), upward, besideX);
      rayAt(across, upward + (Math.floor(py) % 2 ? -dy : dy), besideY);
      for (const i of [0, 1] as const) fw[i] = Math.abs(besideX[i]! - here[i]!) + Math.abs(besideY[i]! - here[i]!);
      c.set(t > far ? palette.beyond : palette.water);
      if (t <= far)
        c.mix(
          palette.grid,
          Math.max(gridLine(point, fw, step, 0.6, pixel) * 0.24, gridLine(point, fw, 5 * step, 0.6, pixel) * 0.42),
        );
      if (style === 'plan') {
        let distance = 1e9;
        for (const [x, z, halfX, halfZ, cosine, sine] of blocks as [number, number, number, number, number, number][]) {
          const [ox, oz] = [point[0]! - x, point[1]! - z];
          const ex = Math.abs(ox * cosine + oz * sine) - halfX;
          const ez = Math.abs(-ox * sine + oz * cosine) - halfZ;
          distance = Math.min(distance, Math.hypot(Math.max(ex, 0), Math.max(ez, 0)) + Math.min(Math.max(ex, ez), 0));
        }
        const off = distance / perPixel / pixel;
        if (off < 9.7 && off >= 0) c.set(palette.water);
        for (const [place, strength] of liningSteps)
          c.mix(palette.grid, strength * clamp(1 - Math.abs(off - place) * pixel, 0, 1));
      }
    } else if (hasGround) {
      const s = (horizon[0]! + horizon[1]! * across + horizon[2]! * upward) / pixel;
      for (let i = 0, y = 3.5, stride = 3; i < 9; i++) {
        c.mix(palette.rule, (0.62 - i * 0.06) * clamp(0.5 + 0.5 * pixel - Math.abs(s - y) * pixel, 0, 1));
        stride += 1.1;
        y += stride;
      }
    }
    raster.put(at, c.red, c.green, c.blue);
  });
}

/** Lines round what stands in the water: pixels from it, and strength. */
const liningSteps = [
  [1.6, 0.85],
  [3.5, 0.6],
  [6, 0.4],
  [9, 0.25],
] as const;

/**
 * Returns the ray of a pixel's NDC against the ground: writes x, z about the scene's origin and the distance
 * along the ray in units of ahead, and returns the height that the ray begins at.
 */
function rayOf(frame: CameraFrame, about: readonly [number, number, number], ground: number) {
  const { extents: e, right, up, forward, kind, near } = frame;
  const isPerspective = kind === 'perspective';
  const k = isPerspective ? 1 / near : 1;
  const [halfX, middleX] = [((e.right - e.left) / 2) * k, ((e.right + e.left) / 2) * k];
  const [halfY, middleY] = [((e.top - e.bottom) / 2) * k, ((e.top + e.bottom) / 2) * k];
  const eye = sub(frame.eye, about);
  const answer = { originY: 0 };
  return (across: number, upward: number, out: Float64Array): { readonly originY: number } => {
    const [a, b] = [halfX * across + middleX, halfY * upward + middleY];
    const [ox, oy, oz] = [right[0] * a + up[0] * b, right[1] * a + up[1] * b, right[2] * a + up[2] * b];
    const [px, py, pz] = isPerspective ? eye : [eye[0] + ox, eye[1] + oy, eye[2] + oz];
    const [vx, vy, vz] = isPerspective ? [forward[0] + ox, forward[1] + oy, forward[2] + oz] : forward;
    const t = (ground - py) / vy;
    out[0] = px + vx * t;
    out[1] = pz + vz * t;
    out[2] = t;
    answer.originY = py;
    return answer;
  };
}
