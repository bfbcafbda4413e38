import { describe, expect, it } from 'vitest';
import { parseProject, readProject, writeProject } from '../formats/project';
import { saltmarrow } from './saltmarrow';

describe('Saltmarrow', () => {
  const project = saltmarrow();
  it('is a harbour of at least 60 bodies that hold together and survive a file', () => {
    expect(project.bodies.length).toBeGreaterThanOrEqual(60);
    expect(readProject(project)).toMatchObject({ ok: true });
    expect(parseProject(writeProject(project))).toEqual({ ok: true, project: JSON.parse(JSON.stringify(project)) });
  });
  it('has its surfaces the right way out', () => {
    for (const { id, shape } of project.bodies) {
      if (shape.kind !== 'mesh') continue;
      const at = (i: number) => [0, 1, 2].map((k) => shape.positions[shape.indices[i]! * 3 + k]!);
      let volume = 0;
      for (let i = 0; i < shape.indices.length; i += 3) {
        const [a, b, c] = [at(i), at(i + 1), at(i + 2)] as [number[], number[], number[]];
        volume +=
          a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) +
          a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) +
          a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!);
      }
      expect(volume, id).toBeGreaterThan(0);
    }
  });
});
