// `npm test`: format, lint, layers, types and build side by side, unit tests, browser tests. The
// last line counts them.
import { spawn, spawnSync } from 'node:child_process';
import { relative } from 'node:path';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { at, root } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
const { ensureChromium } = await import('./lib/chromium.mjs');
const { buildApp, buildNode } = await import('./lib/build.mjs');

let passed = 0;
let failed = 0;
const count = (ok, name) => {
  if (ok) passed++;
  else {
    failed++;
    failures.push(name);
    console.error(`FAILED: ${name}`);
  }
  return ok;
};
const run = (program, args) =>
  spawnSync(at('node_modules', '.bin', program), args, { cwd: root, stdio: 'inherit' }).status === 0;
/** The same beside others: what it says comes out in one piece when it is done. */
const runBeside = (program, args, name) =>
  new Promise((done) => {
    const child = spawn(at('node_modules', '.bin', program), args, { cwd: root });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text));
    child.on('error', (error) => (said += error.message));
    child.on('close', (code) => {
      process.stdout.write(said);
      done(count(code === 0, name));
    });
  });
/** What failed, with its message, said again at the end: where only the end of a log is kept, it is still there. */
const failures = [];
const stage = (name) => console.log(`\n== ${name}`);

stage('Format, lint, layers, types, build');
const rooms = ['app', 'core', 'formats', 'server', 'cli', 'demo'];
await Promise.all([
  runBeside('eslint', ['.'], 'eslint'),
  (async () => {
    await runBeside('prettier', ['--check', '--log-level', 'warn', '.'], 'prettier (npm run format mends it)');
    await runBeside('depcruise', ['--config', '.dependency-cruiser.cjs', ...rooms], 'the layers of the house');
    await runBeside('tsc', ['--noEmit'], 'tsc');
    try {
      await buildNode({ force: true });
      await buildApp({ force: true });
      count(true, 'build');
    } catch (error) {
      console.error(error);
      count(false, 'build');
    }
  })(),
]);

rmSync(at('test-results'), { recursive: true, force: true });
mkdirSync(at('test-results'), { recursive: true });

stage('Unit tests');
const unit = run('vitest', [
  'run',
  '--reporter=default',
  '--reporter=json',
  '--outputFile.json=test-results/unit.json',
]);
try {
  const report = JSON.parse(readFileSync(at('test-results/unit.json'), 'utf8'));
  passed += report.numPassedTests;
  failed += report.numFailedTests;
  for (const file of report.testResults)
    for (const one of file.assertionResults.filter((one) => one.status === 'failed'))
      failures.push(`${relative(root, file.name)}: ${one.fullName}\n${one.failureMessages.join('\n').slice(0, 4_000)}`);
  if (!unit && !report.numFailedTests) count(false, 'vitest');
} catch {
  count(false, 'vitest gave no report');
}

stage('Browser tests');
if (count(ensureChromium(), 'chromium is installed')) {
  const browser = run('playwright', ['test']);
  try {
    const { stats } = JSON.parse(readFileSync(at('test-results/report.json'), 'utf8'));
    passed += stats.expected + stats.flaky;
    failed += stats.unexpected;
    if (!browser && !stats.unexpected) count(false, 'playwright');
  } catch {
    count(false, 'playwright gave no report');
  }
}

if (failures.length) console.error(`\n== What failed\n${failures.join('\n\n')}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
