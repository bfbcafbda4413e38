import { add, scale as scaled, type Vec3 } from '../math/vec3';
import { affine, identity, invertAffine, multiply, transformPoint, type Mat4 } from '../math/mat4';
import { quatToColumns, type Quat } from '../math/quat';
import type { Problem } from '../reasons';

/**
 * A shape in its own space, which has the canonical axes (+x right, +y up, −z ahead) and world
 * units. A quad lies in the right/up plane with its front towards −ahead (+z). A mesh is a surface
 * of triangles, `positions` x, y, z after one another and `indices` three to a triangle,
 * counter-clockwise seen from the front.
 */
export type Shape =
  | { readonly kind: 'point' }
  | { readonly kind: 'sphere'; readonly radius: number }
  | { readonly kind: 'box'; readonly size: Vec3 }
  | { readonly kind: 'quad'; readonly size: readonly [number, number] }
  | { readonly kind: 'mesh'; readonly positions: readonly number[]; readonly indices: readonly number[] };

/**
 * A thing in the scene. Its transform (scale, then rotation, then position) is in its parent's
 * space, or the world's without one.
 */
export interface Body {
  readonly id: string;
  readonly shape: Shape;
  readonly position: Vec3;
  readonly rotation: Quat;
  readonly scale: Vec3;
  readonly parent: string | null;
  readonly castsShadow: boolean;
  /** The point by which it is sorted, in its own space: the foot of a sprite. The origin if absent. */
  readonly foot?: Vec3;
}

/** A body with its way into the world and back. */
export interface PlacedBody {
  readonly body: Body;
  readonly toWorld: Mat4;
  readonly toLocal: Mat4;
}

/** Returns the point by which a placed body is sorted, in canonical world space: its foot, or its origin. */
export const footOf = ({ body, toWorld }: PlacedBody): Vec3 =>
  body.foot ? transformPoint(toWorld, body.foot) : [toWorld[3]!, toWorld[7]!, toWorld[11]!];

/**
 * What keeps a mesh from being one (paths below `at`): numbers that do not come in threes, an index
 * beyond the last vertex.
 */
export function meshProblems(shape: Shape, at: string): Problem[] {
  if (shape.kind !== 'mesh') return [];
  const { positions, indices } = shape;
  const count = positions.length / 3;
  if (!Number.isInteger(count))
    return [
      { path: `${at}.positions`, message: `positions has ${positions.length} numbers; they come in threes, x, y, z.` },
    ];
  if (indices.length % 3)
    return [
      {
        path: `${at}.indices`,
        message: `indices has ${indices.length} entries; they come in threes, one triangle each.`,
      },
    ];
  const beyond = indices.findIndex((i) => i >= count);
  if (beyond < 0) return [];
  return [
    {
      path: `${at}.indices[${beyond}]`,
      message: `The index ${indices[beyond]} is beyond the last vertex, ${count - 1}.`,
    },
  ];
}

/** The matrix from a body's own space to its parent's: T·R·S. The rotation must be unit. */
export function localTransform({ position, rotation, scale }: Pick<Body, 'position' | 'rotation' | 'scale'>): Mat4 {
  const [x, y, z] = quatToColumns(rotation);
  return affine(scaled(x, scale[0]), scaled(y, scale[1]), scaled(z, scale[2]), position);
}

/**
 * Every body's world transform, in the order given, or what is wrong: ids twice (`bodies[i].id`), a
 * parent that is missing or its own descendant, a transform that flattens (`singularTransform`), a
 * sphere made an ellipsoid by unequal scale or by a parent's.
 */
export function placeBodies(
  bodies: readonly Body[],
): { ok: true; placed: PlacedBody[] } | { ok: false; problems: Problem[] } {
  const problems: Problem[] = [];
  const byId = new Map<string, number>();
  bodies.forEach(({ id }, i) => {
    if (byId.has(id))
      problems.push({
        path: `bodies[${i}].id`,
        message: `The id “${id}” is already taken by bodies[${byId.get(id)}]. Rename one.`,
      });
    else byId.set(id, i);
  });
  const world: (Mat4 | null | 'underway')[] = [];
  // Up the chain of parents to the first that is known, then down again: chains may be longer than
  // the stack of calls is deep.
  const resolve = (from: number): Mat4 | null => {
    const chain: number[] = [];
    let above: Mat4 | null = identity;
    for (let i = from; ;) {
      const known = world[i];
      if (known === 'underway') {
        problems.push({
          path: `bodies[${i}].parent`,
          code: 'parentCycle',
          message: `“${bodies[i]!.id}” is its own ancestor. Break the circle of parents.`,
        });
        above = null;
        break;
      }
      if (known !== undefined) {
        above = known;
        break;
      }
      world[i] = 'underway';
      chain.push(i);
      const { id, parent } = bodies[i]!;
      if (parent === null) break;
      const at = byId.get(parent);
      if (at === undefined) {
        problems.push({
          path: `bodies[${i}].parent`,
          code: 'parentMissing',
          message: `There is no body “${parent}” to be the parent of “${id}”. Add it or remove the parent.`,
        });
        above = null;
        break;
      }
      i = at;
    }
    while (chain.length) {
      const i = chain.pop()!;
      above = world[i] = above && multiply(above, localTransform(bodies[i]!));
    }
    return above;
  };
  const placed: PlacedBody[] = [];
  bodies.forEach((body, i) => {
    const toWorld = resolve(i);
    if (!toWorld) return;
    const toLocal = invertAffine(toWorld);
    if (!toLocal)
      problems.push({
        path: `bodies[${i}].scale`,
        code: 'singularTransform',
        message: `The transform of “${body.id}” flattens it: one of its scales, or an ancestor’s, is 0. Give every axis a size.`,
      });
    else if (body.shape.kind === 'sphere' && !keepsSpheres(toWorld))
      problems.push({
        path: `bodies[${i}].scale`,
        code: 'unequalScaleOnSphere',
        message: `The sphere “${body.id}” is scaled unequally and would be no sphere. Use one scale for all axes, or a mesh.`,
      });
    else placed.push({ body, toWorld, toLocal });
  });
  return problems.length ? { ok: false, problems } : { ok: true, placed };
}

