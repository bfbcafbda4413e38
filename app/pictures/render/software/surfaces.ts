import {
  type Fragment,
  type Raster,
  type RasterState,
  type Shader,
  withOwnDepth,
} from '../../../../core/raster/raster';
import { tintColor, type Color } from '../../compose/palette';
import type { FieldLayer, InstanceLayer, SpeckLayer, TriangleLayer } from '../../compose/contract';
import { texelAt } from '../../compose/imageAtlas';
import { facesInView } from '../../compose/visibleParts';
import { faceStride, transformStride, type Scene } from '../../compose/scene';
import { instanceCorners } from '../layers/instances';
import { eyeAbout, gazeAbout, gpuMatrix, type Drawing } from '../layers/gl';
import { clamp, mod } from './scalars';

/* Faces, instances, areas, fields, specks and points in software: the counterparts of `layers/` and their shaders. */

const opaque: RasterState = { hasDepthTest: true, writesDepth: true, isBlended: false };
export const blended: RasterState = { hasDepthTest: true, writesDepth: false, isBlended: true };

/** Which of four tones a lit surface has: 0 the lightest. */
const toneOf = (lit: number): number => (lit > 0.72 ? 0 : lit > 0.42 ? 1 : lit > 0.12 ? 2 : 3);

function setColour(f: Fragment, [r, g, b]: Color, opacity = 1): true {
  [f.red, f.green, f.blue, f.opacity] = [r, g, b, opacity];
  return true;
}
function mixColour(f: Fragment, [r, g, b]: Color, share: number): void {
  f.red += (r - f.red) * share;
  f.green += (g - f.green) * share;
  f.blue += (b - f.blue) * share;
}

/** Writes the clip position of a point by a matrix of columns. */
export function toClip(m: Float32Array, x: number, y: number, z: number, out: Float64Array): void {
  for (let row = 0; row < 4; row++) out[row] = m[row]! * x + m[4 + row]! * y + m[8 + row]! * z + m[12 + row]!;
}

const corners = [0, 1, 2].map(() => new Float64Array(16)) as [Float64Array, Float64Array, Float64Array];

/** Draws the faces of one family, or of all with −1, dimmed towards the paper by what `dim` is short of 1. */
export function drawFaces(raster: Raster, d: Drawing, scene: Scene, family: number, dim: number): void {
  facePass(raster, d, scene, family, dim, false);
  // Left-out faces, as far as they would be seen.
  if (d.picture.painting?.leftOut) facePass(raster, d, scene, family, dim, true);
}

