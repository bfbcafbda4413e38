import { drawnMesh } from '../bodies/mesh';
import type { PlacedBody } from '../bodies/body';
import { viewRufPlanes, type CameraFrame } from '../camera/frame';
import { viewRufToClip, worldToViewRuf } from '../convert/project';
import { distance, dot, sub, type Vec3 } from '../math/vec3';
import { drawOrder, type SortKey } from './drawOrder';

/*
 * Painting without a depth buffer, and what comes of it: triangles over one another in an order,
 * beside the same triangles by their distances, pixel by pixel.
 */

/** The triangles that bodies are drawn with, in the world, one body after another. */
export interface WorldTriangles {
  readonly count: number;
  /** Nine numbers a triangle: its corners, counter-clockwise from outside unless it is mirrored. */
  readonly corners: Float64Array;
  /** Which body of the list each is of. */
  readonly body: Int32Array;
}

/**
 * The triangles of placed bodies in canonical world space, in the order of the bodies and of their
 * meshes (`drawnMesh`); `flat` leaves out the extent ahead. Balls are drawn with facets.
 */
export function worldTriangles(placed: readonly PlacedBody[], flat = false): WorldTriangles {
  const meshes = placed.map(({ body }) => drawnMesh(body.shape, flat));
  const count = meshes.reduce((sum, { mesh }) => sum + mesh.indices.length / 3, 0);
  const corners = new Float64Array(9 * count);
  const body = new Int32Array(count);
  let at = 0;
  placed.forEach(({ toWorld: m }, i) => {
    const { mesh, scale } = meshes[i]!;
    const { positions, indices } = mesh;
    for (let k = 0; k < indices.length; k++) {
      const from = 3 * indices[k]!;
      const x = positions[from]! * scale[0];
      const y = positions[from + 1]! * scale[1];
      const z = flat ? 0 : positions[from + 2]! * scale[2];
      if (k % 3 === 0) body[at / 9] = i;
      corners[at++] = m[0]! * x + m[1]! * y + m[2]! * z + m[3]!;
      corners[at++] = m[4]! * x + m[5]! * y + m[6]! * z + m[7]!;
      corners[at++] = m[8]! * x + m[9]! * y + m[10]! * z + m[11]!;
    }
  });
  return { count, corners, body };
}

const cornerOf = ({ corners }: WorldTriangles, triangle: number, k: number): Vec3 => {
  const at = 9 * triangle + 3 * k;
  return [corners[at]!, corners[at + 1]!, corners[at + 2]!];
};

/** Whether whole bodies or each triangle for itself is put into the order. */
export type PaintedUnit = 'bodies' | 'faces';

/**
 * The order in which triangles are painted, far to near by a key: their numbers. Bodies go by their
 * feet as `drawOrder` has them, each with its triangles in the order of its mesh; faces go by the
 * middles of their triangles, those whose middle has no picture first. Equal keys stay as given.
 */
export function paintOrder(
  frame: CameraFrame,
  placed: readonly PlacedBody[],
  triangles: WorldTriangles,
  key: SortKey,
  unit: PaintedUnit,
): Int32Array {
  if (unit === 'bodies') {
    const ranks = new Map(drawOrder(frame, placed, key).order.map((id, rank) => [id, rank]));
    const rankOf = Int32Array.from(placed, ({ body }) => ranks.get(body.id)!);
    return order(triangles.count, (i) => -rankOf[triangles.body[i]!]!);
  }
  return order(triangles.count, (i) => {
    const [a, b, c] = [0, 1, 2].map((k) => cornerOf(triangles, i, k)) as [Vec3, Vec3, Vec3];
    const middle: Vec3 = [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3, (a[2] + b[2] + c[2]) / 3];
    if (key === 'worldUp') return middle[1];
    if (key === 'distance') return distance(middle, frame.eye);
    const viewRuf = worldToViewRuf(frame, middle);
    if (key === 'ahead') return viewRuf[2];
    const clip = viewRufToClip(frame, viewRuf);
    return clip.w > 0 ? clip.y / clip.w : Infinity;
  });
}

/** Numbers from 0 in falling order of their values. */
function order(count: number, value: (i: number) => number): Int32Array {
  const values = Float64Array.from({ length: count }, (_, i) => value(i));
  // The sort of a typed array is stable, and a NaN goes nowhere of its own accord.
  return Int32Array.from({ length: count }, (_, i) => i).sort((i, j) =>
    values[i] === values[j] ? i - j : values[j]! > values[i]! ? 1 : -1,
  );
}

/** Which of a body's faces are left out: none, those that face the eye, those that face away. */
export const leftOutFaces = { none: 0, front: 1, back: 2 } as const;

