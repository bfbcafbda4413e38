import { addScaled, cross, dot, normalize, sub, type Vec3 } from '../math/vec3';
import { transformDirection, transformPoint, type Mat4 } from '../math/mat4';
import { boundingSphere, type PlacedBody, type Shape } from '../bodies/body';
import type { CameraFrame } from '../camera/frame';
import { firstTriangle, triangleTree, type TriangleTree } from '../kernels/triangleTree';
import { rayThrough, type Ray } from '../convert/project';

/**
 * Where a ray passes a body's surface. Distances and points in the world; the normal is the
 * surface's own, unit, not turned to the viewer.
 */
export interface Hit {
  readonly body: string;
  readonly distance: number;
  readonly point: Vec3;
  readonly normal: Vec3;
  readonly facing: 'front' | 'back';
  /** Which triangle of a mesh, from 0. */
  readonly triangle?: number;
}

interface LocalHit {
  /** Along the ray, in lengths of its direction. */
  readonly t: number;
  readonly normal: Vec3;
  readonly triangle?: number;
}

/**
 * Where the line origin + t·direction passes a shape in its own space, at any t of either sign, in
 * no order. A point is never hit.
 */
function crossings(shape: Shape, o: Vec3, d: Vec3): LocalHit[] {
  switch (shape.kind) {
    case 'point':
      return [];
    case 'sphere': {
      // The point of the line nearest the centre first: the textbook discriminant loses digits for
      // a small sphere far away.
      const dd = dot(d, d);
      const nearest = -dot(o, d) / dd;
      const foot = addScaled(o, d, nearest);
      const left = shape.radius * shape.radius - dot(foot, foot);
      if (left < 0) return [];
      const half = Math.sqrt(left / dd);
      return [nearest - half, nearest + half].map((t) => ({ t, normal: addScaled(o, d, t) }));
    }
    case 'box': {
      let [enter, leave] = [-Infinity, Infinity];
      let enterNormal: Vec3 = [0, 0, 0];
      let leaveNormal: Vec3 = [0, 0, 0];
      for (const i of [0, 1, 2] as const) {
        const half = shape.size[i] / 2;
        if (d[i] === 0) {
          if (Math.abs(o[i]) > half) return [];
          continue;
        }
        const sign = Math.sign(d[i]);
        const [a, b] = [(-sign * half - o[i]) / d[i], (sign * half - o[i]) / d[i]];
        const axis = (s: number) => [0, 1, 2].map((j) => (j === i ? s : 0)) as unknown as Vec3;
        if (a > enter) [enter, enterNormal] = [a, axis(-sign)];
        if (b < leave) [leave, leaveNormal] = [b, axis(sign)];
      }
      if (enter > leave || !Number.isFinite(enter)) return [];
      return [
        { t: enter, normal: enterNormal },
        { t: leave, normal: leaveNormal },
      ];
    }
    case 'quad': {
      if (d[2] === 0) return [];
      const t = -o[2] / d[2];
      const p = addScaled(o, d, t);
      const within = Math.abs(p[0]) <= shape.size[0] / 2 && Math.abs(p[1]) <= shape.size[1] / 2;
      return within ? [{ t, normal: [0, 0, 1] }] : [];
    }
    case 'mesh': {
      const hits: LocalHit[] = [];
      for (let triangle = 0; 3 * triangle < shape.indices.length; triangle++) {
        const t = triangleCrossing(o, d, ...cornersOf(shape, triangle));
        if (t) hits.push({ ...t, triangle });
      }
      return hits;
    }
  }
}

export type Mesh = Extract<Shape, { kind: 'mesh' }>;

function cornersOf({ positions, indices }: Mesh, triangle: number): [Vec3, Vec3, Vec3] {
  const at = (corner: number): Vec3 => {
    const k = indices[3 * triangle + corner]! * 3;
    return [positions[k]!, positions[k + 1]!, positions[k + 2]!];
  };
  return [at(0), at(1), at(2)];
}

/**
 * Meshes of more triangles than this are asked through a tree when only the first hit is wanted.
 */
const treeFrom = 32;
const trees = new WeakMap<Mesh, TriangleTree>();
/** Meshes whose trees are being built elsewhere. */
const awaited = new WeakSet<Mesh>();

/** Meshes of more triangles than this take long enough to prepare that a page has it done elsewhere. */
export const preparedElsewhere = 20_000;

/** Has all triangles of a mesh asked, one after another, until its tree is given. */
export const awaitTree = (mesh: Mesh): void => void awaited.add(mesh);

/** Gives the tree that was built of a mesh, on another thread for instance: picks go by it from now on. */
export const giveTree = (mesh: Mesh, tree: TriangleTree): void => void trees.set(mesh, tree);

/**
 * The first crossing of a mesh with from ≤ t ≤ to, as `crossings` would find it among all of them.
 */
function firstCrossing(mesh: Mesh, o: Vec3, d: Vec3, from: number, to: number, backFaces: boolean): LocalHit[] {
  let tree = trees.get(mesh);
  if (!tree && awaited.has(mesh)) return crossings(mesh, o, d);
  if (!tree) trees.set(mesh, (tree = triangleTree(mesh.positions, mesh.indices)));
  const hit = { triangle: -1, t: 0 };
  if (!firstTriangle(tree, ...o, ...d, from, to, backFaces ? 0 : 1, hit)) return [];
  const [a, b, c] = cornersOf(mesh, hit.triangle);
  const normal = cross(sub(b, a), sub(c, a));
  // A triangle without area is met by rounding alone: then all of them are asked.
  if (!normalize(normal)) return crossings(mesh, o, d);
  return [{ t: hit.t, normal, triangle: hit.triangle }];
}

