import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { vectorsOf, type Vectors } from '../core/deliver/vectors';
import { vectorsTable } from '../formats/vectors';
import { runCheck, type CheckOptions } from './check';

const folder = mkdtempSync(join(tmpdir(), 'astrolabe-check-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const camera = { position: [1, 2, 9], orientation: { lookAt: [0, 1, 0] }, projection: { kind: 'perspective', near: 0.5, far: 80, verticalFov: 50 } }; // prettier-ignore
const request = { astrolabe: 1, viewport: { width: 640, height: 360 }, camera, queries: [] };
let vectors: Vectors;

/** Writes a file of the folder and returns its path. */
function file(name: string, content: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
}

/** The right answers, changed for some rows. */
const answersBut = (change: (row: Vectors['rows'][number]) => readonly number[] | null | undefined) =>
  Object.fromEntries(vectors.rows.map((row) => [row.id, change(row) === undefined ? row.expected : change(row)!]));
const rayReversed = (row: Vectors['rows'][number]) =>
  row.kind === 'ray' ? row.expected!.map((v, i) => (i < 3 ? v : -v)) : undefined;
const pixelMoved = (row: Vectors['rows'][number]) =>
  row.id === 'point 1' ? row.expected!.map((v, i) => (i ? v : v + 0.1)) : undefined;

async function check(vectorsFile: string, answersFile: string, options: Partial<CheckOptions> = {}) {
  let out = '';
  const said = vi.spyOn(process.stderr, 'write').mockImplementation(() => true);
  const code = await runCheck(vectorsFile, answersFile, { tolerance: {}, absolute: 0, ...options }, {
    readText: async (path) => readFile(path, 'utf8'),
    write: (text) => Promise.resolve(void (out += text)),
  }); // prettier-ignore
  const errors = said.mock.calls.map(([text]) => String(text)).join('');
  said.mockRestore();
  return { code, out, errors };
}

beforeAll(() => {
  const made = vectorsOf(request, 24, 1);
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  vectors = made.vectors;
});

describe('astrolabe check', () => {
  it('passes right answers, from JSON and from a table', async () => {
    const answers = file(
      'right.json',
      answersBut(() => undefined),
    );
    for (const path of [file('vectors.json', vectors), file('vectors.csv', vectorsTable(vectors))]) {
      const { code, out } = await check(path, answers);
      expect(code).toBe(0);
      expect(out).toMatch(/^worldToScreen: 24 of 24 right, largest deviation 0\.0e\+0 of its size/m);
      expect(out.trim().split('\n').at(-1)).toBe(`${vectors.rows.length} right, 0 wrong`);
    }
  });

  it('begins with the explanation, lists twenty wrong rows at most, and counts the others', async () => {
    const paths = [file('vectors.json', vectors), file('reversed.json', answersBut(rayReversed))] as const;
    const { code, out } = await check(...paths);
    expect(code).toBe(1);
    const lines = out.trim().split('\n');
    expect(lines[0]).toBe('Explanation: The ray points towards the eye: subtract the eye from the point, not the point from the eye. It explains 22 wrong rows (ray).'); // prettier-ignore
    expect(lines.filter((line) => /^ray \d+: direction . is .* instead of/.test(line))).toHaveLength(20);
    expect(lines).toContain('2 more wrong rows.');
    const quiet = await check(...paths, { quiet: true });
    expect(quiet.out.trim().split('\n')).toHaveLength(2);
  });

  it('takes tolerances by kind and an absolute one', async () => {
    const paths = [file('vectors.json', vectors), file('moved.json', answersBut(pixelMoved))] as const;
    expect((await check(...paths)).code).toBe(1);
    expect((await check(...paths, { tolerance: { worldToScreen: 1e-3 } })).code).toBe(0);
    expect((await check(...paths, { tolerance: { ray: 1e-3 } })).code).toBe(1);
    expect((await check(...paths, { absolute: 0.11 })).code).toBe(0);
    expect((await check(...paths, { tolerance: { all: 1e-4 } })).code).toBe(0);
  });

  it('writes JSON, and compares with it: rows that were wrong before do not fail', async () => {
    const path = file('vectors.json', vectors);
    const moved = file('moved.json', answersBut(pixelMoved));
    const before = await check(path, moved, { json: true });
    const result = JSON.parse(before.out) as { wrong: number; rows: object[]; kinds: object[] };
    expect(result).toMatchObject({ astrolabeCheck: 1, wrong: 1, right: vectors.rows.length - 1 });
    const baseline = file('before.json', before.out);
    expect((await check(path, moved, { baseline })).code).toBe(0);
    const other = file(
      'both.json',
      answersBut((row) => rayReversed(row) ?? pixelMoved(row)),
    );
    const worse = await check(path, other, { baseline });
    expect(worse.code).toBe(1);
    expect(worse.out).toContain('Since the earlier run: 22 newly wrong, 0 fixed, 1 still wrong.');
    const fixed = await check(
      path,
      file(
        'right.json',
        answersBut(() => undefined),
      ),
      { baseline },
    );
    expect(fixed.out).toContain('0 newly wrong, 1 fixed, 0 still wrong');
  });

  it('writes JUnit: suites by kind, times, and the explanation in failures', async () => {
    const junit = join(folder, 'out.xml');
    await check(file('vectors.json', vectors), file('reversed.json', answersBut(rayReversed)), { junit });
    const text = readFileSync(junit, 'utf8');
    expect(text).toMatch(/^<\?xml version="1\.0" encoding="UTF-8"\?>\n<testsuites name="astrolabe check" tests="\d+" failures="22" errors="0" time="\d+\.\d{6}">/); // prettier-ignore
    expect(text).toMatch(/<testsuite name="ray" tests="22" failures="22" errors="0" skipped="0" time="/);
    expect(text).toMatch(/<failure type="wrong" message="direction [^"]*">The ray points towards the eye/);
    expect(text.match(/<testcase /g)).toHaveLength(vectors.rows.length);
  });

  it('names the file that cannot be read and what is wrong with it, with exit code 2', async () => {
    const path = file('vectors.json', vectors);
    const right = file('right.json', answersBut(() => undefined));
    for (const [given, answers, baseline, sentence] of [
      [join(folder, 'none.json'), right, undefined, /none\.json cannot be read: there is no such file/],
      [file('odd.json', '{"rows": 3'), right, undefined, /odd\.json: These are not test vectors: line 1, column 11: .*: this is not JSON/],
      [file('odd.csv', 'a,b\n1,2\n'), right, undefined, /odd\.csv: .*the columns “id” and “kind” are missing/],
      [path, file('odd.txt', 'point 1,about 3'), undefined, /odd\.txt: .*“about 3” is no number/],
      [path, right, file('old.json', {}), /old\.json: The baseline is not a result of “astrolabe check --json”/],
    ] as const) {
      const { code, errors } = await check(given, answers, baseline ? { baseline } : {});
      expect(code).toBe(2);
      expect(errors).toMatch(sentence);
    }
  }); // prettier-ignore

  it('writes no character into JUnit that XML does not have', async () => {
    const rows = [{ id: 'a\u0000\u001b<b>', kind: 'view', input: [], expected: [1] }];
    const junit = join(folder, 'odd.xml');
    await check(file('odd.json', { astrolabeVectors: 1, request: {}, rows }), file('a.json', { b: [2] }), { junit });
    const text = readFileSync(junit, 'utf8');
    // eslint-disable-next-line no-control-regex
    expect(text).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/);
    expect(text).toContain('&lt;b&gt;');
  });
});