/** Which triangle shows at every pixel, and how far ahead it is there. */
export interface IdPicture {
  readonly width: number;
  readonly height: number;
  /** Row by row from the top; −1 where nothing shows. */
  readonly triangle: Int32Array;
  readonly ahead: Float64Array;
}

export interface Painting {
  /** Pixels across and down that the viewport is divided into. */
  readonly width: number;
  readonly height: number;
  /** The order to paint in; by the distances if it is null, as a depth buffer does. */
  readonly order: Int32Array | null;
  /** For each body which of its faces are left out (`leftOutFaces`); none if it is not given. */
  readonly leftOut?: Uint8Array | null;
  /** Called after every so many triangles with the share that is done. */
  readonly onProgress?: (share: number) => void;
}

/**
 * Paints triangles into a picture of their numbers. A pixel is covered where its middle lies inside
 * the projected triangle, cut at near and far; of two triangles that share an edge one has it. With
 * an order each covers what was painted before; without one the nearest shows, and of equals the
 * first.
 */
export function paint(frame: CameraFrame, triangles: WorldTriangles, given: Painting): IdPicture {
  const { width, height, order: wanted, leftOut, onProgress } = given;
  const triangle = new Int32Array(width * height).fill(-1);
  const ahead = new Float64Array(width * height).fill(Infinity);
  const perspective = frame.kind === 'perspective';
  const depthPlanes = viewRufPlanes(frame).filter(({ name }) => name === 'near' || name === 'far');
  const canvas: Canvas = { width, height, triangle, ahead, perspective, always: wanted !== null };
  const toward = (p: Vec3, q: Vec3): Vec3 => (perspective ? [q[0] - p[0], q[1] - p[1], q[2] - p[2]] : frame.forward);
  for (let n = 0; n < triangles.count; n++) {
    if (onProgress && n % 4096 === 0) onProgress(n / triangles.count);
    const i = wanted ? wanted[n]! : n;
    const [a, b, c] = [0, 1, 2].map((k) => cornerOf(triangles, i, k)) as [Vec3, Vec3, Vec3];
    const left = leftOut ? leftOut[triangles.body[i]!]! : leftOutFaces.none;
    if (left !== leftOutFaces.none && left === facingOf(a, b, c, toward(frame.eye, a))) continue;
    let corners: Vec3[] = [worldToViewRuf(frame, a), worldToViewRuf(frame, b), worldToViewRuf(frame, c)];
    for (const { normal, offset } of depthPlanes) corners = cut(corners, normal, offset);
    if (corners.length < 3) continue;
    const places = corners.map((p) => {
      const { x, y, w } = viewRufToClip(frame, p);
      return [((x / w + 1) / 2) * width, ((1 - y / w) / 2) * height, perspective ? 1 / p[2] : p[2]] as Vec3;
    });
    for (let k = 2; k < places.length; k++) fill(canvas, i, places[0]!, places[k - 1]!, places[k]!);
  }
  return { width, height, triangle, ahead };
}

/**
 * Which side of a triangle shows to one who looks along a direction: above 0 the front, from which
 * a, b, c run counter-clockwise, below 0 the back; 0 within 1e-12 of edge-on. No unit.
 */
function sideSeen(a: Vec3, b: Vec3, c: Vec3, way: Vec3): number {
  const [ux, uy, uz] = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const [vx, vy, vz] = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
  const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
  const along = -(nx * way[0] + ny * way[1] + nz * way[2]);
  return Math.abs(along) <= 1e-12 * Math.hypot(nx, ny, nz) * Math.hypot(...way) ? 0 : along;
}

/** The same as `leftOutFaces` has it; what is edge-on shows nothing and counts as back. */
const facingOf = (a: Vec3, b: Vec3, c: Vec3, way: Vec3): number =>
  sideSeen(a, b, c, way) > 0 ? leftOutFaces.front : leftOutFaces.back;

/** How many triangles are drawn, left out by the side they show, and edge-on. */
export interface Facings {
  readonly drawn: number;
  readonly culled: number;
  readonly edgeOn: number;
  readonly count: number;
}

/**
 * Counts triangles in canonical world space by what a rasteriser that leaves faces out makes of
 * them, whether or not they are in view.
 * @param leftOut for each body which of its faces are left out (`leftOutFaces`); none if null
 */
export function countFacings(frame: CameraFrame, triangles: WorldTriangles, leftOut: Uint8Array | null): Facings {
  let [drawn, culled, edgeOn] = [0, 0, 0];
  const perspective = frame.kind === 'perspective';
  for (let i = 0; i < triangles.count; i++) {
    const [a, b, c] = [0, 1, 2].map((k) => cornerOf(triangles, i, k)) as [Vec3, Vec3, Vec3];
    const side = sideSeen(a, b, c, perspective ? sub(a, frame.eye) : frame.forward);
    const facing = side > 0 ? leftOutFaces.front : leftOutFaces.back;
    if (side === 0) edgeOn++;
    else if (leftOut?.[triangles.body[i]!] === facing) culled++;
    else drawn++;
  }
  return { drawn, culled, edgeOn, count: triangles.count };
}

