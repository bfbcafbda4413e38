import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import type { ProjectBody } from '../../formats/project';
import { bodiesAfter, bodiesChanged } from '../pictures/render/protocol';
import { packProject, packShape, unpackProject, unpackShape } from './packing';

const meshes = fc.tuple(
  fc.array(fc.double({ noNaN: true }), { minLength: 9, maxLength: 60 }),
  fc.integer({ min: 0, max: 2000 }),
);
const meshOf = ([positions, triangles]: [number[], number]) => ({
  kind: 'mesh' as const,
  positions,
  indices: Array.from({ length: 3 * triangles }, (_, i) => i % 3),
});

describe('large meshes at the borders of the document', () => {
  it('come back as the lists they were, and small ones are left as they are', () => {
    fc.assert(
      fc.property(meshes, (given) => {
        const shape = meshOf(given);
        const packed = packShape(shape);
        const told = structuredClone(packed);
        expect(unpackShape(told)).toEqual(shape);
        expect(Array.isArray(unpackShape(told).positions)).toBe(true);
        expect(ArrayBuffer.isView(packed.positions)).toBe(shape.indices.length > 3000);
        // The same object for the same shape: what two states have in common is kept once.
        expect(packShape(shape)).toBe(packed);
      }),
    );
  });

  it('leave a project what it is, with what its states have in common in common', () => {
    const project = saltmarrow();
    const large = { ...project.bodies[0]!, id: 'large', shape: meshOf([Array.from({ length: 900 }, Math.sqrt), 1500]) };
    const before = { ...project, bodies: [...project.bodies, large] };
    const after = { ...before, name: 'another' };
    const kept = structuredClone([packProject(before), packProject(after)]);
    expect(kept[0]!.bodies).toBe(kept[1]!.bodies);
    expect(kept.map(unpackProject)).toEqual([before, after]);
    // What is no project is left alone, and so is what is kept in a form of before.
    for (const odd of [null, 7, { bodies: 'no' }, { bodies: [null] }, { bodies: [{}] }, before])
      expect(unpackProject(odd)).toEqual(odd);
    expect(JSON.stringify(unpackProject(kept[0]!))).toBe(JSON.stringify(before));
  });

  it('are told to the pictures once, as lists on the other side', () => {
    const large = {
      ...saltmarrow().bodies[0]!,
      id: 'large',
      shape: meshOf([Array.from({ length: 900 }, Math.cbrt), 1500]),
    };
    const first: ProjectBody[] = [large];
    const told = bodiesAfter([], structuredClone(bodiesChanged([], first)));
    expect(told).toEqual(first);
    const moved = [{ ...large, position: [1, 2, 3] as [number, number, number] }];
    const change = structuredClone(bodiesChanged(first, moved));
    expect(change).toMatchObject([{ shape: 0 }]);
    expect(bodiesAfter(told, change)[0]!.shape).toBe(told[0]!.shape);
  });
});
