// Makes the package in dist/package: the core as modules with their types, and the command line without the server and
// the application. `npm run package` packs it into one file.
import { copyFileSync, cpSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { build } from 'esbuild';
import ts from 'typescript';
import { buildNode } from './lib/build.mjs';
import { at } from './lib/fresh.mjs';
import { packageTypes } from './lib/packageTypes.mjs';

const out = at('dist', 'package');
const { version, license, description, engines } = JSON.parse(readFileSync(at('package.json'), 'utf8'));
/** Modules that programs import, by their names in the package. */
const modules = { index: 'core/index.ts', conventions: 'core/package/conventions.ts', matrices: 'core/package/matrices.ts' }; // prettier-ignore

const write = (path, text) => {
  mkdirSync(dirname(join(out, path)), { recursive: true });
  writeFileSync(join(out, path), text);
};

rmSync(out, { recursive: true, force: true });
const shared = { entryPoints: Object.fromEntries(Object.entries(modules).map(([name, path]) => [name, at(path)])), bundle: true, minify: true, platform: 'neutral', target: 'es2022', sourcemap: true, logLevel: 'warning' }; // prettier-ignore
await build({ ...shared, format: 'esm', splitting: true, outdir: join(out, 'esm') });
await build({ ...shared, format: 'cjs', outdir: join(out, 'cjs') });
write('cjs/package.json', '{ "type": "commonjs" }\n');

// The types, with those that are made of schemas written out.
const emitted = new Map();
const options = { declaration: true, emitDeclarationOnly: true, strict: true, skipLibCheck: true, rootDir: at('core'), outDir: out, target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext, moduleResolution: ts.ModuleResolutionKind.Bundler, lib: ['lib.es2023.d.ts', 'lib.dom.d.ts'], types: ['node'] }; // prettier-ignore
ts.createProgram(Object.values(modules).map((path) => at(path)), options).emit(undefined, (path, text) => emitted.set(relative(out, path), text)); // prettier-ignore
emitted.set('package/types.d.ts', await packageTypes());
const written = new Set();
function writeTypes(path) {
  const text = emitted.get(path);
  if (text === undefined || written.has(path)) return;
  written.add(path);
  if (/from '(?!\.)/.test(text)) throw new Error(`The types of ${path} name another package.`);
  for (const flavour of ['esm', 'cjs']) write(join(flavour, 'types', path), text.replace(/from '(\.[^']*)'/g, "from '$1.js'")); // prettier-ignore
  for (const [, name] of text.matchAll(/from '(\.[^']*)'/g)) writeTypes(join(dirname(path), `${name}.d.ts`));
}
const typesOf = (path) => path.replace(/^core\//, '').replace(/\.ts$/, '.d.ts');
for (const path of Object.values(modules)) writeTypes(typesOf(path));

// The command line, with its packages; `serve` says that the application is not here.
const folder = await buildNode();
await build({
  entryPoints: { cli: at('cli/main.ts') },
  outdir: join(out, 'cli'),
  ...{ bundle: true, splitting: true, format: 'esm', platform: 'node', mainFields: ['module', 'main'], target: 'node20.19', logLevel: 'warning' }, // prettier-ignore
  banner: { js: "import { createRequire as __createRequire } from 'node:module'; const require = __createRequire(import.meta.url);" }, // prettier-ignore
  plugins: [
    {
      name: 'without-server',
      setup: ({ onResolve }) => onResolve({ filter: /server\/main$/ }, () => ({ path: at('cli/noServer.ts') })),
    },
  ],
});
cpSync(join(folder, 'assets'), join(out, 'cli', 'assets'), { recursive: true });
write('bin/astrolabe.js', "#!/usr/bin/env node\nimport '../cli/cli.js';\n");

const entry = (name, path) =>
  Object.fromEntries([['import', 'esm'], ['require', 'cjs']].map(([kind, flavour]) => [kind, { types: `./${flavour}/types/${typesOf(path)}`, default: `./${flavour}/${name}.js` }])); // prettier-ignore
const exports = Object.fromEntries(Object.entries(modules).map(([name, path]) => [name === 'index' ? '.' : `./${name}`, entry(name, path)])); // prettier-ignore
write('package.json', JSON.stringify({ name: 'astrolabe', version, description, license, type: 'module', sideEffects: false, engines, bin: { astrolabe: 'bin/astrolabe.js' }, exports: { ...exports, './package.json': './package.json' } }, null, 2) + '\n'); // prettier-ignore

// Its pages, and those that they link to.
write('README.md', readFileSync(at('docs', 'package.md'), 'utf8').replace(/\]\((?!http|#)/g, '](docs/'));
for (const name of [
  'compute.md',
  'deliver.md',
  'pictures.md',
  'stability.md',
  'derivations.md',
  ...readdirSync(at('docs')).filter((one) => one.endsWith('.schema.json')),
]) {
  // prettier-ignore
  mkdirSync(join(out, 'docs'), { recursive: true });
  copyFileSync(at('docs', name), join(out, 'docs', name));
}
copyFileSync(at('CHANGELOG.md'), join(out, 'CHANGELOG.md'));
if (process.argv.includes('--pack')) {
  const { execFileSync } = await import('node:child_process');
  execFileSync('npm', ['pack', out, '--pack-destination', at('dist')], { stdio: 'inherit', cwd: at() });
}