/** What of a convex polygon lies on the inner side of a plane. */
function cut(corners: readonly Vec3[], normal: Vec3, offset: number): Vec3[] {
  const out: Vec3[] = [];
  for (let i = 0; i < corners.length; i++) {
    const [a, b] = [corners[i]!, corners[(i + 1) % corners.length]!];
    const [da, db] = [dot(normal, a) + offset, dot(normal, b) + offset];
    if (da >= 0) out.push(a);
    if (da >= 0 === db >= 0) continue;
    const t = da / (da - db);
    out.push([a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t]);
  }
  return out;
}

interface Canvas {
  readonly width: number;
  readonly height: number;
  readonly triangle: Int32Array;
  readonly ahead: Float64Array;
  readonly perspective: boolean;
  readonly always: boolean;
}

/**
 * One triangle of the picture, row by row: a pixel from where its middle is reached to before where
 * it is left. What is given beside its place is linear across the picture (1/ahead in perspective).
 */
function fill(to: Canvas, id: number, a: Vec3, b: Vec3, c: Vec3): void {
  const { width, height, triangle, ahead, perspective, always } = to;
  const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  if (!area || !Number.isFinite(area)) return;
  const du = ((b[2] - a[2]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[2] - a[2])) / area;
  const dv = ((b[0] - a[0]) * (c[2] - a[2]) - (b[2] - a[2]) * (c[0] - a[0])) / area;
  const top = Math.max(0, Math.ceil(Math.min(a[1], b[1], c[1]) - 0.5));
  const bottom = Math.min(height, Math.ceil(Math.max(a[1], b[1], c[1]) - 0.5));
  for (let row = top; row < bottom; row++) {
    const y = row + 0.5;
    let [from, until] = [Infinity, -Infinity];
    for (let k = 0; k < 3; k++) {
      const p = k === 0 ? a : k === 1 ? b : c;
      const q = k === 0 ? b : k === 1 ? c : a;
      if (p[1] <= y === q[1] <= y) continue;
      // From the upper end whichever way it runs, so that two triangles at one edge agree.
      const [u, l] = p[1] < q[1] ? [p, q] : [q, p];
      const x = u[0] + ((l[0] - u[0]) * (y - u[1])) / (l[1] - u[1]);
      if (x < from) from = x;
      if (x > until) until = x;
    }
    const first = Math.max(0, Math.ceil(from - 0.5));
    const end = Math.min(width, Math.ceil(until - 0.5));
    for (let column = first, at = row * width + first; column < end; column++, at++) {
      const value = a[2] + du * (column + 0.5 - a[0]) + dv * (y - a[1]);
      const far = perspective ? 1 / value : value;
      if (!always && !(far < ahead[at]!)) continue;
      triangle[at] = id;
      ahead[at] = far;
    }
  }
}

/** What an order gets wrong. */
export interface PaintFaults {
  /** 1 where what was painted is not what is nearest; row by row from the top. */
  readonly wrong: Uint8Array;
  readonly count: number;
  /** By bodies: what was painted over what, and on how many pixels; most first. */
  readonly pairs: readonly { readonly over: number; readonly hidden: number; readonly pixels: number }[];
}

/** Surfaces nearer to one another than this share of their distance ahead are one. */
const touching = 1e-6;

/**
 * Where a painted picture differs from the right one (both of the same triangles and size): pixels
 * at which another triangle shows, unless the two lie on one another there. In a flat world, where
 * all lie in one plane, pixels at which another body shows.
 */
export function paintFaults(painted: IdPicture, right: IdPicture, { body }: WorldTriangles, flat = false): PaintFaults {
  const wrong = new Uint8Array(painted.triangle.length);
  const pairs = new Map<string, { over: number; hidden: number; pixels: number }>();
  let count = 0;
  for (let i = 0; i < wrong.length; i++) {
    const [shown, should] = [painted.triangle[i]!, right.triangle[i]!];
    if (shown === should || shown < 0 || should < 0) continue;
    const same = flat
      ? body[shown] === body[should]
      : painted.ahead[i]! - right.ahead[i]! <= touching * Math.abs(right.ahead[i]!);
    if (same) continue;
    wrong[i] = 1;
    count++;
    const [over, hidden] = [body[shown]!, body[should]!];
    const key = `${over} ${hidden}`;
    const pair = pairs.get(key);
    if (pair) pair.pixels++;
    else pairs.set(key, { over, hidden, pixels: 1 });
  }
  return { wrong, count, pairs: [...pairs.values()].sort((a, b) => b.pixels - a.pixels) };
}