function facePass(raster: Raster, d: Drawing, scene: Scene, family: number, dim: number, isGhost: boolean): void {
  const { picture, palette, ranks, pixel, matrix } = d;
  const { faces, transforms, images } = scene;
  const [ex, ey, ez, ew] = eyeAbout(picture, d.origin);
  const [lx, ly, lz] = picture.light;
  const { leftOut = null } = picture.painting ?? {};
  const isHatched = picture.style === 'main';
  const normal = new Float64Array(3);
  let [tone, tint, rank, left, image] = [0, 0, 0, 0, 0];
  const shade: Shader = (f) => {
    const [x, y, z] = f.varyings as unknown as [number, number, number];
    const [tx, ty, tz] = [ex - x * ew, ey - y * ew, ez - z * ew];
    if (y < d.ground && ty + (ew > 0.5 ? 0 : 1e-6) > 0) return false;
    const facing = normal[0]! * tx + normal[1]! * ty + normal[2]! * tz;
    if (picture.painting) {
      if (ranks) f.depth = rank;
      if ((left === (facing > 0 ? 1 : 2)) !== isGhost) return false;
      if (isGhost) {
        if (mod(((f.x + f.y) / pixel) * 0.7071, 5) > 1.1) return false;
        setColour(f, palette.plate);
        mixColour(f, palette.ink, 0.75 * dim);
        return true;
      }
    }
    const sign = facing < 0 ? -1 : 1;
    const lit = sign * (normal[0]! * lx + normal[1]! * ly + normal[2]! * lz);
    const shadeOf = toneOf(lit);
    setColour(f, tint > 0 ? palette.tintTones[4 * tint + shadeOf]! : palette.tones[4 * tone + shadeOf]!);
    if (image > 0) {
      const from = texelAt(images!, image - 1, f.varyings[3]!, f.varyings[4]!);
      const [red, green, blue, opacity] = images!.data.subarray(from, from + 4) as unknown as [number, number, number, number]; // prettier-ignore
      if (opacity < 128) return false;
      const tinted: Color = [f.red, f.green, f.blue];
      setColour(f, [red / 255, green / 255, blue / 255]);
      if (tint > 0) mixColour(f, tinted, 0.6);
    } else if (isHatched && shadeOf === 3 && (tone < 2 || tint > 0)) {
      const s = mod((f.x * -0.6157 + f.y * 0.788) / pixel, 3);
      mixColour(f, palette.ink, (0.4 * clamp(0.8 - Math.abs(s - 1.5), 0, 0.6)) / 0.6);
    }
    if (dim < 1) {
      const [r, g, b] = [f.red, f.green, f.blue];
      setColour(f, palette.plate);
      mixColour(f, [r, g, b], dim);
    }
    return true;
  };
  const shader = picture.painting && ranks ? withOwnDepth(shade) : shade;
  const state = isGhost ? { ...opaque, writesDepth: false } : opaque;
  for (const triangle of trianglesInView(scene, matrix)) {
    const i = 3 * faceStride * triangle;
    if (family >= 0 && faces[i + 7] !== family) continue;
    const body = faces[i + 8]!;
    const m = body * transformStride;
    [tone, tint, left] = [faces[i + 6]!, picture.tints?.[body] ?? 0, leftOut?.[body] ?? 0];
    if (ranks) rank = ranks.triangles[triangle]!;
    image = transforms[m + 14]!;
    for (let k = 0; k < 3; k++) {
      const at = i + k * faceStride;
      const [px, py, pz] = [faces[at]!, faces[at + 1]!, faces[at + 2]!];
      const row = (r: number) =>
        transforms[m + 4 * r]! * px + transforms[m + 4 * r + 1]! * py + transforms[m + 4 * r + 2]! * pz + transforms[m + 4 * r + 3]!; // prettier-ignore
      const [x, y] = [row(0), row(1)];
      const z = transforms[m + 12]! > 0.5 ? transforms[m + 13]! : row(2);
      toClip(matrix, x, y, z, corners[k]!);
      // Sprites are quads of side 1 about their middle.
      corners[k]!.set([x, y, z, px + 0.5, py + 0.5], 4);
    }
    transformNormal(transforms, m, faces, i + 3, normal);
    raster.triangle(...corners, image > 0 ? 5 : 3, state, shader);
  }
}

/** Yields the numbers of the triangles that a picture may show. */
function* trianglesInView(scene: Scene, matrix: Float32Array): Generator<number> {
  const ranges = facesInView(scene, matrix);
  for (let i = 0; i < ranges.length; i += 2)
    for (let t = ranges[i]! / 3; t < (ranges[i]! + ranges[i + 1]!) / 3; t++) yield t;
}

/** Writes a normal by the cofactors of a body's transform: a normal is a covector. */
function transformNormal(t: Float32Array, m: number, from: Float32Array, at: number, out: Float64Array): void {
  const [a, b, c] = [t[m]!, t[m + 1]!, t[m + 2]!];
  const [d, e, f] = [t[m + 4]!, t[m + 5]!, t[m + 6]!];
  const [g, h, i] = [t[m + 8]!, t[m + 9]!, t[m + 10]!];
  const [x, y, z] = [from[at]!, from[at + 1]!, from[at + 2]!];
  out[0] = (e * i - f * h) * x + (f * g - d * i) * y + (d * h - e * g) * z;
  out[1] = (h * c - i * b) * x + (i * a - g * c) * y + (g * b - h * a) * z;
  out[2] = (b * f - c * e) * x + (c * d - a * f) * y + (a * e - b * d) * z;
  const size = Math.hypot(out[0], out[1], out[2]) || 1;
  for (let k = 0; k < 3; k++) out[k]! /= size;
}

