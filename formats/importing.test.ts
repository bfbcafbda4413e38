import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeBodies } from '../core/bodies/body';
import { defaultConventions } from '../core/conventions/conventions';
import { codecOf } from '../core/conventions/codec';
import { saltmarrow } from '../demo/saltmarrow';
import { saltmarrowChart } from '../demo/chart';
import { projectFrame, projectRequest } from './camera';
import { readPoints } from './csv';
import { readImport, type Imported } from './importing';
import { writeProject } from './project';
import { soaks } from '../core/testing/seed';

const context = { id: 'new', conventions: defaultConventions };

const harbour = saltmarrow();
const small = { ...harbour, bodies: harbour.bodies.slice(0, 6) };
const sources: readonly (readonly [string, string])[] = [
  ['harbour.astrolabe.json', writeProject({ ...small, probe: { ...small.probe, body: null } })],
  ['chart.astrolabe.json', writeProject({ ...saltmarrowChart(), tiles: null })],
  ['one.request.json', JSON.stringify(projectRequest(small, codecOf(defaultConventions), [1, 2, 3]), null, 1)],
  ['points.csv', 'name,x,y,z\nBuoy 1,1,2,3\nBuoy 2,-4.5,5e2,6\n"Quay, north",7,8,9\n'],
  [
    'crate.obj',
    'o Crate\nv -1 -1 0.5\nv 1 -1 0\nv 1 1 0\nv -1 1 0\nvn 0 0 1\nf 1//1 2//1 3//1 4//1\ng top\nf -1 -2 -3\n',
  ],
];

/**
 * What goes wrong with files on their way: torn, doubled, letters changed, numbers grown, pieces of
 * other files in between.
 */
type Fault = (text: string) => string;
const strange = ['', '\0', '\u{1F30A}', 'NaN', '1e999', '-', '{}', '[]', 'null', '"', '\\', '\n', '\t', ',', '9'.repeat(400), '__proto__', '-0', '1e30', '1e-320']; // prettier-ignore
const faults: fc.Arbitrary<Fault> = fc.oneof(
  fc.nat().map(
    (n): Fault =>
      (text) =>
        text.slice(0, n % (text.length + 1)),
  ),
  fc.nat().map(
    (n): Fault =>
      (text) =>
        text.slice(n % (text.length + 1)),
  ),
  fc.tuple(fc.nat(), fc.nat({ max: 400 })).map(([n, size]): Fault => (text) => text.slice(0, n % text.length) + text.slice((n % text.length) + size)), // prettier-ignore
  fc.tuple(fc.nat(), fc.constantFrom(...strange)).map(([n, put]): Fault => (text) => text.slice(0, n % (text.length + 1)) + put + text.slice(n % (text.length + 1))), // prettier-ignore
  fc.tuple(fc.nat(), fc.constantFrom(...strange)).map(([n, put]): Fault => (text) => {
    // One of its words, numbers or names, gives way to something strange.
    const words = [...text.matchAll(/[-\w.+]+/g)];
    const word = words[n % Math.max(1, words.length)];
    return word ? text.slice(0, word.index) + put + text.slice(word.index + word[0].length) : text;
  }),
  fc.tuple(fc.nat(), fc.nat(), fc.constantFrom(...sources)).map(([n, m, [, other]]): Fault => (text) => text.slice(0, n % (text.length + 1)) + other.slice(m % other.length) + text.slice(n % (text.length + 1))), // prettier-ignore
  fc.constant<Fault>((text) => text + text),
);

