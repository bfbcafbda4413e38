// `npm test`: format, lint, layers, types and build in parallel, unit tests, browser tests. The last line
// counts them.
//
//   npm test                 everything
//   npm test -- --unit       the tests that run in Node alone: no compilers, no browser
//   npm test -- NAME …       the tests whose file or title contains a NAME
//
// SEED=n repeats a run of `npm run soak`, which draws its seed and prints it, and opens the application in Firefox
// and WebKit too.
import { spawn, spawnSync } from 'node:child_process';
import { relative } from 'node:path';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { at, root } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

const begun = Date.now();
const given = process.argv.slice(2);
const unitOnly = given.includes('--unit');
const names = given.filter((word) => word !== '--unit');
const unknown = names.find((word) => word.startsWith('-'));
if (unknown) {
  console.error(`npm test takes --unit and names, not ${unknown}.`);
  process.exit(2);
}
const all = !unitOnly && !names.length;

installPackages();
const { ensureChromium } = await import('./lib/chromium.mjs');
const { buildApp, buildNode } = await import('./lib/build.mjs');
const { loadLimits, measureLoad } = await import('./lib/load.mjs');

const soak = Boolean(process.env.SOAK);
process.env.SEED ??= String(soak ? Math.floor(Math.random() * 2 ** 31) : 0);
console.log(`Seed ${process.env.SEED}${soak ? `; SEED=${process.env.SEED} npm run soak repeats this run` : ''}`);

/** Tests that ran, apart from the checks of this script. */
let testCount = 0;
let passed = 0;
let failed = 0;
/** Messages of failures, printed again at the end, where a truncated log still has them. */
const failures = [];
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
/** Runs a command in parallel with others and prints its output when it finishes. */
const runInParallel = (program, args, name) =>
  new Promise((done) => {
    const child = spawn(at('node_modules', '.bin', program), args, { cwd: root });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (output += text));
    child.on('error', (error) => (output += error.message));
    child.on('close', (code) => {
      process.stdout.write(output);
      done(count(code === 0, name));
    });
  });
let stageBegun = begun;
const stages = [];
const stage = (name) => {
  if (stages.length) stages.at(-1).seconds = (Date.now() - stageBegun) / 1000;
  stageBegun = Date.now();
  stages.push({ name });
  console.log(`\n== ${name}`);
};
/** Durations of tests and of files, in seconds. */
const tests = [];
const files = [];
/** How many tests were skipped, by the reason in their titles. */
const skipped = new Map();
const skip = (title) => {
  const why = /\(skipped: ([^)]+)\)/.exec(title)?.[1] ?? `without a reason: ${title}`;
  skipped.set(why, (skipped.get(why) ?? 0) + 1);
};
const readReport = (path) => {
  try {
    return JSON.parse(readFileSync(at(path), 'utf8'));
  } catch {
    return null;
  }
};

async function build() {
  try {
    await buildNode({ force: all });
    await buildApp({ force: all });
    return count(true, 'build');
  } catch (error) {
    console.error(error);
    return count(false, 'build');
  }
}

/** Bytes are the same on every machine, so that a limit on them can be a test. */
function checkLoad() {
  const { first, tasks } = measureLoad();
  const kilobytes = (bytes) => `${(bytes / 1024).toFixed(1)} kB`;
  const largest = tasks.reduce((most, one) => (one.bytes > most.bytes ? one : most));
  console.log(`First load ${kilobytes(first)}; largest task ${largest.route}, ${kilobytes(largest.bytes)} more`);
  count(first <= loadLimits.first, `the first load is ${kilobytes(first)}, over ${kilobytes(loadLimits.first)}`);
  for (const { route, bytes } of tasks.filter((one) => one.bytes > loadLimits.task))
    count(false, `the task ${route} loads ${kilobytes(bytes)}, over ${kilobytes(loadLimits.task)}`);
}

stage(all ? 'Format, lint, layers, types, build' : 'Build');
const layers = ['app', 'core', 'formats', 'server', 'cli', 'demo'];
if (all) {
  await Promise.all([
    runInParallel('eslint', ['.'], 'eslint'),
    (async () => {
      await runInParallel('prettier', ['--check', '--log-level', 'warn', '.'], 'prettier (npm run format fixes it)');
      await runInParallel('depcruise', ['--config', '.dependency-cruiser.cjs', ...layers], 'layers');
      await runInParallel('tsc', ['--noEmit'], 'tsc');
      if (await build()) checkLoad();
    })(),
  ]);
} else await build();

rmSync(at('test-results'), { recursive: true, force: true });
mkdirSync(at('test-results'), { recursive: true });