/** Draws many like bodies, each with its transform and tint. */
export function drawInstances(raster: Raster, { picture, palette }: Drawing, layer: InstanceLayer): void {
  const { places, indices } = instanceCorners(layer.shape);
  const matrix = gpuMatrix(picture.frame, layer.origin);
  const [ex, ey, ez, ew] = eyeAbout(picture, layer.origin);
  const [lx, ly, lz] = picture.light;
  let colour: Color = [0, 0, 0];
  const shader: Shader = (f) => setColour(f, colour);
  const worlds = new Float64Array(3 * places.length);
  for (let one = 0; one < layer.transforms.length / 12; one++) {
    const m = 12 * one;
    const t = layer.transforms;
    places.forEach(([x, y, z], i) => {
      for (let row = 0; row < 3; row++)
        worlds[3 * i + row] = t[m + 4 * row]! * x + t[m + 4 * row + 1]! * y + t[m + 4 * row + 2]! * z + t[m + 4 * row + 3]!; // prettier-ignore
    });
    for (let i = 0; i < indices.length; i += 3) {
      const at = [0, 1, 2].map((k) => 3 * indices[i + k]!) as [number, number, number];
      const [ax, ay, az] = [worlds[at[0]]!, worlds[at[0] + 1]!, worlds[at[0] + 2]!];
      const [ux, uy, uz] = [worlds[at[1]]! - ax, worlds[at[1] + 1]! - ay, worlds[at[1] + 2]! - az];
      const [vx, vy, vz] = [worlds[at[2]]! - ax, worlds[at[2] + 1]! - ay, worlds[at[2] + 2]! - az];
      const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
      const size = Math.hypot(nx, ny, nz) || 1;
      const facing = nx * (ex - ax * ew) + ny * (ey - ay * ew) + nz * (ez - az * ew);
      const lit = layer.shape === 'cross' ? -1 : ((facing < 0 ? -1 : 1) * (nx * lx + ny * ly + nz * lz)) / size;
      colour = palette.tintTones[4 * layer.tints[one]! + toneOf(lit)]!;
      at.forEach((from, k) => toClip(matrix, worlds[from]!, worlds[from + 1]!, worlds[from + 2]!, corners[k]!));
      raster.triangle(...corners, 0, opaque, shader);
    }
  }
}

/** Draws areas of one tint. */
export function drawTriangles(raster: Raster, { picture, palette, pixel }: Drawing, layer: TriangleLayer): void {
  const { positions, tint, opacity = 0.3, hatch = false, union = false, solid = false, onto = false } = layer;
  const matrix = gpuMatrix(picture.frame, layer.origin);
  const nearer = solid ? 0 : onto ? 0.0001 : 0.0004;
  const colour = tintColor(palette, tint);
  const shader: Shader = (f) => {
    const s = mod((f.x * -0.6157 + f.y * 0.788) / pixel, 5);
    return setColour(f, colour, hatch ? opacity * clamp(1.2 - Math.abs(s - 2.5), 0, 1) : opacity);
  };
  if (union) raster.clearOnce();
  const state = { ...blended, writesDepth: solid, isOnce: union };
  for (let i = 0; i + 9 <= positions.length; i += 9) {
    for (let k = 0; k < 3; k++) {
      const at = i + 3 * k;
      toClip(matrix, positions[at]!, positions[at + 1]!, positions[at + 2]!, corners[k]!);
      corners[k]![2]! -= nearer * corners[k]![3]!;
    }
    raster.triangle(...corners, 0, state, shader);
  }
}

/** Draws a value for every cell of a grid over the picture, in the tint of its step. */
export function drawField(raster: Raster, { palette, pixel }: Drawing, layer: FieldLayer): void {
  const { values, size, steps, scale, opacity = 0.5, hatch = false } = layer;
  const colours = scale.map((tint) => (tint === 'none' ? null : tintColor(palette, tint)));
  raster.forEachPixel((at, across, upward, x, y) => {
    const column = Math.min(size.width - 1, Math.floor((across * 0.5 + 0.5) * size.width));
    const row = Math.min(size.height - 1, Math.floor((0.5 - upward * 0.5) * size.height));
    const value = values[row * size.width + column]!;
    if (Number.isNaN(value)) return;
    const colour = colours[Math.min(steps.filter((limit) => value >= limit).length, colours.length - 1)];
    if (!colour) return;
    const s = Math.abs(mod(((y - x) / pixel) * 0.7071, 5) - 2.5);
    const share = hatch ? 0.35 + 0.65 * clamp(1.3 - s, 0, 1) : 1;
    raster.put(at, ...colour, opacity * share);
  });
}