/** Where a line meets a triangle (Möller and Trumbore 1997, both sides), or null. */
function triangleCrossing(o: Vec3, d: Vec3, a: Vec3, b: Vec3, c: Vec3): LocalHit | null {
  const [ab, ac] = [sub(b, a), sub(c, a)];
  const p = cross(d, ac);
  const det = dot(ab, p);
  if (det === 0) return null;
  const s = sub(o, a);
  const u = dot(s, p) / det;
  if (u < 0 || u > 1) return null;
  const q = cross(s, ab);
  const v = dot(d, q) / det;
  if (v < 0 || u + v > 1) return null;
  return { t: dot(ac, q) / det, normal: cross(ab, ac) };
}

/**
 * A body's normal in the world: the inverse transpose of its transform, so that it stays square to
 * the surface under unequal scale; null for a triangle without area.
 */
function worldNormal(toLocal: Mat4, n: Vec3): Vec3 | null {
  const m = toLocal;
  const turned: Vec3 = [
    m[0]! * n[0] + m[4]! * n[1] + m[8]! * n[2],
    m[1]! * n[0] + m[5]! * n[1] + m[9]! * n[2],
    m[2]! * n[0] + m[6]! * n[1] + m[10]! * n[2],
  ];
  return normalize(turned);
}

export interface PickOptions {
  /** Whether surfaces seen from behind count. */
  readonly backFaces?: boolean;
  /** Every crossing rather than the nearest. */
  readonly all?: boolean;
  /** The distances along the ray within which a hit counts. */
  readonly from?: number;
  readonly to?: number;
}

/**
 * What a ray passes, nearest first: at most one hit unless `all` is asked for. An empty list when
 * it meets nothing.
 */
export function castRay(
  ray: Pick<Ray, 'origin' | 'direction'>,
  placed: readonly PlacedBody[],
  options: PickOptions = {},
): Hit[] {
  const { backFaces = false, all = false, from = 0, to = Infinity } = options;
  const hits: Hit[] = [];
  for (const one of placed) {
    if (missesSphere(ray, one)) continue;
    const o = transformPoint(one.toLocal, ray.origin);
    const d = transformDirection(one.toLocal, ray.direction);
    const { shape } = one.body;
    const large = shape.kind === 'mesh' && shape.indices.length > 3 * treeFrom && !all;
    const found = large ? firstCrossing(shape, o, d, from, to, backFaces) : crossings(shape, o, d);
    for (const { t, normal, triangle } of found) {
      // What would be met beyond the range of doubles is not met.
      if (!(t >= from && t <= to && Number.isFinite(t))) continue;
      const facingNormal = worldNormal(one.toLocal, normal);
      if (!facingNormal) continue;
      const facing = dot(facingNormal, ray.direction) < 0 ? 'front' : 'back';
      if (facing === 'back' && !backFaces) continue;
      hits.push({
        body: one.body.id,
        distance: t,
        point: addScaled(ray.origin, ray.direction, t),
        normal: facingNormal,
        facing,
        ...(triangle !== undefined && { triangle }),
      });
    }
  }
  hits.sort((a, b) => a.distance - b.distance);
  return all ? hits : hits.slice(0, 1);
}

const spheres = new WeakMap<PlacedBody, { centre: Vec3; radius: number }>();
function missesSphere({ origin, direction }: Pick<Ray, 'origin' | 'direction'>, placed: PlacedBody): boolean {
  let sphere = spheres.get(placed);
  if (!sphere) spheres.set(placed, (sphere = boundingSphere(placed)));
  const to = sub(sphere.centre, origin);
  const off = cross(to, direction);
  return dot(off, off) > (sphere.radius * sphere.radius * (1 + 1e-9) + 1e-18) * dot(direction, direction);
}

/**
 * What the ray of a picture position meets between the near and the far plane (by distance ahead,
 * as the picture shows it).
 */
export function pick(
  frame: CameraFrame,
  across: number,
  upward: number,
  placed: readonly PlacedBody[],
  options: Omit<PickOptions, 'from' | 'to'> = {},
): Hit[] {
  const ray = rayThrough(frame, across, upward);
  return castRay(ray, placed, {
    ...options,
    from: frame.near * ray.rangePerAhead,
    to: frame.far === null ? Infinity : frame.far * ray.rangePerAhead,
  });
}

/**
 * The bodies of a flat world that hold a point (world right and up), in the order given, the first
 * alone unless `all` is asked for: a sphere is a disc, a box or quad a rectangle, a mesh its
 * triangles seen from the front of the world. All lie in one plane, so every distance is 0.
 */
export function pickFlat(point: Vec3, placed: readonly PlacedBody[], all = false): Hit[] {
  const hits = placed
    .filter((one) => {
      const { shape } = one.body;
      const p = transformPoint(one.toLocal, point);
      if (shape.kind === 'sphere') return Math.hypot(p[0], p[1]) <= shape.radius;
      if (shape.kind === 'box' || shape.kind === 'quad')
        return Math.abs(p[0]) <= shape.size[0] / 2 && Math.abs(p[1]) <= shape.size[1] / 2;
      return crossings(shape, [p[0], p[1], 0], [0, 0, 1]).length > 0;
    })
    .map(({ body }): Hit => ({ body: body.id, distance: 0, point, normal: [0, 0, 1], facing: 'front' }));
  return all ? hits : hits.slice(0, 1);
}
