import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import ts from 'typescript';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

/* The package, as somebody has it who installs it: its files in a folder of their own, without sources. */

const folder = mkdtempSync(join(tmpdir(), 'astrolabe-package-'));
const installed = join(folder, 'node_modules', 'astrolabe');
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeAll(() => {
  execFileSync(process.execPath, ['scripts/package.mjs'], { stdio: 'ignore' });
  cpSync('dist/package', installed, { recursive: true });
  writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
}, 120_000);

/** The examples of the page that documents it. */
const examples = [...readFileSync('docs/package.md', 'utf8').matchAll(/```ts\n([\s\S]*?)```/g)].map(
  ([, code]) => code!,
);

/** What the compiler finds wrong with a file that imports the package. */
function typeFaults(file: string, more: ts.CompilerOptions = {}): string[] {
  const options: ts.CompilerOptions = { strict: true, noEmit: true, target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.NodeNext, moduleResolution: ts.ModuleResolutionKind.NodeNext, types: ['node'], typeRoots: [join(process.cwd(), 'node_modules/@types')], lib: ['lib.es2023.d.ts', 'lib.dom.d.ts'], ...more }; // prettier-ignore
  return ts.getPreEmitDiagnostics(ts.createProgram([file], options)).map(({ messageText, start, file: at }) => `${at?.fileName} ${start} ${ts.flattenDiagnosticMessageText(messageText, ' ')}`); // prettier-ignore
}

