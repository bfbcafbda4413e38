// What `npm pack` packs: the command line with its application, and the core as a module with its types.
// With --module the application is left as it is.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { build } from 'esbuild';
import ts from 'typescript';
import { buildApp, buildNode } from './lib/build.mjs';
import { at } from './lib/fresh.mjs';

const out = at('dist', 'package');
await buildNode();
if (!process.argv.includes('--module')) await buildApp();
rmSync(out, { recursive: true, force: true });
mkdirSync(out, { recursive: true });
await build({
  entryPoints: [at('core', 'index.ts')],
  outfile: join(out, 'index.js'),
  ...{ bundle: true, minify: true, format: 'esm', platform: 'neutral', target: 'es2022', logLevel: 'warning' },
});

const made = new Map();
const options = { ...{ declaration: true, emitDeclarationOnly: true, strict: true, skipLibCheck: true }, rootDir: at('core'), outDir: out, target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext, moduleResolution: ts.ModuleResolutionKind.Bundler, lib: ['lib.es2023.d.ts', 'lib.dom.d.ts'], types: ['node'] }; // prettier-ignore
ts.createProgram([at('core', 'index.ts')], options).emit(undefined, (path, text) => made.set(path, text));
// Only what the module's own types lead to: they name what comes in and goes out, and nothing within.
const write = (path) => {
  const text = made.get(path);
  const target = join(out, relative(out, path));
  if (text === undefined || existsSync(target)) return;
  mkdirSync(dirname(target), { recursive: true });
  writeFileSync(target, text.replace(/from '(\.[^']*)'/g, "from '$1.js'"));
  for (const [, name] of text.matchAll(/from '(\.[^']*)'/g)) write(join(dirname(path), `${name}.d.ts`));
};
write(join(out, 'index.d.ts'));
const foreign = [...made.keys()].filter((path) => existsSync(path) && /from '(?!\.)/.test(readFileSync(path, 'utf8')));
if (foreign.length) throw new Error(`Types of the package name other packages: ${foreign.join(', ')}`);
