// `npm run bench`: measures, prints, and writes bench/results.md.
import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { at } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
const { buildApp, buildNode } = await import('./lib/build.mjs');
await Promise.all([buildNode(), buildApp()]);
const { measurePage } = await import('../bench/page.mjs');

const { move, drag } = await measurePage();
const ms = (v) => v.toFixed(2);
const row = (name, { count, median, p95, most }, limit) =>
  `| ${name} | ${count} | ${ms(median)} | ${ms(p95)} | ${ms(most)} | ${limit} |`;
const text = `# Measurements

\`npm run bench\` wrote this on ${cpus()[0].model.trim()}, Node ${process.version}, Chromium with software WebGL.

## Main-thread work on the demo scene (82 bodies), in ms

| what | moves | median | 95 % | most | limit |
| --- | --- | --- | --- | --- | --- |
${row('pointer move to updated numbers', move, 16)}
${row('dragged camera frame: chain, sheet, overlays', drag, 16)}
`;
console.log(text);
writeFileSync(at('bench/results.md'), text);
