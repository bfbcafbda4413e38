// `npm run docs`: writes the generated documentation: docs/compute.schema.json, docs/compute.answers.schema.json and
// the reference of the operations in docs/compute.md.
import { readFileSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { format } from 'prettier';
import { at } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
const print = (...options) =>
  execFileSync('node', [at('bin/astrolabe.js'), 'schema', ...options], { encoding: 'utf8' });
const json = (text) => format(text, { parser: 'json', printWidth: 120 });
writeFileSync(at('docs/compute.schema.json'), await json(print()));
writeFileSync(at('docs/compute.answers.schema.json'), await json(print('--answers')));
const page = readFileSync(at('docs/compute.md'), 'utf8');
const [begin, end] = ['<!-- operations -->', '<!-- end of operations -->'];
const [from, to] = [page.indexOf(begin), page.indexOf(end)];
if (from < 0 || to < from) throw new Error(`docs/compute.md has no ${begin} … ${end}`);
const written = `${page.slice(0, from + begin.length)}\n\n${print('--reference')}\n${page.slice(to)}`;
writeFileSync(at('docs/compute.md'), await format(written, { parser: 'markdown', printWidth: 120 }));
