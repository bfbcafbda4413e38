import { placeBodies, type PlacedBody } from '../core/bodies/body';
import { worldShape } from '../core/bodies/geometry';
import type { Vec3 } from '../core/math/vec3';
import type { ProjectBody } from './project';

/** Which point of what is brought in comes to lie at the origin of the world. */
export const origins = ['kept', 'middle', 'base'] as const;
export type Origin = (typeof origins)[number];

/**
 * Bodies made larger by a factor and moved as one, so that their own origin stays (`kept`), or the
 * middle of the upright box round them all, or the middle of that box's lower side (`base`) comes
 * to lie at the origin. In canonical axes, in which up is +y. Parts of other bodies follow their
 * parents: roots are moved, and what is inside a body is scaled. The factor must be above 0.
 */
export function settledBodies(bodies: readonly ProjectBody[], origin: Origin, factor: number): ProjectBody[] {
  const larger = (v: readonly [number, number, number]): [number, number, number] => [
    v[0] * factor,
    v[1] * factor,
    v[2] * factor,
  ];
  const scaled = bodies.map((body) => ({
    ...body,
    position: larger(body.position),
    handle: larger(body.handle),
    shape: largerShape(body.shape, factor),
  }));
  if (origin === 'kept') return scaled;
  const placed = placeBodies(scaled);
  if (!placed.ok || !scaled.length) return scaled;
  const [low, high] = boxOf(placed.placed);
  const away: Vec3 = [(low[0] + high[0]) / 2, origin === 'base' ? low[1] : (low[1] + high[1]) / 2, (low[2] + high[2]) / 2]; // prettier-ignore
  return scaled.map((body) =>
    body.parent === null
      ? { ...body, position: body.position.map((v, i) => v - away[i]!) as [number, number, number] }
      : body,
  );
}

function largerShape(shape: ProjectBody['shape'], factor: number): ProjectBody['shape'] {
  switch (shape.kind) {
    case 'box':
      return { ...shape, size: shape.size.map((v) => v * factor) as [number, number, number] };
    case 'quad':
      return { ...shape, size: [shape.size[0] * factor, shape.size[1] * factor] };
    case 'sphere':
      return { ...shape, radius: shape.radius * factor };
    case 'mesh':
      return { ...shape, positions: shape.positions.map((v) => v * factor) };
    case 'point':
      return shape;
  }
}

/** The least and the greatest of each coordinate of placed bodies. */
function boxOf(placed: readonly PlacedBody[]): readonly [Vec3, Vec3] {
  const low = [Infinity, Infinity, Infinity] as [number, number, number];
  const high = [-Infinity, -Infinity, -Infinity] as [number, number, number];
  const take = (p: Vec3, r: number) => {
    for (const i of [0, 1, 2] as const) {
      low[i] = Math.min(low[i], p[i] - r);
      high[i] = Math.max(high[i], p[i] + r);
    }
  };
  for (const one of placed) {
    const shape = worldShape(one);
    if (shape.kind === 'hull') for (const p of shape.points) take(p, 0);
    else take(shape.centre, shape.radius);
  }
  return [low, high];
}