describe('what comes in', () => {
  it.each(sources)('%s is taken as what it is', (name, text) => {
    const read = readImport(text, name, context);
    expect(read).toMatchObject(
      name.endsWith('.csv') ? { ok: true, kind: 'points' } : { ok: true, kind: 'project', project: { id: 'new' } },
    );
    // Pasted it has no name, and is known by what stands in it.
    const pasted = readImport(text, 'What was pasted', context);
    expect(pasted.ok && pasted.kind).toBe(name.endsWith('.csv') ? 'points' : 'project');
  });

  it('mutated thousands of times is taken whole or refused with a sentence and its place, never half', () => {
    const runs = soaks ? 10_000 : 1_000;
    let [taken, refused] = [0, 0];
    fc.assert(
      fc.property(
        fc.constantFrom(...sources),
        fc.array(faults, { minLength: 1, maxLength: 2 }),
        ([name, text], list) => {
          const broken = list.reduce((now, fault) => fault(now), text);
          const read: Imported = readImport(broken, name, context);
          const problems = read.ok ? pointsProblems(read, broken) : read.problems;
          if (problems.length) {
            refused++;
            for (const { message, path } of problems) {
              expect(message, broken.slice(0, 200)).toMatch(/^.{12,}[.?]$/s);
              expect(typeof path).toBe('string');
            }
            return;
          }
          taken++;
          if (!read.ok || read.kind !== 'project') return;
          // What is taken can be worked with: its bodies have places, and its camera is one or says
          // why not.
          expect(placeBodies(read.project.bodies).ok).toBe(true);
          projectFrame(read.project, codecOf(read.project.conventions));
        },
      ),
      { numRuns: runs },
    );
    // A test in which all fell to one side would be no test.
    expect(Math.min(taken, refused)).toBeGreaterThan(runs / 20);
  }, 300_000);

  it('too long to be worked with is refused before it is read', () => {
    const read = readImport('1,2,3\n'.repeat(11_000_000), 'long.csv', context);
    expect(read).toMatchObject({ ok: false, problems: [{ message: expect.stringMatching(/66 million characters/) }] });
  });
});

const pointsProblems = (read: Imported & { ok: true }, text: string) => {
  if (read.kind !== 'points') return [];
  const found = readPoints(text, ['x', 'y', 'z']);
  return found.ok ? [] : found.problems;
};

describe('text that is nothing', () => {
  it.each([
    'Dear all, the meeting is at 10.',
    'git commit -m "fix 2 things"',
    'https://example.org/a?b=1',
    'for (let i = 0; i < 3; i++) draw(i);',
    'one\ntwo\nthree',
  ])('“%s” is not taken for points', (text) => {
    const read = readImport(text, 'What was pasted', { id: 'x', conventions: defaultConventions });
    expect(read).toMatchObject({ ok: false });
    if (!read.ok)
      expect(read.problems[0]!.message).toContain('no project, compute request, OBJ model or list of points');
  });

  it.each([
    '1 2 3\n4 5 6',
    'x,y,z\n1,2,3',
    'name;x;y\nmole;1;2',
    '(1.0f, 2.0f, 3.0f)',
    '# from the log\n1\t2\t3',
    'vec3(1, 2, 3)',
  ])('“%s” is', (text) => {
    expect(readImport(text, 'What was pasted', { id: 'x', conventions: defaultConventions })).toMatchObject({
      ok: true,
      kind: 'points',
    });
  });

  it('takes as many bodies and triangles as can be worked with, by every way in', () => {
    const camera = { position: [0, 0, 5], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 60 } }; // prettier-ignore
    const request = (bodies: object[]) =>
      JSON.stringify({ astrolabe: 1, viewport: { width: 2, height: 1 }, camera, bodies, queries: [] });
    const boxes = (count: number) =>
      Array.from({ length: count }, (_, i) => ({ id: `b${i}`, shape: { kind: 'box', size: [1, 1, 1] }, position: [i, 0, 0] })); // prettier-ignore
    const mesh = (triangles: number) => ({
      id: 'm',
      position: [0, 0, 0],
      shape: { kind: 'mesh', positions: [0, 0, 0, 1, 0, 0, 0, 1, 0], indices: Array.from({ length: 3 * triangles }, (_, i) => i % 3) }, // prettier-ignore
    });
    const read = (text: string, name: string) => readImport(text, name, { id: 'p', conventions: defaultConventions });
    expect(read(request(boxes(10_000)), 'a.json').ok).toBe(true);
    expect(read(request([mesh(200_000)]), 'a.json').ok).toBe(true);
    for (const [text, name, said] of [
      [request(boxes(10_001)), 'a.json', '10,001 bodies'],
      [request([mesh(600_000), { ...mesh(400_001), id: 'n' }]), 'a.json', '1,000,001 triangles'],
      [`v 0 0 0\nv 1 0 0\nv 0 1 0\n${'f 1 2 3\n'.repeat(1_000_001)}`, 'a.obj', '1,000,001 triangles'],
      [`v 0 0 0\nv 1 0 0\nv 0 1 0\n${Array.from({ length: 10_001 }, (_, i) => `o ${i}\nf 1 2 3\n`).join('')}`, 'a.obj', '10,001 bodies'], // prettier-ignore
    ] as const)
      expect(read(text, name), said).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining(said) }] }); // prettier-ignore
  });
});
