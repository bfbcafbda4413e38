import { withOwnDepth, type Raster, type Shader } from '../../../../core/raster/raster';
import type { Vec3 } from '../../../../core/math/vec3';
import type { LineLayer } from '../../compose/contract';
import { tintColor, type Color } from '../../compose/palette';
import { lineMargin, linesInView } from '../../compose/visibleParts';
import { drawnEdges, drawnStride, type Scene } from '../../compose/scene';
import { waterStrokes } from '../layers/edges';
import { eyeAbout, gazeAbout, gpuMatrix, type Drawing } from '../layers/gl';
import { blended, toClip } from './surfaces';
import { clamp, mod } from './scalars';

/* Lines of a width in software: the counterparts of `layers/edges.ts` and `layers/segments.ts`. */

const ends = [new Float64Array(4), new Float64Array(4)] as const;
const quad = [0, 1, 2, 3].map(() => new Float64Array(16)) as [Float64Array, Float64Array, Float64Array, Float64Array];

/** A line between two points, ready to be drawn. */
interface Line {
  readonly a: readonly number[];
  readonly b: readonly number[];
  /** Device pixels from the middle to where its coverage ends. */
  readonly half: number;
  /** How far it extends past its ends, in device pixels. */
  readonly cap: number;
  /** Subtracted from depth, in units of w. */
  readonly nearer: number;
  /** Depth in units of w, instead of the line's own. */
  readonly depth: number | null;
}

/** Draws a line as a quad with the varyings side, along, and x, y, z of the point. */
function drawLine(
  raster: Raster,
  matrix: Float32Array,
  size: readonly [number, number],
  line: Line,
  shader: Shader,
): void {
  // prettier-ignore
  const { a, b, half, cap, nearer, depth } = line;
  const [ca, cb] = ends;
  toClip(matrix, a[0]!, a[1]!, a[2]!, ca);
  toClip(matrix, b[0]!, b[1]!, b[2]!, cb);
  const [dx, dy] = [0, 1].map((i) => ((cb[i]! / cb[3]! - ca[i]! / ca[3]!) * size[i as 0 | 1]) / 2) as [number, number];
  const length = Math.hypot(dx, dy);
  const [ux, uy] = length > 1e-4 ? [dx / length, dy / length] : [1, 0];
  quad.forEach((corner, i) => {
    const end = i % 2;
    const side = (i < 2 ? -1 : 1) * half;
    const clip = end ? cb : ca;
    const w = clip[3]!;
    const past = end ? cap : -cap;
    corner[0] = clip[0]! + ((-uy * side + ux * past) / (size[0] / 2)) * w;
    corner[1] = clip[1]! + ((ux * side + uy * past) / (size[1] / 2)) * w;
    corner[2] = depth === null ? clip[2]! - nearer * w : depth * w;
    corner[3] = w;
    corner[4] = side;
    corner[5] = end * length;
    const p = end ? b : a;
    for (let k = 0; k < 3; k++) corner[6 + k] = p[k]!;
  });
  raster.triangle(quad[0], quad[1], quad[2], 5, blended, shader);
  raster.triangle(quad[2], quad[1], quad[3], 5, blended, shader);
}

const mixed = (a: readonly number[], b: readonly number[], t: number): number[] => a.map((v, i) => v + (b[i]! - v) * t);

/** Cuts a line at the near plane; null where nothing is left. `ahead` is measured from near. */
function cutAtNear(
  a: readonly number[],
  b: readonly number[],
  ahead: (p: readonly number[]) => number,
): readonly [readonly number[], readonly number[]] | null {
  // prettier-ignore
  const [na, nb] = [ahead(a), ahead(b)];
  if (na <= 0 && nb <= 0) return null;
  if (na <= 0) return [mixed(a, b, (1e-4 - na) / (nb - na)), b];
  if (nb <= 0) return [a, mixed(b, a, (1e-4 - nb) / (na - nb))];
  return [a, b];
}

/** What lines of bodies are drawn for. */
type EdgeKind = 'edges' | 'beyond' | 'water';

interface EdgeDrawing {
  readonly kind: EdgeKind;
  readonly colour: Color;
  readonly opacity: number;
  /** Of silhouettes and creases, in pixels of the page. */
  readonly widths: readonly [number, number];
  readonly family: number;
  readonly lines: Float32Array;
  readonly matrix: Float32Array;
  readonly origin: Vec3;
}