describe('the package', () => {
  it('has no dependencies, sources of its own or application', () => {
    const { dependencies, sideEffects } = JSON.parse(readFileSync(join(installed, 'package.json'), 'utf8')) as { dependencies?: object; sideEffects?: boolean }; // prettier-ignore
    expect([dependencies, sideEffects]).toEqual([undefined, false]);
    const files = readdirSync(installed, { recursive: true }).map(String);
    expect(files.filter((path) => /(^|\/)(core|app)\/|\.tsx?$/.test(path) && !path.endsWith('.d.ts'))).toEqual([]);
  });

  it.each([
    ['index', 120_000],
    ['conventions', 15_000],
    ['matrices', 3_000],
  ])('costs little when only %s is imported', async (name, most) => {
    const entryPoints = [join(installed, 'esm', `${name}.js`)];
    const { outputFiles } = await build({ entryPoints, bundle: true, minify: true, format: 'esm', write: false });
    expect(gzipSync(outputFiles[0]!.contents, { level: 9 }).length).toBeLessThan(most);
  });

  it('has source maps with their sources', () => {
    for (const path of ['esm/index.js', 'cjs/index.js']) {
      const text = readFileSync(join(installed, path), 'utf8');
      const [, map] = /sourceMappingURL=(.+)/.exec(text)!;
      const { sources, sourcesContent } = JSON.parse(readFileSync(join(installed, dirname(path), map!), 'utf8')) as { sources: string[]; sourcesContent: string[] }; // prettier-ignore
      expect(sources.some((one) => one.endsWith('core/package/camera.ts'))).toBe(true);
      expect(sourcesContent).toHaveLength(sources.length);
    }
  });

  it('is required, with its types, by a program of CommonJS modules', () => {
    const text = `import { cameraOf } from 'astrolabe';
import { presets } from 'astrolabe/conventions';
const made = cameraOf({ conventions: presets.WebGPU, viewport: { width: 2, height: 2 }, camera: { position: [0, 0, 0], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 1, far: null, verticalFov: 60 } } });
console.log(made.ok);
`;
    const file = join(folder, 'old.cts');
    writeFileSync(file, text);
    const module = { module: ts.ModuleKind.NodeNext, moduleResolution: ts.ModuleResolutionKind.NodeNext };
    expect(typeFaults(file, module)).toEqual([]);
    writeFileSync(join(folder, 'old.cjs'), ts.transpileModule(text, { compilerOptions: { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.CommonJS } }).outputText); // prettier-ignore
    expect(execFileSync(process.execPath, ['old.cjs'], { cwd: folder, encoding: 'utf8' })).toBe('true\n');
  });

  it('types queries and answers by their operations', () => {
    const file = join(folder, 'wrong.ts');
    writeFileSync(file, `import { cameraOf } from 'astrolabe';
declare const made: ReturnType<typeof cameraOf> & { ok: true };
const { camera } = made;
// @ts-expect-error There is no such operation.
camera.ask('horizons');
// @ts-expect-error A query needs its parts.
camera.ask('worldToScreen');
// @ts-expect-error A pixel is a pair.
camera.ask('rays', { pixels: [[1, 2, 3]] });
const hit = camera.pick([1, 2]);
if (hit.ok) hit.hits.map(({ triangle }) => triangle ?? null);
const point = camera.worldToScreen([1, 2, 3]);
const perUnit: readonly [number, number] | null = point.ok ? point.pixelsPerUnit : null;
const boards = camera.billboards([{ position: [0, 0, 0], mode: 'viewPlane' }]);
if (boards.ok) boards.items.map(({ degenerate }) => degenerate);
camera.matrices().inverseViewProjection.length;
camera.along({ kind: 'shake', seed: 1, frequency: 3, decay: 1, strength: 1, angles: { yaw: 2 } }, 1);
export { perUnit };
`); // prettier-ignore
    expect(typeFaults(file)).toEqual([]);
  });

  it('has pages whose links resolve', () => {
    for (const page of ['README.md', 'CHANGELOG.md', ...readdirSync(join(installed, 'docs')).filter((name) => name.endsWith('.md')).map((name) => `docs/${name}`)]) { // prettier-ignore
      const links = [...readFileSync(join(installed, page), 'utf8').matchAll(/\]\(([^)#\s]+)(#[^)]*)?\)/g)].map(([, link]) => link!); // prettier-ignore
      const broken = links.filter((link) => !/^https?:/.test(link) && !existsSync(join(installed, dirname(page), link)));
      expect(broken, page).toEqual([]);
    }
  });

  it('has its examples typed and run as they are written', () => {
    expect(examples.length).toBeGreaterThan(6);
    const wanted: string[] = [];
    const lines = examples.join('\n').split('\n').map((line) => {
      const [, indent, value, expected] = /^(\s*)(.*); \/\/ → (.*)$/.exec(line) ?? [];
      if (value === undefined) return line;
      const [, declared] = /^const (.*)$/.exec(value) ?? [];
      expect(declared).toBeUndefined();
      wanted.push(expected!);
      return `${indent}console.log(JSON.stringify(${value}));`;
    });
    const file = join(folder, 'example.ts');
    writeFileSync(file, `import { cameraOf, createCodec, createPointBatch, invert, multiply, outsideBit, presets, sphereVerdict } from 'astrolabe';\n${lines.join('\n')}\n`);
    expect(typeFaults(file)).toEqual([]);
    writeFileSync(join(folder, 'example.js'), ts.transpileModule(readFileSync(file, 'utf8'), { compilerOptions: { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext } }).outputText);
    const printed = execFileSync(process.execPath, ['example.js'], { cwd: folder, encoding: 'utf8' }).trim().split('\n');
    const tidy = (text: string): unknown => JSON.parse(text, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(9)) || 0 : v));
    printed.forEach((text, i) => expect(tidy(text), wanted[i]).toEqual(tidy(wanted[i]!)));
    expect(printed).toHaveLength(wanted.length);
  }, 60_000);

  it('runs the command line without sources', () => {
    const request = join(folder, 'camera.json');
    writeFileSync(request, JSON.stringify({ astrolabe: 1, viewport: { width: 640, height: 480 }, camera: { position: [0, 0, 0], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 1, far: null, verticalFov: 60 } }, queries: [{ id: 'p', op: 'worldToScreen', points: [[0, 0, -5]] }] }));
    const run = (...args: string[]) => spawnSync(process.execPath, [join(installed, 'bin/astrolabe.js'), ...args], { cwd: folder, encoding: 'utf8' });
    const answered = run('compute', request, '--compact');
    expect(answered.stderr).toBe('');
    expect(answered.stdout).toContain('"screen":[320,240]');
    expect(run('code', request, '--language', 'Go').stdout).toContain('func WorldToScreen');
    expect(run('gltf', request, '--out', join(folder, 'camera.glb')).status).toBe(0);
    expect(JSON.parse(run('scene', join(folder, 'camera.glb')).stdout)).toMatchObject({ astrolabe: 1, camera: { projection: { far: null } } });
    expect(run('report', request, '--out', join(folder, 'report.html')).status).toBe(0);
    expect(readFileSync(join(folder, 'report.html'), 'utf8')).toContain('<math');
    expect(run('serve').stderr).toContain('no application to serve');
  }, 60_000);
}); // prettier-ignore
