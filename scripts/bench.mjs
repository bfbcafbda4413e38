// `npm run bench`: measures, prints, and writes bench/results.md. With a name (`kernels`, `scene`,
// `page`) that part alone is measured and printed. `--against FOLDER` measures another checkout,
// with its packages, in turn with this one.
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { at } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
const options = process.argv.slice(2);
const against = options.includes('--against') ? resolve(options[options.indexOf('--against') + 1]) : null;
const only = options.find((one, i) => !one.startsWith('--') && options[i - 1] !== '--against');
const ms = (v) => v.toFixed(2);

async function kernelPart() {
  const { haveCompiler, measureKernels } = await import('../bench/run.mjs');
  if (!haveCompiler()) throw new Error('The bench compares with C++ and needs g++. On Debian: apt-get install g++.');
  const { ours, cpp, native, growth } = await measureKernels();
  const row = (what, mine, its, ratio, own, limit) => `| ${what} | ${mine} | ${its} | ${ratio} | ${own} | ${limit} |`;
  const times = (what, key, unit, plain, limit, mine = ours[key], as = key) =>
    row(
      what,
      `${ms(mine)} ${unit}${plain ? ` (plain ${ms(plain)})` : ''}`,
      `${ms(cpp[as])} ${unit}`,
      `${ms(mine / cpp[as])} ×`,
      `${ms(native[as])} ${unit}, ${ms(mine / native[as])} ×`,
      limit,
    );
  return `## Kernels against the same loops in C++

Medians of five turns, each of 15 runs, the programs in turn; C++ by \`g++\`, doubles, one thread. _Plain_ is the readable TypeScript form.

| what | ours | C++ \`-O3\` | ratio | C++ \`-O3 -march=native\` | limits |
| --- | --- | --- | --- | --- | --- |
${times('project 1,000,000 points', 'project', 'ms', ours.plainProject, '1.5 ×, native 1.2 ×')}
${times('classify 1,000,000 spheres against six planes', 'classify', 'ms', ours.plainClassify, '1.5 ×, native 1.2 ×')}
${times(`the same through the tree, ${(ours.seen * 100).toFixed(1)} % in view, against the C++ linear loop`, 'cull', 'ms', 0, '0.3 ×', ours.cull, 'classify')}
${times('a field of 1,000,000 test boxes, exact, through its tree, against the C++ linear loop by planes', 'field', 'ms', 0, '', ours.field, 'classify')}
${times('first hit of a ray on 1,000,000 triangles, the same traversal', 'ray', 'µs', ours.plainRay, '2 ×')}
${row('the same against the C++ loop over all triangles', `${ms(ours.ray)} µs`, `${ms(cpp.linearRay)} µs`, `${Math.round(cpp.linearRay / ours.ray)} × faster`, `${Math.round(native.linearRay / ours.ray)} × faster`, '2,000 × faster')}

| tree over 1,000,000 spheres | time | against \`Float64Array.prototype.sort\` of 1,000,000 random numbers (${ms(ours.sort)} ms) | limit |
| --- | --- | --- | --- |
| build | ${ms(ours.build)} ms (plain ${ms(ours.plainBuild)}) | ${ms(ours.build / ours.sort)} × | 6 × |
| refit after motion | ${ms(ours.refit)} ms (plain ${ms(ours.plainRefit)}) | ${ms(ours.refit / ours.sort)} × | 0.5 × |

How the cost of a query grows, for views that hold about as many spheres and rays on surfaces of as many triangles:

| items | a view | spheres in view | µs ÷ (log₂ items × spheres in view) | a ray | µs ÷ log₂ items |
| --- | --- | --- | --- | --- | --- |
${growth
  .map(({ count, view, answer, ray }) => {
    const log = Math.log2(count);
    return `| ${count.toLocaleString('en')} | ${ms(view)} µs | ${answer} | ${(view / log / answer).toFixed(4)} | ${ms(ray)} µs | ${ms(ray / log)} |`;
  })
  .join('\n')}
`;
}

/** The scene's measures of a checkout, bundled from its own sources. */
async function sceneOf(folder) {
  const { build } = await import('esbuild');
  const file = at('dist/bench', `scene-${folder === at() ? 'now' : 'before'}.mjs`);
  mkdirSync(at('dist/bench'), { recursive: true });
  await build({
    entryPoints: [at('bench/scene.ts')],
    outfile: file,
    ...{ bundle: true, format: 'esm', platform: 'node', target: 'node20.19', logLevel: 'error' },
    // What the entry takes from this checkout comes from the other one, where that is measured.
    plugins: [
      {
        name: 'from-checkout',
        setup: ({ onResolve }) =>
          onResolve({ filter: /^\.\.\/(app|core|demo|formats)\// }, ({ path, importer }) => {
            if (!importer.endsWith('bench/scene.ts')) return undefined;
            const older = path.replace('state/moment', 'state/situation');
            const found = [path, older]
              .map((one) => resolve(folder, one.slice(3) + '.ts'))
              .find((one) => existsSync(one));
            return { path: found };
          }),
      },
    ],
  });
  return import(pathToFileURL(file).href);
}