function drawEdgeLines(raster: Raster, d: Drawing, o: EdgeDrawing): void {
  const { picture, pixel, size, hair, ranks } = d;
  const { frame } = picture;
  const { lines, kind, colour, family } = o;
  const eye = eyeAbout(picture, o.origin);
  const isPerspective = eye[3] > 0.5;
  const [gx, gy, gz, gw] = gazeAbout(frame, o.origin);
  const aheadOf = (p: readonly number[]) => gx * p[0]! + gy * p[1]! + gz * p[2]! + gw;
  const far = frame.far ?? 1e30;
  const ground = d.ground - hair;
  const lift = picture.flat ? picture.flat.step / 2 : 6 * hair;
  const unit = 50 * hair;
  const byRank = ranks !== null && kind === 'edges';
  let [half, alpha, rank] = [1, 1, 0];
  const shade: Shader = (f) => {
    const [side, along, x, y, z] = f.varyings as unknown as [number, number, number, number, number];
    if (byRank) f.depth = rank;
    const ahead = gx * x + gy * y + gz * z + gw;
    if (kind === 'beyond') {
      if (ahead < far || mod(along / pixel, 4) > 1.5) return false;
    } else if (ahead > far) return false;
    if (kind !== 'water' && y < ground && (isPerspective ? eye[1] - y : eye[1]) > 0) return false;
    [f.red, f.green, f.blue] = colour;
    f.opacity = clamp(half - Math.abs(side), 0, 1) * alpha * o.opacity;
    return f.opacity > 0;
  };
  const shader = byRank ? withOwnDepth(shade) : shade;
  for (let i = 0; i < lines.length; i += drawnStride) {
    let a: readonly number[] = [lines[i]!, lines[i + 1]!, lines[i + 2]!];
    let b: readonly number[] = [lines[i + 3]!, lines[i + 4]!, lines[i + 5]!];
    const isSilhouette = lines[i + 6]! > 0.5;
    let width = o.widths[isSilhouette ? 0 : 1];
    if (kind === 'water') {
      const half = lines[i + 3]! * (0.3 * unit + 0.16 * Math.sqrt(Math.max(aheadOf(a), 0) * unit));
      const { right } = frame;
      b = a.map((v, k) => v + right[k]! * half);
      a = a.map((v, k) => v - right[k]! * half);
      width = o.widths[0];
    } else if ((family >= 0 && lines[i + 7] !== family) || (kind === 'beyond' && !isSilhouette)) continue;
    // A hair nearer to the eye than the faces they bound, at the same place of the picture.
    if (isPerspective) [a, b] = [mixed(a, eye.slice(0, 3), 0.0016), mixed(b, eye.slice(0, 3), 0.0016)];
    else [a, b] = [a.map((v, k) => v + eye[k]! * lift), b.map((v, k) => v + eye[k]! * lift)];
    const cut = isPerspective ? cutAtNear(a, b, (p) => aheadOf(p) - frame.near) : ([a, b] as const);
    if (!cut) continue;
    alpha = Math.min(1, width * pixel);
    half = Math.max(width * pixel, 1) * 0.5 + 0.5;
    rank = lines[i + 8]!;
    const depth = kind === 'beyond' ? 0.999999 : null;
    drawLine(raster, o.matrix, size, { a: cut[0], b: cut[1], half, cap: 0.4, nearer: 0, depth }, shader);
  }
}

/** Returns the edges that a picture shows. */
export const chooseEdges = (scene: Scene, { picture, origin, ranks, matrix, pixel, size }: Drawing): Float32Array =>
  linesInView(drawnEdges(scene.edges, eyeAbout(picture, origin), ranks?.bodies), matrix, lineMargin(pixel, size));

/** Draws the outlines and creases of one family, or of all with −1. */
export function drawEdges(raster: Raster, d: Drawing, lines: Float32Array, family: number, opacity: number): void {
  drawEdgeLines(raster, d, {
    ...{ kind: 'edges', colour: d.palette.ink, opacity, family, lines, matrix: d.matrix, origin: d.origin },
    widths: d.picture.style === 'main' ? [0.95, 0.45] : [0.75, 0.35],
  });
}

/** Draws strokes on the water. */
export function drawWater(raster: Raster, d: Drawing): void {
  const { ground, frame } = d.picture;
  if (ground === null) return;
  const origin: Vec3 = [0, ground, 0];
  drawEdgeLines(raster, d, {
    ...{ kind: 'water', colour: d.palette.teal, opacity: 0.3, widths: [1, 1], family: -1, origin },
    ...{ lines: waterStrokes(d.hair), matrix: gpuMatrix(frame, origin) },
  });
}

/** Draws the outlines beyond the far limit, dotted. */
export function drawBeyond(raster: Raster, d: Drawing, lines: Float32Array): void {
  drawEdgeLines(raster, d, {
    ...{ kind: 'beyond', colour: d.palette.ink2, opacity: 1, widths: [0.9, 0], family: -1, lines, origin: d.origin },
    matrix: gpuMatrix(d.picture.frame, d.origin, true),
  });
}

/** Draws the segments of a task's layer. */
export function drawSegments(raster: Raster, { picture, palette, pixel, size }: Drawing, layer: LineLayer): void {
  const { segments, origin, tint, width = 1, dash = false } = layer;
  const { frame } = picture;
  const matrix = gpuMatrix(frame, origin);
  const [gx, gy, gz, gw] = gazeAbout(frame, origin);
  const [red, green, blue] = tintColor(palette, tint);
  const half = Math.max(width * pixel, 1) * 0.5 + 0.5;
  const shader: Shader = (f) => {
    if (dash && mod(f.varyings[1]! / pixel, 8) > 5) return false;
    [f.red, f.green, f.blue] = [red, green, blue];
    f.opacity = clamp(half - Math.abs(f.varyings[0]!), 0, 1);
    return f.opacity > 0;
  };
  for (let i = 0; i + 6 <= segments.length; i += 6) {
    const [a, b] = [[...segments.subarray(i, i + 3)], [...segments.subarray(i + 3, i + 6)]];
    const ahead = (p: readonly number[]) => gx * p[0]! + gy * p[1]! + gz * p[2]! + gw - frame.near;
    const cut = frame.kind === 'perspective' ? cutAtNear(a, b, ahead) : ([a, b] as const);
    if (cut)
      drawLine(raster, matrix, size, { a: cut[0], b: cut[1], half, cap: 0, nearer: 0.0006, depth: null }, shader);
  }
}