/**
 * The id of every body's outermost ancestor, by its own id; a body without a parent is its own. The
 * parents make no circle, as those of placed bodies do not.
 */
export function rootsOf(bodies: readonly Pick<Body, 'id' | 'parent'>[]): ReadonlyMap<string, string> {
  const parents = new Map(bodies.map(({ id, parent }) => [id, parent]));
  const roots = new Map<string, string>();
  for (const { id } of bodies) {
    const chain: string[] = [];
    let at = id;
    while (!roots.has(at)) {
      chain.push(at);
      const parent = parents.get(at) ?? null;
      if (parent === null) break;
      at = parent;
    }
    const root = roots.get(at) ?? at;
    for (const one of chain) roots.set(one, root);
  }
  return new Map(bodies.map(({ id }) => [id, roots.get(id)!]));
}

/**
 * The three columns of a similarity are square to each other and of one length (to 1e-9 of that
 * length).
 */
function keepsSpheres(m: Mat4): boolean {
  const c = [0, 1, 2].map((j) => [m[j]!, m[4 + j]!, m[8 + j]!] as const);
  const d = (i: number, j: number) => c[i]![0] * c[j]![0] + c[i]![1] * c[j]![1] + c[i]![2] * c[j]![2];
  const size = d(0, 0);
  return [d(1, 1) - size, d(2, 2) - size, d(0, 1), d(1, 2), d(2, 0)].every((v) => Math.abs(v) <= 1e-9 * size);
}

/** The scale of a similarity: what a sphere's radius is multiplied by. */
export const similarityScale = (m: Mat4): number => Math.hypot(m[0]!, m[4]!, m[8]!);

/** Of meshes, which have many vertices and are asked about in every frame in which they move. */
const meshBounds = new WeakMap<Shape, { centre: Vec3; half: Vec3 }>();

/** The smallest box round a shape in its own space, as its centre and half sizes. */
export function localBounds(shape: Shape): { centre: Vec3; half: Vec3 } {
  switch (shape.kind) {
    case 'point':
      return { centre: [0, 0, 0], half: [0, 0, 0] };
    case 'sphere':
      return { centre: [0, 0, 0], half: [shape.radius, shape.radius, shape.radius] };
    case 'box':
      return { centre: [0, 0, 0], half: scaled(shape.size, 0.5) };
    case 'quad':
      return { centre: [0, 0, 0], half: [shape.size[0] / 2, shape.size[1] / 2, 0] };
    case 'mesh': {
      // Without vertices it is a point where its origin is.
      if (!shape.positions.length) return { centre: [0, 0, 0], half: [0, 0, 0] };
      const known = meshBounds.get(shape);
      if (known) return known;
      const low = [Infinity, Infinity, Infinity];
      const high = [-Infinity, -Infinity, -Infinity];
      shape.positions.forEach((v, i) => {
        low[i % 3] = Math.min(low[i % 3]!, v);
        high[i % 3] = Math.max(high[i % 3]!, v);
      });
      const [l, h] = [low as unknown as Vec3, high as unknown as Vec3];
      const bounds = { centre: scaled(add(l, h), 0.5), half: scaled(add(h, scaled(l, -1)), 0.5) };
      meshBounds.set(shape, bounds);
      return bounds;
    }
  }
}

/**
 * A sphere round a placed body, in the world: from its local box, so not the smallest one but never
 * too small. In a flat world its depth plays no part.
 */
export function boundingSphere({ body, toWorld }: PlacedBody, flat = false): { centre: Vec3; radius: number } {
  const { centre, half } = localBounds(body.shape);
  const c: Vec3 = flat ? [centre[0], centre[1], 0] : centre;
  const h: Vec3 = flat ? [half[0], half[1], 0] : half;
  const m = toWorld;
  const row = (i: number) => m[i]! * c[0] + m[i + 1]! * c[1] + m[i + 2]! * c[2] + m[i + 3]!;
  // Half the diagonal from each corner at one side of the box; the other side's are their opposites.
  const part = (i: number, sx: number, sy: number) => m[i]! * h[0] * sx + m[i + 1]! * h[1] * sy + m[i + 2]! * h[2];
  const reach = (sx: number, sy: number) => Math.hypot(part(0, sx, sy), part(4, sx, sy), part(8, sx, sy));
  const radius =
    body.shape.kind === 'sphere'
      ? body.shape.radius * similarityScale(m)
      : Math.max(reach(1, 1), reach(1, -1), reach(-1, 1), reach(-1, -1));
  return { centre: [row(0), row(4), row(8)], radius };
}
