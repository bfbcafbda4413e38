import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { delimiter, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { skippedFor, there } from '../core/testing/compilers';
import { buildNode } from '../scripts/lib/build.mjs';

/* The scripts of docs/deliver.md, run as a build server runs them: right code passes, a fault in the code fails. */

const cli = fileURLToPath(new URL('../dist/node/cli.js', import.meta.url));
const root = mkdtempSync(join(tmpdir(), 'astrolabe-ci-'));
beforeAll(async () => {
  await buildNode();
  mkdirSync(join(root, 'bin'));
  writeFileSync(join(root, 'bin/astrolabe'), `#!/bin/sh\nexec ${process.execPath} ${cli} "$@"\n`);
  chmodSync(join(root, 'bin/astrolabe'), 0o755);
});
afterAll(() => rmSync(root, { recursive: true, force: true }));

const docs = readFileSync(new URL('../docs/deliver.md', import.meta.url), 'utf8');
const scripts = [...docs.matchAll(/```sh\n([\s\S]*?)```/g)].map(([, text]) => text!);
const camera = {
  position: [3, -5, 7],
  orientation: { yaw: 25, pitch: -40 },
  projection: { kind: 'perspective', near: 0.1, far: null, verticalFov: 50 },
};
/** An engine with z up, reversed depth and an infinite far plane. */
const request = {
  astrolabe: 1,
  conventions: {
    world: { right: '+x', up: '+z', forward: '+y' },
    ndc: { near: 1, far: 0 },
  },
  viewport: { width: 1280, height: 720 },
  camera,
};

describe('continuous integration by docs/deliver.md', () => {
  it('has a script for C++ and one for Rust, of five lines', () => {
    expect(scripts.map((text) => text.trim().split('\n').length)).toEqual([5, 5]);
  });

  it.skipIf(!there('g++') || !there('rustc')).each(['C++', 'Rust'] as const)(
    `passes and fails in %s${skippedFor(['g++', 'rustc'])}`,
    (language) => {
      const script = scripts.find((text) => text.includes(`--language ${language} `))!;
      const at = join(root, language === 'Rust' ? 'rust' : 'cpp');
      mkdirSync(at);
      writeFileSync(join(at, 'camera.json'), JSON.stringify(request));
      const run = (lines: string) => spawnSync('bash', ['-c', `set -euo pipefail\n${lines}`], { cwd: at, encoding: 'utf8', env: { ...process.env, PATH: `${join(root, 'bin')}${delimiter}${process.env['PATH']}` } }); // prettier-ignore
      const right = run(script);
      expect(right.stderr).toBe('');
      expect(right.status).toBe(0);
      expect(right.stdout.trim().split('\n').at(-1)).toMatch(/^\d+ right, 0 wrong$/);
      expect(readFileSync(join(at, 'build/camera.xml'), 'utf8')).toContain('failures="0"');

      // The ray of an engine that forgets to normalise.
      const name = join(at, 'build', language === 'Rust' ? 'camera.rs' : 'camera.hpp');
      const code = readFileSync(name, 'utf8');
      const broken = code.replace(/(Ray ?\{[^}]*?)(camera::)?normalize\((frame\.right)/, '$1($3');
      expect(broken).not.toBe(code);
      writeFileSync(name, broken);
      const wrong = run(script.split('\n').slice(1).join('\n'));
      expect(wrong.status).toBe(1);
      expect(wrong.stdout).toMatch(/^Explanation: The direction of the ray does not have length 1: normalise it\./);
      expect(readFileSync(join(at, 'build/camera.xml'), 'utf8')).toContain('normalise it.');
    },
    120_000,
  );
});
