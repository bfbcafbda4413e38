// Runs the kernels and the same loops in C++ (g++ -O3, and -march=native, doubles, one thread) in
// turn, each several times, and gives the medians.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { at } from '../scripts/lib/fresh.mjs';

const turns = 5;
const rounds = 15;
const middle = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];
const middles = (runs) =>
  Object.fromEntries(Object.keys(runs[0]).map((key) => [key, middle(runs.map((one) => one[key]))]));

export const haveCompiler = () => spawnSync('g++', ['--version']).status === 0;

export async function measureKernels() {
  const folder = at('dist/bench');
  mkdirSync(folder, { recursive: true });
  const bundle = at('dist/bench/kernels.mjs');
  await build({
    entryPoints: [at('bench/kernels.ts')],
    outfile: bundle,
    bundle: true,
    format: 'esm',
    platform: 'node',
    target: 'node20.19',
  });
  const { benchArrays, growth } = await import(pathToFileURL(bundle).href);
  for (const [name, array] of Object.entries(benchArrays()))
    writeFileSync(at('dist/bench', `${name}.bin`), new Uint8Array(array.buffer, array.byteOffset, array.byteLength));
  // As the language gives it anywhere, and as an engine builds for the machine that it runs on.
  const compiled = (name, ...flags) => {
    const program = at('dist/bench', name);
    execFileSync('g++', ['-O3', ...flags, '-std=c++17', at('bench/kernels.cpp'), '-o', program]);
    return program;
  };
  const [anywhere, native] = [compiled('kernels'), compiled('kernels-native', '-march=native')];
  const script = `import(${JSON.stringify(pathToFileURL(bundle).href)}).then((m) => console.log(JSON.stringify(m.measureKernels(${rounds}))))`;
  const ours = [];
  const theirs = [];
  const natives = [];
  const run = (program) => JSON.parse(execFileSync(program, [folder, String(rounds)], { encoding: 'utf8' }));
  for (let turn = 0; turn < turns; turn++) {
    theirs.push(run(anywhere));
    natives.push(run(native));
    ours.push(JSON.parse(execFileSync('node', ['-e', script], { encoding: 'utf8' })));
  }
  return { ours: middles(ours), cpp: middles(theirs), native: middles(natives), growth: growth() };
}
