import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { presets } from '../core/conventions/conventions';
import { placeBodies } from '../core/bodies/body';
import { projectPoint } from '../core/convert/project';
import { codecOf } from '../core/conventions/codec';
import { transformPoint } from '../core/math/mat4';
import { cross, dot, sub, type Vec3 } from '../core/math/vec3';
import { conventions } from '../core/testing/arbitraries';
import { projectFrame } from './camera';
import { projectFromModel, projectFromPoints } from './projectFromGeometry';
import { readObj, type ObjPart } from './obj';
import { runs } from '../core/testing/seed';

const cube = `# a cube
mtllib none.mtl
o Crate
v -1 -1 -1
v 1 -1 -1
v 1 1 -1
v -1 1 -1
v -1 -1 1
v 1 -1 1
v 1 1 1
v -1 1 1
vn 0 0 1
f 4 3 2 1
f 5//1 6//1 7//1 8//1
f 1/1/1 2/1/1 6/1/1 5/1/1
f 3 4 8 7
f 1 5 8 4
f 2 3 7 \\
  6
`;
const parts = (text: string): readonly ObjPart[] => {
  const read = readObj(text);
  if (!read.ok) throw new Error(read.problems[0]!.message);
  return read.parts;
};
/** Six times the volume that triangles enclose: above 0 where they face outward. */
function volume(positions: readonly Vec3[], indices: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => positions[indices[i + k]!]!) as [Vec3, Vec3, Vec3];
    sum += dot(a, cross(b, c));
  }
  return sum;
}
const triples = (flat: readonly number[]): Vec3[] =>
  Array.from({ length: flat.length / 3 }, (_, i) => [flat[3 * i]!, flat[3 * i + 1]!, flat[3 * i + 2]!]);

describe('an OBJ model', () => {
  it('a comment that ends in a backslash swallows nothing', () => {
    const read = readObj('# drawn by C:\\tools\\\nv 0 0 0\nv 1 0 0 # one \\\nv 0 1 0\nf 1 2 3\n');
    expect(read.ok && read.parts[0]!.positions).toEqual([0, 0, 0, 1, 0, 0, 0, 1, 0]);
  });
  it('is read with its polygons cut, lines that go on, and what is left out named', () => {
    const read = readObj(cube);
    expect(read).toMatchObject({ ok: true, left: ['materials', 'normals'] });
    const [crate] = parts(cube);
    expect(crate!.name).toBe('Crate');
    expect(crate!.positions).toHaveLength(24);
    expect(crate!.indices).toHaveLength(36);
    expect(volume(triples(crate!.positions), crate!.indices)).toBeCloseTo(48, 12);
  });

  it('counts vertices from either end, and parts by objects or else by groups', () => {
    const text = 'v 0 0 0\nv 1 0 0\nv 0 1 0\ng left\nf -3 -2 -1\nv 5 5 5\ng right side\nf 2 3 4\ng left\nf 1 3 2\n';
    const [left, right] = parts(text);
    expect([left!.name, left!.indices.length, right!.name]).toEqual(['left', 6, 'right side']);
    expect(right!.positions).toEqual([1, 0, 0, 0, 1, 0, 5, 5, 5]);
    expect(parts(`o all\n${text}`).map(({ name }) => name)).toEqual(['all']);
  });

  it('cuts a polygon that is not convex without leaving it, its winding kept, whichever way it lies', () => {
    const unit = fc.double({ min: -1, max: 1, noNaN: true });
    const vectors = fc.tuple(unit, unit, unit);
    // A star with points and notches: its area is known.
    const radii = fc.array(fc.double({ min: 0.2, max: 3, noNaN: true }), { minLength: 4, maxLength: 16 });
    fc.assert(
      fc.property(vectors, vectors, radii, (u, v, star) => {
        const n = cross(u, v);
        fc.pre(Math.hypot(...n) > 0.05);
        const corners = star.map((r, i): Vec3 => {
          const a = (2 * Math.PI * i) / star.length;
          const [x, y] = [r * Math.cos(a), r * Math.sin(a)];
          return [u[0] * x + v[0] * y, u[1] * x + v[1] * y, u[2] * x + v[2] * y];
        });
        const text = `${corners.map((p) => `v ${p.join(' ')}`).join('\n')}\nf ${corners.map((_, i) => i + 1).join(' ')}\n`;
        const [part] = parts(text);
        const p = triples(part!.positions);
        let area = 0;
        for (let i = 0; i < part!.indices.length; i += 3) {
          const [a, b, c] = [0, 1, 2].map((k) => p[part!.indices[i + k]!]!) as [Vec3, Vec3, Vec3];
          const twice = dot(cross(sub(b, a), sub(c, a)), n) / Math.hypot(...n);
          expect(twice).toBeGreaterThan(-1e-9);
          area += twice / 2;
        }
        const own = corners.reduce((sum, a, i) => sum + dot(cross(a, corners[(i + 1) % corners.length]!), n), 0);
        expect(area).toBeCloseTo(own / 2 / Math.hypot(...n), 9);
      }),
      { numRuns: runs(300) },
    );
  });

  it.each([
    ['a vertex short', 'v 1 2\nf 1 1 1', 'line 1', /has 2 numbers/],
    ['a word for a number', 'v 1 two 3', 'line 1', /y is “two”/],
    ['a number beyond', 'v 1 2 1e31', 'line 1', /z is “1e31”/],
    ['a face of two', 'v 0 0 0\nf 1 1', 'line 2', /and this one has 2/],
    ['a vertex not there', 'v 0 0 0\nv 1 0 0\nf 1 2 3', 'line 3', /vertex 3, and there are 2 by then/],
    ['vertex 0', 'v 0 0 0\nf 0 1 1', 'line 2', /vertex 0/],
    ['no corner', 'v 0 0 0\nf 1 1 x', 'line 2', /“x” is no corner/],
    ['another statement', 'v 0 0 0\nhello', 'line 2', /“hello” is no statement/],
    ['no faces', 'v 0 0 0\n', '', /no faces/],
  ])('refuses %s by its line', (_, text, path, says) => {
    const read = readObj(text);
    expect(read.ok ? [] : read.problems[0]).toMatchObject({ path, message: expect.stringMatching(says) });
  });

  it('is refused where it is too large to be worked with, and says how far it has been read', () => {
    const shares: number[] = [];
    const read = readObj(`v 0 0 0\nv 1 0 0\nv 0 1 0\n${'f 1 2 3\n'.repeat(1_000_001)}`, (share) => shares.push(share));
    expect(read.ok ? [] : read.problems[0]).toMatchObject({ message: expect.stringMatching(/1,000,001 triangles/) });
    expect(shares.length).toBeGreaterThan(2);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
  });
});

