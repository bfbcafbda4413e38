import { localTransform, type Body, type PlacedBody } from '../bodies/body';
import { linearDeterminant, multiply, transformPoint, type Mat4 } from '../math/mat4';
import { columnsToQuat, multiplyQuat, quatToColumns, type Quat } from '../math/quat';
import { add, dot, length, scale, sub, type Vec3 } from '../math/vec3';

/*
 * Nodes in a hierarchy: each has a transform T·R·S in its parent's space. In a renderer the same is
 * a stack of matrices: a node saves the top, multiplies its own transform from the right, draws
 * itself and its children, and restores.
 */

export type Placed = ReadonlyMap<string, PlacedBody>;

/** One level of a transform stack. */
export interface StackLevel {
  readonly body: Body;
  /** From the node's space to its parent's: what the level multiplies from the right. */
  readonly local: Mat4;
  /** From the node's space to the world: the top of the stack once the level is on it. */
  readonly toWorld: Mat4;
}

/**
 * The stack on which a node stands, from its outermost ancestor to itself. Empty for a node that is
 * not there.
 */
export function stackOf(placed: Placed, id: string): StackLevel[] {
  const levels: StackLevel[] = [];
  for (let one = placed.get(id); one; one = one.body.parent === null ? undefined : placed.get(one.body.parent))
    levels.unshift({ body: one.body, local: localTransform(one.body), toWorld: one.toWorld });
  return levels;
}

/**
 * A point of one node's space in another's; null is the world. The inverse is the same with the two
 * exchanged.
 */
export function betweenNodes(from: PlacedBody | null, to: PlacedBody | null, point: Vec3): Vec3 {
  if (from === to) return point;
  const world = from ? transformPoint(from.toWorld, point) : point;
  return to ? transformPoint(to.toLocal, world) : world;
}

/**
 * The matrix that takes surface normals of a node's space to the world: the inverse transpose of
 * the linear part, three rows of three after one another. Its results want normalising. Under
 * unequal scale the linear part itself would tilt them (`docs/derivations.md`, "Normals").
 */
export function normalMatrix({ toLocal: m }: Pick<PlacedBody, 'toLocal'>): readonly number[] {
  return [m[0]!, m[4]!, m[8]!, m[1]!, m[5]!, m[9]!, m[2]!, m[6]!, m[10]!];
}

/** A matrix of nine numbers, by rows, times a vector. */
export const transformNormal = (m: readonly number[], [x, y, z]: Vec3): Vec3 => [
  m[0]! * x + m[1]! * y + m[2]! * z,
  m[3]! * x + m[4]! * y + m[5]! * z,
  m[6]! * x + m[7]! * y + m[8]! * z,
];

export type Transform = Pick<Body, 'position' | 'rotation' | 'scale'>;

/**
 * Position, rotation and scale that make up an affine matrix, or null when it shears (its columns
 * are not square to one another to 1e-9) or flattens: no T·R·S is equal to it then. A mirroring is
 * put into the scale of x. The inverse of `localTransform`.
 */
export function decompose(m: Mat4): Transform | null {
  const columns = [0, 1, 2].map((j): Vec3 => [m[j]!, m[4 + j]!, m[8 + j]!]) as [Vec3, Vec3, Vec3];
  const sizes = columns.map(length) as [number, number, number];
  if (!sizes.every((s) => s > 0 && Number.isFinite(s))) return null;
  const [x, y, z] = columns.map((c, i) => scale(c, 1 / sizes[i]!)) as [Vec3, Vec3, Vec3];
  if ([dot(x, y), dot(y, z), dot(z, x)].some((v) => Math.abs(v) > 1e-9)) return null;
  const hand = linearDeterminant(m) < 0 ? -1 : 1;
  return {
    position: [m[3]!, m[7]!, m[11]!],
    rotation: columnsToQuat(scale(x, hand), y, z),
    scale: [sizes[0] * hand, sizes[1], sizes[2]],
  };
}

/**
 * The transform with which a node keeps its place in the world under another parent (null for the
 * world). Null where there is none: an ancestor scaled unequally and turned leaves a shear that no
 * T·R·S has. That the parent is no descendant is for the caller to see to.
 */
export function reparented(node: PlacedBody, parent: PlacedBody | null): Transform | null {
  return decompose(parent ? multiply(parent.toLocal, node.toWorld) : node.toWorld);
}

/**
 * A node turned about a pivot: the point `pivot` of its own space stays where it is. `turn` is a
 * unit quaternion in the parent's space. In a stack this is translate(pivot) · rotate ·
 * translate(−pivot), the pivot said in the parent's space.
 */
export function rotatedAbout(transform: Transform, pivot: Vec3, turn: Quat): Transform {
  const fixed = transformPoint(localTransform(transform), pivot);
  const [x, y, z] = quatToColumns(turn);
  const d = sub(transform.position, fixed);
  const turned = add(add(scale(x, d[0]), scale(y, d[1])), scale(z, d[2]));
  const q = multiplyQuat(turn, transform.rotation);
  return { ...transform, position: add(fixed, turned), rotation: q };
}

/** Whether a node stands below another, at any depth. */
export function descendsFrom(placed: Placed, id: string, ancestor: string): boolean {
  return stackOf(placed, id)
    .slice(0, -1)
    .some(({ body }) => body.id === ancestor);
}
