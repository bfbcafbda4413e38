import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { gzipSync } from 'node:zlib';
import ts from 'typescript';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

/* The package, as somebody has it who installs it: its files in a folder of their own, without sources. */

const folder = mkdtempSync(join(tmpdir(), 'astrolabe-package-'));
const installed = join(folder, 'node_modules', 'astrolabe');
afterAll(() => rmSync(folder, { recursive: true, force: true }));
beforeAll(() => {
  // The application is the browser's and is built for the walks; the module and the command line are made here.
  execFileSync(process.execPath, ['scripts/package.mjs', '--module'], { stdio: 'ignore' });
  const packed = JSON.parse(execFileSync('npm', ['pack', '--dry-run', '--json', '--ignore-scripts'], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })) as { files: { path: string }[] }[]; // prettier-ignore
  for (const { path } of packed[0]!.files) {
    if (path.startsWith('dist/app/') || !existsSync(path)) continue;
    mkdirSync(dirname(join(installed, path)), { recursive: true });
    cpSync(path, join(installed, path));
  }
  writeFileSync(join(folder, 'package.json'), '{ "type": "module" }');
}, 120_000);

/** The examples of the page that documents it. */
const examples = [...readFileSync('docs/package.md', 'utf8').matchAll(/```ts\n([\s\S]*?)```/g)].map(
  ([, code]) => code!,
);

describe('the package', () => {
  it('is the core alone, under 105 kB compressed, and its types name nothing else', () => {
    const text = readFileSync(join(installed, 'dist/package/index.js'));
    expect(gzipSync(text, { level: 9 }).length).toBeLessThan(105_000);
    expect(text.toString()).not.toMatch(/from\s*["'][^"']+["']|document\.|\bimport\(/);
    expect(existsSync(join(installed, 'core'))).toBe(false);
    expect(existsSync(join(installed, 'app'))).toBe(false);
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
    writeFileSync(file, `import { cameraOf, presets } from 'astrolabe';\n${lines.join('\n')}\n`);
    const options = { strict: true, noEmit: true, target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.NodeNext, moduleResolution: ts.ModuleResolutionKind.NodeNext, types: [], lib: ['lib.es2023.d.ts', 'lib.dom.d.ts'] };
    const faults = ts.getPreEmitDiagnostics(ts.createProgram([file], options));
    expect(faults.map(({ messageText, start }) => `${start} ${ts.flattenDiagnosticMessageText(messageText, ' ')}`)).toEqual([]);
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
  }, 60_000);
}); // prettier-ignore
