import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { limitsTable } from '../core/compute/limits';
import { buildNode } from '../scripts/lib/build.mjs';

const cli = fileURLToPath(new URL('../dist/node/cli.js', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'cli-'));
beforeAll(() => buildNode());
afterAll(() => rmSync(folder, { recursive: true }));

const request = (points: number) => ({
  astrolabe: 1,
  viewport: { width: 20, height: 10 },
  camera: { position: [0, 0, 0], orientation: { lookAt: [0, 0, -5] }, projection: { kind: 'perspective', near: 1, far: 9, verticalFov: 60 } }, // prettier-ignore
  queries: [{ id: 'p', op: 'worldToScreen', points: Array.from({ length: points }, (_, i) => [0, 0, -1 - (i % 7)]) }],
});
const file = (name: string, text: string) => {
  const path = join(folder, name);
  writeFileSync(path, text);
  return path;
};
const run = (...args: string[]) => spawnSync(process.execPath, [cli, ...args], { encoding: 'utf8' });
const shell = (line: string) => spawnSync('bash', ['-c', line], { encoding: 'utf8' });

describe('the command line', () => {
  it('answers a file and standard input alike, with a mark of byte order at the head too', () => {
    const text = JSON.stringify(request(3));
    const plain = run('compute', file('plain.json', text));
    expect(plain.status).toBe(0);
    const answer = JSON.parse(plain.stdout) as { results: { points: unknown[] }[] };
    expect(answer.results[0]!.points).toHaveLength(3);
    expect(plain.stdout).toBe(JSON.stringify(answer, null, 2) + '\n');
    expect(run('compute', file('marked.json', `\ufeff${text}`)).stdout).toBe(plain.stdout);
    expect(shell(`cat ${join(folder, 'plain.json')} | ${process.execPath} ${cli} compute -`).stdout).toBe(plain.stdout);
    // Standard input that does not block.
    const slow = `(sleep 0.3; cat ${join(folder, 'plain.json')}) | ${process.execPath} ${cli} compute - --compact`;
    expect(shell(slow).stdout).toBe(JSON.stringify(answer) + '\n');
  });

  it('explains the numbers of a log, as text and as JSON, and ends by the verdict', () => {
    const given = file('intended.json', JSON.stringify(request(0)));
    const printed = (m: readonly number[]) => file('engine.log', `12:00:01 [cam] view = ${m.join(', ')}\n`);
    const right = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
    const turned = [0.8, 0, 0.6, 0, 0, 1, 0, 0, -0.6, 0, 0.8, 0, 0, 0, 0, 1];
    const agrees = run('diagnose', given, printed(right));
    expect([agrees.status, agrees.stdout]).toEqual([0, expect.stringContaining('These are the camera’s numbers')]);
    const off = run('diagnose', given, printed(turned), '--json');
    expect(off.status).toBe(1);
    const answer = JSON.parse(off.stdout) as { reading: { matrices: { role: string; values: number[] }[] } };
    expect(answer).toMatchObject({ answer: { verdict: 'explained' }, identify: { candidates: expect.any(Array) } });
    expect(answer.reading.matrices).toMatchObject([{ role: 'view', listing: 'columns', values: turned }]);
    const piped = shell(`cat ${join(folder, 'engine.log')} | ${process.execPath} ${cli} diagnose ${given} - --json`);
    expect(piped.stdout).toBe(off.stdout);
    expect(run('diagnose', given, file('empty.log', 'nothing of the kind')).status).toBe(2);
    expect(run('diagnose', given, join(folder, 'no such log')).status).toBe(2);
  });

  it('writes the code of a camera, to standard output or a folder, and refuses what it cannot', () => {
    const given = file('camera.json', JSON.stringify(request(0)));
    const shown = run('code', given, '--language', 'c++', '--parts', 'camera,worldToScreen', '--number', 'float');
    expect(shown.status).toBe(0);
    expect(shown.stdout).toContain('inline ScreenPoint world_to_screen(const Frame& frame, const Vec3& point) {');
    expect(shown.stdout).not.toContain('pixel_ray');
    expect(shown.stdout).toContain('float');
    const out = join(folder, 'code');
    const kept = run('code', given, '--language', 'Python', '--parameters', '--out', out);
    expect(kept.stdout.trim()).toBe(join(out, 'camera.py'));
    expect(readFileSync(join(out, 'camera.py'), 'utf8')).not.toContain('def this_camera');
    expect(run('code', given, '--language', 'Morse').stderr).toContain('one of C, C++');
    expect(run('code', given, '--language', 'C', '--parts', 'worldToScren').stderr).toContain('one of camera');
    const flat = file('flat.json', JSON.stringify({ ...request(0), camera: { kind: '2d', focus: [0, 0], anchor: [10, 5], zoom: 1 } })); // prettier-ignore
    expect(run('code', flat, '--language', 'C', '--parts', 'worldToScreen').stdout).toContain('pixels per world unit');
    const mirrored = file('mirrored.json', JSON.stringify({ ...request(0), camera: { ...request(0).camera, projection: { kind: 'frustum', near: 1, far: 9, left: 1, right: -1, bottom: -1, top: 1 } } })); // prettier-ignore
    expect(run('code', mirrored, '--language', 'C')).toMatchObject({ status: 2, stderr: expect.stringContaining('mirrored') }); // prettier-ignore
  });

  const hasCpp = spawnSync('sh', ['-c', 'command -v g++']).status === 0;
  it.skipIf(!hasCpp)(`finds what is wrong in an engine’s own test-suite by its answers to test vectors${hasCpp ? '' : ' (skipped: no g++ here)'}`, () => {
    const camera = { position: [4, 3, 9], orientation: { lookAt: [0, 1, 0] }, projection: { kind: 'perspective', near: 0.5, far: 80, verticalFov: 50 } }; // prettier-ignore
    const given = file('engine.json', JSON.stringify({ ...request(0), viewport: { width: 1280, height: 720 }, camera }));
    const made = run('vectors', given, '--count', '12', '--seed', '7');
    expect(made.status).toBe(0);
    const vectors = file('vectors.json', made.stdout);
    const table = run('vectors', given, '--count', '12', '--seed', '7', '--csv').stdout;
    expect(table.split('\n')[0]).toContain('id,kind,in 1,in 2,in 3,in 4,in 5,in 6,out 1');
    const rows = (JSON.parse(made.stdout) as { rows: { id: string; kind: string; input: number[]; expected: number[] | null }[] }).rows; // prettier-ignore
    // A small engine with a camera of its own: columns, −z ahead, depth 0 to 1.
    const points = rows.filter(({ kind }) => kind === 'worldToScreen');
    const engine = (aspect: string) => `#include <cmath>
#include <cstdio>
struct V { double x, y, z; };
static V sub(V a, V b) { return {a.x - b.x, a.y - b.y, a.z - b.z}; }
static double dot(V a, V b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
static V cross(V a, V b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }
static V unit(V v) { double l = std::sqrt(dot(v, v)); return {v.x / l, v.y / l, v.z / l}; }
int main() {
  const V eye{4, 3, 9}, f = unit(sub(V{0, 1, 0}, eye)), r = unit(cross(f, V{0, 1, 0})), u = cross(r, f);
  const double width = 1280, height = 720, aspect = ${aspect}, t = 1 / std::tan(50 * M_PI / 360), n = 0.5, far = 80;
  std::printf("view,%.9g,%.9g,%.9g,0,%.9g,%.9g,%.9g,0,%.9g,%.9g,%.9g,0,%.9g,%.9g,%.9g,1\\n", r.x, u.x, -f.x, r.y, u.y, -f.y, r.z, u.z, -f.z, -dot(r, eye), -dot(u, eye), dot(f, eye));
  std::printf("projection,%.9g,0,0,0,0,%.9g,0,0,0,0,%.9g,-1,0,0,%.9g,0\\n", t / aspect, t, far / (n - far), far * n / (n - far));
  const V points[] = {${points.map(({ input }) => `{${input.join(', ')}}`).join(', ')}};
  int i = 1;
  for (const V& p : points) {
    const V d = sub(p, eye);
    const double w = dot(d, f);
    if (w <= 0) std::printf("point %d,none\\n", i++);
    else std::printf("point %d,%.9g,%.9g\\n", i++, (dot(d, r) * t / aspect / w + 1) / 2 * width, (1 - dot(d, u) * t / w) / 2 * height);
  }
}
`;
    const answersOf = (aspect: string): string => {
      const source = file('engine.cpp', engine(aspect));
      execFileSync('g++', ['-std=c++17', source, '-o', join(folder, 'engine')]);
      return execFileSync(join(folder, 'engine'), { encoding: 'utf8' });
    };
    // What the engine has no function for is left out of the vectors by its test-suite.
    const own = { ...(JSON.parse(made.stdout) as object), rows: rows.filter(({ kind }) => ['view', 'projection', 'worldToScreen'].includes(kind)) };
    const kept = file('own.json', JSON.stringify(own));
    const wrong = run('check', kept, file('wrong.csv', answersOf('height / width')), '--junit', join(folder, 'junit.xml'));
    expect(wrong.status).toBe(1);
    expect(wrong.stdout).toContain('Projection: The aspect is height over width');
    expect(wrong.stdout).toMatch(/^projection: number 1 is .* instead of/m);
    expect(wrong.stdout).toMatch(/^Explanation: Projection: The aspect/);
    expect(wrong.stdout).toMatch(/^view: 1 of 1 right/m);
    const junit = readFileSync(join(folder, 'junit.xml'), 'utf8');
    expect(junit).toContain(`tests="${own.rows.length}"`);
    expect(junit).toContain('<failure type="wrong" message=');
    const right = run('check', kept, file('right.csv', answersOf('width / height')));
    expect(right).toMatchObject({ status: 0, stdout: expect.stringMatching(new RegExp(`^${own.rows.length} right, 0 wrong\n$`, 'm')) });
    expect(run('check', vectors, file('none.txt', 'view,x'))).toMatchObject({ status: 2, stderr: expect.stringContaining('is no number') });
    expect(run('check', given, file('right.csv', answersOf('width / height')))).toMatchObject({ status: 2, stderr: expect.stringContaining('not test vectors') });
  }, 60_000); // prettier-ignore

  const hasPython = spawnSync('sh', ['-c', 'command -v python3']).status === 0;
  it.skipIf(!hasPython)(
    `writes a harness that answers test vectors of the same parts, and finds a fault put into the code${hasPython ? '' : ' (skipped: no python3 here)'}`,
    () => {
      const given = file('harnessed.json', JSON.stringify(request(0)));
      const out = join(folder, 'harness');
      const parts = ['--parts', 'camera,worldToScreen'];
      const made = run('code', given, '--language', 'Python', ...parts, '--harness', '--out', out);
      const names = made.stdout
        .trim()
        .split('\n')
        .map((path) => basename(path));
      expect(names).toEqual(['camera.py', 'harness.py']);
      const table = run('vectors', given, ...parts, '--csv').stdout;
      // What these parts cannot answer is not asked.
      expect([...new Set(table.trim().split('\n').slice(1).map((row) => row.split(',')[1]))]).toEqual(['view', 'projection', 'viewProjection', 'cameraToWorld', 'worldToScreen']); // prettier-ignore
      expect(run('vectors', given, '--csv').stdout).toContain(',screenToWorld,');
      writeFileSync(join(out, 'vectors.csv'), table);
      const kept = file('parts.json', run('vectors', given, ...parts).stdout);
      const answered = () => run('check', kept, file('answers.csv', execFileSync('python3', ['harness.py', 'vectors.csv'], { cwd: out, encoding: 'utf8' }))); // prettier-ignore
      expect(answered()).toMatchObject({ status: 0, stdout: expect.stringMatching(/^\d+ right, 0 wrong\n$/m) });
      const code = readFileSync(join(out, 'camera.py'), 'utf8');
      const wrong = code.replace('* camera.size.x / camera.size.y', '* camera.size.y / camera.size.x');
      expect(wrong).not.toBe(code);
      writeFileSync(join(out, 'camera.py'), wrong);
      const found = answered();
      expect(found.status).toBe(1);
      expect(found.stdout).toContain('aspect is height over width');
    },
  );

  it('writes a scene and reads it again to the same pixels, and a report; what is wrong with a query is said', () => {
    const whole = { ...request(4), bodies: [{ id: 'boat', shape: { kind: 'box', size: [1, 2, 3] }, position: [0, 0, -5] }] }; // prettier-ignore
    const given = file('scene.json', JSON.stringify(whole));
    const pixels = (path: string) => (JSON.parse(run('compute', path).stdout) as { results: { points: { screen: number[] }[] }[] }).results[0]!.points; // prettier-ignore
    const meant = pixels(given);
    for (const name of ['scene.glb', 'scene.gltf']) {
      const out = join(folder, name);
      expect(run('gltf', given, '--out', out).status).toBe(0);
      const read = run('scene', out, '--conventions', given);
      expect(read.status).toBe(0);
      const again = JSON.parse(read.stdout) as { bodies: { id: string }[]; viewport: object };
      expect(again.viewport).toMatchObject(whole.viewport);
      expect(again.bodies.map(({ id }) => id)).toEqual(['boat']);
      const path = file('again.json', JSON.stringify({ ...again, queries: whole.queries }));
      pixels(path).forEach(({ screen }, i) => screen.forEach((v, k) => expect(v).toBeCloseTo(meant[i]!.screen[k]!, 5))); // prettier-ignore
    }
    expect(run('scene', given)).toMatchObject({ status: 2, stdout: '' });
    const page = join(folder, 'report.html');
    expect(run('report', given, '--out', page, '--title', 'A & B').status).toBe(0);
    expect(readFileSync(page, 'utf8')).toContain('<h1>A &amp; B</h1>');
    const odd = file('odd.json', JSON.stringify({ ...whole, queries: [{ id: 'p', op: 'worldToScreen', points: [[1]] }] })); // prettier-ignore
    expect(run('report', odd, '--out', page)).toMatchObject({ status: 2, stderr: expect.stringContaining('queries[0].points[0]') }); // prettier-ignore
  });

  it('says in a sentence what is wrong, and ends with 2', () => {
    for (const [path, why] of [
      [join(folder, 'none.json'), 'there is no such file'],
      [folder, 'it is a folder'],
    ] as const)
      expect(run('compute', path)).toMatchObject({
        status: 2,
        stdout: '',
        stderr: `${path} cannot be read: ${why}.\n`,
      });
    const all = [
      [
        run('compute', file('torn.json', '{"astrolabe":')),
        'This is not JSON: line 1, column 14: a value is expected, at the end.',
      ],
      [
        run('compute', file('comma.json', '{\n  "astrolabe": 1\n  "viewport": 3 }')),
        'line 3, column 3: a comma is expected, at "viewport": 3 }.',
      ],
      [run('compute', file('wrong.json', JSON.stringify({ ...request(1), bodis: [] }))), 'Did you mean “bodies”?'],
    ] as const;
    for (const [{ status, stdout, stderr }, words] of all) {
      expect(status).toBe(2);
      expect(stdout).toBe('');
      expect((JSON.parse(stderr) as { errors: { message: string }[] }).errors[0]!.message).toContain(words);
    }
  });

  it('leaves no trace where its answer is not taken, or cannot be', () => {
    const long = file('long.json', JSON.stringify(request(20_000)));
    const cut = shell(`set -o pipefail; ${process.execPath} ${cli} compute ${long} | head -c 100 | wc -c`);
    expect(cut.stdout.trim()).toBe('100');
    expect(cut.stderr).toBe('');
    if (!existsSync('/dev/full')) return;
    const full = shell(`${process.execPath} ${cli} compute ${long} > /dev/full`);
    expect(full.status).toBe(1);
    expect(full.stderr).toMatch(/^The answer could not be written: .*\.\n$/);
  });

  it('ends with 1 under --strict when a query has an error, and writes the answer all the same', () => {
    const { queries, ...rest } = request(1);
    const flat = { kind: '2d', focus: [0, 0], anchor: [10, 5], zoom: 1, rotation: 0, snap: 'none' };
    const bad = file('bad.json', JSON.stringify({ ...rest, camera: flat, queries: [{ id: 'h', op: 'horizon' }] }));
    const good = file('good.json', JSON.stringify({ ...rest, queries }));
    expect(run('compute', bad).status).toBe(0);
    const strict = run('compute', bad, '--strict');
    expect(strict.status).toBe(1);
    expect(JSON.parse(strict.stdout)).toMatchObject({ results: [{ error: { code: 'notIn2d' } }] });
    expect(run('compute', good, '--strict').status).toBe(0);
  });

  it('writes answers and vectors to files as to standard output', () => {
    const given = file('out.json', JSON.stringify(request(20)));
    for (const args of [
      ['compute', given],
      ['vectors', given, '--csv'],
    ]) {
      const path = join(folder, 'new folder', `${args[0]}.txt`);
      const written = run(...args, '--out', path);
      expect([written.status, written.stdout]).toEqual([0, '']);
      expect(readFileSync(path, 'utf8')).toBe(run(...args).stdout);
    }
    const blocked = run('compute', given, '--out', join(given, 'below a file.json'));
    expect(blocked.status).toBe(1);
    expect(blocked.stderr).toMatch(/cannot be written to/);
    const ending = run('report', given, '--out', 'a.pdf');
    expect(ending.stderr).toContain('“a.pdf” does not end in .html or .htm');
  });

  it('ends with 2 for a wrong command line, and with 0 for help and the version', () => {
    for (const args of [
      [],
      ['nothing'],
      ['compute'],
      ['compute', 'a', 'b'],
      ['compute', '--nothing', 'a'],
      ['vectors', 'a', '--count', '0'],
      ['code', 'a', '--language', 'x'],
      ['serve', '--port', 'x'],
      ['gltf', 'a', '--out', 'a.obj'],
      ['report', 'a', '--out', 'a.pdf'],
    ])
      // prettier-ignore
      expect(run(...args).status, args.join(' ')).toBe(args.length ? 2 : 0);
    for (const args of [['--help'], ['help'], ['help', 'compute'], ['compute', '--help'], ['--version']])
      expect(run(...args).status, args.join(' ')).toBe(0);
  });

  it('reads a scene from standard input as from a file', () => {
    const at = file('tiny.gltf', JSON.stringify({ asset: { version: '2.0' }, scenes: [{ nodes: [0] }], nodes: [{ name: 'Buoy' }] })); // prettier-ignore
    const piped = shell(`${process.execPath} ${cli} scene - < ${at}`);
    expect(piped.status).toBe(0);
    expect((JSON.parse(piped.stdout) as { bodies: unknown }).bodies).toEqual((JSON.parse(run('scene', at).stdout) as { bodies: unknown }).bodies); // prettier-ignore
  });

  it('answers every one of many that find the bundle old at once', async () => {
    const path = file('many.json', JSON.stringify(request(2)));
    const bin = fileURLToPath(new URL('../bin/astrolabe.js', import.meta.url));
    utimesSync(cli, 1, 1);
    const all = await Promise.all(
      Array.from(
        { length: 6 },
        () =>
          new Promise<{ code: number | null; said: string }>((done) => {
            const child = spawn(process.execPath, [bin, 'compute', path, '--compact']);
            let said = '';
            child.stdout.on('data', (text) => (said += String(text)));
            child.on('close', (code) => done({ code, said }));
          }),
      ),
    );
    for (const { code, said } of all) {
      expect(code).toBe(0);
      expect((JSON.parse(said) as { astrolabe: number }).astrolabe).toBe(1);
    }
  }, 60_000);

  it('serves on the next port where one is taken, and says where the projects made there are', async () => {
    const other = createServer();
    const taken = await new Promise<number>((ready) => {
      other.listen(0, '127.0.0.1', () => ready((other.address() as AddressInfo).port));
    });
    const serving = spawn(process.execPath, [cli, 'serve', '--port', String(taken)]);
    try {
      const text = await new Promise<string>((done) => {
        let said = '';
        serving.stdout.on('data', (piece) => {
          said += piece;
          if (said.includes('Astrolabe is at')) done(said);
        });
        serving.on('exit', () => done(said));
      });
      expect(text).toContain(`Port ${taken} is taken`);
      expect(text).toContain('those made at another port are seen there alone');
      expect(Number(/:(\d+)\s*$/.exec(text)?.[1])).toBeGreaterThan(taken);
    } finally {
      serving.kill();
      other.close();
    }
  });

  it('tells its limits', () => {
    const help = execFileSync(process.execPath, [cli, '--help'], { encoding: 'utf8' });
    const docs = readFileSync(new URL('../docs/compute.md', import.meta.url), 'utf8').replace(/ +/g, ' ');
    for (const [what, most, beyond] of limitsTable) {
      expect(help).toContain(`${what}: ${most} (${beyond})`);
      expect(docs).toContain(`| ${what} | ${most} | ${beyond} |`);
    }
  });
});
