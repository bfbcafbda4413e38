// `npm run bench`: measures, prints, and writes bench/results.md. With a name (`kernels`, `page`) that part alone is measured and printed.
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { at } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
const only = process.argv[2];
const ms = (v) => v.toFixed(2);

async function kernelPart() {
  const { haveCompiler, measureKernels } = await import('../bench/run.mjs');
  if (!haveCompiler()) throw new Error('The bench compares with C++ and needs g++. On Debian: apt-get install g++.');
  const { ours, cpp, growth } = await measureKernels();
  const row = (what, mine, its, ratio, limit) => `| ${what} | ${mine} | ${its} | ${ratio} | ${limit} |`;
  const times = (what, key, unit, plain, limit, mine = ours[key], its = cpp[key]) =>
    row(
      what,
      `${ms(mine)} ${unit}${plain ? ` (plain ${ms(plain)})` : ''}`,
      `${ms(its)} ${unit}`,
      `${ms(mine / its)} ×`,
      limit,
    );
  return `## Kernels against the same loops in C++

Medians of five turns, each of 15 runs, the two programs in turn; C++ by \`g++ -O3\`, doubles, one thread. _Plain_ is the readable TypeScript form.

| what | ours | C++ | ratio | limit |
| --- | --- | --- | --- | --- |
${times('project 1,000,000 points', 'project', 'ms', ours.plainProject, '1.5 ×')}
${times('classify 1,000,000 spheres against six planes', 'classify', 'ms', ours.plainClassify, '1.5 ×')}
${times(`the same through the tree, ${(ours.seen * 100).toFixed(1)} % in view, against the C++ linear loop`, 'cull', 'ms', 0, '0.3 ×', ours.cull, cpp.classify)}
${times('first hit of a ray on 1,000,000 triangles, the same traversal', 'ray', 'µs', ours.plainRay, '2 ×')}
${row('the same against the C++ loop over all triangles', `${ms(ours.ray)} µs`, `${ms(cpp.linearRay)} µs`, `${Math.round(cpp.linearRay / ours.ray)} × faster`, '2,000 × faster')}

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

async function pagePart() {
  const { buildApp, buildNode } = await import('./lib/build.mjs');
  await Promise.all([buildNode(), buildApp()]);
  const { measurePage } = await import('../bench/page.mjs');
  const { move, drag, visit } = await measurePage();
  const row = (name, { numbers, frame }, limit) =>
    `| ${name} | ${frame.count} | ${ms(numbers.median)} | ${ms(numbers.p95)} | ${ms(frame.median)} | ${ms(frame.mean)} | ${ms(frame.p95)} | ${limit} |`;
  const whole = ({ median, most }) => `${Math.round(median)} | ${Math.round(most)}`;
  return `## Main-thread work in Frame on the demo scene (82 bodies), in ms

| what | moves | numbers, median | 95 % | frame, median | mean | 95 % | limit |
| --- | --- | --- | --- | --- | --- | --- | --- |
${row('pointer move', move, 16)}
${row('dragged camera', drag, 8)}

_Numbers_ is wall time from the event to what is committed to the page, while software WebGL has the same two cores. _Frame_ is thread time: all that the main thread worked from one move to the next, layout, paint and keeping the project included.

## The first visit, in ms

| what | visits | median | most | limit |
| --- | --- | --- | --- | --- |
| something is painted | ${visit.painted.count} | ${whole(visit.painted)} | |
| the page can be worked with | ${visit.interactive.count} | ${whole(visit.interactive)} | 1500 |

From the call of the address, in a browser that has nothing of it, until the Chain is on the screen and no task of the page is longer than 50 ms for a second.
`;
}

const parts = { kernels: kernelPart, page: pagePart };
const text = [];
for (const [name, part] of Object.entries(parts)) if (!only || only === name) text.push(await part());
const whole = `# Measurements

\`npm run bench\` wrote this on ${cpus()[0].model.trim()}, Node ${process.version}, Chromium with software WebGL.

${text.join('\n')}`;
console.log(whole);
if (!only) writeFileSync(at('bench/results.md'), whole);