async function scenePart() {
  const now = await sceneOf(at());
  const before = against ? await sceneOf(against) : null;
  const turns = (run) => {
    const [a, b] = [[], []];
    for (let i = 0; i < 3; i++) {
      if (before) a.push(run(before));
      b.push(run(now));
    }
    return [a, b].map((times) => times.sort((x, y) => x - y)[1]);
  };
  const [movedBefore, moved] = turns((m) => m.movedBody(40));
  const [boxesBefore, boxes] = turns((m) => m.manyBoxes(3));
  const was = (v) => (v === undefined ? '' : ms(v));
  return `## From a change to the renderer's buffers, in ms

| what | before | now | limit |
| --- | --- | --- | --- |
| one body of the demo moves | ${was(movedBefore)} | ${ms(moved)} | 2 |
| a scene of 5,000 boxes is ready | ${was(boxesBefore)} | ${ms(boxes)} | 300 |
`;
}

async function pagePart() {
  const { buildApp, buildNode } = await import('./lib/build.mjs');
  await Promise.all([buildNode(), buildApp()]);
  const { measurePage } = await import('../bench/page.mjs');
  const { measureLoad } = await import('./lib/load.mjs');
  const { move, drag, visit, playing, instances, drawing, before } = await measurePage(against);
  const row = (name, { numbers, frame }, limit) =>
    `| ${name} | ${frame.count} | ${ms(numbers.median)} | ${ms(numbers.p95)} | ${ms(frame.median)} | ${ms(frame.mean)} | ${ms(frame.p95)} | ${limit} |`;
  const whole = ({ median, most }) => `${Math.round(median)} | ${Math.round(most)}`;
  const visits = (name, { painted, interactive, pictured }, [first, ready, drawn]) =>
    `| ${name}something is painted | ${painted.count} | ${whole(painted)} | ${first} |
| ${name}the page can be worked with | ${interactive.count} | ${whole(interactive)} | ${ready} |
| ${name}the demo's surfaces are on the canvas | ${pictured.count} | ${whole(pictured)} | ${drawn} |`;
  const { first, tasks } = measureLoad();
  const kilobytes = (bytes) => (bytes / 1024).toFixed(1);
  return `## Main-thread work in Frame on the demo scene (82 bodies), in ms

| what | moves | numbers, median | 95 % | frame, median | mean | 95 % | limit |
| --- | --- | --- | --- | --- | --- | --- | --- |
${before ? `${row('before: pointer move', before.move, '')}\n${row('before: dragged camera', before.drag, '')}\n` : ''}${row('pointer move', move, 16)}
${row('dragged camera', drag, 8)}

_Numbers_ is wall time from the event to what is committed to the page, while software WebGL has the same two cores. _Frame_ is thread time: all that the main thread worked from one move to the next, layout, paint and keeping the project included.

| what | ms of the page's thread a frame, median | mean | limit |
| --- | --- | --- | --- |
| the demo plays, seven bodies moving with all that hangs on them | ${ms(playing.median)} | | 8 |
| the camera is dragged, 20,000 instances tinted by it anew | ${ms(instances.median)} | ${ms(instances.mean)} | 8 |
| their tints are uploaded | ${ms(instances.upload)} | | 1 |

## The drawing thread while the camera is dragged, in ms

| where | frames | compose, median | 95 % | submit, median | 95 % | marks, median | 95 % | change to picture, median | 95 % | limit |
| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |
${drawing
  .map(({ what, parts }) => {
    const both = (name) => `${ms(parts[name].median)} | ${ms(parts[name].p95)}`;
    return `| ${what} | ${parts.compose.count} | ${both('compose')} | ${both('submit')} | ${both('marks')} | ${both('change to picture')} | ${what.includes('1,000,000') ? 120 : 50} |`;
  })
  .join('\n')}

Compose and submit together have 4 ms on the demo. _Change to picture_ is from the page's change to the frame in which the GPU has finished the picture; the GPU is software here, on the same two cores.

## The first visit, in ms

| what | visits | median | most | limit |
| --- | --- | --- | --- | --- |
${before ? `${visits('before: ', before.visit, ['', '', ''])}\n` : ''}${visits('', visit, [500, 800, 1200])}

From the call of the address, in a browser that has nothing of it. The page can be worked with when the Chain is on the screen and no task of the page's thread is longer than 50 ms for a second.

| compressed JavaScript | kB | limit |
| --- | --- | --- |
| the page with Frame | ${kilobytes(first)} | 250 |
${tasks.map(({ route, bytes }) => `| ${route}, beyond that | ${kilobytes(bytes)} | 60 |`).join('\n')}
`;
}

const parts = { kernels: kernelPart, scene: scenePart, page: pagePart };
const text = [];
for (const [name, part] of Object.entries(parts)) if (!only || only === name) text.push(await part());
const whole = `# Measurements

\`npm run bench\` wrote this on ${cpus()[0].model.trim()}, Node ${process.version}, Chromium with software WebGL.

${text.join('\n')}`;
console.log(whole);
if (!only) writeFileSync(at('bench/results.md'), whole);
