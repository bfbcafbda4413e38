import { readFileSync } from 'node:fs';
import { parse } from 'jsonc-parser';
import { describe, expect, it } from 'vitest';
import { compute } from '../core/compute/compute';
import { defaultConventions } from '../core/conventions/conventions';
import { readProject } from '../formats/project';

/* The examples of the pages that no other test runs (docs/deliver.md: cli/ci.test.ts, docs/package.md: cli/package.test.ts). */

/** The code of a page in a language. */
const examplesOf = (page: string, language: string): string[] =>
  [...readFileSync(`docs/${page}.md`, 'utf8').matchAll(/^```(\w*)\n([\s\S]*?)^```/gm)]
    .filter(([, own]) => own === language)
    .map(([, , text]) => text!);

const base = {
  astrolabe: 1,
  viewport: { width: 1280, height: 720 },
  camera: {
    position: [0, 2, 10],
    orientation: { yaw: 0, pitch: 0 },
    projection: { kind: 'perspective', near: 0.1, far: 500, verticalFov: 60 },
  },
  queries: [],
};
/** What compute says of a request. */
const problemsOf = (request: object) => {
  const answered = compute(request);
  return answered.ok ? [] : answered.problem.errors.map(({ message }) => message);
};
/** Entries (`"key": value`) as an object, comments left out. */
const entriesIn = (text: string): Record<string, unknown> => parse(`{${text}}`, [], { allowTrailingComma: true }) as Record<string, unknown>; // prettier-ignore

describe('docs/compute.md', () => {
  const examples = examplesOf('compute', 'jsonc');
  const [whole, ...parts] = examples;

  it('has an example request that is answered', () => {
    const answered = compute(parse(whole!));
    if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
    const [seen, picked] = answered.response.results as unknown as [{ points: { onScreen: boolean }[] }, { pixels: { hits: { body: string }[] }[] }]; // prettier-ignore
    expect([seen.points[0]!.onScreen, picked.pixels[0]!.hits[0]!.body]).toEqual([true, 'buoy']);
  });

  it('lists the default conventions', () => {
    const [conventions] = parts.map(entriesIn).flatMap((entries) => entries['conventions'] ?? []);
    expect(conventions).toEqual(defaultConventions);
  });

  it('has conventions, cameras, orientations and projections that compute takes', () => {
    let count = 0;
    for (const part of parts) {
      // An example lists alternatives of one key, a line each, or has one entry on several lines.
      const alternatives = /^}/m.test(part) ? [part] : part.trim().split('\n');
      for (const text of alternatives) {
        const [key, value] = Object.entries(entriesIn(text))[0]!;
        const request = key in base || key === 'conventions' ? { ...base, [key]: value } : { ...base, camera: { ...base.camera, [key]: value } }; // prettier-ignore
        expect(problemsOf(request), text).toEqual([]);
        count++;
      }
    }
    expect(count).toBeGreaterThan(13);
  });
});

it('docs/project.md has an example that is read as a project', () => {
  const [example] = examplesOf('project', 'json');
  const read = readProject(JSON.parse(example!));
  expect(read.ok ? [] : read.problems).toEqual([]);
});

it('docs/tasks.md has an example of an operation that is in the sources', () => {
  const tidy = (text: string) => text.replace(/\s+/g, '').replace(/,([})\]])/g, '$1');
  const source = tidy(readFileSync('core/ground/operations.ts', 'utf8'));
  const [example] = examplesOf('tasks', 'ts');
  for (const piece of tidy(example!).replace(/;$/, '').split('…'))
    expect(source).toContain(piece.replace(/^'|'$/g, ''));
});

it('all examples of the pages are run by a test', () => {
  const tested = { compute: ['json', 'jsonc'], project: ['json'], tasks: ['ts'], deliver: ['sh'], package: ['', 'ts'] };
  for (const page of [
    'cases',
    'compute',
    'deliver',
    'derivations',
    'package',
    'pasted',
    'pictures',
    'project',
    'stability',
    'tasks',
  ]) {
    // prettier-ignore
    const languages = [...readFileSync(`docs/${page}.md`, 'utf8').matchAll(/^```(\w*)\n[\s\S]*?^```/gm)].map(([, language]) => language!); // prettier-ignore
    expect(
      languages.filter((one) => !(tested[page as keyof typeof tested] ?? []).includes(one)),
      page,
    ).toEqual([]);
  }
});