/** Runs Vitest with some arguments and counts its tests. */
function runUnitTests(args, report) {
  const ok = run('vitest', ['run', '--reporter=dot', '--reporter=json', `--outputFile.json=${report}`, ...args]);
  const found = readReport(report);
  if (!found) return count(false, 'vitest wrote no report');
  let faults = 0;
  for (const { name: path, startTime, endTime, assertionResults, status, message } of found.testResults) {
    const file = relative(root, path);
    files.push({ name: file, seconds: (endTime - startTime) / 1000 });
    for (const one of assertionResults) {
      if (one.status === 'passed' || one.status === 'failed') testCount++;
      const title = `${file}: ${one.fullName}`;
      if (one.status === 'passed') passed++;
      else if (one.status === 'failed') {
        failed++;
        faults++;
        failures.push(`${title}\n${one.failureMessages.join('\n').slice(0, 4_000)}`);
      } else if (!names.length) skip(title);
      if (one.duration) tests.push({ name: title, seconds: one.duration / 1000 });
    }
    if (status === 'failed' && !assertionResults.some((one) => one.status === 'failed')) {
      faults++;
      count(false, `${file}: ${message}`);
    }
  }
  if (!ok && !faults) count(false, 'vitest');
}

stage('Unit tests');
if (names.length) {
  // By file and by title: both runs, without counting a test twice.
  const list = spawnSync(at('node_modules', '.bin', 'vitest'), ['list', '--json'], {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  const known = JSON.parse(list.stdout.slice(list.stdout.indexOf('[')));
  const byFile = [...new Set(known.map(({ file }) => relative(root, file)))].filter((file) =>
    names.some((name) => file.includes(name)),
  );
  const byTitle = known.filter(
    ({ file, name: title }) => !byFile.includes(relative(root, file)) && names.some((name) => title.includes(name)),
  );
  if (byFile.length) runUnitTests(byFile, 'test-results/unit-files.json');
  if (byTitle.length) {
    const pattern = names.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
    const own = [...new Set(byTitle.map(({ file }) => relative(root, file)))];
    runUnitTests([...own, '--testNamePattern', pattern], 'test-results/unit-titles.json');
  }
} else runUnitTests(unitOnly ? ['--project', 'core', '--project', 'app'] : [], 'test-results/unit.json');

if (!unitOnly) {
  stage('Browser tests');
  if (count(ensureChromium(), 'chromium is installed')) {
    const pattern = names.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|');
    const browser = run('playwright', ['test', ...(pattern ? ['--grep', pattern, '--pass-with-no-tests'] : [])]);
    const report = readReport('test-results/report.json');
    if (!report) count(false, 'playwright wrote no report');
    else {
      let faults = 0;
      const walk = (suite, file) => {
        for (const one of suite.suites ?? []) walk(one, one.file ?? file);
        for (const { title, tests: runs, ok } of suite.specs ?? []) {
          const results = runs.flatMap((one) => one.results);
          const name = `e2e/${file}: ${title}`;
          const seconds = results.reduce((sum, { duration }) => sum + duration / 1000, 0);
          if (results.length) {
            tests.push({ name, seconds });
            testCount++;
          }
          const path = `e2e/${file}`;
          const known = files.find((one) => one.name === path);
          if (known) known.seconds += seconds;
          else files.push({ name: path, seconds });
          if (runs.some(({ status }) => status === 'skipped')) {
            if (!names.length) skip(`(skipped: ${runs[0].annotations[0]?.description ?? title})`);
          } else if (runs.some(({ status }) => status === 'flaky')) {
            faults++;
            count(false, `${name}: flaky, it failed and passed on a second try\n${firstError(results)}`);
          } else if (ok) passed++;
          else {
            faults++;
            failed++;
            failures.push(`${name}\n${firstError(results)}`);
          }
        }
      };
      const firstError = (results) =>
        results.flatMap(({ errors }) => errors.map(({ message }) => message ?? ''))[0]?.slice(0, 2_000) ?? '';
      for (const suite of report.suites) walk(suite, suite.file);
      if (!browser && !faults) count(false, 'playwright');
    }
  }
}
if (soak && all) {
  stage('Other browsers');
  const { checkBrowsers } = await import('./browsers.mjs');
  for (const { name, problems, skipped: why } of await checkBrowsers()) {
    if (why) skip(`(skipped: ${why})`);
    else {
      testCount++;
      count(!problems.length, [name, ...problems].join('\n  '));
    }
  }
}
stages.at(-1).seconds = (Date.now() - stageBegun) / 1000;

const slowest = (list) =>
  [...list]
    .sort((a, b) => b.seconds - a.seconds)
    .slice(0, 10)
    .map(({ name, seconds }) => `${seconds.toFixed(1).padStart(7)} s  ${name}`)
    .join('\n');
console.log(`\n== Slowest tests\n${slowest(tests)}\n\n== Slowest files\n${slowest(files)}`);
if (skipped.size) {
  const reasons = [...skipped].map(([why, times]) => `${times}: ${why}`);
  console.log(`\n== Skipped\n${reasons.join('\n')}`);
}
const times = stages.map(({ name, seconds }) => `${name} ${seconds.toFixed(0)} s`).join('; ');
console.log(`\n${times}; ${((Date.now() - begun) / 1000).toFixed(0)} s in all`);
if (failures.length)
  console.error(`\n== What failed\n${failures.join('\n\n')}\n\nSEED=${process.env.SEED} repeats the random cases.`);
if (!testCount) console.error(`\nNo file and no title of a test contains ${names.join(' or ')}.`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed || !testCount ? 1 : 0);
