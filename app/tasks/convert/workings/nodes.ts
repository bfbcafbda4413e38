import { localTransform, type Body } from '../../../../core/bodies/body';
import { normalMatrix, stackOf } from '../../../../core/convert/nodes';
import { invertAffine, mat4, transpose, transformPoint, type Mat4 } from '../../../../core/math/mat4';
import { four, type WorkingBuilder } from '../../../working/builder';
import type { Line } from '../../../working/tex';

/* Workings of the hierarchy of nodes. */

const linear = (m: Mat4): number[] => [0, 1, 2].flatMap((i) => [m[4 * i]!, m[4 * i + 1]!, m[4 * i + 2]!]);

/**
 * The normal matrix, level by level: the inverse transpose of R·S is R·S⁻¹, and the inverse
 * transpose of a product is the product of the inverse transposes, in the same order.
 */
export const normal: WorkingBuilder = ({ placed, codec: e, project }, t) => {
  const id = project.probe.body;
  const own = id === null ? undefined : placed.get(id);
  if (!own) return [];
  const levels = stackOf(placed, own.body.id);
  const nameOf = (body: Body) => project.bodies.find((one) => one.id === body.id)!.name;
  /** Nine numbers for column vectors as they stand in these conventions. */
  const written = (m: Mat4) => linear(t.rows ? transpose(m) : m);
  const lines = levels.map(({ body, local }, i): Line => {
    const turn = e.toModel(localTransform({ ...body, position: [0, 0, 0], scale: [1, 1, 1] }));
    const sizes = e.toSizes(body.scale);
    const over = (size: number) => (size === 1 ? t.number(1, 'body') : t.fraction('1', t.number(size, 'body')));
    const inverse = t.grid([0, 1, 2].flatMap((r) => [0, 1, 2].map((c) => (r === c ? over(sizes[r]!) : '0'))));
    return {
      id: `line-n${i}`,
      says: `${nameOf(body)}: its turn, and one over its scale`,
      name: levels.length > 1 ? `N_${i + 1}` : 'N',
      formula: t.productOf([t.matrix(linear(turn), () => 'body'), inverse]),
      result: written(e.toModel(normalsOf(local))),
    };
  });
  if (levels.length < 2) return lines;
  return [
    ...lines,
    {
      ...{ id: 'line-N', says: 'One after another, from the world down', name: 'N' },
      // What the lines above come to already stands as it is to be written.
      formula: t.productOf(lines.map(({ id: line, result }) => t.grid(result.map((v) => t.number(v, line))))),
      result: written(e.toModel(normalsOf(own.toWorld, own.toLocal))),
    },
  ];
};

/** The normal matrix as one of sixteen numbers. */
function normalsOf(m: Mat4, back?: Mat4): Mat4 {
  const toLocal = back ?? invertAffine(m)!;
  const n = normalMatrix({ toLocal });
  return mat4([n[0]!, n[1]!, n[2]!, 0, n[3]!, n[4]!, n[5]!, 0, n[6]!, n[7]!, n[8]!, 0, 0, 0, 0, 1]);
}

/** The probe in the space of another node: up to the world, and down by the other's inverse. */
export const between: WorkingBuilder = ({ placed, chain, codec: e, project }, t, { node }) => {
  if (!chain.ok) return [];
  const { local, world } = chain.value;
  const from = project.probe.body === null ? undefined : placed.get(project.probe.body);
  const to = node ? placed.get(node) : undefined;
  const lines: Line[] = [];
  if (from)
    lines.push({
      ...{ id: 'line-world', says: 'Its own space to the world', name: 'p' },
      formula: t.product(
        t.matrix(e.toModel(from.toWorld), () => 'body'),
        four(e.toWorld(local), t, 'probe'),
      ),
      result: [...e.toWorld(world), 1],
    });
  if (to)
    lines.push({
      ...{ id: 'line-there', says: 'The world to the other’s space, by its inverse', name: 'q' },
      formula: t.product(
        t.matrix(e.toModel(to.toLocal), () => 'space'),
        four(e.toWorld(world), t, from ? 'line-world' : 'probe'),
      ),
      result: [...e.toWorld(transformPoint(to.toLocal, world)), 1],
    });
  return lines;
};
