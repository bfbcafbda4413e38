import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { transformPoint } from '../math/mat4';
import { placedAt } from '../motion/bodies';
import { placeBodies, rootsOf, type Body } from './body';

const node = (id: string, parent: string | null): Body => ({
  ...{ id, parent, shape: { kind: 'point' }, castsShadow: true },
  ...{ position: [0, 0, 1], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
});
/** A chain of so many, each hanging on the one before, in any order of theirs. */
const chainOf = (count: number): Body[] =>
  Array.from({ length: count }, (_, i) => node(`n${i}`, i ? `n${i - 1}` : null));

describe('bodies that hang on one another', () => {
  it('are placed in any order of the list, however long the chain, and know their root', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(chainOf(12), { minLength: 12, maxLength: 12 }), (bodies) => {
        const made = placeBodies(bodies);
        expect(made.ok).toBe(true);
        if (made.ok)
          for (const { body, toWorld } of made.placed)
            expect(transformPoint(toWorld, [0, 0, 0])).toEqual([0, 0, Number(body.id.slice(1)) + 1]);
        expect([...new Set(rootsOf(bodies).values())]).toEqual(['n0']);
      }),
    );
    const long = chainOf(20_000).reverse();
    const made = placeBodies(long);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    expect(transformPoint(made.placed[0]!.toWorld, [0, 0, 0])).toEqual([0, 0, 20_000]);
    expect(rootsOf(long).get('n19999')).toBe('n0');
  });

  it('go along with the first of them, however long the chain', () => {
    const long = chainOf(20_000).reverse();
    const moving = long.map((body) =>
      body.id === 'n0' ? { ...body, motion: { kind: 'shuttle', to: [0, 0, 101], period: 4 } as const } : body,
    );
    const made = placeBodies(long);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const rest = new Map(made.placed.map((one) => [one.body.id, one]));
    const [x, y, z] = transformPoint(placedAt(moving, rest, 2).get('n19999')!.toWorld, [0, 0, 0]);
    expect([x, y]).toEqual([0, 0]);
    expect(z).toBeCloseTo(20_100, 6);
  });

  it('in a circle, or on one that is not there, are refused by name, once for each circle', () => {
    const circle = [node('a', 'c'), node('b', 'a'), node('c', 'b'), node('hangs on it', 'a'), node('alone', null)];
    const made = placeBodies(circle);
    expect(made).toMatchObject({ ok: false, problems: [{ code: 'parentCycle', path: 'bodies[0].parent' }] });
    expect(placeBodies([node('a', 'nobody'), node('b', 'a')])).toMatchObject({
      ok: false,
      problems: [{ code: 'parentMissing', path: 'bodies[0].parent', message: expect.stringContaining('“nobody”') }],
    });
    if (!made.ok) expect(made.problems).toHaveLength(1);
  });
});
