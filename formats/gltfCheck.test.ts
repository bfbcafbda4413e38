import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { soaks } from '../core/testing/seed';
import { gltfProblems } from './gltfCheck';
import { readScene } from './gltfRead';
import { writeGlb, writeGltf } from './gltfWrite';
import type { SceneFile } from './scene';

/* Files that are no proper glTF are refused with a sentence and its place, before anything large is made of them. */

const bytesOf = (json: unknown) => new TextEncoder().encode(JSON.stringify(json));
const quad: SceneFile = {
  name: 'Quay',
  cameras: [],
  courses: [{ of: 'body', id: 'b', times: [0, 1], positions: [[0, 0, 0], [1, 0, 0]], rotations: [[0, 0, 0, 1], [0, 0, 0, 1]] }], // prettier-ignore
  bodies: [
    {
      ...{ id: 'b', name: 'Quay', parent: null, position: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1] },
      shape: { kind: 'mesh', positions: [0, 0, 0, 1, 0, 0, 0, 1, 0], indices: [0, 1, 2] },
    },
    { id: 'c', name: 'Bollard', parent: 'b', position: [0, 0, 0], rotation: [0, 0, 0, 1], scale: [1, 1, 1], shape: { kind: 'point' } }, // prettier-ignore
  ],
};

describe('a count without bytes for it', () => {
  const asset = { version: '2.0' };
  const asked = (more: object) => ({ asset, scenes: [{ nodes: [0] }], nodes: [{ mesh: 0 }], ...more });
  const mesh = [{ primitives: [{ attributes: { POSITION: 0 } }] }];

  it('is refused by its place, whether a buffer view holds it or not', async () => {
    const accessor = { componentType: 5126, type: 'VEC3', count: 200_000_000 };
    const alone = await readScene(bytesOf(asked({ meshes: mesh, accessors: [accessor] })), 'x');
    expect(alone).toMatchObject({ ok: false, problems: expect.arrayContaining([{ path: 'accessors[0].count', message: expect.stringContaining('no buffer view') }]) as unknown }); // prettier-ignore
    const held = asked({ meshes: mesh, accessors: [{ ...accessor, bufferView: 0 }], bufferViews: [{ buffer: 0, byteLength: 36 }], buffers: [{ byteLength: 36, uri: `data:,${btoa('x'.repeat(36))}` }] }); // prettier-ignore
    expect(await readScene(bytesOf(held), 'x')).toMatchObject({ ok: false, problems: expect.arrayContaining([expect.objectContaining({ path: 'accessors[0].count' })]) as unknown }); // prettier-ignore
    const cut = asked({ meshes: mesh, accessors: [{ ...accessor, count: 3, bufferView: 0 }], bufferViews: [{ buffer: 0, byteLength: 36 }], buffers: [{ byteLength: 36, uri: `data:,${btoa('x'.repeat(20))}` }] }); // prettier-ignore
    expect(await readScene(bytesOf(cut), 'x')).toMatchObject({ ok: false, problems: [{ path: 'buffers[0].byteLength', message: expect.stringContaining('20 are there') }] }); // prettier-ignore
  });

  it('counts a mesh as often as nodes show it', () => {
    const meshes = [{ primitives: [{ attributes: { POSITION: 0 } }] }];
    const accessors = [{ componentType: 5126, type: 'VEC3', count: 900_000 }];
    const nodes = Array.from({ length: 4 }, () => ({ mesh: 0 }));
    expect(gltfProblems({ asset, nodes, meshes, accessors }, [])).toMatchObject([{ path: 'meshes', message: expect.stringContaining('1,200,000 triangles') }]); // prettier-ignore
    expect(gltfProblems({ asset, nodes: nodes.slice(1), meshes, accessors }, [])).toEqual([]);
  });

  it('finds nodes that go round in a circle, have two parents or hang too deep', () => {
    const paths = (nodes: object[]) => gltfProblems({ asset, nodes }, []).map(({ message }) => message);
    expect(paths([{ children: [1] }, { children: [0] }])[0]).toContain('in a circle');
    expect(paths([{ children: [1] }, {}, { children: [1] }])[0]).toContain('two parents, 0 and 2');
    expect(paths(Array.from({ length: 400 }, (_, i) => ({ children: i < 399 ? [i + 1] : [] })))[0]).toContain('deep');
    expect(paths(Array.from({ length: 200 }, (_, i) => ({ children: i < 199 ? [i + 1] : [] })))).toEqual([]);
  });

  it('numbers 10,000 equal names one after another', async () => {
    const nodes = Array.from({ length: 10_000 }, () => ({ name: 'Pile' }));
    const read = await readScene(bytesOf({ asset, scenes: [{ nodes: nodes.map((_, i) => i) }], nodes }), 'x');
    expect(read.ok && new Set(read.scene.bodies.map(({ name }) => name)).size).toBe(10_000);
  });
});

describe('a glTF with some of it changed', () => {
  const junk = fc.oneof(
    fc.constantFrom<unknown>(null, true, '', 'x', -1, 0.5, 1e9, 5126, 4294967295, [], {}, [null], [[]], [1e9], {
      length: 3,
    }),
    fc.jsonValue({ maxDepth: 2 }),
  );
  const placesOf = (value: unknown, found: [Record<string, unknown>, string][] = []) => {
    if (typeof value !== 'object' || value === null) return found;
    for (const [key, inner] of Object.entries(value)) {
      found.push([value as Record<string, unknown>, key]);
      placesOf(inner, found);
    }
    return found;
  };

  it('is read, or refused with sentences, and never throws', async () => {
    const whole = JSON.parse((await writeGltf(quad, 1)).text) as object;
    const glb = (await writeGlb(quad, 1)).bytes;
    await fc.assert(
      fc.asyncProperty(
        fc.boolean(),
        fc.array(fc.tuple(fc.nat(), fc.nat(4), junk), { minLength: 1, maxLength: 3 }),
        async (binary, changes) => {
          let bytes: Uint8Array;
          if (binary) {
            bytes = glb.slice();
            for (const [at, kind] of changes)
              if (kind < 3) bytes[at % bytes.length] = (at >> 8) & 255;
              else bytes = bytes.slice(0, at % (bytes.length + 1));
          } else {
            const json = structuredClone(whole);
            for (const [at, kind, other] of changes) {
              const places = placesOf(json);
              if (!places.length) continue;
              const [parent, key] = places[at % places.length]!;
              if (kind === 0) delete parent[key];
              else if (kind === 1) parent[key] = [parent[key], other];
              else parent[key] = structuredClone(other);
            }
            bytes = bytesOf(json);
          }
          const read = await readScene(bytes, 'x');
          if (read.ok) return;
          expect(read.problems.length).toBeGreaterThan(0);
          for (const { message } of read.problems) {
            expect(message.length).toBeGreaterThan(8);
            expect(message).not.toMatch(/\n\s+at |\[object/);
          }
        },
      ),
      { numRuns: soaks ? 5_000 : 400 },
    );
  }, 300_000);
});