describe('a project gathered', () => {
  const given = (c = presets.WebGPU) => ({ id: 'one', name: 'One', conventions: c });

  it('from a model has the file’s numbers in any conventions, faces outward, and all of it in the picture', () => {
    fc.assert(
      fc.property(conventions, (c) => {
        const read = projectFromModel(parts(cube), 'crate', given(c));
        if (!read.ok) throw new Error(read.problems[0]!.message);
        const { project } = read;
        const made = placeBodies(project.bodies);
        const frame = projectFrame(project, codecOf(c));
        if (!made.ok || !frame.ok) throw new Error();
        const [body] = made.placed;
        const shape = body!.body.shape;
        if (shape.kind !== 'mesh') throw new Error();
        const world = triples(shape.positions).map((p) => transformPoint(body!.toWorld, p));
        expect(volume(world, shape.indices)).toBeCloseTo(48, 9);
        const own = world.map((p) => codecOf(c).toWorld(p));
        for (const p of own) expect(p.map((v) => Math.abs(v))).toEqual([1, 1, 1]);
        for (const p of world) {
          const { picture } = projectPoint(frame.value, p);
          if (!picture.ok) throw new Error('behind the eye');
          const { across, upward, depth01 } = picture.value;
          expect(Math.max(Math.abs(across), Math.abs(upward))).toBeLessThan(1);
          expect(Math.min(depth01.near, depth01.far)).toBeGreaterThan(0);
        }
      }),
      { numRuns: runs(60) },
    );
  });

  it('from points has each as a body by its name, or their table alone; flat or not, all in the picture', () => {
    const points = fc.array(fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1e4, max: 1e4, noNaN: true }))), { minLength: 1, maxLength: 40 }); // prettier-ignore
    fc.assert(
      fc.property(points, fc.boolean(), (list, flat) => {
        const flatten = (p: number[]) => (flat ? [p[0]!, p[1]!, 0] : p);
        const read = projectFromPoints(new Float64Array(list.flatMap(flatten)), list.map(() => 'Buoy'), flat, given()); // prettier-ignore
        if (!read.ok) throw new Error(read.problems[0]!.message);
        const { bodies } = read.project;
        expect(bodies.map(({ position }) => position.map((v) => v + 0))).toEqual(list.map((p) => flatten(p).map((v) => v + 0))); // prettier-ignore
        expect(new Set(bodies.map(({ name }) => name)).size).toBe(list.length);
        expect(bodies[0]!.name).toBe('Buoy');
        const frame = projectFrame(read.project, codecOf(presets.WebGPU));
        if (!frame.ok) throw new Error(frame.problems[0]!.message);
        for (const { position } of bodies) {
          const { picture } = projectPoint(frame.value, position);
          if (!picture.ok) throw new Error('behind the eye');
          expect(Math.max(Math.abs(picture.value.across), Math.abs(picture.value.upward))).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: runs(200) },
    );
    const many = projectFromPoints(new Float64Array(3 * 2001), null, false, given());
    expect(many.ok && many.project.bodies).toEqual([]);
  });

  it('takes no word for a statement that only objects have, and refuses a face that would take long', () => {
    const triangle = 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n';
    for (const word of ['constructor', 'toString', '__proto__'])
      expect(readObj(`${triangle}${word} 1\n`)).toMatchObject({
        ok: false,
        problems: [{ path: 'line 5', message: expect.stringContaining(`“${word}” is no statement`) }],
      });
    const round = (count: number) =>
      Array.from({ length: count }, (_, i) => `v ${Math.cos((i / count) * 6.28)} ${Math.sin((i / count) * 6.28)} 0`).join('\n') + // prettier-ignore
      `\nf ${Array.from({ length: count }, (_, i) => i + 1).join(' ')}\n`;
    expect(readObj(round(50_000))).toMatchObject({
      ok: false,
      problems: [{ path: 'line 50001', message: expect.stringContaining('at most 10,000 corners') }],
    });
    const made = readObj(round(2_000));
    expect(made.ok && made.parts[0]!.indices.length).toBe(3 * 1_998);
  });
});