/** Draws a square on the screen about a clip position, as a GPU draws a point: `shader` gets −0.5…0.5 in varyings. */
function drawSquare(
  raster: Raster,
  clip: Float64Array,
  pixels: number,
  size: readonly [number, number],
  state: RasterState,
  shader: Shader,
): void {
  // prettier-ignore
  const w = clip[3]!;
  if (!(w > 0) || Math.abs(clip[2]!) > w) return;
  const [halfX, halfY] = [(pixels / size[0]) * w, (pixels / size[1]) * w];
  // A GPU snaps a point's middle, not its corners.
  const exact = { ...state, isExact: true };
  const [x, y] = [0, 1].map((i) => {
    const steps = (16 * size[i as 0 | 1]) / 2;
    return (Math.round((clip[i]! / w) * steps) / steps) * w;
  }) as [number, number];
  const corner = (k: 0 | 1 | 2, sx: number, sy: number): void =>
    corners[k].set([x + sx * halfX, y + sy * halfY, clip[2]!, w, sx / 2, -sy / 2]);
  corner(0, -1, -1);
  corner(1, 1, -1);
  corner(2, 1, 1);
  raster.triangle(...corners, 2, exact, shader);
  corner(1, 1, 1);
  corner(2, -1, 1);
  raster.triangle(...corners, 2, exact, shader);
}

/** Draws discs or squares that face the viewer, none smaller than a pixel. */
export function drawSpecks(raster: Raster, d: Drawing, layer: SpeckLayer): void {
  const { picture, palette, size, pixel } = d;
  const { frame, style } = picture;
  const { extents: e, kind, near } = frame;
  const matrix = gpuMatrix(frame, layer.origin);
  const places = layer.places();
  const perPixel = Math.abs(e.top - e.bottom) / (kind === 'perspective' ? near : 1) / size[1];
  const least = 0.8 * pixel * (style === 'main' ? 1 : 1.5);
  const clip = new Float64Array(4);
  let [tint, wide] = [0, 0];
  const shader: Shader = (f) => {
    const [x, y] = [2 * f.varyings[0]!, -2 * f.varyings[1]!];
    let tone = 1;
    if (layer.round && wide > 3) {
      const square = x * x + y * y;
      if (square > 1) return false;
      tone = toneOf(-0.46 * x + 0.7 * y + 0.55 * Math.sqrt(1 - square));
    }
    return setColour(f, palette.tintTones[4 * tint + tone]!);
  };
  for (let i = 0; i < places.length; i += 4) {
    toClip(matrix, places[i]!, places[i + 1]!, places[i + 2]!, clip);
    const w = clip[3]!;
    const radius = Math.max(places[i + 3]!, least * perPixel * w);
    wide = (2 * radius) / (perPixel * w);
    tint = layer.tints?.[i / 4] ?? 0;
    // In a drawing, seen specks lie over unseen ones.
    if (style !== 'main' && (tint === 1 || tint === 2)) clip[2] = -0.99 * w;
    drawSquare(raster, clip, wide, size, opaque, shader);
  }
}

/** Draws points as upright crosses of one size. */
export function drawPoints(
  raster: Raster,
  { picture, palette, size, pixel, matrix, origin }: Drawing,
  scene: Scene,
): void {
  // prettier-ignore
  const { frame, style } = picture;
  const { points } = scene;
  const count = points.length / 3;
  const [gx, gy, gz, gw] = gazeAbout(frame, origin);
  const wide = (style === 'main' ? 9 : 6) * (count > 5000 ? 0.6 : count > 300 ? 0.75 : 1) * pixel;
  const clip = new Float64Array(4);
  const shader: Shader = (f) => {
    const [qx, qy] = [Math.abs(f.varyings[0]!) * wide, Math.abs(f.varyings[1]!) * wide];
    const [off, along, room] = [Math.min(qx, qy), Math.max(qx, qy), wide * 0.5 - pixel];
    const line = clamp(0.5 + 0.6 * pixel - off, 0, 1) * clamp(0.5 + room - along, 0, 1);
    const edge = clamp(0.5 + 1.4 * pixel - off, 0, 1);
    setColour(f, palette.plate, Math.max(line, 0.7 * edge));
    mixColour(f, palette.ink, line);
    return true;
  };
  for (let i = 0; i < points.length; i += 3) {
    const [x, y, z] = [points[i]!, points[i + 1]!, points[i + 2]!];
    if (gx * x + gy * y + gz * z + gw > (frame.far ?? 1e30)) continue;
    toClip(matrix, x, y, z, clip);
    clip[2]! -= 0.0008 * clip[3]!;
    drawSquare(raster, clip, wide, size, blended, shader);
  }
}
