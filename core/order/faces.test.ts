import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies, type Body, type Shape } from '../bodies/body';
import { drawnMesh, lathe } from '../bodies/mesh';
import { quatAbout } from '../math/quat';
import { cross, distance, dot, normalize, sub, type Vec3 } from '../math/vec3';
import { castRay } from '../pick/pick';
import { faceOf, triangleAt, worldFace } from './faces';
import { normalOf } from './winding';
import { runs } from '../testing/seed';

const placedOf = (shape: Shape, more: Partial<Body> = {}) => {
  const made = placeBodies([{ id: 'a', shape, position: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null, castsShadow: true, ...more }]); // prettier-ignore
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.placed[0]!;
};
const tower = lathe([[0, 0], [3, 0], [2, 5], [0, 5]], 12); // prettier-ignore

describe('the face that a triangle is part of', () => {
  it('of a box is a side of it, counter-clockwise from outside', () => {
    const box = placedOf({ kind: 'box', size: [2, 4, 6] });
    for (let t = 0; t < 12; t++) {
      const face = worldFace(box, t)!;
      expect(face).toHaveLength(4);
      const normal = normalize(normalOf(face))!;
      // Outward: away from the middle, and the whole side.
      expect(dot(normal, face[0]!)).toBeGreaterThan(0.9);
      const sides = face.map((p, i) => distance(p, face[(i + 1) % 4]!)).sort((a, b) => a - b);
      expect([2, 4, 6]).toContain(sides[0]);
      expect(sides[0]).toBe(sides[1]);
      expect(sides[2]).toBe(sides[3]);
    }
    expect(worldFace(box, 12)).toBeNull();
  });

  it('of a lathe is its cap or a facet between two rings', () => {
    const { mesh } = drawnMesh({ kind: 'mesh', ...tower }, false);
    const sizes = new Set<number>();
    for (let t = 0; 3 * t < mesh.indices.length; t++) sizes.add(faceOf(mesh, t).length);
    expect([...sizes].sort((a, b) => a - b)).toEqual([4, 12]);
  });

  it('is the triangle alone where its plane’s triangles make no convex polygon', () => {
    // An L of three squares.
    const positions = [0, 0, 0, 1, 0, 0, 2, 0, 0, 0, 1, 0, 1, 1, 0, 2, 1, 0, 0, 2, 0, 1, 2, 0];
    const indices = [0, 1, 4, 0, 4, 3, 1, 2, 5, 1, 5, 4, 3, 4, 7, 3, 7, 6];
    for (let t = 0; t < 6; t++) expect(faceOf({ positions, indices }, t)).toHaveLength(3);
    // Two that touch in a corner alone are two.
    const touching = { positions: [0, 0, 0, 1, 0, 0, 0, 1, 0, -1, 0, 0, 0, -1, 0], indices: [0, 1, 2, 0, 3, 4] };
    expect(faceOf(touching, 0)).toEqual([0, 1, 2]);
    expect(faceOf(touching, 1)).toEqual([0, 3, 4]);
  });
});

describe('the triangle at a point', () => {
  it('is that which a ray has hit, or one that has the point too', () => {
    const number = fc.integer({ min: -40, max: 40 }).map((v) => v / 8);
    let hits = 0;
    fc.assert(
      fc.property(number, number, number, number, number, fc.boolean(), (x, y, z, turn, tilt, mirrored) => {
        const body = placedOf({ kind: 'mesh', ...tower }, { rotation: quatAbout([0, 0, 1], turn), position: [1, 2, -3], scale: [mirrored ? -2 : 2, 1, 1] }); // prettier-ignore
        const origin: Vec3 = [20 + x, 2 + y / 2, -3 + z / 4];
        const [hit] = castRay({ origin, direction: [-1, tilt / 20, 0.1] }, [body], { backFaces: true });
        if (!hit) return;
        hits++;
        const found = triangleAt(body, hit.point);
        const face = worldFace(body, found)!;
        const normal = normalize(normalOf(face))!;
        expect(Math.abs(dot(normal, sub(hit.point, face[0]!)))).toBeLessThan(1e-9 * 40);
        // Within all of its edges, whichever way it runs.
        const sides = face.map((p, i) => dot(cross(sub(face[(i + 1) % face.length]!, p), sub(hit.point, p)), normal));
        expect(Math.min(...sides)).toBeGreaterThan(-1e-7);
      }),
      { numRuns: runs(400) },
    );
    expect(hits).toBeGreaterThan(runs(60));
    expect(triangleAt(placedOf({ kind: 'point' }), [0, 0, 0])).toBe(-1);
  });
});
