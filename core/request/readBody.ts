import { meshProblems, type Body } from '../bodies/body';
import { normalizeQuat } from '../math/quat';
import type { Vec3 } from '../math/vec3';
import { readValue } from '../quantities/convert';
import type { QuantityContext } from '../quantities/kinds';
import { reject, type Read } from '../reasons';
import { bodySchema, type RequestBody } from './bodySchema';
import { pointProblem } from './pointProblem';

/** Converts a request's body to canonical space, or returns its problems, with paths below `bodies[index]`. */
export function readBody(given: RequestBody, index: number, context: QuantityContext): Read<Body> {
  const at = `bodies[${index}]`;
  const { world } = context;
  if (given.position.length !== world.dimensions) return reject(pointProblem(`${at}.position`, world));
  if (given.foot && given.foot.length !== world.dimensions) return reject(pointProblem(`${at}.foot`, world));
  const rotation = normalizeQuat(given.rotation ?? [0, 0, 0, 1]);
  if (!rotation)
    return reject({
      path: `${at}.rotation`,
      code: 'quaternionZero',
      message: `The rotation of “${given.id}” has no length. The identity is [0, 0, 0, 1].`,
    });
  if (given.shape.kind === 'box' && given.shape.size.length === 2 && world.hasDepth)
    return reject({ path: `${at}.shape.size`, message: 'A box has three sizes, along x, y and z.' });
  if (given.shape.kind === 'mesh') {
    const problems = meshProblems(given.shape, `${at}.shape`);
    if (problems.length) return reject(...problems);
  }
  const read = readValue(bodySchema, { ...given, rotation: [...rotation] }, context);
  const { scale = 1 } = read;
  return {
    ok: true,
    value: {
      id: read.id,
      shape: read.shape as Body['shape'],
      position: read.position,
      rotation: read.rotation!,
      scale: typeof scale === 'number' ? [scale, scale, scale] : (scale as Vec3),
      parent: read.parent ?? null,
      castsShadow: read.castsShadow ?? true,
      ...(read.foot && { foot: read.foot }),
    },
  };
}
