import { cross, length, sub, type Vec3 } from '../math/vec3';
import type { Shape } from './body';

/**
 * Triangles of a shape in its own space: x, y, z after one another; three indices to a triangle,
 * counter-clockwise from outside.
 */
export interface TriangleMesh {
  readonly positions: readonly number[];
  readonly indices: readonly number[];
}

const boxCorners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => [i & 1 ? 1 : -1, i & 2 ? 1 : -1, i & 4 ? 1 : -1] as const);
/**
 * The faces of a box over `boxCorners`, seen counter-clockwise from outside: −x, +x, −y, +y, −z,
 * +z.
 */
const boxFaces = [
  [0, 4, 6, 2],
  [1, 3, 7, 5],
  [0, 1, 5, 4],
  [2, 6, 7, 3],
  [0, 2, 3, 1],
  [4, 5, 7, 6],
] as const;

/**
 * A shape as triangles for drawing. Spheres become `rings` × 2·`rings` patches, inscribed; a point
 * has none. Exact questions (picking, visibility) never go through this.
 */
export function triangulate(shape: Shape, rings = 14): TriangleMesh {
  switch (shape.kind) {
    case 'point':
      return { positions: [], indices: [] };
    case 'mesh':
      return shape;
    case 'box': {
      const [x, y, z] = shape.size;
      return {
        positions: boxCorners.flatMap(([a, b, c]) => [(a * x) / 2, (b * y) / 2, (c * z) / 2]),
        indices: boxFaces.flatMap(([a, b, c, d]) => [a, b, c, a, c, d]),
      };
    }
    case 'quad': {
      const [w, h] = [shape.size[0] / 2, shape.size[1] / 2];
      return { positions: [-w, -h, 0, w, -h, 0, w, h, 0, -w, h, 0], indices: [0, 1, 2, 0, 2, 3] };
    }
    case 'sphere':
      return lathe(
        Array.from({ length: rings + 1 }, (_, i) => {
          const a = (i / rings - 0.5) * Math.PI;
          const pole = i === 0 || i === rings;
          return [pole ? 0 : shape.radius * Math.cos(a), shape.radius * Math.sin(a)] as const;
        }),
        2 * rings,
      );
  }
}

/**
 * The surface that a profile sweeps about the y axis: `profile` is [radius, height] from the bottom
 * up, a radius of 0 is a tip. `sides` facets go round; ends with a radius are left open.
 */
export function lathe(profile: readonly (readonly [number, number])[], sides: number): TriangleMesh {
  const positions: number[] = [];
  const indices: number[] = [];
  const starts = profile.map(([radius, height]) => {
    const start = positions.length / 3;
    const count = radius === 0 ? 1 : sides;
    for (let i = 0; i < count; i++) {
      const a = (2 * Math.PI * i) / sides;
      positions.push(radius * Math.cos(a), height, -radius * Math.sin(a));
    }
    return start;
  });
  for (let row = 0; row + 1 < profile.length; row++) {
    const [low, high] = [starts[row]!, starts[row + 1]!];
    const [lowTip, highTip] = [profile[row]![0] === 0, profile[row + 1]![0] === 0];
    for (let i = 0; i < sides; i++) {
      const next = (i + 1) % sides;
      const [a, b] = lowTip ? [low, low] : [low + i, low + next];
      const [c, d] = highTip ? [high, high] : [high + next, high + i];
      if (!lowTip) indices.push(a, b, c);
      if (!highTip) indices.push(a, c, d);
    }
  }
  return { positions, indices };
}

/** A disc as triangles: what a sphere is in a flat world. */
function disc(sides = 40): TriangleMesh {
  const rim = Array.from({ length: sides }, (_, i) => (2 * Math.PI * i) / sides);
  return {
    positions: [0, 0, 0, ...rim.flatMap((a) => [Math.cos(a), Math.sin(a), 0])],
    indices: rim.flatMap((_, i) => [0, i + 1, ((i + 1) % sides) + 1]),
  };
}

/** The triangles that a shape is drawn with, and what they are stretched by to be the shape. */
export interface DrawnMesh {
  /** The same object for boxes, balls, discs and sheets of any size, and for one mesh. */
  readonly mesh: TriangleMesh;
  readonly scale: Vec3;
}

/** A mesh without the triangles that have no area: nothing of them is seen. */
function withArea({ positions, indices }: TriangleMesh): TriangleMesh {
  const at = (i: number): Vec3 => [positions[3 * i]!, positions[3 * i + 1]!, positions[3 * i + 2]!];
  const kept: number[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const [i, j, k] = [indices[t]!, indices[t + 1]!, indices[t + 2]!];
    const a = at(i);
    if (length(cross(sub(at(j), a), sub(at(k), a)))) kept.push(i, j, k);
  }
  return { positions, indices: kept };
}

const drawnKinds = new Map<string, TriangleMesh>();
const drawnMeshes = new WeakMap<Shape, TriangleMesh>();

/**
 * The triangles that a shape is drawn with, in its own space, counter-clockwise from outside; a
 * sphere of a flat world is a disc. What numbers triangles of pictures numbers them by this list.
 */
export function drawnMesh(shape: Shape, flat: boolean): DrawnMesh {
  const common = (name: string, make: () => TriangleMesh): TriangleMesh => {
    const known = drawnKinds.get(name) ?? withArea(make());
    drawnKinds.set(name, known);
    return known;
  };
  switch (shape.kind) {
    case 'point':
      return { mesh: common('point', () => triangulate(shape)), scale: [1, 1, 1] };
    case 'box':
      return { mesh: common('box', () => triangulate({ kind: 'box', size: [1, 1, 1] })), scale: shape.size };
    case 'quad':
      return {
        mesh: common('quad', () => triangulate({ kind: 'quad', size: [1, 1] })),
        scale: [shape.size[0], shape.size[1], 1],
      };
    case 'sphere': {
      const { radius } = shape;
      const ball = flat ? common('disc', disc) : common('ball', () => triangulate({ kind: 'sphere', radius: 1 }));
      return { mesh: ball, scale: [radius, radius, radius] };
    }
    case 'mesh': {
      const known = drawnMeshes.get(shape) ?? withArea(shape);
      drawnMeshes.set(shape, known);
      return { mesh: known, scale: [1, 1, 1] };
    }
  }
}
