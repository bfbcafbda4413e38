import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { localTransform, placeBodies, type Body, type PlacedBody } from '../bodies/body';
import { identity, multiply, transformDirection, transformPoint } from '../math/mat4';
import { normalizeQuat, quatAbout, type Quat } from '../math/quat';
import { dot, normalize, sub, type Vec3 } from '../math/vec3';
import { magnitude, real, vectors } from '../testing/arbitraries';
import {
  betweenNodes,
  decompose,
  descendsFrom,
  normalMatrix,
  reparented,
  rotatedAbout,
  stackOf,
  transformNormal,
} from './nodes';

const rotations: fc.Arbitrary<Quat> = fc
  .tuple(real(-1, 1), real(-1, 1), real(-1, 1), real(-1, 1))
  .map((q) => normalizeQuat(q) ?? [0, 0, 0, 1]);
const sizes = fc.tuple(magnitude(0.1, 10), magnitude(0.1, 10), magnitude(0.1, 10));
const even = magnitude(0.1, 10).map((s): Vec3 => [s, s, s]);
const transforms = (scales: fc.Arbitrary<Vec3>) =>
  fc.record({ position: vectors(50), rotation: rotations, scale: scales });

/** A chain of nodes, each the child of the one before, and a free one beside it. */
const family = (scales: fc.Arbitrary<Vec3>) =>
  fc.array(transforms(scales), { minLength: 2, maxLength: 5 }).map((list) => {
    const bodies = list.map((t, i): Body => ({
      ...{ id: `n${i}`, shape: { kind: 'point' }, castsShadow: true, ...t },
      parent: i === 0 || i === list.length - 1 ? null : `n${i - 1}`,
    }));
    const made = placeBodies(bodies);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    return new Map(made.placed.map((one) => [one.body.id, one]));
  });
const last = (placed: ReadonlyMap<string, PlacedBody>) => [...placed.values()].at(-2)!;
const beside = (placed: ReadonlyMap<string, PlacedBody>) => [...placed.values()].at(-1)!;

const near = (a: readonly number[], b: readonly number[], tolerance: number) =>
  a.forEach((v, i) => expect(Math.abs(v - b[i]!)).toBeLessThan(tolerance * (1 + Math.max(...b.map(Math.abs)))));

describe('a stack of transforms', () => {
  it('is the product of its levels, each multiplied from the right', () => {
    fc.assert(
      fc.property(family(sizes), (placed) => {
        const levels = stackOf(placed, last(placed).body.id);
        expect(levels.map(({ body }) => body.id)).toEqual(levels.map((_, i) => `n${i}`));
        let top = identity;
        for (const { local, toWorld } of levels) {
          top = multiply(top, local);
          near(top, toWorld, 1e-12);
        }
        expect(stackOf(placed, 'nobody')).toEqual([]);
        if (levels.length > 1) expect(descendsFrom(placed, levels.at(-1)!.body.id, 'n0')).toBe(true);
        expect(descendsFrom(placed, 'n0', 'n0')).toBe(false);
      }),
    );
  });

  it('carries a point from any node to any other and back', () => {
    fc.assert(
      fc.property(family(sizes), vectors(20), (placed, p) => {
        const [a, b] = [last(placed), beside(placed)];
        near(betweenNodes(b, a, betweenNodes(a, b, p)), p, 1e-6);
        near(betweenNodes(null, a, betweenNodes(a, null, p)), p, 1e-7);
        expect(betweenNodes(a, a, p)).toBe(p);
        near(betweenNodes(b, null, betweenNodes(a, b, p)), transformPoint(a.toWorld, p), 1e-7);
      }),
    );
  });
});

describe('normals', () => {
  it('stay square to what lies in the surface, under unequal scale too', () => {
    fc.assert(
      fc.property(family(sizes), vectors(1), vectors(1), (placed, u, v) => {
        const node = last(placed);
        const [along, n] = [normalize(u), normalize(v)];
        if (!along || !n) return;
        // Of two that nearly agree little more is left than their rounding.
        const rest = sub(along, n.map((x) => x * dot(along, n)) as unknown as Vec3);
        const inSurface = Math.hypot(...rest) > 1e-3 ? normalize(rest) : null;
        if (!inSurface) return;
        const normal = normalize(transformNormal(normalMatrix(node), n))!;
        const moved = normalize(transformDirection(node.toWorld, inSurface))!;
        expect(Math.abs(dot(normal, moved))).toBeLessThan(1e-7);
      }),
    );
  });
  it('of a slope in a body stretched upward lean the other way', () => {
    const made = placeBodies([
      { id: 'a', shape: { kind: 'point' }, position: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 2, 1], parent: null, castsShadow: true }, // prettier-ignore
    ]);
    if (!made.ok) throw new Error();
    expect(transformNormal(normalMatrix(made.placed[0]!), [1, 1, 0])).toEqual([1, 0.5, 0]);
  });
});

describe('another parent', () => {
  it('keeps the place where ancestors are scaled evenly', () => {
    fc.assert(
      fc.property(family(even), (placed) => {
        const [node, parent] = [last(placed), beside(placed)];
        const t = reparented(node, parent);
        if (!t) throw new Error('evenly scaled nodes never shear');
        near(multiply(parent.toWorld, localTransform(t)), node.toWorld, 1e-8);
        near(localTransform(reparented(node, null)!), node.toWorld, 1e-8);
      }),
    );
  });
  it('has no transform where a turned node under unequal scale is sheared', () => {
    const made = placeBodies([
      { id: 'a', shape: { kind: 'point' }, position: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 3, 1], parent: null, castsShadow: true }, // prettier-ignore
      { id: 'b', shape: { kind: 'point' }, position: [0, 1, 0], rotation: quatAbout([0, 0, 1], 0.5), scale: [1, 1, 1], parent: 'a', castsShadow: true }, // prettier-ignore
    ]);
    if (!made.ok) throw new Error();
    expect(reparented(made.placed[1]!, null)).toBeNull();
  });
  it('of a mirrored node stays mirrored', () => {
    fc.assert(
      fc.property(transforms(sizes), (t) => {
        const mirrored = { ...t, scale: [t.scale[0], -t.scale[1], t.scale[2]] as Vec3 };
        const again = decompose(localTransform(mirrored))!;
        expect(again.scale[0]).toBeLessThan(0);
        near(localTransform(again), localTransform(mirrored), 1e-9);
      }),
    );
  });
});

it('a node turned about a pivot keeps the pivot’s place and the distance of everything from it', () => {
  fc.assert(
    fc.property(transforms(sizes), vectors(5), vectors(5), rotations, (t, pivot, p, turn) => {
      const turned = rotatedAbout(t, pivot, turn);
      const [before, after] = [localTransform(t), localTransform(turned)];
      near(transformPoint(after, pivot), transformPoint(before, pivot), 1e-9);
      const away = (m: typeof before) => Math.hypot(...sub(transformPoint(m, p), transformPoint(m, pivot)));
      expect(Math.abs(away(after) - away(before))).toBeLessThan(1e-9 * (1 + away(before)));
    }),
  );
  // A quarter turn about +y takes +x to −z: the turn is counter-clockwise seen from above.
  const quarter = quatAbout([0, 1, 0], Math.PI / 2);
  near(rotatedAbout({ position: [1, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] }, [-1, 0, 0], quarter).position, [0, 0, -1], 1e-15); // prettier-ignore
});
